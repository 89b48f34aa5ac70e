package standin_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/take/standin"
)

// A player who is always 20 ms late and bends 30 cents flat.
func Example() {
	key, _ := harmony.ReadKey("C dominant")
	c := chart.Chart{Title: "A blues", Key: key, Meter: chart.FourFour, Tempo: 120, Feel: chart.Straight, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
	line := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{{Ticks: 960, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 11}}, Technique: phrase.Technique{Bend: 4}}}}
	played := standin.Play(line, neck.Standard(), c, 0, 0.5, standin.Faults{Late: 20, Flat: 30})
	note := played.Notes[0]
	fmt.Printf("at %.2f s, pitch %.0f, bent by %.0f cents\n", note.Onset, note.Pitch, note.Cents(0.8))
	// Output:
	// at 0.52 s, pitch 70, bent by 170 cents
}
