package listen

import (
	"fmt"
	"math"
)

// Rate is how many samples a second the ear works on: whatever comes in is brought to it.
const Rate = 24000

// MinRate and MaxRate bound the samples a second that may come in.
const (
	MinRate = 8000
	MaxRate = 96000
)

// kernelCrossings is how many zeros of the sinc stand on either side of the middle of the kernel.
const kernelCrossings = 12

// resampler brings samples of one rate to Rate, by a sinc under a Hann window (Smith, "Digital Audio
// Resampling", 1984). Sample n of what comes out lies at n/Rate seconds of what came in.
type resampler struct {
	up, down int // out comes up samples for every down that come in
	half     int // samples of the kernel on either side
	phases   [][]float32
	in       []float32
	dropped  int // samples that came in before in[0]
	out      int // samples that came out
}

func newResampler(rate int) (*resampler, error) {
	if rate < MinRate || rate > MaxRate {
		return nil, fmt.Errorf("%d samples a second cannot be listened to; %d to %d can", rate, MinRate, MaxRate)
	}
	divisor := gcd(rate, Rate)
	r := &resampler{up: Rate / divisor, down: rate / divisor}
	if r.up == r.down {
		return r, nil
	}
	// The cut lies at nine tenths of the lower of both Nyquist frequencies, in cycles a sample of the input.
	cut := 0.45 * math.Min(1, float64(Rate)/float64(rate))
	r.half = int(math.Ceil(kernelCrossings / (2 * cut)))
	r.phases = make([][]float32, r.up)
	for p := range r.phases {
		taps := make([]float32, 2*r.half)
		sum := 0.0
		weights := make([]float64, len(taps))
		for n := range taps {
			x := float64(n-r.half+1) - float64(p)/float64(r.up)
			weights[n] = sinc(2*cut*x) * (0.5 + 0.5*math.Cos(math.Pi*math.Max(-1, math.Min(1, x/float64(r.half)))))
			sum += weights[n]
		}
		for n, w := range weights {
			taps[n] = float32(w / sum)
		}
		r.phases[p] = taps
	}
	r.in = make([]float32, r.half) // silence before the first sample
	r.dropped = -r.half
	return r, nil
}

func sinc(x float64) float64 {
	if math.Abs(x) < 1e-9 {
		return 1
	}
	return math.Sin(math.Pi*x) / (math.Pi * x)
}

func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// write takes samples in and appends what comes out to into.
func (r *resampler) write(samples, into []float32) []float32 {
	if r.phases == nil {
		return append(into, samples...)
	}
	r.in = append(r.in, samples...)
	for {
		at := r.out * r.down // in shares of 1/up of a sample
		whole, phase := at/r.up, at%r.up
		first := whole - r.half + 1 - r.dropped
		if first+2*r.half > len(r.in) {
			if spare := first; spare > 4096 {
				r.in = append(r.in[:0], r.in[spare:]...)
				r.dropped += spare
			}
			return into
		}
		sum := float32(0)
		window := r.in[first : first+2*r.half]
		for n, tap := range r.phases[phase] {
			sum += tap * window[n]
		}
		into = append(into, sum)
		r.out++
	}
}

// flush lets out what still stands in the kernel.
func (r *resampler) flush(into []float32) []float32 {
	return r.write(make([]float32, 2*r.half), into)
}

// Resampled brings the whole of a sound to Rate. Its error names the rates that can be.
func Resampled(samples []float32, rate int) ([]float32, error) {
	r, err := newResampler(rate)
	if err != nil {
		return nil, err
	}
	out := r.write(samples, make([]float32, 0, len(samples)*Rate/rate+1))
	return r.flush(out), nil
}
