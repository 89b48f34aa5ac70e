package chart_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
)

// The changes of a twelve-bar blues, and how a player counts a tick.
func Example() {
	key, _ := harmony.ReadKey("C dominant")
	scheme, _ := chart.FindScheme("slow change")
	c := chart.Chart{Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2, Bars: scheme.Bars(key.Tonic, chart.FourFour)}
	for _, change := range c.Changes()[:3] {
		fmt.Printf("%s to %s at bar %d\n", change.Leaving.Chord.Symbol(), change.Arriving.Chord.Symbol(), change.Arriving.Bar+1)
	}
	fmt.Println(c.Meter.Counted(960 + 240))
	// Output:
	// C7 to F7 at bar 5
	// F7 to C7 at bar 7
	// C7 to G7 at bar 9
	// the and of beat 3
}
