package schedule

import (
	"math"
	"time"

	"github.com/open-spaced-repetition/go-fsrs/v3"
)

// Grade is how well a card was answered, as FSRS counts: 1 to 4.
type Grade int

// The grades.
const (
	Again Grade = 1 + iota
	Hard
	Good
	Easy
)

// Memory is how well a card is remembered: what FSRS keeps of it. The zero Memory is that of a card
// that was never asked.
type Memory struct {
	Due, LastReview time.Time
	// Stability is the days after which it is remembered with a chance of nine in ten, Difficulty
	// from 1 to 10.
	Stability, Difficulty float64
	// Reps counts the reviews, Lapses those that were wrong after it had been known.
	Reps, Lapses int
	// State is 0 new, 1 being learned, 2 known, 3 being learned again.
	State int
	// Interval is the days from the last review to the next.
	Interval int
}

// scheduler has the parameters that FSRS comes with: a card is due when it is remembered with a
// chance of nine in ten. Intervals are not varied by chance, so that a review can be repeated.
var scheduler = fsrs.NewFSRS(fsrs.DefaultParam())

// mostStability is the longest that a card is remembered by half, in days (our choice: a hundred years).
const mostStability = 36500.0

// Review is the memory of a card after it was answered at a time. A time before the last review,
// as a clock that was set back tells, counts as the time of that review: the library would make
// intervals of years of it.
func (m Memory) Review(at time.Time, grade Grade) Memory {
	if at.Before(m.LastReview) {
		at = m.LastReview
	}
	next := scheduler.Next(m.card(), at, fsrs.Rating(grade)).Card
	// Answered hundreds of times at one moment a stability grows beyond all numbers, and then is none.
	next.Stability = max(next.Stability, 0)
	if math.IsNaN(next.Stability) || next.Stability > mostStability {
		next.Stability = mostStability
	}
	return Memory{
		Due: next.Due, LastReview: next.LastReview, Stability: next.Stability, Difficulty: next.Difficulty,
		Reps: int(next.Reps), Lapses: int(next.Lapses), State: int(next.State), Interval: int(next.ScheduledDays),
	}
}

// Retrievability is the chance that a card is remembered at a time, 0 to 1; 0 of a new one.
func (m Memory) Retrievability(at time.Time) float64 {
	if m.Reps == 0 {
		return 0
	}
	if at.Before(m.LastReview) {
		at = m.LastReview
	}
	return scheduler.GetRetrievability(m.card(), at)
}

func (m Memory) card() fsrs.Card {
	if m.Reps == 0 {
		return fsrs.NewCard()
	}
	return fsrs.Card{
		Due: m.Due, LastReview: m.LastReview, Stability: m.Stability, Difficulty: m.Difficulty,
		Reps: uint64(m.Reps), Lapses: uint64(m.Lapses), State: fsrs.State(m.State), ScheduledDays: uint64(m.Interval),
	}
}

// How a time is judged against the player's own (our choice, after the four answers of FSRS).
const (
	slow  = 2.0
	quick = 0.6
)

// GradeOf is the grade of an answer: wrong is Again; with a hint, or in more than twice one's median
// time, Hard; under 0.6 of it Easy; else Good. A median of 0 is not known yet, and no time is judged.
func GradeOf(right bool, hints int, took, median time.Duration) Grade {
	switch {
	case !right:
		return Again
	case hints > 0 || median > 0 && float64(took) > slow*float64(median):
		return Hard
	case median > 0 && float64(took) < quick*float64(median):
		return Easy
	}
	return Good
}
