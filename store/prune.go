package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// When revisions are thinned out (our choice: a day's work step by step, a month by days, and then by weeks).
const (
	everyRevision = 24 * time.Hour
	dailyRevision = 30 * 24 * time.Hour
)

// revisionAge is what decides whether a revision is kept.
type revisionAge struct {
	DocumentID uint
	Version    int
	SavedAt    time.Time
}

// PruneRevisions thins the versions out that later saves replaced: all of the last 24 hours stay, of the 30 days before
// the last one of each day, of what is older the last one of each week, and those with a label for ever. Days and weeks
// are of universal time. It returns how many it removed.
func (s *Store) PruneRevisions(ctx context.Context) (int, error) {
	removed := 0
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		old := []revisionAge{}
		now := s.now().UTC()
		err := tx.Model(&Revision{}).Where("label = '' AND saved_at < ? AND unixepoch(saved_at) IS NOT NULL", now.Add(-everyRevision)).
			Order("document_id, version DESC").Find(&old).Error
		if err != nil {
			return err
		}
		for _, r := range superfluous(old, now) {
			result := tx.Where("document_id = ? AND version = ?", r.DocumentID, r.Version).Delete(&Revision{})
			if result.Error != nil {
				return result.Error
			}
			removed += int(result.RowsAffected)
		}
		return nil
	})
	return removed, err
}

// superfluous lists the revisions that another one of the same document and the same day or week stands for. Those of
// a document come together, newest first, and are older than those that are all kept.
func superfluous(old []revisionAge, now time.Time) []revisionAge {
	type period struct {
		document uint
		weekly   bool
		at       int64
	}
	known, more := map[period]bool{}, []revisionAge{}
	for _, r := range old {
		day := r.SavedAt.Unix() / (24 * 60 * 60)
		p := period{document: r.DocumentID, at: day}
		if now.Sub(r.SavedAt) >= dailyRevision {
			p.weekly, p.at = true, (day+3)/7 // the first of January 1970 was a Thursday: weeks begin on Monday
		}
		if known[p] {
			more = append(more, r)
		}
		known[p] = true
	}
	return more
}

// freePagesToShrink is how much of the file may be empty before it is written anew (our choice: below a fifth it is not
// worth the while).
const freePagesToShrink = 0.2

// Shrink gives the disk back what the data file no longer needs, where that is much of it. It says whether it did.
func (s *Store) Shrink(ctx context.Context) (bool, error) {
	pages, unused := 0, 0
	db := s.db.WithContext(ctx)
	if err := db.Raw("PRAGMA page_count").Scan(&pages).Error; err != nil {
		return false, err
	}
	if err := db.Raw("PRAGMA freelist_count").Scan(&unused).Error; err != nil {
		return false, err
	}
	if float64(unused) < freePagesToShrink*float64(pages) {
		return false, nil
	}
	if err := db.Exec("VACUUM").Error; err != nil {
		return false, asFileError(err)
	}
	return true, s.Checkpoint(ctx)
}
