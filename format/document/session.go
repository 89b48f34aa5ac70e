package document

import (
	"fmt"
	"slices"
	"time"

	"undaris/core/chart"
	"undaris/core/practice/plan"
)

// Session is a practice session: a plan that runs, or a template of one.
type Session struct {
	Name    string `json:"name" maxLength:"60"`
	Minutes int    `json:"minutes" doc:"What was planned, breaks not counted"`
	// Template says that it is kept to be begun again.
	Template bool `json:"template,omitempty"`
	// Began is when it was begun, in the time zone of the player; left out while it was not.
	Began *time.Time `json:"began,omitempty"`
	Ended *time.Time `json:"ended,omitempty"`
	Zone  string     `json:"zone,omitempty" doc:"The name of the time zone, as the browser knows it"`
	// At is the block that is on.
	At     int            `json:"at" doc:"The block that is on, from 0; as many as there are blocks once all are done"`
	Blocks []SessionBlock `json:"blocks" maxItems:"100"`
}

// SessionBlock is one block of a session.
type SessionBlock struct {
	Kind    string `json:"kind" enum:"warm-up,cards,lick,exercise,tune,free,phrase,note,break"`
	Minutes int    `json:"minutes"`
	Item    uint   `json:"item,omitempty" doc:"The id of the lick, the exercise or the tune"`
	Title   string `json:"title"`
	Detail  string `json:"detail,omitempty"`
	Why     string `json:"why,omitempty" doc:"Why it is there"`
	Seconds int    `json:"seconds,omitempty" doc:"How long it was practised so far"`
}

// maxSessionBlocks is how many blocks a session has at most.
const maxSessionBlocks = 100

// Checked returns the session as it is kept, or a *chart.FieldError.
func (s Session) Checked() (Session, error) {
	s.Name = seenName(s.Name)
	if s.Name == "" {
		s.Name = fmt.Sprintf("%d minutes", s.Minutes)
	}
	kinds := []plan.Kind{plan.WarmUp, plan.Cards, plan.Lick, plan.Exercise, plan.Tune, plan.Free, plan.Phrase, plan.NoteDown, plan.Break}
	switch {
	case len([]rune(s.Name)) > 60:
		return s, &chart.FieldError{Field: "name", Detail: "a session's name has at most 60 characters"}
	case len(s.Blocks) == 0 || len(s.Blocks) > maxSessionBlocks:
		return s, &chart.FieldError{Field: "blocks", Detail: fmt.Sprintf("a session has 1 to %d blocks", maxSessionBlocks)}
	case s.At < 0 || s.At > len(s.Blocks):
		return s, &chart.FieldError{Field: "at", Detail: fmt.Sprintf("the block that is on is 0 to %d; %d is not", len(s.Blocks), s.At)}
	}
	for n, b := range s.Blocks {
		field := fmt.Sprintf("blocks[%d]", n)
		switch {
		case !slices.Contains(kinds, plan.Kind(b.Kind)):
			return s, &chart.FieldError{Field: field + ".kind", Detail: fmt.Sprintf("%q is no kind of block", b.Kind)}
		case b.Minutes < 1 || b.Minutes > plan.MaxMinutes:
			return s, &chart.FieldError{Field: field + ".minutes", Detail: fmt.Sprintf("a block lasts 1 to %d minutes; %d are not", plan.MaxMinutes, b.Minutes)}
		case len([]rune(b.Title)) > 120 || len([]rune(b.Detail)) > 200 || len([]rune(b.Why)) > 200:
			return s, &chart.FieldError{Field: field + ".title", Detail: "a block's title has at most 120 characters, what is said of it 200"}
		case b.Seconds < 0 || b.Seconds > 24*60*60:
			return s, &chart.FieldError{Field: field + ".seconds", Detail: "a block was practised for 0 seconds to a day"}
		}
	}
	return s, nil
}
