package recording

import (
	"bytes"
	"encoding/binary"
	"io"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
	"undaris/format/soundfile"
	"undaris/store"
)

// keptSound keeps a second of one value after another.
func keptSound(t *testing.T, sounds *store.Sounds, rate int, seconds ...int16) document.TakeSound {
	data := []byte{}
	for _, value := range seconds {
		for range rate {
			data = binary.LittleEndian.AppendUint16(data, uint16(value))
		}
	}
	hash, size, err := sounds.Keep(io.MultiReader(bytes.NewReader(soundfile.WAVHeader(rate, int64(len(data)))), bytes.NewReader(data)))
	require.NoError(t, err)
	return document.TakeSound{Hash: hash, Bytes: size, Rate: rate, Seconds: float64(len(seconds)), Clipped: 1}
}

func TestASoundIsSpliced(t *testing.T) {
	const rate = 8000
	sounds := store.SoundsBeside(filepath.Join(t.TempDir(), "a.db"))
	before := keptSound(t, sounds, rate, 1000, 2000, 3000)
	again := keptSound(t, sounds, rate, -5000, -6000)
	for name, c := range map[string]struct {
		splice document.Splice
		// values are what sounds in the middle of each half second.
		values []int16
	}{
		"in the middle":         {document.Splice{At: 1, Until: 2, From: 0}, []int16{1000, 1000, -5000, -5000, 3000, 3000}},
		"from the beginning":    {document.Splice{At: 0, Until: 1, From: 1}, []int16{-6000, -6000, 2000, 2000, 3000, 3000}},
		"past the end":          {document.Splice{At: 2.5, Until: 4.5, From: 0}, []int16{1000, 1000, 2000, 2000, 3000, -5000, -5000, -6000, -6000}},
		"with less than needed": {document.Splice{At: 0.5, Until: 2, From: 1}, []int16{1000, -6000, -6000, 0, 3000, 3000}},
	} {
		got, err := SpliceSound(sounds, before, again, c.splice)
		require.NoError(t, err, name)
		assert.InDelta(t, float64(len(c.values))/2, got.Seconds, 1e-9, name)
		assert.Equal(t, 2, got.Clipped, name)
		file, err := sounds.Open(got.Hash)
		require.NoError(t, err, name)
		data, err := io.ReadAll(file)
		require.NoError(t, err, name)
		require.NoError(t, file.Close())
		assert.Len(t, data, int(got.Bytes), name)
		stream, err := soundfile.Open(bytes.NewReader(data))
		require.NoError(t, err, name)
		assert.Equal(t, rate, stream.Rate)
		for n, want := range c.values {
			at := soundHeader + 2*(n*rate/2+rate/4)
			assert.Equal(t, want, int16(binary.LittleEndian.Uint16(data[at:])), "%s: half second %d", name, n)
		}
	}
	_, err := SpliceSound(sounds, before, document.TakeSound{Hash: before.Hash[:10]}, document.Splice{Until: 1})
	assert.ErrorIs(t, err, store.ErrNoSound)
}
