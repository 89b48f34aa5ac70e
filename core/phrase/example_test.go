package phrase_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// A phrase is written note by note, and every note says what it is over its chord.
func Example() {
	guitar := neck.Standard()
	key, _ := harmony.ReadKey("C dominant")
	chord, _ := harmony.ParseChord("C7")
	p := phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: chord}}}
	for n, at := range []neck.Place{{String: 3, Fret: 8}, {String: 3, Fret: 9}, {String: 2, Fret: 8}} {
		p, _, _ = p.Apply(guitar, phrase.Edit{Kind: phrase.Put, From: n * 240, Ticks: 240, String: at.String, Fret: at.Fret})
	}
	p, _, _ = p.Apply(guitar, phrase.Edit{Kind: phrase.SetTechnique, Technique: "hammer-on", Value: 1, From: 240, To: 241})
	for n, label := range p.Labels(guitar, key) {
		fmt.Println(label.Note, label.Degree, label.Class, p.Events[n].Names())
	}
	// Output:
	// Eb b3 blue []
	// E 3 chordTone [hammered on]
	// G 5 chordTone []
}
