package midifile

import (
	"math"

	"undaris/core/phrase"
)

// bent is a note with what the pitch wheel did while it sounded.
type bent struct {
	note
	channel uint8
	// moves are the wheel's cents and from when they hold, the first at the note's start.
	moves []wheelMove
}

type wheelMove struct {
	tick  int
	cents float64
}

// technique reads what the wheel did while the note sounded: where it rested in the
// middle is the bend; where it began and ended says how it came there. slide is where a
// note was slid from, in half steps.
func (b bent) technique() (t phrase.Technique, slide int) {
	middle := b.resting()
	begin, end := b.moves[0].cents, b.moves[len(b.moves)-1].cents
	quarters := int(math.Round(middle / quarterTone))
	if quarters >= 1 {
		t.Bend = min(quarters, phrase.MaxBend)
		t.PreBend = begin > middle-atPitch
		t.Release = end < middle-quarterTone && end > -atPitch
	} else if begin <= -2*quarterTone+atPitch || begin >= 2*quarterTone-atPitch {
		slide = int(math.Round(begin / 100))
	}
	switch {
	case end > middle+slidOut:
		t.SlideOut = 1
	case end < -slidOut && end < middle-slidOut:
		t.SlideOut = -1
	}
	t.Vibrato = b.turns(middle) >= 4
	return t, slide
}

// resting is the cents that hold for most of the middle of the note.
func (b bent) resting() float64 {
	from, to := b.tick+(b.end-b.tick)/4, b.end-(b.end-b.tick)/4
	held := map[int]int{}
	for n, m := range b.moves {
		until := b.end
		if n+1 < len(b.moves) {
			until = b.moves[n+1].tick
		}
		if time := min(until, to) - max(m.tick, from); time > 0 {
			held[int(math.Round(m.cents/quarterTone))] += time
		}
	}
	best, most := 0, 0
	for quarters, time := range held {
		if time > most || time == most && quarters < best {
			best, most = quarters, time
		}
	}
	return float64(best * quarterTone)
}

// turns counts how often the pitch turned back around where it rests.
func (b bent) turns(middle float64) int {
	count, way := 0, 0
	for n := 1; n < len(b.moves); n++ {
		if math.Abs(b.moves[n].cents-middle) > 2*quarterTone || math.Abs(b.moves[n-1].cents-middle) > 2*quarterTone {
			continue
		}
		step := b.moves[n].cents - b.moves[n-1].cents
		now := 0
		switch {
		case step > moved:
			now = 1
		case step < -moved:
			now = -1
		}
		if now != 0 && way != 0 && now != way {
			count++
		}
		if now != 0 {
			way = now
		}
	}
	return count
}
