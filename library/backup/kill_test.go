package backup

import (
	"bytes"
	"context"
	"database/sql"
	"flag"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/bundle"
	"undaris/format/document"
	bundles "undaris/library/bundle"
	"undaris/library/documents"
	"undaris/store"
)

var kills = flag.Int("kills", 3, "how often each work is killed")

// workVariable names the work that this program is started again for, to be killed in the middle of it.
const workVariable = "UNDARIS_TEST_WORK"

func TestMain(m *testing.M) {
	flag.Parse()
	if work := os.Getenv(workVariable); work != "" {
		if err := doWork(work, os.Getenv("UNDARIS_TEST_FILE")); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		return
	}
	os.Exit(m.Run())
}

// bigBundle is beside the data file.
func bigBundle(path string) string { return filepath.Join(filepath.Dir(path), "big.zip") }

func backupsAt(path string) *Backups {
	return &Backups{Folder: BackupsBeside(path), DataFile: path, Sounds: store.SoundsBeside(path), Now: time.Now}
}

// doWork is what is killed: it says when it begins.
func doWork(work, path string) error {
	ctx := context.Background()
	b := backupsAt(path)
	begun := func() { fmt.Println("begun") }
	switch work {
	case "migration":
		begun()
		st, err := OpenKept(ctx, b, slog.New(slog.DiscardHandler))
		if err != nil {
			return err
		}
		return st.Close()
	case "restore a closed file":
		all, err := b.List()
		if err != nil {
			return err
		}
		begun()
		_, err = b.RestoreClosed(ctx, all[len(all)-1].Name)
		return err
	}
	st, err := store.Open(path)
	if err != nil {
		return err
	}
	b.Live = st
	defer func() { _ = st.Close() }()
	switch work {
	case "import":
		text, err := os.ReadFile(bigBundle(path))
		if err != nil {
			return err
		}
		read, err := bundle.Open(bytes.NewReader(text), int64(len(text)), bundles.MaxBundle)
		if err != nil {
			return err
		}
		begun()
		_, err = bundles.Import(ctx, st, read, b.Sounds, bundles.ImportOrder{Replace: true}, func() error { return nil })
		return err
	case "backup":
		begun()
		_, err = b.Make(ctx, OnDemand)
	case "restore":
		all, listErr := b.List()
		if listErr != nil {
			return listErr
		}
		begun()
		_, err = b.Restore(ctx, all[len(all)-1].Name)
	case "pruning":
		begun()
		if _, err = st.PruneRevisions(ctx); err == nil {
			_, err = st.Shrink(ctx)
		}
	}
	return err
}

// Whenever the program is killed in the middle of an import, a migration, a backup, a restore or pruning, the data file
// is sound afterwards and holds wholly what it held before or wholly what it was to hold, each take with its sound.
func TestKilledAtAnyMoment(t *testing.T) {
	for _, work := range []string{"import", "migration", "backup", "restore", "restore a closed file", "pruning"} {
		t.Run(work, func(t *testing.T) {
			random := rand.New(rand.NewPCG(11, uint64(len(work))))
			template, before, after := filledFor(t, work)
			longest := worked(t, copied(t, template), work, time.Minute)
			outcomes := map[string]int{}
			for n := range *kills {
				path := copied(t, template)
				worked(t, path, work, time.Duration(random.Int64N(int64(longest)+1)))
				holds := whatItHolds(t, path)
				switch holds {
				case before:
					outcomes["as before"]++
				case after:
					outcomes["as after"]++
				default:
					require.Fail(t, "neither nor", "kill %d: %s; before %s, after %s", n, holds, before, after)
				}
				backups := backupsAt(path)
				all, err := backups.List()
				require.NoError(t, err)
				for _, one := range all {
					_, _, err := backups.Verify(t.Context(), one.Name)
					require.NoError(t, err, "what is listed as a backup is whole")
				}
			}
			t.Logf("%s, up to %s: %v", work, longest.Round(time.Millisecond), outcomes)
		})
	}
}

// filledFor is a folder with a closed data file for a work, and what it holds before and after it.
func filledFor(t *testing.T, work string) (template, before, after string) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "undaris.db")
	st, err := store.Open(path)
	require.NoError(t, err)
	fill := func(prefix string, count int) {
		require.NoError(t, st.Together(t.Context(), func(st *store.Store) error {
			for n := range count {
				d, err := st.Create(t.Context(), store.Document{Kind: store.Lick, Name: fmt.Sprint(prefix, n), Body: documents.Seal(store.Lick, map[string]any{"text": strings.Repeat(prefix, 900)})})
				require.NoError(t, err)
				old := time.Now().Add(-400 * 24 * time.Hour)
				require.NoError(t, st.InsertRevisions(t.Context(), []store.Revision{
					{DocumentID: d.ID, Version: 1001, Name: "v1", Body: make([]byte, 900), SavedAt: old}, {DocumentID: d.ID, Version: 1002, Name: "v2", Body: make([]byte, 900), SavedAt: old},
				}))
			}
			return nil
		}))
	}
	b := backupsAt(path)
	b.Live = st
	record := func(prefix string) {
		for n := range 3 {
			hash, size, err := b.Sounds.Keep(strings.NewReader(strings.Repeat(fmt.Sprint("sound of ", prefix, n), 20_000)))
			require.NoError(t, err)
			body := document.Take{Sound: &document.TakeSound{Hash: hash, Rate: 8000, Seconds: 1, Bytes: size}}
			_, err = st.Create(t.Context(), store.Document{Kind: store.Take, Name: fmt.Sprint(prefix, "take", n), Body: documents.Seal(store.Take, body)})
			require.NoError(t, err)
		}
	}
	fill("a", 400)
	record("a")
	switch work {
	case "import":
		file, err := os.Create(bigBundle(path))
		require.NoError(t, err)
		_, err = bundles.Write(t.Context(), st, file, b.Sounds, bundles.Order{}, time.Now(), "")
		require.NoError(t, err)
		require.NoError(t, file.Close())
		require.NoError(t, st.Empty(t.Context()))
		require.NoError(t, os.RemoveAll(path+".sounds"))
		fill("b", 50)
		record("b")
	case "restore", "restore a closed file":
		_, err := b.Make(t.Context(), OnDemand)
		require.NoError(t, err)
		require.NoError(t, os.RemoveAll(path+".sounds"))
		require.NoError(t, st.Empty(t.Context()))
		fill("b", 50)
		record("b")
	case "migration":
		asOfRelease7(t, path)
	}
	require.NoError(t, st.Close())
	template = filepath.Dir(path)
	before = whatItHolds(t, copied(t, template))
	finished := copied(t, template)
	worked(t, finished, work, 0)
	return template, before, whatItHolds(t, finished)
}

// asOfRelease7 takes a data file back to how the release before uids left it.
func asOfRelease7(t *testing.T, path string) {
	t.Helper()
	db, err := sql.Open("sqlite", "file:"+path)
	require.NoError(t, err)
	undo := []string{}
	rows, err := db.Query(`SELECT name FROM sqlite_schema WHERE type = 'trigger' AND name <> 'documents_changed_outside'`)
	require.NoError(t, err)
	for rows.Next() {
		name := ""
		require.NoError(t, rows.Scan(&name))
		undo = append(undo, "DROP TRIGGER "+name)
	}
	require.NoError(t, rows.Close())
	for _, statement := range append(undo,
		`DROP TABLE generation`, `DROP TABLE setting_revisions`, `DROP INDEX reviews_by_uid`, `ALTER TABLE reviews DROP COLUMN uid`,
		`DROP INDEX documents_by_uid`, `ALTER TABLE documents DROP COLUMN uid`, `DELETE FROM migrations WHERE id >= '0008'`) {
		_, err := db.Exec(statement)
		require.NoError(t, err)
	}
	require.NoError(t, db.Close())
}

func copied(t *testing.T, template string) string {
	t.Helper()
	folder := t.TempDir()
	require.NoError(t, os.CopyFS(folder, os.DirFS(template)))
	return filepath.Join(folder, "undaris.db")
}

// worked has a program of its own do a work, killed so long after it began; 0 lets it finish. It returns how long it took.
func worked(t *testing.T, path, work string, killedAfter time.Duration) time.Duration {
	t.Helper()
	command := exec.Command(os.Args[0])
	command.Env = append(os.Environ(), workVariable+"="+work, "UNDARIS_TEST_FILE="+path)
	command.Stderr = os.Stderr
	out, err := command.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, command.Start())
	_, err = out.Read(make([]byte, 1))
	require.NoError(t, err)
	start := time.Now()
	if killedAfter > 0 {
		kill := time.AfterFunc(killedAfter, func() { _ = command.Process.Kill() })
		defer kill.Stop()
	}
	err = command.Wait()
	if killedAfter == 0 {
		require.NoError(t, err)
	}
	return time.Since(start)
}

// whatItHolds is what a data file says that it holds when it is opened again, sound in all its parts.
func whatItHolds(t *testing.T, path string) string {
	t.Helper()
	st, err := store.Open(path)
	require.NoError(t, err)
	defer func() { require.NoError(t, st.Close()) }()
	require.NoError(t, st.Check(t.Context(), false))
	sounds := store.SoundsBeside(path)
	count, versions, takes, names := 0, 0, 0, map[byte]int{}
	ids := []uint{}
	require.NoError(t, st.EachDocument(t.Context(), 0, func(d store.Document) error {
		count++
		names[d.Name[0]]++
		ids = append(ids, d.ID)
		fields, err := documents.Fields(d.Kind, d.Body)
		require.NoError(t, err)
		if d.Kind == store.Take {
			takes++
			require.NoError(t, sounds.Check(fields["sound"].(map[string]any)["hash"].(string)), d.Name)
			return nil
		}
		assert.Equal(t, strings.Repeat(d.Name[:1], 900), fields["text"])
		return nil
	}))
	for _, id := range ids {
		all, err := st.Revisions(t.Context(), id)
		require.NoError(t, err)
		versions += len(all)
	}
	return fmt.Sprintf("%d documents, %d takes, %d a, %d b, %d versions", count, takes, names['a'], names['b'], versions)
}
