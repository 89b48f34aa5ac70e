package neck

import (
	"fmt"
	"math"

	"undaris/core/pitch"
)

// Instrument is a stringed neck.
type Instrument struct {
	Name string
	// Open is the sounding pitch of each open string, string 1 first. String 1
	// is the highest sounding on most instruments.
	Open []pitch.MIDI
	// Frets is how many frets there are.
	Frets int
	// ScaleMM is the scale length in millimetres.
	ScaleMM float64
}

// Standard is a guitar in standard tuning with 22 frets and a 648 mm scale.
func Standard() Instrument {
	return Instrument{Name: "standard", Open: []pitch.MIDI{64, 59, 55, 50, 45, 40}, Frets: 22, ScaleMM: 648}
}

// presets are the tunings that are offered, from the lowest string up (common).
var presets = []struct{ name, tuning string }{
	{"standard", "E2 A2 D3 G3 B3 E4"}, {"half step down", "Eb2 Ab2 Db3 Gb3 Bb3 Eb4"}, {"drop D", "D2 A2 D3 G3 B3 E4"},
	{"open G", "D2 G2 D3 G3 B3 D4"}, {"open D", "D2 A2 D3 F#3 A3 D4"}, {"open E", "E2 B2 E3 G#3 B3 E4"}, {"DADGAD", "D2 A2 D3 G3 A3 D4"},
}

// Presets lists the instruments that are offered, the default first.
func Presets() []Instrument {
	all := make([]Instrument, len(presets))
	for n, p := range presets {
		open, err := ReadTuning(p.tuning)
		if err != nil {
			panic(err)
		}
		all[n] = Standard()
		all[n].Name, all[n].Open = p.name, open
	}
	return all
}

// What an instrument may have. Pitches are MIDI note numbers.
const (
	MinStrings, MaxStrings = 4, 8
	MinFrets, MaxFrets     = 12, 27
	MinOpen, MaxOpen       = pitch.MIDI(20), pitch.MIDI(90)
	MinScale, MaxScale     = 300.0, 900.0
	maxInstrumentName      = 40
	// leastAboveCapo is how many frets a capo must leave to play on.
	leastAboveCapo = 8
)

// InstrumentError says what no instrument has, and the nearest that works.
type InstrumentError struct {
	// Field is the part at fault: name, tuning, frets or scaleMm.
	Field   string
	Detail  string
	Nearest Instrument
}

func (e *InstrumentError) Error() string { return e.Detail }

// Check returns an *InstrumentError for the first thing that no instrument has.
func (i Instrument) Check() error {
	fail := func(field, format string, args ...any) error {
		return &InstrumentError{Field: field, Detail: fmt.Sprintf(format, args...), Nearest: i.nearest()}
	}
	if n := len([]rune(i.Name)); n < 1 || n > maxInstrumentName {
		return fail("name", "an instrument's name has 1 to %d characters", maxInstrumentName)
	}
	if n := len(i.Open); n < MinStrings || n > MaxStrings {
		return fail("tuning", "%d strings are on no instrument here: %d to %d", n, MinStrings, MaxStrings)
	}
	for n, open := range i.Open {
		if open < MinOpen || open > MaxOpen {
			return fail("tuning", "string %d at %s (MIDI %d) is out of range: %s to %s", n+1, sharpNames[open.Class()]+octaveOf(open), int(open), flatNames[MinOpen.Class()]+octaveOf(MinOpen), sharpNames[MaxOpen.Class()]+octaveOf(MaxOpen))
		}
	}
	if i.Frets < MinFrets || i.Frets > MaxFrets {
		return fail("frets", "%d frets are on no instrument here: %d to %d", i.Frets, MinFrets, MaxFrets)
	}
	if !(i.ScaleMM >= MinScale && i.ScaleMM <= MaxScale) { // also what is not a number
		return fail("scaleMm", "a scale of %.0f mm is on no instrument here: %.0f to %.0f mm", i.ScaleMM, MinScale, MaxScale)
	}
	return nil
}

// nearest is the instrument with what is out of range brought to the nearest
// that is in it; missing strings are added below, a fourth apart.
func (i Instrument) nearest() Instrument {
	name := []rune(i.Name)
	if len(name) == 0 {
		name = []rune("my tuning")
	}
	near := Instrument{Name: string(name[:min(len(name), maxInstrumentName)]), Frets: min(max(i.Frets, MinFrets), MaxFrets), ScaleMM: Standard().ScaleMM}
	if !math.IsNaN(i.ScaleMM) {
		near.ScaleMM = min(max(i.ScaleMM, MinScale), MaxScale)
	}
	for _, open := range i.Open[:min(len(i.Open), MaxStrings)] {
		near.Open = append(near.Open, min(max(open, MinOpen), MaxOpen))
	}
	if len(near.Open) == 0 {
		near.Open = Standard().Open
	}
	for len(near.Open) < MinStrings {
		near.Open = append(near.Open, max(near.Open[len(near.Open)-1]-5, MinOpen))
	}
	return near
}

// WithCapo is the neck above a capo: frets count from it, and it is shorter
// (common). A capo on fret 0 is none. Its error is an *InstrumentError where the
// capo leaves too little to play on.
func (i Instrument) WithCapo(capo int) (Instrument, error) {
	if capo == 0 {
		return i, nil
	}
	if i.Frets-capo < leastAboveCapo {
		return Instrument{}, &InstrumentError{
			Field:   "frets",
			Detail:  fmt.Sprintf("a capo on fret %d of %d leaves too little to play on; at most %d", capo, i.Frets, i.Frets-leastAboveCapo),
			Nearest: i,
		}
	}
	open := make([]pitch.MIDI, len(i.Open))
	for n := range open {
		open[n] = i.Open[n] + pitch.MIDI(capo)
	}
	return Instrument{Name: i.Name, Open: open, Frets: i.Frets - capo, ScaleMM: i.ScaleMM * math.Exp2(-float64(capo)/12)}, nil
}

// HasNamedForms says whether the five forms lie on this neck: six strings with the
// intervals of standard tuning, at whatever pitch.
func (i Instrument) HasNamedForms() bool {
	_, formed := i.SemitonesAbove(Standard())
	return formed
}

// SemitonesAbove says how many semitones higher every string of the neck is tuned than
// those of another; not where the strings differ otherwise.
func (i Instrument) SemitonesAbove(other Instrument) (semitones int, ok bool) {
	if len(i.Open) != len(other.Open) {
		return 0, false
	}
	apart := i.Open[0] - other.Open[0]
	for n := range i.Open {
		if i.Open[n]-other.Open[n] != apart {
			return 0, false
		}
	}
	return int(apart), true
}

// Place is one string at one fret. String 1 sounds highest; fret 0 is open.
type Place struct {
	String int
	Fret   int
}

// Pitch is what sounds at the place.
func (i Instrument) Pitch(p Place) pitch.MIDI {
	return i.Open[p.String-1] + pitch.MIDI(p.Fret)
}

// Has says whether the place is on the neck.
func (i Instrument) Has(p Place) bool {
	return p.String >= 1 && p.String <= len(i.Open) && p.Fret >= 0 && p.Fret <= i.Frets
}

// StretchMM is the distance in millimetres between two frets: a fret k lies
// L(1 - 2^(-k/12)) from the nut of a string of length L (equal temperament).
func (i Instrument) StretchMM(low, high int) float64 {
	return i.ScaleMM * (math.Exp2(-float64(low)/12) - math.Exp2(-float64(high)/12))
}
