package reading

import (
	"fmt"
	"strconv"
	"strings"
)

// Voice is the notes of one channel of one track of a MIDI file, and what it seems to play.
type Voice struct {
	// Track and Channel count from 1.
	Track, Channel int
	Name           string
	// Notes is how many there are, Low and High their lowest and highest MIDI pitch.
	Notes, Low, High int
	Plays            VoiceKind
	// Used says that it is read.
	Used bool
}

// VoiceKind is what a voice seems to play.
type VoiceKind string

// The kinds of voice.
const (
	PlaysChords VoiceKind = "chords"
	PlaysLine   VoiceKind = "single notes"
	PlaysDrums  VoiceKind = "drums"
)

// VoiceKinds lists them.
var VoiceKinds = []VoiceKind{PlaysChords, PlaysLine, PlaysDrums}

// VoiceID names a voice by its track and channel, both from 1.
type VoiceID struct{ Track, Channel int }

// String writes the ID as ParseVoices reads it: "2.1".
func (v VoiceID) String() string { return fmt.Sprintf("%d.%d", v.Track, v.Channel) }

// ID is the voice's own.
func (v Voice) ID() VoiceID { return VoiceID{v.Track, v.Channel} }

// ParseVoices reads voices as a player chose them, "2.1,3.2": track and channel. An empty text leaves
// the choice to the reader.
func ParseVoices(text string) ([]VoiceID, error) {
	all := []VoiceID(nil)
	for _, one := range strings.FieldsFunc(text, func(c rune) bool { return c == ',' || c == ' ' }) {
		track, channel, _ := strings.Cut(one, ".")
		t, errT := strconv.Atoi(track)
		c, errC := strconv.Atoi(channel)
		if errT != nil || errC != nil || t < 1 || c < 1 || c > 16 {
			return nil, fmt.Errorf("%q is no voice; one is a track and a channel from 1 to 16, as in 2.1", one)
		}
		all = append(all, VoiceID{t, c})
	}
	return all, nil
}
