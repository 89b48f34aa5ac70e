package backup

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// kept is an open data file with a lick of a name, and its backups by a clock that a test sets.
func kept(t *testing.T, name string) (*Backups, func(after time.Duration)) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "undaris.db")
	st, err := store.Open(path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	keepLick(t, st, name)
	now := time.Date(2026, 5, 1, 12, 0, 0, 0, time.UTC)
	b := &Backups{Folder: BackupsBeside(path), DataFile: path, Live: st, Sounds: store.SoundsBeside(path), Now: func() time.Time { return now }}
	return b, func(after time.Duration) { now = now.Add(after) }
}

func keepLick(t *testing.T, st *store.Store, name string) {
	t.Helper()
	_, err := st.Create(t.Context(), store.Document{Kind: store.Lick, Name: name, Body: []byte("{}")})
	require.NoError(t, err)
}

func licksOf(t *testing.T, st *store.Store) string {
	t.Helper()
	all, err := st.List(t.Context(), store.Lick, 0)
	require.NoError(t, err)
	names := []string{}
	for _, d := range all {
		names = append(names, d.Name)
	}
	return strings.Join(names, " ")
}

func TestABackupIsMadeAndRestored(t *testing.T) {
	b, later := kept(t, "one")
	hash, _, err := b.Sounds.Keep(strings.NewReader("a sound"))
	require.NoError(t, err)
	made, err := b.Make(t.Context(), OnDemand)
	require.NoError(t, err)
	assert.Equal(t, "20260501-120000.db", made.Name)
	assert.Equal(t, []string{hash}, made.Sounds)
	info, err := os.Stat(b.path(made.Name))
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())

	keepLick(t, b.Live, "two")
	_, err = b.Sounds.Clear(0, time.Now().Add(time.Hour), func() (map[string]bool, error) { return map[string]bool{}, nil })
	require.NoError(t, err)
	require.False(t, b.Sounds.Has(hash))
	later(time.Minute)
	done, err := b.Restore(t.Context(), made.Name)
	require.NoError(t, err)
	assert.Equal(t, "one", licksOf(t, b.Live))
	require.NoError(t, b.Sounds.Check(hash), "its sounds are there again")
	assert.Equal(t, BeforeRestore, done.Before.Reason)
	assert.Empty(t, done.Missing)
	later(time.Minute)
	_, err = b.Restore(t.Context(), done.Before.Name)
	require.NoError(t, err)
	assert.Equal(t, "one two", licksOf(t, b.Live), "what was there before was kept")
	_, err = b.Restore(t.Context(), "../undaris.db")
	assert.ErrorIs(t, err, store.ErrNotFound)
}

// A backup of one second does not overwrite another; the ten newest stay, and those that were made before something
// was replaced for 90 days.
func TestWhichBackupsStay(t *testing.T) {
	b, later := kept(t, "one")
	put, err := b.Make(t.Context(), BeforeImport)
	require.NoError(t, err)
	hash, _, err := b.Sounds.Keep(strings.NewReader("a sound"))
	require.NoError(t, err)
	_, err = b.Make(t.Context(), OnDemand)
	require.NoError(t, err)
	_, err = b.Sounds.Clear(0, time.Now().Add(time.Hour), func() (map[string]bool, error) { return map[string]bool{}, nil })
	require.NoError(t, err)
	for range 12 {
		later(25 * time.Hour)
		made, err := b.MakeDaily(t.Context())
		require.NoError(t, err)
		assert.True(t, made)
	}
	made, err := b.MakeDaily(t.Context())
	require.NoError(t, err)
	assert.False(t, made, "one a day")
	all, err := b.List()
	require.NoError(t, err)
	require.Len(t, all, 11)
	assert.Equal(t, put.Name, all[10].Name)
	assert.False(t, b.sounds().Has(hash), "sounds go with the last backup that needs them")
	later(90 * 24 * time.Hour)
	_, err = b.Make(t.Context(), Daily)
	require.NoError(t, err)
	all, err = b.List()
	require.NoError(t, err)
	assert.Len(t, all, 10)
	files, err := os.ReadDir(b.Folder)
	require.NoError(t, err)
	assert.Len(t, files, 21, "two files each, and the folder of the sounds")
}

// The oldest backup can be restored though keeping what is there would remove it.
func TestTheOldestBackupIsRestored(t *testing.T) {
	b, later := kept(t, "one")
	for range 10 {
		_, err := b.Make(t.Context(), Daily)
		require.NoError(t, err)
		later(25 * time.Hour)
	}
	all, err := b.List()
	require.NoError(t, err)
	keepLick(t, b.Live, "two")
	_, err = b.Restore(t.Context(), all[9].Name)
	require.NoError(t, err)
	assert.Equal(t, "one", licksOf(t, b.Live))
}

func TestABackupThatIsNotWhole(t *testing.T) {
	b, later := kept(t, "one")
	_, err := b.Make(t.Context(), Daily)
	require.NoError(t, err)
	later(25 * time.Hour)
	hash, _, err := b.Sounds.Keep(strings.NewReader("a sound"))
	require.NoError(t, err)
	withSound, err := b.Make(t.Context(), Daily)
	require.NoError(t, err)
	later(25 * time.Hour)
	bad, err := b.Make(t.Context(), Daily)
	require.NoError(t, err)

	text, err := os.ReadFile(b.path(bad.Name))
	require.NoError(t, err)
	text[len(text)/2] ^= 1
	require.NoError(t, os.WriteFile(b.path(bad.Name), text, 0o600))
	require.NoError(t, os.WriteFile(filepath.Join(b.Folder, "sounds", hash+".wav"), []byte("another"), 0o600))
	_, err = b.Restore(t.Context(), bad.Name)
	require.EqualError(t, err, "the backup 20260503-140000.db is not what it was when it was made")
	// A sound that is not whole costs itself alone, and is whole beside the data file still.
	_, damaged, err := b.Verify(t.Context(), withSound.Name)
	require.NoError(t, err)
	assert.Equal(t, []string{hash}, damaged)
	newest, found := b.NewestGood(t.Context())
	require.True(t, found)
	assert.Equal(t, withSound.Name, newest.Name)
	all, err := b.List()
	require.NoError(t, err)
	assert.Len(t, all, 3, "nothing was put aside for a backup that cannot be restored")

	// One whose description was never written is none.
	require.NoError(t, os.WriteFile(b.path("20260601-000000.db"), []byte("half"), 0o600))
	all, err = b.List()
	require.NoError(t, err)
	assert.Len(t, all, 3)
}

// A data file that is closed is restored too: a whole one, a damaged one and one that is gone.
func TestRestoringAClosedFile(t *testing.T) {
	for name, damage := range map[string]func(path string){
		"whole":     func(string) {},
		"no SQLite": func(path string) { _ = os.WriteFile(path, []byte(strings.Repeat("nothing ", 999)), 0o600) },
		"with a log that is not its own": func(path string) {
			_ = os.Truncate(path, 5000)
			_ = os.WriteFile(path+"-wal", []byte("y"), 0o600)
		},
		"empty": func(path string) {
			_ = os.Remove(path + "-wal")
			_ = os.Truncate(path, 0)
		},
		"gone": func(path string) { _ = os.Remove(path) },
	} {
		b, later := kept(t, "one")
		good, err := b.Make(t.Context(), Daily)
		require.NoError(t, err)
		keepLick(t, b.Live, "two")
		require.NoError(t, b.Live.Close())
		damage(b.DataFile)
		was, _ := os.ReadFile(b.DataFile)
		b.Live = nil
		later(time.Minute)
		aside, err := b.RestoreClosed(t.Context(), good.Name)
		require.NoError(t, err, name)
		st, err := store.Open(b.DataFile)
		require.NoError(t, err)
		assert.Equal(t, "one", licksOf(t, st), name)
		require.NoError(t, st.Check(t.Context(), false))
		require.NoError(t, st.Close())
		switch name {
		case "whole", "empty":
			assert.Equal(t, BeforeRestore, aside.Backup.Reason)
		case "gone":
			assert.Equal(t, PutAside{}, aside)
		default:
			kept, err := os.ReadFile(aside.Path)
			require.NoError(t, err)
			assert.Equal(t, was, kept, name)
		}
	}
}

// The sounds of a backup are its own: what a bad disk does beside the data file it does not do to them; and one that is
// whole nowhere costs itself, and not the restore.
func TestADamagedSoundCostsItselfAlone(t *testing.T) {
	b, later := kept(t, "one")
	good, _, err := b.Sounds.Keep(strings.NewReader("a good sound"))
	require.NoError(t, err)
	bad, _, err := b.Sounds.Keep(strings.NewReader("a sound that is changed"))
	require.NoError(t, err)
	made, err := b.Make(t.Context(), Daily)
	require.NoError(t, err)
	flip := func(folder, hash string) {
		path := filepath.Join(folder, hash+".wav")
		text, err := os.ReadFile(path)
		require.NoError(t, err)
		text[0] ^= 1
		require.NoError(t, os.WriteFile(path, text, 0o600))
	}
	flip(b.DataFile+".sounds", good) // whole in the backup
	later(time.Minute)
	done, err := b.Restore(t.Context(), made.Name)
	require.NoError(t, err)
	assert.Empty(t, done.Missing)
	require.NoError(t, b.Sounds.Check(good), "it is whole again")

	flip(filepath.Join(b.Folder, "sounds"), bad)
	flip(b.DataFile+".sounds", bad)
	later(time.Minute)
	done, err = b.Restore(t.Context(), made.Name)
	require.NoError(t, err)
	assert.Equal(t, []string{bad}, done.Missing)
	assert.Equal(t, "one", licksOf(t, b.Live))
	later(time.Minute)
	again, err := b.Make(t.Context(), OnDemand)
	require.NoError(t, err, "a damaged sound stops no backup")
	assert.Contains(t, again.Sounds, good)
}

// What is put aside before imports pushes no daily backup out, and one of a clock that was ahead stops none.
func TestDailyBackupsStay(t *testing.T) {
	b, later := kept(t, "one")
	for range 6 {
		made, err := b.MakeDaily(t.Context())
		require.NoError(t, err)
		require.True(t, made)
		later(25 * time.Hour)
	}
	for range 40 {
		_, err := b.Make(t.Context(), BeforeImport)
		require.NoError(t, err)
		later(time.Minute)
	}
	all, err := b.List()
	require.NoError(t, err)
	count := map[Reason]int{}
	for _, one := range all {
		count[one.Reason]++
	}
	assert.Equal(t, map[Reason]int{Daily: 6, BeforeImport: mostPutAside}, count)

	later(10 * 365 * 24 * time.Hour)
	_, err = b.Make(t.Context(), Daily)
	require.NoError(t, err)
	later(-10 * 365 * 24 * time.Hour)
	made, err := b.MakeDaily(t.Context())
	require.NoError(t, err)
	assert.True(t, made, "a backup of the future is none of today")
}

// What is saved while everything is replaced is in the backup of what was there, or comes after.
func TestNothingSavedIsLostWhileEverythingIsReplaced(t *testing.T) {
	b, later := kept(t, "one")
	made, err := b.Make(t.Context(), Daily)
	require.NoError(t, err)
	later(time.Minute)
	stop, saved := make(chan struct{}), []string{}
	var writing sync.WaitGroup
	writing.Go(func() {
		for n := 0; ; n++ {
			select {
			case <-stop:
				return
			default:
			}
			name := fmt.Sprint("meanwhile ", n)
			if _, err := b.Live.Create(t.Context(), store.Document{Kind: store.Lick, Name: name, Body: []byte("{}")}); err == nil {
				saved = append(saved, name)
			}
		}
	})
	time.Sleep(30 * time.Millisecond)
	done, err := b.Restore(t.Context(), made.Name)
	require.NoError(t, err)
	time.Sleep(30 * time.Millisecond)
	close(stop)
	writing.Wait()
	before, err := store.Open(b.path(done.Before.Name))
	require.NoError(t, err)
	defer func() { _ = before.Close() }()
	has := map[string]bool{}
	for _, st := range []*store.Store{before, b.Live} {
		all, err := st.List(t.Context(), store.Lick, 0)
		require.NoError(t, err)
		for _, d := range all {
			has[d.Name] = true
		}
	}
	require.NotEmpty(t, saved)
	for _, name := range saved {
		assert.True(t, has[name], "%s was acknowledged, and is nowhere", name)
	}
}

// A copy that was made by hand takes the place of the data file; what was there stays as its bytes.
func TestACopyMadeByHandIsPutBack(t *testing.T) {
	b, _ := kept(t, "one")
	require.NoError(t, b.Live.Checkpoint(t.Context()))
	copied := filepath.Join(t.TempDir(), "monday.db")
	require.NoError(t, store.CopyBytes(b.DataFile, copied))
	was, err := os.ReadFile(copied)
	require.NoError(t, err)
	keepLick(t, b.Live, "two")
	require.NoError(t, b.Live.Close())
	closed := &Backups{Folder: b.Folder, DataFile: b.DataFile, Sounds: b.Sounds, Now: b.Now}
	aside, err := closed.PutCopyBack(t.Context(), copied)
	require.NoError(t, err)
	assert.FileExists(t, aside.Path)
	st, err := store.Open(b.DataFile)
	require.NoError(t, err)
	assert.Equal(t, "one", licksOf(t, st))
	require.NoError(t, st.Close())
	is, err := os.ReadFile(copied)
	require.NoError(t, err)
	assert.Equal(t, was, is, "the copy stays as it is")
	_, err = closed.PutCopyBack(t.Context(), filepath.Join(t.TempDir(), "none.db"))
	assert.Error(t, err)
}
