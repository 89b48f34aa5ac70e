package lesson_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/lick"
	"undaris/core/phrase"
	. "undaris/core/practice/lesson"
	"undaris/core/solo/solotest"
)

// at is a lick with notes of a beat at beats.
func at(t *testing.T, beats ...float64) lick.Lick {
	t.Helper()
	l := solotest.Lick(t)
	first := l.Phrase.Events[0]
	l.Phrase.Events = nil
	for n, beat := range beats {
		e := first
		e.Tick = int(beat * 480)
		e.Ticks = 480
		if n+1 < len(beats) {
			e.Ticks = min(480, int((beats[n+1]-beat)*480))
		}
		l.Phrase.Events = append(l.Phrase.Events, e)
	}
	return l
}

func titles(steps []Step) []string {
	all := []string{}
	for _, s := range steps {
		all = append(all, s.Title)
	}
	return all
}

func TestALickIsCutWhereItBreathes(t *testing.T) {
	breathes := at(t, 0, 0.5, 1, 4, 4.5, 5, 8, 8.5, 9)
	assert.Equal(t, []int{0, 4 * 480, 8 * 480}, Parts(breathes))
	steps := Steps(breathes, nil)
	assert.Equal(t, []string{"part 1 of 3", "part 2 of 3", "parts 1 to 2", "part 3 of 3", "the whole"}, titles(steps))
	assert.Equal(t, Step{"parts 1 to 2", 0, 8 * 480}, steps[2])
	assert.Equal(t, Step{"the whole", 0, 10 * 480}, steps[4])

	byBars := at(t, 0, 1, 2, 3, 4, 5, 6, 7)
	assert.Equal(t, []int{0, 4 * 480}, Parts(byBars))
	oneBar := at(t, 0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5)
	assert.Equal(t, []int{0, 2 * 480}, Parts(oneBar), "in the middle, on a beat")
	short := at(t, 0, 1, 2)
	assert.Equal(t, []string{"the whole"}, titles(Steps(short, nil)))
	pickup := at(t, -0.5, 0, 1, 2, 3, 4, 5, 6)
	assert.Equal(t, []int{-240, 4 * 480}, Parts(pickup), "a pickup goes with what it leads to")

	// The player cuts elsewhere: between notes is at the next one, and twice at one place is once.
	assert.Equal(t, []string{"part 1 of 2", "part 2 of 2", "the whole"}, titles(Steps(oneBar, []int{500, 490})))
	assert.Empty(t, Steps(lick.Lick{Phrase: phrase.Phrase{}}, nil))
}

// Every note of a lick of the set is in one part, and in the whole.
func TestEveryNoteIsInAPart(t *testing.T) {
	for _, l := range []lick.Lick{solotest.Lick(t), at(t, 0, 0.5, 1, 4, 4.5, 5), at(t, 0, 3, 6, 9, 12, 15, 18)} {
		starts := Parts(l)
		require.NotEmpty(t, starts)
		assert.Equal(t, l.Phrase.Events[0].Tick, starts[0])
		assert.IsIncreasing(t, append([]int{-100000}, starts...))
		last := Steps(l, nil)
		whole := last[len(last)-1]
		for _, e := range l.Phrase.Events {
			assert.True(t, e.Tick >= whole.From && e.End() <= whole.To)
		}
	}
}

func TestTheLadder(t *testing.T) {
	assert.Equal(t, []int{56, 61, 66, 71, 76, 81, 86, 91, 96, 101, 106, 111, 112}, Ladder(112))
	assert.Equal(t, []int{27, 29, 31, 33, 35, 37, 39, 41, 43, 45, 47, 49, 51, 53, 54}, Ladder(54))
	assert.Equal(t, []int{1, 2}, Ladder(2))
}
