package practice

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"undaris/core/practice"
	"undaris/core/practice/logbook"
	"undaris/core/practice/schedule"
	"undaris/library/documents"
	"undaris/store"
)

// Memories are what is remembered of every card that was asked, by their ids.
func (p *Practice) Memories(ctx context.Context) (map[string]schedule.Memory, error) {
	known, err := p.askedCards(ctx)
	return known.memories, err
}

// memoryOf is what a card is remembered by; of one whose first answer was taken back nothing.
func memoryOf(c store.Card) schedule.Memory {
	if c.Reps == 0 {
		return schedule.Memory{}
	}
	return schedule.Memory{
		Due: c.DueAt, LastReview: c.LastReviewAt, Stability: c.Stability, Difficulty: c.Difficulty,
		Reps: c.Reps, Lapses: c.Lapses, State: c.State, Interval: c.IntervalDays,
	}
}

// remember puts what a card is remembered by after an answer into its row.
func remember(c *store.Card, m schedule.Memory, right bool) {
	c.DueAt, c.LastReviewAt, c.Stability, c.Difficulty = m.Due, m.LastReview, m.Stability, m.Difficulty
	c.Reps, c.Lapses, c.State, c.IntervalDays = m.Reps, m.Lapses, m.State, m.Interval
	c.Answers++
	if right {
		c.RightAnswers++
	}
}

// Answer is an answer to a card that was marked.
type Answer struct {
	// UID names it, so that one that is sent twice counts once; empty for one that is sent once.
	UID  string
	Card practice.Card
	// At is when it was given, OffsetMinutes how far the player's clock is ahead of universal time.
	At            time.Time
	OffsetMinutes int
	Right         bool
	Got, Of       int
	Hints         int
	Took          time.Duration
}

// Reviewed is an answer as it was kept.
type Reviewed struct {
	ID     uint
	Grade  schedule.Grade
	Memory schedule.Memory
}

// mediansOf is how many right answers a median is of (our choice: the last few weeks).
const mediansOf = 50

// KeepAnswer grades an answer, schedules its card and keeps both. One whose uid is known already changes nothing: what is
// returned is what was kept then.
func (p *Practice) KeepAnswer(ctx context.Context, a Answer) (Reviewed, error) {
	var kept Reviewed
	ctx = context.WithoutCancel(ctx)
	// In one transaction: an answer that is given at the same moment finds the card as this one leaves it.
	err := p.store.Together(ctx, func(st *store.Store) error {
		var err error
		kept, err = keepAnswer(ctx, st, a)
		return err
	})
	return kept, err
}

func keepAnswer(ctx context.Context, st *store.Store, a Answer) (Reviewed, error) {
	id, kind := a.Card.ID(), string(a.Card.Kind)
	if a.UID != "" {
		switch known, err := st.ReviewByUID(ctx, a.UID); {
		case err == nil:
			card, err := st.Card(ctx, known.CardID)
			return Reviewed{ID: known.ID, Grade: schedule.Grade(known.Grade), Memory: memoryOf(card)}, err
		case !errors.Is(err, store.ErrNotFound):
			return Reviewed{}, err
		}
	}
	medians, err := st.MedianTook(ctx, []string{kind}, mediansOf)
	if err != nil {
		return Reviewed{}, err
	}
	before, err := st.Card(ctx, id)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return Reviewed{}, err
	}
	var was []byte
	if before.Reps > 0 {
		was, _ = json.Marshal(before)
	}
	grade := schedule.GradeOf(a.Right, a.Hints, a.Took, medians[kind])
	memory := memoryOf(before).Review(a.At.UTC(), grade)
	after := before
	after.ID, after.Kind = id, kind
	remember(&after, memory, a.Right)
	r, err := st.KeepReview(ctx, store.Review{
		UID: a.UID, CardID: id, Kind: kind, At: a.At.UTC(), OffsetMinutes: a.OffsetMinutes, Grade: int(grade), Got: a.Got, OfParts: a.Of, Hints: a.Hints, TookMS: int(a.Took.Milliseconds()), Before: was,
	}, after)
	return Reviewed{ID: r.ID, Grade: grade, Memory: memory}, err
}

// TakeBack takes the last answer to a card back: the card is as it was before, and the review stays
// with a mark.
func (p *Practice) TakeBack(ctx context.Context, review uint) error {
	_, err := p.store.TakeBackReview(context.WithoutCancel(ctx), review, func(r store.Review) (*store.Card, error) {
		card := &store.Card{ID: r.CardID, Kind: r.Kind, DueAt: r.At, LastReviewAt: r.At}
		if r.Before == nil {
			return card, nil
		}
		if err := json.Unmarshal(r.Before, card); err != nil {
			return nil, fmt.Errorf("what the card was before cannot be read: %w", err)
		}
		return card, nil
	})
	return err
}

// LogEntry is one entry of the practice log as kept.
type LogEntry struct {
	ID  uint
	UID string
	// DocumentID is the lick or the tune that it is about; 0 for none.
	DocumentID uint
	// Damaged says which parts of it cannot be read; empty for none.
	Damaged string
	logbook.Entry
}

func logEntryOf(e store.LogEntry) LogEntry {
	entry := LogEntry{ID: e.ID, UID: e.UID, Damaged: e.Damaged, Entry: logbook.Entry{
		Began: e.BeganAt.In(time.FixedZone("", 60*e.OffsetMinutes)), Seconds: e.Seconds, Kind: logbook.Kind(e.Kind), Item: e.Item, Key: e.Tonic, Position: e.Position,
		Tempo: e.Tempo, Goal: e.Goal, Right: e.Got, Of: e.OfCards, Went: logbook.Went(e.Went), Note: e.Note,
	}}
	if e.DocumentID != nil {
		entry.DocumentID = *e.DocumentID
	}
	return entry
}

func (e LogEntry) row() store.LogEntry {
	_, offset := e.Began.Zone()
	row := store.LogEntry{
		UID: e.UID, BeganAt: e.Began.UTC(), OffsetMinutes: offset / 60, Seconds: e.Seconds, Kind: string(e.Kind), Item: e.Item, Tonic: e.Key, Position: e.Position,
		Tempo: e.Tempo, Goal: e.Goal, Got: e.Right, OfCards: e.Of, Went: string(e.Went), Note: e.Note,
	}
	if e.DocumentID != 0 {
		row.DocumentID = &e.DocumentID
	}
	return row
}

// Log lists the entries of the practice log that stand, the latest first.
func (p *Practice) Log(ctx context.Context) ([]LogEntry, error) {
	rows, err := p.store.Log(ctx)
	all := make([]LogEntry, len(rows))
	for n, row := range rows {
		all[n] = logEntryOf(row)
	}
	return all, err
}

// LogFacts are what pictures need of the log: entries without notes, in order of time.
func (p *Practice) LogFacts(ctx context.Context) ([]logbook.Entry, error) {
	changes, err := p.store.LogChanges(ctx)
	if err != nil {
		return nil, err
	}
	return p.remembered.facts.at(changes, func() ([]logbook.Entry, error) { return p.logFacts(ctx) })
}

func (p *Practice) logFacts(ctx context.Context) ([]logbook.Entry, error) {
	facts, err := p.store.LogFacts(ctx)
	all := make([]logbook.Entry, len(facts))
	zones := map[int]*time.Location{}
	for n, f := range facts {
		zone := zones[f.OffsetMinutes]
		if zone == nil {
			zone = time.FixedZone("", 60*f.OffsetMinutes)
			zones[f.OffsetMinutes] = zone
		}
		all[n] = logbook.Entry{
			Began: f.BeganAt.In(zone), Seconds: f.Seconds, Kind: logbook.Kind(f.Kind), Item: f.Item, Tempo: f.Tempo, Goal: f.Goal, Went: logbook.Went(f.Went),
		}
	}
	return all, err
}

// AddLog adds entries, all or none; those that are known by their UID are left out. It returns
// those that were added.
func (p *Practice) AddLog(ctx context.Context, entries []LogEntry) ([]LogEntry, error) {
	rows := make([]store.LogEntry, len(entries))
	for n, e := range entries {
		if err := e.Check(); err != nil {
			return nil, &documents.InvalidError{Err: err}
		}
		rows[n] = e.row()
	}
	added, err := p.store.AddLog(context.WithoutCancel(ctx), rows)
	all := make([]LogEntry, len(added))
	for n, row := range added {
		all[n] = logEntryOf(row)
	}
	return all, err
}

// CorrectLog puts an entry in the place of one; that stays, with a mark.
func (p *Practice) CorrectLog(ctx context.Context, id uint, e LogEntry) (LogEntry, error) {
	if err := e.Check(); err != nil {
		return LogEntry{}, &documents.InvalidError{Err: err}
	}
	row, err := p.store.CorrectLog(context.WithoutCancel(ctx), id, e.row())
	return logEntryOf(row), err
}

// RemoveLog takes an entry out of the log; RestoreLog brings it back.
func (p *Practice) RemoveLog(ctx context.Context, id uint) error {
	return p.store.RemoveLog(context.WithoutCancel(ctx), id)
}

// RestoreLog brings a removed entry back.
func (p *Practice) RestoreLog(ctx context.Context, id uint) error {
	return p.store.RestoreLog(context.WithoutCancel(ctx), id)
}

// KeepHistory keeps many answers at once, in order of time, each graded against the median of those
// before it: for what was written elsewhere, and for what is made up. All are kept, or none.
func (p *Practice) KeepHistory(ctx context.Context, answers []Answer) error {
	cards, reviews := map[string]*store.Card{}, make([]store.Review, 0, len(answers))
	took := map[practice.Kind][]time.Duration{}
	for _, a := range answers {
		id, kind := a.Card.ID(), string(a.Card.Kind)
		card := cards[id]
		if card == nil {
			card = &store.Card{ID: id, Kind: kind}
			cards[id] = card
		}
		var was []byte
		if card.Reps > 0 {
			was, _ = json.Marshal(card)
		}
		grade := schedule.GradeOf(a.Right, a.Hints, a.Took, medianOf(took[a.Card.Kind]))
		if a.Right && a.Hints == 0 {
			recent := append(took[a.Card.Kind], a.Took)
			took[a.Card.Kind] = recent[max(len(recent)-mediansOf, 0):]
		}
		remember(card, memoryOf(*card).Review(a.At.UTC(), grade), a.Right)
		reviews = append(reviews, store.Review{
			CardID: id, Kind: kind, At: a.At.UTC(), OffsetMinutes: a.OffsetMinutes, Grade: int(grade), Got: a.Got, OfParts: a.Of, Hints: a.Hints, TookMS: int(a.Took.Milliseconds()), Before: was,
		})
	}
	all := make([]store.Card, 0, len(cards))
	for _, card := range cards {
		all = append(all, *card)
	}
	return p.store.KeepHistory(context.WithoutCancel(ctx), all, reviews)
}

func medianOf(took []time.Duration) time.Duration {
	if len(took) == 0 {
		return 0
	}
	sorted := slices.Sorted(slices.Values(took))
	return sorted[len(sorted)/2]
}
