package analysis

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// Phrases of quarters on string 3, two bars apart, as frets; -1 for a rest.
func returnsOf(t *testing.T, bars ...[]int) []string {
	t.Helper()
	c := phrasetest.Song(t, "A", harmony.DominantMode, "A7", "A7", "D7", "D7", "E7", "A7")
	p := phrase.Phrase{Meter: c.Meter}
	for bar, frets := range bars {
		for beat, fret := range frets {
			if fret >= 0 {
				p.Events = append(p.Events, phrase.Event{Tick: bar*2*1920 + beat*480, Ticks: 480, Fingered: neck.Fingered{Place: neck.Place{String: 3, Fret: fret}}})
			}
		}
	}
	texts := []string{}
	for _, r := range Returns(p.WithChordsOf(c, 0), neck.Standard()) {
		texts = append(texts, r.Text)
	}
	return texts
}

func TestPhrasesThatReturn(t *testing.T) {
	assert.Equal(t, []string{"the phrase of bar 1 returns in bar 3"}, returnsOf(t, []int{2, 5, 7, 5}, []int{2, 5, 7, 5}))
	assert.Equal(t, []string{"the phrase of bar 1 returns in bar 3, moved"}, returnsOf(t, []int{2, 5, 7, 5}, []int{4, 7, 9, 7}))
	assert.Equal(t, []string{"the phrase of bar 1 returns in bar 3, fitted to its chord"}, returnsOf(t, []int{2, 5, 7, 5}, []int{2, 6, 7, 5}))
	assert.Equal(t, []string{"the phrase of bar 1 returns in bar 3 with another ending"}, returnsOf(t, []int{2, 5, 7, 5}, []int{2, 5, 7, 9}))
	assert.Equal(t, []string{"the phrase of bar 1 returns in bar 5"}, returnsOf(t, []int{2, 5, 7, 5}, []int{9, 7, 9, 7}, []int{2, 5, 7, 5}))
	assert.Empty(t, returnsOf(t, []int{2, 5, 7, 5}, []int{9, 7, 5, 2}))
	assert.Empty(t, returnsOf(t, []int{2, 5}, []int{2, 5}), "two notes are no phrase that returns")
}
