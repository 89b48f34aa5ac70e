package backup

import (
	"context"
	"errors"
	"fmt"
	"os"

	"undaris/store"
)

// Verify reads a whole backup and says what is wrong with it: with its data as an error; sounds that are not whole are
// returned, since all else can be restored without them.
func (b *Backups) Verify(ctx context.Context, name string) (one Backup, damaged []string, err error) {
	if one, err = b.verifyData(ctx, name); err != nil {
		return one, nil, err
	}
	for _, hash := range one.Sounds {
		if err := b.sounds().Check(hash); err != nil {
			damaged = append(damaged, hash)
		}
	}
	return one, damaged, nil
}

// verifyData is Verify without the sounds.
func (b *Backups) verifyData(ctx context.Context, name string) (Backup, error) {
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
	return one, nil
}

// Restored says what a restore has left: the backup of what was there before, and the sounds that were whole neither in
// the backup nor beside the data file.
type Restored struct {
	Before  Backup
	Missing []string
}

// Restore verifies a backup, keeps what is there as another one, and puts the backup in its place while the data file is
// open. Nothing that is saved meanwhile is lost: it is in the backup of what was there, or comes after.
func (b *Backups) Restore(ctx context.Context, name string) (Restored, error) {
	b.busy.Lock()
	defer b.busy.Unlock()
	done := Restored{}
	one, err := b.verifyData(ctx, name)
	if err != nil {
		return done, err
	}
	err = b.Sounds.WhileKept(func() error {
		if done.Missing, err = b.restoreSounds(one); err != nil {
			return err
		}
		return b.Live.ReplaceWith(ctx, b.path(name), func() error {
			if done.Before, err = b.makeKeeping(ctx, BeforeRestore, name); err != nil {
				return fmt.Errorf("keeping what is there: %w", err)
			}
			return nil
		})
	})
	return done, err
}

// restoreSounds brings the sounds of a backup back, each where it is whole, and returns those that are whole nowhere.
func (b *Backups) restoreSounds(one Backup) (missing []string, err error) {
	for _, hash := range one.Sounds {
		if b.Sounds.Check(hash) == nil {
			continue
		}
		if b.sounds().Check(hash) != nil {
			missing = append(missing, hash)
			continue
		}
		if err := b.Sounds.Remove(hash); err != nil {
			return missing, err
		}
		if err := b.sounds().CopyTo(b.Sounds, hash); err != nil {
			return missing, err
		}
	}
	return missing, nil
}

// NewestGood is the newest backup whose data is whole; false where there is none.
func (b *Backups) NewestGood(ctx context.Context) (Backup, bool) {
	all, err := b.List()
	if err != nil {
		return Backup{}, false
	}
	for _, one := range all {
		if _, err := b.verifyData(ctx, one.Name); err == nil {
			return one, true
		}
	}
	return Backup{}, false
}
