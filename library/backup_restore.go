package library

import (
	"context"
	"errors"
	"fmt"
	"os"

	"undaris/store"
)

// Verify reads a whole backup and says what is wrong with it.
func (b *Backups) Verify(ctx context.Context, name string) (Backup, error) {
	if !backupName.MatchString(name) {
		return Backup{}, store.ErrNotFound
	}
	one, err := b.describedAs(name)
	if errors.Is(err, os.ErrNotExist) {
		return one, store.ErrNotFound
	}
	if err != nil {
		return one, fmt.Errorf("what is said of the backup %s cannot be read: %w", name, err)
	}
	hash, _, err := hashOf(b.path(name))
	if err != nil {
		return one, err
	}
	if hash != one.Hash {
		return one, fmt.Errorf("the backup %s is not what it was when it was made", name)
	}
	if err := store.CheckFile(ctx, b.path(name)); err != nil {
		return one, fmt.Errorf("the backup %s: %w", name, err)
	}
	for _, hash := range one.Sounds {
		if err := b.sounds().Check(hash); err != nil {
			return one, fmt.Errorf("a sound of the backup %s: %w", name, err)
		}
	}
	return one, nil
}

// Restore verifies a backup, keeps what is there as another one, and puts the backup in its place while the data file is
// open. It returns the backup of what was there.
func (b *Backups) Restore(ctx context.Context, name string) (before Backup, err error) {
	one, err := b.Verify(ctx, name)
	if err != nil {
		return before, err
	}
	if before, err = b.makeKeeping(ctx, BeforeRestore, name); err != nil {
		return before, fmt.Errorf("keeping what is there: %w", err)
	}
	if err := b.restoreSounds(one); err != nil {
		return before, err
	}
	return before, b.Live.ReplaceWith(ctx, b.path(name))
}

func (b *Backups) restoreSounds(one Backup) error {
	for _, hash := range one.Sounds {
		if err := b.sounds().CopyTo(b.Sounds, hash); err != nil {
			return err
		}
	}
	return nil
}

// NewestGood is the newest backup that is whole; false where there is none.
func (b *Backups) NewestGood(ctx context.Context) (Backup, bool) {
	all, err := b.List()
	if err != nil {
		return Backup{}, false
	}
	for _, one := range all {
		if _, err := b.Verify(ctx, one.Name); err == nil {
			return one, true
		}
	}
	return Backup{}, false
}
