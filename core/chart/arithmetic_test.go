package chart

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestRunsAreCountedBack(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	for _, run := range []struct {
		subdivision string
		notes       int
		want        string
	}{
		{"sixteenth", 8, "the second sixteenth of beat 3 of bar 4"}, {"triplet", 5, "the last triplet of beat 3 of bar 4"},
		{"eighth", 4, "the and of beat 3 of bar 4"}, {"quarter", 1, "beat 1 of bar 5"}, {"eighth", 50, "the and of beat 4 of four bars before bar 1"},
	} {
		s, err := c.Meter.Subdivision(run.subdivision)
		require.NoError(t, err)
		arrival := 4 * 1920
		if run.notes == 50 {
			arrival = 3 * 1920
		}
		r, err := c.CountBack(arrival, run.notes, s)
		require.NoError(t, err)
		assert.Equal(t, run.want, c.Timeline().CountedInBar(r.Start), run.subdivision)
		assert.Equal(t, arrival, r.Ticks()[run.notes-1])
	}
}

func TestRunsThatCannotBe(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	c.Bars = c.Bars[:2]
	eighth, err := c.Meter.Subdivision("eighth")
	require.NoError(t, err)
	triplet, err := c.Meter.Subdivision("triplet")
	require.NoError(t, err)
	_, err = c.CountBack(5759, 2, eighth)
	require.NoError(t, err, "the first bar of the next chorus may be landed in")
	for want, run := range map[string]func() error{
		"a run of 18 notes in eighths is longer than the chart, or has none: 1 to 17": func() error { _, err := c.CountBack(1920, 18, eighth); return err },
		"a run of 0 notes in eighths is longer than the chart, or has none: 1 to 17":  func() error { _, err := c.CountBack(1920, 0, eighth); return err },
		"tick 5760 is not in the chart; it has ticks 0 to 3840":                       func() error { _, err := c.CountBack(5760, 2, eighth); return err },
		"no triplet that counts back from beat 1 starts there; the nearest before is the second triplet of beat 3": func() error {
			_, err := c.RunBetween(960+240, 1920, triplet)
			return err
		},
		"no eighth that counts back from beat 1 starts there; the nearest before is the and of beat 4": func() error { _, err := c.RunBetween(1920, 1920, eighth); return err },
		"a tempo of 10 is out of range: 20 to 400":                                                     func() error { _, err := Ladder(10, 100); return err },
	} {
		var field *FieldError
		err := run()
		require.ErrorAs(t, err, &field)
		assert.Equal(t, want, field.Detail)
	}
}

// Counting back and between agree, in every meter and subdivision.
func TestRunsHold(t *testing.T) {
	tonic := twelveBar(t, "quick change", "C").Key.Tonic
	rapid.Check(t, func(t *rapid.T) {
		m := rapid.SampledFrom(Meters).Draw(t, "meter")
		c := Chart{Meter: m, Tempo: 100, Bars: Schemes[0].Bars(tonic, m)}
		s := rapid.SampledFrom(m.Subdivisions()).Draw(t, "subdivision")
		arrival := rapid.IntRange(1, 12).Draw(t, "bar") * m.BarTicks()
		notes := rapid.IntRange(2, 12).Draw(t, "notes")
		back, err := c.CountBack(arrival, notes, s)
		require.NoError(t, err)
		between, err := c.RunBetween(back.Start, arrival, s)
		require.NoError(t, err)
		assert.Equal(t, back, between)
		assert.Equal(t, arrival-back.Start, (notes-1)*m.BeatTicks()/s.PerBeat)
	})
}

func TestSpeed(t *testing.T) {
	eighth, triplet, sixteenth := Subdivision{"eighth", 2}, Subdivision{"triplet", 3}, Subdivision{"sixteenth", 4}
	assert.InDelta(t, 4.0, NotesPerSecond(120, eighth), 1e-9)
	assert.InDelta(t, 80.0, EqualTempo(120, eighth, triplet), 1e-9)
	assert.InDelta(t, 60.0, EqualTempo(120, eighth, sixteenth), 1e-9)
	rungs, err := Ladder(60, 84)
	require.NoError(t, err)
	assert.Equal(t, []int{60, 63, 66, 69, 72, 76, 80, 84}, rungs)
	rungs, err = Ladder(25, 21)
	require.NoError(t, err)
	assert.Equal(t, []int{25, 24, 23, 22, 21}, rungs)
	rungs, err = Ladder(96, 96)
	require.NoError(t, err)
	assert.Equal(t, []int{96}, rungs)
}

// On a vamp the downbeats are what a line may aim at; elsewhere the changes.
func TestArrivals(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	assert.Equal(t, c.Changes(), c.TargetChanges())
	for _, bars := range []int{1, 4} {
		vamp := c
		vamp.Bars = make([]Bar, bars)
		for n := range vamp.Bars {
			vamp.Bars[n] = c.Bars[0]
		}
		assert.Empty(t, vamp.Changes())
		arrivals := vamp.TargetChanges()
		require.Len(t, arrivals, bars)
		for n, a := range arrivals {
			assert.True(t, a.Stays())
			assert.Equal(t, (n+1)*1920, a.Tick)
			assert.Equal(t, n == bars-1, a.Wraps())
		}
	}
}

func TestHowLongAChordHasSounded(t *testing.T) {
	c := twelveBar(t, "slow change", "C")
	got := []int{}
	for _, ch := range c.Changes() {
		got = append(got, c.TicksBefore(ch)/1920)
	}
	assert.Equal(t, []int{4, 2, 2, 1, 1, 1, 1}, got, "I for four bars, IV for two, I for two, V, IV, I, V")
}

func TestStrongBeats(t *testing.T) {
	for meter, want := range map[string][]int{"4/4": {0, 960}, "12/8": {0, 1440}, "3/4": {0}, "6/8": {0, 720}} {
		m, err := ParseMeter(meter)
		require.NoError(t, err)
		strong := []int{}
		for tick := 0; tick < m.BarTicks(); tick += 60 {
			if m.IsStrong(tick) {
				strong = append(strong, tick)
			}
		}
		assert.Equal(t, want, strong, meter)
		assert.True(t, m.IsStrong(-m.BarTicks()), "in a pickup too")
	}
}
