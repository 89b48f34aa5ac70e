package harmony

import (
	"fmt"
	"strings"

	"undaris/core/floor"
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

// minorTonics are the same for a minor key, whose signature is that of the major
// key a minor third above: G# and D# are met there, Db, Gb and Ab are not.
var minorTonics = []string{"C", "C#", "D", "D#", "Eb", "E", "F", "F#", "G", "G#", "A", "Bb", "B"}

// Modes lists the modes of a key.
var Modes = []Mode{DominantMode, MajorMode, MinorMode}

// Tonics lists the tonics a player may choose in the mode, upwards from C.
func (m Mode) Tonics() []string {
	if m == MinorMode {
		return minorTonics
	}
	return Tonics
}

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

// Plain respells the key so that its signature has the fewest signs: a guitarist
// with a capo thinks of plain shapes. Of two equal ones, F# and Gb, the sharp one
// is taken (our choice).
func (k Key) Plain() Key {
	best := k
	for letter := pitch.Letter(0); letter < 7; letter++ {
		for accidental := -1; accidental <= 1; accidental++ {
			other := Key{Tonic: pitch.Note{Letter: letter, Accidental: accidental}, Mode: k.Mode}
			fewer := size(other.Fifths()) - size(best.Fifths())
			if other.Tonic.Class() == k.Tonic.Class() && (fewer < 0 || fewer == 0 && other.Fifths() > best.Fifths()) {
				best = other
			}
		}
	}
	return best
}

func size(n int) int { return max(n, -n) }

// Fifths is the key's signature: how many sharps it has, or, negative, flats. A
// dominant key is written with the signature of its major key (common practice).
func (k Key) Fifths() int {
	// Around the circle of fifths the naturals lie F C G D A E B; each sharp
	// goes once around the seven letters.
	fifths := [7]int{0, 2, 4, -1, 1, 3, 5}[k.Tonic.Letter] + 7*k.Tonic.Accidental
	if k.Mode == MinorMode {
		fifths -= 3
	}
	return fifths
}

// TonicOf is the tonic that has a signature of so many sharps (or, negative,
// flats) in a mode.
func TonicOf(fifths int, mode Mode) pitch.Note {
	if mode == MinorMode {
		fifths += 3
	}
	around := fifths + 1 // counted from F
	letter := pitch.Letter([7]int{3, 0, 4, 1, 5, 2, 6}[floor.Mod(around, 7)])
	accidental := around / 7
	if around%7 < 0 {
		accidental--
	}
	return pitch.Note{Letter: letter, Accidental: accidental}
}

// ReadKey reads a key as players write it: "Ab major", "F# minor", "C dominant"
// or "C blues", "Am", "C". A bare tonic is major.
func ReadKey(text string) (Key, error) {
	tonic, rest, err := pitch.ReadNote(strings.TrimSpace(text))
	if err != nil {
		return Key{}, &KeyError{Text: text}
	}
	mode, ok := map[string]Mode{
		"": MajorMode, "major": MajorMode, "maj": MajorMode, "m": MinorMode, "minor": MinorMode, "min": MinorMode,
		"dominant": DominantMode, "blues": DominantMode, "7": DominantMode,
	}[strings.ToLower(strings.TrimSpace(rest))]
	if !ok {
		return Key{}, &KeyError{Text: text}
	}
	return ParseKey(tonic.String(), mode)
}

// TonicMode is the mode of a key whose home chord this is: its quality says whether it is
// a minor tune, a blues or a major one (our choice).
func (c Chord) TonicMode() Mode {
	_, seventh := c.Tone(pitch.ClassOf(int(c.Root.Class()) + 10))
	_, third := c.Tone(pitch.ClassOf(int(c.Root.Class()) + 4))
	switch {
	case c.Quality.Minor():
		return MinorMode
	case seventh && third:
		return DominantMode
	}
	return MajorMode
}

// TonicChord is the chord of the key's tonic as the key's music has it.
func (k Key) TonicChord() Chord {
	numeral := "I"
	if k.Mode == MinorMode {
		numeral = "i"
	}
	tonic, err := k.ParseRoman(numeral)
	if err != nil {
		panic(err)
	}
	return tonic
}

// Transposed is the key as far from another tonic as it is from one, in a spelling with at most one
// sign in its tonic.
func (k Key) Transposed(from, to pitch.Note) Key {
	k.Tonic = transposed(k.Tonic, from, to)
	if size(k.Tonic.Accidental) > 1 {
		return k.Plain()
	}
	return k
}
