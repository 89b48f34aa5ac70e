package api

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestALickMovedToEveryChord(t *testing.T) {
	c := application(t, nil)
	chosen := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)[0].Lick // Ferry call, over C7
	got := call[LickMoves](c, "POST", "/api/compute/lick/moves", MovesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Lick: chosen, Position: "E-7"}, 200)
	assert.Equal(t, []string{"slide the shape", "stay in position", "keep the frets"}, got.Methods)
	require.Len(t, got.Chords, 3)
	over := got.Chords[1]
	assert.Equal(t, []string{"F7", "IV"}, []string{over.Chord, over.Roman})
	require.Len(t, over.Moves, 3)
	slid := over.Moves[0]
	require.NotNil(t, slid.Tab)
	assert.Equal(t, "frets 13 to 16, 49 mm, +5 half steps", slid.Text)
	assert.Equal(t, 1920, slid.Tab.Start, "bar 2, where F7 first comes")
	assert.Equal(t, []string{"b3", "F7"}, []string{slid.Tab.Events[0].Degree, slid.Tab.Events[0].Chord})
	kept := over.Moves[2]
	require.Len(t, kept.Altered, 1)
	assert.Equal(t, "note 4: Bb, the 11, becomes A, the 3 of F7: fret 10 instead of 11", kept.Altered[0].Text)
	for _, e := range kept.Tab.Events {
		assert.Contains(t, []string{"chordTone", "colour"}, e.Class)
	}
	require.NotNil(t, kept.Lick)
	assert.Equal(t, "Ferry call over F7, changed", kept.Lick.Name)
	again := call[KeptLick](c, "POST", "/api/licks", *kept.Lick, 201)
	assert.Equal(t, "F7", again.Lick.Chords[0].Chord)
	assert.Equal(t, *kept.Lick, again.Lick)
	bad := call[Problem](c, "POST", "/api/compute/lick/moves", MovesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Lick: chosen, Position: "Q"}, 422)
	assert.Equal(t, "body.position", bad.Errors[0].Field)
}

func TestALickIsDeletedAndBroughtBack(t *testing.T) {
	c := application(t, nil)
	before := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	mine := before[0].Lick
	mine.Name = "Ferry call over F7"
	kept := call[KeptLick](c, "POST", "/api/licks", mine, 201)
	assert.Len(t, call[[]KeptLick](c, "GET", "/api/licks", nil, 200), len(before)+1)
	call[Problem](c, "DELETE", fmt.Sprintf("/api/licks/%d?version=%d", kept.ID, kept.Version+1), nil, 412)
	call[any](c, "DELETE", fmt.Sprintf("/api/licks/%d?version=%d", kept.ID, kept.Version), nil, 204)
	assert.Len(t, call[[]KeptLick](c, "GET", "/api/licks", nil, 200), len(before))
	back := call[KeptLick](c, "POST", fmt.Sprintf("/api/licks/%d/restore", kept.ID), nil, 200)
	assert.Equal(t, "Ferry call over F7", back.Lick.Name)
}

func TestTheVerdictOfALick(t *testing.T) {
	c := application(t, nil)
	chosen := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)[0].Lick
	ask := VerdictRequest{MovesRequest: MovesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Lick: chosen}}
	got := call[Verdict](c, "POST", "/api/compute/lick/verdict", ask, 200)
	assert.Equal(t, []Share{{2, 1, []int{0, 3}}, {2, 1, []int{2, 6}}}, []Share{got.Strong, got.Rests})
	require.Len(t, got.Issues, 2)
	assert.Equal(t, NoteIssue{0, "note 1: Eb, the b3 of C7, is a blue note on a strong beat", "play E, the 3: fret 9 instead of 8"}, got.Issues[0])
	assert.Equal(t, []Coverage{{"C7", []Tone{{"5", "G"}, {"b7", "Bb"}}, []Tone{{"3", "E"}}, []int{0, 1, 2, 3, 4, 5, 6}}}, got.Coverage)
	assert.EqualValues(t, "question", got.Shape.Ends)
	require.Len(t, got.ImpliedHarmony, 1)
	assert.Equal(t, []string{"C7", "another chord", "F7"}, []string{got.ImpliedHarmony[0].Chord, got.ImpliedHarmony[0].Recognition, got.ImpliedHarmony[0].Rival})
	assert.Equal(t, &Tone{"3", "E"}, got.ImpliedHarmony[0].SettlingTone)
	ask.Repair = []int{6}
	got = call[Verdict](c, "POST", "/api/compute/lick/verdict", ask, 200)
	assert.Equal(t, Share{2, 2, []int{2, 6}}, got.Rests)
	assert.EqualValues(t, "answer", got.Shape.Ends)
	assert.Equal(t, 9, got.Lick.Events[6].Fret)
	assert.Equal(t, "Ferry call, repaired", got.Lick.Name)
	assert.Empty(t, got.Coverage[0].Missed)
	call[KeptLick](c, "POST", "/api/licks", got.Lick, 201)
	ask.Repair = []int{99}
	bad := call[Problem](c, "POST", "/api/compute/lick/verdict", ask, 422)
	assert.Equal(t, "body.repair[0]", bad.Errors[0].Field)
}
