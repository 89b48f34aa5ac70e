package listen

import "math"

// How the pitch of a note is followed while other strings ring on (our choice, tuned on plucked strings by
// computation).
const (
	// curveEvery is how many frames lie between the spectra it is read from.
	curveEvery = 2
	// curveReach is how many steps of a pitch it may move to either side: six semitones.
	curveReach = 6 * pitchSteps
	// curveFastest is how many steps it moves from one spectrum to the next at most.
	curveFastest = 30
	// curveGlide is what a step costs, in salience.
	curveGlide = 0.03
	// curveShortFrom is the pitch from which a short piece of sound tells pitches apart.
	curveShortFrom = 50.0
	curveLong      = 2700 // samples
	// movedLeast is how many semitones away it has moved, for movedSpectra at least, where it is so salient, and so much
	// more than the pitch that it began with.
	movedLeast    = 0.3
	movedSpectra  = 5
	movedSalience = 0.35
	movedBeyond   = 0.15
)

// curve follows the pitch of a note that was struck while other strings rang, from its onset to a frame: a value a
// frame, as a MIDI number. Each spectrum less the one before the onset is what the note brings; the likeliest way
// through their saliences is its pitch (Viterbi). Where that does not clearly move, the pitch stays as it began.
func (v *noveltyDetector) curve(f *frames, struck onset, begins float64, to int) []float64 {
	curve := make([]float64, to-struck.frame)
	for n := range curve {
		curve[n] = begins
	}
	length := noveltyShort
	if begins < curveShortFrom {
		length = curveLong
	}
	half := length/2/Hop + 1
	lowest := int(math.Round((begins-lowestPitch)*pitchSteps)) - curveReach
	lowest = max(lowest, 0)
	highest := min(lowest+2*curveReach, len(kernels)-1)
	middle := int(math.Round(struck.seconds * Rate))
	v.before = v.spectrum(f.cut(middle-noveltyLag/2-length, length), v.before)
	way := glide{}
	for k := struck.frame + half; k+half < to; k += curveEvery {
		v.after = v.spectrum(f.cut(k*Hop-length/2, length), v.after)
		way.add(v.saliences(lowest, highest))
	}
	steps := way.best(begins, lowest)
	if len(steps) < 2 || !way.moves(steps, begins, lowest) {
		return curve
	}
	for n := range curve {
		at := math.Max(0, math.Min(float64(len(steps)-1), float64(n-half)/curveEvery))
		whole := min(int(at), len(steps)-2)
		d := at - float64(whole)
		curve[n] = way.pitch(whole, steps[whole], lowest)*(1-d) + way.pitch(whole+1, steps[whole+1], lowest)*d
	}
	return curve
}

// saliences are those of the pitches between two steps in what the spectrum after has that the one before has not.
func (v *noveltyDetector) saliences(lowest, highest int) []float64 {
	total := 0.0
	for n := range v.after {
		more := math.Max(0, v.after[n]-v.before[n])
		v.after[n] = math.Sqrt(more)
		total += more
	}
	all := make([]float64, highest-lowest+1)
	if total <= 0 {
		return all
	}
	for n := range all {
		all[n] = kernels[lowest+n].over(v.after) / math.Sqrt(total)
	}
	return all
}

// glide is the saliences of the pitches at each spectrum, through which the likeliest way is looked for.
type glide struct {
	saliences [][]float64
}

func (g *glide) add(saliences []float64) { g.saliences = append(g.saliences, saliences) }

// best is the way of most salience, less what its movement costs, as a step of each spectrum.
func (g *glide) best(begins float64, lowest int) []int {
	if len(g.saliences) == 0 {
		return nil
	}
	states := len(g.saliences[0])
	first := (begins-lowestPitch)*pitchSteps - float64(lowest)
	scores, back := make([]float64, states), make([][]int, len(g.saliences))
	for n := range scores {
		scores[n] = g.saliences[0][n] - curveGlide*math.Abs(float64(n)-first)
	}
	for k := 1; k < len(g.saliences); k++ {
		next := make([]float64, states)
		back[k] = make([]int, states)
		for n := range next {
			best, from := math.Inf(-1), n
			for m := max(0, n-curveFastest); m <= min(states-1, n+curveFastest); m++ {
				if score := scores[m] - curveGlide*math.Abs(float64(n-m)); score > best {
					best, from = score, m
				}
			}
			next[n], back[k][n] = best+g.saliences[k][n], from
		}
		scores = next
	}
	state := 0
	for n, score := range scores {
		if score > scores[state] {
			state = n
		}
	}
	steps := make([]int, len(g.saliences))
	for k := len(steps) - 1; k >= 0; k-- {
		steps[k] = state
		if k > 0 {
			state = back[k][state]
		}
	}
	return steps
}

// moves says whether a way clearly leaves the pitch that it begins with.
func (g *glide) moves(steps []int, begins float64, lowest int) bool {
	first := min(max(int(math.Round((begins-lowestPitch)*pitchSteps))-lowest, 0), len(g.saliences[0])-1)
	count, there, stayed := 0, 0.0, 0.0
	for k, step := range steps {
		if math.Abs(float64(step-first)) < movedLeast*pitchSteps {
			continue
		}
		count++
		there += g.saliences[k][step]
		stayed += g.saliences[k][first]
	}
	return count >= movedSpectra && there >= movedSalience*float64(count) && there-stayed >= movedBeyond*float64(count)
}

// pitch is the pitch at a step of a spectrum, between steps where its salience is highest there.
func (g *glide) pitch(spectrum, step, lowest int) float64 {
	s := g.saliences[spectrum]
	pitch := lowestPitch + float64(lowest+step)/pitchSteps
	if step > 0 && step+1 < len(s) {
		if bend := s[step-1] - 2*s[step] + s[step+1]; bend < 0 {
			pitch += math.Max(-0.5, math.Min(0.5, 0.5*(s[step-1]-s[step+1])/bend)) / pitchSteps
		}
	}
	return pitch
}
