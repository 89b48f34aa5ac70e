package chart_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
)

func timelineOf(t require.TestingT, meter chart.Meter, bars int) (chart.Chart, chart.Timeline) {
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	c := chart.Chart{Title: "A", Key: key, Meter: meter, Tempo: 100, Bars: chart.EmptyBars(bars, meter)}
	return c, c.Timeline()
}

func TestTimelineCountsBarsAndBeats(t *testing.T) {
	_, line := timelineOf(t, chart.TwelveEight, 12)
	assert.Equal(t, 12, line.Bars())
	assert.Equal(t, 12*2880, line.Ticks())
	for _, c := range []struct{ tick, bar, beat, into int }{
		{0, 0, 0, 0}, {719, 0, 0, 719}, {720, 0, 1, 0}, {2880, 1, 0, 0}, {12 * 2880, 12, 0, 0}, {12*2880 + 1500, 12, 2, 60}, {-1, -1, 3, 719},
	} {
		bar, beat, into := line.Place(c.tick)
		assert.Equal(t, []int{c.bar, c.beat, c.into}, []int{bar, beat, into}, "tick %d", c.tick)
	}
	// A tick on a bar line belongs to the bar before it.
	for tick, bars := range map[int]int{0: 0, 1: 1, 2879: 1, 2880: 1, 2881: 2, 5760: 2, 5761: 3} {
		assert.Equal(t, bars, line.BarsUntil(tick), "tick %d", tick)
	}
	assert.True(t, line.IsStrong(1440))
	assert.False(t, line.IsStrong(720))
	chorus, in := line.Chorus(-1)
	assert.Equal(t, []int{-1, 11}, []int{chorus, in})
}

// The bar of a tick begins at or before it, the next one after it, and repeats are played out.
func TestTimelineProperties(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		meter := rapid.SampledFrom(chart.Meters).Draw(t, "meter")
		c, _ := timelineOf(t, meter, rapid.IntRange(2, 20).Draw(t, "bars"))
		c, err := c.Repeat(0, 2, 2)
		require.NoError(t, err)
		line := c.Timeline()
		assert.Equal(t, len(c.PlayedBars()), line.Bars())
		assert.Equal(t, c.Ticks(), line.Ticks())
		tick := rapid.IntRange(-100000, 100000).Draw(t, "tick")
		bar, beat, into := line.Place(tick)
		assert.LessOrEqual(t, line.Start(bar), tick)
		assert.Greater(t, line.Start(bar+1), tick)
		assert.Equal(t, tick, line.Start(bar)+beat*meter.BeatTicks()+into)
		assert.Less(t, beat, meter.Beats())
	})
}
