package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"undaris/wholefile"
)

// PendingMigrations lists the migrations that opening a data file would run, oldest first; none for a file that is not
// there yet.
func PendingMigrations(path string) ([]string, error) {
	if _, err := os.Stat(path); errors.Is(err, os.ErrNotExist) {
		return nil, nil
	}
	s, err := openAsItIs(path)
	if err != nil {
		return nil, err
	}
	defer func() { _ = s.Close() }()
	left, err := pending(s.db)
	if err != nil || len(left) == len(migrations) {
		return nil, asFileError(err)
	}
	return left, nil
}

// CopyFile writes a consistent copy of a data file, whatever version it is of and whoever has it open, to a file that
// is not there yet. The copy is on the disk, whole, before it has its name.
func CopyFile(ctx context.Context, from, to string) error {
	s, err := openAsItIs(from)
	if err != nil {
		return err
	}
	defer func() { _ = s.Close() }()
	return s.CopyTo(ctx, to)
}

// CopyTo is CopyFile of the open data file, while others read and write it.
func (s *Store) CopyTo(ctx context.Context, to string) error {
	partial := to + ".partial"
	if err := RemoveIfThere(partial); err != nil {
		return err
	}
	if err := s.db.WithContext(ctx).Exec("VACUUM INTO ?", partial).Error; err != nil {
		_ = os.Remove(partial)
		return fmt.Errorf("copying the data file to %s: %w", to, asFileError(err))
	}
	if err := syncFile(partial); err != nil {
		return err
	}
	return wholefile.Name(partial, to)
}

// syncFile has the disk hold what was written to a file, which nobody else may read.
func syncFile(path string) error {
	file, err := os.OpenFile(path, os.O_RDWR, 0o600)
	if err != nil {
		return err
	}
	err = errors.Join(file.Chmod(0o600), file.Sync())
	return errors.Join(err, file.Close())
}

// ReplaceWith makes the open data file what a copy holds, in one transaction: it is wholly the one or wholly the other.
// The copy may be of an earlier version. Once nobody else can write any more, and before anything is changed, before is
// called: what is copied then is all that was ever kept.
func (s *Store) ReplaceWith(ctx context.Context, from string, before func() error) (err error) {
	if err := CheckFile(ctx, from); err != nil {
		return err
	}
	present, err := os.MkdirTemp(filepath.Dir(s.path), filepath.Base(s.path)+".restore-")
	if err != nil {
		return OfTheDisk(err)
	}
	defer func() { err = errors.Join(err, os.RemoveAll(present)) }()
	copied := filepath.Join(present, "copy.db")
	if err := CopyBytes(from, copied); err != nil {
		return err
	}
	if err := bringUpToDate(copied); err != nil {
		return err
	}
	db, err := s.db.DB()
	if err != nil {
		return err
	}
	connection, err := db.Conn(ctx)
	if err != nil {
		return asFileError(err)
	}
	defer func() { err = errors.Join(err, connection.Close()) }()
	if _, err := connection.ExecContext(ctx, "ATTACH DATABASE ? AS restored", copied); err != nil {
		return asFileError(err)
	}
	defer func() {
		_, detached := connection.ExecContext(context.WithoutCancel(ctx), "DETACH DATABASE restored")
		err = errors.Join(err, detached)
	}()
	tx, err := connection.BeginTx(ctx, nil)
	if err != nil {
		return asFileError(err)
	}
	defer func() { _ = tx.Rollback() }()
	if err := before(); err != nil {
		return err
	}
	// Rows come before what they refer to; whether all is there is looked at when it is done.
	restore := []string{"PRAGMA defer_foreign_keys = 1"}
	for _, table := range slices.Backward(keptTables) {
		restore = append(restore, "DELETE FROM main."+table)
	}
	for _, table := range keptTables {
		columns, err := columnsOf(ctx, tx, table)
		if err != nil {
			return err
		}
		restore = append(restore, fmt.Sprintf("INSERT INTO main.%s (%s) SELECT %[2]s FROM restored.%[1]s", table, strings.Join(columns, ", ")))
	}
	restore = append(restore, "INSERT INTO changes (name, count) VALUES ('cards', 1), ('log', 1) ON CONFLICT (name) DO UPDATE SET count = count + 1")
	for _, statement := range restore {
		if _, err := tx.ExecContext(ctx, statement); err != nil {
			return fmt.Errorf("restoring %s: %w", from, asFileError(err))
		}
	}
	return asFileError(tx.Commit())
}

// keptTables hold what players keep, what is referred to first.
var keptTables = []string{"documents", "revisions", "settings", "setting_revisions", "cards", "reviews", "log_entries"}

// CopyBytes copies a file as it is; the copy is on the disk when it returns.
func CopyBytes(from, to string) error {
	source, err := os.Open(from)
	if err != nil {
		return err
	}
	defer func() { _ = source.Close() }()
	target, err := os.OpenFile(to, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return OfTheDisk(err)
	}
	_, err = io.Copy(target, source)
	return OfTheDisk(errors.Join(err, target.Sync(), target.Close()))
}

// bringUpToDate runs the migrations that a file has not been through.
func bringUpToDate(path string) error {
	s, err := Open(path)
	if err != nil {
		return err
	}
	return s.Close()
}

// CheckWritable says whether the data file can be written; a *FileError where it cannot.
func (s *Store) CheckWritable(ctx context.Context) error {
	return asFileError(s.db.WithContext(ctx).Exec("UPDATE settings SET version = version WHERE name IS NULL").Error)
}

// CheckFile reads a whole data file that nobody writes, and says what is wrong with it: a *FileError where it is
// damaged, ErrNewer where it is of a later version.
func CheckFile(ctx context.Context, path string) error {
	if _, err := os.Stat(path); err != nil {
		return err
	}
	db, err := sql.Open("sqlite", fileURL(path, url.Values{"mode": {"ro"}, "_pragma": {"busy_timeout(5000)"}}))
	if err != nil {
		return asFileError(err)
	}
	defer func() { _ = db.Close() }()
	return checkWhole(ctx, db, "integrity_check")
}

// Check reads the open data file and says what is wrong with it, a *FileError where it is damaged: a quick check leaves
// out whether its indexes agree with its tables.
func (s *Store) Check(ctx context.Context, quick bool) error {
	db, err := s.db.DB()
	if err != nil {
		return err
	}
	how := "integrity_check"
	if quick {
		how = "quick_check"
	}
	return checkWhole(ctx, db, how)
}

func checkWhole(ctx context.Context, db *sql.DB, how string) error {
	said := ""
	if err := db.QueryRowContext(ctx, "PRAGMA "+how+"(1)").Scan(&said); err != nil {
		return asFileError(err)
	}
	if said != "ok" {
		return &FileError{Cause: Damaged, err: errors.New(said)}
	}
	broken := ""
	switch err := db.QueryRowContext(ctx, "SELECT \"table\" FROM pragma_foreign_key_check LIMIT 1").Scan(&broken); {
	case err == nil:
		return &FileError{Cause: Damaged, err: fmt.Errorf("a row of %s refers to one that is not there", broken)}
	case !errors.Is(err, sql.ErrNoRows):
		return asFileError(err)
	}
	rows, err := db.QueryContext(ctx, "SELECT id FROM migrations")
	if err != nil {
		return &FileError{Cause: Damaged, err: fmt.Errorf("it is no data file of Undaris: %w", err)}
	}
	defer func() { _ = rows.Close() }()
	known := map[string]bool{}
	for _, m := range migrations {
		known[m.ID] = true
	}
	for rows.Next() {
		id := ""
		if err := rows.Scan(&id); err != nil {
			return asFileError(err)
		}
		if !known[id] {
			return ErrNewer
		}
	}
	return asFileError(rows.Err())
}
