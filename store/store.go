// Package store keeps charts, licks and lines in one SQLite file. It knows
// documents by kind, name and body; what a body means is not its business.
package store

import (
	"bytes"
	"context"
	"crypto/rand"
	"database/sql"
	"encoding/hex"
	"errors"
	"fmt"
	"net/url"
	"os"
	"slices"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// Store is an open data file.
type Store struct {
	db   *gorm.DB
	path string
	// now is the clock; a test sets it.
	now func() time.Time
}

// Kind is what a document is.
type Kind string

// The kinds of document.
const (
	Chart Kind = "chart"
	Lick  Kind = "lick"
	Line  Kind = "line"
	Solo  Kind = "solo"
	// Band is how the band plays a tune, and the routines over it.
	Band Kind = "band"
	// Session is a practice session, or a template of one.
	Session Kind = "session"
	// Exercise is an exercise that is walked through chords.
	Exercise Kind = "exercise"
	// Take is one's own playing, recorded.
	Take Kind = "take"
)

var kinds = []Kind{Chart, Lick, Line, Solo, Band, Session, Exercise, Take}

// ErrKind says that a document is of no known kind.
var ErrKind = errors.New("there is no such kind of document")

// ErrExists says that there is one already of what there can only be one of.
var ErrExists = errors.New("there is one already")

// Document is one kept thing.
type Document struct {
	ID uint
	// UID names it wherever it goes: 32 hexadecimal digits, made when it was.
	UID     string `gorm:"column:uid"`
	Kind    Kind
	Name    string
	Body    []byte
	Version int
	// Summary is what a list shows of it, written by whoever wrote the body; nil where it
	// is not known, or where the body was changed by another program since.
	Summary []byte
	// Label is the name of its present version; empty for none.
	Label string
	// ChartID is the chart that a line, a solo or a band belongs to; nil for other kinds.
	ChartID              *uint
	CreatedAt, UpdatedAt time.Time
	// PractisedAt is when it was last played; nil for never.
	PractisedAt *time.Time
	DeletedAt   gorm.DeletedAt
	// Damaged says which columns of the row cannot be read; empty for none. They have stand-ins.
	Damaged string `gorm:"-"`
}

// Revision is a document as it was before a save replaced it.
type Revision struct {
	DocumentID uint `gorm:"primaryKey"`
	Version    int  `gorm:"primaryKey"`
	Name       string
	// Label is what the player calls the version; empty for none.
	Label   string
	Body    []byte
	SavedAt time.Time
}

// Sitting is how long a version stays open: saves that follow each other within this time
// are one sitting, and only its last state is kept when a later one replaces it (our
// choice: long enough to look something up, short enough that a day's work is several).
const Sitting = 5 * time.Minute

// inSitting says whether a save at a time belongs to the sitting of one before. One that seems to be of the future was
// made by a clock that was ahead, and is of another.
func inSitting(before, now time.Time) bool {
	apart := now.Sub(before)
	return apart >= -Sitting && apart < Sitting
}

// MaxLabel is how many characters the name of a version has at most.
const MaxLabel = 60

// ErrNotFound means that no document of that kind has that ID.
var ErrNotFound = errors.New("not found")

// StaleError means that a document was saved by someone else in between; the
// refused write has changed nothing.
type StaleError struct{ Given, Current int }

func (e *StaleError) Error() string {
	return fmt.Sprintf("version %d has been replaced; the current version is %d", e.Given, e.Current)
}

// Save is what replaces a version of a document.
type Save struct {
	Version int
	Name    string
	Body    []byte
	Summary []byte
	// KeepBefore keeps the version that is replaced, even if it is of the same sitting.
	KeepBefore bool
}

// Open opens the data file, creating it if need be, and brings it up to the
// newest migration. Every commit is on disk before a save is acknowledged
// (synchronous FULL), so that even a power cut loses none.
func Open(path string) (*Store, error) {
	s, err := openAsItIs(path)
	if err != nil {
		return nil, err
	}
	if err := migrate(s.db); err != nil {
		_ = s.Close()
		return nil, fmt.Errorf("bringing the data file %s up to date: %w", path, asFileError(err))
	}
	return s, nil
}

// leastFile is how many bytes a data file has at least: the smallest page of SQLite. A shorter one has lost what it held,
// and the driver would begin it anew. One without a byte is new: a program that was killed as it began it leaves that.
const leastFile = 512

// openAsItIs opens a data file without bringing it up to date.
func openAsItIs(path string) (*Store, error) {
	if info, err := os.Stat(path); err == nil && info.Size() > 0 && info.Size() < leastFile {
		return nil, fmt.Errorf("opening the data file %s: %w", path, &FileError{Cause: Damaged, err: fmt.Errorf("it has only %d bytes", info.Size())})
	}
	pragmas := url.Values{
		"_pragma":      {"journal_mode(WAL)", "foreign_keys(1)", "busy_timeout(15000)", "synchronous(FULL)", "wal_autocheckpoint(0)"},
		"_txlock":      {"immediate"},
		"_time_format": {"sqlite"},
		"_timezone":    {"UTC"},
	}
	s := &Store{now: time.Now, path: path}
	db, err := gorm.Open(openSQLite(fileURL(path, pragmas)), &gorm.Config{
		TranslateError: true,
		Logger:         logger.Discard,
		NowFunc:        func() time.Time { return s.now().UTC() },
	})
	if err != nil {
		return nil, fmt.Errorf("opening the data file %s: %w", path, asFileError(err))
	}
	s.db = db
	// Nobody else on the machine is to read it; a file of an earlier version may be open to all.
	if info, err := os.Stat(path); err == nil && info.Mode().Perm()&0o077 != 0 {
		_ = os.Chmod(path, 0o600)
	}
	return s, nil
}

// fileURL names a file to the driver.
func fileURL(path string, options url.Values) string {
	return "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + options.Encode()
}

// withTx is the store inside a transaction.
func (s *Store) withTx(tx *gorm.DB) *Store { return &Store{db: tx, path: s.path, now: s.now} }

// Close closes the data file. The last to close it brings its log in, which is noted as all checkpoints are.
func (s *Store) Close() error {
	db, err := s.db.DB()
	if err != nil {
		return err
	}
	note := checkpointNote(s.path)
	if err := os.WriteFile(note, nil, 0o600); err != nil {
		return errors.Join(err, db.Close())
	}
	return errors.Join(db.Close(), os.Remove(note))
}

// New says whether the file has never held a document, deleted ones included.
func (s *Store) New(ctx context.Context) (bool, error) {
	var count int64
	err := s.db.WithContext(ctx).Unscoped().Model(&Document{}).Limit(1).Count(&count).Error
	return count == 0, err
}

// Together runs several writes as one: all of them are kept, or none.
func (s *Store) Together(ctx context.Context, writes func(*Store) error) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error { return writes(s.withTx(tx)) })
}

// newUID makes up a uid.
func newUID() string {
	digits := [16]byte{}
	if _, err := rand.Read(digits[:]); err != nil {
		panic("the machine has no random numbers: " + err.Error())
	}
	return hex.EncodeToString(digits[:])
}

// Snapshot runs several reads of one moment, while others write.
func (s *Store) Snapshot(ctx context.Context, reads func(*Store) error) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error { return reads(s.withTx(tx)) }, &sql.TxOptions{ReadOnly: true})
}

// Create keeps a new document and returns it with its ID and version 1. One whose UID is kept already is returned as it is
// kept; ErrExists says that there is another where there can only be one, or that the one with this UID is deleted.
func (s *Store) Create(ctx context.Context, d Document) (Document, error) {
	if !slices.Contains(kinds, d.Kind) {
		return Document{}, fmt.Errorf("%w: %q", ErrKind, d.Kind)
	}
	d.ID, d.Version = 0, 1
	if d.UID == "" {
		d.UID = newUID()
	}
	err := s.db.WithContext(ctx).Create(&d).Error
	if errors.Is(err, gorm.ErrDuplicatedKey) {
		before, err := one(s.db.WithContext(ctx).Model(&Document{}).Where("kind = ? AND uid = ?", d.Kind, d.UID))
		if errors.Is(err, ErrNotFound) {
			return Document{}, ErrExists
		}
		return before, err
	}
	return d, err
}

// Read returns one document.
func (s *Store) Read(ctx context.Context, kind Kind, id uint) (Document, error) {
	return one(s.db.WithContext(ctx).Model(&Document{}).Where("kind = ? AND id = ?", kind, id))
}

// ReadAny is Read for a document that may be deleted.
func (s *Store) ReadAny(ctx context.Context, kind Kind, id uint) (Document, error) {
	return one(s.db.WithContext(ctx).Unscoped().Model(&Document{}).Where("kind = ? AND id = ?", kind, id))
}

// KeepSummaries notes what a list shows of these versions of documents, in one transaction. They are no new versions.
func (s *Store) KeepSummaries(ctx context.Context, documents []Document) error {
	if len(documents) == 0 {
		return nil
	}
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		for _, d := range documents {
			if err := tx.Model(&Document{}).Unscoped().Where("id = ? AND version = ?", d.ID, d.Version).UpdateColumn("summary", d.Summary).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// Replace saves a document over the given version. The version before is kept where it
// was the end of a sitting, where it has a label, or where the save asks for it. A
// version that is not the current one is a *StaleError, and nothing is changed; where what is kept now is just what was to
// be saved it is no error: the answer to the first time has been lost on its way.
func (s *Store) Replace(ctx context.Context, kind Kind, id uint, save Save) (Document, error) {
	var saved Document
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		before, err := s.withTx(tx).current(ctx, kind, id, save.Version)
		if stale := (*StaleError)(nil); errors.As(err, &stale) {
			now, readErr := s.withTx(tx).Read(ctx, kind, id)
			if readErr == nil && now.Name == save.Name && bytes.Equal(now.Body, save.Body) {
				saved = now
				return nil
			}
		}
		if err != nil {
			return err
		}
		if save.KeepBefore || before.Label != "" || before.Damaged != "" || !inSitting(before.UpdatedAt, s.now()) {
			revision := Revision{DocumentID: id, Version: before.Version, Name: before.Name, Label: before.Label, Body: before.Body, SavedAt: before.UpdatedAt}
			if err := tx.Create(&revision).Error; err != nil {
				return err
			}
		}
		saved = before
		saved.Name, saved.Body, saved.Summary, saved.Version, saved.Label = save.Name, save.Body, save.Summary, save.Version+1, ""
		return tx.Save(&saved).Error
	})
	return saved, err
}

// LabelVersion names a version of a document, the present one or an earlier; an empty
// label takes the name away.
func (s *Store) LabelVersion(ctx context.Context, kind Kind, id uint, version int, label string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		d, err := s.withTx(tx).Read(ctx, kind, id)
		if err != nil {
			return err
		}
		var result *gorm.DB
		if d.Version == version {
			result = tx.Model(&Document{}).Where("id = ?", id).UpdateColumn("label", label)
		} else {
			result = tx.Model(&Revision{}).Where("document_id = ? AND version = ?", id, version).UpdateColumn("label", label)
		}
		if result.Error == nil && result.RowsAffected == 0 {
			return ErrNotFound
		}
		return result.Error
	})
}

// Practised notes that the document was played at a time. It is no new version:
// nothing of what is kept changes.
func (s *Store) Practised(ctx context.Context, kind Kind, id uint, at time.Time) error {
	result := s.db.WithContext(ctx).Model(&Document{}).Where("kind = ? AND id = ?", kind, id).UpdateColumn("practised_at", at.UTC())
	if result.Error == nil && result.RowsAffected == 0 {
		return ErrNotFound
	}
	return result.Error
}

// Delete takes the document out of every list; Restore brings it back.
func (s *Store) Delete(ctx context.Context, kind Kind, id uint, version int) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		d, err := s.withTx(tx).current(ctx, kind, id, version)
		if err != nil {
			return err
		}
		return tx.Delete(&d).Error
	})
}

// Restore brings a deleted document back as it was. Where there can only be one, and there is another since, it is
// ErrExists and nothing is changed.
func (s *Store) Restore(ctx context.Context, kind Kind, id uint) (Document, error) {
	result := s.db.WithContext(ctx).Unscoped().Model(&Document{}).Where("kind = ? AND id = ?", kind, id).UpdateColumn("deleted_at", nil)
	if errors.Is(result.Error, gorm.ErrDuplicatedKey) {
		return Document{}, ErrExists
	}
	if result.Error != nil {
		return Document{}, result.Error
	}
	return s.Read(ctx, kind, id)
}

// Revisions lists the versions of a document that later saves replaced, newest
// first.
func (s *Store) Revisions(ctx context.Context, id uint) ([]Revision, error) {
	revisions := []Revision{}
	return revisions, s.eachRevision(ctx, s.db.Where("document_id = ?", id).Order("version DESC"), func(r Revision, _ faults) error {
		revisions = append(revisions, r)
		return nil
	})
}

// Revision returns one version of a document that a later save replaced.
func (s *Store) Revision(ctx context.Context, id uint, version int) (Revision, error) {
	found := []Revision{}
	err := s.eachRevision(ctx, s.db.Where("document_id = ? AND version = ?", id, version), func(r Revision, _ faults) error {
		found = append(found, r)
		return nil
	})
	if err == nil && len(found) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return Revision{}, err
	}
	return found[0], nil
}

// current reads the document and checks that the version is its present one.
func (s *Store) current(ctx context.Context, kind Kind, id uint, version int) (Document, error) {
	d, err := s.Read(ctx, kind, id)
	if err == nil && d.Version != version {
		return Document{}, &StaleError{Given: version, Current: d.Version}
	}
	return d, err
}

// LimitPages keeps the data file from growing beyond so many pages, as a full disk does.
func (s *Store) LimitPages(pages int) error {
	return s.db.Exec(fmt.Sprintf("PRAGMA max_page_count = %d", pages)).Error
}
