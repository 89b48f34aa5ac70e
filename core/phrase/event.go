package phrase

import (
	"fmt"

	"undaris/core/chart"
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
	// Meter is that of its bar 1, which MeterChanges replace later, in order of time.
	Meter        chart.Meter
	MeterChanges []chart.MeterChange
	Events       []Event
	// Chords is the chords the phrase was written over, in order of time, each
	// lasting until the next; the first is also that of the pickup.
	Chords []PhraseChord
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
		return &EventError{Field: "chords", Detail: fmt.Sprintf("a phrase is over at most %d chords; this is over %d", MaxEvents, len(p.Chords))}
	}
	for n := 1; n < len(p.Chords); n++ {
		if p.Chords[n].Tick <= p.Chords[n-1].Tick {
			return &EventError{Field: "chords", Detail: fmt.Sprintf("chord %d starts before the chord in front of it; chords are in order of time", n+1)}
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

// Slurred says whether event n is sounded from the event before it, on one string.
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

// DoubleStops says whether two notes of the phrase begin at once.
func (p Phrase) DoubleStops() bool {
	for n := 1; n < len(p.Events); n++ {
		if p.Events[n].Tick == p.Events[n-1].Tick {
			return true
		}
	}
	return false
}
