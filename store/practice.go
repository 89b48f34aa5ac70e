package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
)

// Card is the memory of one card, and the sums of its reviews.
type Card struct {
	ID                    string `gorm:"primaryKey"`
	Kind                  string
	DueAt, LastReviewAt   time.Time
	Stability, Difficulty float64
	Reps, Lapses, State   int
	IntervalDays          int
	Answers, RightAnswers int
}

// Review is one answer to a card. Reviews are only ever added; one that is taken back stays, with a
// mark.
type Review struct {
	ID uint
	// UID names the answer wherever it goes; empty for those from before there were any.
	UID    string `gorm:"column:uid"`
	CardID string
	Kind   string
	At     time.Time
	// OffsetMinutes is how far the player's clock is ahead of universal time.
	OffsetMinutes int
	Grade         int
	// Got is how many parts were right, of so many.
	Got, OfParts int
	Hints        int
	TookMS       int
	// Before is the card before the review, as JSON; nil where it was the first.
	Before      []byte
	TakenBackAt *time.Time
}

// What is counted in changes.
const (
	cardChanges = "cards"
	logChanges  = "log"
)

// changed counts a write within its transaction.
func changed(tx *gorm.DB, name string) error {
	return tx.Exec(`INSERT INTO changes (name, count) VALUES (?, 1) ON CONFLICT (name) DO UPDATE SET count = count + 1`, name).Error
}

// CardChanges is how often cards were written: as long as it is the same, they are.
func (s *Store) CardChanges(ctx context.Context) (int, error) { return s.changes(ctx, cardChanges) }

// LogChanges is how often the log was written.
func (s *Store) LogChanges(ctx context.Context) (int, error) { return s.changes(ctx, logChanges) }

func (s *Store) changes(ctx context.Context, name string) (int, error) {
	count := 0
	return count, s.db.WithContext(ctx).Raw(`SELECT COALESCE(MAX(count), 0) FROM changes WHERE name = ?`, name).Scan(&count).Error
}

// Cards lists every card that was ever asked, in the order of their ids. One with a damaged time or number is left out:
// it is asked as if it were new.
func (s *Store) Cards(ctx context.Context) ([]Card, error) {
	all := []Card{}
	return all, s.eachCard(ctx, func(c Card, wrong faults) error {
		if len(wrong) == 0 {
			all = append(all, c)
		}
		return nil
	})
}

// Card reads one card; ErrNotFound where it was never asked.
func (s *Store) Card(ctx context.Context, id string) (Card, error) {
	c, found := Card{}, false
	err := s.eachCardOf(ctx, s.db.Where("id = ?", id), func(one Card, wrong faults) error {
		c, found = one, len(wrong) == 0
		return nil
	})
	if err == nil && !found {
		return Card{}, ErrNotFound
	}
	return c, err
}

// ReviewByUID reads an answer by its uid; ErrNotFound where there is none.
func (s *Store) ReviewByUID(ctx context.Context, uid string) (Review, error) {
	found := []Review{}
	err := s.eachReview(ctx, s.db.Where("uid = ?", uid), func(r Review, _ faults) error {
		found = append(found, r)
		return nil
	})
	if err == nil && len(found) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return Review{}, err
	}
	return found[0], nil
}

// KeepReview keeps a review and the card after it, both or neither.
func (s *Store) KeepReview(ctx context.Context, r Review, after Card) (Review, error) {
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Save(&after).Error; err != nil {
			return err
		}
		if err := tx.Create(&r).Error; err != nil {
			return err
		}
		return changed(tx, cardChanges)
	})
	return r, err
}

// KeepHistory keeps many cards and their reviews, all or none.
func (s *Store) KeepHistory(ctx context.Context, cards []Card, reviews []Review) error {
	const batch = 400
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.CreateInBatches(cards, batch).Error; err != nil {
			return err
		}
		if err := tx.CreateInBatches(reviews, batch).Error; err != nil {
			return err
		}
		return changed(tx, cardChanges)
	})
}

// ErrNotLast says that a review is not the last of its card that stands.
var ErrNotLast = errors.New("it is not the last answer to its card")

// TakeBackReview marks the last review of a card as taken back, and puts the card where it was
// before; a card without one is forgotten where before is nil.
func (s *Store) TakeBackReview(ctx context.Context, id uint, before func(Review) (*Card, error)) (Review, error) {
	r := Review{}
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.First(&r, id).Error; err != nil {
			if errors.Is(err, gorm.ErrRecordNotFound) {
				return ErrNotFound
			}
			return err
		}
		later := int64(0)
		if err := tx.Model(&Review{}).Where("card_id = ? AND id > ? AND taken_back_at IS NULL", r.CardID, id).Count(&later).Error; err != nil {
			return err
		}
		if later > 0 || r.TakenBackAt != nil {
			return ErrNotLast
		}
		card, err := before(r)
		if err != nil {
			return err
		}
		now := s.now().UTC()
		r.TakenBackAt = &now
		if err := tx.Save(&r).Error; err != nil {
			return err
		}
		if err := tx.Save(card).Error; err != nil {
			return err
		}
		return changed(tx, cardChanges)
	})
	return r, err
}

// Reviews lists the last reviews that stand, newest first, of a kind or of all for "".
func (s *Store) Reviews(ctx context.Context, kind string, count int) ([]Review, error) {
	all := []Review{}
	query := s.db.Where("taken_back_at IS NULL").Order("id DESC").Limit(count)
	if kind != "" {
		query = query.Where("kind = ?", kind)
	}
	return all, s.eachReview(ctx, query, func(r Review, _ faults) error {
		all = append(all, r)
		return nil
	})
}

// CountNewSince counts the cards whose first review was at a time or later.
func (s *Store) CountNewSince(ctx context.Context, at time.Time) (int, error) {
	count := int64(0)
	err := s.db.WithContext(ctx).Model(&Review{}).Where("at >= ? AND taken_back_at IS NULL AND before IS NULL", at.UTC()).Count(&count).Error
	return int(count), err
}

// MedianTook is the middle of the times that the last right answers without a hint of each kind took,
// of so many of each; kinds without any are left out.
func (s *Store) MedianTook(ctx context.Context, kinds []string, count int) (map[string]time.Duration, error) {
	medians := map[string]time.Duration{}
	for _, kind := range kinds {
		took := []int{}
		err := s.db.WithContext(ctx).Raw(`SELECT CAST(took_ms AS INTEGER) FROM
			(SELECT took_ms FROM reviews WHERE kind = ? AND grade > 1 AND hints = 0 AND taken_back_at IS NULL ORDER BY id DESC LIMIT ?) ORDER BY took_ms`, kind, count).Scan(&took).Error
		if err != nil {
			return nil, err
		}
		if len(took) > 0 {
			medians[kind] = time.Duration(took[len(took)/2]) * time.Millisecond
		}
	}
	return medians, nil
}
