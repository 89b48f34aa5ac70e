package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// LogEntry is one entry of the practice log. Entries are only ever added: a correction is another one,
// and what is removed stays, with a mark.
type LogEntry struct {
	ID uint
	// UID names the entry in files, so that none is kept twice.
	UID           string
	BeganAt       time.Time
	OffsetMinutes int
	Seconds       int
	Kind, Item    string
	DocumentID    *uint
	Tonic         string
	Position      string
	Tempo, Goal   int
	Got, OfCards  int
	Went, Note    string
	WrittenAt     time.Time
	ReplacedBy    *uint
	RemovedAt     *time.Time
	// Damaged says which columns of the row cannot be read; empty for none. They have stand-ins.
	Damaged string `gorm:"-"`
}

// Log lists the entries that stand, the latest first.
func (s *Store) Log(ctx context.Context) ([]LogEntry, error) {
	all := []LogEntry{}
	return all, s.eachLogEntry(ctx, s.db.Where("replaced_by IS NULL AND removed_at IS NULL").Order("began_at DESC, id DESC"), func(e LogEntry, wrong faults) error {
		e.Damaged = wrong.text()
		all = append(all, e)
		return nil
	})
}

// LogFact is what pictures need of an entry.
type LogFact struct {
	BeganAt       time.Time
	OffsetMinutes int
	Seconds       int
	Kind, Item    string
	Tempo, Goal   int
	Went          string
}

// LogFacts are those of every entry that stands, in order of time. There may be tens of thousands:
// the rows are read as they lie, times as seconds.
func (s *Store) LogFacts(ctx context.Context) ([]LogFact, error) {
	rows, err := s.db.WithContext(ctx).Raw(`SELECT unixepoch(began_at), CAST(offset_minutes AS INTEGER), CAST(seconds AS INTEGER), kind, item, CAST(tempo AS INTEGER), CAST(goal AS INTEGER), went FROM log_entries
		WHERE replaced_by IS NULL AND removed_at IS NULL AND unixepoch(began_at) IS NOT NULL ORDER BY began_at`).Rows()
	if err != nil {
		return nil, asFileError(err)
	}
	defer func() { _ = rows.Close() }()
	all := []LogFact{}
	for rows.Next() {
		f, began := LogFact{}, int64(0)
		if err := rows.Scan(&began, &f.OffsetMinutes, &f.Seconds, &f.Kind, &f.Item, &f.Tempo, &f.Goal, &f.Went); err != nil {
			return nil, asFileError(err)
		}
		f.BeganAt = time.Unix(began, 0).UTC()
		all = append(all, f)
	}
	return all, asFileError(rows.Err())
}

// ItemFact is when a lick or a tune was last practised, the last tempo at which it was clean, and the
// last goal; 0 where there is none.
type ItemFact struct {
	Kind, Item    string
	LastAt        time.Time
	OffsetMinutes int
	Tempo, Goal   int
}

// ItemFacts are those of the things of the log that stand, of some kinds.
func (s *Store) ItemFacts(ctx context.Context, kinds []string) ([]ItemFact, error) {
	const standing = `replaced_by IS NULL AND removed_at IS NULL AND unixepoch(began_at) IS NOT NULL AND item <> '' AND kind IN ?`
	facts, at := []ItemFact{}, map[[2]string]int{}
	// Of the columns that are not summed up SQLite takes those of the row that has the most.
	read := func(query string, take func(f *ItemFact, value int, last int64, offset int)) error {
		rows, err := s.db.WithContext(ctx).Raw(query, kinds).Rows()
		if err != nil {
			return asFileError(err)
		}
		defer func() { _ = rows.Close() }()
		for rows.Next() {
			kind, item, value, last, offset := "", "", 0, int64(0), 0
			if err := rows.Scan(&kind, &item, &value, &last, &offset); err != nil {
				return asFileError(err)
			}
			n, known := at[[2]string{kind, item}]
			if !known {
				n = len(facts)
				at[[2]string{kind, item}] = n
				facts = append(facts, ItemFact{Kind: kind, Item: item})
			}
			take(&facts[n], value, last, offset)
		}
		return asFileError(rows.Err())
	}
	if err := read(`SELECT kind, item, 0, unixepoch(MAX(began_at)), CAST(offset_minutes AS INTEGER) FROM log_entries WHERE `+standing+` GROUP BY kind, item`,
		func(f *ItemFact, _ int, last int64, offset int) {
			f.LastAt, f.OffsetMinutes = time.Unix(last, 0).UTC(), offset
		}); err != nil {
		return nil, err
	}
	if err := read(`SELECT kind, item, CAST(tempo AS INTEGER), unixepoch(MAX(began_at)), 0 FROM log_entries WHERE `+standing+` AND tempo > 0 AND went NOT IN ('rough', 'fair') GROUP BY kind, item`,
		func(f *ItemFact, value int, _ int64, _ int) { f.Tempo = value }); err != nil {
		return nil, err
	}
	return facts, read(`SELECT kind, item, CAST(goal AS INTEGER), unixepoch(MAX(began_at)), 0 FROM log_entries WHERE `+standing+` AND goal > 0 GROUP BY kind, item`,
		func(f *ItemFact, value int, _ int64, _ int) { f.Goal = value })
}

// LogEntry reads one entry, whether it stands or not.
func (s *Store) LogEntry(ctx context.Context, id uint) (LogEntry, error) {
	found := []LogEntry{}
	err := s.eachLogEntry(ctx, s.db.Where("id = ?", id), func(e LogEntry, _ faults) error {
		found = append(found, e)
		return nil
	})
	if err == nil && len(found) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return LogEntry{}, err
	}
	return found[0], nil
}

// AddLog adds entries, all or none. Those whose UID is there already are left out; how many were
// added is returned with them.
func (s *Store) AddLog(ctx context.Context, entries []LogEntry) ([]LogEntry, error) {
	added := []LogEntry{}
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		for _, e := range entries {
			known := int64(0)
			if err := tx.Model(&LogEntry{}).Where("uid = ?", e.UID).Count(&known).Error; err != nil {
				return err
			}
			if known > 0 {
				continue
			}
			e.WrittenAt = s.now().UTC()
			if err := tx.Create(&e).Error; err != nil {
				return err
			}
			added = append(added, e)
		}
		return changed(tx, logChanges)
	})
	return added, err
}

// CorrectLog puts another entry in the place of one that stands; the one before stays, with a mark.
func (s *Store) CorrectLog(ctx context.Context, id uint, corrected LogEntry) (LogEntry, error) {
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		before, err := s.withTx(tx).LogEntry(ctx, id)
		if err != nil {
			return err
		}
		if before.ReplacedBy != nil || before.RemovedAt != nil {
			return &StaleError{}
		}
		corrected.WrittenAt = s.now().UTC()
		if err := tx.Create(&corrected).Error; err != nil {
			return err
		}
		if err := tx.Model(&LogEntry{}).Where("id = ?", id).UpdateColumn("replaced_by", corrected.ID).Error; err != nil {
			return err
		}
		return changed(tx, logChanges)
	})
	return corrected, err
}

// RemoveLog marks an entry as removed; RestoreLog takes the mark away.
func (s *Store) RemoveLog(ctx context.Context, id uint) error {
	return s.markLog(ctx, id, s.now().UTC())
}

// RestoreLog brings a removed entry back.
func (s *Store) RestoreLog(ctx context.Context, id uint) error { return s.markLog(ctx, id, nil) }

func (s *Store) markLog(ctx context.Context, id uint, mark any) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		result := tx.Model(&LogEntry{}).Where("id = ?", id).UpdateColumn("removed_at", mark)
		if result.Error == nil && result.RowsAffected == 0 {
			return ErrNotFound
		}
		if result.Error != nil {
			return result.Error
		}
		return changed(tx, logChanges)
	})
}
