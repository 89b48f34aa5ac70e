package store

import (
	"path/filepath"
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
	isNew, err := first.New()
	require.NoError(t, err)
	assert.True(t, isNew)
	kept, err := first.Create(Document{Kind: Chart, Name: "A tune", Body: []byte(`{"title":"A tune"}`)})
	require.NoError(t, err)
	require.NoError(t, first.Close())

	second := open(t, path)
	isNew, err = second.New()
	require.NoError(t, err)
	assert.False(t, isNew)
	read, err := second.Read(Chart, kept.ID)
	require.NoError(t, err)
	assert.Equal(t, kept.Body, read.Body)
	assert.Equal(t, 1, read.Version)
	assert.Equal(t, kept.CreatedAt.Unix(), read.CreatedAt.Unix())
}

func TestEverySaveKeepsTheOneBefore(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	for n, name := range []string{"Two", "Three"} {
		d, err = s.Replace(Chart, d.ID, n+1, name, []byte(name))
		require.NoError(t, err)
	}
	assert.Equal(t, 3, d.Version)
	revisions, err := s.Revisions(d.ID)
	require.NoError(t, err)
	require.Len(t, revisions, 2)
	assert.Equal(t, "Two", revisions[0].Name)
	assert.Equal(t, []byte("1"), revisions[1].Body)
}

func TestAStaleWriteIsRefusedAndChangesNothing(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	_, err = s.Replace(Chart, d.ID, 1, "Two", []byte("2"))
	require.NoError(t, err)
	_, err = s.Replace(Chart, d.ID, 1, "Mine", []byte("mine"))
	var stale *StaleError
	require.ErrorAs(t, err, &stale)
	assert.Equal(t, 2, stale.Current)
	assert.ErrorAs(t, s.Delete(Chart, d.ID, 1), &stale)
	read, err := s.Read(Chart, d.ID)
	require.NoError(t, err)
	assert.Equal(t, "Two", read.Name)
	revisions, err := s.Revisions(d.ID)
	require.NoError(t, err)
	assert.Len(t, revisions, 1)
}

// Of many writers on one version exactly one wins.
func TestOneWriterWins(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	var won sync.Map
	var group sync.WaitGroup
	for n := range 8 {
		group.Go(func() {
			if _, err := s.Replace(Chart, d.ID, 1, "Two", []byte{byte(n)}); err == nil {
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
	d, err := s.Create(Document{Kind: Lick, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	require.NoError(t, s.Delete(Lick, d.ID, 1))
	_, err = s.Read(Lick, d.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	list, err := s.List(Lick, 0)
	require.NoError(t, err)
	assert.Empty(t, list)
	back, err := s.Restore(Lick, d.ID)
	require.NoError(t, err)
	assert.Equal(t, "One", back.Name)
	_, err = s.Restore(Chart, d.ID)
	assert.ErrorIs(t, err, ErrNotFound, "a lick is not a chart")
	_, err = s.Read(Chart, d.ID)
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestOneRevisionIsFound(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	_, err = s.Replace(Chart, d.ID, 1, "Two", []byte("2"))
	require.NoError(t, err)
	r, err := s.Revision(d.ID, 1)
	require.NoError(t, err)
	assert.Equal(t, "One", r.Name)
	_, err = s.Revision(d.ID, 2)
	assert.ErrorIs(t, err, ErrNotFound, "the present version is no revision")
}

func TestPractisingIsNoNewVersion(t *testing.T) {
	s := fresh(t)
	d, err := s.Create(Document{Kind: Chart, Name: "One", Body: []byte("1")})
	require.NoError(t, err)
	assert.Nil(t, d.PractisedAt)
	at := time.Date(2026, 5, 1, 20, 15, 0, 0, time.UTC)
	require.NoError(t, s.Practised(Chart, d.ID, at))
	read, err := s.Read(Chart, d.ID)
	require.NoError(t, err)
	assert.Equal(t, at, read.PractisedAt.UTC())
	assert.Equal(t, 1, read.Version)
	assert.Equal(t, d.UpdatedAt.Unix(), read.UpdatedAt.Unix())
	assert.ErrorIs(t, s.Practised(Chart, 99, at), ErrNotFound)
}

func TestDeletedThingsAreListed(t *testing.T) {
	s := fresh(t)
	for _, name := range []string{"One", "Two", "Three"} {
		d, err := s.Create(Document{Kind: Chart, Name: name, Body: []byte(name)})
		require.NoError(t, err)
		if name != "Two" {
			require.NoError(t, s.Delete(Chart, d.ID, 1))
		}
	}
	gone, err := s.Deleted(Chart)
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
	list, err := again.List(Chart, 0)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, "Old", list[0].Name)
	require.NoError(t, again.Practised(Chart, list[0].ID, time.Now()))
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
	tune, err := s.Create(Document{Kind: Chart, Name: "Tune", Body: []byte("1")})
	require.NoError(t, err)
	_, err = s.Replace(Chart, tune.ID, 1, "Tune again", []byte("2"))
	require.NoError(t, err)
	line, err := s.Create(Document{Kind: Line, Name: "Line", ChartID: &tune.ID, Body: []byte("3")})
	require.NoError(t, err)
	require.NoError(t, s.Delete(Line, line.ID, 1))
	_, err = s.Create(Document{Kind: Solo, Name: "Solo", ChartID: &tune.ID, Body: []byte("4")})
	require.Error(t, err, "there were no solos")
	require.NoError(t, s.Close())

	again := open(t, path)
	read, err := again.Read(Chart, tune.ID)
	require.NoError(t, err)
	assert.Equal(t, "Tune again", read.Name)
	revisions, err := again.Revisions(tune.ID)
	require.NoError(t, err)
	require.Len(t, revisions, 1)
	assert.Equal(t, []byte("1"), revisions[0].Body)
	restored, err := again.Restore(Line, line.ID)
	require.NoError(t, err)
	assert.Equal(t, tune.ID, *restored.ChartID)
	solo, err := again.Create(Document{Kind: Solo, Name: "Solo", ChartID: &tune.ID, Body: []byte("4")})
	require.NoError(t, err)
	assert.Greater(t, solo.ID, line.ID, "numbers go on")
	missing := tune.ID + 100
	_, err = again.Create(Document{Kind: Solo, Name: "Solo", ChartID: &missing, Body: []byte("4")})
	assert.Error(t, err, "a solo belongs to a chart that exists")
}

func TestLinesBelongToAChartThatExists(t *testing.T) {
	s := fresh(t)
	chart, err := s.Create(Document{Kind: Chart, Name: "A tune", Body: []byte("1")})
	require.NoError(t, err)
	for _, id := range []*uint{&chart.ID, nil} {
		_, err = s.Create(Document{Kind: Line, Name: "A line", Body: []byte("1"), ChartID: id})
		require.NoError(t, err)
	}
	over, err := s.List(Line, chart.ID)
	require.NoError(t, err)
	assert.Len(t, over, 1)
	nobody := uint(99)
	_, err = s.Create(Document{Kind: Line, Name: "A line", Body: []byte("1"), ChartID: &nobody})
	assert.ErrorIs(t, err, gorm.ErrForeignKeyViolated)
	_, err = s.Create(Document{Kind: "poem", Name: "A poem", Body: []byte("1")})
	assert.ErrorIs(t, err, gorm.ErrCheckConstraintViolated)
}

func TestAFileFromANewerVersionIsRefused(t *testing.T) {
	path := filepath.Join(t.TempDir(), "undaris.db")
	s, err := Open(path)
	require.NoError(t, err)
	require.NoError(t, s.db.Exec(`INSERT INTO migrations (id) VALUES ('9999-from-the-future')`).Error)
	require.NoError(t, s.Close())
	_, err = Open(path)
	assert.ErrorContains(t, err, "up to date")
}
