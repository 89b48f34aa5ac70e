// Package store keeps charts, licks and lines in one SQLite file. It knows
// documents by kind, name and body; what a body means is not its business.
package store

import (
	"errors"
	"fmt"
	"net/url"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// Store is an open data file.
type Store struct{ db *gorm.DB }

// Kind is what a document is.
type Kind string

// The kinds of document.
const (
	Chart Kind = "chart"
	Lick  Kind = "lick"
	Line  Kind = "line"
	Solo  Kind = "solo"
)

// Document is one kept thing.
type Document struct {
	ID      uint
	Kind    Kind
	Name    string
	Body    []byte
	Version int
	// ChartID is the chart a line was written over; nil for other kinds.
	ChartID              *uint
	CreatedAt, UpdatedAt time.Time
	// PractisedAt is when it was last played; nil for never.
	PractisedAt *time.Time
	DeletedAt   gorm.DeletedAt
}

// Revision is a document as it was before a save replaced it.
type Revision struct {
	DocumentID uint `gorm:"primaryKey"`
	Version    int  `gorm:"primaryKey"`
	Name       string
	Body       []byte
	SavedAt    time.Time
}

// ErrNotFound means that no document of that kind has that ID.
var ErrNotFound = errors.New("not found")

// StaleError means that a document was saved by someone else in between; the
// refused write has changed nothing.
type StaleError struct{ Given, Current int }

func (e *StaleError) Error() string {
	return fmt.Sprintf("version %d has been replaced; the current version is %d", e.Given, e.Current)
}

// Open opens the data file, creating it if need be, and brings it up to the
// newest migration. Every commit is on disk before a save is acknowledged
// (synchronous FULL), so that even a power cut loses none.
func Open(path string) (*Store, error) {
	pragmas := url.Values{
		"_pragma":      {"journal_mode(WAL)", "foreign_keys(1)", "busy_timeout(5000)", "synchronous(FULL)"},
		"_txlock":      {"immediate"},
		"_time_format": {"sqlite"},
		"_timezone":    {"UTC"},
	}
	db, err := gorm.Open(openSQLite("file:"+(&url.URL{Path: path}).EscapedPath()+"?"+pragmas.Encode()), &gorm.Config{
		TranslateError: true,
		Logger:         logger.Discard,
		NowFunc:        func() time.Time { return time.Now().UTC() },
	})
	if err != nil {
		return nil, fmt.Errorf("opening the data file %s: %w", path, err)
	}
	if err := migrate(db); err != nil {
		return nil, fmt.Errorf("bringing the data file %s up to date: %w", path, err)
	}
	return &Store{db: db}, nil
}

// Close closes the data file.
func (s *Store) Close() error {
	db, err := s.db.DB()
	if err != nil {
		return err
	}
	return db.Close()
}

// New says whether the file has never held a document, deleted ones included.
func (s *Store) New() (bool, error) {
	var count int64
	err := s.db.Unscoped().Model(&Document{}).Limit(1).Count(&count).Error
	return count == 0, err
}

// Together runs several writes as one: all of them are kept, or none.
func (s *Store) Together(writes func(*Store) error) error {
	return s.db.Transaction(func(tx *gorm.DB) error { return writes(&Store{tx}) })
}

// Create keeps a new document and returns it with its ID and version 1.
func (s *Store) Create(d Document) (Document, error) {
	d.ID, d.Version = 0, 1
	return d, s.db.Create(&d).Error
}

// Read returns one document.
func (s *Store) Read(kind Kind, id uint) (Document, error) {
	var d Document
	err := s.db.Where("kind = ?", kind).First(&d, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return Document{}, ErrNotFound
	}
	return d, err
}

// List returns every document of a kind, in the order they were made. A chart
// ID other than 0 lists only what was written over that chart.
func (s *Store) List(kind Kind, chartID uint) ([]Document, error) {
	documents := []Document{}
	query := s.db.Where("kind = ?", kind).Order("id")
	if chartID != 0 {
		query = query.Where("chart_id = ?", chartID)
	}
	return documents, query.Find(&documents).Error
}

// Replace saves a new name and body over the given version and keeps the one
// before it. A version that is not the current one is a *StaleError.
func (s *Store) Replace(kind Kind, id uint, version int, name string, body []byte) (Document, error) {
	var saved Document
	err := s.db.Transaction(func(tx *gorm.DB) error {
		before, err := (&Store{tx}).current(kind, id, version)
		if err != nil {
			return err
		}
		revision := Revision{DocumentID: id, Version: before.Version, Name: before.Name, Body: before.Body, SavedAt: before.UpdatedAt}
		if err := tx.Create(&revision).Error; err != nil {
			return err
		}
		saved = before
		saved.Name, saved.Body, saved.Version = name, body, version+1
		return tx.Save(&saved).Error
	})
	return saved, err
}

// Practised notes that the document was played at a time. It is no new version:
// nothing of what is kept changes.
func (s *Store) Practised(kind Kind, id uint, at time.Time) error {
	result := s.db.Model(&Document{}).Where("kind = ? AND id = ?", kind, id).UpdateColumn("practised_at", at.UTC())
	if result.Error == nil && result.RowsAffected == 0 {
		return ErrNotFound
	}
	return result.Error
}

// Deleted lists the deleted documents of a kind, the latest first.
func (s *Store) Deleted(kind Kind) ([]Document, error) {
	documents := []Document{}
	return documents, s.db.Unscoped().Where("kind = ? AND deleted_at IS NOT NULL", kind).Order("deleted_at DESC").Find(&documents).Error
}

// Delete takes the document out of every list; Restore brings it back.
func (s *Store) Delete(kind Kind, id uint, version int) error {
	return s.db.Transaction(func(tx *gorm.DB) error {
		d, err := (&Store{tx}).current(kind, id, version)
		if err != nil {
			return err
		}
		return tx.Delete(&d).Error
	})
}

// Restore brings a deleted document back as it was.
func (s *Store) Restore(kind Kind, id uint) (Document, error) {
	result := s.db.Unscoped().Model(&Document{}).Where("kind = ? AND id = ?", kind, id).Update("deleted_at", nil)
	if result.Error != nil {
		return Document{}, result.Error
	}
	return s.Read(kind, id)
}

// Revisions lists the versions of a document that later saves replaced, newest
// first.
func (s *Store) Revisions(id uint) ([]Revision, error) {
	revisions := []Revision{}
	return revisions, s.db.Where("document_id = ?", id).Order("version DESC").Find(&revisions).Error
}

// Revision returns one version of a document that a later save replaced.
func (s *Store) Revision(id uint, version int) (Revision, error) {
	var r Revision
	err := s.db.Where("document_id = ? AND version = ?", id, version).First(&r).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return Revision{}, ErrNotFound
	}
	return r, err
}

// current reads the document and checks that the version is its present one.
func (s *Store) current(kind Kind, id uint, version int) (Document, error) {
	d, err := s.Read(kind, id)
	if err == nil && d.Version != version {
		return Document{}, &StaleError{Given: version, Current: d.Version}
	}
	return d, err
}
