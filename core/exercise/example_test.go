package exercise_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Chord tones one after the other through the first two bars of a blues.
func Example() {
	guitar := neck.Standard()
	key, _ := harmony.ReadKey("C dominant")
	scheme, _ := chart.FindScheme("quick change")
	c := chart.Chart{Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2, Bars: scheme.Bars(key.Tonic, chart.FourFour)}
	position, _ := neck.FindPosition(guitar, key.Tonic.Class(), "E")
	quarters, _ := c.Meter.Subdivision("quarter")
	p, err := exercise.Sequence{
		Chart: c, Instrument: guitar, Window: position.Window, Tones: exercise.ChordTones, Figure: "one after another", Order: "as written",
		Subdivision: quarters, Bars: 2,
	}.Write()
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, label := range p.Labels(guitar, key) {
		fmt.Print(label.Chord.Symbol(), " ", label.Degree, "  ")
	}
	// Output: C7 R  C7 3  C7 5  C7 b7  F7 5  F7 b7  F7 R  F7 3
}
