package planner

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/analysis"
)

// pattern is the rhythm of a phrase, in order of time. Its last note is the one that it ends
// on and holds.
type pattern struct {
	notes []patternNote
	curve contour
}

// patternNote is a note of a pattern, in ticks from the start of its slot.
type patternNote struct {
	tick int
	// stop is when it ends if that is before the next one begins; noStop otherwise.
	stop int
	// repeat says that it strikes the pitch before it again.
	repeat bool
	// arrival is the index of the landing it is, -1 for none.
	arrival int
	// lickEvent is the index of the note of the lick that stands here, -1 for none.
	lickEvent int
}

const noStop = math.MaxInt

func freeNote(tick int) patternNote {
	return patternNote{tick: tick, stop: noStop, arrival: -1, lickEvent: -1}
}

func (p pattern) first() int { return p.notes[0].tick }
func (p pattern) hold() int  { return p.notes[len(p.notes)-1].tick }

// varied says that not too many notes of one length follow each other, and that there are
// several lengths.
func (p pattern) varied() bool {
	equal, lengths := 1, map[int]bool{}
	for n := 1; n < len(p.notes); n++ {
		length := p.notes[n].tick - p.notes[n-1].tick
		lengths[length] = true
		if n > 1 && length == p.notes[n-1].tick-p.notes[n-2].tick {
			equal++
		} else {
			equal = 1
		}
		if equal > analysis.MaxEqualLengths-1 {
			return false
		}
	}
	return len(lengths) > 1
}

// separate leaves out notes that lie too near to a landing to be played between.
func (p *pattern) separate(beat, notesPerBeat int) {
	least := beat / 5
	if notesPerBeat >= 6 {
		least = beat / notesPerBeat / 2
	}
	kept := p.notes[:0:0]
	for _, one := range p.notes {
		n := len(kept)
		switch {
		case n == 0 || one.tick-kept[n-1].tick >= least:
			kept = append(kept, one)
		case one.arrival >= 0 && kept[n-1].arrival < 0:
			kept[n-1] = one
		}
	}
	for n := range kept {
		kept[n].repeat = kept[n].repeat && n > 0 && kept[n].arrival < 0
	}
	p.notes = kept
}

// sortNotes puts the notes in order of time.
func (p *pattern) sortNotes() {
	slices.SortStableFunc(p.notes, func(a, b patternNote) int { return cmp.Compare(a.tick, b.tick) })
}
