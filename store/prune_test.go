package store

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// All of the last 24 hours stay, of the 30 days before one of each day, and one a week of what is older; what has a
// name stays for ever.
func TestVersionsAreThinnedOut(t *testing.T) {
	s, later := clock(t, "2026-06-17 12:00:00") // a Wednesday
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "Tune", Body: []byte("1")})
	require.NoError(t, err)
	keep := func(version int, at, label string) {
		saved, err := time.Parse(time.DateTime, at)
		require.NoError(t, err)
		require.NoError(t, s.InsertRevisions(t.Context(), []Revision{{DocumentID: d.ID, Version: version, Name: "Tune", Label: label, Body: []byte("0"), SavedAt: saved}}))
	}
	for n, one := range []struct{ at, label string }{
		{"2026-03-02 10:00:00", ""},      // 1: a Monday
		{"2026-03-08 23:00:00", ""},      // 2: the Sunday after, the same week
		{"2026-03-09 01:00:00", ""},      // 3: the next week
		{"2026-03-10 01:00:00", "first"}, // 4: has a name
		{"2026-03-11 01:00:00", ""},      // 5: the same week as 3
		{"2026-06-10 08:00:00", ""},      // 6
		{"2026-06-10 09:00:00", ""},      // 7: the same day
		{"2026-06-11 09:00:00", ""},      // 8
		{"2026-06-16 13:00:00", ""},      // 9: within 24 hours
		{"2026-06-16 14:00:00", ""},      // 10
	} {
		keep(n+1, one.at, one.label)
	}
	removed, err := s.PruneRevisions(t.Context())
	require.NoError(t, err)
	assert.Equal(t, 3, removed)
	left := func() string {
		all, err := s.Revisions(t.Context(), d.ID)
		require.NoError(t, err)
		versions := []string{}
		for _, r := range all {
			versions = append(versions, fmt.Sprint(r.Version))
		}
		return strings.Join(versions, " ")
	}
	assert.Equal(t, "10 9 8 7 5 4 2", left())
	removed, err = s.PruneRevisions(t.Context())
	require.NoError(t, err)
	assert.Zero(t, removed, "nothing more the second time")
	later(365 * 24 * time.Hour)
	_, err = s.PruneRevisions(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "10 8 5 4 2", left())
}

// Whatever versions there are: every day or week that had one has one afterwards, the last, and none that has a name or
// is of the last 24 hours goes.
func TestWhatIsThinnedOutIsStoodFor(t *testing.T) {
	now := time.Date(2026, 6, 17, 12, 0, 0, 0, time.UTC)
	rapid.Check(t, func(rt *rapid.T) {
		all := []revisionAge{}
		at := now.Add(-everyRevision)
		for version := 50; version > 0 && len(all) < rapid.IntRange(0, 49).Draw(rt, "count"); version-- {
			at = at.Add(-time.Duration(rapid.IntRange(0, 100).Draw(rt, "hours")) * time.Hour)
			all = append(all, revisionAge{DocumentID: 1, Version: version, SavedAt: at})
		}
		gone := map[int]bool{}
		for _, r := range superfluous(all, now) {
			gone[r.Version] = true
		}
		for n, r := range all {
			if !gone[r.Version] {
				continue
			}
			kept := false
			for _, newer := range all[:n] {
				apart := newer.SavedAt.Sub(r.SavedAt)
				kept = kept || !gone[newer.Version] && (apart < 24*time.Hour || apart < 7*24*time.Hour && now.Sub(newer.SavedAt) >= dailyRevision)
			}
			assert.True(rt, kept, "version %d of %s has a newer one of its day or week", r.Version, r.SavedAt)
		}
	})
}

// The file gets smaller when much of it is no longer needed.
func TestTheFileShrinks(t *testing.T) {
	s, _ := clock(t, "2026-06-17 12:00:00")
	d, err := s.Create(t.Context(), Document{Kind: Chart, Name: "Tune", Body: []byte("1")})
	require.NoError(t, err)
	for n := range 300 {
		require.NoError(t, s.InsertRevisions(t.Context(), []Revision{{DocumentID: d.ID, Version: n + 1, Name: "Tune", Body: make([]byte, 4000), SavedAt: s.now().Add(-time.Duration(300-n) * time.Minute).Add(-400 * 24 * time.Hour)}}))
	}
	pages := func() int {
		count := 0
		require.NoError(t, s.db.Raw("PRAGMA page_count").Scan(&count).Error)
		return count
	}
	before := pages()
	shrunk, err := s.Shrink(t.Context())
	require.NoError(t, err)
	assert.False(t, shrunk, "as long as nothing is empty it stays")
	removed, err := s.PruneRevisions(t.Context())
	require.NoError(t, err)
	assert.Equal(t, 299, removed)
	shrunk, err = s.Shrink(t.Context())
	require.NoError(t, err)
	assert.True(t, shrunk)
	assert.Less(t, 5*pages(), before)
}
