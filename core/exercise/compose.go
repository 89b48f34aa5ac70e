package exercise

import (
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// step is a rung and when its notes are played.
type step struct {
	rung  rung
	notes []timedNote
}

// timedNote is when a note of a rung is played, or all of them together.
type timedNote struct {
	tick, ticks int
	// index is the note's of the rung, from the lowest; together for all.
	index int
	// slot counts the notes of the exercise, for accents.
	slot int
}

// together is the index of a note that stands for the whole rung.
const together = -1

// composer writes an exercise note by note.
type composer struct {
	exercise Exercise
	setting  Setting
	chart    chart.Chart
	areas    []area
	spans    []span
	walker   walker
	// planned is the walker as it has decided to enter the next chord; nil before it has.
	planned *walker
	steps   []step
	slots   int
	// known are the ladders and materials of the chords so far, by symbol.
	known       map[string]chordLadders
	concessions []string
}

type chordLadders struct {
	material material
	ladders  [][]rung
}

// span is a chord and the ticks at which notes may begin.
type span struct {
	chord    harmony.Chord
	from, to int
	ticks    []int
	// step is how long a note is; final is where the last note of the exercise begins, -1 where
	// another chord follows.
	step, final int
}

// spansOf are the chords that are walked over, with the places of their notes.
func (e Exercise) spansOf(c chart.Chart) ([]span, error) {
	first, bars := e.Over.bars(c)
	start := first * c.Meter.BarTicks()
	end := start + bars*c.Meter.BarTicks()
	length, err := e.Time.ticks(c.Meter)
	if err != nil {
		return nil, err
	}
	spans := []span{}
	for _, m := range c.ChordSpans() {
		from, to := max(m.Tick, start), min(m.Tick+m.Ticks, end)
		if from >= to {
			continue
		}
		s := span{chord: m.Chord, from: from - start, to: to - start, step: to - from, final: -1}
		if length > 0 {
			s.step = length
		}
		spans = append(spans, s)
	}
	slots := 0
	for n := range spans {
		s := &spans[n]
		if n == len(spans)-1 && !e.Time.NoEnding && e.Time.Subdivision != OncePerChord {
			s.final = max(s.to-c.Meter.BeatTicks(), s.from)
			if s.final == s.from && s.to-s.from > s.step {
				s.final = s.to - s.step
			}
		}
		for tick := s.from; tick < s.to && (s.final < 0 || tick < s.final); tick += s.step {
			if e.Time.Rest == 0 || slots%(e.Time.Play+e.Time.Rest) < e.Time.Play {
				s.ticks = append(s.ticks, tick)
			}
			slots++
		}
	}
	return spans, nil
}

// over are the material and the ladders of a chord.
func (w *composer) over(chord harmony.Chord) (chordLadders, error) {
	if known, ok := w.known[chord.Symbol()]; ok {
		return known, nil
	}
	m, err := w.exercise.material(w.chart, chord)
	if err != nil {
		return chordLadders{}, err
	}
	all := chordLadders{material: m}
	for _, a := range w.areas {
		ladder, err := a.ladder(m, chord)
		if err != nil {
			return chordLadders{}, err
		}
		if w.exercise.Ornaments.SkipStrings {
			ladder = skippingStrings(ladder)
		}
		all.ladders = append(all.ladders, ladder)
	}
	if m.concession != "" {
		w.concessions = append(w.concessions, m.concession)
	}
	w.known[chord.Symbol()] = all
	return all, nil
}

// skippingStrings is a ladder with a string left out between every two: 6 4 5 3 4 2 3 1.
func skippingStrings(ladder []rung) []rung {
	byString := [neck.MaxStrings + 1][]rung{}
	highest, lowest := neck.MaxStrings, 1
	for _, r := range ladder {
		s := r.placings[0][0].String
		byString[s] = append(byString[s], r)
		highest, lowest = min(highest, s), max(lowest, s)
	}
	if lowest-highest < 2 {
		return ladder
	}
	order := []rung{}
	for s := lowest; s-2 >= highest; s-- {
		order = append(append(order, byString[s]...), byString[s-2]...)
	}
	return order
}

// compose writes all chords.
func (w *composer) compose() error {
	switch {
	case w.exercise.Time.Pattern == CountedBack:
		return w.runsIntoChords()
	case w.exercise.Tones.isOnePerChord() || w.exercise.Tones.IsStructure() && w.exercise.Time.Subdivision == OncePerChord:
		return w.structuresOfChords()
	}
	for n := range w.spans {
		if err := w.enter(n); err != nil {
			return err
		}
		var err error
		if w.exercise.Time.Pattern == FigureAndFill {
			err = w.figureAndFill(n)
		} else {
			err = w.through(n)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// enter brings the walker to a chord.
func (w *composer) enter(n int) error {
	if w.planned != nil {
		w.walker, w.planned = *w.planned, nil
		return nil
	}
	over, err := w.over(w.spans[n].chord)
	if err != nil {
		return err
	}
	return w.walker.arrive(n, w.spans[n].chord, over.material, over.ladders)
}

// plan decides where the next chord is entered from where the walk is now, and returns the first
// rung there; nothing after the last chord, and before one that is left out.
func (w *composer) plan(n int) (rung, bool, error) {
	if n+1 >= len(w.spans) || len(w.spans[n+1].ticks) == 0 {
		return rung{}, false, nil
	}
	next := w.walker
	next.queue = slices.Clone(w.walker.queue)
	over, err := w.over(w.spans[n+1].chord)
	if err != nil {
		return rung{}, false, err
	}
	if err := next.arrive(n+1, w.spans[n+1].chord, over.material, over.ladders); err != nil {
		return rung{}, false, err
	}
	w.planned = &walker{}
	*w.planned = next
	w.planned.queue = slices.Clone(next.queue)
	return next.next(), true, nil
}

// through fills a chord with the walk, and ends it as is wished.
func (w *composer) through(n int) error {
	s := w.spans[n]
	last := n == len(w.spans)-1
	reserved := 0
	switch {
	case last:
	case w.exercise.Ornaments.Tail != "":
		reserved = 2
	case w.exercise.Into == ChromaticInto:
		reserved = 3
	case w.exercise.Into == FromBelow || w.exercise.Into == FromAbove:
		reserved = 1
	}
	if w.exercise.Ornaments.Tail != "" && last {
		reserved = 2
	}
	if reserved >= len(s.ticks) {
		reserved = 0
	}
	w.walkOver(n, s.ticks[:len(s.ticks)-reserved])
	rest := s.ticks[len(s.ticks)-reserved:]
	ending := []rung{}
	switch {
	case reserved == 0:
	case w.exercise.Ornaments.Tail != "":
		ending = w.tail(n)
	default:
		target, ok, err := w.plan(n)
		if err != nil {
			return err
		}
		if ok {
			ending = w.leadInto(target.lowest(), reserved)
		}
	}
	// What could not be led is walked.
	w.walkOver(n, rest[:len(rest)-len(ending)])
	for k, r := range ending {
		w.play(r, rest[len(rest)-len(ending)+k:][:1], s.step)
	}
	if last {
		w.end(n)
	}
	return nil
}

// walkOver walks on through the given ticks of a chord.
func (w *composer) walkOver(n int, ticks []int) {
	s := w.spans[n]
	for len(ticks) > 0 {
		heard := w.walker.heard
		r := w.walker.next()
		if before := w.before(n, r, heard); len(before) > 0 && len(before) < len(ticks) {
			for _, b := range before {
				w.play(b, ticks[:1], s.step)
				ticks = ticks[1:]
			}
		}
		used := min(w.length(r), len(ticks))
		w.play(r, ticks[:used], s.step)
		ticks = ticks[used:]
		w.walker.heard = r.lowest()
	}
}

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
