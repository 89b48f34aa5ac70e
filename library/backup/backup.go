package backup

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
	"time"

	"undaris/store"
	"undaris/wholefile"
)

// Reason is why a backup was made.
type Reason string

// Why backups are made.
const (
	Daily           Reason = "daily"
	OnDemand        Reason = "on demand"
	BeforeMigration Reason = "before an upgrade"
	BeforeRestore   Reason = "before a restore"
	BeforeImport    Reason = "before an import"
)

// How long backups stay (our choice: ten are a week and more of daily use; what was put aside before something was
// replaced is often missed only weeks later).
const (
	backupsKept    = 10
	putAsideKept   = 90 * 24 * time.Hour
	mostPutAside   = 30
	dailyBackupAge = 24 * time.Hour
	// aheadAtMost is how far in the future a backup may seem to be made; further, and the clock was ahead then.
	aheadAtMost = time.Hour
	// halfMadeKept is how long what a program that was killed has left half made stays.
	halfMadeKept = 24 * time.Hour
)

// putAside says whether a backup was made because something was about to be replaced.
func (r Reason) putAside() bool { return r != Daily && r != OnDemand }

// Backup is one backup: a copy of the data file, and the sounds it needs.
type Backup struct {
	// Name is that of its file, without a folder.
	Name   string    `json:"name"`
	Made   time.Time `json:"made"`
	Reason Reason    `json:"reason"`
	// Hash is the SHA-256 of the copied data file, Bytes its size.
	Hash   string   `json:"hash"`
	Bytes  int64    `json:"bytes"`
	Sounds []string `json:"sounds"`
	// Missing are the sounds that could not be copied: they were not whole any more.
	Missing []string `json:"missing,omitempty"`
}

// Backups are the backups of one data file, in a folder of their own. Sounds lie in it once, under their hashes.
type Backups struct {
	Folder string
	// DataFile is what is backed up, Live the same, where it is open.
	DataFile string
	Live     *store.Store
	Sounds   *store.Sounds
	Now      func() time.Time
	// busy is held while one is made or restored, or what is kept is replaced.
	busy sync.Mutex
}

// BackupsBeside is the folder of a data file's backups where the player names no other.
func BackupsBeside(dataFile string) string { return dataFile + ".backups" }

var backupName = regexp.MustCompile(`^[0-9]{8}-[0-9]{6}(-[0-9]+)?\.db$`)

func (b *Backups) path(name string) string { return filepath.Join(b.Folder, name) }

func (b *Backups) sounds() *store.Sounds { return store.SoundsIn(filepath.Join(b.Folder, "sounds")) }

// describedIn is where a backup is described; it is written last, so that what has one is whole.
func describedIn(path string) string { return strings.TrimSuffix(path, ".db") + ".json" }

// Make makes a backup while the data file may be in use, and removes those that are no longer kept.
func (b *Backups) Make(ctx context.Context, reason Reason) (Backup, error) {
	b.busy.Lock()
	defer b.busy.Unlock()
	return b.makeKeeping(ctx, reason, "")
}

// Replacing runs what replaces what is kept, while no other backup is made or restored. It gives it a function that makes
// the backup of what was there before, to be called once nobody else can write.
func (b *Backups) Replacing(ctx context.Context, reason Reason, replace func(before func() error) error) (Backup, error) {
	b.busy.Lock()
	defer b.busy.Unlock()
	var made Backup
	err := replace(func() (err error) {
		made, err = b.makeKeeping(ctx, reason, "")
		return err
	})
	return made, err
}

// makeKeeping is Make that removes all but one that is still needed.
func (b *Backups) makeKeeping(ctx context.Context, reason Reason, needed string) (Backup, error) {
	if err := os.MkdirAll(b.Folder, 0o700); err != nil {
		return Backup{}, fmt.Errorf("the folder of the backups: %w", err)
	}
	made := Backup{Made: b.Now().UTC().Truncate(time.Second), Reason: reason}
	base := made.Made.Format("20060102-150405")
	made.Name = base + ".db"
	for n := 2; exists(b.path(made.Name)); n++ {
		made.Name = fmt.Sprintf("%s-%d.db", base, n)
	}
	// The sounds first: every one that the copy of the data refers to is then there.
	var err error
	if made.Sounds, err = b.Sounds.Whole(); err != nil {
		return made, err
	}
	for _, hash := range made.Sounds {
		switch err := b.Sounds.CopyTo(b.sounds(), hash); {
		case errors.Is(err, store.ErrSoundChanged), errors.Is(err, store.ErrNoSound):
			made.Missing = append(made.Missing, hash) // it costs itself, and not the backup
		case err != nil:
			return made, fmt.Errorf("copying the sound %s: %w", hash, err)
		}
	}
	if b.Live != nil {
		err = b.Live.CopyTo(ctx, b.path(made.Name))
	} else {
		err = store.CopyFile(ctx, b.DataFile, b.path(made.Name))
	}
	if err != nil {
		return made, err
	}
	if made.Hash, made.Bytes, err = hashOf(b.path(made.Name)); err != nil {
		return made, err
	}
	if err := b.describe(made); err != nil {
		return made, err
	}
	return made, b.prune(needed)
}

func (b *Backups) describe(made Backup) error {
	text, err := json.MarshalIndent(made, "", "  ")
	if err != nil {
		return err
	}
	return wholefile.WriteBytes(describedIn(b.path(made.Name)), append(text, '\n'))
}

// MakeDaily makes a backup where the latest that is daily or was asked for is a day old, or there is none. One that seems
// to be of the future was made by a clock that was ahead, and counts for nothing.
func (b *Backups) MakeDaily(ctx context.Context) (made bool, err error) {
	all, err := b.List()
	if err != nil {
		return false, err
	}
	for _, one := range all {
		if age := b.Now().Sub(one.Made); !one.Reason.putAside() && age < dailyBackupAge && age > -aheadAtMost {
			return false, nil
		}
	}
	_, err = b.Make(ctx, Daily)
	return err == nil, err
}

// List lists the backups that are whole, the newest first.
func (b *Backups) List() ([]Backup, error) {
	entries, err := os.ReadDir(b.Folder)
	if errors.Is(err, os.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, fmt.Errorf("the folder of the backups: %w", err)
	}
	all := []Backup{}
	for _, e := range entries {
		if !backupName.MatchString(e.Name()) {
			continue
		}
		if one, err := b.describedAs(e.Name()); err == nil {
			all = append(all, one)
		}
	}
	slices.SortFunc(all, func(a, c Backup) int {
		if order := c.Made.Compare(a.Made); order != 0 {
			return order
		}
		return strings.Compare(c.Name, a.Name)
	})
	return all, nil
}

func (b *Backups) describedAs(name string) (Backup, error) {
	one := Backup{}
	text, err := os.ReadFile(describedIn(b.path(name)))
	if err == nil {
		err = json.Unmarshal(text, &one)
	}
	one.Name = name
	return one, err
}

// prune removes the backups that are no longer kept: of those that are daily or were asked for the ten newest stay, and
// of those that were put aside before something was replaced the thirty newest, for 90 days. With them go the sounds that
// only they needed, and what a program that was killed has left half made.
func (b *Backups) prune(needed string) error {
	all, err := b.List()
	if err != nil {
		return err
	}
	var failed error
	wanted, count := map[string]bool{}, map[bool]int{}
	for _, one := range all {
		aside := one.Reason.putAside()
		count[aside]++
		stays := count[aside] <= backupsKept
		if aside {
			stays = count[aside] <= mostPutAside && b.Now().Sub(one.Made) < putAsideKept
		}
		if stays || one.Name == needed {
			for _, hash := range one.Sounds {
				wanted[hash] = true
			}
			continue
		}
		// Its description first: what is half removed is no backup.
		failed = errors.Join(failed, os.Remove(describedIn(b.path(one.Name))), os.Remove(b.path(one.Name)))
	}
	failed = errors.Join(failed, b.clearHalfMade(all))
	_, err = b.sounds().Clear(math.MinInt64, b.Now(), func() (map[string]bool, error) { return wanted, nil })
	return errors.Join(failed, err)
}

// clearHalfMade removes copies without a description, and files that have no name yet, once nobody can be making them.
func (b *Backups) clearHalfMade(whole []Backup) error {
	entries, err := os.ReadDir(b.Folder)
	if err != nil {
		return err
	}
	var failed error
	for _, e := range entries {
		isWhole := slices.ContainsFunc(whole, func(one Backup) bool { return one.Name == e.Name() })
		if isWhole || !strings.HasSuffix(e.Name(), ".partial") && !backupName.MatchString(e.Name()) {
			continue
		}
		if info, err := e.Info(); err == nil && b.Now().Sub(info.ModTime()) > halfMadeKept {
			failed = errors.Join(failed, os.Remove(b.path(e.Name())))
		}
	}
	return failed
}

func exists(path string) bool {
	_, err := os.Stat(path)
	return err == nil
}

// hashOf is the SHA-256 of a file and its size.
func hashOf(path string) (string, int64, error) {
	file, err := os.Open(path)
	if err != nil {
		return "", 0, err
	}
	defer func() { _ = file.Close() }()
	sum := sha256.New()
	bytes, err := io.Copy(sum, file)
	return hex.EncodeToString(sum.Sum(nil)), bytes, err
}
