package logbook

import (
	"fmt"
	"slices"
	"strings"
	"time"
)

// Kind is what was practised.
type Kind string

// The kinds of entry.
const (
	WarmUp   Kind = "warm-up"
	Cards    Kind = "cards"
	Lick     Kind = "lick"
	Exercise Kind = "exercise"
	Tune     Kind = "tune"
	Free     Kind = "free"
	Phrase   Kind = "phrase"
	Other    Kind = "other"
)

// Kinds lists them.
var Kinds = []Kind{WarmUp, Cards, Lick, Exercise, Tune, Free, Phrase, Other}

// Went is how it went, as the player says.
type Went string

// The ways it went; empty where nobody said.
const (
	NotSaid Went = ""
	Rough   Went = "rough"
	Fair    Went = "fair"
	Clean   Went = "clean"
)

// WentWays lists what a player may say.
var WentWays = []Went{Rough, Fair, Clean}

// Entry is one thing that was practised.
type Entry struct {
	// Began is when it began, in the time zone of the player.
	Began   time.Time
	Seconds int
	Kind    Kind
	// Item is its name: a lick, an exercise, a tune, a kind of drill.
	Item string
	// Key and Position are where it was practised, as they are written; empty for none.
	Key, Position string
	// Tempo is that which was reached, Goal the one wanted, in beats a minute; 0 for none.
	Tempo, Goal int
	// Right is how many cards were right, of so many asked; 0 of 0 for other kinds.
	Right, Of int
	Went      Went
	Note      string
}

// The bounds of an entry.
const (
	MaxSeconds = 24 * 60 * 60
	MaxItem    = 120
	MaxNote    = 2000
	MaxTempo   = 400
)

// FieldError says which part of an entry cannot be meant, and what can.
type FieldError struct{ Field, Detail string }

func (e *FieldError) Error() string { return e.Detail }

// Check returns a *FieldError for the first part that cannot be meant.
func (e Entry) Check() error {
	switch {
	case e.Began.IsZero() || e.Began.Year() < 1970 || e.Began.Year() > 2200:
		return &FieldError{"began", "an entry begins at a time between 1970 and 2200"}
	case e.Seconds < 0 || e.Seconds > MaxSeconds:
		return &FieldError{"seconds", fmt.Sprintf("an entry lasts 0 to %d seconds, a day; %d is not", MaxSeconds, e.Seconds)}
	case !slices.Contains(Kinds, e.Kind):
		return &FieldError{"kind", fmt.Sprintf("%q is no kind of entry; they are %s", e.Kind, joined(Kinds))}
	case e.Went != NotSaid && !slices.Contains(WentWays, e.Went):
		return &FieldError{"went", fmt.Sprintf("%q is not how it went; that is %s, or nothing", e.Went, joined(WentWays))}
	case len([]rune(e.Item)) > MaxItem:
		return &FieldError{"item", fmt.Sprintf("an item has at most %d characters", MaxItem)}
	case len([]rune(e.Note)) > MaxNote:
		return &FieldError{"note", fmt.Sprintf("a note has at most %d characters", MaxNote)}
	case e.Tempo < 0 || e.Tempo > MaxTempo || e.Goal < 0 || e.Goal > MaxTempo:
		return &FieldError{"tempo", fmt.Sprintf("a tempo is 0, for none, to %d", MaxTempo)}
	case e.Right < 0 || e.Of < e.Right:
		return &FieldError{"right", "as many are right at most as were asked"}
	}
	return nil
}

func joined[T ~string](all []T) string {
	words := make([]string, len(all))
	for n, one := range all {
		words[n] = string(one)
	}
	return strings.Join(words, ", ")
}

// Day is the day of an entry where it was played.
func (e Entry) Day() string { return e.Began.Format(time.DateOnly) }
