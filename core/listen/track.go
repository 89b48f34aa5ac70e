package listen

import "math"

// What it costs to go from one pitch to another, in nats (our choice, tuned on plucked strings by
// computation; see docs/takes.md).
const (
	// glideCost is for a semitone of movement within a frame, up to glideMost: bends and slides.
	glideCost = 4.0
	glideMost = 0.6
	// jumpCost is for any other change of pitch; at an onset it is jumpAtOnset.
	jumpCost    = 6.0
	jumpAtOnset = 2.5
	// voicingCost is for beginning or ceasing to have a pitch.
	voicingCost = 3.0
	// nonePrior is how much likelier it is that a frame has a pitch than that a doubtful one has none.
	nonePrior = 0.4
	// rarest keeps what is unlikely from being impossible.
	rarest = 0.004
)

// onsetFlux is the flux from which a frame may lie at an onset.
const onsetFlux = 12.0

// tracker follows the likeliest pitch through the frames: a hidden Markov model whose states are the pitches
// that a frame may have, and none (Viterbi; the lattice of candidates after Talkin, "A robust algorithm for
// pitch tracking", 1995). A frame is decided as soon as every way that may yet win agrees on it, or after
// decideAfter frames, so that it makes no difference in what pieces the sound comes.
type tracker struct {
	open []step
	// steady counts frames since the last attempt to decide.
	steady int
}

// step is a frame that is not decided yet.
type step struct {
	frame frame
	costs []float64 // of each candidate, and last of no pitch
	back  []int     // the state of the frame before
}

// pitchFrame is a frame with its pitch.
type pitchFrame struct {
	pitch float64 // NaN without one
	depth float64 // the difference function there; 1 without a pitch
	level float64
	flux  float64
	floor float64
}

const (
	tryEvery    = 4
	decideAfter = 120
	decideUntil = 60
)

// add takes a frame in and appends the frames that are decided by it.
func (t *tracker) add(f frame, into []pitchFrame) []pitchFrame {
	states := len(f.candidates) + 1
	s := step{frame: f, costs: make([]float64, states), back: make([]int, states)}
	for n := range s.costs {
		s.costs[n] = ownCost(f, n)
	}
	if len(t.open) > 0 {
		before := t.open[len(t.open)-1]
		for n := range s.costs {
			best, from := math.Inf(1), 0
			for m, cost := range before.costs {
				if c := cost + change(before.frame, m, f, n); c < best {
					best, from = c, m
				}
			}
			s.costs[n] += best
			s.back[n] = from
		}
	}
	t.open = append(t.open, s)
	t.steady++
	if t.steady < tryEvery {
		return into
	}
	t.steady = 0
	return t.decide(into)
}

// ownCost is what a state of a frame costs by itself: a pitch, by its place among the candidates, or none.
func ownCost(f frame, state int) float64 {
	if state < len(f.candidates) {
		return -math.Log(f.candidates[state].share + rarest)
	}
	none := 1.0
	for _, c := range f.candidates {
		none -= c.share
	}
	return -math.Log(nonePrior*math.Max(none, 0) + rarest)
}

// change is what it costs to go from a state of one frame to a state of the next.
func change(before frame, m int, f frame, n int) float64 {
	voicedBefore, voicedNow := m < len(before.candidates), n < len(f.candidates)
	switch {
	case voicedBefore != voicedNow:
		return voicingCost
	case !voicedNow:
		return 0
	}
	jump := jumpCost
	if f.flux > onsetFlux || before.flux > onsetFlux {
		jump = jumpAtOnset
	}
	if distance := math.Abs(before.candidates[m].pitch - f.candidates[n].pitch); distance <= glideMost {
		return math.Min(glideCost*distance, jump)
	}
	return jump
}

// decide appends the frames on which all ways agree.
func (t *tracker) decide(into []pitchFrame) []pitchFrame {
	last := len(t.open) - 1
	ways := map[int]bool{}
	for n := range t.open[last].costs {
		ways[n] = true
	}
	at := last
	for ; at > 0 && len(ways) > 1; at-- {
		earlier := map[int]bool{}
		for n := range ways {
			earlier[t.open[at].back[n]] = true
		}
		ways = earlier
	}
	if len(ways) == 1 && at > 0 {
		for state := range ways {
			if at == last { // what follows goes on from it
				at, state = at-1, t.open[at].back[state]
			}
			return t.settle(at, state, into)
		}
	}
	if len(t.open) > decideAfter {
		state := t.stateAt(decideUntil, cheapest(t.open[last].costs))
		// Only ways through the settled state may win from here on.
		for n := range t.open[last].costs {
			if t.stateAt(decideUntil, n) != state {
				t.open[last].costs[n] = math.Inf(1)
			}
		}
		return t.settle(decideUntil, state, into)
	}
	return into
}

// stateAt is the state of an earlier open frame on the way to a state of the last one.
func (t *tracker) stateAt(earlier, state int) int {
	for at := len(t.open) - 1; at > earlier; at-- {
		state = t.open[at].back[state]
	}
	return state
}

// flush decides what is left.
func (t *tracker) flush(into []pitchFrame) []pitchFrame {
	if len(t.open) == 0 {
		return into
	}
	last := len(t.open) - 1
	return t.settle(last, cheapest(t.open[last].costs), into)
}

// settle appends the frames up to one, which is in a state, and forgets them.
func (t *tracker) settle(at, state int, into []pitchFrame) []pitchFrame {
	path := make([]int, at+1)
	for n := at; n >= 0; n-- {
		path[n] = state
		state = t.open[n].back[state]
	}
	for n, state := range path {
		into = append(into, t.open[n].frame.decidedAs(state))
	}
	t.open = append([]step(nil), t.open[at+1:]...)
	return into
}

func cheapest(costs []float64) int {
	best := 0
	for n, c := range costs {
		if c < costs[best] {
			best = n
		}
	}
	return best
}

// decidedAs is the frame with one of its states.
func (f frame) decidedAs(state int) pitchFrame {
	if state >= len(f.candidates) {
		return pitchFrame{pitch: math.NaN(), depth: 1, level: f.level, flux: f.flux, floor: f.floor}
	}
	return pitchFrame{pitch: f.candidates[state].pitch, depth: f.candidates[state].depth, level: f.level, flux: f.flux, floor: f.floor}
}
