package backup

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"undaris/store"
	"undaris/wholefile"
)

// PutAside says where RestoreClosed has kept what was there: a backup, or, where the data file was too damaged to be
// copied as one, the path of a copy of its bytes.
type PutAside struct {
	Backup Backup
	Path   string
	// Missing are the sounds of the backup that are whole nowhere.
	Missing []string
}

// RestoreClosed is Restore of a data file that no program has open; the caller has its lock. A data file that is
// missing or damaged is no obstacle.
func (b *Backups) RestoreClosed(ctx context.Context, name string) (PutAside, error) {
	aside := PutAside{}
	one, err := b.verifyData(ctx, name)
	if err != nil {
		return aside, err
	}
	if exists(b.DataFile) {
		if _, err := store.SetForeignLogAside(ctx, b.DataFile, b.Now()); err != nil {
			return aside, err
		}
		if live, err := openWhole(ctx, b.DataFile); err == nil {
			defer func() { _ = live.Close() }()
			open := &Backups{Folder: b.Folder, DataFile: b.DataFile, Live: live, Sounds: b.Sounds, Now: b.Now}
			done, err := open.Restore(ctx, name)
			return PutAside{Backup: done.Before, Missing: done.Missing}, err
		}
		if aside.Path, err = b.putBytesAside(); err != nil {
			return aside, fmt.Errorf("keeping what is there: %w", err)
		}
	}
	if aside.Missing, err = b.restoreSounds(one); err != nil {
		return aside, err
	}
	return aside, b.putInPlace(b.path(name))
}

// PutCopyBack puts a copy of a data file, which a player made by hand, in the place of the data file that no program has
// open; the caller has its lock. What was there is kept as its bytes. The copy is checked first.
func (b *Backups) PutCopyBack(ctx context.Context, path string) (PutAside, error) {
	aside := PutAside{}
	folder, err := os.MkdirTemp(filepath.Dir(b.DataFile), filepath.Base(b.DataFile)+".copy-")
	if err != nil {
		return aside, store.OfTheDisk(err)
	}
	defer func() { _ = os.RemoveAll(folder) }()
	// A log that lies beside the copy is a part of it. The copy itself stays as it is.
	beside, copied := filepath.Join(folder, "beside.db"), filepath.Join(folder, "copy.db")
	if err := store.CopyBytes(path, beside); err != nil {
		return aside, err
	}
	if err := store.CopyBytes(path+"-wal", beside+"-wal"); err != nil && !errors.Is(err, os.ErrNotExist) {
		return aside, err
	}
	if err := store.CopyFile(ctx, beside, copied); err != nil {
		return aside, err
	}
	if err := store.CheckFile(ctx, copied); err != nil {
		return aside, err
	}
	if exists(b.DataFile) {
		if aside.Path, err = b.putBytesAside(); err != nil {
			return aside, fmt.Errorf("keeping what is there: %w", err)
		}
	}
	return aside, b.putInPlace(copied)
}

// putInPlace makes a copy of a file the data file, without the log that lies beside that.
func (b *Backups) putInPlace(path string) error {
	fresh := b.DataFile + ".new"
	if err := store.CopyBytes(path, fresh); err != nil {
		return err
	}
	// What is in the log of the file before is kept with its copy; it must not be read into the restored one.
	for _, beside := range []string{"-wal", "-shm"} {
		if err := store.RemoveIfThere(b.DataFile + beside); err != nil {
			return err
		}
	}
	return wholefile.Name(fresh, b.DataFile)
}

// openWhole opens a data file that has nothing wrong with it.
func openWhole(ctx context.Context, path string) (*store.Store, error) {
	live, err := store.Open(path)
	if err != nil {
		return nil, err
	}
	if err := live.Check(ctx, false); err != nil {
		_ = live.Close()
		return nil, err
	}
	return live, nil
}

// putBytesAside copies the data file and the log beside it as they are.
func (b *Backups) putBytesAside() (string, error) {
	base := b.DataFile + ".before-" + b.Now().UTC().Format("20060102-150405")
	to := base
	for n := 2; exists(to); n++ {
		to = fmt.Sprintf("%s-%d", base, n)
	}
	for _, beside := range []string{"", "-wal"} {
		if err := store.CopyBytes(b.DataFile+beside, to+beside); err != nil && (beside == "" || !errors.Is(err, os.ErrNotExist)) {
			return "", err
		}
	}
	return to, nil
}
