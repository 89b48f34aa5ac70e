package harmony

import (
	"undaris/core/pitch"
)

// Chord is a root, a quality, and a bass where it is not the root.
type Chord struct {
	Root    pitch.Note
	Quality *Quality
	Bass    *pitch.Note
	// context is where it stands in a tune; nil where it is looked at alone. See In.
	context *Context
}

// Tone is a note of a chord with its degree.
type Tone struct {
	Degree pitch.Degree
	Note   pitch.Note
}

// Symbol is the one canonical way the chord is written.
func (c Chord) Symbol() string {
	symbol := c.Root.String() + c.Quality.Sign
	if c.Bass != nil {
		symbol += "/" + c.Bass.String()
	}
	return symbol
}

// SignedSymbol is the symbol with the signs ♭ and ♯, for what is read but not read back,
// such as a name.
func (c Chord) SignedSymbol() string { return pitch.Signed(c.Symbol()) }

// Same says whether both chords are the same symbol, wherever they stand in a tune.
func (c Chord) Same(other Chord) bool {
	if c.Root != other.Root || c.Quality != other.Quality && c.Quality.Sign != other.Quality.Sign || (c.Bass == nil) != (other.Bass == nil) {
		return false
	}
	return c.Bass == nil || *c.Bass == *other.Bass
}

// Tones spells the chord from the root up: tones take successive letters by
// degree, so B7 is B D# F# A and Cdim7 is C Eb Gb Bbb (common theory). A slash
// bass is not among them: it is the band's note.
func (c Chord) Tones() []Tone {
	tones := make([]Tone, len(c.Quality.degrees))
	for i, d := range c.Quality.degrees {
		tones[i] = Tone{Degree: d, Note: d.Over(c.Root)}
	}
	return tones
}

// Tone finds the chord tone that sounds as class.
func (c Chord) Tone(class pitch.Class) (Tone, bool) {
	above := class.Above(c.Root.Class())
	for _, d := range c.Quality.degrees {
		if d.Semitones() == above {
			return Tone{Degree: d, Note: d.Over(c.Root)}, true
		}
	}
	return Tone{}, false
}

// Transposed moves the chord from one tonic to another: each root keeps its
// letter distance from the tonic, so the key decides the spelling (I IV V of Db
// are Db Gb Ab, of C# they are C# F# G#). It leaves its context behind.
func (c Chord) Transposed(from, to pitch.Note) Chord {
	moved := c
	moved.context = nil
	moved.Root = transposed(c.Root, from, to)
	if c.Bass != nil {
		bass := transposed(*c.Bass, from, to)
		moved.Bass = &bass
	}
	return moved
}

func transposed(n, from, to pitch.Note) pitch.Note {
	letters := (int(n.Letter) - int(from.Letter) + 7) % 7
	moved := to.Up(letters, n.Class().Above(from.Class()))
	// A note spelled far from its key could take three signs in another; nobody
	// reads those, so the next letter takes over.
	for moved.Accidental > 2 || moved.Accidental < -2 {
		step := 1
		if moved.Accidental < 0 {
			step = 6
		}
		next := pitch.Note{Letter: pitch.Letter((int(moved.Letter) + step) % 7)}
		moved = next.Up(0, moved.Class().Above(next.Class()))
	}
	return moved
}
