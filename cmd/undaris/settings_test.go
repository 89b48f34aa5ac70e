package main

import (
	"bytes"
	"io"
	"log/slog"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/library/documents"
	"undaris/store"
)

func TestSettings(t *testing.T) {
	home := t.TempDir()
	t.Setenv("XDG_DATA_HOME", home)
	t.Setenv(passphraseVariable, "")
	own, err := readSettings("serve", nil, io.Discard)
	require.NoError(t, err)
	assert.Equal(t, filepath.Join(home, "undaris", "undaris.db"), own.data)
	assert.True(t, own.loopback)
	demo, err := readSettings("demo", nil, io.Discard)
	require.NoError(t, err)
	assert.Equal(t, filepath.Join(home, "undaris", "demo.db"), demo.data, "the demo never touches the user's file")
	given, err := readSettings("demo", []string{"--data", "x.db", "--addr", "[::1]:9"}, io.Discard)
	require.NoError(t, err)
	assert.Equal(t, "x.db", given.data)
	assert.True(t, given.loopback)
	assert.False(t, given.open)
	alone, err := readSettings("", []string{"--backups", "elsewhere"}, io.Discard)
	require.NoError(t, err)
	assert.True(t, alone.open, "undaris alone opens the browser")
	assert.Equal(t, "elsewhere", alone.backups)
	quiet, err := readSettings("", []string{"--no-open"}, io.Discard)
	require.NoError(t, err)
	assert.False(t, quiet.open)

	for _, addr := range []string{"0.0.0.0:1", ":1", "192.168.0.2:1", "[::]:1"} {
		_, err = readSettings("serve", []string{"--addr", addr}, io.Discard)
		assert.ErrorContains(t, err, "add --tls", addr)
		for _, how := range [][]string{{"--tls"}, {"--insecure"}, {"--tls-cert", "a", "--tls-key", "b"}} {
			open, err := readSettings("serve", append([]string{"--addr", addr}, how...), io.Discard)
			require.NoError(t, err)
			assert.False(t, open.loopback)
		}
	}
	for _, how := range [][]string{{"--tls", "--insecure"}, {"--tls-cert", "a"}, {"--tls", "--tls-cert", "a", "--tls-key", "b"}} {
		_, err = readSettings("serve", how, io.Discard)
		assert.Error(t, err, how)
	}
	for _, args := range [][]string{{"--addr", "here"}, {"--nonsense"}, {"word"}} {
		_, err := readSettings("serve", args, io.Discard)
		assert.Error(t, err, args)
	}
}

func TestCommands(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, run([]string{"version"}, &out, io.Discard))
	assert.Equal(t, "undaris "+version+"\n", out.String())
	out.Reset()
	require.NoError(t, run([]string{"help"}, &out, io.Discard))
	assert.Contains(t, out.String(), "undaris demo")
	require.NoError(t, run([]string{"serve", "--help"}, &out, io.Discard))
	assert.EqualError(t, run([]string{"dance"}, &out, io.Discard), `"dance" is not a command; there are serve, demo, backup, restore, check, export, import and version`)
}

// A new file is filled once; a library that was emptied stays empty.
func TestFilling(t *testing.T) {
	for withTunes, tunes := range map[bool]int{false: 0, true: 6} {
		path := filepath.Join(t.TempDir(), "new.db")
		sounds := store.SoundsBeside(path)
		data, err := store.Open(path)
		require.NoError(t, err)
		kept := documents.New(data, slog.New(slog.DiscardHandler))
		require.NoError(t, fill(t.Context(), kept, sounds, withTunes))
		require.NoError(t, fill(t.Context(), kept, sounds, withTunes))
		licks, err := data.List(t.Context(), store.Lick, 0)
		require.NoError(t, err)
		assert.Len(t, licks, 64)
		charts, err := data.List(t.Context(), store.Chart, 0)
		require.NoError(t, err)
		assert.Len(t, charts, tunes)
		for _, lick := range licks {
			require.NoError(t, data.Delete(t.Context(), store.Lick, lick.ID, 1))
		}
		require.NoError(t, fill(t.Context(), kept, sounds, withTunes))
		licks, err = data.List(t.Context(), store.Lick, 0)
		require.NoError(t, err)
		assert.Empty(t, licks)
		require.NoError(t, data.Close())
	}
}
