package store

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"gorm.io/gorm"
)

// A row is read column by column, so that one that a disk or another program has changed hides nothing but itself: a
// time or a number that cannot be read has a stand-in, and the row says what is wrong with it.

// seenTime is a time of a row; one that cannot be read is the zero time, and damaged.
type seenTime struct {
	at             time.Time
	there, damaged bool
}

// Scan takes a time from the driver, which gives what it cannot read as text.
func (t *seenTime) Scan(value any) error {
	t.at, t.there, t.damaged = time.Time{}, value != nil, false
	at, ok := value.(time.Time)
	t.at, t.damaged = at, value != nil && !ok
	return nil
}

// seenNumber is a number of a row; one that cannot be read is 0, and damaged.
type seenNumber struct {
	value          float64
	whole          int64
	there, damaged bool
}

// Scan takes a number from the driver.
func (n *seenNumber) Scan(value any) error {
	*n = seenNumber{there: value != nil}
	switch v := value.(type) {
	case nil:
	case int64:
		n.whole, n.value = v, float64(v)
	case float64:
		n.whole, n.value = int64(v), v
	default:
		n.damaged = true
	}
	return nil
}

// faults are what is wrong with the columns of a row.
type faults []string

func (f *faults) time(name string, t seenTime) time.Time {
	if t.damaged {
		*f = append(*f, "its time "+name+" cannot be read")
	}
	return t.at
}

func (f *faults) optionalTime(name string, t seenTime) *time.Time {
	at := f.time(name, t)
	if !t.there || t.damaged {
		return nil
	}
	return &at
}

func (f *faults) number(name string, n seenNumber) int {
	if n.damaged {
		*f = append(*f, "its "+name+" cannot be read")
	}
	return int(n.whole)
}

func (f *faults) optionalID(name string, n seenNumber) *uint {
	if !n.there || n.damaged {
		f.number(name, n)
		return nil
	}
	id := uint(n.whole)
	return &id
}

func (f faults) text() string { return strings.Join(f, "; ") }

const documentColumns = "id, uid, kind, name, version, summary, label, chart_id, created_at, updated_at, practised_at, deleted_at"

// eachDocument calls a function with the documents of a query, with their bodies or without. The rows are scanned one by
// one, since that takes a third of the time for a large library.
func eachDocument(query *gorm.DB, bodies bool, do func(Document) error) error {
	body := "NULL"
	if bodies {
		body = "body"
	}
	rows, err := query.Select(documentColumns + ", " + body).Rows()
	if err != nil {
		return asFileError(err)
	}
	defer func() { _ = rows.Close() }()
	for rows.Next() {
		d := Document{}
		var created, updated, practised, deleted seenTime
		var version, chartID seenNumber
		if err := rows.Scan(&d.ID, &d.UID, &d.Kind, &d.Name, &version, &d.Summary, &d.Label, &chartID, &created, &updated, &practised, &deleted, &d.Body); err != nil {
			return asFileError(err)
		}
		wrong := faults{}
		d.Version, d.ChartID = wrong.number("version", version), wrong.optionalID("tune", chartID)
		d.CreatedAt, d.UpdatedAt, d.PractisedAt = wrong.time("of making", created), wrong.time("of saving", updated), wrong.optionalTime("of practice", practised)
		d.DeletedAt = gorm.DeletedAt{Time: wrong.time("of deleting", deleted), Valid: deleted.there}
		d.Damaged = wrong.text()
		if err := do(d); err != nil {
			return err
		}
	}
	return asFileError(rows.Err())
}

// listed reads the documents of a query.
func listed(query *gorm.DB, bodies bool) ([]Document, error) {
	all := []Document{}
	return all, eachDocument(query, bodies, func(d Document) error { all = append(all, d); return nil })
}

// one reads the document of a query; ErrNotFound where there is none.
func one(query *gorm.DB) (Document, error) {
	all, err := listed(query.Limit(1), true)
	if err == nil && len(all) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return Document{}, err
	}
	return all[0], nil
}

// RowError says that a row of what belongs to no document cannot be read: what it is, as a subject, and what is wrong.
type RowError struct{ What, Wrong string }

func (e *RowError) Error() string { return e.What + ": " + e.Wrong }

// EachDamagedRow calls a function with everything that is wrong with the rows of the data file, table by table. What is
// wrong with the bodies in them is not the store's to know.
func (s *Store) EachDamagedRow(ctx context.Context, do func(RowError)) error {
	err := eachDocument(s.db.WithContext(ctx).Unscoped().Model(&Document{}).Order("id"), false, func(d Document) error {
		if d.Damaged != "" {
			do(RowError{fmt.Sprintf("the %s %q (id %d)", d.Kind, d.Name, d.ID), d.Damaged})
		}
		return nil
	})
	return errors.Join(err,
		s.eachCard(ctx, func(c Card, wrong faults) error {
			if len(wrong) > 0 {
				do(RowError{"the card " + c.ID, wrong.text()})
			}
			return nil
		}),
		s.eachReview(ctx, s.db.Order("id"), func(r Review, wrong faults) error {
			if len(wrong) > 0 {
				do(RowError{fmt.Sprintf("the answer %d", r.ID), wrong.text()})
			}
			return nil
		}),
		s.eachLogEntry(ctx, s.db.Order("id"), func(e LogEntry, wrong faults) error {
			if len(wrong) > 0 {
				do(RowError{fmt.Sprintf("the entry %d of the log", e.ID), wrong.text()})
			}
			return nil
		}),
		s.eachSetting(ctx, func(setting Setting, wrong faults) error {
			if len(wrong) > 0 {
				do(RowError{"the setting " + setting.Name, wrong.text()})
			}
			return nil
		}),
		s.eachRevision(ctx, s.db.Order("document_id, version"), func(r Revision, wrong faults) error {
			if len(wrong) > 0 {
				do(RowError{fmt.Sprintf("version %d of the document %d", r.Version, r.DocumentID), wrong.text()})
			}
			return nil
		}))
}

// eachCard, eachReview and the others below read the rows of a table with what is wrong with each.
func (s *Store) eachCard(ctx context.Context, do func(Card, faults) error) error {
	return s.eachCardOf(ctx, s.db.Order("id"), do)
}

func (s *Store) eachCardOf(ctx context.Context, query *gorm.DB, do func(Card, faults) error) error {
	return eachRow(query.WithContext(ctx).Table("cards").Select("id, kind, due_at, last_review_at, stability, difficulty, reps, lapses, state, interval_days, answers, right_answers"),
		func(scan func(...any) error) error {
			c, wrong := Card{}, faults{}
			var due, last seenTime
			var stability, difficulty, reps, lapses, state, interval, answers, right seenNumber
			if err := scan(&c.ID, &c.Kind, &due, &last, &stability, &difficulty, &reps, &lapses, &state, &interval, &answers, &right); err != nil {
				return err
			}
			c.DueAt, c.LastReviewAt = wrong.time("of being due", due), wrong.time("of the last answer", last)
			c.Stability, c.Difficulty = stability.value, difficulty.value
			wrong.number("stability", stability)
			wrong.number("difficulty", difficulty)
			c.Reps, c.Lapses, c.State = wrong.number("repetitions", reps), wrong.number("lapses", lapses), wrong.number("state", state)
			c.IntervalDays, c.Answers, c.RightAnswers = wrong.number("interval", interval), wrong.number("answers", answers), wrong.number("right answers", right)
			return do(c, wrong)
		})
}

func (s *Store) eachReview(ctx context.Context, ordered *gorm.DB, do func(Review, faults) error) error {
	return eachRow(ordered.WithContext(ctx).Table("reviews").Select("id, uid, card_id, kind, at, offset_minutes, grade, got, of_parts, hints, took_ms, before, taken_back_at"),
		func(scan func(...any) error) error {
			r, wrong := Review{}, faults{}
			var at, takenBack seenTime
			var offset, grade, got, of, hints, took seenNumber
			if err := scan(&r.ID, &r.UID, &r.CardID, &r.Kind, &at, &offset, &grade, &got, &of, &hints, &took, &r.Before, &takenBack); err != nil {
				return err
			}
			r.At, r.TakenBackAt = wrong.time("of answering", at), wrong.optionalTime("of being taken back", takenBack)
			r.OffsetMinutes, r.Grade, r.Got = wrong.number("offset", offset), wrong.number("grade", grade), wrong.number("right parts", got)
			r.OfParts, r.Hints, r.TookMS = wrong.number("parts", of), wrong.number("hints", hints), wrong.number("time taken", took)
			return do(r, wrong)
		})
}

func (s *Store) eachLogEntry(ctx context.Context, ordered *gorm.DB, do func(LogEntry, faults) error) error {
	return eachRow(ordered.WithContext(ctx).Table("log_entries").Select("id, uid, began_at, offset_minutes, seconds, kind, item, document_id, tonic, position, tempo, goal, got, of_cards, went, note, written_at, replaced_by, removed_at"),
		func(scan func(...any) error) error {
			e, wrong := LogEntry{}, faults{}
			var began, written, removed seenTime
			var offset, seconds, document, tempo, goal, got, of, replaced seenNumber
			if err := scan(&e.ID, &e.UID, &began, &offset, &seconds, &e.Kind, &e.Item, &document, &e.Tonic, &e.Position, &tempo, &goal, &got, &of, &e.Went, &e.Note, &written, &replaced, &removed); err != nil {
				return err
			}
			e.BeganAt, e.WrittenAt, e.RemovedAt = wrong.time("of beginning", began), wrong.time("of writing", written), wrong.optionalTime("of removing", removed)
			e.OffsetMinutes, e.Seconds, e.Tempo, e.Goal = wrong.number("offset", offset), wrong.number("seconds", seconds), wrong.number("tempo", tempo), wrong.number("goal", goal)
			e.Got, e.OfCards = wrong.number("right cards", got), wrong.number("cards", of)
			e.DocumentID, e.ReplacedBy = wrong.optionalID("document", document), wrong.optionalID("correction", replaced)
			return do(e, wrong)
		})
}

func (s *Store) eachSetting(ctx context.Context, do func(Setting, faults) error) error {
	return eachRow(s.db.WithContext(ctx).Table("settings").Order("name").Select("name, body, version, updated_at"), func(scan func(...any) error) error {
		setting, wrong := Setting{}, faults{}
		var version seenNumber
		var updated seenTime
		if err := scan(&setting.Name, &setting.Body, &version, &updated); err != nil {
			return err
		}
		// A setting that is there has a version, even where it cannot be read: what is not there has 0.
		setting.Version, setting.UpdatedAt = max(wrong.number("version", version), 1), wrong.time("of saving", updated)
		return do(setting, wrong)
	})
}

func (s *Store) eachRevision(ctx context.Context, query *gorm.DB, do func(Revision, faults) error) error {
	return eachRow(query.WithContext(ctx).Table("revisions").Select("document_id, version, name, label, body, saved_at"), func(scan func(...any) error) error {
		r, wrong := Revision{}, faults{}
		var version seenNumber
		var saved seenTime
		if err := scan(&r.DocumentID, &version, &r.Name, &r.Label, &r.Body, &saved); err != nil {
			return err
		}
		r.Version, r.SavedAt = wrong.number("version", version), wrong.time("of saving", saved)
		return do(r, wrong)
	})
}

// eachRow calls a function with a scan of every row of a query.
func eachRow(query *gorm.DB, read func(scan func(...any) error) error) error {
	rows, err := query.Rows()
	if err != nil {
		return asFileError(err)
	}
	defer func() { _ = rows.Close() }()
	for rows.Next() {
		if err := read(rows.Scan); err != nil {
			return asFileError(err)
		}
	}
	return asFileError(rows.Err())
}
