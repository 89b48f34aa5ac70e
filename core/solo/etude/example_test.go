package etude_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/solo/etude"
)

// Two exercises over a blues, four bars each, ending on the root.
func Example() {
	key, _ := harmony.ReadKey("C dominant")
	scheme, _ := chart.FindScheme("quick change")
	tune := chart.Chart{Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2, Bars: scheme.Bars(key.Tonic, chart.FourFour)}
	position, _ := neck.FindPosition(neck.Standard(), key.Tonic.Class(), "E")
	e, err := etude.Compose(etude.Request{
		Setting:  exercise.Setting{Tune: tune, Instrument: neck.Standard(), Position: position, SpanMM: neck.ComfortableSpanMM},
		Parts:    []etude.Part{{Name: "arpeggios", Exercise: &exercise.Exercise{}}, {Name: "scale", Exercise: &exercise.Exercise{Tones: exercise.ScaleOfChord}}},
		PartBars: 4, Choruses: 1, Ending: etude.OnTheRoot,
	})
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(len(e.Names), "parts,", e.Choruses[0].Blocks[1].Name)
	// Output: 3 parts, chromatic run
}
