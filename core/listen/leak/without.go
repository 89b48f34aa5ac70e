package leak

import (
	"math"

	"gonum.org/v1/gonum/dsp/fourier"

	"undaris/core/listen"
)

const (
	// roomFrame is how many samples the way from the loudspeaker to the microphone is estimated in, and roomLength how
	// long an answer of the room is kept of it: 170 ms.
	roomFrame  = 16384
	roomLength = 4096
	// roomBefore is how many samples before the strongest arrival the answer begins.
	roomBefore = 240
	// stretch is how long one estimate holds, in samples: a minute, in which the clocks of two devices do not part.
	stretch = 60 * listen.Rate
)

// Without is a recording with a leak of the band taken out. The answer of the room is estimated from the cross-spectrum
// of both, over a minute at a time (Wiener's filter), and what the band becomes by it is subtracted.
func Without(recording, band []float32, start float64, l Leak) []float32 {
	aligned := beside(recording, band, start, l)
	out := append([]float32(nil), recording...)
	for from := 0; from < len(recording); from += stretch {
		to := min(from+stretch, len(recording))
		if len(recording)-to < stretch/2 { // what is left at the end belongs to the last estimate
			to = len(recording)
		}
		subtract(out[from:to], aligned[from:to], room(recording[from:to], aligned[from:to]))
		if to == len(recording) {
			break
		}
	}
	return out
}

// beside is the band as it lies beside the recording, a little before its strongest arrival.
func beside(recording, band []float32, start float64, l Leak) []float32 {
	return shifted(band, int(math.Round((start+l.Late)*listen.Rate))-roomBefore, len(recording))
}

// room is the answer of the way between two sounds.
func room(recording, band []float32) []float64 {
	fft := fourier.NewFFT(roomFrame)
	bins := roomFrame/2 + 1
	cross, power, all := make([]complex128, bins), make([]float64, bins), make([]float64, bins)
	frames := 0.0
	a, b := make([]complex128, bins), make([]complex128, bins)
	for from := -roomFrame / 2; from < len(recording); from += roomFrame / 4 {
		fft.Coefficients(a, windowed(recording, from, roomFrame))
		fft.Coefficients(b, windowed(band, from, roomFrame))
		for k := range cross {
			cross[k] += a[k] * complex(real(b[k]), -imag(b[k]))
			power[k] += real(b[k])*real(b[k]) + imag(b[k])*imag(b[k])
			all[k] += real(a[k])*real(a[k]) + imag(a[k])*imag(a[k])
		}
		frames += independent
	}
	mean := 0.0
	for _, p := range power {
		mean += p / float64(bins)
	}
	shares := certain(cross, power, all, frames)
	for k := range cross {
		cross[k] *= complex(shares[k]/(power[k]+1e-3*mean+1e-9), 0)
	}
	answer := fft.Sequence(nil, cross)[:roomLength]
	for n := range answer {
		answer[n] /= roomFrame
		if tail := n - roomLength*3/4; tail > 0 { // no step at its end
			answer[n] *= 0.5 + 0.5*math.Cos(math.Pi*float64(tail)/(roomLength/4))
		}
	}
	return answer
}

// independent is how much of a frame that overlaps its neighbours by three quarters tells anything new (Welch, "The use of
// fast Fourier transform for the estimation of power spectra", 1967).
const independent = 0.5

// certain is for each bin the share of its answer that is none of chance: of sounds that have nothing in common so many
// frames have a coherence of one over their number.
func certain(cross []complex128, power, all []float64, frames float64) []float64 {
	const around = 12 // bins that are taken together
	shares := make([]float64, len(cross))
	for k := range shares {
		coherence, count := 0.0, 0.0
		for n := max(0, k-around); n <= min(len(cross)-1, k+around); n++ {
			size := real(cross[n])*real(cross[n]) + imag(cross[n])*imag(cross[n])
			coherence += size / (power[n]*all[n] + 1e-18)
			count++
		}
		coherence /= count
		shares[k] = math.Max(0, (coherence-1/frames)/(1-1/frames)) / math.Max(coherence, 1e-6)
	}
	return shares
}

// subtract takes the band, as the room answers it, from a recording.
func subtract(recording, band []float32, answer []float64) {
	const block = roomFrame - roomLength
	fft := fourier.NewFFT(roomFrame)
	padded := make([]float64, roomFrame)
	copy(padded, answer)
	way := fft.Coefficients(nil, padded)
	bins := make([]complex128, len(way))
	for from := 0; from < len(band); from += block {
		clear(padded)
		for n := range min(block, len(band)-from) {
			padded[n] = float64(band[from+n])
		}
		fft.Coefficients(bins, padded)
		for k := range bins {
			bins[k] *= way[k]
		}
		for n, s := range fft.Sequence(nil, bins) {
			if at := from + n; at < len(recording) {
				recording[at] -= float32(s / roomFrame)
			}
		}
	}
}
