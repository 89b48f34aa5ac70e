package api

import (
	"bytes"
	"log/slog"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/demo"
	"undaris/library/backup"
	"undaris/library/documents"
	"undaris/store"
)

// keeping is an application whose backups lie beside its data file.
func keeping(t *testing.T) client {
	t.Helper()
	return application(t, func(c *Config) {
		path := filepath.Join(t.TempDir(), "data.db")
		data, err := store.Open(path)
		require.NoError(t, err)
		t.Cleanup(func() { _ = data.Close() })
		l := documents.New(data, slog.New(slog.DiscardHandler))
		c.Store, c.Sounds = data, store.SoundsBeside(path)
		require.NoError(t, demo.Fill(t.Context(), l, true))
		require.NoError(t, demo.FillTakes(t.Context(), l, c.Sounds, time.Now()))
		c.Backups = &backup.Backups{Folder: backup.BackupsBeside(path), DataFile: path, Live: data, Sounds: c.Sounds, Now: time.Now}
	})
}

// sent sends a bundle in pieces, as the page does, and returns its id.
func (c client) sent(text []byte) string {
	c.t.Helper()
	id := call[BundleBegun](c, "POST", "/api/bundles", nil, 201).ID
	const most = 900_000
	for at := 0; at < len(text); at += most {
		piece := string(text[at:min(len(text), at+most)])
		have := call[BundleSoFar](c, "POST", "/api/bundles/"+id+"/piece?at="+itoa(uint(at)), piece, 200)
		assert.Equal(c.t, int64(at+len(piece)), have.Have)
		call[Problem](c, "POST", "/api/bundles/"+id+"/piece?at="+itoa(uint(at)), piece, 409)
	}
	call[Problem](c, "POST", "/api/bundles/"+id+"/piece?at=0", strings.Repeat("x", maxBody+1), 413)
	return id
}

func TestABundleGoesOutAndIn(t *testing.T) {
	c := keeping(t)
	answer := c.do("GET", "/api/bundle", nil)
	require.Equal(t, 200, answer.Code)
	assert.Equal(t, "application/zip", answer.Header().Get("Content-Type"))
	assert.Contains(t, answer.Header().Get("Content-Disposition"), "undaris-")
	text := answer.Body.Bytes()
	assert.Equal(t, itoa(uint(len(text))), answer.Header().Get("Content-Length"))

	id := c.sent(text)
	preview := call[BundlePreview](c, "GET", "/api/bundles/"+id, nil, 200)
	assert.True(t, preview.Whole)
	assert.Empty(t, preview.Items, "everything is here already")
	assert.Equal(t, BundleCount{Kind: "chart", Same: 6}, preview.Counts[0])
	assert.Equal(t, 2, preview.Sounds)

	chart := ferry(c)
	chart.Chart.Title = "Mine"
	call[KeptChart](c, "PUT", "/api/charts/"+itoa(chart.ID), map[string]any{"version": chart.Version, "chart": chart.Chart}, 200)
	preview = call[BundlePreview](c, "GET", "/api/bundles/"+id, nil, 200)
	require.Len(t, preview.Items, 1)
	assert.Equal(t, []string{"chart", "Tin Roof Ferry", "differs"}, []string{preview.Items[0].Kind, preview.Items[0].Name, preview.Items[0].State})
	done := call[BundleImported](c, "POST", "/api/bundles/"+id+"/import", ImportBundle{Differing: "theirs"}, 200)
	assert.Equal(t, 1, done.Replaced)
	assert.Equal(t, "before an import", done.Before.Reason)
	assert.Equal(t, "Tin Roof Ferry", ferry(c).Chart.Title)
	call[Problem](c, "GET", "/api/bundles/"+id, nil, 404)

	restored := call[Restored](c, "POST", "/api/backups/"+done.Before.Name+"/restore", nil, 200)
	assert.Equal(t, "Mine", ferry(c).Chart.Title, "the import is taken back")
	call[Restored](c, "POST", "/api/backups/"+restored.Before.Name+"/restore", nil, 200)
	assert.Equal(t, "Tin Roof Ferry", ferry(c).Chart.Title, "and what was taken back is there again")

	id = c.sent(text)
	call[BundleImported](c, "POST", "/api/bundles/"+id+"/import", ImportBundle{Replace: true}, 200)
	assert.Len(t, call[[]ChartEntry](c, "GET", "/api/charts", nil, 200), 6)
	again := c.do("GET", "/api/bundle", nil).Body.Bytes()
	assert.InDelta(t, len(text), len(again), 64, "the same but for when it was made")
}

func TestATuneForAFriend(t *testing.T) {
	c, friend := keeping(t), keeping(t)
	answer := c.do("GET", "/api/bundle?tune="+itoa(ferry(c).ID)+"&takes=false&versions=false", nil)
	require.Equal(t, 200, answer.Code)
	assert.Contains(t, answer.Header().Get("Content-Disposition"), "Tin Roof Ferry.zip")
	id := friend.sent(answer.Body.Bytes())
	preview := call[BundlePreview](friend, "GET", "/api/bundles/"+id, nil, 200)
	assert.False(t, preview.Whole)
	for _, item := range preview.Items {
		assert.NotEqual(t, "take", item.Kind)
	}
	refused := call[Problem](friend, "POST", "/api/bundles/"+id+"/import", ImportBundle{Replace: true}, 422)
	assert.Contains(t, refused.Detail, "a part of a library")
	call[Problem](c, "GET", "/api/bundle?tune=999", nil, 404)
}

func TestWhatIsNoBundleIsSaid(t *testing.T) {
	c := keeping(t)
	id := c.sent(bytes.Repeat([]byte("nothing "), 99))
	assert.Contains(t, call[Problem](c, "GET", "/api/bundles/"+id, nil, 422).Detail, "no zip file")
	assert.Contains(t, call[Problem](c, "POST", "/api/bundles/"+id+"/import", ImportBundle{}, 422).Detail, "no zip file")
	assert.Equal(t, 204, c.do("DELETE", "/api/bundles/"+id, nil).Code)
	call[Problem](c, "GET", "/api/bundles/"+id, nil, 404)
}

func TestBackupsByTheAPI(t *testing.T) {
	c := keeping(t)
	made := call[Backup](c, "POST", "/api/backups", nil, 201)
	assert.Equal(t, []any{"on demand", 2}, []any{made.Reason, made.Sounds})
	all := call[Backups](c, "GET", "/api/backups", nil, 200)
	require.Len(t, all.Backups, 1)
	assert.Equal(t, made.Name, all.Backups[0].Name)
	call[Problem](c, "POST", "/api/backups/20200101-000000.db/restore", nil, 404)
	require.NoError(t, os.WriteFile(filepath.Join(all.Folder, made.Name), []byte("changed"), 0o600))
	refused := call[Problem](c, "POST", "/api/backups/"+made.Name+"/restore", nil, 422)
	assert.Contains(t, refused.Detail, "nothing was restored")
}
