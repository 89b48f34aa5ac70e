package lick_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// A lick over C7, moved to F7 in three ways.
func Example() {
	guitar := neck.Standard()
	key, _ := harmony.ReadKey("C dominant")
	c7, _ := harmony.ParseChord("C7")
	f7, _ := harmony.ParseChord("F7")
	p := phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: c7}}}
	for n, at := range []neck.Place{{String: 3, Fret: 9}, {String: 2, Fret: 8}, {String: 2, Fret: 11}} {
		p.Events = append(p.Events, phrase.Event{Tick: n * 480, Ticks: 480, Fingered: neck.Fingered{Place: at}})
	}
	l := lick.Lick{Name: "Up the chord", Tonic: key.Tonic, Phrase: p}
	position, _ := neck.FindPosition(guitar, key.Tonic.Class(), "E")
	for _, move := range l.MovesTo(guitar, position.Window, key, f7) {
		fmt.Println(move.Method+":", move.Text())
	}
	// Output:
	// slide the shape: frets 13 to 16, 49 mm, +5 half steps
	// stay in position: frets 8 to 11, 65 mm, +5 half steps
	// keep the frets: frets 8 to 10, 45 mm, 2 changed
}
