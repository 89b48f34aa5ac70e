package listen

import "math"

// difference computes the normalised difference function of a frame: 0 where a lag is a whole number of
// periods, about 1 where it is none (de Cheveigné and Kawahara, "YIN, a fundamental frequency estimator for
// speech and music", JASA 111(4), 2002, equations 6 and 8). The products of a frame that follows another are mostly
// those of the one before: they are kept in sums over blocks of the window.
type difference struct {
	window, lags int // samples that are compared, and lags from 0 to lags-1
	hop, block   int // samples from frame to frame, and of a block: both hop and window are whole blocks
	sums         [][]float64
	number       int // of the frame that the sums are of, or alone
	samples      []float64
	energy       []float64
	products     []float64 // of the whole window, by lag
	function     []float64
}

func newDifference(window, lags, hop, block int) *difference {
	d := &difference{
		window: window, lags: lags, hop: hop, block: block, number: alone, sums: make([][]float64, window/block),
		samples: make([]float64, window+lags), energy: make([]float64, window+lags+1), products: make([]float64, lags), function: make([]float64, lags),
	}
	for b := range d.sums {
		d.sums[b] = make([]float64, lags)
	}
	return d
}

// length is how many samples a frame has.
func (d *difference) length() int { return d.window + d.lags }

// alone is the number of a frame that follows none.
const alone = -2

// of returns the function of a frame of length() samples, valid until the next call. The frame with the next number
// lies one hop later.
func (d *difference) of(frame []float32, number int) []float64 {
	for n, s := range frame {
		d.samples[n] = float64(s)
		d.energy[n+1] = d.energy[n] + d.samples[n]*d.samples[n]
	}
	known := 0
	if number == d.number+1 {
		old := d.hop / d.block
		known = len(d.sums) - old
		d.sums = append(d.sums[old:], d.sums[:old]...)
	}
	for b := known; b < len(d.sums); b++ {
		correlate(d.samples[b*d.block:], d.block, d.sums[b])
	}
	d.number = number
	clear(d.products)
	for _, of := range d.sums {
		for lag, sum := range of {
			d.products[lag] += sum
		}
	}
	first := d.energy[d.window]
	sum := 0.0
	d.function[0] = 1
	for lag := 1; lag < d.lags; lag++ {
		value := math.Max(0, first+d.energy[lag+d.window]-d.energy[lag]-2*d.products[lag])
		sum += value
		if sum > 0 {
			d.function[lag] = value * float64(lag) / sum
		} else {
			d.function[lag] = 1
		}
	}
	return d.function
}

// correlate sums the products of the first samples, so many of them, with those each lag later, four lags at a time.
func correlate(samples []float64, count int, into []float64) {
	lag := 0
	for ; lag+4 <= len(into); lag += 4 {
		later := samples[lag : lag+count+3]
		a, b, c, d := 0.0, 0.0, 0.0, 0.0
		for n, s := range samples[:count] {
			four := later[n : n+4 : n+4]
			a += s * four[0]
			b += s * four[1]
			c += s * four[2]
			d += s * four[3]
		}
		into[lag], into[lag+1], into[lag+2], into[lag+3] = a, b, c, d
	}
	for ; lag < len(into); lag++ {
		into[lag] = 0
		for n, s := range samples[:count] {
			into[lag] += s * samples[lag+n]
		}
	}
}
