package planner

import (
	"math/rand/v2"
	"slices"
	"sort"

	"undaris/core/chart"
)

// longestHold is how long the last note of a phrase sounds at most, in beats (ours).
const longestHold = 4

// lengthenHolds lengthens the last notes of phrases by half beats, at random, until no more is
// silent than is asked for. Between phrases half a beat of silence stays.
func (pc *planContext) lengthenHolds(phrases []draftPhrase, r *rand.Rand) {
	silent := pc.Length
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
	asked := int(pc.Space * float64(pc.Length))
	for len(open) > 0 {
		at := r.IntN(len(open))
		n := open[at]
		o := &phrases[n].onsets[len(phrases[n].onsets)-1]
		beat, step := o.beat, o.beat/2
		if beat%(chart.TicksPerQuarter) != 0 {
			step = beat / 3
		}
		if silent-step < asked {
			break
		}
		if end := o.tick + o.ticks + step; end > pc.Length || end > pc.soundsFrom(phrases, n)-beat/2 || end > pc.nextChange(*o) || o.ticks+step > longestHold*beat {
			open = slices.Delete(open, at, at+1)
			continue
		}
		o.ticks += step
		silent -= step
	}
}

// nextChange is when the next chord arrives that an onset is no landing on.
func (pc *planContext) nextChange(o onset) int {
	n := sort.SearchInts(pc.TargetTicks, o.tick+1)
	if n < len(pc.TargetTicks) && n == o.arrival {
		n++
	}
	if n < len(pc.TargetTicks) {
		return pc.TargetTicks[n]
	}
	return pc.Length
}

// soundsFrom is when something begins after the nth phrase: the next one, in this chorus or the
// next time round, or a kept block.
func (pc *planContext) soundsFrom(phrases []draftPhrase, n int) int {
	end := phrases[n].onsets[len(phrases[n].onsets)-1].tick
	next := 2 * pc.Length
	for k := 1; k <= len(phrases); k++ {
		round, at := (n+k)/len(phrases), (n+k)%len(phrases)
		if onsets := phrases[at].onsets; len(onsets) > 0 {
			next = onsets[0].tick + round*pc.Length
			break
		}
	}
	for _, b := range pc.Kept {
		if b.Start > end {
			next = min(next, b.Start)
		}
	}
	return next
}
