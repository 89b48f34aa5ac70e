package change

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// A verse in D and a bridge in F: the hand goes to the same form of the new key, and back at the top.
func TestHandPlacesFollowTheKey(t *testing.T) {
	d, err := harmony.ParseKey("D", harmony.MajorMode)
	require.NoError(t, err)
	f, err := harmony.ParseKey("F", harmony.MajorMode)
	require.NoError(t, err)
	var bars []chart.Bar
	for n, symbol := range []string{"D", "A7", "Bb", "C7"} {
		c, err := harmony.ParseChord(symbol)
		require.NoError(t, err)
		bar := chart.Bar{Spans: []chart.Span{{Chord: c, Beats: 4}}}
		if n == 2 {
			bar.Change.Key = f
		}
		bars = append(bars, bar)
	}
	c := chart.Chart{Title: "two keys", Swing: 1, Feel: chart.Straight, Key: d, Meter: chart.FourFour, Tempo: 100, Bars: bars}
	require.NoError(t, c.Check())
	first, err := neck.FindPosition(guitar, d.Tonic.Class(), "E")
	require.NoError(t, err)
	there, err := neck.FindPosition(guitar, f.Tonic.Class(), "E")
	require.NoError(t, err)

	hand := HandPlaces(c.Timeline(), guitar, first)
	require.Len(t, hand, 2)
	assert.Equal(t, 0, hand[0].Tick)
	assert.Equal(t, first.Window, hand[0].Position.Window)
	assert.Equal(t, 2*chart.FourFour.BarTicks(), hand[1].Tick)
	assert.Equal(t, there.Form, hand[1].Position.Form)
	for tick, want := range map[int]neck.Position{-1: hand[0].Position, 0: hand[0].Position, hand[1].Tick - 1: hand[0].Position, hand[1].Tick: hand[1].Position, 4000: hand[1].Position} {
		assert.Equal(t, want, PositionAt(hand, tick), "tick %d", tick)
	}

	path, err := PathRequest{Strategy: ThirdsFirst, Instrument: guitar, Hand: hand, Changes: c.TargetChanges()}.Find()
	require.NoError(t, err)
	for _, l := range path.Targets {
		w := PositionAt(hand, l.Change.Arriving.Tick).Window
		assert.True(t, l.Fret >= w.Low && l.Fret <= w.High, "%s is landed on at fret %d, where the hand has %d to %d", l.Change.Arriving.Chord.Symbol(), l.Fret, w.Low, w.High)
	}

	sent := HandPlaces(c.Timeline(), guitar, first, HandPlace{Tick: hand[1].Tick, Position: first})
	assert.Equal(t, first, sent[1].Position, "where the hand is sent it goes")
}
