package planner

import (
	"math/rand/v2"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
	"undaris/core/solo/chorus"
)

// draftPhrase is a phrase of a candidate: its onsets and the notes they became.
type draftPhrase struct {
	phraseSlot
	onsets []onset
	notes  []phrase.Event
	lick   string
	// fromLick says for each note whether it stands as in the lick.
	fromLick []bool
	// with are for each note those that are played with it: grace notes before it, and what
	// is struck together with it.
	with [][]phrase.Event
}

// candidate makes one chorus from a seed: phrases laid out, rhythms given, pitches chosen,
// played as hands play, cut into blocks.
func (pc *planContext) candidate(r *rand.Rand) (chorus.Chorus, error) {
	slots := pc.slots(r)
	patterns := pc.patterns(slots, r)
	licks := pc.lickPatterns(slots, patterns, r)
	phrases := make([]draftPhrase, len(slots))
	for n, s := range slots {
		phrases[n] = draftPhrase{phraseSlot: s, lick: licks[n].name}
		phrases[n].onsets = pc.onsets(slots, n, patterns, licks[n])
	}
	pc.lengthenHolds(phrases, r)
	pc.assignLandings(phrases)
	for n := range phrases {
		pc.setRoles(phrases[n].onsets)
	}
	below := pc.setContour(slots, phrases, patterns, r)
	for n := range phrases {
		pc.setRoles(phrases[n].onsets) // the climax may have taken the place of its neighbours
	}
	motifs := map[string]motif{}
	if len(pc.Part.Motif) > 0 {
		first := motif{}
		for _, e := range pc.Part.Motif {
			first[e.Tick-slots[0].start] = e.Sounding(pc.Instrument)
		}
		motifs[slots[0].motifID] = first
	}
	var last *phrase.Event
	for n := range phrases {
		p := &phrases[n]
		if len(p.onsets) == 0 {
			continue
		}
		if k := pc.keptBefore(p.onsets[0].tick); k != nil && (last == nil || k.Tick > last.Tick) {
			last = k
		}
		motifs[p.motifID].follow(p.phraseSlot, p.onsets)
		line := pc.pitches(p.onsets, last, below, r)
		for m, c := range line {
			o := p.onsets[m]
			e := phrase.Event{Tick: o.tick, Ticks: o.ticks, Fingered: neck.Fingered{Place: c.place}}
			if c.own {
				e.Technique = o.lickNote.Technique
			}
			p.addWith(e, o, c.own)
			p.notes = append(p.notes, e)
			p.fromLick = append(p.fromLick, c.own)
		}
		if _, known := motifs[p.motifID]; !known {
			motifs[p.motifID] = motifOf(p.phraseSlot, line, p.onsets)
		}
		last = &p.notes[len(p.notes)-1]
	}
	pc.addTechniques(phrases, r)
	for k := range phrases {
		p := &phrases[k]
		if err := pc.Finger(p.notes); err != nil {
			return chorus.Chorus{}, err
		}
		for n, with := range p.with {
			if len(with) > 0 { // fingered together, as the lick has it
				p.notes[n].Finger = p.onsets[n].lickNote.Finger
			}
		}
		next := []phrase.Event{}
		if k+1 < len(phrases) {
			next = phrases[k+1].notes
		}
		pc.addDoubleStops(p, next, r)
	}
	return pc.blocks(phrases), nil
}

// addWith keeps the notes that a lick has together with one of its notes. They end with it; the
// note before makes room for a grace note.
func (p *draftPhrase) addWith(e phrase.Event, o onset, own bool) {
	var with []phrase.Event
	if own {
		for _, other := range o.lickWith {
			if other.Grace {
				if n := len(p.notes) - 1; n >= 0 && p.notes[n].End() > other.Tick {
					p.notes[n].Ticks = other.Tick - p.notes[n].Tick
				}
			} else {
				other.Tick, other.Ticks = e.Tick, min(other.Ticks, e.Ticks)
			}
			with = append(with, other)
		}
	}
	p.with = append(p.with, with)
}

// motif is the pitches of a phrase by their ticks from the start of its slot.
type motif map[int]pitch.MIDI

func motifOf(s phraseSlot, line []placeChoice, onsets []onset) motif {
	m := motif{}
	for n, c := range line {
		m[onsets[n].tick-s.start] = c.pitch
	}
	return m
}

// follow asks a phrase for the intervals of the motif that it repeats, as far as both go together.
func (m motif) follow(s phraseSlot, onsets []onset) {
	for n := range onsets {
		onsets[n].motifInterval = noMotifInterval
		if n == 0 {
			continue
		}
		was, before := m[onsets[n-1].tick-s.start]
		is, here := m[onsets[n].tick-s.start]
		if before && here {
			onsets[n].motifInterval = int(is - was)
		}
	}
}

// pitches chooses the places of a phrase that goes on from a note.
func (pc *planContext) pitches(onsets []onset, last *phrase.Event, below pitch.MIDI, r *rand.Rand) []placeChoice {
	layers := [][]placeChoice{}
	all := onsets
	if last != nil {
		layers = append(layers, []placeChoice{{place: last.Place, pitch: last.Sounding(pc.Instrument)}})
		all = append([]onset{{tick: last.Tick, ticks: last.Ticks, over: pc.ChordAt(last.Tick), arrival: -1, motifInterval: noMotifInterval, window: pc.PositionAt(last.Tick).Window}}, onsets...)
	}
	for _, o := range onsets {
		found := pc.choices(o, below, r)
		if o.peak {
			found = slices.DeleteFunc(found, func(c placeChoice) bool { return c.pitch != below })
			for _, c := range pc.allPlaces(o.window) {
				if len(found) == 0 && c.pitch == below && c.place.Fret > 0 {
					found = append(found, c)
				}
			}
		}
		if len(found) == 0 { // nothing is allowed here: the nearest of the box or chord
			found = pc.fallbackChoices(o)
		}
		layers = append(layers, found)
	}
	for n := range layers {
		over := &pc.Chords[all[n].over]
		for k := range layers[n] {
			c := &layers[n][k]
			is := over.Class[c.pitch.Class()]
			c.outside = is == harmony.Outside
			c.restless = c.outside || is == harmony.Blue
			c.tone = is == harmony.ChordTone
			c.leans = is == harmony.Colour || is == harmony.Suspension
			c.rests = c.tone || is == harmony.Colour
		}
	}
	line, _ := cheapestLine(layers,
		func(n int, a, b *placeChoice) int { return pc.moveCost(a, b, &all[n-1], &all[n]) },
		func(n int, a, b, c *placeChoice) int { return turnCost(a, b, c, &all[n-1], &all[n]) })
	chosen := make([]placeChoice, 0, len(onsets))
	for n, at := range line {
		chosen = append(chosen, layers[n][at])
	}
	return chosen[len(chosen)-len(onsets):]
}

// fallbackChoices is the places of the onset's own chord, whatever the rules say.
func (pc *planContext) fallbackChoices(o onset) []placeChoice {
	found := []placeChoice{}
	for _, c := range pc.allPlaces(o.window) {
		if pc.Chords[o.over].Class[c.pitch.Class()] == harmony.ChordTone {
			c.cost = pc.contourCost(o, c.pitch)
			found = append(found, c)
		}
	}
	if len(found) == 0 {
		found = append(found, pc.allPlaces(o.window)[0])
	}
	return found
}
