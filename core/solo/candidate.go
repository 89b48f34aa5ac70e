package solo

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// sung is a phrase of a candidate: its onsets and the notes they became.
type sung struct {
	slot
	onsets []onset
	notes  []phrase.Event
	lick   string
	// fromLick says for each note whether it stands as in the lick.
	fromLick []bool
}

// candidate makes one chorus from a seed: phrases laid out, rhythms given, pitches chosen,
// played as hands play, cut into blocks.
func (g *ground) candidate(r *rand.Rand) (Chorus, error) {
	slots := g.slots(g.ticks)
	patterns := g.rhythms(slots, g.ticks, r)
	licks := g.lickPatterns(slots, patterns, r)
	phrases := make([]sung, len(slots))
	for n, s := range slots {
		phrases[n] = sung{slot: s, lick: licks[s.likeness].name}
		phrases[n].onsets = g.onsets(slots, n, patterns, licks)
	}
	below := g.climb(slots, phrases, patterns, r)
	motifs := map[string][]pitch.MIDI{}
	var last *phrase.Event
	for n := range phrases {
		p := &phrases[n]
		if len(p.onsets) == 0 {
			continue
		}
		if k := g.keptBefore(p.onsets[0].tick); k != nil && (last == nil || k.Tick > last.Tick) {
			last = k
		}
		follow(p.onsets, motifs[p.likeness])
		line := g.pitches(p.onsets, last, below, r)
		sounded := make([]pitch.MIDI, len(line))
		for m, c := range line {
			o := p.onsets[m]
			e := phrase.Event{Tick: o.tick, Ticks: o.ticks, Fingered: neck.Fingered{Place: c.place}}
			if c.own {
				e.Technique = o.from.Technique
			}
			p.notes = append(p.notes, e)
			p.fromLick = append(p.fromLick, c.own)
			sounded[m] = c.pitch
		}
		if _, known := motifs[p.likeness]; !known {
			motifs[p.likeness] = sounded
		}
		last = &p.notes[len(p.notes)-1]
	}
	g.play(phrases, r)
	for n := range phrases {
		if err := g.finger(phrases[n].notes); err != nil {
			return Chorus{}, err
		}
	}
	return g.blocks(phrases), nil
}

// follow asks a phrase for the intervals of the motif that it repeats.
func follow(onsets []onset, motif []pitch.MIDI) {
	for n := range onsets {
		onsets[n].like = unlike
		if n > 0 && n < len(motif) && len(motif) == len(onsets) {
			onsets[n].like = int(motif[n] - motif[n-1])
		}
	}
}

// onsets are the notes of a slot's phrase as its pattern has them, without those that a
// kept block stands over.
func (g *ground) onsets(slots []slot, n int, patterns map[string]pattern, licks map[string]lickPattern) []onset {
	s := slots[n]
	p := patterns[s.likeness]
	m := g.Chart.Meter
	beat := m.BeatTicks()
	next := slots[(n+1)%len(slots)]
	until := s.start + s.ticks + patterns[next.likeness].onsets[0]
	all := []onset{}
	for k, at := range p.onsets {
		tick := s.start + at
		o := onset{tick: tick, over: g.chordAt(tick), strong: m.Strong(tick), onBeat: tick%beat == 0, arrival: -1, like: unlike,
			window: g.PositionAt(tick).Window, blend: g.blendAt(tick), held: k == p.held}
		switch {
		case k == p.held:
			air := max(int(g.Space*float64(s.ticks)), int(leastAir*float64(beat)))
			o.ticks = min(max(until-air-tick, int(shortestHold*float64(beat))), int(longestHold*float64(beat)))
			o.ticks = max(min(o.ticks, until-beat-tick), beat/2)
		default:
			o.ticks = p.onsets[k+1] - at
			if stop, stopped := p.stops[k]; stopped {
				o.ticks = min(o.ticks, stop-at)
			}
		}
		for _, a := range s.arrivals {
			// The first note of a phrase may land late.
			if late := tick - g.ticks[a]; late == 0 || k == 0 && late > 0 && late <= eighth {
				o.arrival = a
			}
		}
		if events := licks[s.likeness].over(o.over); k < len(events) && events[k] != nil && events[k].Fret >= o.window.Low && events[k].Fret <= o.window.High {
			o.from = events[k]
		}
		if g.free(&o) {
			all = append(all, o)
		}
	}
	if last := len(all) - 1; last >= 0 && all[last].held {
		switch {
		case s.answer:
			all[last].ends = answering
		case g.Form == QuestionAnswer:
			all[last].ends = asking
		}
	}
	for k := range all {
		o := &all[k]
		o.gap = k == 0 || 2*(o.tick-all[k-1].tick-all[k-1].ticks) >= beat
		last := k == len(all)-1
		o.rests = o.ticks >= beat || last || 2*(all[k+1].tick-o.tick-o.ticks) >= beat
		if !last && all[k+1].arrival >= 0 && !o.rests {
			o.leads = 1
			if k > 0 && !all[k-1].rests && all[k-1].arrival < 0 && o.arrival < 0 {
				all[k-1].leads = 2
			}
		}
	}
	for k := range all {
		o := &all[k]
		if o.from != nil && (o.arrival >= 0 || o.leads == 1 || g.ownCost(*o, o.from.Sounding(g.Instrument).Class(), false) >= never) {
			o.from = nil // the tail of the lick is turned towards the landing
		}
	}
	return all
}

// free says whether an onset lies outside the kept blocks, and ends it where one begins.
func (g *ground) free(o *onset) bool {
	for _, b := range g.Kept {
		if o.tick >= b.Start && o.tick < b.End() {
			return false
		}
		if o.tick < b.Start && o.tick+o.ticks > b.Start {
			o.ticks = b.Start - o.tick
		}
	}
	return o.ticks >= g.Chart.Meter.BeatTicks()/8
}

// keptBefore is the last note of the kept blocks before a tick.
func (g *ground) keptBefore(tick int) *phrase.Event {
	var last *phrase.Event
	for _, b := range g.Kept {
		for n := range b.Notes {
			if b.Notes[n].Tick < tick {
				last = &b.Notes[n]
			}
		}
	}
	return last
}

// depths are how far below the middle of the range a motif may lie, in semitones (ours: so
// that a chorus does not stay on the thin strings).
var depths = []float64{0, 0, 3, 7}

// climb gives every onset its place in the contour: each sentence a little higher until
// the climax past the middle, the one highest note there. It returns the pitch that the
// other notes stay below.
func (g *ground) climb(slots []slot, phrases []sung, patterns map[string]pattern, r *rand.Rand) pitch.MIDI {
	n := len(slots)
	climax := n/2 + r.IntN(max((n+1)/2-1, 1))
	climax = min(climax, n-1)
	deep := map[string]float64{}
	for _, s := range slots {
		if _, known := deep[s.likeness]; !known {
			deep[s.likeness] = depths[r.IntN(len(depths))]
		}
	}
	for k := range phrases {
		low, high := g.reach(g.PositionAt(slots[k].start).Window)
		middle := float64(low+high)/2 + float64(r.IntN(5)) - 1
		near := 1 - float64(max(k-climax, climax-k))/float64(max(climax, n-climax))
		middle += 4 * near
		if k != climax {
			middle -= deep[slots[k].likeness]
		}
		spread := 4 + 2*r.Float64()
		curve := patterns[slots[k].likeness].curve
		onsets := phrases[k].onsets
		for m := range onsets {
			t := float64(m) / float64(max(len(onsets)-1, 1))
			onsets[m].want = middle + spread*curve.at(t)
			if slots[k].answer && m == len(onsets)-1 {
				onsets[m].want = middle - 3
			}
		}
	}
	return g.peak(slots, phrases, climax, r)
}

// reach is the range of pitches that lines mostly lie in: from the fourth string up.
func (g *ground) reach(w neck.Window) (low, high pitch.MIDI) {
	strings := len(g.Instrument.Open)
	low = g.Instrument.Pitch(neck.Place{String: min(4, strings), Fret: w.Core})
	high = g.Instrument.Pitch(neck.Place{String: 1, Fret: w.CoreEnd})
	return low, high
}

// peak makes one onset of the climax the highest note of the chorus.
func (g *ground) peak(slots []slot, phrases []sung, climax int, r *rand.Rand) pitch.MIDI {
	top := pitch.MIDI(128)
	half := g.Chart.Ticks() / 2
	at, best := -1, 0.0
	onsets := phrases[climax].onsets
	for m, o := range onsets {
		if o.tick > half && o.arrival < 0 && o.from == nil && !(m == len(onsets)-1 && slots[climax].answer) && (at < 0 || o.want > best) {
			at, best = m, o.want
		}
	}
	if at < 0 {
		return top
	}
	o := &onsets[at]
	o.leads = 0
	heights := []pitch.MIDI{}
	above := pitch.MIDI(0) // the notes of licks, which stay as they are
	for _, p := range phrases {
		for _, other := range p.onsets {
			if other.from != nil {
				above = max(above, other.from.Sounding(g.Instrument))
			}
		}
	}
	for _, c := range g.allPlaces(o.window) {
		class := c.pitch.Class()
		if c.pitch > above && c.place.Fret > 0 && g.ownCost(*o, class, false) < never && g.chords[o.over].class[class] != harmony.Outside && !slices.Contains(heights, c.pitch) {
			heights = append(heights, c.pitch)
		}
	}
	slices.Sort(heights)
	slices.Reverse(heights)
	if len(heights) == 0 {
		return top
	}
	top = heights[r.IntN(min(3, len(heights)))]
	o.peak, o.want = true, float64(top)
	for m := range onsets {
		if m != at {
			away := max(m-at, at-m)
			onsets[m].want = max(onsets[m].want, float64(top)-3*float64(away))
		}
	}
	return top
}

// pitches chooses the places of a phrase that goes on from a note.
func (g *ground) pitches(onsets []onset, last *phrase.Event, below pitch.MIDI, r *rand.Rand) []choice {
	layers := [][]choice{}
	all := onsets
	if last != nil {
		layers = append(layers, []choice{{place: last.Place, pitch: last.Sounding(g.Instrument)}})
		all = append([]onset{{tick: last.Tick, ticks: last.Ticks, over: g.chordAt(last.Tick), arrival: -1, like: unlike, window: g.PositionAt(last.Tick).Window}}, onsets...)
	}
	for _, o := range onsets {
		found := g.choices(o, below, r)
		if o.peak {
			found = slices.DeleteFunc(found, func(c choice) bool { return c.pitch != below })
			for _, c := range g.allPlaces(o.window) {
				if len(found) == 0 && c.pitch == below && c.place.Fret > 0 {
					found = append(found, c)
				}
			}
		}
		if len(found) == 0 { // nothing is allowed here: the nearest of the box or chord
			found = g.anything(o)
		}
		layers = append(layers, found)
	}
	for n := range layers {
		over := &g.chords[all[n].over]
		for k := range layers[n] {
			c := &layers[n][k]
			is := over.class[c.pitch.Class()]
			c.outside = is == harmony.Outside
			c.restless = c.outside || is == harmony.Blue
			c.rests = is == harmony.Home || is == harmony.Colour
		}
	}
	line, _ := cheapestLine(layers,
		func(n int, a, b *choice) int { return g.moveCost(a, b, &all[n-1], &all[n]) },
		func(n int, a, b, c *choice) int { return turnCost(a, b, c, &all[n-1], &all[n]) })
	chosen := make([]choice, 0, len(onsets))
	for n, at := range line {
		chosen = append(chosen, layers[n][at])
	}
	return chosen[len(chosen)-len(onsets):]
}

// anything is the places of the onset's own chord, whatever the rules say.
func (g *ground) anything(o onset) []choice {
	found := []choice{}
	for _, c := range g.allPlaces(o.window) {
		if g.chords[o.over].class[c.pitch.Class()] == harmony.Home {
			c.cost = g.contourCost(o, c.pitch)
			found = append(found, c)
		}
	}
	if len(found) == 0 {
		found = append(found, g.allPlaces(o.window)[0])
	}
	return found
}

// finger gives a phrase its fingers, its places as they are.
func (g *ground) finger(events []phrase.Event) error {
	for from := 0; from < len(events); {
		at := g.PositionAt(events[from].Tick)
		to := from
		wanted := []neck.Wanted{}
		for to < len(events) && g.PositionAt(events[to].Tick) == at {
			e := &events[to]
			wanted = append(wanted, neck.Wanted{Pitch: g.Instrument.Pitch(e.Place), At: &e.Place, Bend: e.Bend})
			to++
		}
		fingered, _, err := neck.FingerPhrase(g.Instrument, at.Window, wanted)
		if err != nil {
			return fmt.Errorf("fingering bar %d: %w", events[from].Tick/g.Chart.Meter.BarTicks()+1, err)
		}
		for n, f := range fingered {
			events[from+n].Fingered = f
		}
		from = to
	}
	return nil
}
