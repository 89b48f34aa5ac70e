package lick

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/analysis"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// MoveMethod is a way to move a lick to another chord.
type MoveMethod string

// The three ways, always offered side by side (common practice).
const (
	// SlideShape moves every fret by the same number: the shape stays.
	SlideShape MoveMethod = "slide the shape"
	// StayInPosition keeps the intervals over the root, fingered anew where the hand
	// is: the sound stays.
	StayInPosition MoveMethod = "stay in position"
	// KeepFrets keeps the places and alters only what clashes: the hand stays.
	KeepFrets MoveMethod = "keep the frets"
)

// MoveMethods lists them.
var MoveMethods = []MoveMethod{SlideShape, StayInPosition, KeepFrets}

// Move is a lick moved to another chord by one of the ways, and what it costs.
type Move struct {
	Method MoveMethod
	// Refused says why it cannot be done; then the rest is empty.
	Refused string
	// Phrase is the lick over the chord.
	Phrase phrase.Phrase
	// Shift is how many semitones it sounds above where it was written; of KeepFrets 0.
	Shift int
	// Low and High are its lowest and highest fretted fret, StretchMM the distance
	// between them.
	Low, High int
	StretchMM float64
	// Altered are the notes that KeepFrets changed, Lost the techniques that had to go.
	Altered []phrase.Alteration
	Lost    []string
}

// Root is the class that the lick's intervals are counted from: the root of the
// first chord it was written over, or else its tonic.
func (l Lick) Root() pitch.Class {
	if len(l.Phrase.Chords) > 0 {
		return l.Phrase.Chords[0].Chord.Root.Class()
	}
	return l.Tonic.Class()
}

// MovesTo moves the lick to a chord by all three ways, in the window where the hand
// stands.
func (l Lick) MovesTo(i neck.Instrument, w neck.Window, k harmony.Key, c harmony.Chord) []Move {
	moved := []Move{l.slideTo(i, c), l.stayInPosition(i, w, c), l.keepFrets(i, k, c)}
	for n := range moved {
		moved[n].measure(i, c)
	}
	return moved
}

// KeepFretsOver is the lick moved to a chord by KeepFrets alone.
func (l Lick) KeepFretsOver(i neck.Instrument, k harmony.Key, c harmony.Chord) Move {
	kept := l.keepFrets(i, k, c)
	kept.measure(i, c)
	return kept
}

// TransposedTo is the lick as one of its own in a key, set where the hand stands: what it
// was written over is transposed with it. Its error is a *NoRoomError where the position
// has no room for it.
func (l Lick) TransposedTo(i neck.Instrument, tonic pitch.Note, w neck.Window) (Lick, error) {
	setting, err := l.PlaceIn(i, tonic.Class(), w)
	if err != nil {
		return Lick{}, err
	}
	set := Lick{Name: l.Name, About: l.About, Tags: l.Tags, Tonic: tonic, Phrase: setting.Phrase, Instrument: &i}
	for _, from := range l.Phrase.Chords {
		from.Chord = from.Chord.Transposed(l.Tonic, tonic)
		if from.Written != nil {
			written := from.Written.Transposed(l.Tonic, tonic)
			from.Written = &written
		}
		set.Phrase.Chords = append(set.Phrase.Chords, from)
	}
	return set, nil
}

func refused(way MoveMethod, format string, args ...any) Move {
	return Move{Method: way, Refused: fmt.Sprintf(format, args...)}
}

// onNeck is the lick's notes as they lie on an instrument, or says why they do not.
func (l Lick) onNeck(i neck.Instrument) ([]phrase.Event, error) {
	higher, alike := i.SemitonesAbove(l.WrittenFor())
	if !alike {
		return nil, fmt.Errorf("it was written for strings tuned otherwise")
	}
	events := slices.Clone(l.Phrase.Events)
	for n := range events {
		events[n].Fret -= higher
		if events[n].SlideFrom > 0 {
			events[n].SlideFrom -= higher
		}
		if !i.Has(events[n].Place) {
			return nil, fmt.Errorf("its note %d does not lie on this neck", n+1)
		}
	}
	return events, nil
}

// slideTo slides every fret by the fewest that bring the lick over the chord's root:
// up or down, within the neck. Open strings cannot be slid.
func (l Lick) slideTo(i neck.Instrument, c harmony.Chord) Move {
	events, err := l.onNeck(i)
	if err != nil {
		return refused(SlideShape, "%s", err)
	}
	up := c.Root.Class().Above(l.Root())
	shifts := []int{up, up - 12, up + 12, up - 24}
	slices.SortStableFunc(shifts, func(a, b int) int { return max(a, -a) - max(b, -b) })
	for _, e := range events {
		if e.Fret == 0 && up != 0 {
			return refused(SlideShape, "it uses an open string, which cannot be slid along")
		}
	}
	for _, shift := range shifts {
		p := phrase.Phrase{Meter: l.Phrase.Meter, Events: slices.Clone(events)}
		if slideFrets(p.Events, shift, i) {
			return Move{Method: SlideShape, Phrase: p, Shift: shift}
		}
	}
	return refused(SlideShape, "no %d frets up or down keep it on the neck", up)
}

// slideFrets shifts every fret, if all stay on the neck and fretted.
func slideFrets(events []phrase.Event, shift int, i neck.Instrument) bool {
	for n := range events {
		e := &events[n]
		e.Fret += shift
		if e.SlideFrom > 0 {
			if e.SlideFrom += shift; e.SlideFrom < 1 || e.SlideFrom > i.Frets {
				return false
			}
		}
		if (e.Fret < 1 && shift != 0) || e.Fret > i.Frets {
			return false
		}
	}
	return true
}

// stayInPosition keeps the sounding intervals over the root and fingers them anew in the
// window, in the octave that costs least, as in Set.
func (l Lick) stayInPosition(i neck.Instrument, w neck.Window, c harmony.Chord) Move {
	up := c.Root.Class().Above(l.Root())
	best, err := l.refingeredCheapest(i, w, up)
	if err != nil {
		return refused(StayInPosition, "%s", err)
	}
	return Move{Method: StayInPosition, Phrase: best.Phrase, Shift: best.Shift, Lost: best.Lost}
}

// keepFrets keeps the places, and alters each note on a strong beat or rested on that is
// neither chord tone nor colour over the chord by the least movement that makes it so; what
// passes stays (our choice: it is the line). Where the judgement says
// which way it wants to go and that is no farther, that way; else to a chord tone before
// colour, then down before up (ours). A note that is bent is bent differently where
// its string allows; any other moves along its string.
func (l Lick) keepFrets(i neck.Instrument, k harmony.Key, c harmony.Chord) Move {
	events, err := l.onNeck(i)
	if err != nil {
		return refused(KeepFrets, "%s", err)
	}
	m := Move{Method: KeepFrets, Phrase: phrase.Phrase{Meter: l.Phrase.Meter, Events: events}}
	if len(l.Phrase.Chords) == 1 && l.Phrase.Chords[0].Chord.Same(c) {
		return m // over its own chord it is as it was meant
	}
	for n := range events {
		before := events[n]
		class := before.Sounding(i).Class()
		if phrase.MayRestOn(k, c, class) || !l.Phrase.Meter.IsStrong(before.Tick) && !analysis.RestsOn(l.Phrase, n) {
			continue
		}
		by, altered, ok := phrase.LeastChange(i, k, c, before, phrase.MayRestOn)
		if !ok {
			return refused(KeepFrets, "note %d cannot be moved to a tone of %s on its string", n+1, c.Symbol())
		}
		events[n] = altered
		from, to := k.ToneOver(c, class), k.ToneOver(c, altered.Sounding(i).Class())
		m.Altered = append(m.Altered, phrase.Alteration{Index: n, Semitones: by, Text: fmt.Sprintf("note %d: %s, the %s, becomes %s, the %s of %s: %s",
			n+1, from.Note, from.Degree, to.Note, to.Degree, c.Symbol(), phrase.ChangeText(before, altered))})
	}
	m.Lost = phrase.DropBrokenSlurs(events)
	return m
}

// measure fingers what was moved, puts it over its chord and measures it. A way that
// leads to a phrase that no hand could play is refused.
func (m *Move) measure(i neck.Instrument, c harmony.Chord) {
	if m.Refused != "" {
		return
	}
	m.Low, m.High = m.Phrase.Frets()
	m.StretchMM = i.StretchMM(m.Low, m.High)
	if m.Method != StayInPosition {
		m.Phrase.Finger(i)
	}
	m.Phrase.Chords = []phrase.PhraseChord{{Tick: min(m.Phrase.Events[0].Tick, 0), Chord: c}}
	if err := m.Phrase.Check(i); err != nil {
		*m = refused(m.Method, "%s", err)
	}
}

// Text sums up what the way costs: "frets 8 to 11, 2 notes changed".
func (m Move) Text() string {
	if m.Refused != "" {
		return m.Refused
	}
	remarks := []string{fmt.Sprintf("frets %d to %d", m.Low, m.High), fmt.Sprintf("%.0f mm", m.StretchMM)}
	if m.Shift != 0 {
		remarks = append(remarks, fmt.Sprintf("%+d half steps", m.Shift))
	}
	if lost := len(m.Lost); lost == 1 {
		remarks = append(remarks, "one slur lost")
	} else if lost > 1 {
		remarks = append(remarks, fmt.Sprintf("%d slurs lost", lost))
	}
	if m.Method == KeepFrets {
		remarks = append(remarks, fmt.Sprintf("%d changed", len(m.Altered)))
	}
	return strings.Join(remarks, ", ")
}

// shortMethods names the ways where there is little room.
var shortMethods = map[MoveMethod]string{SlideShape: "slid", StayInPosition: "in position", KeepFrets: "changed"}

// Moved is a moved lick as one of its own, over the chord and in the key it was moved
// in, on the instrument it was moved for.
func (l Lick) Moved(m Move, k harmony.Key, c harmony.Chord, i neck.Instrument) Lick {
	kept := Lick{Name: l.Name, About: l.About, Tags: l.Tags, Tonic: k.Tonic, Phrase: m.Phrase}
	return kept.WithSuffix(fmt.Sprintf(" over %s, %s", c.SignedSymbol(), shortMethods[m.Method])).WithInstrument(i)
}

// WithSuffix is the lick with something added to its name, which is cut to make room.
func (l Lick) WithSuffix(tail string) Lick {
	name := []rune(l.Name)
	l.Name = string(name[:min(len(name), MaxName-len([]rune(tail)))]) + tail
	return l
}

// WithInstrument is the lick as it lies on an instrument, which it names where that is not tuned
// as a guitar usually is.
func (l Lick) WithInstrument(i neck.Instrument) Lick {
	l.Instrument = nil
	if higher, alike := i.SemitonesAbove(neck.Standard()); !alike || higher != 0 {
		l.Instrument = &i
	}
	return l
}
