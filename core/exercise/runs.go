package exercise

import (
	"slices"

	"undaris/core/pitch"
)

// defaultRun is how many notes a run into a chord has, its landing counted.
const defaultRun = 5

// runsIntoChords plays runs that land on each next chord, counted back, and leaves the rest of
// the time silent. Over a single chord they land on its downbeats.
func (w *composer) runsIntoChords() error {
	notes := w.exercise.Time.Notes
	if notes == 0 {
		notes = defaultRun
	}
	changes := slices.ContainsFunc(w.spans, func(s span) bool { return !s.chord.Same(w.spans[0].chord) })
	if err := w.enter(0); err != nil {
		return err
	}
	w.walker.heard = w.walker.ladder()[w.walker.at].lowest()
	landed := -1
	for n := range w.spans[:len(w.spans)-1] {
		s, next := w.spans[n], w.spans[n+1]
		if changes && s.chord.Same(next.chord) {
			continue
		}
		over, err := w.laddersOf(s.chord)
		if err != nil {
			return err
		}
		into, err := w.laddersOf(next.chord)
		if err != nil {
			return err
		}
		ticks := s.ticks[max(len(s.ticks)-(notes-1), 0):]
		if landed == s.from && len(ticks) > 0 && ticks[0] == s.from {
			ticks = ticks[1:] // the landing is still being played
		}
		line, target := w.lineInto(over.ladders[0], w.landings(n+1, into.ladders[0]), len(ticks))
		w.endLanding(ticks, s.to)
		for k, r := range line {
			w.play(r, ticks[k:k+1], s.step)
		}
		w.play(target, []int{next.from}, min(2*next.beat, next.to-next.from))
		landed = next.from
	}
	if len(w.steps) == 0 {
		w.end(len(w.spans) - 1)
	}
	return nil
}

// endLanding ends the note that the last run landed on where the next run begins.
func (w *composer) endLanding(ticks []int, end int) {
	if len(w.steps) == 0 {
		return
	}
	if len(ticks) > 0 {
		end = ticks[0]
	}
	note := &w.steps[len(w.steps)-1].notes[0]
	note.ticks = min(note.ticks, end-note.tick)
}

// landings are the rungs of a chord that a run may land on: those of the start that is chosen,
// or its thirds; all where the chord has none of them here.
func (w *composer) landings(n int, ladder []rung) []rung {
	number := 3
	if start := w.exercise.Order.Start; start != NearestTone && start != "" && start != LowestNote {
		number = start.degree()
	}
	found := []rung{}
	tone, ok := chordToneNumbered(w.spans[n].chord, number)
	if number > 7 {
		scale, _ := w.chart.Key.ChordScale(w.spans[n].chord)
		tone, ok = toneNumbered(scale.Tones, number)
	}
	if ok {
		for _, r := range ladder {
			if r.lowest().Class() == tone.Note.Class() {
				found = append(found, r)
			}
		}
	}
	if len(found) == 0 {
		return ladder
	}
	return found
}

// lineInto is a line of so many rungs of a ladder that ends a step from one of the landings: the
// one that begins nearest to the last note heard, without striking it again. It turns where the
// ladder ends.
func (w *composer) lineInto(ladder, landings []rung, count int) ([]rung, rung) {
	best, bestTarget, least := []rung(nil), landings[0], -1
	for _, target := range landings {
		for _, side := range []int{-1, 1} {
			line, ok := stepsInto(ladder, target.lowest(), side, count)
			if !ok {
				continue
			}
			first := target.lowest()
			if count > 0 {
				first = line[0].lowest()
			}
			away := int(max(first-w.walker.heard, w.walker.heard-first))
			if away == 0 {
				away = farAway
			}
			if least < 0 || away < least {
				best, bestTarget, least = line, target, away
			}
		}
	}
	return best, bestTarget
}

// stepsInto are so many rungs that go step by step to the one beside a pitch, from below (-1) or
// from above (1); not where the ladder has none on that side.
func stepsInto(ladder []rung, target pitch.MIDI, side, count int) ([]rung, bool) {
	at := -1
	for n, r := range ladder {
		if side < 0 && r.lowest() < target || side > 0 && r.lowest() > target && at < 0 {
			at = n
		}
	}
	if at < 0 || len(ladder) < 2 && count > 1 {
		return nil, false
	}
	line := make([]rung, count)
	away := side
	for n := count - 1; n >= 0; n-- {
		line[n] = ladder[at]
		if at+away < 0 || at+away >= len(ladder) {
			away = -away
		}
		at += away
	}
	return line, true
}

// plainFigure is the figure of the first half of a bar where the player has typed none: the
// root, the tone above it, the one above that and back (ours).
var plainFigure = []int{1, 2, 3, 2}

// figureAndFill plays the figure from a root in the first half of a chord, and in the second a fill
// of its scale into the root of the next one. In the last chord the fill ends on its own root.
func (w *composer) figureAndFill(n int) error {
	s := w.spans[n]
	numbers := plainFigure
	if w.exercise.Order.Figure == OwnFigure {
		numbers = w.exercise.Order.Numbers
	}
	half := s.from + (s.to-s.from)/2
	split := slices.IndexFunc(s.ticks, func(tick int) bool { return tick >= half })
	if split < 0 {
		split = len(s.ticks)
	}
	ladder := w.walker.ladder()
	root := w.rootNear(n, ladder)
	for k, tick := range s.ticks[:split] {
		at := numbers[k%len(numbers)] - 1
		if root+at >= len(ladder) {
			at = -at // at the top of the area the figure goes down
		}
		if root+at < 0 || root+at >= len(ladder) {
			return contradiction("order.numbers", "step %d of the figure lies outside; over %s there are %d tones here", numbers[k%len(numbers)], s.chord.SignedSymbol(), len(ladder))
		}
		w.play(ladder[root+at], []int{tick}, s.step)
	}
	fill := s.ticks[split:]
	goal, goalSpan := ladder, n
	if n+1 < len(w.spans) {
		over, err := w.laddersOf(w.spans[n+1].chord)
		if err != nil {
			return err
		}
		goal, goalSpan = over.ladders[w.walker.area], n+1
	}
	scale, _ := w.chart.Key.ChordScale(s.chord)
	steps, err := w.areas[w.walker.area].ladder(material{tones: scale.Tones}, s.chord)
	if err != nil {
		return err
	}
	line, target := w.lineInto(steps, w.roots(goalSpan, goal), len(fill))
	for k, r := range line {
		w.play(r, fill[k:k+1], s.step)
	}
	w.walker.heard = target.lowest()
	if s.final >= 0 {
		w.play(target, []int{s.final}, s.to-s.final)
	}
	return nil
}

// roots are the rungs of a chord on its root; all where there is none here.
func (w *composer) roots(n int, ladder []rung) []rung {
	found := []rung{}
	for _, r := range ladder {
		if r.lowest().Class() == w.spans[n].chord.Root.Class() {
			found = append(found, r)
		}
	}
	if len(found) == 0 {
		return ladder
	}
	return found
}

// rootNear is the index of the root nearest to where the last fill was going, at first the
// lowest.
func (w *composer) rootNear(n int, ladder []rung) int {
	best, least := 0, -1
	for at, r := range ladder {
		if r.lowest().Class() != w.spans[n].chord.Root.Class() {
			continue
		}
		away := int(max(r.lowest()-w.walker.heard, w.walker.heard-r.lowest()))
		if n == 0 {
			away = at
		}
		if least < 0 || away < least {
			best, least = at, away
		}
	}
	return best
}
