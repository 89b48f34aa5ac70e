package store

import (
	"context"
	"errors"

	"gorm.io/gorm"
)

// EachDocument calls a function with every document, deleted ones too, in the order of their ids; of one chart and what
// was written over it, or of all for 0. The function must not write to the store.
func (s *Store) EachDocument(ctx context.Context, chartID uint, do func(Document) error) error {
	query := s.db.WithContext(ctx).Unscoped().Model(&Document{}).Order("id")
	if chartID != 0 {
		query = query.Where("id = ? OR chart_id = ?", chartID, chartID)
	}
	return eachDocument(query, true, do)
}

// EachCard, EachReview and EachLogEntry call a function with every row, whether it stands or not, in a fixed order.
// The function must not write to the store.
func (s *Store) EachCard(ctx context.Context, do func(Card) error) error {
	return s.eachCard(ctx, func(c Card, _ faults) error { return do(c) })
}

// EachReview is EachCard of the reviews.
func (s *Store) EachReview(ctx context.Context, do func(Review) error) error {
	return s.eachReview(ctx, s.db.Order("id"), func(r Review, _ faults) error { return do(r) })
}

// EachLogEntry is EachCard of the log.
func (s *Store) EachLogEntry(ctx context.Context, do func(LogEntry) error) error {
	return s.eachLogEntry(ctx, s.db.Order("id"), func(e LogEntry, _ faults) error { return do(e) })
}

// Insert keeps a document as it is, with its uid, version, times and, where nobody has it, its id; deleted or not. It
// returns its id.
func (s *Store) Insert(ctx context.Context, d Document) (uint, error) {
	if d.ID != 0 {
		taken := int64(0)
		if err := s.db.WithContext(ctx).Unscoped().Model(&Document{}).Where("id = ?", d.ID).Count(&taken).Error; err != nil {
			return 0, err
		}
		if taken > 0 {
			d.ID = 0
		}
	}
	if d.UID == "" {
		d.UID = newUID()
	}
	err := s.db.WithContext(ctx).Create(&d).Error
	if errors.Is(err, gorm.ErrDuplicatedKey) {
		return 0, ErrExists
	}
	return d.ID, err
}

// InsertRevisions keeps earlier versions of a document; those that are there stay as they are.
func (s *Store) InsertRevisions(ctx context.Context, all []Revision) error {
	for _, r := range all {
		known := int64(0)
		if err := s.db.WithContext(ctx).Model(&Revision{}).Where("document_id = ? AND version = ?", r.DocumentID, r.Version).Count(&known).Error; err != nil {
			return err
		}
		if known > 0 {
			continue
		}
		if err := s.db.WithContext(ctx).Create(&r).Error; err != nil {
			return err
		}
	}
	return nil
}

// PutSetting keeps a setting as it is; what was kept under its name stays among its versions.
func (s *Store) PutSetting(ctx context.Context, setting Setting) error {
	before, err := s.Setting(ctx, setting.Name)
	if err != nil {
		return err
	}
	if before.Version > 0 {
		if err := s.keepSettingRevision(before); err != nil {
			return err
		}
	}
	return s.db.WithContext(ctx).Exec(`INSERT OR REPLACE INTO settings (name, body, version, updated_at) VALUES (?, ?, ?, ?)`,
		setting.Name, setting.Body, setting.Version, setting.UpdatedAt).Error
}

// InsertPractice keeps cards in the place of those of the same ids, and reviews and entries of the log as new rows. The
// entries are replaced by others of the list, counted from 1, where ReplacedBy says so.
func (s *Store) InsertPractice(ctx context.Context, cards []Card, reviews []Review, entries []LogEntry) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		const batch = 200
		for _, c := range cards {
			if err := tx.Save(&c).Error; err != nil {
				return err
			}
		}
		for n := range reviews {
			reviews[n].ID = 0
		}
		if len(reviews) > 0 {
			if err := tx.CreateInBatches(reviews, batch).Error; err != nil {
				return err
			}
		}
		ids, replacedBy := make([]uint, len(entries)), make([]*uint, len(entries))
		for n, e := range entries {
			e.ID, replacedBy[n], e.ReplacedBy = 0, e.ReplacedBy, nil
			if err := tx.Create(&e).Error; err != nil {
				return err
			}
			ids[n] = e.ID
		}
		for n, by := range replacedBy {
			if by == nil {
				continue
			}
			if err := tx.Model(&LogEntry{}).Where("id = ?", ids[n]).UpdateColumn("replaced_by", ids[*by-1]).Error; err != nil {
				return err
			}
		}
		return errors.Join(changed(tx, cardChanges), changed(tx, logChanges))
	})
}

// Empty removes everything, deleted documents too. It is for what replaces it within the same transaction.
func (s *Store) Empty(ctx context.Context) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		for _, statement := range []string{
			`DELETE FROM revisions`, `UPDATE documents SET chart_id = NULL`, `DELETE FROM documents`, `DELETE FROM settings`, `DELETE FROM setting_revisions`,
			`DELETE FROM reviews`, `DELETE FROM cards`, `UPDATE log_entries SET replaced_by = NULL`, `DELETE FROM log_entries`,
		} {
			if err := tx.Exec(statement).Error; err != nil {
				return err
			}
		}
		return errors.Join(changed(tx, cardChanges), changed(tx, logChanges))
	})
}

// ReplaceKeepingBefore brings a deleted document back, or puts a version from elsewhere in the place of the present one, which stays
// as a revision.
func (s *Store) ReplaceKeepingBefore(ctx context.Context, id uint, d Document) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		before, err := one(tx.Unscoped().Model(&Document{}).Where("id = ?", id))
		if err != nil {
			return err
		}
		revision := Revision{DocumentID: id, Version: before.Version, Name: before.Name, Label: before.Label, Body: before.Body, SavedAt: before.UpdatedAt}
		if err := tx.Create(&revision).Error; err != nil {
			return err
		}
		after := before
		after.Name, after.Body, after.Summary, after.Label = d.Name, d.Body, nil, d.Label
		after.Version, after.DeletedAt = before.Version+1, gorm.DeletedAt{}
		return tx.Unscoped().Save(&after).Error
	})
}
