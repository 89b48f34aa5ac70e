package planner

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"undaris/core/analysis"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
)

// lickPattern is a lick as it is laid into a slot, over each chord that it may come over: its
// notes in ticks from the start of the slot.
type lickPattern struct {
	name   string
	lick   int
	shift  int
	events []phrase.Event
	moved  map[int][]phrase.Event
}

// eventOver is the nth note over a chord, nil for none.
func (l lickPattern) eventOver(chord, n int) *phrase.Event {
	if n < 0 || n >= len(l.events) {
		return nil
	}
	if moved, ok := l.moved[chord]; ok {
		return &moved[n]
	}
	return &l.events[n]
}

// withNote is the other notes that the nth is played with over a chord: grace notes before it,
// and what is struck together with it.
func (l lickPattern) withNote(chord, n int) []phrase.Event {
	events := l.events
	if moved, ok := l.moved[chord]; ok {
		events = moved
	}
	found := []phrase.Event{}
	for k, e := range events {
		if k != n && (e.Tick == events[n].Tick && !e.Grace || e.Grace && e.End() == events[n].Tick) {
			found = append(found, e)
		}
	}
	return found
}

// Of a lick (ours).
const (
	// leastOfLick is how many notes it has at least, keptOfLick the share of them that stand
	// as they are.
	leastOfLick = 3
	keptOfLick  = 0.75
	// mostClashes is one of how many of its notes may clash with the chord that it comes over.
	mostClashes = 4
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
	order := r.Perm(len(pc.Licks))
	used := map[int]bool{}
	chosen := map[string]lickPattern{}
	for k, s := range slots {
		if known, ok := chosen[s.motifID]; ok {
			if p, laid, ok := pc.layLick(known.lick, known.shift, s, patterns[k], pc.roomFor(slots, patterns, k)); ok {
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
	beat := pc.Chart.Meter.BeatTicks()
	room := lickRoom{pc.roomBefore(slots, patterns, n), slots[n].ticks - beat/2}
	if n+1 < len(slots) {
		room.last = min(room.last, slots[n+1].start+patterns[n+1].first()-slots[n].start-beat)
	}
	return room
}

// roomBefore is how far before its slot the nth phrase may begin, in ticks.
func (pc *planContext) roomBefore(slots []phraseSlot, patterns []pattern, n int) int {
	if n == 0 {
		return pc.Chart.Meter.BarTicks()
	}
	return slots[n].start - slots[n-1].start - patterns[n-1].hold() - pc.Chart.Meter.BeatTicks()
}

// lickInto lays a lick into a slot: so that its own end is one of the landings, the last that it
// can be; else somewhere from a beat before the slot on.
func (pc *planContext) lickInto(n int, s phraseSlot, p pattern, room lickRoom, r *rand.Rand) (pattern, lickPattern, bool) {
	set := pc.placedLick(n, pc.PositionAt(s.start).Window).phrase
	if len(set.Events) < leastOfLick {
		return p, lickPattern{}, false
	}
	beat := pc.Chart.Meter.BeatTicks()
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
		if next, laid, ok := pc.layLick(n, shift, s, p, room); ok {
			return next, laid, true
		}
	}
	for _, at := range r.Perm(4) { // so that it may begin on the beat before the slot or in it
		if next, laid, ok := pc.layLick(n, (at-1)*beat, s, p, room); ok {
			return next, laid, true
		}
	}
	return p, lickPattern{}, false
}

// layLick lays a lick so many ticks from the start of a slot. Landings within it fall on its own
// notes where those are tones of the chord, else a note of it is changed; a landing after it is
// gone on to in the pattern's own rhythm. It says whether at least three quarters stand.
func (pc *planContext) layLick(n, shift int, s phraseSlot, p pattern, room lickRoom) (pattern, lickPattern, bool) {
	none := lickPattern{}
	m := pc.Chart.Meter
	beat := m.BeatTicks()
	w := pc.PositionAt(s.start).Window
	set := pc.placedLick(n, w).phrase.Events
	first, last := set[0].Tick+shift, set[len(set)-1].Tick+shift
	if first < -room.before || first > 2*beat || last > room.last || s.start+first < -m.BarTicks() {
		return p, none, false
	}
	laid := lickPattern{name: pc.Licks[n].Name, lick: n, shift: shift, moved: map[int][]phrase.Event{}}
	laid.events = shifted(set, s.start+shift)
	for chord, moved := range pc.movedLicks(n, w) {
		laid.moved[chord] = shifted(moved.Events, s.start+shift)
	}
	next := pattern{curve: p.curve}
	for _, one := range p.notes { // what must come before it
		if one.arrival >= 0 && one.tick < first-beat/2 {
			next.notes = append(next.notes, one)
		}
	}
	from := len(next.notes)
	clashes := 0
	for k, e := range set {
		if e.Grace || k > 0 && e.Tick == set[k-1].Tick {
			continue
		}
		one := freeNote(e.Tick + shift)
		one.lickEvent, one.stop = k, e.End()+shift
		next.notes = append(next.notes, one)
		chord := pc.ChordAt(s.start + one.tick)
		if is := pc.Chords[chord].Class[laid.eventOver(chord, k).Sounding(pc.Instrument).Class()]; is == harmony.Outside || is == harmony.Suspension {
			clashes++
		}
	}
	own := len(next.notes) - from
	if own < leastOfLick || clashes*mostClashes > own {
		return p, none, false
	}
	changed := 0
	for _, due := range p.notes {
		if due.arrival < 0 || due.tick < first-beat/2 {
			continue
		}
		arrives := pc.TargetTicks[due.arrival] - s.start
		if arrives > last+beat/2 {
			break
		}
		if !pc.landWithin(&next, from, due, arrives, laid) {
			changed++
		}
	}
	if float64(own-changed) < keptOfLick*float64(own) {
		return p, none, false
	}
	for _, one := range p.notes { // what is still to be landed on
		if one.tick >= next.hold()+beat/2 && pc.arrivesAfter(p, one, s, last+beat/2) {
			one.lickEvent = -1
			next.notes = append(next.notes, one)
		}
	}
	for k := range next.notes {
		if k+1 < len(next.notes) && next.notes[k].stop > next.notes[k+1].tick {
			next.notes[k].stop = noStop
		}
	}
	return next, laid, true
}

// arrivesAfter says whether a note of a pattern is a landing on a chord that arrives after a tick
// of the slot, or leads to one.
func (pc *planContext) arrivesAfter(p pattern, one patternNote, s phraseSlot, tick int) bool {
	for _, other := range p.notes {
		if other.arrival >= 0 && other.tick >= one.tick && pc.TargetTicks[other.arrival]-s.start > tick {
			return true
		}
	}
	return false
}

// landWithin makes one of the notes of a lick, from an index on, the landing on a chord that
// arrives: its own note where that is a tone of the chord. It says whether the note stays.
func (pc *planContext) landWithin(p *pattern, from int, due patternNote, arrives int, laid lickPattern) bool {
	beat := pc.Chart.Meter.BeatTicks()
	over := pc.Targets[due.arrival].Over
	for k := from; k < len(p.notes); k++ {
		one := &p.notes[k]
		until := one.stop
		if k+1 < len(p.notes) {
			until = min(until, p.notes[k+1].tick)
		}
		if one.tick < arrives-analysis.EarlyTicks || one.tick < arrives && until <= arrives || one.tick > arrives+beat {
			continue
		}
		one.arrival = due.arrival
		event := laid.eventOver(over, one.lickEvent)
		if event != nil && pc.Chords[over].Class[event.Sounding(pc.Instrument).Class()] == harmony.ChordTone {
			return true
		}
		one.lickEvent = -1
		return false
	}
	p.land(pc, dueLanding{index: due.arrival, arrives: arrives, tick: arrives})
	return false
}

// shifted are notes so many ticks later.
func shifted(events []phrase.Event, by int) []phrase.Event {
	all := slices.Clone(events)
	for n := range all {
		all[n].Tick += by
	}
	return all
}

// placedLick is a lick of the vocabulary as it lies in a window: over its own chord, and, once
// it is used, moved to each chord of the tune. It is worked out once for all candidates.
type placedLick struct {
	phrase phrase.Phrase
	moved  map[int]phrase.Phrase
}

type placedLickKey struct {
	lick   int
	window neck.Window
}

// placedLick is a lick set into a window; it has no notes where that has no room for it.
func (pc *planContext) placedLick(n int, w neck.Window) placedLick {
	at := placedLickKey{n, w}
	if known, ok := pc.licksPlaced[at]; ok {
		return known
	}
	one := placedLick{}
	l := pc.Licks[n]
	if setting, err := l.PlaceIn(pc.Instrument, pc.Chart.Key.Tonic.Class(), w); err == nil {
		if set, err := setting.Phrase.InMeter(pc.Chart.Meter); err == nil {
			one.phrase = set
		}
	}
	pc.licksPlaced[at] = one
	return one
}

// movedLicks is a set lick moved to each chord of the tune with its frets kept.
func (pc *planContext) movedLicks(n int, w neck.Window) map[int]phrase.Phrase {
	one := pc.placedLick(n, w)
	if one.moved != nil {
		return one.moved
	}
	one.moved = map[int]phrase.Phrase{}
	home, err := pc.Licks[n].TransposedTo(pc.Instrument, pc.Chart.Key.Tonic, w)
	if err != nil {
		pc.licksPlaced[placedLickKey{n, w}] = one
		return one.moved
	}
	for chord, over := range pc.Chords {
		if over.Chord.Root.Class() == home.Root() || len(one.phrase.Events) == 0 {
			continue
		}
		m := home.KeepFretsOver(pc.Instrument, pc.Chart.Key, over.Chord)
		if m.Refused != "" {
			continue
		}
		if moved, err := m.Phrase.InMeter(pc.Chart.Meter); err == nil && len(moved.Events) == len(one.phrase.Events) {
			one.moved[chord] = moved
		}
	}
	pc.licksPlaced[placedLickKey{n, w}] = one
	return one.moved
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
	for _, b := range c.Blocks {
		if b.Kind == chorus.LickBlock {
			return
		}
	}
	at := pc.Position
	pc.Concessions = append(pc.Concessions, chorus.Concession{Field: "licks", Text: fmt.Sprintf("none of the %d licks fits on frets %d to %d before a landing: the chorus is made of the box and the chords", len(pc.Licks), at.Low, at.High)})
}
