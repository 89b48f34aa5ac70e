package lesson

import (
	"fmt"
	"slices"

	"undaris/core/analysis"
	"undaris/core/floor"
	"undaris/core/lick"
	"undaris/core/phrase"
)

// Step is what is played again and again until it is clean: the notes from a tick up to, but not at,
// another.
type Step struct {
	Title    string
	From, To int
}

// leastOfPart is how many notes a part has at least (our choice: fewer are no phrase).
const leastOfPart = 3

// Parts cuts a lick at the ticks where its parts begin: at its breaths, or where it has none, at its
// bars, or where it has one bar, in the middle where it has notes enough. The ticks are in order, the
// first that of its first note.
func Parts(l lick.Lick) []int {
	events := l.Phrase.Events
	if len(events) == 0 {
		return nil
	}
	starts := []int{}
	for _, span := range analysis.PhraseSpans(l.Phrase) {
		starts = append(starts, events[span.From].Tick)
	}
	if len(starts) == 1 {
		starts = starts[:0]
		bar, last := l.Phrase.Meter.BarTicks(), -1
		for _, e := range events {
			if in, _ := floor.Divide(e.Tick, bar); in != last || len(starts) == 0 {
				starts = append(starts, e.Tick)
				last = in
			}
		}
	}
	starts = withoutShort(l, starts)
	if len(starts) == 1 && len(events) >= 2*leastOfPart {
		beat := l.Phrase.Meter.BeatTicks()
		middle := events[len(events)/2].Tick
		// On the beat nearest to the middle, so that either half can be counted in.
		for _, e := range events[leastOfPart : len(events)-leastOfPart+1] {
			if e.Tick%beat == 0 && distance(e.Tick, events[len(events)/2].Tick) <= beat {
				middle = e.Tick
				break
			}
		}
		starts = append(starts, middle)
	}
	return starts
}

func distance(a, b int) int { return max(a-b, b-a) }

// withoutShort leaves out the beginnings of parts that have too few notes: those go with the part
// before, the first with the next.
func withoutShort(l lick.Lick, starts []int) []int {
	kept := []int{starts[0]}
	for n := 1; n < len(starts); n++ {
		until := int(^uint(0) >> 1)
		if n+1 < len(starts) {
			until = starts[n+1]
		}
		if notesIn(l, kept[len(kept)-1], starts[n]) >= leastOfPart && notesIn(l, starts[n], until) >= leastOfPart {
			kept = append(kept, starts[n])
		}
	}
	return kept
}

func notesIn(l lick.Lick, from, to int) int {
	count := 0
	for _, e := range l.Phrase.Events {
		if e.Tick >= from && e.Tick < to {
			count++
		}
	}
	return count
}

// Steps are how a lick is learned that is cut at ticks: each part, then all up to it joined, the whole
// at last. Cuts that are no beginning of a note are moved to the next note; without cuts it is cut by
// Parts.
func Steps(l lick.Lick, cuts []int) []Step {
	events := l.Phrase.Events
	if len(events) == 0 {
		return nil
	}
	if len(cuts) == 0 {
		cuts = Parts(l)
	}
	starts := []int{events[0].Tick}
	for _, cut := range slices.Sorted(slices.Values(cuts)) {
		n := slices.IndexFunc(events, func(e phrase.Event) bool { return e.Tick >= cut })
		if n > 0 && events[n].Tick > starts[len(starts)-1] {
			starts = append(starts, events[n].Tick)
		}
	}
	end := 0
	for _, e := range events {
		end = max(end, e.End())
	}
	steps := []Step{}
	for n, from := range starts {
		to := end
		if n+1 < len(starts) {
			to = starts[n+1]
		}
		if len(starts) > 1 {
			steps = append(steps, Step{fmt.Sprintf("part %d of %d", n+1, len(starts)), from, to})
		}
		if n > 0 && n+1 < len(starts) {
			steps = append(steps, Step{fmt.Sprintf("parts 1 to %d", n+1), starts[0], to})
		}
	}
	return append(steps, Step{"the whole", starts[0], end})
}

// Ladder is the tempos that a lick is taken through, from half the goal up to it: steps of a
// twentieth of the goal, at least two beats a minute (our choice: a step that is noticed, and can be
// made).
func Ladder(goal int) []int {
	step := max(goal/20, 2)
	tempos := []int{}
	for tempo := max(goal/2, 1); tempo < goal; tempo += step {
		tempos = append(tempos, tempo)
	}
	return append(tempos, goal)
}
