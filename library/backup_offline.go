package library

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"

	"undaris/store"
)

// PutAside says where RestoreClosed has kept what was there: a backup, or, where the data file was too damaged to be
// copied as one, the path of a copy of its bytes.
type PutAside struct {
	Backup Backup
	Path   string
}

// RestoreClosed is Restore of a data file that no program has open; the caller has its lock. A data file that is
// missing or damaged is no obstacle.
func (b *Backups) RestoreClosed(ctx context.Context, name string) (PutAside, error) {
	aside := PutAside{}
	one, err := b.Verify(ctx, name)
	if err != nil {
		return aside, err
	}
	if exists(b.DataFile) {
		if live, err := openWhole(ctx, b.DataFile); err == nil {
			defer func() { _ = live.Close() }()
			open := *b
			open.Live = live
			aside.Backup, err = open.Restore(ctx, name)
			return aside, err
		}
		if aside.Path, err = b.putBytesAside(); err != nil {
			return aside, fmt.Errorf("keeping what is there: %w", err)
		}
	}
	if err := b.restoreSounds(one); err != nil {
		return aside, err
	}
	fresh := b.DataFile + ".new"
	if err := copyBytes(b.path(name), fresh); err != nil {
		return aside, err
	}
	// What is in the log of the damaged file is kept with its copy; it must not be read into the restored one.
	for _, beside := range []string{"-wal", "-shm"} {
		if err := os.Remove(b.DataFile + beside); err != nil && !errors.Is(err, os.ErrNotExist) {
			return aside, err
		}
	}
	return aside, os.Rename(fresh, b.DataFile)
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
	base := b.DataFile + ".damaged-" + b.Now().UTC().Format("20060102-150405")
	to := base
	for n := 2; exists(to); n++ {
		to = fmt.Sprintf("%s-%d", base, n)
	}
	for _, beside := range []string{"", "-wal"} {
		if err := copyBytes(b.DataFile+beside, to+beside); err != nil && (beside == "" || !errors.Is(err, os.ErrNotExist)) {
			return "", err
		}
	}
	return to, nil
}

// copyBytes copies a file; the copy is on the disk when it returns.
func copyBytes(from, to string) error {
	source, err := os.Open(from)
	if err != nil {
		return err
	}
	defer func() { _ = source.Close() }()
	target, err := os.OpenFile(to, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(target, source)
	return errors.Join(err, target.Sync(), target.Close())
}
