package exercise

import (
	"slices"

	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/shortestpath"
)

// grip is a structure as it is played: its pitches, the lowest first, and their places.
type grip struct {
	rung   rung
	places []neck.Place
	// voices are the pitches that are led: all but the root of a shell.
	voices []pitch.MIDI
}

// The costs of structures, ours: a hand that moves little, a small stretch, voices that move by as
// little as they can, and a change of strings only where it pays.
const (
	costSpan         = 1
	costHandFret     = 1
	costOtherStrings = 4
	costVoiceStep    = 2
	costOpenGrip     = 2
	// Four frets in one hand.
	costWideGrip = 8
)

func (g grip) cost() int {
	cost := costSpan * spanned(g.places)
	if spanned(g.places) >= structureReach {
		cost += costWideGrip
	}
	for _, p := range g.places {
		if p.Fret == 0 {
			cost += costOpenGrip
		}
	}
	return cost
}

// hand is the lowest fretted fret, 0 where all strings are open.
func (g grip) hand() int {
	lowest := 0
	for _, p := range g.places {
		if p.Fret > 0 && (lowest == 0 || p.Fret < lowest) {
			lowest = p.Fret
		}
	}
	return lowest
}

// moveCost is what the hand does from one grip to the next.
func (g grip) moveCost(to grip) int {
	cost := costHandFret * max(g.hand()-to.hand(), to.hand()-g.hand())
	if !slices.EqualFunc(g.places, to.places, func(a, b neck.Place) bool { return a.String == b.String }) {
		cost += costOtherStrings
	}
	return cost
}

// leadCost adds what the voices do.
func (g grip) leadCost(to grip) int {
	cost := g.moveCost(to)
	for n := range min(len(g.voices), len(to.voices)) {
		cost += costVoiceStep * int(max(g.voices[n]-to.voices[n], to.voices[n]-g.voices[n]))
	}
	return cost
}

// structuresOfChords plays one structure a chord, each voice led to the nearest of the next chord
// (a shortest path over all of them), as often as the time has notes.
func (w *composer) structuresOfChords() error {
	layers := make([][]grip, len(w.spans))
	for n, s := range w.spans {
		over, err := w.laddersOf(s.chord)
		if err != nil {
			return err
		}
		layers[n] = w.grips(n, over.ladders[n%len(over.ladders)])
	}
	core := w.setting.Position.Core
	chosen, _ := shortestpath.Choose(layers, grip.cost, func(n int, from, to grip) int {
		cost := from.leadCost(to)
		if n == 1 { // the first is taken near the hand
			cost += max(from.hand()-core, core-from.hand())
		}
		return cost
	})
	for n, s := range w.spans {
		g := layers[n][chosen[n]]
		r := rung{pitches: g.rung.pitches, placings: [][]neck.Place{g.places}}
		length := w.length(r)
		for at := 0; at < len(s.ticks); at += length {
			w.play(r, s.ticks[at:min(at+length, len(s.ticks))], s.step)
		}
		if s.final >= 0 {
			index := together
			if w.exercise.isBroken() {
				index = w.lastIndex(r, s.chord)
			}
			w.steps = append(w.steps, step{rung: r, notes: []timedNote{{tick: s.final, ticks: s.to - s.final, index: index, slot: w.slots}}})
			w.slots++
		}
	}
	return nil
}

// grips are the ways to play the rungs of a chord's ladder: shells with the root on one of the two
// lowest strings and the rest on the two above them, guide tones on neighbouring
// strings above the two lowest (common practice), unless the player has chosen the strings or the place
// has none so.
func (w *composer) grips(n int, ladder []rung) []grip {
	root := w.spans[n].chord.Root.Class()
	all, usual := []grip{}, []grip{}
	for _, r := range ladder {
		for _, places := range r.placings {
			g := grip{rung: r, places: places}
			for _, p := range r.pitches {
				if w.exercise.Tones != Shells || p.Class() != root {
					g.voices = append(g.voices, p)
				}
			}
			if w.exercise.Tones == Shells { // thirds lead to sevenths, whichever lies higher
				slices.Sort(g.voices)
			}
			all = append(all, g)
			if w.isUsual(places) {
				usual = append(usual, g)
			}
		}
	}
	if len(usual) == 0 || w.exercise.Where.LowString != 0 {
		return all
	}
	return usual
}

func (w *composer) isUsual(places []neck.Place) bool {
	lowest := len(w.setting.Instrument.Open)
	switch w.exercise.Tones {
	case Shells:
		for _, p := range places[1:] {
			if p.String < lowest-3 || p.String > lowest-2 {
				return false
			}
		}
		return places[0].String >= lowest-1
	case GuideTones:
		return places[0].String == places[1].String+1 && places[0].String <= lowest-2
	}
	return true
}

// chooseGrips chooses how each step is played, at the least cost over all of them (exact).
func chooseGrips(steps []step) [][]neck.Place {
	layers := make([][]grip, len(steps))
	for n, s := range steps {
		for _, places := range s.rung.placings {
			layers[n] = append(layers[n], grip{rung: s.rung, places: places})
		}
	}
	chosen, _ := shortestpath.Choose(layers, grip.cost, func(_ int, from, to grip) int { return from.moveCost(to) })
	places := make([][]neck.Place, len(steps))
	for n, at := range chosen {
		places[n] = layers[n][at].places
	}
	return places
}
