package neck

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"undaris/core/pitch"
)

// TuningError says which word of a tuning cannot be read.
type TuningError struct {
	Word string
	// At is the column of the word, from 1.
	At int
}

func (e *TuningError) Error() string {
	if e.Word == "" {
		return fmt.Sprintf("a tuning is the notes of its %d to %d strings from the lowest up, as in E A D G B E or D2 A2 D3 G3 A3 D4", MinStrings, MaxStrings)
	}
	return fmt.Sprintf("column %d: %q is not the note of a string; write a letter A to G with b or # and, if you like, its octave, as in E, F# or D3", e.At, e.Word)
}

// ReadTuning reads a tuning as players say it, from the lowest string up: "D A D
// G A D". Octaves may be given (C4 is middle C). Where the first string's is
// not, it is the one nearest the low E of a guitar; every next string without
// one is the nearest note above the string before (our choice: so all usual
// tunings come out as they are). The pitches returned start with string 1. It
// checks no range: Instrument.Check does.
func ReadTuning(text string) ([]pitch.MIDI, error) {
	var open []pitch.MIDI
	at := 1
	for _, part := range strings.SplitAfter(text, " ") {
		word := strings.TrimSpace(part)
		column := at
		at += len([]rune(part))
		if word == "" {
			continue
		}
		note, rest, err := pitch.ReadNote(word)
		if err != nil {
			return nil, &TuningError{Word: word, At: column}
		}
		p, err := octave4(note, rest)
		switch {
		case err != nil:
			return nil, &TuningError{Word: word, At: column}
		case rest != "":
		case len(open) == 0:
			p = nearestTo(note.Class(), Standard().Open[5])
		default:
			before := open[len(open)-1]
			if p = before + pitch.MIDI(note.Class().Above(before.Class())); p == before {
				p += 12
			}
		}
		open = append(open, p)
		if len(open) > 2*MaxStrings {
			break // more than Check needs to refuse it
		}
	}
	if len(open) == 0 {
		return nil, &TuningError{}
	}
	slices.Reverse(open)
	return open, nil
}

// octave4 is the note in the octave that the text names.
func octave4(note pitch.Note, text string) (pitch.MIDI, error) {
	if text == "" {
		return 0, nil
	}
	number, err := strconv.Atoi(text)
	if err != nil || number < -1 || number > 9 {
		return 0, &TuningError{}
	}
	// The octave is the letter's: Cb4 is a half step below C4, and B#3 is C4.
	natural := pitch.Note{Letter: note.Letter}
	return pitch.MIDI(12*(number+1) + int(natural.Class()) + note.Accidental), nil
}

func nearestTo(class pitch.Class, p pitch.MIDI) pitch.MIDI {
	up := class.Above(p.Class())
	if up > 6 {
		up -= 12
	}
	return p + pitch.MIDI(up)
}

// The names of open strings, with sharps and with flats.
var (
	sharpNames = [12]string{"C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"}
	flatNames  = [12]string{"C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"}
)

// OpenNames are the open strings as tunings are written, string 1 first: with
// flats where there is an Eb or Bb among them, else with sharps (common practice:
// half a step down is Eb Ab Db Gb Bb Eb, open E has a G#).
func (i Instrument) OpenNames() []string {
	spelled := sharpNames
	for _, open := range i.Open {
		if c := open.Class(); c == 3 || c == 10 {
			spelled = flatNames
		}
	}
	names := make([]string, len(i.Open))
	for n, open := range i.Open {
		names[n] = spelled[open.Class()]
	}
	return names
}

// octaveOf is the number of a pitch's octave: middle C, MIDI 60, is C4.
func octaveOf(p pitch.MIDI) string { return strconv.Itoa(int(p)/12 - 1) }

// Tuning writes the open strings as ReadTuning reads them, from the lowest up.
func (i Instrument) Tuning() string {
	names := i.OpenNames()
	slices.Reverse(names)
	for n := range names {
		names[n] += octaveOf(i.Open[len(names)-1-n])
	}
	return strings.Join(names, " ")
}
