package listen

import "math"

// The pitches that are looked for, MIDI numbers, and the partials that tell them.
const (
	lowestPitch  = 22.0
	highestPitch = 95.5
	pitchSteps   = 10 // a semitone
	mostPartials = 12
	highestHertz = 5500.0
)

// kernel computes the salience of a pitch: how well it explains what is new in a spectrum. Its partials stand
// out, and between them there is nothing (the kernel of Camacho and Harris, "A sawtooth waveform inspired pitch
// estimator for speech and music", JASA 124(3), 2008, in its simplest form). It is linear in the bins: a sum of weights.
type kernel struct {
	bins    []int
	weights []float64
}

// kernelOf is the kernel of a pitch.
func kernelOf(pitch float64) kernel {
	hertz := hertzOf(pitch)
	k := kernel{}
	add := func(hertz, weight float64) {
		place := hertz * noveltySize / Rate
		if whole := int(place); whole+1 < noveltySize/2+1 {
			d := place - float64(whole)
			k.bins = append(k.bins, whole, whole+1)
			k.weights = append(k.weights, weight*(1-d), weight*d)
		}
	}
	below := 0.0 // what the partial before gives to the middle between both
	for h := 1.0; ; h++ {
		if h > mostPartials || h*hertz >= highestHertz {
			add((h-0.5)*hertz, below)
			return k
		}
		weight := 1 / math.Sqrt(h)
		add((h-0.5)*hertz, below-0.5*weight)
		add(h*hertz, weight)
		below = -0.5 * weight
	}
}

// kernels are those of the pitches from lowestPitch on, pitchSteps to the semitone.
var kernels = func() []kernel {
	all := make([]kernel, int((highestPitch-lowestPitch)*pitchSteps))
	for step := range all {
		all[step] = kernelOf(lowestPitch + float64(step)/pitchSteps)
	}
	return all
}()

// over is the salience in a spectrum, before it is divided by the size of what is new.
func (k kernel) over(spectrum []float64) float64 {
	sum := 0.0
	for n, bin := range k.bins {
		sum += k.weights[n] * spectrum[bin]
	}
	return sum
}

// salience is that of any pitch.
func (n *onsetNovelty) salience(pitch float64) float64 {
	if n.total <= 0 {
		return 0
	}
	return kernelOf(pitch).over(n.spectrum) / math.Sqrt(n.total)
}

// sounds says whether a pitch may be that of a string that sounds after the onset: a period that strings have together
// has no fundamental in the spectrum.
func (n *onsetNovelty) sounds(pitch float64) bool {
	hertz, loudest := hertzOf(pitch), 0.0
	size := func(partial int) float64 {
		return n.after[min(int(math.Round(float64(partial)*hertz*noveltySize/Rate)), len(n.after)-1)]
	}
	for h := 1; h <= mostPartials; h++ {
		loudest = math.Max(loudest, size(h))
	}
	return size(1) >= fundamentalLeast*loudest
}

// fundamentalLeast is how large the fundamental of a string is at least, beside its loudest partial: −32 dB (our choice).
const fundamentalLeast = 0.025

// best is the pitch that explains most of what is new.
func (n *onsetNovelty) best() newPitch {
	best := newPitch{pitch: lowestPitch}
	if n.total <= 0 {
		return best
	}
	most := 0.0
	for step, k := range kernels {
		if sum := k.over(n.spectrum); sum > most {
			most, best.pitch = sum, lowestPitch+float64(step)/pitchSteps
		}
	}
	best.salience = most / math.Sqrt(n.total)
	const step = 1.0 / pitchSteps
	a, b, c := n.salience(best.pitch-step), best.salience, n.salience(best.pitch+step)
	if bend := a - 2*b + c; bend < 0 {
		best.pitch += step * math.Max(-0.5, math.Min(0.5, 0.5*(a-c)/bend))
	}
	return best
}
