package planner

import (
	"math/rand/v2"
	"slices"
)

// longestHold is how long the last note of a phrase sounds at most, in beats (ours).
const longestHold = 4

// lengthenHolds lengthens the last notes of phrases by half beats, at random, until no more is
// silent than is asked for. Between phrases half a beat of silence stays.
func (pc *planContext) lengthenHolds(phrases []draftPhrase, r *rand.Rand) {
	beat := pc.Chart.Meter.BeatTicks()
	step := beat / 2
	if pc.Chart.Meter.Compound() {
		step = beat / 3
	}
	silent := pc.Chart.Ticks()
	for _, p := range phrases {
		for _, o := range p.onsets {
			silent -= o.ticks
		}
	}
	for _, b := range pc.Kept {
		for _, e := range b.Notes {
			silent -= e.Ticks
		}
	}
	open := []int{}
	for n := range phrases {
		if last := len(phrases[n].onsets) - 1; last >= 0 && phrases[n].onsets[last].held {
			open = append(open, n)
		}
	}
	asked := int(pc.Space * float64(pc.Chart.Ticks()))
	for silent-step >= asked && len(open) > 0 {
		at := r.IntN(len(open))
		n := open[at]
		o := &phrases[n].onsets[len(phrases[n].onsets)-1]
		if end := o.tick + o.ticks + step; end > pc.Chart.Ticks() || end > pc.soundsFrom(phrases, n)-beat/2 || end > pc.nextChange(*o) || o.ticks+step > longestHold*beat {
			open = slices.Delete(open, at, at+1)
			continue
		}
		o.ticks += step
		silent -= step
	}
}

// nextChange is when the next chord arrives that an onset is no landing on.
func (pc *planContext) nextChange(o onset) int {
	next := 2 * pc.Chart.Ticks()
	for n, tick := range pc.TargetTicks {
		for _, at := range []int{tick, tick + pc.Chart.Ticks()} {
			if at > o.tick && n != o.arrival {
				next = min(next, at)
			}
		}
	}
	return next
}

// soundsFrom is when something begins after the nth phrase.
func (pc *planContext) soundsFrom(phrases []draftPhrase, n int) int {
	end := phrases[n].onsets[len(phrases[n].onsets)-1].tick
	next := 2 * pc.Chart.Ticks()
	for k := range phrases {
		if len(phrases[k].onsets) == 0 {
			continue
		}
		for _, first := range []int{phrases[k].onsets[0].tick, phrases[k].onsets[0].tick + pc.Chart.Ticks()} {
			if first > end {
				next = min(next, first)
			}
		}
	}
	for _, b := range pc.Kept {
		if b.Start > end {
			next = min(next, b.Start)
		}
	}
	return next
}
