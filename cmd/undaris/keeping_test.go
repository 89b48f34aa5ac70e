package main

import (
	"bytes"
	"io"
	"log/slog"
	"os"
	"path/filepath"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/library/documents"
	"undaris/store"
)

// filledFile is a data file with the licks that every library begins with.
func filledFile(t *testing.T) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "own.db")
	data, err := store.Open(path)
	require.NoError(t, err)
	require.NoError(t, fill(t.Context(), documents.New(data, slog.New(slog.DiscardHandler)), store.SoundsBeside(path), false))
	require.NoError(t, data.Close())
	return path
}

// said runs a command and returns what it prints.
func said(t *testing.T, args ...string) (string, error) {
	t.Helper()
	out := bytes.Buffer{}
	err := run(args, &out, io.Discard)
	return out.String(), err
}

func licksIn(t *testing.T, path string) int {
	t.Helper()
	data, err := store.Open(path)
	require.NoError(t, err)
	defer func() { require.NoError(t, data.Close()) }()
	all, err := data.List(t.Context(), store.Lick, 0)
	require.NoError(t, err)
	return len(all)
}

func deleteLick(t *testing.T, path string) {
	t.Helper()
	data, err := store.Open(path)
	require.NoError(t, err)
	require.NoError(t, data.Delete(t.Context(), store.Lick, 1, 1))
	require.NoError(t, data.Close())
}

func TestBackupAndRestoreByCommand(t *testing.T) {
	path := filledFile(t)
	out, err := said(t, "backup", "--data", path)
	require.NoError(t, err)
	name := regexp.MustCompile(`[0-9-]+\.db`).FindString(out)
	out, err = said(t, "backup", "--data", path, "--list")
	require.NoError(t, err)
	assert.Contains(t, out, name)
	deleteLick(t, path)
	out, err = said(t, "restore", name, "--data", path)
	require.NoError(t, err)
	assert.Contains(t, out, "restored "+name)
	assert.Equal(t, 64, licksIn(t, path))
	out, err = said(t, "restore", "--data", path)
	require.NoError(t, err)
	assert.Contains(t, out, "before a restore")
	_, err = said(t, "restore", "20200101-000000.db", "--data", path)
	assert.ErrorContains(t, err, "there is no backup")

	lock, err := store.TakeLock(path)
	require.NoError(t, err)
	_, err = said(t, "restore", name, "--data", path)
	assert.ErrorContains(t, err, "another Undaris has the data file")
	require.NoError(t, lock.Release())
}

func TestExportAndImportByCommand(t *testing.T) {
	path, other := filledFile(t), filepath.Join(t.TempDir(), "other.db")
	file := filepath.Join(t.TempDir(), "all.zip")
	_, err := said(t, "export", file, "--data", path)
	require.NoError(t, err)
	out, err := said(t, "import", "--preview", file, "--data", other)
	require.NoError(t, err)
	assert.Contains(t, out, "new      lick")
	out, err = said(t, "import", file, "--data", other)
	require.NoError(t, err)
	assert.Contains(t, out, "new 64, the same 0")
	out, err = said(t, "import", file, "--data", other)
	require.NoError(t, err)
	assert.Contains(t, out, "new 0, the same 64")
	assert.Equal(t, 64, licksIn(t, other))
	for _, args := range [][]string{
		{"import", "--data", other}, {"import", "nowhere.zip", "--data", other}, {"import", path, "--data", other}, {"import", file, "--differing", "some", "--data", other},
		{"export", "--data", other}, {"export", file, "--tune", "99", "--data", other}, {"export", file, "--data", "nowhere.db"},
	} {
		_, err := said(t, args...)
		assert.Error(t, err, args)
	}
}

func TestCheckAndRescueByCommand(t *testing.T) {
	path := filledFile(t)
	out, err := said(t, "check", "--data", path)
	require.NoError(t, err)
	assert.Contains(t, out, "the file is sound; 64 documents and 0 versions, 0 sounds, and all cards")
	_, err = said(t, "backup", "--data", path)
	require.NoError(t, err)

	// A quarter of the file is lost, the root of its documents too.
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	clear(text[len(text)/2 : len(text)*3/4])
	require.NoError(t, os.WriteFile(path, text, 0o600))
	_, err = said(t, "check", "--data", path)
	require.ErrorContains(t, err, "is damaged; the newest backup that is whole is of ")
	_, err = said(t, "serve", "--data", path, "--addr", "127.0.0.1:0")
	require.ErrorContains(t, err, "is damaged", "it is not served as if it were right")
	rescued := filepath.Join(t.TempDir(), "rescued.db")
	out, err = said(t, "check", "--data", path, "--rescue", rescued)
	require.NoError(t, err)
	assert.Contains(t, out, "documents")
	found := licksIn(t, rescued)
	assert.Greater(t, found, 30)
	assert.Less(t, found, 64)
	_, err = said(t, "check", "--data", path, "--rescue", rescued)
	assert.ErrorContains(t, err, "is there already")
}

func TestFaultsInPlainWords(t *testing.T) {
	folder := t.TempDir()
	_, err := said(t, "serve", "--data", filepath.Join(folder, "missing", "own.db"))
	assert.EqualError(t, err, "the folder "+filepath.Join(folder, "missing")+" does not exist: make it, or name another file with --data")
	short := filepath.Join(folder, "short.db")
	require.NoError(t, os.WriteFile(short, []byte("short"), 0o600))
	_, err = said(t, "serve", "--data", short)
	assert.ErrorContains(t, err, "is damaged; there is no backup that is whole")
	emptied := filledFile(t)
	_, err = said(t, "backup", "--data", emptied)
	require.NoError(t, err)
	require.NoError(t, os.Truncate(emptied, 0))
	_, err = said(t, "serve", "--data", emptied)
	assert.ErrorContains(t, err, "is damaged; the newest backup that is whole")
	for cause, want := range map[store.FileCause]string{
		store.DiskFull: "is full: free some space", store.ReadOnly: "is read-only for you", store.Busy: "another program holds", store.Unreadable: "cannot be read or written",
	} {
		assert.ErrorContains(t, inPlainWords(&store.FileError{Cause: cause}, backupsOf("x.db", "")), want)
	}
	assert.ErrorContains(t, inPlainWords(store.ErrNewer, backupsOf("x.db", "")), "later version")
}

// A second program on one data file names the first one's address and touches nothing.
func TestASecondProgram(t *testing.T) {
	path := filledFile(t)
	lock, err := store.TakeLock(path)
	require.NoError(t, err)
	_, err = said(t, "serve", "--data", path, "--addr", "127.0.0.1:0")
	require.ErrorContains(t, err, "close it first")
	require.NoError(t, lock.ServesAt("http://127.0.0.1:8380"))
	out, err := said(t, "serve", "--data", path, "--addr", "127.0.0.1:0")
	require.NoError(t, err)
	assert.Equal(t, "Undaris is already running with this data, at http://127.0.0.1:8380\n", out)
	require.NoError(t, lock.Release())
}
