// Package phrase holds what a player plays: notes on strings and frets with
// their times and techniques, what each is over the chords, and the licks that
// are made of them.
package phrase

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Event is one note. Rests are the gaps between events.
type Event struct {
	// Tick counts from the phrase's own bar 1 and is negative in a pickup;
	// Ticks is the length.
	Tick, Ticks int
	neck.Fingered
	Technique
}

// Technique is how a note is played.
type Technique struct {
	// SlideFrom is the fret the note is slid from; 0 for no slide, since an
	// open string cannot be slid.
	SlideFrom int
	// SlideOut lets the note slide away at its end: 1 up, -1 down, 0 not.
	SlideOut int
	// HammerOn and PullOff sound the note from the one before on its string.
	HammerOn, PullOff bool
	// Bend is how far the string is bent, in quarter tones: 2 is a half step.
	Bend int
	// PreBend bends before the note is struck, Release lets the bend back.
	PreBend, Release                      bool
	Vibrato, Mute, Accent, Staccato, Tied bool
	// Grace is a note crushed into the one after it: GraceTicks long, it ends where
	// that one begins.
	Grace bool
}

// GraceTicks is how long a grace note sounds: a thirty-second (ours: short enough
// to be heard as part of the note it leads to, at any tempo).
const GraceTicks = 60

// MaxBend is the widest bend a hand is asked for, in quarter tones: three half
// steps.
const MaxBend = 6

// Sounding is the pitch the note is heard as: its place, bent. A bend of an odd
// quarter tone sounds between two pitches and is heard as the lower one.
func (e Event) Sounding(i neck.Instrument) pitch.MIDI {
	return i.Pitch(e.Place) + pitch.MIDI(e.Bend/2)
}

// End is the tick at which the note stops.
func (e Event) End() int { return e.Tick + e.Ticks }

// Phrase is a line of notes in a meter, in order of time. Notes before tick 0
// are its pickup.
type Phrase struct {
	Meter  chart.Meter
	Events []Event
	// SetChord is the chords the phrase was written over, in order of time, each
	// lasting until the next; the first is also that of the pickup.
	Chords []PhraseChord
}

// PhraseChord is a chord that is followed and the phrase's tick from which it holds.
type PhraseChord struct {
	// NotatedNote is what the band plays below an imagined chord; nil where the chord
	// is the written one.
	Written *harmony.Chord
	Tick    int
	Chord   harmony.Chord
}

// MaxEvents is how many notes a phrase may hold.
const MaxEvents = 4096

// EventError says which note of a phrase cannot be played, and why.
type EventError struct {
	// Index counts events from 0; Field is the part at fault.
	Index  int
	Field  string
	Detail string
}

func (e *EventError) Error() string { return fmt.Sprintf("note %d: %s", e.Index+1, e.Detail) }

// Check returns an *EventError for the first note that no hand could play: off
// the neck, out of order, two at once on a string, or with a technique that
// its string and neighbours do not allow.
func (p Phrase) Check(i neck.Instrument) error {
	if len(p.Events) == 0 {
		return &EventError{Field: "events", Detail: fmt.Sprintf("a phrase has 1 to %d notes; this has 0", MaxEvents)}
	}
	return p.CheckSoFar(i)
}

// CheckSoFar is Check for a phrase that is being written and may have no notes yet.
func (p Phrase) CheckSoFar(i neck.Instrument) error {
	if len(p.Events) > MaxEvents {
		return &EventError{Field: "events", Detail: fmt.Sprintf("a phrase has 1 to %d notes; this has %d", MaxEvents, len(p.Events))}
	}
	if len(p.Chords) > MaxEvents {
		return &EventError{Field: "over", Detail: fmt.Sprintf("a phrase is over at most %d chords; this is over %d", MaxEvents, len(p.Chords))}
	}
	for n := 1; n < len(p.Chords); n++ {
		if p.Chords[n].Tick <= p.Chords[n-1].Tick {
			return &EventError{Field: "over", Detail: fmt.Sprintf("chord %d starts before the chord in front of it; chords are in order of time", n+1)}
		}
	}
	before := map[int]int{}
	for n, e := range p.Events {
		last, heard := before[e.String]
		fail := func(field, format string, args ...any) error {
			return &EventError{Index: n, Field: field, Detail: fmt.Sprintf(format, args...)}
		}
		switch {
		case e.String < 1 || e.String > len(i.Open):
			return fail("string", "string %d is not on the instrument; its strings are 1 to %d", e.String, len(i.Open))
		case e.Fret < 0 || e.Fret > i.Frets:
			return fail("fret", "fret %d is not on the neck; its frets are 0 to %d", e.Fret, i.Frets)
		case e.Finger < 0 || e.Finger > 4:
			return fail("finger", "finger %d is not one; fingers are 1 to 4, and 0 where none is chosen", e.Finger)
		case e.Ticks < 1 || e.Ticks > 1<<20:
			return fail("ticks", "a note lasts at least one tick and at most %d", 1<<20)
		case e.Tick < -1<<24 || e.Tick > 1<<24:
			return fail("tick", "tick %d is out of range", e.Tick)
		case n > 0 && e.Tick < p.Events[n-1].Tick:
			return fail("tick", "it starts before the note in front of it; notes are in order of time")
		case heard && p.Events[last].End() > e.Tick:
			return fail("tick", "string %d is still sounding note %d; one note at a time on a string", e.String, last+1)
		}
		if e.Grace && (e.Ticks != GraceTicks || n+1 == len(p.Events) || p.Events[n+1].Tick != e.End()) {
			return fail("grace", "a grace note lasts %d ticks and ends where the next note begins", GraceTicks)
		}
		if field, detail := e.techniqueFault(i, p.Events, last, heard); field != "" {
			return fail(field, "%s", detail)
		}
		before[e.String] = n
	}
	return nil
}

// technique returns the field and the reason why the note's technique cannot be
// played, or nothing. The note before on its string is events[last], if any.
func (e Event) techniqueFault(i neck.Instrument, events []Event, last int, heard bool) (field, detail string) {
	switch {
	case e.Bend < 0 || e.Bend > MaxBend:
		return "bend", fmt.Sprintf("a bend is 0 to %g semitones", float64(MaxBend)/2)
	case e.Bend > 0 && e.Fret == 0:
		return "bend", "an open string cannot be bent"
	case e.Vibrato && e.Fret == 0:
		return "vibrato", "an open string cannot be shaken"
	case (e.PreBend || e.Release) && e.Bend == 0:
		return "bend", "a pre-bend or a release needs a bend"
	case e.SlideFrom != 0 && (e.SlideFrom < 1 || e.SlideFrom > i.Frets || e.SlideFrom == e.Fret || e.Fret == 0):
		return "slideFrom", "a slide goes from one fret to another, and not over an open string"
	case e.SlideOut < -1 || e.SlideOut > 1 || (e.SlideOut != 0 && e.Fret == 0):
		return "slideOut", "a slide out goes up or down, and not from an open string"
	case (e.HammerOn || e.PullOff) && !heard:
		return "string", "a hammer-on or pull-off needs a note before it on its string"
	case e.HammerOn && events[last].Fret >= e.Fret:
		return "hammerOn", "a hammer-on goes up from the note before on its string"
	case e.PullOff && events[last].Fret <= e.Fret:
		return "pullOff", "a pull-off goes down from the note before on its string"
	case e.HammerOn && e.PullOff:
		return "pullOff", "a note is hammered on or pulled off, not both"
	case e.Tied && (!heard || events[last].Place != e.Place || events[last].End() != e.Tick):
		return "tied", "a tie needs the same note right before it"
	}
	return "", ""
}

// joined says whether event n is sounded from the event before it, on one string.
func (p Phrase) Slurred(n int) bool {
	if n == 0 {
		return false
	}
	e, before := p.Events[n], p.Events[n-1]
	if before.String != e.String {
		return false
	}
	return e.HammerOn || e.PullOff || e.Tied || (e.SlideFrom > 0 && before.Fret == e.SlideFrom && before.End() == e.Tick)
}

// Names lists the techniques of a note in words.
func (t Technique) Names() []string {
	names := []string{}
	for _, technique := range []struct {
		used bool
		name string
	}{
		{t.SlideFrom > 0, fmt.Sprintf("slid from fret %d", t.SlideFrom)},
		{t.SlideOut > 0, "slid away upwards"}, {t.SlideOut < 0, "slid away downwards"}, {t.Grace, "grace note"},
		{t.HammerOn, "hammered on"}, {t.PullOff, "pulled off"},
		{t.Bend > 0 && !t.PreBend, "bent " + bendNames[min(t.Bend, MaxBend)]},
		{t.PreBend, "bent beforehand " + bendNames[min(t.Bend, MaxBend)]},
		{t.Release, "released"}, {t.Vibrato, "with vibrato"}, {t.Mute, "muted"}, {t.Accent, "accented"},
		{t.Staccato, "short"}, {t.Tied, "tied"},
	} {
		if technique.used {
			names = append(names, technique.name)
		}
	}
	return names
}

// bendNames says a bend by its quarter tones.
var bendNames = [MaxBend + 1]string{"", "a quarter tone", "a half step", "three quarter tones", "a whole step", "five quarter tones", "three half steps"}
