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
type draftPhrase struct {
	phraseSlot
	onsets []onset
	notes  []phrase.Event
	lick   string
	// fromLick says for each note whether it stands as in the lick.
	fromLick []bool
}

// candidate makes one chorus from a seed: phrases laid out, rhythms given, pitches chosen,
// played as hands play, cut into blocks.
func (pc *PlanContext) candidate(r *rand.Rand) (Chorus, error) {
	slots := pc.slots(pc.ticks)
	patterns := pc.rhythms(slots, pc.ticks, r)
	licks := pc.lickPatterns(slots, patterns, r)
	phrases := make([]draftPhrase, len(slots))
	for n, s := range slots {
		phrases[n] = draftPhrase{phraseSlot: s, lick: licks[s.motifID].name}
		phrases[n].onsets = pc.onsets(slots, n, patterns, licks)
	}
	below := pc.setContour(slots, phrases, patterns, r)
	motifs := map[string][]pitch.MIDI{}
	var last *phrase.Event
	for n := range phrases {
		p := &phrases[n]
		if len(p.onsets) == 0 {
			continue
		}
		if k := pc.keptBefore(p.onsets[0].tick); k != nil && (last == nil || k.Tick > last.Tick) {
			last = k
		}
		followMotif(p.onsets, motifs[p.motifID])
		line := pc.pitches(p.onsets, last, below, r)
		sounded := make([]pitch.MIDI, len(line))
		for m, c := range line {
			o := p.onsets[m]
			e := phrase.Event{Tick: o.tick, Ticks: o.ticks, Fingered: neck.Fingered{Place: c.place}}
			if c.own {
				e.Technique = o.lickNote.Technique
			}
			p.notes = append(p.notes, e)
			p.fromLick = append(p.fromLick, c.own)
			sounded[m] = c.pitch
		}
		if _, known := motifs[p.motifID]; !known {
			motifs[p.motifID] = sounded
		}
		last = &p.notes[len(p.notes)-1]
	}
	pc.addTechniques(phrases, r)
	for n := range phrases {
		if err := pc.finger(phrases[n].notes); err != nil {
			return Chorus{}, err
		}
	}
	return pc.blocks(phrases), nil
}

// followMotif asks a phrase for the intervals of the motif that it repeats.
func followMotif(onsets []onset, motif []pitch.MIDI) {
	for n := range onsets {
		onsets[n].motifInterval = noMotifInterval
		if n > 0 && n < len(motif) && len(motif) == len(onsets) {
			onsets[n].motifInterval = int(motif[n] - motif[n-1])
		}
	}
}

// onsets are the notes of a slot's phrase as its pattern has them, without those that a
// kept block stands over.
func (pc *PlanContext) onsets(slots []phraseSlot, n int, patterns map[string]pattern, licks map[string]lickPattern) []onset {
	s := slots[n]
	p := patterns[s.motifID]
	m := pc.Chart.Meter
	beat := m.BeatTicks()
	next := slots[(n+1)%len(slots)]
	until := s.start + s.ticks + patterns[next.motifID].onsets[0]
	all := []onset{}
	for k, at := range p.onsets {
		tick := s.start + at
		o := onset{tick: tick, over: pc.chordAt(tick), strong: m.IsStrong(tick), onBeat: tick%beat == 0, arrival: -1, motifInterval: noMotifInterval,
			window: pc.PositionAt(tick).Window, blend: pc.blendAt(tick), held: k == p.held}
		switch {
		case k == p.held:
			air := max(int(pc.Space*float64(s.ticks)), int(leastAir*float64(beat)))
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
			if late := tick - pc.ticks[a]; late == 0 || k == 0 && late > 0 && late <= eighth {
				o.arrival = a
			}
		}
		if events := licks[s.motifID].eventsOver(o.over); k < len(events) && events[k] != nil && events[k].Fret >= o.window.Low && events[k].Fret <= o.window.High {
			o.lickNote = events[k]
		}
		if pc.outsideKept(&o) {
			all = append(all, o)
		}
	}
	if last := len(all) - 1; last >= 0 && all[last].held {
		switch {
		case s.answer:
			all[last].ends = endsAsAnswer
		case pc.Form == QuestionAnswer:
			all[last].ends = endsAsQuestion
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
		if o.lickNote != nil && (o.arrival >= 0 || o.leads == 1 || pc.ownCost(*o, o.lickNote.Sounding(pc.Instrument).Class(), false) >= never) {
			o.lickNote = nil // the tail of the lick is turned towards the landing
		}
	}
	return all
}

// free says whether an onset lies outside the kept blocks, and ends it where one begins.
func (pc *PlanContext) outsideKept(o *onset) bool {
	for _, b := range pc.Kept {
		if o.tick >= b.Start && o.tick < b.End() {
			return false
		}
		if o.tick < b.Start && o.tick+o.ticks > b.Start {
			o.ticks = b.Start - o.tick
		}
	}
	return o.ticks >= pc.Chart.Meter.BeatTicks()/8
}

// keptBefore is the last note of the kept blocks before a tick.
func (pc *PlanContext) keptBefore(tick int) *phrase.Event {
	var last *phrase.Event
	for _, b := range pc.Kept {
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
func (pc *PlanContext) setContour(slots []phraseSlot, phrases []draftPhrase, patterns map[string]pattern, r *rand.Rand) pitch.MIDI {
	n := len(slots)
	climax := n/2 + r.IntN(max((n+1)/2-1, 1))
	climax = min(climax, n-1)
	deep := map[string]float64{}
	for _, s := range slots {
		if _, known := deep[s.motifID]; !known {
			deep[s.motifID] = depths[r.IntN(len(depths))]
		}
	}
	for k := range phrases {
		low, high := pc.pitchRange(pc.PositionAt(slots[k].start).Window)
		middle := float64(low+high)/2 + float64(r.IntN(5)) - 1
		near := 1 - float64(max(k-climax, climax-k))/float64(max(climax, n-climax))
		middle += 4 * near
		if k != climax {
			middle -= deep[slots[k].motifID]
		}
		spread := 4 + 2*r.Float64()
		curve := patterns[slots[k].motifID].curve
		onsets := phrases[k].onsets
		for m := range onsets {
			t := float64(m) / float64(max(len(onsets)-1, 1))
			onsets[m].want = middle + spread*curve.at(t)
			if slots[k].answer && m == len(onsets)-1 {
				onsets[m].want = middle - 3
			}
		}
	}
	return pc.setHighNote(slots, phrases, climax, r)
}

// reach is the range of pitches that lines mostly lie in: from the fourth string up.
func (pc *PlanContext) pitchRange(w neck.Window) (low, high pitch.MIDI) {
	strings := len(pc.Instrument.Open)
	low = pc.Instrument.Pitch(neck.Place{String: min(4, strings), Fret: w.Core})
	high = pc.Instrument.Pitch(neck.Place{String: 1, Fret: w.CoreEnd})
	return low, high
}

// peak makes one onset of the climax the highest note of the chorus.
func (pc *PlanContext) setHighNote(slots []phraseSlot, phrases []draftPhrase, climax int, r *rand.Rand) pitch.MIDI {
	top := pitch.MIDI(128)
	half := pc.Chart.Ticks() / 2
	at, best := -1, 0.0
	onsets := phrases[climax].onsets
	for m, o := range onsets {
		if o.tick > half && o.arrival < 0 && o.lickNote == nil && !(m == len(onsets)-1 && slots[climax].answer) && (at < 0 || o.want > best) {
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
			if other.lickNote != nil {
				above = max(above, other.lickNote.Sounding(pc.Instrument))
			}
		}
	}
	for _, c := range pc.allPlaces(o.window) {
		class := c.pitch.Class()
		if c.pitch > above && c.place.Fret > 0 && pc.ownCost(*o, class, false) < never && pc.Chords[o.over].class[class] != harmony.Outside && !slices.Contains(heights, c.pitch) {
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
func (pc *PlanContext) pitches(onsets []onset, last *phrase.Event, below pitch.MIDI, r *rand.Rand) []placeChoice {
	layers := [][]placeChoice{}
	all := onsets
	if last != nil {
		layers = append(layers, []placeChoice{{place: last.Place, pitch: last.Sounding(pc.Instrument)}})
		all = append([]onset{{tick: last.Tick, ticks: last.Ticks, over: pc.chordAt(last.Tick), arrival: -1, motifInterval: noMotifInterval, window: pc.PositionAt(last.Tick).Window}}, onsets...)
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
			is := over.class[c.pitch.Class()]
			c.outside = is == harmony.Outside
			c.restless = c.outside || is == harmony.Blue
			c.rests = is == harmony.ChordTone || is == harmony.Colour
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

// anything is the places of the onset's own chord, whatever the rules say.
func (pc *PlanContext) fallbackChoices(o onset) []placeChoice {
	found := []placeChoice{}
	for _, c := range pc.allPlaces(o.window) {
		if pc.Chords[o.over].class[c.pitch.Class()] == harmony.ChordTone {
			c.cost = pc.contourCost(o, c.pitch)
			found = append(found, c)
		}
	}
	if len(found) == 0 {
		found = append(found, pc.allPlaces(o.window)[0])
	}
	return found
}

// finger gives a phrase its fingers, its places as they are.
func (pc *PlanContext) finger(events []phrase.Event) error {
	for from := 0; from < len(events); {
		at := pc.PositionAt(events[from].Tick)
		to := from
		wanted := []neck.NoteToPlace{}
		for to < len(events) && pc.PositionAt(events[to].Tick) == at {
			e := &events[to]
			wanted = append(wanted, neck.NoteToPlace{Pitch: pc.Instrument.Pitch(e.Place), At: &e.Place, Bend: e.Bend})
			to++
		}
		fingered, _, err := neck.FingerPhrase(pc.Instrument, at.Window, wanted)
		if err != nil {
			return fmt.Errorf("fingering bar %d: %w", events[from].Tick/pc.Chart.Meter.BarTicks()+1, err)
		}
		for n, f := range fingered {
			events[from+n].Fingered = f
		}
		from = to
	}
	return nil
}
