package transcribe_test

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/core/take/transcribe"
)

// Two notes over a shuffle: the second is an off-beat eighth, played a little late.
func Example() {
	key, _ := harmony.ReadKey("C dominant")
	c := chart.Chart{Title: "A blues", Key: key, Meter: chart.FourFour, Tempo: 120, Feel: chart.Shuffle, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
	written := transcribe.Write(transcribe.Order{
		Notes: []listen.Note{{Onset: 1, Length: 0.3, Pitch: 64, Confidence: 1}, {Onset: 1.36, Length: 0.1, Pitch: 67, Confidence: 1}},
		Chart: c, Instrument: neck.Standard(), Hand: neck.Standard().WindowFrom(7), Clock: transcribe.ClockFor(c, 1, 0),
	})
	for n, e := range written.Phrase.Events {
		fmt.Printf("tick %d, string %d, fret %d, %.0f ms late\n", e.Tick, e.String, e.Fret, 1000*written.Places[n].Late)
	}
	// Output:
	// tick 0, string 3, fret 9, 0 ms late
	// tick 240, string 2, fret 8, 27 ms late
}
