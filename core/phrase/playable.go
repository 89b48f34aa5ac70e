package phrase

import (
	"fmt"
	"slices"
)

// DropBrokenSlurs drops the slurs and ties that altered notes no longer allow, and says
// which.
func DropBrokenSlurs(events []Event) (lost []string) {
	last := map[int]Event{}
	for n := range events {
		e := &events[n]
		before, heard := last[e.String]
		lose := func(slur string) {
			lost = append(lost, fmt.Sprintf("the %s at note %d no longer fits: pick it", slur, n+1))
		}
		if e.HammerOn && (!heard || before.Fret >= e.Fret) {
			e.HammerOn = false
			lose("hammer-on")
		}
		if e.PullOff && (!heard || before.Fret <= e.Fret) {
			e.PullOff = false
			lose("pull-off")
		}
		if e.Tied && (!heard || before.Place != e.Place || before.End() != e.Tick) {
			e.Tied = false
			lose("tie")
		}
		if e.SlideFrom > 0 && e.SlideFrom == e.Fret {
			e.SlideFrom = 0
			lose("slide")
		}
		last[e.String] = *e
	}
	return lost
}

// Playable is the phrase with what no hand could play taken away, note by note, and what
// that was: notes at once on a string, bends and slides of open strings, slurs from
// nowhere. What can be played as it is stays as it is.
func (p Phrase) Playable() (Phrase, []string) {
	events, remarks := WithoutOverlaps(slices.Clone(p.Events), nil)
	for n := range events {
		e := &events[n]
		if before := *e; e.Fret == 0 {
			if e.dropUnplayable(); *e != before {
				remarks = append(remarks, fmt.Sprintf("note %d is on an open string, which cannot be bent, slid or shaken", n+1))
			}
		}
	}
	p.Events = events
	return p, append(remarks, DropBrokenSlurs(p.Events)...)
}

// dropUnplayable takes away what the note's place does not allow: on an open string
// nothing can be bent, slid or shaken.
func (e *Event) dropUnplayable() {
	if e.Fret == 0 {
		e.Bend, e.PreBend, e.Release, e.SlideFrom, e.SlideOut, e.Vibrato = 0, false, false, 0, 0, false
	}
	if e.SlideFrom == e.Fret {
		e.SlideFrom = 0
	}
}

// WithoutOverlaps ends each note at the latest where the next on its string begins; of two
// that begin at once on a string the one written last stays.
func WithoutOverlaps(events []Event, remarks []string) ([]Event, []string) {
	kept := events[:0]
	last := map[int]int{}
	for n, note := range events {
		if before, heard := last[note.String]; heard {
			switch was := &kept[before]; {
			case was.Tick == note.Tick:
				remarks = append(remarks, fmt.Sprintf("a note at string %d fret %d gave way", was.String, was.Fret))
				*was = note
				continue
			case was.End() > note.Tick:
				was.Ticks = note.Tick - was.Tick
				remarks = append(remarks, fmt.Sprintf("note %d is cut short by the next on its string", n))
			}
		}
		last[note.String] = len(kept)
		kept = append(kept, note)
	}
	return DropLooseGraces(kept), remarks
}

// DropLooseGraces turns grace notes that no longer lead straight to another into plain
// ones.
func DropLooseGraces(events []Event) []Event {
	for n := range events {
		if e := &events[n]; e.Grace && (e.Ticks != GraceTicks || n+1 == len(events) || events[n+1].Tick != e.End()) {
			e.Grace = false
		}
	}
	return events
}
