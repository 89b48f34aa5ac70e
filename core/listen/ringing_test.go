package listen_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen"
	"undaris/core/listen/evaluation"
	"undaris/core/listen/pluck"
)

// ringingLine is a line of picked notes, each on its string, which rings until it is struck again.
func ringingLine(voice pluck.Tone, notes ...pluck.Played) ([]pluck.Played, []float32) {
	for n := range notes {
		notes[n].Length, notes[n].Attack, notes[n].Loudness, notes[n].Rings = 0.1, pluck.Picked, 0.4, true
	}
	return notes, pluck.Render(notes, voice, 44100, notes[len(notes)-1].Onset+1, 1)
}

// A stroke among strings that ring is heard down to 18 dB below them, though they have a period together: an octave below
// the note that was struck.
func TestSoftStrokesAmongStringsThatRing(t *testing.T) {
	played, _ := ringingLine(pluck.CleanNeck, pluck.Played{Onset: 0.3, Pitch: 64, String: 1}, pluck.Played{Onset: 0.6, Pitch: 57, String: 2}, pluck.Played{Onset: 0.9, Pitch: 69, String: 3}, pluck.Played{Onset: 1.2, Pitch: 59, String: 1})
	for _, softer := range []float64{1, 0.3, 0.12} {
		played[3].Loudness = 0.4 * softer
		heard, err := listen.NotesOf(pluck.Render(played, pluck.FingersNeck, 44100, 2.2, 1), 44100)
		require.NoError(t, err)
		score := evaluation.Compare(played, heard)
		assert.Empty(t, score.MissedNotes, "%g times as loud", softer)
		assert.Empty(t, score.AddedNotes, "%g times as loud", softer)
	}
}

// A string that is bent, hammered on or slid on while others ring is followed.
func TestPitchesThatMoveAmongStringsThatRing(t *testing.T) {
	bend := []pluck.Point{{}, {Seconds: 0.15}, {Seconds: 0.2, Cents: 50}, {Seconds: 0.25, Cents: 150}, {Seconds: 0.3, Cents: 200}}
	played, sound := ringingLine(pluck.CleanNeck, pluck.Played{Onset: 0.3, Pitch: 52, String: 1}, pluck.Played{Onset: 0.7, Pitch: 57, String: 2}, pluck.Played{Onset: 1.1, Pitch: 67, String: 3, Curve: bend})
	heard, err := listen.NotesOf(sound, 44100)
	require.NoError(t, err)
	require.Len(t, heard, len(played))
	require.NotNil(t, heard[2].Bend)
	assert.InDelta(t, 200, heard[2].Bend.Cents, 12)
	assert.InDelta(t, 0.3, heard[2].Bend.Reached, 0.06)
}

// What is struck while other strings ring on: a string struck again, which brings nothing new, and the octave of
// one that rings, whose period is that of the lower one.
func TestStrokesAmongStringsThatRing(t *testing.T) {
	at := func(seconds, pitch float64, on int) pluck.Played {
		return pluck.Played{Onset: seconds, Pitch: pitch, String: on}
	}
	for name, notes := range map[string][]pluck.Played{
		"struck again":       {at(0.3, 52, 1), at(0.7, 57, 2), at(1.1, 66, 3), at(1.3, 66, 3), at(1.5, 66, 3), at(1.7, 66, 3), at(1.9, 66, 3)},
		"octaves":            {at(0.3, 47, 1), at(0.65, 59, 2), at(1, 50, 1), at(1.35, 62, 2), at(1.7, 45, 1), at(2.05, 57, 2)},
		"steps on 3 strings": {at(0.3, 48, 1), at(0.45, 50, 2), at(0.6, 51, 3), at(0.75, 52, 1), at(0.9, 55, 2), at(1.05, 57, 3), at(1.2, 55, 1), at(1.35, 52, 2)},
	} {
		for _, voice := range []pluck.Tone{pluck.CleanNeck, pluck.FingersNeck} {
			played, sound := ringingLine(voice, notes...)
			heard, err := listen.NotesOf(sound, 44100)
			require.NoError(t, err)
			score := evaluation.Compare(played, heard)
			assert.Empty(t, score.MissedNotes, "%s: missed", name)
			if name == "octaves" { // one more note is heard after the first octave
				assert.LessOrEqual(t, len(score.AddedNotes), 1, "%s: added", name)
				continue
			}
			assert.Empty(t, score.AddedNotes, "%s: added", name)
		}
	}
}
