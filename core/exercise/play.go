package exercise

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// indices are the notes of a rung in the order in which they are played one after the other.
func (w *composer) indices(r rung) []int {
	e := w.exercise
	order := make([]int, 0, len(r.pitches))
	if e.Order.Figure == OwnFigure && e.oneShapeAtATime() {
		for _, number := range e.Order.Numbers {
			order = append(order, number-1)
		}
	} else {
		for n := range r.pitches {
			order = append(order, n)
		}
	}
	if e.Tones.isOnePerChord() && e.Order.Figure != OwnFigure && len(order) > 2 {
		order = append(order, 1) // up and down again
	}
	if e.oneShapeAtATime() && (e.Order.Turn == Reversed || e.Order.Turn == Alternating && w.walker.figures%2 == 0) {
		slices.Reverse(order)
	}
	return order
}

// isBroken says whether the notes of a rung are played one after the other.
func (e Exercise) isBroken() bool { return e.Broken || e.Where.Kind == CellOnStrings }

// length is how many notes a rung takes in time.
func (w *composer) length(r rung) int {
	if len(r.pitches) == 1 || !w.exercise.isBroken() {
		return 1
	}
	return len(w.indices(r))
}

// play plays a rung at ticks, each note a step long.
func (w *composer) play(r rung, ticks []int, length int) {
	one := step{rung: r}
	if len(r.pitches) > 1 && w.exercise.isBroken() {
		order := w.indices(r)
		for n, tick := range ticks {
			one.notes = append(one.notes, timedNote{tick: tick, ticks: length, index: order[n%len(order)], slot: w.slots})
			w.slots++
		}
	} else {
		one.notes = []timedNote{{tick: ticks[0], ticks: length, index: together, slot: w.slots}}
		w.slots++
	}
	w.steps = append(w.steps, one)
	w.walker.heard = r.lowest()
}

// end plays the last note: the nearest root or third, held to the end of the form.
func (w *composer) end(n int) {
	s := w.spans[n]
	if s.final < 0 {
		return
	}
	heard := w.walker.heard
	best, least := rung{}, -1
	for _, r := range w.walker.ladder() {
		away := int(max(r.lowest()-heard, heard-r.lowest()))
		tone, ok := s.chord.Tone(r.lowest().Class())
		switch {
		case away == 0 && len(w.steps) > 0:
			away = farAway
		case !ok:
			away += farAway
		case tone.Degree.Number != 1 && tone.Degree.Number != 3:
			away += farAway / 2
		}
		if least < 0 || away < least {
			best, least = r, away
		}
	}
	if len(best.pitches) > 1 && w.exercise.isBroken() {
		w.steps = append(w.steps, step{rung: best, notes: []timedNote{{tick: s.final, ticks: s.to - s.final, index: w.lastIndex(best, s.chord), slot: w.slots}}})
	} else {
		w.steps = append(w.steps, step{rung: best, notes: []timedNote{{tick: s.final, ticks: s.to - s.final, index: together, slot: w.slots}}})
	}
	w.slots++
}

// farAway is more than any two notes of a neck lie apart, in half steps.
const farAway = 200

// lastIndex is the note of a rung that an exercise ends on: the chord's root, or where it has
// none the lowest that has not just been played.
func (w *composer) lastIndex(r rung, chord harmony.Chord) int {
	if root := slices.IndexFunc(r.pitches, func(p pitch.MIDI) bool { return p.Class() == chord.Root.Class() }); root >= 0 {
		return root
	}
	if len(w.steps) > 0 {
		before := w.steps[len(w.steps)-1]
		if notes := before.notes; slices.Equal(before.rung.pitches, r.pitches) && notes[len(notes)-1].index == 0 {
			return 1
		}
	}
	return 0
}
