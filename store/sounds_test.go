package store

import (
	"errors"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSoundsAreKeptByWhatTheyHold(t *testing.T) {
	folder := t.TempDir()
	sounds := SoundsBeside(filepath.Join(folder, "a.db"))
	_, err := sounds.Open(strings.Repeat("0", 64))
	assert.ErrorIs(t, err, ErrNoSound, "before there is any")
	_, err = sounds.Open("../a.db")
	assert.ErrorIs(t, err, ErrNoSound, "a name that is no hash leads nowhere")
	hash, size, err := sounds.Keep(strings.NewReader("a sound"))
	require.NoError(t, err)
	assert.Equal(t, int64(7), size)
	again, _, err := sounds.Keep(strings.NewReader("a sound"))
	require.NoError(t, err)
	assert.Equal(t, hash, again)
	file, err := sounds.Open(hash)
	require.NoError(t, err)
	data, err := io.ReadAll(file)
	require.NoError(t, err)
	require.NoError(t, file.Close())
	assert.Equal(t, "a sound", string(data))
	_, _, err = sounds.Keep(io.MultiReader(strings.NewReader("cut"), failing{}))
	assert.ErrorIs(t, err, errRead)
	entries, err := os.ReadDir(filepath.Join(folder, "a.db.sounds"))
	require.NoError(t, err)
	assert.Len(t, entries, 1, "what is not whole has no file")
	if info, err := entries[0].Info(); assert.NoError(t, err) {
		assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	}
}

var errRead = errors.New("cannot be read")

type failing struct{}

func (failing) Read([]byte) (int, error) { return 0, errRead }

func TestSoundsThatNothingRefersToAreCleared(t *testing.T) {
	sounds := SoundsBeside(filepath.Join(t.TempDir(), "a.db"))
	freed, err := sounds.Clear(time.Hour, time.Now(), func() (map[string]bool, error) { return map[string]bool{}, nil })
	require.NoError(t, err)
	assert.Zero(t, freed)
	wanted, _, err := sounds.Keep(strings.NewReader("wanted"))
	require.NoError(t, err)
	other, _, err := sounds.Keep(strings.NewReader("not wanted"))
	require.NoError(t, err)
	path, err := sounds.PartPath("20260301-200000-001.part")
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(path, []byte("being recorded"), 0o600))
	in := func() (map[string]bool, error) { return map[string]bool{wanted: true}, nil }
	freed, err = sounds.Clear(time.Hour, time.Now(), in)
	require.NoError(t, err)
	assert.Zero(t, freed, "one that was written just now may be of a take that is being kept")
	freed, err = sounds.Clear(time.Hour, time.Now().Add(2*time.Hour), in)
	require.NoError(t, err)
	assert.Equal(t, int64(len("not wanted")), freed)
	_, err = sounds.Open(other)
	assert.ErrorIs(t, err, ErrNoSound)
	file, err := sounds.Open(wanted)
	require.NoError(t, err)
	require.NoError(t, file.Close())
	parts, err := sounds.Parts()
	require.NoError(t, err)
	assert.Equal(t, []string{"20260301-200000-001.part"}, parts, "parts are left alone")
	require.NoError(t, sounds.RemovePart("20260301-200000-001.part"))
	require.NoError(t, sounds.RemovePart("20260301-200000-001.part"), "what is not there is no error")
	_, err = sounds.PartPath("../out.part")
	assert.Error(t, err)
}
