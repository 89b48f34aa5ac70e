package planner

import (
	"math/rand/v2"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// bendKind is a bend of the key: the degrees it goes from and to, in semitones above the tonic.
type bendKind struct{ from, to int }

// Degrees above the tonic, in semitones.
const (
	tonic      = 0
	second     = 2
	minorThird = 3
	third      = 4
	fourth     = 5
	fifth      = 7
	sixth      = 9
	minorSeven = 10
)

// bendsOver are the bends that are played over the chords on the tonic, the fourth and the
// fifth of the key (common): over I 4 to 5, b7 to R and 2 to 3 or, in minor, b3; over IV 2 to
// b3, which is its b7, 5 to 6, its 3, and 4 to 5; over V 4 to 5, and its 2 stays straight.
var bendsOver = map[int][]bendKind{
	tonic:  {{fourth, fifth}, {minorSeven, tonic}, {second, third}, {second, minorThird}},
	fourth: {{second, minorThird}, {fifth, sixth}, {fourth, fifth}, {minorSeven, tonic}},
	fifth:  {{fourth, fifth}},
}

// otherBends are those over any other chord of the key.
var otherBends = []bendKind{{fourth, fifth}, {minorSeven, tonic}}

// How a chorus is bent (ours): so many bends, at least half of them a beat long; how often one
// is let back where the line goes on downwards, or bent before it is struck after a rest. A
// whole step is bent from the fourth fret on: nearer the nut the string is too stiff.
const (
	fewestBends   = 3
	mostBends     = 6
	oftenReleased = 0.5
	oftenPreBent  = 0.25
	oftenCurled   = 0.5
	lowestBend    = 4
)

// possibleBend is a bend that a note may be played with.
type possibleBend struct {
	note         int
	kind         bendKind
	place        neck.Place
	quarterTones int
	long         bool
}

// addBends bends notes of a chorus: three to six, of two kinds where there are two, half of
// them a beat or longer.
func (pc *planContext) addBends(all []plannedNote, r *rand.Rand) {
	if pc.NoBends {
		return
	}
	bent, long := 0, 0
	kinds := map[bendKind]bool{}
	for _, e := range all {
		if e.Bend > 1 {
			bent++
			kinds[pc.bendKindOf(e)] = true
			if e.Ticks >= e.onset.beat {
				long++
			}
		}
	}
	possible := pc.possibleBends(all)
	r.Shuffle(len(possible), func(a, b int) { possible[a], possible[b] = possible[b], possible[a] })
	wanted := fewestBends + r.IntN(mostBends-fewestBends)
	for bent < wanted && len(possible) > 0 {
		best := 0
		value := func(p possibleBend) int {
			v := 0
			if all[p.note].onset.peak {
				v += 8
			}
			if !kinds[p.kind] {
				v += 2
				if len(kinds) == 1 {
					v += 4
				}
			}
			if p.long == (2*long <= bent) {
				v += 3
			}
			return v
		}
		for n := range possible {
			if value(possible[n]) > value(possible[best]) {
				best = n
			}
		}
		chosen := possible[best]
		possible = slices.Delete(possible, best, best+1)
		if !chosen.long && 2*long < bent+1 && bent >= fewestBends {
			continue
		}
		if !pc.bend(all, chosen, r) {
			continue
		}
		bent++
		kinds[chosen.kind] = true
		if chosen.long {
			long++
		}
	}
	if len(kinds) == 1 && bent > 1 {
		pc.varyBends(all)
	}
	pc.addCurls(all, mostBends-bent, r)
}

// varyBends lets one of several bends of one kind back, or bends one before it is struck, where
// none is.
func (pc *planContext) varyBends(all []plannedNote) {
	longest := -1
	for n, e := range all {
		if e.Release || e.PreBend {
			return
		}
		if e.Bend > 1 && !e.asLick && (longest < 0 || e.Ticks > all[longest].Ticks) {
			longest = n
		}
	}
	if longest < 0 {
		return
	}
	e := all[longest]
	if e.onset.arrival < 0 && !e.onset.peak && longest+1 < len(all) && !all[longest+1].onset.repeat {
		e.Release = true
		return
	}
	e.PreBend = true
}

// addCurls bends blue notes of the box by a quarter tone, so many at most.
func (pc *planContext) addCurls(all []plannedNote, most int, r *rand.Rand) {
	for n, e := range all {
		if most < 1 {
			return
		}
		if e.asLick || e.Bend > 0 || e.Fret == 0 || pc.Chords[e.onset.over].Class[e.Sounding(pc.Instrument).Class()] != harmony.Blue || r.Float64() >= oftenCurled {
			continue
		}
		if n+1 < len(all) && all[n+1].asLick && (all[n+1].HammerOn || all[n+1].PullOff) {
			continue
		}
		e.Bend = 1
		most--
	}
}

// bendKindOf is the kind of a bend that is there.
func (pc *planContext) bendKindOf(e plannedNote) bendKind {
	return bendKind{pc.aboveTonic(e, pc.Instrument.Pitch(e.Place)), pc.aboveTonic(e, e.Sounding(pc.Instrument))}
}

// aboveTonic is how many semitones a pitch lies above the tonic of the key at a note, 0 to 11.
func (pc *planContext) aboveTonic(at plannedNote, p pitch.MIDI) int {
	return int(p.Class().Above(pc.Chords[at.onset.over].Key.Tonic.Class()))
}

// possibleBends are the bends that the notes may be played with, at places where hands bend:
// on the three thin strings, and for a whole step by the second or third finger, since the
// first alone is too weak.
func (pc *planContext) possibleBends(all []plannedNote) []possibleBend {
	found := []possibleBend{}
	for n, e := range all {
		beat := e.onset.beat
		if e.asLick || e.onset.repeat || e.Bend > 0 || 2*e.Ticks < beat {
			continue
		}
		goal := e.Sounding(pc.Instrument)
		for _, kind := range pc.bendKindsOver(e.onset.over) {
			if kind.to != pc.aboveTonic(e, goal) {
				continue
			}
			up := (kind.to - kind.from + 12) % 12
			for s := 1; s <= min(3, len(pc.Instrument.Open)); s++ {
				at := neck.Place{String: s, Fret: int(goal) - up - int(pc.Instrument.Open[s-1])}
				if pc.canBend(all, n, at, up) {
					found = append(found, possibleBend{n, kind, at, 2 * up, e.Ticks >= beat})
					break
				}
			}
		}
	}
	return found
}

// bendKindsOver are the bends over one of the chords.
func (pc *planContext) bendKindsOver(chord int) []bendKind {
	root := int(pc.Chords[chord].Chord.Root.Class().Above(pc.Chords[chord].Key.Tonic.Class()))
	if kinds, ok := bendsOver[root]; ok {
		return kinds
	}
	return otherBends
}

// canBend says whether the nth note can be bent up so many semitones from a place.
func (pc *planContext) canBend(all []plannedNote, n int, at neck.Place, up int) bool {
	e := all[n]
	w := e.onset.window
	lowest := max(w.Core+1, 2)
	if up > 1 {
		lowest = max(w.Core+1, lowestBend)
	}
	if at.Fret < lowest || at.Fret > w.High || neck.MostBend(at) < 2*up {
		return false
	}
	for _, k := range []int{n - 1, n + 1} {
		if k < 0 || k >= len(all) {
			continue
		}
		near := all[k]
		if !pc.WithinSpan(near.Place, at) || near.Sounding(pc.Instrument) == e.Sounding(pc.Instrument) && !near.onset.repeat {
			return false
		}
		if near.String == at.String && near.Tick < e.End() && e.Tick < near.End() {
			return false
		}
		// What slurs from it or to it would not lie on the string.
		if near.asLick && (near.HammerOn || near.PullOff) && k > n {
			return false
		}
	}
	return true
}

// bend plays a note with a bend, and with it the notes that strike its pitch again. It says
// whether it could.
func (pc *planContext) bend(all []plannedNote, b possibleBend, r *rand.Rand) bool {
	e := all[b.note]
	if e.Bend > 0 || !pc.canBend(all, b.note, b.place, b.quarterTones/2) {
		return false
	}
	again := b.note + 1
	for again < len(all) && all[again].onset.repeat && all[again].Sounding(pc.Instrument) == e.Sounding(pc.Instrument) && !all[again].asLick {
		again++
	}
	e.Place, e.Bend = b.place, b.quarterTones
	for k := b.note + 1; k < again; k++ {
		all[k].Place, all[k].Bend, all[k].PreBend = b.place, b.quarterTones, true
	}
	goesDown := again < len(all) && !all[again].onset.gap && all[again].Sounding(pc.Instrument) <= pc.Instrument.Pitch(b.place)
	switch {
	case b.note == again-1 && goesDown && e.onset.arrival < 0 && !e.onset.peak && r.Float64() < oftenReleased:
		e.Release = true
	case e.onset.gap && b.long && r.Float64() < oftenPreBent:
		e.PreBend = true
	}
	return true
}
