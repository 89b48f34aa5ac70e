package listen

import (
	"math"
	"slices"
)

// isContinuation says whether what seemed an onset is none: the pitch goes on and the string grows no louder, as when a
// hand brushes it, or it is stilled.
func (s *segmenter) isContinuation(struck onset, curve []float64) bool {
	if s.pending == nil || struck.seconds-s.pending.End() > 0.05 {
		return false
	}
	// A brush hides the pitch for a moment: it goes on if most of a tenth of a second has it.
	beginning := curve[:min(len(curve), 20)]
	// A bend or a vibrato is on its way somewhere: there it goes on from where it was.
	apart := math.Min(math.Abs(middles(beginning, 20)[len(beginning)/2]-s.latelyPitch()), 1.2*math.Abs(curve[0]-s.endPitch()))
	if apart > samePitch {
		return false
	}
	dipped, grew := s.besideFading(struck.frame, len(curve))
	if s.ripple(struck) || grew < -7 && len(curve) < stilledFrames {
		return true
	}
	// An amplifier that is driven holds the level: there a stroke is known by what is new.
	if struck.flux >= strokeFluxAlone && struck.novelty != nil && struck.novelty.salience(s.latelyPitch()) >= strokePartials {
		return false
	}
	if len(curve) < outlastsBrush {
		return dipped < brushDip && grew < shortBrushGrowth
	}
	return dipped < brushDip && grew < brushGrowth
}

// besideFading is how many dB the level dips at an onset, and has grown after it, beside what the string fades to by
// itself; of a note that lasts, when what a brush itself adds is over.
func (s *segmenter) besideFading(frame, length int) (dipped, grew float64) {
	mean := func(from, to int) float64 {
		sum := 0.0
		for k := from; k < to; k++ {
			sum += s.at(frame + k).level
		}
		return sum / float64(to-from)
	}
	began := int(math.Round(s.pending.Onset/hopSeconds)) - frame // what is before it is another note
	near := mean(max(-12, min(began+afterOnset, -5)), -4)
	slope := math.Max(fastestFading, math.Min(0, (near-mean(-24, -12))/10))
	if s.pending.Length < 24*hopSeconds { // too short to tell
		slope = 0
	}
	beside := func(k int) float64 { return s.at(frame+k).level - near - slope*float64(k+8) }
	for k := -5; k <= 1; k++ {
		dipped = math.Max(dipped, -beside(k))
	}
	from, to := 3, 8
	if length >= outlastsBrush {
		from, to = 12, outlastsBrush
	}
	grew = math.Inf(-1)
	for k := from; k < to; k++ {
		grew = math.Max(grew, beside(k))
	}
	return dipped, grew
}

// fastestFading is how much a string fades from frame to frame at most, in dB.
const fastestFading = -0.5

// What a hand that brushes a string does at most to a note that goes on, where a stroke does more (our choice,
// tuned on plucked strings by computation).
const (
	brushDip    = 2.5 // dB
	brushGrowth = 1.2 // dB
	// outlastsBrush is how many frames a note must have after it for what the brush itself adds to be over by then, and
	// shortBrushGrowth what that may come to where it has fewer.
	outlastsBrush    = 20
	shortBrushGrowth = 5.0
	// strokeFluxAlone and strokePartials are what a new stroke brings into the spectrum, and a brush hardly ever does.
	strokeFluxAlone = 30.0
	strokePartials  = 0.25
)

const (
	// samePitch is how many semitones apart a pitch is the same, shaken or not.
	samePitch = 0.85
)

// latelyPitch is the middle of the last fifth of a second of the pending note.
func (s *segmenter) latelyPitch() float64 {
	curve := s.pending.Curve[max(0, len(s.pending.Curve)-40):]
	if len(curve) == 0 {
		return s.pending.Pitch
	}
	sorted := slices.Clone(curve)
	slices.Sort(sorted)
	return s.pending.Pitch + float64(sorted[len(sorted)/2])/100
}

// ripple says whether an onset is only the wave of a low string, whose period is as long as what levels are
// taken of.
func (s *segmenter) ripple(struck onset) bool {
	if s.pending == nil || struck.seconds-s.pending.End() > 0.05 || s.pending.Pitch >= lowPitch {
		return false
	}
	if novelty := struck.novelty; novelty != nil && novelty.share < rippleShare {
		return true
	}
	if novelty := struck.novelty; novelty != nil && novelty.first.salience >= clearSalience {
		// Partials of the same string are no new note.
		if apart := novelty.first.pitch - s.pending.Pitch; math.Abs(apart) > 0.6 && math.Abs(apart-12) > 0.6 && math.Abs(apart-19) > 0.6 {
			return false
		}
	}
	before, dip, after := s.levels(struck.frame)
	return after-before < 3 && before-dip < 8
}

// rippleShare is the share of the sound that is new below which there is only the wave of the string: a stroke brings more.
const rippleShare = 0.01

// stilledFrames is how long a string sounds at most when a hand stills it, in frames: 60 ms.
const stilledFrames = 12

// lowPitch is A1: below it the level of 10 ms goes up and down with the wave.
const lowPitch = 33
