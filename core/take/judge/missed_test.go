package judge

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/core/phrase/phrasetest"
	"undaris/core/take/transcribe"
)

// Over C7 F7 C7 …, quick change: B on the F7 of bar 2 of either chorus is no tone of it, A on the one of bar 5 is.
func TestMissedChanges(t *testing.T) {
	c := phrasetest.TwelveBar(t, "C")
	c.Tempo = 120
	line := c.Timeline()
	bar := func(n int) float64 { return float64(line.Start(n)) / 960 }
	changes := c.Changes()
	require.NotEmpty(t, changes)
	first := changes[0].Arriving
	notes := []listen.Note{{Onset: 0, Length: 0.4, Pitch: 64, Confidence: 1}}
	for chorus := range 2 {
		notes = append(notes, listen.Note{Onset: bar(12*chorus) + float64(first.Tick)/960, Length: 0.9, Pitch: 71, Confidence: 1})
	}
	v := Judge(Order{Notes: notes, Chart: c, Instrument: neck.Standard(), Hand: neck.Standard().WindowFrom(7), Clock: transcribe.ClockFor(c, 0, 0)})
	missed := v.MissedChanges(c)
	require.Len(t, missed, 2)
	for chorus, m := range missed {
		assert.Equal(t, []string{"C7", "F7"}, []string{m.Leaving.Symbol(), m.Arriving.Symbol()})
		assert.Equal(t, 1+chorus, m.Note)
		assert.Equal(t, line.Start(12*chorus)+first.Tick, m.Tick)
	}
}
