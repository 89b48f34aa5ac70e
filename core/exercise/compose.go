package exercise

import (
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
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

// laddersOf are the material and the ladders of a chord, one ladder for each area.
func (w *composer) laddersOf(chord harmony.Chord) (chordLadders, error) {
	if known, ok := w.known[chord.Identity()]; ok {
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
	w.known[chord.Identity()] = all
	return all, nil
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
	over, err := w.laddersOf(w.spans[n].chord)
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
	over, err := w.laddersOf(w.spans[n+1].chord)
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
