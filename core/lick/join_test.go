package lick

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

func TestALickIsSplitIntoItsChords(t *testing.T) {
	parts := overTwo(t).SplitByChord()
	require.Len(t, parts, 2)
	assert.Equal(t, "Over two, part 1: C7", parts[0].Name)
	assert.Equal(t, "-240+240 3:8, 0+240 3:10 hammered on, 480+240 2:8, 720+240 2:11 bent a whole step, 1440+240 2:8, 1680+240 2:9", phrasetest.Text(parts[0].Phrase))
	assert.Equal(t, "Over two, part 2: F7", parts[1].Name)
	assert.Equal(t, "0+240 2:10 slid from fret 9, 960+960 2:8", phrasetest.Text(parts[1].Phrase))
	assert.Equal(t, "F7", parts[1].Phrase.Chords[0].Chord.Symbol())
	assert.Equal(t, []string{"change", "box"}, parts[1].Tags)
	for _, part := range parts {
		assert.NoError(t, part.Check())
	}
	assert.Equal(t, []Lick{overC7(t)}, overC7(t).SplitByChord())
}

func TestLicksAreJoinedWithARunBetween(t *testing.T) {
	eighths := chart.FourFour.Subdivisions()[1]
	second := overC7(t)
	second.Name, second.Tags = "Answer", []string{"answer", "box"}
	j, err := overC7(t).Join(phrasetest.Guitar, second, 0, eighths)
	require.NoError(t, err)
	assert.Equal(t, 1920, j.From)
	assert.Len(t, j.Lick.Phrase.Events, 14)
	assert.Equal(t, "Over C7, then Answer", j.Lick.Name)
	assert.Equal(t, []string{"answer", "box"}, j.Lick.Tags)
	j, err = overC7(t).Join(phrasetest.Guitar, second, 1, eighths)
	require.NoError(t, err)
	assert.Equal(t, "1440+240 4:10, 1680+240 3:7, 1920+240 3:8", lastOf(phrasetest.Text(j.Lick.Phrase), 6, 9))
	assert.Equal(t, [2]int{7, 8}, j.Run)
	assert.Equal(t, "one note after the first left out", j.Remark)
	j, err = overC7(t).Join(phrasetest.Guitar, second, 5, eighths)
	require.NoError(t, err)
	assert.Equal(t, "there is room for 1 of 5 notes", j.Remark)
	pickup := overTwo(t)
	j, err = overTwo(t).Join(phrasetest.Guitar, pickup, 0, eighths)
	require.NoError(t, err)
	assert.Equal(t, 3*1920, j.From, "the last note leaves no room for the pickup: a bar later")
	other := overC7(t)
	other.Tonic = pitch.Note{Letter: 1}
	for want, bad := range map[string]func() error{
		"with: it is in D, and does not lie in C here": func() error { _, err := overC7(t).Join(phrasetest.Guitar, other, 0, eighths); return err },
		"with: a lick in 4/4 and one in 12/8 cannot be joined": func() error {
			o := overC7(t)
			o.Phrase.Meter = chart.TwelveEight
			_, err := overC7(t).Join(phrasetest.Guitar, o, 0, eighths)
			return err
		},
		"notes: a connector has 0 to 12 notes": func() error { _, err := overC7(t).Join(phrasetest.Guitar, overC7(t), 13, eighths); return err },
	} {
		assert.EqualError(t, bad(), want)
	}
}

func lastOf(text string, from, to int) string {
	return strings.Join(strings.Split(text, ", ")[from:to], ", ")
}

// Split and joined again, a lick has every note it had.
func TestSplitAndJoinedAgain(t *testing.T) {
	parts := overTwo(t).SplitByChord()
	j, err := parts[0].Join(phrasetest.Guitar, parts[1], 0, chart.FourFour.Subdivisions()[1])
	require.NoError(t, err)
	was := overTwo(t).Phrase
	assert.Equal(t, phrasetest.Text(was), phrasetest.Text(j.Lick.Phrase))
	assert.Equal(t, was.Chords, j.Lick.Phrase.Chords)
}
