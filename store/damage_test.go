package store

import (
	"bytes"
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// manyLicks is a closed data file with so many documents, each with a body that says which one it is and a version.
func manyLicks(t testing.TB, count int) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "undaris.db")
	s, err := Open(path)
	require.NoError(t, err)
	for n := 1; n <= count; n++ {
		_, err := s.Create(t.Context(), Document{Kind: Lick, Name: fmt.Sprint("lick ", n), Body: bodyOf(n, "old")})
		require.NoError(t, err)
		_, err = s.Replace(t.Context(), Lick, uint(n), Save{Version: 1, Name: fmt.Sprint("lick ", n), Body: bodyOf(n, "new"), KeepBefore: true})
		require.NoError(t, err)
	}
	require.NoError(t, s.Checkpoint(t.Context()))
	require.NoError(t, s.Close())
	return path
}

func bodyOf(n int, which string) []byte {
	return fmt.Appendf(nil, `{"kind":"lick","schema":2,"body":{"%s":"%s"}}`, which, bytes.Repeat(fmt.Appendf(nil, "%03d", n), 500))
}

// damages change a file as disks and programs do.
var damages = map[string]func(random *rand.Rand, text []byte) []byte{
	"flipped": func(random *rand.Rand, text []byte) []byte {
		for range 1 + random.IntN(30) {
			text[random.IntN(len(text))] ^= byte(1 << random.IntN(8))
		}
		return text
	},
	"cut": func(random *rand.Rand, text []byte) []byte { return text[:random.IntN(len(text))] },
	"a block lost": func(random *rand.Rand, text []byte) []byte {
		at := random.IntN(len(text))
		clear(text[at:min(len(text), at+4096*(1+random.IntN(20)))])
		return text
	},
	"a block of elsewhere": func(random *rand.Rand, text []byte) []byte {
		pages := len(text) / 4096
		copy(text[4096*random.IntN(pages):], text[4096*random.IntN(pages):][:4096])
		return text
	},
}

var damagedFiles = flag.Int("damaged-files", 6, "how many files are damaged in each way")

// Of a file that was damaged in any way nothing is read that was never kept but where the store cannot know: what a body
// says is checked above it. What can be read is rescued.
func TestDamagedFiles(t *testing.T) {
	whole, err := os.ReadFile(manyLicks(t, 60))
	require.NoError(t, err)
	random := rand.New(rand.NewPCG(7, 7))
	folder := t.TempDir()
	for kind, damage := range damages {
		read, right := 0, 0
		files := *damagedFiles
		for n := range files {
			path := filepath.Join(folder, fmt.Sprintf("%s %d.db", kind, n))
			require.NoError(t, os.WriteFile(path, damage(random, bytes.Clone(whole)), 0o600))
			tables, err := Rescue(t.Context(), path, path+".new")
			require.NoError(t, err, "%s %d: %v", kind, n, tables)
			rescued, err := Open(path + ".new")
			require.NoError(t, err)
			require.NoError(t, rescued.Check(t.Context(), false), "what is rescued is a sound file")
			all, err := rescued.List(t.Context(), Lick, 0)
			require.NoError(t, err)
			for _, d := range all {
				read++
				if bytes.Equal(d.Body, bodyOf(int(d.ID), "new")) {
					right++
				}
			}
			require.NoError(t, rescued.Close())
		}
		t.Logf("%s: of %d documents %d were read, %d as they were saved last", kind, 60*files, read, right)
		least := map[string]int{"flipped": 50, "cut": 10, "a block lost": 40, "a block of elsewhere": 55}[kind]
		assert.Greater(t, right, least*files, kind)
	}
}

// killed is a data file with licks in its log, as a program that was killed leaves both: of so many licks in the file,
// and of so many more in the log.
func killed(t *testing.T, inFile, inLog int) string {
	t.Helper()
	folder := t.TempDir()
	s, err := Open(filepath.Join(folder, "open.db"))
	require.NoError(t, err)
	keep := func(name string) {
		_, err := s.Create(t.Context(), Document{Kind: Lick, Name: name, Body: []byte("{}")})
		require.NoError(t, err)
	}
	for n := range inFile {
		keep(fmt.Sprint("file ", n))
	}
	require.NoError(t, s.Checkpoint(t.Context()))
	for n := range inLog {
		keep(fmt.Sprint("log ", n))
	}
	path := filepath.Join(folder, "data.db")
	for _, beside := range []string{"", "-wal"} {
		bytes, err := os.ReadFile(filepath.Join(folder, "open.db"+beside))
		if err == nil {
			require.NoError(t, os.WriteFile(path+beside, bytes, 0o600))
		}
	}
	require.NoError(t, s.Close())
	return path
}

// opened lists the licks of a data file after it was looked whether its log is its own.
func opened(t *testing.T, path string) (names []string, aside string) {
	t.Helper()
	aside, err := SetForeignLogAside(t.Context(), path, time.Now())
	require.NoError(t, err)
	s, err := Open(path)
	require.NoError(t, err)
	require.NoError(t, s.Check(t.Context(), false))
	all, err := s.List(t.Context(), Lick, 0)
	require.NoError(t, err)
	for _, d := range all {
		names = append(names, d.Name)
	}
	require.NoError(t, s.Close())
	return names, aside
}

// What a killed program has acknowledged is in its log, and is read, however often it was brought in before.
func TestTheLogOfAKilledProgramIsItsOwn(t *testing.T) {
	for _, n := range []int{0, 1, 3} {
		names, aside := opened(t, killed(t, 2, n))
		assert.Empty(t, aside)
		assert.Len(t, names, 2+n)
	}
	// Copied together with its log it is whole, though the copy of the log is a moment older.
	path := killed(t, 2, 2)
	require.NoError(t, os.Chtimes(path+"-wal", time.Now().Add(-time.Second), time.Now().Add(-time.Second)))
	names, aside := opened(t, path)
	assert.Empty(t, aside)
	assert.Len(t, names, 4)
	// Killed while the log was brought in, the file is younger than its log, and needs it.
	path = killed(t, 2, 2)
	require.NoError(t, os.WriteFile(checkpointNote(path), nil, 0o600))
	require.NoError(t, os.Chtimes(path+"-wal", time.Now().Add(-time.Hour), time.Now().Add(-time.Hour)))
	names, aside = opened(t, path)
	assert.Empty(t, aside)
	assert.Len(t, names, 4)
}

// The log of another library is never read into one: not into a file that was closed, nor beside one of its own.
func TestTheLogOfAnotherLibraryIsPutAside(t *testing.T) {
	own, other := killed(t, 5, 0), killed(t, 1, 3)
	log, err := os.ReadFile(other + "-wal")
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(own+"-wal", log, 0o600))
	names, aside := opened(t, own)
	assert.Len(t, names, 5)
	assert.FileExists(t, aside)
	kept, err := os.ReadFile(aside)
	require.NoError(t, err)
	assert.Equal(t, log, kept, "what was put aside is whole")
}

// A copy that is put back beside the log of a later day comes up as the copy.
func TestACopyPutBackBesideAnOldLog(t *testing.T) {
	// The copy was made some writes and checkpoints ago: its generation is another.
	folder := t.TempDir()
	path := filepath.Join(folder, "open.db")
	s, err := Open(path)
	require.NoError(t, err)
	keep := func(name string) {
		_, err := s.Create(t.Context(), Document{Kind: Lick, Name: name, Body: []byte("{}")})
		require.NoError(t, err)
	}
	keep("yesterday")
	require.NoError(t, s.Checkpoint(t.Context()))
	copied, err := os.ReadFile(path)
	require.NoError(t, err)
	for n := range 3 {
		keep(fmt.Sprint("today ", n))
		if n < 2 {
			require.NoError(t, s.Checkpoint(t.Context()))
		}
	}
	log, err := os.ReadFile(path + "-wal")
	require.NoError(t, err)
	require.NoError(t, s.Close())
	back := filepath.Join(folder, "data.db")
	require.NoError(t, os.WriteFile(back+"-wal", log, 0o600))
	require.NoError(t, os.WriteFile(back, copied, 0o600))
	names, aside := opened(t, back)
	assert.Equal(t, []string{"yesterday"}, names)
	assert.NotEmpty(t, aside)

	// One that is younger than the log was put in its place, whatever it holds.
	path = killed(t, 1, 2)
	old := time.Now().Add(-time.Hour)
	require.NoError(t, os.Chtimes(path+"-wal", old, old))
	names, aside = opened(t, path)
	assert.Equal(t, []string{"file 0"}, names)
	assert.NotEmpty(t, aside)
}

// A row with a time or a number that cannot be read hides nothing but itself, and says what is wrong with it.
func TestADamagedRowHidesNothingButItself(t *testing.T) {
	path := manyLicks(t, 3)
	s, err := Open(path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	ctx := t.Context()
	_, err = s.KeepSetting(ctx, "player", Save{Body: []byte("{}")})
	require.NoError(t, err)
	now := time.Now().UTC()
	for n, id := range []string{"a|C dominant|E|C7", "b|C dominant|E|C7"} {
		_, err = s.KeepReview(ctx, Review{CardID: id, Kind: "a", At: now, Grade: 3}, Card{ID: id, Kind: "a", DueAt: now, LastReviewAt: now, Reps: 1})
		require.NoError(t, err, n)
	}
	_, err = s.AddLog(ctx, []LogEntry{{UID: "1", BeganAt: now, Kind: "free"}, {UID: "2", BeganAt: now, Kind: "free"}})
	require.NoError(t, err)
	for _, statement := range []string{
		`UPDATE documents SET updated_at = '20?6-01-01' WHERE id = 1`, `UPDATE documents SET version = 'x' WHERE id = 2`,
		`UPDATE settings SET updated_at = 'yesterday'`, `UPDATE cards SET due_at = '+10000-01-01 00:00:00+00:00' WHERE id LIKE 'a%'`,
		`UPDATE reviews SET at = 'then' WHERE id = 1`, `UPDATE log_entries SET began_at = 'now and then', tempo = 'fast' WHERE uid = '1'`,
	} {
		require.NoError(t, s.db.Exec("PRAGMA ignore_check_constraints = 1").Error)
		require.NoError(t, s.db.Exec(statement).Error, statement)
	}
	all, err := s.List(ctx, Lick, 0)
	require.NoError(t, err)
	require.Len(t, all, 3)
	assert.Equal(t, []string{"its time of saving cannot be read", "its version cannot be read", ""}, []string{all[0].Damaged, all[1].Damaged, all[2].Damaged})
	one, err := s.Read(ctx, Lick, 1)
	require.NoError(t, err)
	assert.NotEmpty(t, one.Damaged)
	setting, err := s.Setting(ctx, "player")
	require.NoError(t, err)
	assert.Equal(t, 1, setting.Version)
	cards, err := s.Cards(ctx)
	require.NoError(t, err)
	assert.Len(t, cards, 1, "the other is asked as if it were new")
	log, err := s.Log(ctx)
	require.NoError(t, err)
	assert.Len(t, log, 2)
	facts, err := s.LogFacts(ctx)
	require.NoError(t, err)
	assert.Len(t, facts, 1)
	_, err = s.Reviews(ctx, "", 10)
	require.NoError(t, err)
	wrong := []string{}
	require.NoError(t, s.EachDamagedRow(ctx, func(e RowError) { wrong = append(wrong, e.Error()) }))
	assert.Len(t, wrong, 6)
	assert.Contains(t, wrong, "the entry 1 of the log: its time of beginning cannot be read; its tempo cannot be read")
}

// Versions of settings, the counter of documents, and what there can only be one of.
func TestSettingsAndCounters(t *testing.T) {
	s, err := Open(filepath.Join(t.TempDir(), "data.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	ctx := t.Context()
	first, err := s.Create(ctx, Document{Kind: Lick, Name: "a", Body: []byte("{}")})
	require.NoError(t, err)
	second, err := s.Create(ctx, Document{Kind: Lick, Name: "b", Body: []byte("{}")})
	require.NoError(t, err)
	require.NoError(t, s.Delete(ctx, Lick, second.ID, 1))
	before, err := s.ChangesOf(ctx, Lick)
	require.NoError(t, err)
	// One goes and another comes back: as many, of the same versions.
	require.NoError(t, s.Delete(ctx, Lick, first.ID, 1))
	_, err = s.Restore(ctx, Lick, second.ID)
	require.NoError(t, err)
	after, err := s.ChangesOf(ctx, Lick)
	require.NoError(t, err)
	assert.Greater(t, after, before)
	charts, err := s.ChangesOf(ctx, Chart)
	require.NoError(t, err)
	assert.Zero(t, charts)

	tune, err := s.Create(ctx, Document{Kind: Chart, Name: "tune", Body: []byte("{}")})
	require.NoError(t, err)
	old, err := s.Create(ctx, Document{Kind: Band, ChartID: &tune.ID, Name: "band", Body: []byte("{}")})
	require.NoError(t, err)
	require.NoError(t, s.Delete(ctx, Band, old.ID, 1))
	_, err = s.Create(ctx, Document{Kind: Band, ChartID: &tune.ID, Name: "band", Body: []byte("{}")})
	require.NoError(t, err)
	_, err = s.Restore(ctx, Band, old.ID)
	require.ErrorIs(t, err, ErrExists)
}
