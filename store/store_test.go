package store

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"
)

func open(t *testing.T, path string) *Store {
	t.Helper()
	s, err := Open(path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func fresh(t *testing.T) *Store {
	t.Helper()
	return open(t, filepath.Join(t.TempDir(), "with a # and ? in it.db"))
}

func TestKeptThingsAreThereAfterReopening(t *testing.T) {
	path := filepath.Join(t.TempDir(), "undaris.db")
	first, err := Open(path)
	require.NoError(t, err)
	isNew, err := first.New(t.Context())
	require.NoError(t, err)
	assert.True(t, isNew)
	kept, err := first.Create(t.Context(), Document{Kind: Chart, Name: "A tune", Body: []byte(`{"title":"A tune"}`)})
	require.NoError(t, err)
	require.NoError(t, first.Close())

	second := open(t, path)
	isNew, err = second.New(t.Context())
	require.NoError(t, err)
	assert.False(t, isNew)
	read, err := second.Read(t.Context(), Chart, kept.ID)
	require.NoError(t, err)
	assert.Equal(t, kept.Body, read.Body)
	assert.Equal(t, 1, read.Version)
	assert.Equal(t, kept.CreatedAt.Unix(), read.CreatedAt.Unix())
}

func TestEverySaveKeepsTheOneBefore(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	for n, name := range []string{"Two", "Three"} {
		d, err = s.Replace(t.Context(), Chart, d.ID, Save{Version: n + 1, Name: name, Body: []byte(name), KeepBefore: true})
		require.NoError(t, err)
	}
	assert.Equal(t, 3, d.Version)
	revisions, err := s.Revisions(t.Context(), d.ID)
	require.NoError(t, err)
	require.Len(t, revisions, 2)
	assert.Equal(t, "Two", revisions[0].Name)
	assert.Equal(t, []byte("1"), revisions[1].Body)
}

func TestAStaleWriteIsRefusedAndChangesNothing(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	_, err = s.Replace(t.Context(), Chart, d.ID, Save{Version: 1, Name: "Two", Body: []byte("2"), KeepBefore: true})
	require.NoError(t, err)
	_, err = s.Replace(t.Context(), Chart, d.ID, Save{Version: 1, Name: "Mine", Body: []byte("mine"), KeepBefore: true})
	var stale *StaleError
	require.ErrorAs(t, err, &stale)
	assert.Equal(t, 2, stale.Current)
	assert.ErrorAs(t, s.Delete(t.Context(), Chart, d.ID, 1), &stale)
	read, err := s.Read(t.Context(), Chart, d.ID)
	require.NoError(t, err)
	assert.Equal(t, "Two", read.Name)
	revisions, err := s.Revisions(t.Context(), d.ID)
	require.NoError(t, err)
	assert.Len(t, revisions, 1)
}

// Of many writers on one version exactly one wins.
func TestOneWriterWins(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	var won sync.Map
	var group sync.WaitGroup
	for n := range 8 {
		group.Go(func() {
			if _, err := s.Replace(t.Context(), Chart, d.ID, Save{Version: 1, Name: "Two", Body: []byte{byte(n)}, KeepBefore: true}); err == nil {
				won.Store(n, true)
			}
		})
	}
	group.Wait()
	winners := 0
	won.Range(func(any, any) bool { winners++; return true })
	assert.Equal(t, 1, winners)
}

func TestDeletedThingsAreGoneUntilRestored(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(t.Context(), Document{Kind: Lick, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	require.NoError(t, s.Delete(t.Context(), Lick, d.ID, 1))
	_, err = s.Read(t.Context(), Lick, d.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	list, err := s.List(t.Context(), Lick, 0)
	require.NoError(t, err)
	assert.Empty(t, list)
	back, err := s.Restore(t.Context(), Lick, d.ID)
	require.NoError(t, err)
	assert.Equal(t, "One", back.Name)
	_, err = s.Restore(t.Context(), Chart, d.ID)
	assert.ErrorIs(t, err, ErrNotFound, "a lick is not a chart")
	_, err = s.Read(t.Context(), Chart, d.ID)
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestOneRevisionIsFound(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	_, err = s.Replace(t.Context(), Chart, d.ID, Save{Version: 1, Name: "Two", Body: []byte("2"), KeepBefore: true})
	require.NoError(t, err)
	r, err := s.Revision(t.Context(), d.ID, 1)
	require.NoError(t, err)
	assert.Equal(t, "One", r.Name)
	_, err = s.Revision(t.Context(), d.ID, 2)
	assert.ErrorIs(t, err, ErrNotFound, "the present version is no revision")
}

func TestPractisingIsNoNewVersion(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	assert.Nil(t, d.PractisedAt)
	at := time.Date(2026, 5, 1, 20, 15, 0, 0, time.UTC)
	require.NoError(t, s.Practised(t.Context(), Chart, d.ID, at))
	read, err := s.Read(t.Context(), Chart, d.ID)
	require.NoError(t, err)
	assert.Equal(t, at, read.PractisedAt.UTC())
	assert.Equal(t, 1, read.Version)
	assert.Equal(t, d.UpdatedAt.Unix(), read.UpdatedAt.Unix())
	assert.ErrorIs(t, s.Practised(t.Context(), Chart, 99, at), ErrNotFound)
}

func TestDeletedThingsAreListed(t *testing.T) {
	s := fresh(t)
	for _, name := range []string{"One", "Two", "Three"} {
		d, err := s.Create(t.Context(), Document{Kind: Chart, Name: name, Body: []byte(name)})
		require.NoError(t, err)
		if name != "Two" {
			require.NoError(t, s.Delete(t.Context(), Chart, d.ID, 1))
		}
	}
	gone, err := s.Deleted(t.Context(), Chart)
	require.NoError(t, err)
	require.Len(t, gone, 2)
	assert.Equal(t, "Three", gone[0].Name)
}

// A data file of the version before, as its migrations left it.
func TestAnOlderFileIsBroughtUpToDate(t *testing.T) {
	path := filepath.Join(t.TempDir(), "undaris.db")
	s, err := Open(path)
	require.NoError(t, err)
	for _, statement := range []string{
		`ALTER TABLE documents DROP COLUMN practised_at`, `DELETE FROM migrations WHERE id = '0002-practised'`,
		`INSERT INTO documents (kind, name, body, version, created_at, updated_at) VALUES ('chart', 'Old', '{}', 1, '2026-01-01 00:00:00', '2026-01-01 00:00:00')`,
	} {
		require.NoError(t, s.db.Exec(statement).Error)
	}
	require.NoError(t, s.Close())
	again := open(t, path)
	list, err := again.List(t.Context(), Chart, 0)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, "Old", list[0].Name)
	require.NoError(t, again.Practised(t.Context(), Chart, list[0].ID, time.Now()))
}

// The tables are made anew for solos; what was kept before, its versions and what belongs
// to what stay.
func TestAFileFromBeforeSolosKeepsEverything(t *testing.T) {
	path := filepath.Join(t.TempDir(), "undaris.db")
	all := migrations
	migrations = all[:3]
	s, err := Open(path)
	migrations = all
	require.NoError(t, err)
	for _, statement := range []string{
		`INSERT INTO documents (kind, name, body, version, created_at, updated_at) VALUES ('chart', 'Tune again', '2', 2, '2026-01-01 00:00:00', '2026-01-01 00:00:00')`,
		`INSERT INTO revisions (document_id, version, name, body, saved_at) VALUES (1, 1, 'Tune', '1', '2026-01-01 00:00:00')`,
		`INSERT INTO documents (kind, name, body, version, chart_id, created_at, updated_at, deleted_at) VALUES ('line', 'Line', '3', 1, 1, '2026-01-01 00:00:00', '2026-01-01 00:00:00', '2026-01-02 00:00:00')`,
	} {
		require.NoError(t, s.db.Exec(statement).Error)
	}
	require.Error(t, s.db.Exec(`INSERT INTO documents (kind, name, body, version, created_at, updated_at) VALUES ('solo', 'Solo', '4', 1, '2026-01-01 00:00:00', '2026-01-01 00:00:00')`).Error, "there were no solos")
	require.NoError(t, s.Close())

	again := open(t, path)
	tune, line := Document{ID: 1}, Document{ID: 2}
	read, err := again.Read(t.Context(), Chart, tune.ID)
	require.NoError(t, err)
	assert.Equal(t, "Tune again", read.Name)
	revisions, err := again.Revisions(t.Context(), tune.ID)
	require.NoError(t, err)
	require.Len(t, revisions, 1)
	assert.Equal(t, []byte("1"), revisions[0].Body)
	restored, err := again.Restore(t.Context(), Line, line.ID)
	require.NoError(t, err)
	assert.Equal(t, tune.ID, *restored.ChartID)
	solo, err := again.Create(t.Context(), Document{Kind: Solo, Name: "Solo", ChartID: &tune.ID, Body: []byte("4")})
	require.NoError(t, err)
	assert.Greater(t, solo.ID, line.ID, "numbers go on")
	missing := tune.ID + 100
	_, err = again.Create(t.Context(), Document{Kind: Solo, Name: "Solo", ChartID: &missing, Body: []byte("4")})
	assert.Error(t, err, "a solo belongs to a chart that exists")
}

// The tables are made anew once more so that a kind needs no new one; summaries, labels,
// versions and what is deleted stay, and a body changed by another program loses its summary
// as before. A tune has one band.
func TestAFileFromBeforeBandsKeepsEverything(t *testing.T) {
	path := filepath.Join(t.TempDir(), "undaris.db")
	all := migrations
	migrations = all[:5]
	s, err := Open(path)
	migrations = all
	require.NoError(t, err)
	tune, solo := Document{ID: 1}, Document{ID: 2}
	for _, statement := range []string{
		`INSERT INTO documents (id, kind, name, body, summary, version, chart_id, created_at, updated_at, deleted_at) VALUES
			(1, 'chart', 'Tune again', x'32', x'7332', 2, NULL, '2026-01-02 03:04:05+00:00', '2026-01-02 03:04:05+00:00', NULL),
			(2, 'solo', 'Solo', x'34', NULL, 1, 1, '2026-01-02 03:04:05+00:00', '2026-01-02 03:04:05+00:00', '2026-01-03 03:04:05+00:00')`,
		`INSERT INTO revisions (document_id, version, name, body, saved_at, label) VALUES (1, 1, 'Tune', x'31', '2026-01-02 03:04:05+00:00', 'first')`,
	} {
		require.NoError(t, s.db.Exec(statement).Error)
	}
	require.NoError(t, s.Close())

	again := open(t, path)
	read, err := again.Read(t.Context(), Chart, tune.ID)
	require.NoError(t, err)
	assert.Equal(t, []string{"Tune again", "2", "s2"}, []string{read.Name, string(read.Body), string(read.Summary)})
	revisions, err := again.Revisions(t.Context(), tune.ID)
	require.NoError(t, err)
	require.Len(t, revisions, 1)
	assert.Equal(t, []string{"1", "first"}, []string{string(revisions[0].Body), revisions[0].Label})
	_, err = again.Restore(t.Context(), Solo, solo.ID)
	require.NoError(t, err)
	require.NoError(t, again.db.Exec(`UPDATE documents SET body = '5' WHERE id = ?`, tune.ID).Error)
	read, err = again.Read(t.Context(), Chart, tune.ID)
	require.NoError(t, err)
	assert.Nil(t, read.Summary)
	_, err = again.Create(t.Context(), Document{Kind: Band, Name: "band", ChartID: &tune.ID, Body: []byte("6")})
	require.NoError(t, err)
	_, err = again.Create(t.Context(), Document{Kind: Band, Name: "band", ChartID: &tune.ID, Body: []byte("7")})
	assert.ErrorIs(t, err, ErrExists, "a tune has one band")
}

func TestLinesBelongToAChartThatExists(t *testing.T) {
	s := fresh(t)
	chart, err := s.Create(t.Context(), Document{Kind: Chart, Name: "A tune", Body: []byte("1")})
	require.NoError(t, err)
	for _, id := range []*uint{&chart.ID, nil} {
		_, err = s.Create(t.Context(), Document{Kind: Line, Name: "A line", Body: []byte("1"), ChartID: id})
		require.NoError(t, err)
	}
	over, err := s.List(t.Context(), Line, chart.ID)
	require.NoError(t, err)
	assert.Len(t, over, 1)
	nobody := uint(99)
	_, err = s.Create(t.Context(), Document{Kind: Line, Name: "A line", Body: []byte("1"), ChartID: &nobody})
	assert.ErrorIs(t, err, gorm.ErrForeignKeyViolated)
	_, err = s.Create(t.Context(), Document{Kind: "poem", Name: "A poem", Body: []byte("1")})
	assert.ErrorIs(t, err, ErrKind)
}

func TestAFileFromANewerVersionIsRefused(t *testing.T) {
	path := filepath.Join(t.TempDir(), "undaris.db")
	s, err := Open(path)
	require.NoError(t, err)
	require.NoError(t, s.db.Exec(`INSERT INTO migrations (id) VALUES ('9999-from-the-future')`).Error)
	require.NoError(t, s.Close())
	_, err = Open(path)
	assert.ErrorIs(t, err, ErrNewer)
}

// clock is a store whose time a test sets.
func clock(t *testing.T, at string) (*Store, func(after time.Duration)) {
	t.Helper()
	s := fresh(t)
	now, err := time.Parse(time.DateTime, at)
	require.NoError(t, err)
	s.now = func() time.Time { return now }
	return s, func(after time.Duration) { now = now.Add(after) }
}

// Saves of one sitting are one version: what is kept of it is its last state.
func TestASittingIsOneVersion(t *testing.T) {
	s, later := clock(t, "2026-05-01 20:00:00")
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "made", Body: []byte("made")})
	require.NoError(t, err)
	save := func(name string, after time.Duration) {
		t.Helper()
		later(after)
		d, err = s.Replace(t.Context(), Chart, d.ID, Save{Version: d.Version, Name: name, Body: []byte(name)})
		require.NoError(t, err)
	}
	for _, name := range []string{"t", "ti", "tit"} {
		save(name, time.Minute)
	}
	save("an hour later", time.Hour)
	save("and on", 4*time.Minute)
	save("and on again", 4*time.Minute+59*time.Second)
	save("the next sitting", Sitting)
	names := []string{}
	revisions, err := s.Revisions(t.Context(), d.ID)
	require.NoError(t, err)
	for _, r := range revisions {
		names = append(names, r.Name)
	}
	assert.Equal(t, []string{"and on again", "tit"}, names)
	assert.Equal(t, 8, d.Version, "every save is a version of its own for whoever saves next")
}

func TestANamedVersionIsKept(t *testing.T) {
	s, later := clock(t, "2026-05-01 20:00:00")
	d, err := s.Create(t.Context(), Document{Kind: Solo, Name: "one", Body: []byte("1")})
	require.NoError(t, err)
	require.NoError(t, s.LabelVersion(t.Context(), Solo, d.ID, 1, "for Friday"))
	later(time.Minute)
	d, err = s.Replace(t.Context(), Solo, d.ID, Save{Version: 1, Name: "two", Body: []byte("2")})
	require.NoError(t, err)
	assert.Empty(t, d.Label, "the name is that of the version before")
	revisions, err := s.Revisions(t.Context(), d.ID)
	require.NoError(t, err)
	require.Len(t, revisions, 1)
	assert.Equal(t, "for Friday", revisions[0].Label)
	require.NoError(t, s.LabelVersion(t.Context(), Solo, d.ID, 1, ""))
	r, err := s.Revision(t.Context(), d.ID, 1)
	require.NoError(t, err)
	assert.Empty(t, r.Label)
	assert.ErrorIs(t, s.LabelVersion(t.Context(), Solo, d.ID, 7, "none"), ErrNotFound)
	assert.ErrorIs(t, s.LabelVersion(t.Context(), Chart, d.ID, 1, "none"), ErrNotFound)
}

// A list reads no bodies; a body that another program has changed loses its summary.
func TestSummaries(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "One", Body: []byte("1"), Summary: []byte("s1")})
	require.NoError(t, err)
	entries, err := s.Entries(t.Context(), Chart, 0)
	require.NoError(t, err)
	require.Len(t, entries, 1)
	assert.Nil(t, entries[0].Body)
	assert.Equal(t, []byte("s1"), entries[0].Summary)

	_, err = s.Replace(t.Context(), Chart, d.ID, Save{Version: 1, Name: "One", Body: []byte("2"), Summary: []byte("s1")})
	require.NoError(t, err)
	entries, err = s.Entries(t.Context(), Chart, 0)
	require.NoError(t, err)
	assert.Equal(t, []byte("s1"), entries[0].Summary, "a save of our own keeps it")

	require.NoError(t, s.db.Exec(`update documents set body='oops' where id=1`).Error)
	entries, err = s.Entries(t.Context(), Chart, 0)
	require.NoError(t, err)
	assert.Nil(t, entries[0].Summary)
	require.NoError(t, s.KeepSummaries(t.Context(), []Document{{ID: entries[0].ID, Version: entries[0].Version, Summary: []byte("s2")}}))
	entries, err = s.Entries(t.Context(), Chart, 0)
	require.NoError(t, err)
	assert.Equal(t, []byte("s2"), entries[0].Summary)
	assert.Equal(t, 2, entries[0].Version)
}

// What is wrong with the data file as a whole is told apart.
func TestCausesOfTheDataFile(t *testing.T) {
	path := filepath.Join(t.TempDir(), "undaris.db")
	s, err := Open(path)
	require.NoError(t, err)
	require.NoError(t, s.db.Exec(`PRAGMA max_page_count = 1`).Error)
	_, err = s.Create(t.Context(), Document{Kind: Chart, Name: "Too much", Body: make([]byte, 1<<20)})
	var file *FileError
	require.ErrorAs(t, err, &file)
	assert.Equal(t, DiskFull, file.Cause)
	entries, err := s.Entries(t.Context(), Chart, 0)
	require.NoError(t, err)
	assert.Empty(t, entries, "nothing is half kept")
	require.NoError(t, s.db.Exec(`PRAGMA query_only = 1`).Error)
	_, err = s.Create(t.Context(), Document{Kind: Chart, Name: "Read only", Body: []byte("1")})
	require.ErrorAs(t, err, &file)
	assert.Equal(t, ReadOnly, file.Cause)
	require.NoError(t, s.Close())

	require.NoError(t, os.WriteFile(path, bytes.Repeat([]byte("no data file "), 400), 0o600))
	_, err = Open(path)
	require.ErrorAs(t, err, &file)
	assert.Equal(t, Damaged, file.Cause)
}

// A data file of every earlier version is brought up to date with all that it holds.
func TestAFileOfEveryEarlierVersion(t *testing.T) {
	all := migrations
	for count := 1; count < len(all); count++ {
		path := filepath.Join(t.TempDir(), "undaris.db")
		migrations = all[:count]
		s, err := Open(path)
		migrations = all
		require.NoError(t, err)
		for _, statement := range []string{
			`INSERT INTO documents (kind, name, body, version, created_at, updated_at) VALUES ('chart', 'Tune', '2', 2, '2026-01-01 00:00:00', '2026-01-01 00:00:00')`,
			`INSERT INTO revisions (document_id, version, name, body, saved_at) VALUES (1, 1, 'Tune', '1', '2026-01-01 00:00:00')`,
			`INSERT INTO documents (kind, name, body, version, chart_id, created_at, updated_at) VALUES ('line', 'Line', '3', 1, 1, '2026-01-01 00:00:00', '2026-01-01 00:00:00')`,
		} {
			require.NoError(t, s.db.Exec(statement).Error)
		}
		require.NoError(t, s.Close())
		again := open(t, path)
		tune, err := again.Read(t.Context(), Chart, 1)
		require.NoError(t, err, all[count-1].ID)
		assert.Equal(t, []string{"Tune", "2"}, []string{tune.Name, string(tune.Body)})
		revisions, err := again.Revisions(t.Context(), 1)
		require.NoError(t, err)
		require.Len(t, revisions, 1, all[count-1].ID)
		lines, err := again.Entries(t.Context(), Line, 1)
		require.NoError(t, err)
		require.Len(t, lines, 1, all[count-1].ID)
		_, err = again.Create(t.Context(), Document{Kind: Band, Name: "band", ChartID: &tune.ID, Body: []byte("4")})
		require.NoError(t, err, "every kind of today can be kept in it")
	}
}

func TestAListPageByPage(t *testing.T) {
	s := fresh(t)
	for _, name := range []string{"Blue mud", "100% mud", "Kettle", "Under_mud", "mudlark"} {
		_, err := s.Create(t.Context(), Document{Kind: Lick, Name: name, Body: []byte("1")})
		require.NoError(t, err)
	}
	for want, page := range map[string]Page{
		"Blue mud, 100% mud": {Limit: 2}, "Kettle, Under_mud": {Limit: 2, After: 2}, "mudlark": {Limit: 2, After: 4},
		"Blue mud, 100% mud, Under_mud, mudlark": {Search: "MUD"}, "100% mud": {Search: "0%"}, "Under_mud": {Search: "r_m"}, "": {Search: `\`},
	} {
		all, err := s.EntriesOf(t.Context(), Lick, 0, page)
		require.NoError(t, err)
		names := []string{}
		for _, d := range all {
			names = append(names, d.Name)
		}
		assert.Equal(t, want, strings.Join(names, ", "))
	}
}
