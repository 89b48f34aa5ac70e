package midifile

import (
	"bytes"
	"context"
	"encoding/binary"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen"
)

// keysFile is a MIDI file of one track, at 96 ticks to a quarter note.
func keysFile(events ...[]byte) []byte {
	track := append(bytes.Join(events, nil), 0, 0xFF, 0x2F, 0)
	out := append([]byte("MThd"), 0, 0, 0, 6, 0, 0, 0, 1, 0, 96)
	out = append(out, "MTrk"...)
	out = binary.BigEndian.AppendUint32(out, uint32(len(track)))
	return append(out, track...)
}

var (
	slowest  = []byte{0, 0xFF, 0x51, 3, 0xFF, 0xFF, 0xFF}
	wheelUp  = []byte{0, 0xE0, 0, 0x50}
	pressed  = []byte{0, 0x90, 60, 90}
	released = []byte{0xFF, 0xFF, 0xFF, 0x7F, 0x80, 60, 0} // as late as can be written
)

// The 48 bytes that ended the program: the slowest tempo, a wheel, and a note that is let go 51 years later.
func TestANoteOfHalfACentury(t *testing.T) {
	keys, remarks, err := ReadKeys(t.Context(), keysFile(slowest, wheelUp, pressed, released))
	require.NoError(t, err)
	assert.Len(t, keys, 2, "what is after an hour is left out")
	require.Len(t, remarks, 1)
	assert.Contains(t, remarks[0], "a take lasts an hour")
	assert.Len(t, listen.NotesOfKeys(keys), 1)
}

// A file with as many tempos as events is read in a time that grows with it alone; who has gone is not waited for.
func TestAFileOfTempos(t *testing.T) {
	events := [][]byte{}
	for n := range 10_000 {
		events = append(events, []byte{1, 0xFF, 0x51, 3, 7, 0xA1, byte(n)}, []byte{0, 0x90, 60, byte(1 + n%100)})
	}
	data := keysFile(events...)
	keys, _, err := ReadKeys(t.Context(), data)
	require.NoError(t, err)
	assert.Len(t, keys, 10_000)
	assert.InDelta(t, 10_000.0/96*0.5, keys[len(keys)-1].Seconds, 1, "at about half a second a quarter note")
	gone, leave := context.WithCancel(t.Context())
	leave()
	_, _, err = ReadKeys(gone, data)
	assert.ErrorIs(t, err, context.Canceled)
}

func FuzzReadKeys(f *testing.F) {
	f.Add(keysFile(slowest, wheelUp, pressed, released))
	f.Add(keysFile(pressed, []byte{96, 0x80, 60, 0}))
	f.Add(keysFile([]byte{0, 0x99, 36, 90}))
	f.Add([]byte("MThd"))
	f.Fuzz(func(t *testing.T, data []byte) {
		keys, _, err := ReadKeys(context.Background(), data)
		if err != nil {
			return
		}
		assert.LessOrEqual(t, len(keys), listen.MaxKeyEvents)
		for _, e := range keys {
			assert.True(t, e.Seconds >= 0 && e.Seconds <= listen.MaxSeconds, e.Seconds)
		}
		frames := 0
		for _, n := range listen.NotesOfKeys(keys) {
			frames += len(n.Curve)
		}
		assert.LessOrEqual(t, frames, 6*3600*200+1)
	})
}
