package listen_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen"
	"undaris/core/listen/evaluation"
	"undaris/core/listen/pluck"
)

// strokesOf hears a sound in pieces of 20 ms, and says how long after its onset the latest stroke was known.
func strokesOf(t *testing.T, sound []float32, rate int) (strokes []listen.Stroke, latest float64) {
	t.Helper()
	l, err := listen.Listen(rate)
	require.NoError(t, err)
	for at := 0; at < len(sound); at += rate / 50 {
		end := min(at+rate/50, len(sound))
		l.Hear(sound[at:end])
		for _, s := range l.Strokes()[len(strokes):] {
			strokes = append(strokes, s)
			latest = max(latest, float64(end)/float64(rate)-s.Seconds)
		}
	}
	return strokes, latest
}

// Scales, slurs, repeated notes, bends and vibrato give a stroke for each note that begins and none besides, at most
// one in fifty apart.
func TestStrokesAreTheNotesThatBegin(t *testing.T) {
	voice := evaluation.Plucked()[1]
	for n, line := range evaluation.Lines() {
		if line.Name == "full range" || line.Name == "slides" { // their strokes are known to be less sure
			continue
		}
		if testing.Short() && n%3 != 0 {
			continue
		}
		sound := voice.Render(line.Notes, 44100, line.Seconds)
		strokes, latest := strokesOf(t, sound, 44100)
		heard := []listen.Note{}
		for _, s := range strokes {
			heard = append(heard, listen.Note{Onset: s.Seconds, Pitch: s.Pitch})
		}
		score := evaluation.Compare(line.Notes, heard)
		assert.Greater(t, score.F(), 0.96, "%s: missed at %v, added at %v", line.Name, score.MissedNotes, score.AddedNotes)
		assert.Less(t, latest, 0.2, line.Name)
	}
}

func TestSoFarHasEverythingThatWasPlayed(t *testing.T) {
	played := []pluck.Played{}
	for n := range 4 {
		played = append(played, pluck.Played{Onset: 0.3 + 0.5*float64(n), Length: 0.45, Pitch: 57 + 2*float64(n), String: 1, Attack: pluck.Picked, Loudness: 0.4})
	}
	sound := pluck.Render(played, pluck.CleanNeck, 48000, 2.5, 1)
	l, err := listen.Listen(48000)
	require.NoError(t, err)
	l.Hear(sound[:int(1.95*48000)]) // a tenth of a second after the last stroke
	assert.Less(t, len(l.Notes()), 4, "the last notes may still go on")
	so := l.SoFar()
	require.Len(t, so, 4)
	for n, note := range so {
		assert.InDelta(t, played[n].Onset, note.Onset, 0.05)
		assert.Equal(t, int(played[n].Pitch), note.MIDI())
	}
}

func TestABentNoteArrivesAtItsGoal(t *testing.T) {
	at := func(n listen.Note) [2]float64 {
		semitone, seconds := n.Arrival()
		return [2]float64{float64(semitone), seconds}
	}
	assert.Equal(t, [2]float64{60, 1}, at(listen.Note{Onset: 1, Length: 1, Pitch: 60.2}))
	assert.Equal(t, [2]float64{62, 1.3}, at(listen.Note{Onset: 1, Length: 1, Pitch: 60, Bend: &listen.Bend{Cents: 190, Reached: 0.3}}))
	assert.Equal(t, [2]float64{60, 1}, at(listen.Note{Onset: 1, Length: 1, Pitch: 60, Bend: &listen.Bend{Cents: 190, Reached: 0.1, Released: 0.3}}), "let go at once")
	assert.Equal(t, [2]float64{60, 1}, at(listen.Note{Onset: 1, Length: 1, Pitch: 60, Bend: &listen.Bend{Cents: 200, Pre: true}}), "one that was bent before falls back")
}
