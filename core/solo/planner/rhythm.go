package planner

import (
	"math"
	"math/rand/v2"

	"undaris/core/floor"
)

// How patterns are drawn (ours, for what players do).
const (
	// oftenNewTail is how often a phrase that returns ends another way than before, tailBeats
	// how many of its last beats are then new.
	oftenNewTail = 0.6
	tailBeats    = 2
	// patternsTried is how many patterns are drawn for one; the one nearest to the number of
	// notes wanted is taken.
	patternsTried = 6
	// shortestHold is how long the last note of a phrase sounds at least, in beats.
	shortestHold = 0.5
	// oftenOn is how often a phrase goes on from its last landing for a beat.
	oftenOn = 0.35
	// oftenGivenUp is how often a landing is left to the band where reaching it would take
	// a beat of the silence that is asked for, or more.
	oftenGivenUp = 0.5
)

// holdLengths are those of the last notes of phrases, in beats, before they are lengthened or
// not to the silence asked for.
var holdLengths = []float64{0.5, 1, 1, 1.5, 2, 2.5}

// rhythmDraw draws the patterns of one candidate.
type rhythmDraw struct {
	*planContext
	r *rand.Rand
	// notesLeft is how many notes are still wanted for the ticksLeft of the slots to come.
	notesLeft float64
	ticksLeft int
	// room is how far before its slot the next phrase may begin, in ticks.
	room int
	// reserve is how long before its end a phrase must leave room for the pickup of the next.
	reserve int
	// holds are where in its bar the last notes of the phrases so far begin.
	holds []int
	// starts are where phrases begin so far, in ticks from the start of their slots.
	starts map[int]bool
	// slot is the one that is drawn for.
	slot phraseSlot
}

// patterns draws the rhythm of every slot: a motif that returns keeps its head, and often ends
// another way.
func (pc *planContext) patterns(slots []phraseSlot, r *rand.Rand) []pattern {
	d := rhythmDraw{planContext: pc, r: r, notesLeft: pc.Density * float64(pc.BarCount()), room: noStop, starts: map[int]bool{}}
	for _, s := range slots {
		d.ticksLeft += s.ticks
	}
	all := make([]pattern, len(slots))
	origin := map[string]int{}
	for n, s := range slots {
		d.slot = s
		if n > 0 {
			before := slots[n-1]
			d.room = s.start - before.start - all[n-1].hold() - s.beat
		}
		d.reserve = 0
		if next := slots[(n+1)%len(slots)].motifID; next == s.motifID {
			d.reserve = ownPickup
		} else if first, known := origin[next]; known {
			d.reserve = max(-all[first].first(), 0)
		}
		if n == 0 && len(pc.Part.Motif) > 0 {
			origin[s.motifID] = n
			all[n] = d.returning(s, motifPattern(s, pc.Part.Motif, contours[r.IntN(len(contours))]))
		} else if first, known := origin[s.motifID]; known {
			all[n] = d.returning(s, all[first])
		} else {
			origin[s.motifID] = n
			all[n] = d.best(s, func() pattern { return d.fresh(s) })
			all[n].curve = contours[r.IntN(len(contours))]
		}
		d.notesLeft -= float64(len(all[n].notes))
		d.ticksLeft -= s.ticks
		d.holds = append(d.holds, pc.intoBar(s.start+all[n].hold()))
	}
	return all
}

// ownPickup reserves as much as the phrase has itself.
const ownPickup = -1

// latestHold is the last tick at which the last note of a phrase may begin that begins at a tick.
func (d *rhythmDraw) latestHold(s phraseSlot, start int) int {
	reserve := d.reserve
	if reserve == ownPickup {
		reserve = max(-start, 0)
	}
	return s.ticks - s.beat - reserve
}

// wanted is how many notes a slot is to have.
func (d *rhythmDraw) wanted(s phraseSlot) float64 {
	return max(d.notesLeft, 1) * float64(s.ticks) / float64(max(d.ticksLeft, 1))
}

// best is the pattern of several that comes nearest to the number of notes wanted.
func (d *rhythmDraw) best(s phraseSlot, draw func() pattern) pattern {
	var best pattern
	least := math.Inf(1)
	for range patternsTried {
		p := draw()
		off := math.Abs(float64(len(p.notes)) - d.wanted(s))
		if !p.varied() {
			off += 2
		}
		if off < least {
			best, least = p, off
		}
		if least < 0.75 {
			break
		}
	}
	return best
}

// fresh draws a pattern: where it begins, when its landings come, where it ends, and cells
// between.
func (d *rhythmDraw) fresh(s phraseSlot) pattern {
	start, silent := d.start(s)
	active := int(float64(s.ticks) * (1 - d.Space) * (0.9 + 0.25*d.r.Float64()))
	due := d.landings(s, start, start+active, silent)
	hold := d.hold(s, start, start+active, due)
	p := pattern{}
	p.fill(d, start, hold, d.wanted(s))
	p.notes = append(p.notes, freeNote(hold))
	for _, l := range due {
		p.land(s.beat, l)
	}
	p.separate(s.beat, d.subdivisionIn(s.in.Meter).PerBeat)
	return p
}

// hold draws where the last note begins: before the phrase is over, not before its last landing,
// and not at the beat that the two phrases before were held at.
func (d *rhythmDraw) hold(s phraseSlot, start, end int, due []dueLanding) int {
	beat := s.beat
	least := start + beat
	if len(due) > 0 {
		last := due[len(due)-1].tick
		least = max(least, last)
		if last+2*beat <= s.ticks && d.r.Float64() < oftenOn {
			least = max(least, last+beat)
		}
	}
	latest := d.latestHold(s, start)
	for try := range 8 {
		at := end - int(holdLengths[d.r.IntN(len(holdLengths))]*float64(beat))
		at = floorTo(at, beat)
		if d.offBeats() && d.r.IntN(2) == 0 {
			at += d.offBeat()
		}
		at = min(max(min(at, latest), least), s.ticks-beat/2)
		n := len(d.holds)
		if n < 2 || d.holds[n-1] != d.intoBar(s.start+at) || d.holds[n-2] != d.holds[n-1] || try == 7 {
			return at
		}
	}
	return least
}

// offBeats says whether the subdivision has off-beats.
func (d *rhythmDraw) offBeats() bool { return d.subdivisionIn(d.slot.in.Meter).PerBeat > 1 }

// intoBar is how many ticks into its bar a tick of the chorus lies.
func (pc *planContext) intoBar(tick int) int { return tick - pc.Time.BarStart(tick) }

// floorTo is the multiple of unit at or before a tick.
func floorTo(tick, unit int) int { return tick - floor.Mod(tick, unit) }

// fill puts cells between two ticks, so many that there are about as many notes as are wanted;
// the first note begins at the first tick.
func (p *pattern) fill(d *rhythmDraw, from, to int, wanted float64) {
	beat := d.slot.beat
	perBeat := max(wanted-1, 0.5) * float64(beat) / float64(max(to-from, beat))
	p.notes = append(p.notes, freeNote(from))
	cells := d.cells()
	for at := floorTo(from, beat); at < to; {
		c := drawn(cells, d.r, func(c cell) float64 {
			off := c.notesPerBeat() - perBeat
			return c.weight / (1 + 3*off*off)
		})
		for n, part := range c.parts {
			tick := at + n*c.beats*beat/len(c.parts)
			if tick <= from || tick >= to {
				continue
			}
			last := &p.notes[len(p.notes)-1]
			switch part {
			case 'x', 'r':
				one := freeNote(tick)
				one.repeat = part == 'r'
				p.notes = append(p.notes, one)
			case '.':
				last.stop = min(last.stop, tick)
			}
		}
		at += c.beats * beat
	}
}

func (c cell) notesPerBeat() float64 {
	notes := 0
	for n := range len(c.parts) {
		if part := c.parts[n]; part == 'x' || part == 'r' {
			notes++
		}
	}
	return float64(notes) / float64(c.beats)
}
