package listen

import "math"

// onset is a moment at which a string may have been struck.
type onset struct {
	seconds float64
	// frame is the frame nearest to it.
	frame int
	// flux is how much the spectrum grows there.
	flux float64
	// novelty is what is new there, nil where the next onset comes too soon; judged says that it is known.
	novelty *onsetNovelty
	judged  bool
	// soft says that so little flux is an onset only where what is new says so.
	soft bool
}

const (
	// onsetLeast is the flux of the softest onset, and onsetOver how far it must stand above what is usual
	// around it (our choice, tuned on plucked strings by computation).
	onsetLeast = 11.0
	onsetOver  = 1.9
	// softLeast is the flux of the softest onset that what is new may confirm.
	softLeast = 6.0
	// onsetApart is how many frames two onsets lie apart at least: 35 ms.
	onsetApart = 7
	// onsetBefore is how many frames before are what is usual.
	onsetBefore = 24
)

// onsetFinder picks the peaks of the flux.
type onsetFinder struct {
	flux []float64 // of every frame: 6 MB an hour
	last int       // the frame of the last onset
}

func newOnsetFinder() *onsetFinder { return &onsetFinder{last: -onsetApart} }

// add takes the flux of a frame in and returns the frame of an onset that is certain now, or may be a soft one; or -1.
func (o *onsetFinder) add(flux float64) int {
	o.flux = append(o.flux, flux)
	k := len(o.flux) - 1 - onsetApart
	if k < 0 || k-o.last < onsetApart {
		return -1
	}
	here := o.flux[k]
	if here < softLeast {
		return -1
	}
	for n := max(0, k-onsetApart+1); n < k+onsetApart; n++ {
		if o.flux[n] > here || o.flux[n] == here && n < k {
			return -1
		}
	}
	usual, count := 0.0, 0
	for n := max(0, k-onsetBefore); n < k-3; n++ {
		usual += math.Min(o.flux[n], here)
		count++
	}
	if count > 0 && here < onsetOver*usual/float64(count) {
		return -1
	}
	if here >= onsetLeast {
		o.last = k
	}
	return k
}

// made is how many frames were taken in.
func (o *onsetFinder) made() int { return len(o.flux) }

// sharpest is the moment near a frame, in seconds, at which the sound grows most from one millisecond to
// the next few: when the string leaves the pick.
func (f *frames) sharpest(frame int) float64 {
	const step, around, compared = Rate / 1000, 24, 4
	middle := frame * Hop
	first := middle - around*step
	energy := [2*around + 1]float64{}
	last := f.at(first - 1)
	for n := range energy {
		for i := range step {
			now := f.at(first + n*step + i)
			d := float64(now - last) // what is low does not hide what begins
			last = now
			energy[n] += d * d
		}
	}
	best, at := 0.0, around
	for n := compared; n+compared <= len(energy); n++ {
		before, after := 1e-7, 1e-7
		for i := range compared {
			before += energy[n-1-i]
			after += energy[n+i]
		}
		if ratio := (after - before) * math.Log(after/before); ratio > best {
			best, at = ratio, n
		}
	}
	return (float64(first) + float64(at*step)) / Rate
}
