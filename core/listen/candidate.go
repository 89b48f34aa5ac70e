package listen

import (
	"cmp"
	"math"
	"slices"
)

// candidate is a pitch that a frame may have, with its share of probability.
type candidate struct {
	pitch float64 // MIDI number
	share float64 // 0 to 1; the shares of a frame and of its being no pitch add up to 1
	depth float64 // the difference function there: 0 for a perfect period
}

// maxCandidates is how many pitches of a frame are followed.
const maxCandidates = 6

// thresholds and their weights: how likely it is that a frame with a pitch is as periodic as this or more
// so: the beta distribution with a mean of 0.15 (Mauch and Dixon, "pYIN: a fundamental frequency estimator
// using probabilistic threshold distributions", ICASSP 2014).
var thresholds, thresholdWeights = betaThresholds(100, 2, 34.0/3)

func betaThresholds(count int, a, b float64) (at, weights []float64) {
	sum := 0.0
	for n := 1; n <= count; n++ {
		x := float64(n) / float64(count+1)
		w := math.Pow(x, a-1) * math.Pow(1-x, b-1)
		at, weights = append(at, x), append(weights, w)
		sum += w
	}
	for n := range weights {
		weights[n] /= sum
	}
	return at, weights
}

// deepest is the share that the deepest dip gets where none lies below a threshold.
const deepest = 0.01

// dipsOf appends the pitches at which a difference function, computed at so many samples a second, dips
// between two lags: the shortest period first.
func dipsOf(function []float64, rate float64, from, to int, into []candidate) []candidate {
	for lag := max(from, 2); lag < min(to, len(function)-1); lag++ {
		if function[lag] < function[lag-1] && function[lag] <= function[lag+1] && function[lag] < 1 {
			into = append(into, candidate{pitch: pitchOf(rate / refined(function, lag)), depth: function[lag]})
		}
	}
	return into
}

// shared gives each of the dips, the shortest period first, its share, and returns the likeliest of them.
func shared(dips []candidate) []candidate {
	if len(dips) == 0 {
		return nil
	}
	lowest := 0
	for n, d := range dips {
		if d.depth < dips[lowest].depth {
			lowest = n
		}
	}
	for n, threshold := range thresholds {
		chosen, weight := lowest, deepest*thresholdWeights[n]
		for i := range dips {
			if dips[i].depth < threshold {
				chosen, weight = i, thresholdWeights[n]
				break
			}
		}
		dips[chosen].share += weight
	}
	likely := []candidate{}
	for _, d := range dips {
		if d.share > 0 {
			likely = append(likely, d)
		}
	}
	slices.SortStableFunc(likely, func(a, b candidate) int { return cmp.Compare(b.share, a.share) })
	return likely[:min(len(likely), maxCandidates)]
}

// refined is the lag of a dip between samples. A short period is measured over several of itself, which
// divides the error.
func refined(function []float64, dip int) float64 {
	period := parabola(function, dip)
	for _, times := range [...]int{8, 4, 2} {
		far := int(math.Round(period * float64(times)))
		if times*dip > 160 || far+2 >= len(function) {
			continue
		}
		// The dip nearest to where so many periods end.
		best := far
		for lag := far - 1; lag <= far+1; lag++ {
			if function[lag] < function[best] {
				best = lag
			}
		}
		if function[best] < function[dip]+0.1 && function[best] <= function[best-1] && function[best] <= function[best+1] {
			return parabola(function, best) / float64(times)
		}
	}
	return period
}

// parabola is the lowest place of the parabola through a dip and its neighbours.
func parabola(function []float64, dip int) float64 {
	a, b, c := function[dip-1], function[dip], function[dip+1]
	bend := a - 2*b + c
	if bend <= 0 {
		return float64(dip)
	}
	return float64(dip) + math.Max(-0.5, math.Min(0.5, 0.5*(a-c)/bend))
}

func pitchOf(hertz float64) float64 { return 69 + 12*math.Log2(hertz/440) }

func hertzOf(pitch float64) float64 { return 440 * math.Exp2((pitch-69)/12) }
