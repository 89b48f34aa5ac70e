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

// lickPattern is a lick as the beginning of a phrase, over each chord that it may come
// over: its notes by the onset of the pattern, nil where the pattern goes its own way.
type lickPattern struct {
	name   string
	events []*phrase.Event
	moved  map[int][]*phrase.Event
}

// eventsOver is the notes over a chord.
func (l lickPattern) eventsOver(chord int) []*phrase.Event {
	if moved, ok := l.moved[chord]; ok {
		return moved
	}
	return l.events
}

// leastOfLick is how many notes of a lick must stand for it to be that lick; of one in how
// many it may clash with the chord where it begins a phrase (ours).
const (
	leastOfLick = 3
	mostClashes = 4
)

// lickPatterns begins the phrases of each motif with a lick of the vocabulary that fits
// there, and changes the pattern to its rhythm. What has no lick keeps its own.
func (pc *planContext) lickPatterns(slots []phraseSlot, patterns map[string]pattern, r *rand.Rand) map[string]lickPattern {
	found := map[string]lickPattern{}
	if !pc.FromLicks {
		return found
	}
	request := r.Perm(len(pc.Licks))
	used := map[int]bool{}
	for _, s := range slots {
		if _, made := found[s.motifID]; made {
			continue
		}
		for pass := range 2 {
			for _, n := range request {
				if used[n] && pass == 0 {
					continue
				}
				p, l, ok := pc.beginWithLick(n, s, slots, patterns[s.motifID])
				if !ok {
					continue
				}
				used[n] = true
				patterns[s.motifID], found[s.motifID] = p, l
				break
			}
			if _, made := found[s.motifID]; made {
				break
			}
		}
	}
	return found
}

// beginWithLick lays a lick at the start of a slot, up to the landing that the pattern is held on.
func (pc *planContext) beginWithLick(n int, s phraseSlot, slots []phraseSlot, p pattern) (pattern, lickPattern, bool) {
	m := pc.Chart.Meter
	beat, step := m.BeatTicks(), pc.Subdivision.Ticks(m)
	set := pc.placedLick(n, pc.PositionAt(s.start).Window).phrase
	if len(set.Events) == 0 || set.Events[0].Tick < -beat {
		return p, lickPattern{}, false
	}
	l := pc.Licks[n]
	hold := p.onsets[p.held]
	if set.Events[0].Tick < 0 && p.onsets[0] > set.Events[0].Tick {
		return p, lickPattern{}, false // there is no room for its pickup
	}
	must := []int{}
	for _, other := range slots {
		if other.motifID == s.motifID {
			for _, a := range other.arrivals {
				must = append(must, pc.TargetTicks[a]-other.start)
			}
		}
	}
	must = append(must, hold)
	slices.Sort(must)
	must = slices.Compact(must)
	laid := lickPattern{name: l.Name, moved: map[int][]*phrase.Event{}}
	next := pattern{stops: map[int]int{}, curve: p.curve}
	add := func(tick int, e *phrase.Event) {
		next.onsets = append(next.onsets, tick)
		laid.events = append(laid.events, e)
	}
	kept, clashes := 0, 0
	if set.Events[0].Tick >= 0 { // a lick without a pickup may be led into
		for _, at := range p.onsets {
			if at < 0 {
				add(at, nil)
			}
		}
	}
	for k, e := range set.Events {
		for len(must) > 0 && must[0] <= e.Tick {
			if must[0] == e.Tick {
				break
			}
			add(must[0], nil)
			must = must[1:]
		}
		if len(must) == 0 || e.Tick >= hold || (len(next.onsets) > 0 && e.Tick-next.onsets[len(next.onsets)-1] < step/2) || e.Grace {
			continue
		}
		if must[0] == e.Tick {
			must = must[1:]
		} else if must[0]-e.Tick < step/2 {
			continue
		}
		own := e
		if k+1 < len(set.Events) && set.Events[k+1].Tick == e.Tick {
			return p, lickPattern{}, false // a double stop: one line at a time
		}
		add(e.Tick, &own)
		kept++
		if is := pc.Chords[pc.ChordAt(s.start+e.Tick)].Class[e.Sounding(pc.Instrument).Class()]; is == harmony.Outside || is == harmony.Suspension {
			clashes++
		}
		if k+1 < len(set.Events) && e.End() < set.Events[k+1].Tick {
			next.stops[len(next.onsets)-1] = e.End()
		}
	}
	for _, tick := range must {
		// From the end of the lick to the landing the line goes on in the pattern's rhythm.
		for _, at := range p.onsets {
			if len(next.onsets) > 0 && at > next.onsets[len(next.onsets)-1] && at < tick && at-next.onsets[len(next.onsets)-1] >= step {
				add(at, nil)
			}
		}
		add(tick, nil)
	}
	next.held = len(next.onsets) - 1
	if kept < leastOfLick || clashes*mostClashes > kept || next.onsets[next.held] != hold || next.held < analysis.LeastMotifNotes-1 {
		return p, lickPattern{}, false
	}
	pc.offerOverChords(n, pc.PositionAt(s.start).Window, &laid)
	return next, laid, true
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

// offerOverChords offers the notes of a laid lick over other chords: its frets kept, what clashes
// altered.
func (pc *planContext) offerOverChords(n int, w neck.Window, laid *lickPattern) {
	set := pc.placedLick(n, w)
	for chord, moved := range pc.movedLicks(n, w) {
		events := slices.Clone(laid.events)
		for k, e := range laid.events {
			if e == nil {
				continue
			}
			for at, old := range set.phrase.Events {
				if old.Tick == e.Tick {
					own := moved.Events[at]
					own.Tick, own.Ticks = e.Tick, e.Ticks
					events[k] = &own
				}
			}
		}
		laid.moved[chord] = events
	}
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
