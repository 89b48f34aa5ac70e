package lick

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

func TestALickElsewhere(t *testing.T) {
	p, err := neck.FindPosition(phrasetest.Guitar, 0, "E")
	require.NoError(t, err)
	all := overC7(t).Variants(phrasetest.Guitar, phrasetest.KeyOfC(t), p)
	by := map[string][]Variant{}
	for _, e := range all {
		by[e.Group] = append(by[e.Group], e)
		if e.Refused == "" {
			require.NoError(t, e.Phrase.Check(phrasetest.Guitar), e.Name)
			assert.NotEmpty(t, e.Phrase.Chords)
		}
	}
	up, down, pairs := by["octaves"][0], by["octaves"][1], by["octaves"][2]
	assert.Empty(t, up.Refused, "fret 23 is off this neck, but other strings have it")
	assert.Equal(t, 12, up.Shift)
	assert.Equal(t, -12, down.Shift)
	assert.Equal(t, "5:6 3:8 5:10 3:12 4:5 2:8", phrasetest.Places(phrase.Phrase{Events: pairs.Phrase.Events[:6]}), "the octave lies below, two strings over, and the line on top")
	assert.Equal(t, []string{"the bend at note 2 cannot be had on two strings", "the pull-off at note 5 cannot be had on two strings"}, pairs.Lost)
	require.Len(t, by["keys"], 13, "every tonic but its own")
	assert.Equal(t, "Ab", by["keys"][9].Name)
	assert.Equal(t, "Ab7", by["keys"][9].Phrase.Chords[0].Chord.Symbol())
	assert.Equal(t, "3:4 3:6 2:4 2:7 2:4 3:5 4:6", phrasetest.Places(by["keys"][9].Phrase))
	assert.Len(t, by["positions"], len(neck.Positions(phrasetest.Guitar, 0)))
}

// As octaves, every pair sounds twelve half steps apart, at once; in every key and
// position the intervals over the tonic stay.
func TestElsewhereHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := drawnLick(t)
		key, err := harmony.ParseKey(l.Tonic.String(), harmony.DominantMode)
		require.NoError(t, err)
		at := rapid.SampledFrom(neck.Positions(phrasetest.Guitar, key.Tonic.Class())).Draw(t, "position")
		for _, e := range l.Variants(phrasetest.Guitar, key, at) {
			if e.Refused != "" {
				continue
			}
			require.NoError(t, e.Phrase.Check(phrasetest.Guitar))
			if e.Name == "as octaves" {
				require.Len(t, e.Phrase.Events, 2*len(l.Phrase.Events))
				for n := 0; n < len(e.Phrase.Events); n += 2 {
					a, b := e.Phrase.Events[n], e.Phrase.Events[n+1]
					assert.Equal(t, a.Tick, b.Tick)
					assert.Equal(t, 12, int(b.Sounding(phrasetest.Guitar)-a.Sounding(phrasetest.Guitar)))
				}
				continue
			}
			for n, note := range e.Phrase.Events {
				was := l.Phrase.Events[n].Sounding(phrasetest.Guitar).Class().Above(l.Tonic.Class())
				assert.Equal(t, was, note.Sounding(phrasetest.Guitar).Class().Above(e.Tonic.Class()), e.Name)
			}
		}
	})
}

// A unison bend is not doubled: the bend and its unison would lie on one string.
func TestDoubleStopsAreNotDoubledInOctaves(t *testing.T) {
	l := overC7(t)
	l.Phrase.Events = []phrase.Event{phrasetest.At(0, 2, 8), phrasetest.At(0, 3, 10, phrasetest.BentWhole)}
	assert.Equal(t, "it has double stops, and four strings at once are no octaves", l.asOctaves(phrasetest.Guitar).Refused)
}
