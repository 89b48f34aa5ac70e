package listen

import "math"

// Hop is how many samples of Rate lie between two frames: 5 ms.
const Hop = Rate / 200

// hopSeconds is the same in seconds.
const hopSeconds = float64(Hop) / Rate

// The frames that pitch is looked for in. Pitches from about 75 Hz up need 29 ms of sound; those below are
// looked for in 67 ms, at a quarter of the samples. Products of samples are kept in blocks, of which both a window and
// a hop have a whole number.
const (
	shortWindow = 384
	shortLags   = 322
	shortBlock  = 24
	longEvery   = 4
	longWindow  = 200
	longLags    = 206
	longBlock   = 10
	// firstLongLag is the shortest period looked for in the long frame: 78 Hz.
	firstLongLag = 77
	// firstLag is the shortest period of all: 2,000 Hz, above A♯6.
	firstLag = 12
)

// frame is what is known of the sound around one moment.
type frame struct {
	candidates []candidate
	level      float64 // root mean square of 10 ms, in dB below full scale
	floor      float64 // the level where nobody plays, in dBFS
	flux       float64 // how much the spectrum grows here
}

// silence is the level below which nothing is listened to, in dBFS.
const silence = -78

// frames turns samples of Rate into frames: number k is about the moment k·Hop/Rate.
type frames struct {
	short, long *difference
	flux        *spectralFlux
	samples     []float32 // from `first` on
	slow        []float32 // every fourth sample, smoothed, from first/longEvery on
	constant    float64
	first       int
	count       int // frames that were made
	buffer      []candidate
	floor       noiseFloor
	levels      [2]float64 // of the last frames
	low         [2]bool    // whether they had a low pitch
}

func newFrames() *frames {
	return &frames{short: newDifference(shortWindow, shortLags, Hop, shortBlock), long: newDifference(longWindow, longLags, Hop/longEvery, longBlock), flux: newSpectralFlux()}
}

// reach is how many samples on either side of its moment a frame needs.
const reach = longEvery*(longWindow+longLags)/2 + 16

// keepFrames is how many frames before the notes that are still open are kept, for the spectra before their onsets.
const keepFrames = 200

// constantShare is how fast the constant part of the sound is followed: up to about 8 Hz.
const constantShare = 0.002

// add takes samples in and appends the frames that are whole.
func (f *frames) add(samples []float32, into []frame) []frame {
	for _, s := range samples {
		// What is constant is no sound, and what is no number is silence.
		if !(s >= -8 && s <= 8) {
			s = 0
		}
		f.constant += constantShare * (float64(s) - f.constant)
		f.samples = append(f.samples, float32(float64(s)-f.constant))
	}
	f.smooth()
	for f.first+len(f.samples) >= f.count*Hop+reach {
		into = append(into, f.frame(f.count*Hop))
		f.count++
	}
	return into
}

// forget lets go of the samples before one, where that is worth the while.
func (f *frames) forget(before int) {
	spare := min(before, f.count*Hop-reach) - f.first
	if spare <= Rate {
		return
	}
	spare -= spare % longEvery
	f.samples = append(f.samples[:0], f.samples[spare:]...)
	f.slow = append(f.slow[:0], f.slow[spare/longEvery:]...)
	f.first += spare
}

// smooth brings the new samples to a quarter, under a raised cosine that takes away what would fold back.
func (f *frames) smooth() {
	for {
		middle := len(f.slow) * longEvery
		if middle+len(smoothing)/2 >= len(f.samples) {
			return
		}
		sum := float32(0)
		for n, w := range smoothing {
			if at := middle + n - len(smoothing)/2; at >= 0 {
				sum += w * f.samples[at]
			}
		}
		f.slow = append(f.slow, sum)
	}
}

var smoothing = func() (weights [23]float32) {
	sum := float32(0)
	for n := range weights {
		x := float64(n - len(weights)/2)
		weights[n] = float32(sinc(x/5) * (0.5 + 0.5*math.Cos(math.Pi*x/12)))
		sum += weights[n]
	}
	for n := range weights {
		weights[n] /= sum
	}
	return weights
}()

// at is the sample so many samples from the beginning; silence outside.
func (f *frames) at(sample int) float32 {
	if n := sample - f.first; n >= 0 && n < len(f.samples) {
		return f.samples[n]
	}
	return 0
}

// cut copies samples from one on; silence outside.
func (f *frames) cut(from, count int) []float32 {
	cut := make([]float32, count)
	for n := range cut {
		cut[n] = f.at(from + n)
	}
	return cut
}

func (f *frames) frame(middle int) frame {
	made := frame{level: f.levelAt(middle)}
	made.floor = f.floor.after(made.level)
	made.flux = f.flux.next(f.cut(middle-fluxWindow/2, fluxWindow), made.level, made.floor)
	if made.level < silence {
		return made
	}
	f.buffer = f.buffer[:0]
	short := f.short.of(f.cut(middle-f.short.length()/2, f.short.length()), f.count)
	f.buffer = dipsOf(short, Rate, firstLag, shortLags, f.buffer)
	from := middle/longEvery - f.long.length()/2 - f.first/longEvery
	slow := make([]float32, f.long.length())
	for n := range slow {
		if i := from + n; i >= 0 && i < len(f.slow) {
			slow[n] = f.slow[i]
		}
	}
	f.buffer = dipsOf(f.long.of(slow, f.count), Rate/longEvery, firstLongLag, longLags, f.buffer)
	made.candidates = shared(f.buffer)
	made.flux += f.growth(made)
	return made
}

// A string that is stilled and struck again on the same pitch grows louder at once, though its spectrum hardly
// changes.
const (
	growthLeast = 3.0 // dB within 10 ms
	growthFlux  = 3.0 // a dB
)

func (f *frames) growth(now frame) float64 {
	at := f.count % len(f.levels)
	before, low := f.levels[at], f.low[at] && f.low[1-at]
	f.levels[at] = now.level
	f.low[at] = len(now.candidates) > 0 && now.candidates[0].pitch < lowPitch+5
	if low || now.level < now.floor+2*aboveFloor {
		return 0 // the level of a low string goes up and down with its wave
	}
	return growthFlux * math.Min(20, math.Max(0, now.level-math.Max(before, now.floor)-growthLeast))
}

func (f *frames) levelAt(middle int) float64 {
	sum := 0.0
	for n := middle - Hop; n < middle+Hop; n++ {
		s := float64(f.at(n))
		sum += s * s
	}
	return 10 * math.Log10(sum/(2*Hop)+1e-12)
}

// noiseFloor follows the level of what is heard where nobody plays: the lowest tenth of a second so far, which
// may rise by a decibel in five seconds.
type noiseFloor struct {
	last  [20]float64
	made  int
	sum   float64
	floor float64
}

// floorRise is how many dB the floor may rise from frame to frame.
const floorRise = 0.2 * hopSeconds

func (n *noiseFloor) after(level float64) float64 {
	at := n.made % len(n.last)
	n.sum += level - n.last[at]
	n.last[at] = level
	n.made++
	if n.made < len(n.last) {
		n.floor = -90
		return n.floor
	}
	if mean := n.sum / float64(len(n.last)); n.made == len(n.last) || mean < n.floor {
		n.floor = mean
	} else {
		n.floor += floorRise
	}
	return n.floor
}
