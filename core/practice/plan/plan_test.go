package plan_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	. "undaris/core/practice/plan"
)

var (
	licks = []Item{{ID: 1, Name: "Rope and cleat", Days: 2, Tempo: 84, Goal: 112}, {ID: 2, Name: "Low lamp", Days: 20, Tempo: 60, Goal: 60}, {ID: 3, Name: "Gangplank", Days: -1}}
	tunes = []Item{{ID: 7, Name: "Tin Roof Ferry", Days: 1}, {ID: 8, Name: "Cold Kettle", Days: 9}}
)

func kinds(blocks []Block) []Kind {
	all := []Kind{}
	for _, b := range blocks {
		all = append(all, b.Kind)
	}
	return all
}

func TestPlans(t *testing.T) {
	five, err := Make(Request{Minutes: 5, Due: 14, Licks: licks, Tunes: tunes})
	require.NoError(t, err)
	assert.Equal(t, []Kind{WarmUp, Cards, NoteDown}, kinds(five))
	assert.Equal(t, 3, five[1].Minutes)
	assert.Equal(t, "14 cards", five[1].Detail)

	twenty, err := Make(Request{Minutes: 20, Due: 14, New: 3, Licks: licks, Tunes: tunes})
	require.NoError(t, err)
	assert.Equal(t, []Kind{WarmUp, Cards, Lick, Tune, NoteDown}, kinds(twenty)[:5])
	assert.Equal(t, "14 cards, 3 new", twenty[1].Detail)
	assert.Equal(t, "Low lamp", twenty[2].Title, "what was left alone longest")
	assert.Equal(t, "it was left alone for 20 days", twenty[2].Why)
	assert.Equal(t, "Cold Kettle", twenty[3].Title)

	wanted := append([]Item{}, licks...)
	wanted[0].Wanted = true
	goal, err := Make(Request{Minutes: 30, Licks: wanted})
	require.NoError(t, err)
	assert.Equal(t, "Rope and cleat", goal[1].Title)
	assert.Equal(t, "in parts, 84 → 112", goal[1].Detail)
	assert.Equal(t, "it is what you work towards", goal[1].Why)

	walked, err := Make(Request{Minutes: 40, Due: 14, Licks: licks, Tunes: tunes, Exercises: []Item{{ID: 4, Name: "Thirds", Days: 2, Tempo: 96}, {ID: 5, Name: "Shells", Days: 30}}})
	require.NoError(t, err)
	at := slices.Index(kinds(walked), Exercise)
	require.Positive(t, at)
	assert.Equal(t, "Shells", walked[at].Title, "what was left alone longest")
	assert.Equal(t, uint(5), walked[at].Item)
	thirds := Others(Request{Exercises: []Item{{ID: 4, Name: "Thirds", Days: 2, Tempo: 96}}}, 5, 2)[0]
	assert.Equal(t, "round and round, clean at 96", thirds.Detail)

	hour, err := Make(Request{Minutes: 60, Due: 30, Licks: licks, Tunes: tunes})
	require.NoError(t, err)
	assert.Contains(t, kinds(hour), Break)
	early, err := Make(Request{Minutes: 60, Due: 6, Licks: licks, Tunes: tunes})
	require.NoError(t, err)
	assert.NotEqual(t, Break, early[2].Kind, "no break after a few minutes")
	assert.Contains(t, kinds(hour), Phrase)

	nothing, err := Make(Request{Minutes: 5})
	require.NoError(t, err)
	assert.Equal(t, []Kind{WarmUp, Free, NoteDown}, kinds(nothing), "with nothing to practise there is still playing")

	for _, minutes := range []int{4, 121, -1} {
		_, err := Make(Request{Minutes: minutes})
		assert.ErrorContains(t, err, "a plan is for 5 to 120 minutes")
	}
}

func TestWhatMayStandInItsPlace(t *testing.T) {
	others := Others(Request{Due: 3, Licks: licks, Tunes: tunes}, 6, 2)
	titles := []string{}
	for _, b := range others {
		titles = append(titles, b.Title)
		assert.Equal(t, 6, b.Minutes)
		assert.NotEmpty(t, b.Why)
	}
	assert.Equal(t, []string{"Low lamp", "Gangplank", "Cold Kettle", "Tin Roof Ferry", "Due today", "A phrase of your own", "Play freely"}, titles)
}

// Every plan takes just the minutes asked for, never goes on for more than 25 without a break, and
// every block says why it is there.
func TestEveryPlanFits(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		items := rapid.SliceOfN(rapid.Custom(func(rt *rapid.T) Item {
			return Item{ID: rapid.UintRange(1, 99).Draw(rt, "id"), Name: "x", Days: rapid.IntRange(-1, 400).Draw(rt, "days"), Tempo: rapid.IntRange(0, 200).Draw(rt, "tempo"), Goal: rapid.SampledFrom([]int{0, 60, 200}).Draw(rt, "goal")}
		}), 0, 5)
		r := Request{
			Minutes: rapid.IntRange(MinMinutes, MaxMinutes).Draw(rt, "minutes"), Due: rapid.IntRange(0, 300).Draw(rt, "due"), New: rapid.IntRange(0, 10).Draw(rt, "new"),
			SecondsACard: rapid.Float64Range(0, 90).Draw(rt, "seconds"), Licks: items.Draw(rt, "licks"), Exercises: items.Draw(rt, "exercises"), Tunes: items.Draw(rt, "tunes"),
		}
		blocks, err := Make(r)
		require.NoError(rt, err)
		sum, since := 0, 0
		for _, b := range blocks {
			assert.Positive(rt, b.Minutes)
			assert.NotEmpty(rt, b.Title)
			assert.NotEmpty(rt, b.Why)
			if b.Kind == Break {
				since = 0
				continue
			}
			sum += b.Minutes
			since += b.Minutes
			assert.LessOrEqual(rt, since, UntilBreak+1, "the last minute is for noting down")
		}
		assert.Equal(rt, r.Minutes, sum)
		assert.Equal(rt, WarmUp, blocks[0].Kind)
		assert.Equal(rt, NoteDown, blocks[len(blocks)-1].Kind)
	})
}
