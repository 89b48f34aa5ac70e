package listen

import (
	"math"

	"gonum.org/v1/gonum/dsp/fourier"
	"gonum.org/v1/gonum/dsp/window"
)

// fluxWindow is how many samples the spectrum of an onset has: 21 ms.
const fluxWindow = 512

// fluxBands is how many bins of the spectrum are looked at: up to 10 kHz.
const fluxBands = 213

// fluxLag is how many frames apart two spectra are compared.
const fluxLag = 2

// A bin of the spectrum below the quiet bin counts for little: so many times what noise at the floor puts into
// it, or a share of what has been loud notesLookedBack, whichever is more (our choice).
const (
	binOverNoise  = 1.0
	binOfLoud     = 0.02
	quietBinLeast = 0.0003
	// loudFalls is how many dB what was loud falls from frame to frame.
	loudFalls = 8 * hopSeconds
)

// spectralFlux says how much a spectrum grows from frame to frame. What has grown beside its old place only
// has moved, and is no onset: a bend, a vibrato (Böck and Widmer, "Maximum filter vibrato suppression for
// onset detection", DAFx 2013).
type spectralFlux struct {
	fft    *fourier.FFT
	shape  []float64
	padded []float64
	bins   []complex128
	before [fluxLag][fluxBands]float64
	made   int
	loud   float64 // the level that was reached notesLookedBack, in dBFS
}

func newSpectralFlux() *spectralFlux {
	shape := make([]float64, fluxWindow)
	for n := range shape {
		shape[n] = 1
	}
	window.Hann(shape)
	return &spectralFlux{loud: silence, fft: fourier.NewFFT(fluxWindow), shape: shape, padded: make([]float64, fluxWindow), bins: make([]complex128, fluxWindow/2+1)}
}

// next is the flux of the next frame, of a level in dBFS and where the floor lies at so many.
func (s *spectralFlux) next(frame []float32, level, floor float64) float64 {
	s.loud = math.Max(level, s.loud-loudFalls)
	quietBin := math.Max(math.Max(binOverNoise*math.Pow(10, floor/20), binOfLoud*math.Pow(10, s.loud/20)), quietBinLeast)
	for n := range s.padded {
		s.padded[n] = float64(frame[n]) * s.shape[n]
	}
	s.fft.Coefficients(s.bins, s.padded)
	old := &s.before[s.made%fluxLag]
	now := [fluxBands]float64{}
	sum := 0.0
	for b := range now {
		re, im := real(s.bins[b+1]), imag(s.bins[b+1])
		size := math.Sqrt(re*re+im*im) * 4 / fluxWindow
		now[b] = math.Log(1 + size/quietBin)
		was := old[b]
		if b > 0 {
			was = math.Max(was, old[b-1])
		}
		if b+1 < fluxBands {
			was = math.Max(was, old[b+1])
		}
		sum += math.Max(0, now[b]-was)
	}
	s.before[s.made%fluxLag] = now
	s.made++
	return sum
}
