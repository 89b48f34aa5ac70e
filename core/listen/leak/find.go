package leak

import (
	"math"
	"sort"

	"gonum.org/v1/gonum/dsp/fourier"

	"undaris/core/listen"
)

// Leak is how much of the band is in a recording.
type Leak struct {
	// Found says that there is any.
	Found bool
	// Late is how many seconds later the band comes than it was said to.
	Late float64
	// Decibels is how loud it is beside all else in the recording; it counts where Found.
	Decibels float64
}

// Our choices.
const (
	// farthest is how many seconds the band may come earlier or later than it was said to.
	farthest = 0.5
	// alignFrame is how many samples are compared at a time to find how late it is: 1.4 s.
	alignFrame = 32768
	// clearPeak is how far the correlation of the band stands out of its usual size: a player in time with the band comes
	// to 24 without any leak, a leak of 28 dB below the player to 81.
	clearPeak = 40.0
	// LeastDecibels is the level below which a leak is not spoken of: it changes nothing that is heard.
	LeastDecibels = -28.0
)

// Find looks for the band in a recording. Both have listen.Rate samples a second; the band begins `start` seconds after
// the recording. (The cross-power spectrum is whitened: Knapp and Carter, "The generalized correlation method for
// estimation of time delay", IEEE TASSP 24(4), 1976.)
func Find(recording, band []float32, start float64) Leak {
	aligned := shifted(band, int(math.Round(start*listen.Rate)), len(recording))
	lag, peak := lagOf(recording, aligned)
	if peak < clearPeak {
		return Leak{}
	}
	l := Leak{Found: true, Late: float64(lag) / listen.Rate}
	l.Decibels = level(recording, beside(recording, band, start, l))
	l.Found = l.Decibels >= LeastDecibels
	return l
}

// level is how loud what the room makes of the band is beside all else, in dB. What is estimated in one half is measured
// in the other, so that chance adds nothing.
func level(recording, band []float32) float64 {
	half := len(recording) / 2
	along, size, whole := 0.0, 0.0, 0.0
	for _, part := range [2][2][2]int{{{0, half}, {half, len(recording)}}, {{half, len(recording)}, {0, half}}} {
		from, to := part[0], part[1]
		answer := room(recording[from[0]:from[1]], band[from[0]:from[1]])
		made := make([]float32, to[1]-to[0])
		subtract(made, band[to[0]:to[1]], answer)
		for n, m := range made {
			r := float64(recording[to[0]+n])
			along -= r * float64(m) // what was subtracted from silence is the leak, turned over
			size += float64(m) * float64(m)
			whole += r * r
		}
	}
	if along <= 0 || size == 0 {
		return math.Inf(-1)
	}
	leaked := math.Min(along*along/size, 0.999*whole)
	return 10 * math.Log10(leaked/(whole-leaked))
}

// shifted is the band as it lies beside the recording: so many samples later, and as long.
func shifted(band []float32, by, length int) []float32 {
	out := make([]float32, length)
	for n := range out {
		if at := n - by; at >= 0 && at < len(band) {
			out[n] = band[at]
		}
	}
	return out
}

// lagOf is how many samples later than the band the recording has it, and how far that stands out.
func lagOf(recording, band []float32) (lag int, peak float64) {
	fft := fourier.NewFFT(alignFrame)
	sum := make([]complex128, alignFrame/2+1)
	a, b := make([]complex128, len(sum)), make([]complex128, len(sum))
	for from := 0; from < len(recording); from += alignFrame / 2 {
		fft.Coefficients(a, windowed(recording, from, alignFrame))
		fft.Coefficients(b, windowed(band, from, alignFrame))
		for k := range sum {
			sum[k] += a[k] * complex(real(b[k]), -imag(b[k]))
		}
	}
	const lowest, highest = 80 * alignFrame / listen.Rate, 6000 * alignFrame / listen.Rate
	for k := range sum {
		size := math.Hypot(real(sum[k]), imag(sum[k]))
		if k < lowest || k > highest || size < 1e-12 {
			sum[k] = 0
			continue
		}
		sum[k] /= complex(size, 0)
	}
	correlation := fft.Sequence(nil, sum)
	reach := int(farthest * listen.Rate)
	sizes := make([]float64, 0, 2*reach+1)
	best := 0.0
	for d := -reach; d <= reach; d++ {
		value := math.Abs(correlation[(d+alignFrame)%alignFrame])
		sizes = append(sizes, value)
		if value > best {
			best, lag = value, d
		}
	}
	sort.Float64s(sizes)
	usual := sizes[len(sizes)/2]
	if usual == 0 {
		return 0, 0
	}
	return lag, best / usual
}

// windowed is a frame under a Hann window; silence outside.
func windowed(samples []float32, from, length int) []float64 {
	out := make([]float64, length)
	for n := range out {
		if at := from + n; at >= 0 && at < len(samples) {
			out[n] = float64(samples[at]) * (0.5 - 0.5*math.Cos(2*math.Pi*(float64(n)+0.5)/float64(length)))
		}
	}
	return out
}
