package band_test

import (
	"fmt"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

func Example() {
	key, _ := harmony.ParseKey("C", harmony.DominantMode)
	c := chart.Chart{Title: "A blues", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
	p := band.Perform(band.Order{Chart: c, Instrument: neck.Standard(), Bars: len(c.Bars), CountIn: 1})
	parts := map[band.Part]bool{}
	for _, n := range p.Notes {
		parts[n.Part] = true
	}
	fmt.Println(band.StyleFor(c), "in", len(p.Beats)/4, "bars;", p.Chords[1].Chord.Symbol(), "comes at tick", p.Chords[1].Tick)
	fmt.Println(parts[band.Drums], parts[band.Bass], parts[band.Chords], parts[band.Line])
	// Output:
	// shuffle in 13 bars; F7 comes at tick 3840
	// true true true false
}
