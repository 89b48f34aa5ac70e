// Package practice keeps what is practised: the cards that were asked with their answers, what is to be asked next, the
// plan for the minutes there are, and the log. The rules of all of it are core/practice's; this package reads and writes
// what they need (store) and the tunes that cards are drawn from (library/documents).
//
// Errors: store.ErrNotFound, store.ErrNotLast and *documents.InvalidError.
package practice

import (
	"undaris/library/documents"
	"undaris/store"
)

// Practice is what is practised with the documents of one data file.
type Practice struct {
	store      *store.Store
	library    *documents.Library
	enrolments *enrolments
	remembered *remembered
}

// New is the practice over the documents of a data file.
func New(l *documents.Library) *Practice {
	return &Practice{store: l.Store(), library: l, enrolments: &enrolments{known: map[uint]enrolment{}}, remembered: &remembered{}}
}

// Forget has everything read anew: what is kept was replaced as a whole.
func (p *Practice) Forget() {
	p.enrolments.forget()
	p.remembered.cards.forget()
	p.remembered.facts.forget()
}
