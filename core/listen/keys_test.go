package listen

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestKeysBecomeNotes(t *testing.T) {
	events := []KeyEvent{
		{Seconds: 0.5, Key: 60, Velocity: 127}, {Seconds: 0.9, Key: 60},
		{Seconds: 1, Channel: 1, Key: 64, Velocity: 64}, {Seconds: 1.005, Channel: 2, Key: 67, Velocity: 64},
		{Seconds: 1.8, Channel: 1, Key: 64}, {Seconds: 2, Channel: 2, Key: 67},
		{Seconds: 3, Key: 62, Velocity: 100},
	}
	for k := range 20 { // bent by a whole step within 200 ms
		events = append(events, KeyEvent{Seconds: 3.05 + 0.01*float64(k), Wheel: true, Cents: 200 * float64(k+1) / 20})
	}
	events = append(events, KeyEvent{Seconds: 4, Key: 62})
	notes := NotesOfKeys(events)
	require.Len(t, notes, 4)
	assert.Equal(t, []float64{60, 64, 67, 62}, []float64{notes[0].Pitch, notes[1].Pitch, notes[2].Pitch, notes[3].Pitch})
	assert.InDelta(t, 0.4, notes[0].Length, 1e-9)
	assert.Equal(t, []bool{false, false, true, false}, []bool{notes[0].Together, notes[1].Together, notes[2].Together, notes[3].Together})
	assert.InDelta(t, 0, notes[0].Loudness, 0.01)
	if assert.NotNil(t, notes[3].Bend) {
		assert.InDelta(t, 200, notes[3].Bend.Cents, 2)
	}
	assert.Nil(t, notes[0].Bend)
	// Two keys count as pressed at once within twelve thousandths.
	apart := func(seconds float64) bool {
		return NotesOfKeys([]KeyEvent{{Seconds: 1, Key: 60, Velocity: 90}, {Seconds: 1 + seconds, Key: 64, Velocity: 90}})[1].Together
	}
	assert.Equal(t, []bool{true, false, false}, []bool{apart(0.0115), apart(0.0125), apart(0.1)})
	assert.Empty(t, NotesOfKeys(nil))
	held := NotesOfKeys([]KeyEvent{{Seconds: 1, Key: 60, Velocity: 90}})
	assert.Len(t, held, 1, "a key that is never let go ends with the take")
}
