package routine_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/routine"
)

func Example() {
	key, _ := harmony.ParseKey("C", harmony.DominantMode)
	c := chart.Chart{Title: "A blues", Key: key, Meter: chart.FourFour, Tempo: 100, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
	r := routine.Routine{Name: "three keys", Segments: []routine.Segment{{Choruses: 1, End: routine.End{KeyBy: routine.Fourths, TempoBy: 10, Again: 2}}}}
	p, ok := r.First(c), true
	for ok {
		fmt.Printf("%s7 at %d, %.1f seconds\n", p.Chart.Key.Tonic, p.Chart.Tempo, p.Seconds())
		p, ok = r.Next(c, p.Place, false)
	}
	// Output:
	// C7 at 100, 28.8 seconds
	// F7 at 110, 26.2 seconds
	// Bb7 at 120, 24.0 seconds
}
