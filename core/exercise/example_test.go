package exercise_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Thirds up the top two strings through the first bar of a blues in C.
func Example() {
	key, _ := harmony.ReadKey("C dominant")
	scheme, _ := chart.FindScheme("quick change")
	tune := chart.Chart{Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2, Bars: scheme.Bars(key.Tonic, chart.FourFour)}
	guitar := neck.Standard()
	position, _ := neck.FindPosition(guitar, key.Tonic.Class(), "E")
	thirds := exercise.Exercise{
		Tones: exercise.Thirds, Over: exercise.Over{Bars: 1},
		Where: exercise.Where{Kind: exercise.AlongStrings, LowString: 1, HighString: 2},
		Time:  exercise.Time{Subdivision: "quarter", NoEnding: true},
	}
	written, err := thirds.Write(exercise.Setting{Tune: tune, Instrument: guitar, Position: position, SpanMM: neck.ComfortableSpanMM})
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, e := range written.Phrase.Events {
		fmt.Printf("%d:%d ", e.String, e.Fret)
	}
	// Output: 2:1 1:0 2:3 1:1 2:5 1:3 2:6 1:5
}
