package practice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/practice"
)

func inC(t testing.TB, symbols ...string) (harmony.Key, []harmony.Chord) {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	chords := []harmony.Chord{}
	for _, symbol := range symbols {
		chord, err := harmony.ParseChord(symbol)
		require.NoError(t, err)
		chords = append(chords, chord)
	}
	return key, chords
}

func TestTargetsInTime(t *testing.T) {
	key, chords := inC(t, "C7", "F7", "C7", "G7", "F7")
	targets := []practice.TimedTarget{}
	for n, chord := range chords {
		targets = append(targets, practice.TimedTarget{MS: 2000 * float64(n), Chord: chord, Tone: chord.Tones()[1]}) // the thirds
	}
	hits := []practice.Hit{{-60, 64}, {2061, 69}, {3700, 52}, {6100, 65}}
	marks := practice.MarkTargets(key, targets, hits, 0)
	texts, timings := []string{}, []practice.Timing{}
	for _, m := range marks {
		texts, timings = append(texts, m.Text), append(timings, m.Timing)
	}
	assert.Equal(t, []practice.Timing{practice.OnTime, practice.Late, practice.Early, practice.OtherNote, practice.Missed}, timings)
	assert.Equal(t, []string{"the 3 of C7, E: on", "the 3 of F7, A: 61 ms late", "the 3 of C7, E: 300 ms early", "the 3 of G7, B: F was played, the ♭7", "the 3 of F7, A: missed"}, texts)
	// What takes 40 ms to be heard of was played 40 ms before.
	assert.Equal(t, practice.OnTime, practice.MarkTargets(key, targets, hits, 40)[1].Timing)
	middle, count := practice.MiddleOff(marks)
	assert.Equal(t, [2]float64{-60, 3}, [2]float64{middle, float64(count)})
	middle, count = practice.MiddleOff(nil)
	assert.Zero(t, middle+float64(count))
}

// A note that is played right on its target is on, whatever else is played, and no note meets two.
func TestEveryTargetIsMetByItsNote(t *testing.T) {
	key, chords := inC(t, "C7", "F7", "G7")
	rapid.Check(t, func(rt *rapid.T) {
		targets, hits := []practice.TimedTarget{}, []practice.Hit{}
		at := 0.0
		for range rapid.IntRange(1, 12).Draw(rt, "targets") {
			chord := rapid.SampledFrom(chords).Draw(rt, "chord")
			tone := rapid.SampledFrom(chord.Tones()).Draw(rt, "tone")
			at += rapid.Float64Range(900, 4000).Draw(rt, "later")
			targets = append(targets, practice.TimedTarget{MS: at, Chord: chord, Tone: tone})
			hits = append(hits, practice.Hit{MS: at + rapid.Float64Range(-60, 60).Draw(rt, "off"), Pitch: 60 + pitch.MIDI(tone.Note.Class())})
			hits = append(hits, practice.Hit{MS: at + rapid.Float64Range(100, 390).Draw(rt, "other"), Pitch: pitch.MIDI(rapid.IntRange(40, 80).Draw(rt, "pitch"))})
		}
		used := map[int]bool{}
		for _, m := range practice.MarkTargets(key, targets, hits, 0) {
			assert.Equal(rt, practice.OnTime, m.Timing, m.Text)
			assert.False(rt, used[m.Hit])
			used[m.Hit] = true
		}
	})
}

func TestOnlyTheseNotes(t *testing.T) {
	key, chords := inC(t, "C7", "F7")
	spans := []practice.AllowedSpan{{0, 2000, chords[0], chords[0].Tones()}, {2000, 4000, chords[1], chords[1].Tones()}}
	marks := practice.MarkNotes(key, spans, []practice.Hit{{0, 64}, {1000, 69}, {1900, 69}, {2100, 64}, {5000, 65}}, 0)
	right := []bool{}
	for _, m := range marks {
		right = append(right, m.Right)
	}
	assert.Equal(t, []bool{true, false, true, false, true}, right, "a note just before the chord may be its")
	assert.Equal(t, "A, the 13 of C7; asked for are R 3 5 ♭7", marks[1].Text)
	assert.Equal(t, "A, the 3 of F7", marks[2].Text)
	assert.Equal(t, "E, the 7 of F7; asked for are R 3 5 ♭7", marks[3].Text)
}
