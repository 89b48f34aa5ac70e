package harmony

import (
	"fmt"
	"strings"

	"undaris/core/pitch"
)

// Mode is what kind of home a key has.
type Mode string

// The modes of a key. A dominant key is that of a blues whose home chord is a
// seventh chord.
const (
	DominantMode Mode = "dominant"
	MajorMode    Mode = "major"
	MinorMode    Mode = "minor"
)

// Key is a tonic and its mode.
type Key struct {
	Tonic pitch.Note
	Mode  Mode
}

// Tonics are the tonics a player may choose, upwards from C. All twelve pitch
// classes are here in the spelling players meet most, and the two whose twins
// are written as often (C# and Db, F# and Gb) in both.
var Tonics = []string{"C", "C#", "Db", "D", "Eb", "E", "F", "F#", "Gb", "G", "Ab", "A", "Bb", "B"}

// KeyError says which tonic or mode is not one of a key.
type KeyError struct{ Text string }

func (e *KeyError) Error() string {
	return fmt.Sprintf("%q is not a key: a tonic from C to B with at most one b or #, and a mode dominant, major or minor", e.Text)
}

// ParseKey reads a key from its tonic and mode. Any tonic with at most one
// accidental is allowed; with two, chords of the key would need three.
func ParseKey(tonic string, mode Mode) (Key, error) {
	note, err := pitch.ParseNote(tonic)
	if err != nil || note.Accidental > 1 || note.Accidental < -1 {
		return Key{}, &KeyError{Text: tonic}
	}
	switch mode {
	case DominantMode, MajorMode, MinorMode:
		return Key{Tonic: note, Mode: mode}, nil
	}
	return Key{}, &KeyError{Text: string(mode)}
}

// has says whether the key's own scale holds the class, and whether the key
// has a scale to ask: a dominant key mixes major and minor, so it has not.
func (k Key) has(class pitch.Class) (holds, known bool) {
	scale := ""
	switch k.Mode {
	case MajorMode:
		scale = "101011010101"
	case MinorMode:
		scale = "101101011010"
	default:
		return false, false
	}
	return scale[class.Above(k.Tonic.Class())] == '1', true
}

// Roman is the chord's numeral in the key, counted on the major scale of the
// tonic whatever the mode (so the minor key's sixth is bVI); lower case where
// the third is minor, with ° for diminished, ø for half diminished, + for
// augmented. The quality's own sign is left to the symbol beside it.
func (k Key) Roman(c Chord) string {
	numerals := [7]string{"I", "II", "III", "IV", "V", "VI", "VII"}
	letters := (int(c.Root.Letter) - int(k.Tonic.Letter) + 7) % 7
	numeral := numerals[letters]
	if c.Quality.Minor() {
		numeral = strings.ToLower(numeral)
	}
	switch {
	case c.Quality.Sign == "m7b5":
		numeral += "ø"
	case c.Quality.family == halfDiminished || c.Quality.family == diminished:
		numeral += "°"
	case c.Quality.family == augmented:
		numeral += "+"
	}
	inKey := k.Tonic.Up(letters, pitch.Degree{Number: letters + 1}.Semitones())
	shift := c.Root.Class().Above(inKey.Class())
	if shift > 6 {
		return strings.Repeat("b", 12-shift) + numeral
	}
	return strings.Repeat("#", shift) + numeral
}
