package pitch

import (
	"fmt"
	"strings"

	"undaris/core/floor"
)

// Class is a pitch class, 0..11, with C = 0 and B = 11.
type Class int

// ClassOf folds any number of semitones above C into 0..11.
func ClassOf(semitones int) Class {
	return Class(floor.Mod(semitones, 12))
}

// Above returns the semitones, 0..11, that c lies above other.
func (c Class) Above(other Class) int {
	return int(ClassOf(int(c) - int(other)))
}

// Letter is one of the seven note letters, C = 0 up to B = 6.
type Letter int

const letterNames = "CDEFGAB"

// letterSemitones is the major scale from C: where each letter stands unaltered.
var letterSemitones = [7]int{0, 2, 4, 5, 7, 9, 11}

// Note is a spelled note without octave: a letter and an accidental in
// semitones, -1 for each b and +1 for each #.
type Note struct {
	Letter     Letter
	Accidental int
}

// Class is the pitch class that the spelling sounds.
func (n Note) Class() Class {
	return ClassOf(letterSemitones[n.Letter] + n.Accidental)
}

// String writes the note as files hold it: letter, then b or # signs ("Bbb", "F#").
func (n Note) String() string {
	sign := "#"
	count := n.Accidental
	if count < 0 {
		sign, count = "b", -count
	}
	return letterNames[n.Letter:n.Letter+1] + strings.Repeat(sign, count)
}

// Up spells the note that lies the given letters and semitones above n. Tones
// of a chord take successive letters by degree (common theory), so the letter
// is chosen first and the accidental is what makes the semitones true.
func (n Note) Up(letters, semitones int) Note {
	letter := Letter((int(n.Letter) + letters) % 7)
	plain := Note{Letter: letter}
	accidental := ClassOf(int(n.Class()) + semitones).Above(plain.Class())
	if accidental > 6 {
		accidental -= 12
	}
	return Note{Letter: letter, Accidental: accidental}
}

// NoteError says which text could not be read as a note.
type NoteError struct{ Text string }

func (e *NoteError) Error() string {
	return fmt.Sprintf("%q is not a note: a letter A to G, then up to two b or # signs, as in Bb or F#", e.Text)
}

// ReadNote reads a note at the start of text and returns what follows it. It
// takes b and # and also ♭ and ♯; at most two signs of one kind. The letter is
// a capital: lower-case letters are chord signs ("b", "m", "dim").
func ReadNote(text string) (Note, string, error) {
	if text == "" || !strings.ContainsRune(letterNames, rune(text[0])) {
		return Note{}, text, &NoteError{Text: text}
	}
	note := Note{Letter: Letter(strings.IndexByte(letterNames, text[0]))}
	rest := text[1:]
	for {
		step, size := accidentalAt(rest)
		if step == 0 || step*note.Accidental < 0 || note.Accidental == 2 || note.Accidental == -2 {
			return note, rest, nil
		}
		note.Accidental += step
		rest = rest[size:]
	}
}

var signs = strings.NewReplacer("b", "♭", "#", "♯")

// Signed is a note, degree or chord symbol with the signs ♭ and ♯ in place of b and #. It
// is not meant for sentences, whose words have letters b.
func Signed(symbol string) string { return signs.Replace(symbol) }

func accidentalAt(text string) (step, size int) {
	switch {
	case strings.HasPrefix(text, "b"):
		return -1, 1
	case strings.HasPrefix(text, "♭"):
		return -1, len("♭")
	case strings.HasPrefix(text, "#"):
		return 1, 1
	case strings.HasPrefix(text, "♯"):
		return 1, len("♯")
	}
	return 0, 0
}

// ParseNote reads a text that is one note and nothing else.
func ParseNote(text string) (Note, error) {
	note, rest, err := ReadNote(text)
	if err != nil || rest != "" {
		return Note{}, &NoteError{Text: text}
	}
	return note, nil
}
