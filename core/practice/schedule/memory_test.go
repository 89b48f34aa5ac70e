package schedule_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	. "undaris/core/practice/schedule"
)

var start = time.Date(2022, 11, 29, 12, 30, 0, 0, time.UTC)

// The vectors are those that the library is tested by itself.
func TestTheVectorsOfTheLibrary(t *testing.T) {
	m, at := Memory{}, start
	intervals, states := []int{}, []int{}
	for _, grade := range []Grade{Good, Good, Good, Good, Good, Good, Again, Again, Good, Good, Good, Good, Good} {
		m = m.Review(at, grade)
		intervals, states = append(intervals, m.Interval), append(states, m.State)
		at = m.Due
	}
	assert.Equal(t, []int{0, 4, 14, 44, 125, 328, 0, 0, 7, 16, 34, 71, 142}, intervals)
	assert.Equal(t, []int{1, 2, 2, 2, 2, 2, 3, 3, 2, 2, 2, 2, 2}, states)

	m, at = Memory{}, start
	for n, grade := range []Grade{Again, Good, Good, Good, Good, Good} {
		m = m.Review(at, grade)
		at = at.Add(time.Duration([]int{0, 0, 1, 3, 8, 21}[n]) * 24 * time.Hour)
	}
	m = m.Review(at, Good)
	assert.InDelta(t, 48.4848, m.Stability, 0.0001)
	assert.InDelta(t, 7.0866, m.Difficulty, 0.0001)
}

// A clock that is set back makes no interval longer than one read at the time of the last review.
func TestAClockSetBack(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		m, at := Memory{}, start
		for range rapid.IntRange(1, 8).Draw(rt, "reviews") {
			m = m.Review(at, Grade(rapid.IntRange(1, 4).Draw(rt, "grade")))
			at = m.Due
		}
		grade := Grade(rapid.IntRange(1, 4).Draw(rt, "last"))
		back := m.Review(m.LastReview.Add(-time.Duration(rapid.IntRange(1, 100000).Draw(rt, "hours"))*time.Hour), grade)
		assert.Equal(rt, m.Review(m.LastReview, grade), back)
		assert.False(rt, back.Due.Before(back.LastReview))
		assert.False(rt, math.IsNaN(back.Stability))
		assert.LessOrEqual(rt, m.Retrievability(m.LastReview.Add(-time.Hour)), 1.0)
	})
}

func TestGrades(t *testing.T) {
	median := 10 * time.Second
	for _, c := range []struct {
		right bool
		hints int
		took  time.Duration
		want  Grade
	}{
		{false, 0, time.Second, Again}, {true, 1, time.Second, Hard}, {true, 0, 21 * time.Second, Hard},
		{true, 0, 20 * time.Second, Good}, {true, 0, 6 * time.Second, Good}, {true, 0, 5 * time.Second, Easy},
	} {
		assert.Equal(t, c.want, GradeOf(c.right, c.hints, c.took, median), "%+v", c)
	}
	assert.Equal(t, Good, GradeOf(true, 0, time.Hour, 0), "no time is judged before there is a median")
}

// A card that is answered at one moment again and again keeps a memory that can be written down.
func TestAThousandAnswersAtOneMoment(t *testing.T) {
	at := time.Date(2026, 3, 1, 20, 0, 0, 0, time.UTC)
	m := Memory{}
	for range 1000 {
		m = m.Review(at, Easy)
		require.False(t, math.IsNaN(m.Stability) || math.IsInf(m.Stability, 0))
		require.LessOrEqual(t, m.Stability, 36500.0)
	}
}
