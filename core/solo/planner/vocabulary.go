package planner

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"undaris/core/lick"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
)

// Of a lick (ours).
const (
	// minLickNotes is how many notes it has at least, minShareKept the share of them that stand
	// as they are.
	minLickNotes = 3
	minShareKept = 0.75
	// maxClashRatio is one of how many of its notes may clash with the chord that it comes over.
	maxClashRatio = 4
	// oftenLickAtTurnaround is how often a lick is played in the last bar of a chorus where
	// something is.
	oftenLickAtTurnaround = 0.5
)

// lickPatterns lays licks of the vocabulary into the slots, and changes the patterns to their
// rhythm. A motif that comes back has the same lick; no other motif has it, unless there are
// no more. What has no lick keeps its own rhythm.
func (pc *planContext) lickPatterns(slots []phraseSlot, patterns []pattern, r *rand.Rand) []lickPattern {
	found := make([]lickPattern, len(slots))
	if !pc.FromLicks {
		return found
	}
	order := slices.DeleteFunc(r.Perm(len(pc.Licks)), func(n int) bool { return pc.NoBends && hasBends(pc.Licks[n]) })
	used := map[int]bool{}
	chosen := map[string]lickPattern{}
	for k, s := range slots {
		if known, ok := chosen[s.motifID]; ok {
			if p, laid, ok := pc.fitLick(known.lick, known.shift, s, patterns[k], pc.roomFor(slots, patterns, k)); ok {
				patterns[k], found[k] = p, laid
				continue
			}
		}
		if s.turnaround && r.Float64() >= oftenLickAtTurnaround {
			continue
		}
		for pass := range 2 {
			for _, n := range order {
				if used[n] != (pass == 1) {
					continue
				}
				p, laid, ok := pc.lickInto(n, s, patterns[k], pc.roomFor(slots, patterns, k), r)
				if ok {
					used[n] = true
					patterns[k], found[k] = p, laid
					chosen[s.motifID] = laid
					break
				}
			}
			if found[k].name != "" {
				break
			}
		}
	}
	return found
}

// lickRoom is how far before its slot a lick may begin, and where its last note begins at the
// latest, in ticks from the start of the slot.
type lickRoom struct{ before, last int }

// roomFor is the room between the phrases before and after a slot.
func (pc *planContext) roomFor(slots []phraseSlot, patterns []pattern, n int) lickRoom {
	beat := slots[n].beat
	room := lickRoom{pc.roomBefore(slots, patterns, n), slots[n].ticks - beat/2}
	if n+1 < len(slots) {
		room.last = min(room.last, slots[n+1].start+patterns[n+1].first()-slots[n].start-beat)
	}
	return room
}

// roomBefore is how far before its slot the nth phrase may begin, in ticks.
func (pc *planContext) roomBefore(slots []phraseSlot, patterns []pattern, n int) int {
	if n == 0 {
		return slots[0].in.Meter.BarTicks()
	}
	return slots[n].start - slots[n-1].start - patterns[n-1].hold() - slots[n].beat
}

// lickInto lays a lick into a slot: so that its own end is one of the landings, the last that it
// can be; else somewhere from a beat before the slot on.
func (pc *planContext) lickInto(n int, s phraseSlot, p pattern, room lickRoom, r *rand.Rand) (pattern, lickPattern, bool) {
	set := pc.placedLick(n, pc.PositionAt(s.start).Window, s.in).phrase
	if len(set.Events) < minLickNotes {
		return p, lickPattern{}, false
	}
	beat := s.beat
	end := set.Events[len(set.Events)-1].Tick
	for k := len(p.notes) - 1; k >= 0; k-- {
		one := p.notes[k]
		if one.arrival < 0 {
			continue
		}
		shift := pc.TargetTicks[one.arrival] - s.start - end
		if shift%beat != 0 {
			shift = floorTo(shift+beat/2, beat) // an eighth early or late, as it was written
		}
		if next, laid, ok := pc.fitLick(n, shift, s, p, room); ok {
			return next, laid, true
		}
	}
	for _, at := range r.Perm(4) { // so that it may begin on the beat before the slot or in it
		if next, laid, ok := pc.fitLick(n, (at-1)*beat, s, p, room); ok {
			return next, laid, true
		}
	}
	return p, lickPattern{}, false
}

// concedeLicks says when a vocabulary is asked for and there is none that can be used.
func (pc *planContext) concedeLicks(c chorus.Chorus) {
	if !pc.FromLicks {
		return
	}
	if len(pc.Licks) == 0 {
		pc.Concessions = append(pc.Concessions, chorus.Concession{Field: "licks", Text: "no licks are in the vocabulary: the chorus is made of the box and the chords; write a lick, or choose other tags"})
		return
	}
	if pc.NoBends && !slices.ContainsFunc(pc.Licks, func(l lick.Lick) bool { return !hasBends(l) }) {
		pc.Concessions = append(pc.Concessions, chorus.Concession{Field: "licks", Text: fmt.Sprintf("all %d licks have bends, and none are wanted: the chorus is made of the box and the chords; allow bends, or choose other tags", len(pc.Licks))})
		return
	}
	for _, b := range c.Blocks {
		if b.Kind == chorus.LickBlock {
			return
		}
	}
	at := pc.Position
	pc.Concessions = append(pc.Concessions, chorus.Concession{Field: "licks", Text: fmt.Sprintf("none of the %d licks fits on frets %d to %d before a landing: the chorus is made of the box and the chords", len(pc.Licks), at.Low, at.High)})
}

// hasBends says whether any note of a lick is bent.
func hasBends(l lick.Lick) bool {
	return slices.ContainsFunc(l.Phrase.Events, func(e phrase.Event) bool { return e.Bend > 0 })
}
