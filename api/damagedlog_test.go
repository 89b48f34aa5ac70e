package api

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An entry of the log with a damaged time is listed and says so, and can be corrected.
func TestADamagedEntryOfTheLog(t *testing.T) {
	c, db := kept(t, nil)
	entry := NewLogEntry{LogEntry: LogEntry{Began: time.Date(2026, 3, 1, 19, 0, 0, 0, time.UTC), Seconds: 600, Kind: "free"}}
	one := call[KeptLogEntry](c, "POST", "/api/practice/log", entry, 201)
	call[KeptLogEntry](c, "POST", "/api/practice/log", entry, 201)
	_, err := db.Exec(`UPDATE log_entries SET began_at = '2026-x3-01' WHERE id = ?`, one.ID)
	require.NoError(t, err)
	said := map[uint]string{}
	for _, e := range call[[]KeptLogEntry](c, "GET", "/api/practice/log", nil, 200) {
		said[e.ID] = e.Damaged
	}
	require.Len(t, said, 2)
	assert.Contains(t, said[one.ID], "cannot be read")
	delete(said, one.ID)
	for _, damaged := range said {
		assert.Empty(t, damaged)
	}
	mended := call[KeptLogEntry](c, "PUT", "/api/practice/log/"+itoa(one.ID), entry.LogEntry, 200)
	assert.Empty(t, mended.Damaged)
	assert.True(t, entry.Began.Equal(mended.Began))
}
