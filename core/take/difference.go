package take

import (
	"math"

	"gonum.org/v1/gonum/dsp/fourier"
)

// difference computes the normalised difference function of a frame: 0 where a lag is a whole number of
// periods, about 1 where it is none (de Cheveigné and Kawahara, "YIN, a fundamental frequency estimator for
// speech and music", JASA 111(4), 2002, equations 6 and 8).
type difference struct {
	window, lags int // samples that are compared, and lags from 0 to lags-1
	fft          *fourier.FFT
	padded       []float64
	head, whole  []complex128
	energy       []float64
	function     []float64
}

func newDifference(window, lags int) *difference {
	size := 1
	for size < window+lags { // no lag that is looked at comes round again
		size *= 2
	}
	return &difference{
		window: window, lags: lags, fft: fourier.NewFFT(size),
		padded: make([]float64, size), head: make([]complex128, size/2+1), whole: make([]complex128, size/2+1),
		energy: make([]float64, window+lags+1), function: make([]float64, lags),
	}
}

// length is how many samples a frame has.
func (d *difference) length() int { return d.window + d.lags }

// of returns the function of a frame of length() samples, valid until the next call.
func (d *difference) of(frame []float32) []float64 {
	size := float64(len(d.padded))
	for n := range d.padded {
		d.padded[n] = 0
	}
	for n := range d.window {
		d.padded[n] = float64(frame[n])
	}
	d.fft.Coefficients(d.head, d.padded)
	for n, s := range frame {
		d.padded[n] = float64(s)
		d.energy[n+1] = d.energy[n] + float64(s)*float64(s)
	}
	d.fft.Coefficients(d.whole, d.padded)
	for n := range d.whole {
		h := d.head[n]
		d.whole[n] *= complex(real(h), -imag(h))
	}
	d.fft.Sequence(d.padded, d.whole)
	first := d.energy[d.window]
	sum := 0.0
	d.function[0] = 1
	for lag := 1; lag < d.lags; lag++ {
		power := first + d.energy[lag+d.window] - d.energy[lag]
		value := math.Max(0, power-2*d.padded[lag]/size)
		sum += value
		if sum > 0 {
			d.function[lag] = value * float64(lag) / sum
		} else {
			d.function[lag] = 1
		}
	}
	return d.function
}
