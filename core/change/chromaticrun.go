package change

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// ChromaticRunKind is a chromatic run between two degrees of one chord.
type ChromaticRunKind struct {
	Name string
	// from and to are parts of the chord; down says which way the run goes.
	from, to harmony.ChordPart
	down     bool
}

// ChromaticRunKinds lists every connector (common practice).
var ChromaticRunKinds = []ChromaticRunKind{
	{"root up to 3", harmony.RootPart, harmony.ThirdPart, false}, {"3 up to 5", harmony.ThirdPart, harmony.FifthPart, false}, {"5 up to 7", harmony.FifthPart, harmony.SeventhPart, false},
	{"root down to 7", harmony.RootPart, harmony.SeventhPart, true}, {"7 up to root", harmony.SeventhPart, harmony.RootPart, false},
}

// ChromaticRun is a connector over one chord, fitted to a number of notes.
type ChromaticRun struct {
	ChromaticRunKind
	From, To  harmony.Tone
	Pitches   []pitch.MIDI
	Fingering []neck.Fingered
	// Effort is the cost of fingering it.
	Effort int
	// Fitted says what was left out or doubled; empty where nothing was.
	Fitted string
}

// ChromaticRuns fits every connector over the arriving chord to a number of notes,
// first and last included: those that lie in the window, each where it starts
// nearest to the goal's target, and those that do not fit with the reason.
func ChromaticRuns(g Goal, notes int) (fit []ChromaticRun, refused []Unplayable) {
	for _, c := range ChromaticRunKinds {
		connection, err := c.fit(g, notes)
		if err != nil {
			refused = append(refused, Unplayable{c.Name, err.Error()})
			continue
		}
		fit = append(fit, connection)
	}
	return fit, refused
}

func (c ChromaticRunKind) fit(g Goal, notes int) (ChromaticRun, error) {
	made := ChromaticRun{ChromaticRunKind: c}
	var ok bool
	if made.From, ok = tonePart(g.Arriving, c.from); !ok {
		return made, fmt.Errorf("%s has no %s", g.Arriving.Symbol(), partNames[c.from])
	}
	if made.To, ok = tonePart(g.Arriving, c.to); !ok {
		return made, fmt.Errorf("%s has no %s", g.Arriving.Symbol(), partNames[c.to])
	}
	interval := made.To.Note.Class().Above(made.From.Note.Class())
	if c.down {
		interval -= 12
	}
	best := -1
	target := g.Instrument.Pitch(g.Target)
	for _, start := range neck.PlaceTones(g.Instrument, g.Window, []harmony.Tone{made.From}).Tones {
		pitches, fitted, err := ChromaticPitches(start.Pitch, start.Pitch+pitch.MIDI(interval), notes)
		if err != nil {
			return made, err
		}
		wanted := make([]neck.NoteToPlace, len(pitches))
		for n, p := range pitches {
			wanted[n] = neck.NoteToPlace{Pitch: p}
		}
		fingering, effort, err := neck.FingerPhrase(g.Instrument, g.Window, wanted)
		apart := int(max(start.Pitch-target, target-start.Pitch))
		if err == nil && (best < 0 || apart < best) {
			best, made.Pitches, made.Fitted, made.Fingering, made.Effort = apart, pitches, fitted, fingering, effort
		}
	}
	if best < 0 {
		return made, fmt.Errorf("it does not lie on frets %d to %d", g.Window.Low, g.Window.High)
	}
	return made, nil
}

// Short is the connection by its degrees: "R up to 3".
func (c ChromaticRun) Short() string {
	return fmt.Sprintf("%s %s to %s", c.From.Degree, c.direction(), c.To.Degree)
}

func (c ChromaticRun) direction() string {
	if c.down {
		return "down"
	}
	return "up"
}

// Text is the connection in words: "R up to the 3 of F7, one note after the first
// left out".
func (c ChromaticRun) Text(chord harmony.Chord) string {
	said := fmt.Sprintf("%s %s to the %s of %s", c.From.Degree, c.direction(), c.To.Degree, chord.Symbol())
	if c.Fitted != "" {
		said += ", " + c.Fitted
	}
	return said
}

// ChromaticPitches runs chromatically from one pitch to another in so many notes. With fewer
// notes than half steps allow, those after the first are left out, so that the
// half steps into the goal stay; with more, notes are struck twice from the first
// on, the goal once (ours). Two notes are the least; twice as many as there are
// half steps, and the goal, the most. It says what it did.
func ChromaticPitches(from, to pitch.MIDI, notes int) (pitches []pitch.MIDI, fitted string, err error) {
	step := pitch.MIDI(1)
	if to < from {
		step = -1
	}
	for p := from; p != to; p += step {
		pitches = append(pitches, p)
	}
	whole := len(pitches)
	switch {
	case notes < 2 || whole == 0:
		return nil, "", fmt.Errorf("a run has at least two notes, from one pitch to another")
	case notes > 2*whole+1:
		return nil, "", fmt.Errorf("%d notes are too many for %d half steps: at most %d", notes, whole, 2*whole+1)
	case notes < whole+1:
		left := whole + 1 - notes
		pitches = append(pitches[:1], pitches[1+left:]...)
		fitted = counted(left) + " after the first left out"
	case notes > whole+1:
		twice := notes - whole - 1
		doubled := make([]pitch.MIDI, 0, notes)
		for n, p := range pitches {
			doubled = append(doubled, p)
			if n < twice {
				doubled = append(doubled, p)
			}
		}
		pitches = doubled
		fitted = "the first " + counted(twice) + " struck twice"
		if twice == 1 {
			fitted = "the first note struck twice"
		}
	}
	return append(pitches, to), fitted, nil
}

var partNames = map[harmony.ChordPart]string{harmony.RootPart: "root", harmony.ThirdPart: "third", harmony.FifthPart: "fifth", harmony.SeventhPart: "seventh"}

// tonePart is the tone of a chord that does a part in it.
func tonePart(c harmony.Chord, p harmony.ChordPart) (harmony.Tone, bool) {
	for _, t := range c.Tones() {
		if harmony.PartOf(t.Degree) == p {
			return t, true
		}
	}
	return harmony.Tone{}, false
}
