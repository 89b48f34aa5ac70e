package store

import (
	"context"
	"fmt"
	"strings"
	"time"

	"gorm.io/gorm"
)

// List returns every document of a kind, in the order they were made. A chart
// ID other than 0 lists only what was written over that chart.
func (s *Store) List(ctx context.Context, kind Kind, chartID uint) ([]Document, error) {
	return listed(kind, s.ofKind(ctx, kind, chartID).Order("id"), true)
}

// Entries lists the documents of a kind without their bodies, in the order they were
// made. A chart ID other than 0 lists only what was written over that chart.
func (s *Store) Entries(ctx context.Context, kind Kind, chartID uint) ([]Document, error) {
	return listed(kind, s.ofKind(ctx, kind, chartID).Order("id"), false)
}

// StateOf is a text that changes whenever a document of a kind does, whoever changes it.
func (s *Store) StateOf(ctx context.Context, kind Kind) (string, error) {
	var count, versions, newest, summaries int
	err := s.ofKind(ctx, kind, 0).Select("COUNT(*), COALESCE(SUM(version), 0), COALESCE(MAX(id), 0), COUNT(summary)").Row().Scan(&count, &versions, &newest, &summaries)
	return fmt.Sprint(count, " ", versions, " ", newest, " ", summaries), ofTheFile(err)
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
	return listed(kind, query, false)
}

func (s *Store) ofKind(ctx context.Context, kind Kind, chartID uint) *gorm.DB {
	query := s.db.WithContext(ctx).Model(&Document{}).Where("kind = ?", kind)
	if chartID != 0 {
		query = query.Where("chart_id = ?", chartID)
	}
	return query
}

// listed reads the documents of a query, with their bodies or without. The rows are scanned one by one, since that
// takes a third of the time for a large library, and so that one with a damaged time hides no other.
func listed(kind Kind, query *gorm.DB, bodies bool) ([]Document, error) {
	body := "NULL"
	if bodies {
		body = "body"
	}
	rows, err := query.Select("id, uid, name, version, summary, label, chart_id, created_at, updated_at, practised_at, deleted_at, " + body).Rows()
	if err != nil {
		return nil, ofTheFile(err)
	}
	defer func() { _ = rows.Close() }()
	all := []Document{}
	for rows.Next() {
		d := Document{Kind: kind}
		var created, updated, practised, deleted seenTime
		if err := rows.Scan(&d.ID, &d.UID, &d.Name, &d.Version, &d.Summary, &d.Label, &d.ChartID, &created, &updated, &practised, &deleted, &d.Body); err != nil {
			return nil, ofTheFile(err)
		}
		d.CreatedAt, d.UpdatedAt, d.DeletedAt = created.at, updated.at, gorm.DeletedAt{Time: deleted.at, Valid: deleted.there}
		if practised.there {
			d.PractisedAt = &practised.at
		}
		all = append(all, d)
	}
	return all, ofTheFile(rows.Err())
}

// seenTime is a time of a row; one that is damaged is the zero time.
type seenTime struct {
	at    time.Time
	there bool
}

// Scan takes a time from the driver, which gives what it cannot read as text.
func (t *seenTime) Scan(value any) error {
	t.at, t.there = time.Time{}, value != nil
	if at, ok := value.(time.Time); ok {
		t.at = at
	}
	return nil
}

// Deleted lists the deleted documents of a kind without their bodies, the latest first.
func (s *Store) Deleted(ctx context.Context, kind Kind) ([]Document, error) {
	return listed(kind, s.db.WithContext(ctx).Unscoped().Model(&Document{}).Where("kind = ? AND deleted_at IS NOT NULL", kind).Order("deleted_at DESC"), false)
}
