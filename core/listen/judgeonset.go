package listen

import (
	"math"
	"slices"
)

// What makes a soft onset one (our choice, tuned on plucked strings by computation and looked at in recorded notes).
const (
	// softSalience is how salient its pitch is at least, softTimes how many times as salient as the next pitch, and
	// softShare the least share of the sound that is new.
	softSalience = 0.45
	softTimes    = 2.0
	softShare    = 0.12
	// lastSalience is how salient the pitch of the onset before is at least, and remainsLeast how much of its partials
	// still sounds: else it was bent, or slid on.
	lastSalience = 0.25
	remainsLeast = 0.5
)

// judge looks at what is new at the onsets whose sound is whole, when onsets up to a frame are known, and takes the soft
// ones away that bring nothing new.
func (s *segmenter) judge(known int) {
	for n := range s.onsets {
		o := &s.onsets[n]
		if o.judged || o.frame+noveltyFrames > known {
			continue
		}
		until := noveltyLongest
		for _, next := range s.onsets[n+1:] {
			if !next.soft {
				until = min(until, int((next.seconds-o.seconds)*Rate)-noveltyLag)
				break
			}
		}
		o.novelty, o.judged = s.detector.of(s.sound, o.seconds, until), true
		if o.soft && s.confirmed(o.novelty) {
			o.soft = false
		}
		if !o.soft {
			s.lastNovelty = o.novelty
		}
	}
	s.onsets = slices.DeleteFunc(s.onsets, func(o onset) bool { return o.judged && o.soft })
}

// confirmed says whether what is new at a soft onset is a string that was struck while the last one rings on.
func (s *segmenter) confirmed(novelty *onsetNovelty) bool {
	last := s.lastNovelty
	return novelty != nil && last != nil &&
		novelty.first.salience >= softSalience && novelty.share >= softShare && novelty.first.salience >= softTimes*novelty.second.salience &&
		last.first.salience >= lastSalience && math.Abs(novelty.first.pitch-last.first.pitch) > 0.6 &&
		s.detector.remains(last.first.pitch) >= remainsLeast
}
