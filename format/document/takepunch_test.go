package document

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fourBars is a chart of four bars of two seconds each.
func fourBars() Chart {
	c := oneBarChart("C", 120)
	for range 3 {
		c.Bars = append(c.Bars, c.Bars[0])
	}
	return c
}

func takeWith(c Chart, start float64, at ...float64) Take {
	d := Take{Name: "n", Source: "midi", Chart: c, Start: start}
	for _, onset := range at {
		d.Notes = append(d.Notes, TakeNote{Onset: onset, Length: 0.3, Pitch: 60, Attack: "picked", Confidence: 1})
	}
	return d
}

func TestBarsArePlayedAgain(t *testing.T) {
	// Bars begin at 1, 3, 5, 7; and in the second chorus at 9, 11, …
	before := takeWith(fourBars(), 1, 1, 2.9, 2.97, 3.5, 4.97, 5, 11.2)
	again := takeWith(fourBars(), 0.5, 0.5, 1, 2.48, 2.9) // begins with bar 2
	again.From = 2
	got, splice, err := before.Punched(again, 2, 2)
	require.NoError(t, err)
	assert.Equal(t, []float64{1, 2.9, 3, 3.5, 4.97, 5, 11.2}, onsets(got), "2.97 is the first note of bar 2, and 2.48 of what was played again the first of bar 3")
	assert.Equal(t, Splice{At: 3, Until: 5, From: 0.5}, splice)
	assert.InDelta(t, 0.1, got.Notes[1].Length, 1e-9, "a note that rings into the bar ends there")
	assert.Equal(t, []string{"bar 2 was played again"}, got.Remarks)

	got, splice, err = before.Punched(again, 6, 7)
	require.NoError(t, err, "the same bars of the second chorus")
	assert.Equal(t, Splice{At: 11, Until: 15, From: 0.5}, splice)
	assert.Equal(t, []float64{1, 2.9, 2.97, 3.5, 4.97, 5, 11, 11.5, 12.98, 13.4}, onsets(got))

	again.Start, again.Delay = 0.4, 100
	_, splice, err = before.Punched(again, 2, 2)
	require.NoError(t, err)
	assert.InDelta(t, 0.5, splice.From, 1e-9, "the delay of the device is taken off")
}

// However often bars are played again the take can be kept, and says so once.
func TestBarsArePlayedAgainManyTimes(t *testing.T) {
	long := fourBars()
	for range 14 {
		long.Bars = append(long.Bars, fourBars().Bars...)
	}
	d := takeWith(long, 1, 1)
	for n := range 60 {
		var err error
		d, _, err = d.Punched(takeWith(long, 1, 1), n+1, n+1)
		require.NoError(t, err)
		d, _, err = d.Punched(takeWith(long, 1, 1), 7, 7)
		require.NoError(t, err)
	}
	require.Len(t, d.Remarks, maxTakeRemarks)
	assert.Equal(t, []string{"bar 59 was played again", "bar 60 was played again", "bar 7 was played again"}, d.Remarks[47:])
	_, err := d.Checked()
	require.NoError(t, err)
}

func TestBarsThatCannotBePlayedAgain(t *testing.T) {
	before := takeWith(fourBars(), 1, 1)
	sound := before
	sound.Sound = &TakeSound{Rate: 44100}
	other := before
	other.Sound = &TakeSound{Rate: 48000}
	slow := before
	slow.Speed = 80
	early := takeWith(fourBars(), -3, 0)
	for name, c := range map[string]struct {
		before, again Take
		from, to      int
		says          string
	}{
		"no bar":           {before, before, 0, 1, "no bars of one chorus"},
		"backwards":        {before, before, 3, 2, "no bars of one chorus"},
		"two choruses":     {before, before, 4, 5, "no bars of one chorus"},
		"another tempo":    {before, slow, 1, 1, "at 120 beats a minute; play the bars again at that tempo, not at 96"},
		"keys and sound":   {sound, before, 1, 1, "cannot be joined"},
		"another rate":     {sound, other, 1, 1, "use the same input"},
		"before the sound": {before, early, 1, 1, "begins before the sound"},
	} {
		_, _, err := c.before.Punched(c.again, c.from, c.to)
		assert.ErrorContains(t, err, c.says, name)
	}
}
