package take

import (
	"math"

	"gonum.org/v1/gonum/dsp/fourier"
)

// What comes new into a spectrum at an onset, while other strings ring on.
const (
	noveltySize    = 4096
	noveltyLongest = 3600 // samples: 150 ms
	noveltyLeast   = 1200 // 50 ms
	noveltyShort   = 1500
	// clearerShort is by how much the salience is to be better in a short piece.
	clearerShort = 0.1
	// noveltyLag is how many samples after an onset and before it are left out: the stroke itself.
	noveltyLag = 120
	// noveltyFrames is how many frames after an onset its novelty is known.
	noveltyFrames = (noveltyLongest+noveltyLag)/Hop + 2
	lowestPitch   = 22.0
	highestPitch  = 95.5
	pitchSteps    = 10 // a semitone
	mostPartials  = 12
	highestHertz  = 5500.0
)

// novelty computes which pitches are new at an onset.
type novelty struct {
	fft    *fourier.FFT
	padded []float64
	bins   []complex128
	before []float64
	after  []float64
}

func newNovelty() *novelty {
	return &novelty{fft: fourier.NewFFT(noveltySize), padded: make([]float64, noveltySize), bins: make([]complex128, noveltySize/2+1)}
}

// newPitch is a pitch that is new at an onset.
type newPitch struct {
	pitch float64
	// salience is how well its partials stand out of what is new, 0 to about 1.
	salience float64
}

// fresh is what is new at an onset.
type fresh struct {
	spectrum []float64 // roots of the sizes of what has been added
	total    float64
	first    newPitch
	second   newPitch
	// short is what is new in a short piece, where that is clearer; nil elsewhere.
	short *fresh
}

// of is what is new at an onset, with at most so many samples until the next.
func (v *novelty) of(f *frames, at float64, until int) *fresh {
	length := min(until-noveltyLag/2, noveltyLongest)
	if length < noveltyLeast {
		return nil
	}
	new := v.over(f, at, length)
	// A string that is bent at once blurs a long piece.
	if new.first.salience < clearlyNew && length > noveltyShort {
		if short := v.over(f, at, noveltyShort); short.first.salience > new.first.salience+clearerShort {
			new.short = short
		}
	}
	return new
}

// over is what is new in a piece of so many samples after an onset, beside the one before it.
func (v *novelty) over(f *frames, at float64, length int) *fresh {
	middle := int(math.Round(at * Rate))
	v.after = v.spectrum(f.cut(middle+noveltyLag, length), v.after)
	v.before = v.spectrum(f.cut(middle-noveltyLag/2-length, length), v.before)
	new := &fresh{spectrum: make([]float64, len(v.after))}
	for n := range v.after {
		new.spectrum[n] = math.Sqrt(math.Max(0, v.after[n]-v.before[n]))
		new.total += new.spectrum[n] * new.spectrum[n]
	}
	new.first = new.best()
	rest := *new
	rest.spectrum = append([]float64(nil), new.spectrum...)
	rest.without(new.first.pitch, length)
	new.second = rest.best()
	return new
}

// spectrum is the sizes of the bins of a piece of sound.
func (v *novelty) spectrum(piece []float32, into []float64) []float64 {
	for n := range v.padded {
		v.padded[n] = 0
	}
	for n, s := range piece {
		v.padded[n] = float64(s) * (0.5 - 0.5*math.Cos(2*math.Pi*(float64(n)+0.5)/float64(len(piece))))
	}
	v.fft.Coefficients(v.bins, v.padded)
	into = into[:0]
	scale := 4 / float64(len(piece))
	for _, c := range v.bins {
		into = append(into, scale*math.Hypot(real(c), imag(c)))
	}
	return into
}

// at is the spectrum at a frequency, between bins.
func (n *fresh) at(hertz float64) float64 {
	place := hertz * noveltySize / Rate
	whole := int(place)
	if whole+1 >= len(n.spectrum) {
		return 0
	}
	d := place - float64(whole)
	return n.spectrum[whole]*(1-d) + n.spectrum[whole+1]*d
}

// salience is how well a pitch explains what is new: its partials stand out, and between them there is
// nothing (the kernel of Camacho and Harris, "A sawtooth waveform inspired pitch estimator for speech and
// music", JASA 124(3), 2008, in its simplest form).
func (n *fresh) salience(pitch float64) float64 {
	hertz := hertzOf(pitch)
	sum := 0.0
	for h := 1.0; h <= mostPartials && h*hertz < highestHertz; h++ {
		sum += (n.at(h*hertz) - 0.5*n.at((h-0.5)*hertz) - 0.5*n.at((h+0.5)*hertz)) / math.Sqrt(h)
	}
	if n.total <= 0 {
		return 0
	}
	return sum / math.Sqrt(n.total)
}

// best is the pitch that explains most of what is new.
func (n *fresh) best() newPitch {
	best := newPitch{pitch: lowestPitch}
	steps := int((highestPitch - lowestPitch) * pitchSteps)
	for step := range steps {
		pitch := lowestPitch + float64(step)/pitchSteps
		if s := n.salience(pitch); s > best.salience {
			best = newPitch{pitch, s}
		}
	}
	const step = 1.0 / pitchSteps
	a, b, c := n.salience(best.pitch-step), best.salience, n.salience(best.pitch+step)
	if bend := a - 2*b + c; bend < 0 {
		best.pitch += step * math.Max(-0.5, math.Min(0.5, 0.5*(a-c)/bend))
	}
	return best
}

// without takes the partials of a pitch away, as wide as a piece of so many samples draws them.
func (n *fresh) without(pitch float64, length int) {
	width := int(math.Ceil(2 * noveltySize / float64(length)))
	hertz := hertzOf(pitch)
	for h := 1.0; h*hertz < highestHertz*1.5; h++ {
		middle := int(math.Round(h * hertz * noveltySize / Rate))
		for b := max(0, middle-width); b <= middle+width && b < len(n.spectrum); b++ {
			n.spectrum[b] = 0
		}
	}
}
