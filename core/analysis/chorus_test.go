package analysis

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// walkedChorus is one chorus of a scheme walked through in eighths.
func walkedChorus(t testing.TB, scheme, tonic, form string, walk exercise.Tones) (phrase.Phrase, chart.Chart) {
	t.Helper()
	s, err := chart.FindScheme(scheme)
	require.NoError(t, err)
	key, err := harmony.ParseKey(tonic, s.In)
	require.NoError(t, err)
	c := chart.Chart{Title: scheme, Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 2, Bars: s.Bars(key.Tonic, chart.FourFour)}
	p, err := neck.FindPosition(phrasetest.Guitar, key.Tonic.Class(), form)
	require.NoError(t, err)
	walked, err := exercise.Exercise{Tones: walk, Time: exercise.Time{NoEnding: true}}.Write(exercise.Setting{Tune: c, Instrument: phrasetest.Guitar, Position: p, SpanMM: neck.ComfortableSpanMM})
	require.NoError(t, err)
	return walked.Phrase, c
}

// A chorus of arpeggios is told to be heard but never to rest, one of the box to lose the
// changes: in every scheme, in several keys and positions. The share of chords that the box
// alone tells is small, that of the arpeggios nearly all.
func TestChorusesWithoutTheBand(t *testing.T) {
	heard, of := map[exercise.Tones]int{}, map[exercise.Tones]int{}
	for _, s := range chart.Schemes {
		for _, tonic := range []string{"C", "F#", "Bb"} {
			for _, form := range []string{"E", "A", "G"} {
				for _, walk := range []exercise.Tones{exercise.ChordTones, exercise.BoxTones} {
					p, c := walkedChorus(t, s.Name, tonic, form, walk)
					for _, d := range ImpliedHarmonies(p, phrasetest.Guitar, c.Key, c.Chords()) {
						of[walk]++
						if d.Recognition == Recognized {
							heard[walk]++
						}
						assert.NotEqual(t, NothingPlayed, d.Recognition)
						assert.True(t, d.Recognition == Recognized || d.SettlingTone != nil, "what is not heard can be settled")
					}
					v := Judge(p, phrasetest.Guitar, c.Key, c.Tempo)
					assert.Zero(t, v.Shape.Space, "a walk never rests")
					for _, landfall := range v.Landings {
						assert.Equal(t, OnTime, landfall.Timing)
						if walk == exercise.ChordTones {
							assert.Equal(t, harmony.ChordTone, landfall.Class)
						}
					}
					if walk == exercise.ChordTones {
						assert.Equal(t, v.Strong.Of, v.Strong.Good)
						assert.Empty(t, v.Passing)
					}
				}
			}
		}
	}
	assert.Greater(t, 100*heard[exercise.ChordTones], 80*of[exercise.ChordTones], "arpeggios tell their chords")
	assert.Less(t, 100*heard[exercise.BoxTones], 35*of[exercise.BoxTones], "the box alone loses the changes")
	t.Logf("heard of arpeggios %d of %d, of the box %d of %d", heard[exercise.ChordTones], of[exercise.ChordTones], heard[exercise.BoxTones], of[exercise.BoxTones])
}

// The figures of a chorus count what is there: every note of a strong beat once, every
// change once, every chord once.
func TestTheFiguresOfAChorusAddUp(t *testing.T) {
	p, c := walkedChorus(t, "quick change", "C", "E", exercise.ChordTones)
	v := Judge(p, phrasetest.Guitar, c.Key, c.Tempo)
	assert.Equal(t, 24, v.Strong.Of, "two strong beats in each of twelve bars")
	assert.Len(t, v.Strong.Notes, 24)
	assert.Len(t, v.Landings, len(p.Chords)-1)
	assert.Len(t, v.Coverage, len(p.Chords))
	notes := 0
	for _, covered := range v.Coverage {
		notes += len(covered.Notes)
		assert.Empty(t, covered.Missed, "an arpeggio has every guide tone")
	}
	assert.Equal(t, len(p.Events), notes)
	assert.InDelta(t, 100.0/60*2, v.Shape.PerSecond, 0.001)
	assert.Equal(t, "A A A A A A A A A A A A", v.Shape.Rhythm)
}

// Judging a chorus of ninety-six eighths.
func BenchmarkVerdictOfAChorus(b *testing.B) {
	p, c := walkedChorus(b, "quick change", "C", "E", exercise.ChordTones)
	b.ReportAllocs()
	for b.Loop() {
		Judge(p, phrasetest.Guitar, c.Key, c.Tempo)
		ImpliedHarmonies(p, phrasetest.Guitar, c.Key, c.Chords())
	}
}
