package change

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase/phrasetest"
)

func TestAConnectorRunsOnFromTheChange(t *testing.T) {
	c := phrasetest.Song(t, "C", harmony.DominantMode, "C7", "F7")
	ch := c.Changes()[0]
	position, err := neck.FindPosition(neck.Standard(), 0, "E")
	require.NoError(t, err)
	box, err := c.Key.Box("")
	require.NoError(t, err)
	fit, _ := ChromaticRuns(Goal{
		Instrument: neck.Standard(), Window: position.Window, Key: c.Key, Box: box, Leaving: ch.Leaving.Chord, Arriving: ch.Arriving.Chord, Target: neck.Place{String: 5, Fret: 8},
	}, 4)
	triplet, err := c.Meter.Subdivision("triplet")
	require.NoError(t, err)
	p, start := RunPhrase(c, ch, fit[0], triplet)
	assert.Equal(t, 1920, start)
	ticks := []string{}
	for n, label := range p.Labels(neck.Standard(), c.Key) {
		ticks = append(ticks, fmt.Sprintf("%d %s", p.Events[n].Tick, label.Degree))
	}
	assert.Equal(t, "0 R, 160 9, 320 b3, 480 3", strings.Join(ticks, ", "), "the 3 falls on beat 2")

	back := c.Changes()[1]
	require.True(t, back.Wraps())
	fit, _ = ChromaticRuns(Goal{
		Instrument: neck.Standard(), Window: position.Window, Key: c.Key, Box: box, Leaving: back.Leaving.Chord, Arriving: back.Arriving.Chord, Target: neck.Place{String: 6, Fret: 8},
	}, 4)
	p, start = RunPhrase(c, back, fit[0], triplet)
	assert.Zero(t, start, "back at the top it runs on in bar 1")
	assert.Equal(t, "C7", p.Chords[0].Chord.Symbol())
}
