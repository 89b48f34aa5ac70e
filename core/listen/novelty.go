package listen

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/dsp/fourier"
)

// What comes new into a spectrum at an onset, while other strings ring on.
const (
	noveltySize    = 4096
	noveltyLongest = 3600 // samples: 150 ms
	noveltyLeast   = 1200 // 50 ms
	noveltyShort   = 1500 // 62 ms
	// clearerShort is by how much the salience is to be better in a short piece.
	clearerShort = 0.1
	// partialNew is the least salience of a fundamental, or of its fifth partial, beside its third, and partialMost the
	// most beside that of the third: two strings are heard as two.
	partialNew  = 0.15
	partialMost = 0.8
	// noveltyLag is how many samples after an onset and before it are left out: the stroke itself.
	noveltyLag = 120
	// noveltyFrames is how many frames after an onset its novelty is known.
	noveltyFrames = (noveltyLongest+noveltyLag)/Hop + 2
)

// noveltyDetector computes which pitches are new at an onset.
type noveltyDetector struct {
	fft    *fourier.FFT
	padded []float64
	bins   []complex128
	before []float64
	after  []float64
}

func newNoveltyDetector() *noveltyDetector {
	return &noveltyDetector{fft: fourier.NewFFT(noveltySize), padded: make([]float64, noveltySize), bins: make([]complex128, noveltySize/2+1)}
}

// newPitch is a pitch that is new at an onset.
type newPitch struct {
	pitch float64
	// salience is how well its partials stand out of what is new, 0 to about 1.
	salience float64
}

// onsetNovelty is what is new at an onset.
type onsetNovelty struct {
	spectrum []float64 // roots of the sizes of what has been added
	after    []float64 // the sizes after the onset
	total    float64   // the sum of the squares of spectrum
	share    float64   // of the sound after the onset that is new, 0 to 1
	first    newPitch
	second   newPitch
	// short is what is new in a short piece, where that is clearer; nil elsewhere.
	short *onsetNovelty
}

// isDouble says whether two strings were struck together.
func (n *onsetNovelty) isDouble() bool {
	return n.first.salience >= clearSalience && n.second.salience >= salienceOfSecond
}

// of is what is new at an onset, with at most so many samples until the next.
func (v *noveltyDetector) of(f *frames, at float64, until int) *onsetNovelty {
	length := min(until-noveltyLag/2, noveltyLongest)
	if length < noveltyLeast {
		return nil
	}
	novelty := v.over(f, at, length)
	// A string that is bent at once blurs a long piece.
	if novelty.first.salience < clearSalience && length > noveltyShort {
		if short := v.over(f, at, noveltyShort); short.first.salience > novelty.first.salience+clearerShort {
			novelty.short = short
		}
	}
	return novelty
}

// over is what is new in a piece of so many samples after an onset, beside the one before it.
func (v *noveltyDetector) over(f *frames, at float64, length int) *onsetNovelty {
	middle := int(math.Round(at * Rate))
	v.after = v.spectrum(f.cut(middle+noveltyLag, length), v.after)
	v.before = v.spectrum(f.cut(middle-noveltyLag/2-length, length), v.before)
	novelty := &onsetNovelty{spectrum: make([]float64, len(v.after)), after: slices.Clone(v.after)}
	all := 0.0
	for n := range v.after {
		novelty.spectrum[n] = math.Sqrt(math.Max(0, v.after[n]-v.before[n]))
		novelty.total += novelty.spectrum[n] * novelty.spectrum[n]
		all += v.after[n]
	}
	if all > 0 {
		novelty.share = novelty.total / all
	}
	novelty.first = novelty.best()
	rest := *novelty
	rest.spectrum = slices.Clone(novelty.spectrum)
	rest.without(novelty.first.pitch, length)
	novelty.second = rest.best()
	novelty.complete()
	return novelty
}

// complete puts the fundamental in the place of its third partial, where the strings that ring hide the first two: the
// next pitch is then the fundamental itself, or its fifth partial.
func (n *onsetNovelty) complete() {
	const third, fifth = 19.0196, 27.8631 // semitones above the fundamental
	fundamental := n.first.pitch - third
	above := n.second.pitch - fundamental
	fits := math.Abs(above) <= 0.45 || math.Abs(above-fifth) <= 0.12
	if fits && fundamental >= lowestPitch && n.second.salience >= partialNew && n.second.salience < math.Min(salienceOfSecond, partialMost*n.first.salience) {
		n.first.pitch, n.second.salience = fundamental, 0
	}
}

// spectrum is the sizes of the bins of a piece of sound.
func (v *noveltyDetector) spectrum(piece []float32, into []float64) []float64 {
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

// without takes the partials of a pitch away, as wide as a piece of so many samples draws them.
func (n *onsetNovelty) without(pitch float64, length int) {
	width := int(math.Ceil(2 * noveltySize / float64(length)))
	hertz := hertzOf(pitch)
	for h := 1.0; h*hertz < highestHertz*1.5; h++ {
		middle := int(math.Round(h * hertz * noveltySize / Rate))
		for b := max(0, middle-width); b <= middle+width && b < len(n.spectrum); b++ {
			n.spectrum[b] = 0
		}
	}
}

// remains is the share of the partials of a pitch before an onset that is still there after it.
func (v *noveltyDetector) remains(pitch float64) float64 {
	hertz := hertzOf(pitch)
	was, is := 1e-9, 0.0
	for h := 1.0; h <= 6 && h*hertz < highestHertz; h++ {
		middle := int(math.Round(h * hertz * noveltySize / Rate))
		for b := max(0, middle-1); b <= middle+1 && b < len(v.before); b++ {
			was += v.before[b]
			is += math.Min(v.before[b], v.after[b])
		}
	}
	return is / was
}
