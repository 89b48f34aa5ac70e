package change

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// widestRow is how many semitones a row of the function table is bent at most.
const widestRow = 3

// Function is what one fretted note is over a chord, as it lies and bent.
type Function struct {
	// Bent is what it is bent 0, 1, 2 and 3 semitones up, as far as the string
	// bends there.
	Bent []harmony.Judgement
	// Bend is the least bend, in semitones, that makes it a chord tone; where none does,
	// the least that makes it colour; else 0. IsChordTone says which of these it is.
	Bend        int
	IsChordTone bool
	// Vibrato says that it is a chord tone as it lies: shake it.
	Vibrato bool
	Text    string
}

// FunctionRow is one fretted note over every chord of a tune.
type FunctionRow struct {
	neck.Place
	Pitch pitch.MIDI
	// Functions are over the chords, in their order.
	Functions []Function
}

// NotesError says why a set of notes is no function table.
type NotesError struct{ Detail string }

func (e *NotesError) Error() string { return e.Detail }

// A function table is of few notes, that a hand can keep in mind.
const (
	MinFunctionNotes = 1
	MaxFunctionNotes = 6
)

// FunctionTable sets fretted notes against the chords of a tune: each as it lies
// and bent up by one, two and three half steps, and the least change that makes
// it a tone of each chord. That is how a few fretted notes follow every
// chord (common practice). Its error is a *NotesError.
func FunctionTable(k harmony.Key, i neck.Instrument, places []neck.Place, chords []harmony.Chord) ([]FunctionRow, error) {
	if len(places) < MinFunctionNotes || len(places) > MaxFunctionNotes {
		return nil, &NotesError{fmt.Sprintf("%d notes: a table is of %d to %d; three or four are best", len(places), MinFunctionNotes, MaxFunctionNotes)}
	}
	rows := make([]FunctionRow, 0, len(places))
	seen := map[neck.Place]bool{}
	for _, at := range places {
		switch {
		case !i.Has(at):
			return nil, &NotesError{fmt.Sprintf("string %d fret %d is not on the neck", at.String, at.Fret)}
		case seen[at]:
			return nil, &NotesError{fmt.Sprintf("string %d fret %d is there twice", at.String, at.Fret)}
		}
		seen[at] = true
		row := FunctionRow{Place: at, Pitch: i.Pitch(at)}
		for _, c := range chords {
			row.Functions = append(row.Functions, functionOf(k, c, at, row.Pitch))
		}
		rows = append(rows, row)
	}
	return rows, nil
}

func functionOf(k harmony.Key, c harmony.Chord, at neck.Place, p pitch.MIDI) Function {
	f := Function{}
	for bend := 0; bend <= min(widestRow, neck.MostBend(at)/2); bend++ {
		f.Bent = append(f.Bent, k.Judge(c, (p+pitch.MIDI(bend)).Class()))
	}
	colour := -1
	for bend := len(f.Bent) - 1; bend >= 0; bend-- {
		switch f.Bent[bend].Class {
		case harmony.ChordTone:
			f.Bend, f.IsChordTone = bend, true
		case harmony.Colour:
			colour = bend
		}
	}
	if !f.IsChordTone && colour >= 0 {
		f.Bend = colour
	}
	reached := f.Bent[f.Bend]
	f.Vibrato = f.IsChordTone && f.Bend == 0
	name := fmt.Sprintf("%s, the %s of %s", reached.Note, reached.Degree, c.Symbol())
	switch {
	case f.Vibrato:
		f.Text = fmt.Sprintf("no bend, and vibrato: it is %s", name)
	case f.IsChordTone:
		f.Text = fmt.Sprintf("bend it %s to %s", interval(f.Bend), name)
	case f.Bend > 0:
		f.Text = fmt.Sprintf("no bend makes it a chord tone; %s makes it %s, a colour", interval(f.Bend), name)
	case colour == 0:
		f.Text = fmt.Sprintf("no bend makes it a chord tone; as it lies it is %s, a colour", name)
	default:
		f.Text = fmt.Sprintf("no bend makes it a chord tone: pass through %s", name)
	}
	return f
}

// SmallBox is the few notes that a function table begins with: the highest root
// of the tonic in the position that has two notes of the box above it there, with
// those two and the one below, from the lowest up (ours: the small box near a root
// that players keep their hand in). Where no root has two notes above it, they
// are the highest four of the box.
func SmallBox(i neck.Instrument, w neck.Window, box harmony.Box) []neck.Placed {
	tones := neck.PlaceTones(i, w, box.Tones).Tones
	for n := len(tones) - 3; n >= 0; n-- {
		if tones[n].Degree.Number == 1 {
			return tones[max(n-1, 0) : n+3]
		}
	}
	return tones[max(len(tones)-4, 0):]
}
