package analysis_test

import (
	"fmt"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// A push: the 3 of F7 is played an eighth before the chord and rings into it.
func Example() {
	guitar := neck.Standard()
	key, _ := harmony.ReadKey("C dominant")
	c7, _ := harmony.ParseChord("C7")
	f7, _ := harmony.ParseChord("F7")
	p := phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: c7}, {Tick: 1920, Chord: f7}}}
	p.Events = []phrase.Event{
		{Tick: 0, Ticks: 960, Fingered: neck.Fingered{Place: neck.Place{String: 3, Fret: 9}}},
		{Tick: 1680, Ticks: 720, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 10}}},
	}
	for _, landing := range analysis.Landings(p, guitar, key) {
		fmt.Printf("%s: %s, the %s, %s\n", landing.Chord.Symbol(), landing.Note, landing.Degree, landing.Timing)
	}
	verdict := analysis.Judge(p, guitar, key, 100)
	fmt.Printf("%d of %d rest well\n", verdict.Rests.Good, verdict.Rests.Of)
	// Output:
	// F7: A, the 3, early
	// 2 of 2 rest well
}
