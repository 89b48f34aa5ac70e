package phrase_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// Trills, rakes and ghost notes are said, found by their names, and refused where no hand plays
// them.
func TestTrillsRakesAndGhostNotes(t *testing.T) {
	trilled := func(e *phrase.Event) { e.Trill = 2 }
	raked := func(e *phrase.Event) { e.Rake, e.Ghost = true, true }
	p := phrasetest.FourFour(phrasetest.At(0, 3, 8, trilled), phrasetest.At(1, 2, 8, raked))
	require.NoError(t, p.Check(phrasetest.Guitar))
	assert.Equal(t, []string{"trilled with the whole step above"}, p.Events[0].Names())
	assert.Equal(t, []string{"raked into", "a ghost note"}, p.Events[1].Names())
	assert.True(t, p.Events[0].Uses("trill") && p.Events[1].Uses("rake") && p.Events[1].Uses("ghost"))
	for _, c := range []struct {
		with func(*phrase.Event)
		str  int
		want string
	}{
		{func(e *phrase.Event) { e.Trill = 5 }, 3, "a trill is 1 to 4 half steps"},
		{func(e *phrase.Event) { e.Fret, e.Trill = 21, 2 }, 3, "fret 23 is not on the neck, so it cannot be trilled with"},
		{func(e *phrase.Event) { e.Trill, e.Bend = 2, 4 }, 3, "a note that is bent or muted is not trilled"},
		{func(e *phrase.Event) { e.Rake = true }, 6, "a rake begins on a thicker string, and this is the thickest"},
		{func(e *phrase.Event) { e.Ghost, e.Accent = true, true }, 3, "a note is accented or a ghost note, not both"},
	} {
		assert.ErrorContains(t, phrasetest.FourFour(phrasetest.At(0, c.str, 8, c.with)).Check(phrasetest.Guitar), c.want)
	}
	for value, want := range map[int]int{1: 2, -1: 1, 0: 0} {
		played, _ := edited(t, p, phrase.Edit{Kind: phrase.SetTechnique, From: 0, To: 1, Technique: "trill", Value: value})
		assert.Equal(t, want, played.Events[0].Trill)
	}
	loud, _ := edited(t, p, phrase.Edit{Kind: phrase.SetTechnique, From: 240, To: 241, Technique: "accent", Value: 1})
	assert.False(t, loud.Events[1].Ghost)
}
