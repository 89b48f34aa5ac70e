package store

import (
	"context"
	"strings"

	"gorm.io/gorm"
)

// List returns every document of a kind, in the order they were made. A chart
// ID other than 0 lists only what was written over that chart.
func (s *Store) List(ctx context.Context, kind Kind, chartID uint) ([]Document, error) {
	return listed(s.ofKind(ctx, kind, chartID).Order("id"), true)
}

// Entries lists the documents of a kind without their bodies, in the order they were
// made. A chart ID other than 0 lists only what was written over that chart.
func (s *Store) Entries(ctx context.Context, kind Kind, chartID uint) ([]Document, error) {
	return listed(s.ofKind(ctx, kind, chartID).Order("id"), false)
}

// ChangesOf is how often documents of a kind were written: as long as it is the same, so are they, whoever writes them
// (the data file counts, by triggers).
func (s *Store) ChangesOf(ctx context.Context, kind Kind) (int, error) {
	return s.changes(ctx, "documents: "+string(kind))
}

// Page chooses some of the documents of a list.
type Page struct {
	// Limit is how many there are at most, 0 for all; After is the id that they come after, 0 for the first.
	Limit int
	After uint
	// Search is a part of their names, whatever its case (of ASCII letters); empty for any.
	Search string
}

// EntriesOf is Entries of one page, in the order they were made.
func (s *Store) EntriesOf(ctx context.Context, kind Kind, chartID uint, page Page) ([]Document, error) {
	query := s.ofKind(ctx, kind, chartID).Order("id").Where("id > ?", page.After)
	if page.Search != "" {
		literal := strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`).Replace(page.Search)
		query = query.Where(`name LIKE ? ESCAPE '\'`, "%"+literal+"%")
	}
	if page.Limit > 0 {
		query = query.Limit(page.Limit)
	}
	return listed(query, false)
}

func (s *Store) ofKind(ctx context.Context, kind Kind, chartID uint) *gorm.DB {
	query := s.db.WithContext(ctx).Model(&Document{}).Where("kind = ?", kind)
	if chartID != 0 {
		query = query.Where("chart_id = ?", chartID)
	}
	return query
}

// Deleted lists the deleted documents of a kind without their bodies, the latest first.
func (s *Store) Deleted(ctx context.Context, kind Kind) ([]Document, error) {
	return listed(s.db.WithContext(ctx).Unscoped().Model(&Document{}).Where("kind = ? AND deleted_at IS NOT NULL", kind).Order("deleted_at DESC"), false)
}
