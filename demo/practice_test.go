package demo

import (
	"log/slog"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/library/documents"
	keptpractice "undaris/library/practice"
	"undaris/store"
)

func filled(t *testing.T, now time.Time) *keptpractice.Practice {
	t.Helper()
	data, err := store.Open(filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = data.Close() })
	l := documents.New(data, slog.New(slog.DiscardHandler))
	require.NoError(t, Fill(t.Context(), l, true))
	require.NoError(t, FillPractice(t.Context(), l, now))
	return keptpractice.New(l)
}

// Six weeks of practice end on the day before the first opening; they are the same from one time to
// the next, have days without, and leave cards due.
func TestSixWeeksOfPractice(t *testing.T) {
	berlin, err := time.LoadLocation("Europe/Berlin")
	require.NoError(t, err)
	now := time.Date(2026, 4, 10, 9, 0, 0, 0, berlin) // summer time began within the six weeks
	l := filled(t, now)
	entries, err := l.Log(t.Context())
	require.NoError(t, err)
	assert.Greater(t, len(entries), 80)
	days := map[string]bool{}
	for _, e := range entries {
		require.NoError(t, e.Check())
		assert.True(t, e.Began.Before(now) && e.Began.After(now.AddDate(0, 0, -practiceDays-1)), e.Began)
		days[e.Day()] = true
	}
	assert.Less(t, len(days), practiceDays, "there are days without")
	assert.Greater(t, len(days), practiceDays/2)
	assert.True(t, days["2026-04-09"], "the day before is practised")
	enrolled, err := l.Enrolled(t.Context(), keptpractice.Scope{})
	require.NoError(t, err)
	work, err := l.PracticeWork(t.Context(), enrolled, now, 2*time.Hour)
	require.NoError(t, err)
	assert.NotEmpty(t, work.Due)
	assert.Len(t, work.New, 8)
	assert.Greater(t, work.Known, 60)

	again, err := filled(t, now).Log(t.Context())
	require.NoError(t, err)
	assert.Equal(t, entries, again, "the same each time")
}
