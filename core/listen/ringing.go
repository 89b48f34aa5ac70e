package listen

import (
	"math"
	"slices"
)

const (
	// noNovelty is the share of the sound that is new below which nothing is new but chance: a string was struck again, or
	// none. Below maxNoveltyOfRestrike it may have been struck again, from minNoveltyOfOther it was not, and from dominantNovelty the pitch that the ear
	// follows would be new if it were the one that was struck.
	noNovelty            = 0.06
	maxNoveltyOfRestrike = 0.2
	minNoveltyOfOther    = 0.3
	dominantNovelty      = 0.4
	// minSalienceOfPart is the salience below which a pitch has no part in what is new, and minSalienceBelieved that of a pitch that then is
	// believed at all.
	minSalienceOfPart   = 0.1
	minSalienceBelieved = 0.2
	// notesLookedBack is how many notes are looked back at for strings that ring.
	notesLookedBack = 6
	// clearSalience is the salience from which what is new at an onset is a pitch of its own, and not the same
	// string struck again.
	clearSalience = 0.5
	// explained is the share of the best salience from which the pitch that the ear follows explains what is
	// new as well.
	explained = 0.75
	// explainedClearly is the same where its period is as clear as clearPeriod.
	explainedClearly = 0.6
	clearPeriod      = 0.06
	// salienceBesideClearPeriod is the salience that it takes to be believed more than such a period.
	salienceBesideClearPeriod = 0.65
	// salienceOfSecond is the salience from which a second pitch was struck together with the first.
	salienceOfSecond = 0.4
	// salienceWithoutPeriod is the salience from which a pitch is new where nothing has a period.
	salienceWithoutPeriod = 0.4
	// standsAloneRatio is how many times as salient as the next pitch one is that stands alone, and unexplained the share of
	// its salience below which another pitch explains nothing of it.
	standsAloneRatio = 2.0
	unexplained      = 0.3
	// standsAloneRatioOfOther is the same where minNoveltyOfOther is new.
	standsAloneRatioOfOther = 1.5
	// certainSalience is the salience from which a pitch is new beyond doubt, where it is certainRatio that of the next pitch.
	certainSalience = 0.57
	certainRatio    = 5.0
	// restrikeFlux is the flux from which a string was struck again.
	restrikeFlux = 15.0
	// lowStringPitch is the pitch below which strings that ring beat so slowly that their onsets seem to be strokes: there it
	// takes lowPitchRestrikeFlux, and below lowestRestrikePitch nothing is heard as struck again.
	lowStringPitch       = 45
	lowestRestrikePitch  = 36
	lowPitchRestrikeFlux = 40
	// restrikeDipDecibels is how many dB the sound dips at least where a string is struck again, no louder than it rang.
	restrikeDipDecibels = 2.5
	// ringsOnSeconds is how long after its end, in seconds, a string may still ring and be struck again.
	ringsOnSeconds = 0.5
	// ringsOnDecibels is how many dB below its loudest such a string sounds at least: else a hand only squeaks over it.
	ringsOnDecibels = 12.0
	// restrikeConfidence is how sure it is that what brings nothing new is the last note again.
	restrikeConfidence = 0.3
	// maxConfidenceAmongRinging is how sure a note among ringing strings is at most.
	maxConfidenceAmongRinging = 0.9
	// minFramesAmongRinging is how long such a note is at least, in frames.
	minFramesAmongRinging = 4
)

// ringing are the notes of an onset that the ear cannot follow by their period, because other strings ring
// on or two were struck: what is new in the spectrum says which they are. It is empty where the period does.
// (The thresholds are our choice, tuned on plucked strings by computation and looked at in recorded notes.)
func (s *segmenter) ringing(struck onset, from, to, first, last int) []Note {
	novelty := struck.novelty
	if novelty == nil {
		return nil
	}
	if novelty.short != nil {
		novelty = novelty.short
	}
	pitch, known := s.struckPitch(struck, novelty, first, last)
	if !known {
		return nil
	}
	note, known := s.ringingNote(struck, pitch, from, to)
	switch {
	case !known:
		return nil
	case pitch == novelty.first && novelty.isDouble():
		second := note
		second.Pitch, second.Confidence, second.Together = novelty.second.pitch, math.Min(maxConfidenceAmongRinging, novelty.second.salience), true
		second.Curve = slices.Clone(note.Curve)
		return []Note{note, second}
	}
	return pieces(note, s.detector.curve(s.sound, struck, pitch.pitch, from+len(note.Curve)))
}

// struckPitch is the pitch that was struck, where the ear cannot follow it by its period: from one frame up to another
// there is one.
func (s *segmenter) struckPitch(struck onset, novelty *onsetNovelty, first, last int) (pitch newPitch, known bool) {
	voiced := last-first >= noteFrames
	switch {
	case voiced && novelty.share < maxNoveltyOfRestrike && struck.flux >= restrikeFlux && s.tracksCommonPeriod(first, last):
		return newPitch{s.latelyPitch(), restrikeConfidence}, true
	case voiced && novelty.share < noNovelty: // what is there was there before
		return newPitch{}, false
	case voiced:
		return novelty.first, novelty.isDouble() || !s.followed(novelty, first, last)
	case novelty.share < noNovelty:
		return s.again(struck, novelty)
	case novelty.first.salience < clearSalience:
		return s.struckAmongRinging(struck, novelty)
	}
	return novelty.first, true
}

// followed says whether the pitch that the ear follows by its period explains what is new at an onset.
func (s *segmenter) followed(novelty *onsetNovelty, first, last int) bool {
	curve := s.curve(first, last)
	beginning := curve[:min(len(curve), 15)]
	pitch := middles(beginning, 15)[len(beginning)/2]
	share, depth := novelty.salience(pitch)/novelty.first.salience, s.depth(first, last)
	alone := novelty.first.salience >= standsAloneRatio*novelty.second.salience && share < unexplained
	plain := novelty.first.salience >= certainSalience && novelty.first.salience >= certainRatio*novelty.second.salience && share < explained
	partial := s.isPartialOfLast(pitch, novelty.first.pitch)
	switch {
	case math.Abs(pitch-novelty.first.pitch) < 0.6:
		return true
	// A string that rings is followed, or a period of several: it has no part in what is new.
	case !partial && novelty.share >= dominantNovelty && novelty.salience(pitch) < minSalienceOfPart && novelty.first.salience >= minSalienceBelieved && (depth >= clearPeriod || novelty.first.salience >= salienceWithoutPeriod):
		return false
	case !partial && alone && novelty.share >= maxNoveltyOfRestrike && share < minSalienceOfPart && novelty.first.salience >= clearSalience:
		return false
	case novelty.first.salience >= salienceWithoutPeriod && !novelty.sounds(pitch): // a period of several strings
		return false
	case novelty.first.salience < clearSalience:
		again := s.pending != nil && math.Abs(pitch-s.latelyPitch()) <= 0.6 // brings nothing new
		return again || !alone || novelty.first.salience < salienceWithoutPeriod || depth < clearPeriod
	case (alone || plain) && partial:
		return false
	case depth < clearPeriod && novelty.first.salience < salienceBesideClearPeriod:
		return true
	}
	return share >= explained || depth < clearPeriod && share >= explainedClearly
}

// tracksCommonPeriod says whether the ear follows the period that the last note has together with others that ring.
func (s *segmenter) tracksCommonPeriod(first, last int) bool {
	if s.pending == nil {
		return false
	}
	curve := s.curve(first, last)
	pitch := middles(curve, len(curve))[len(curve)/2]
	for _, n := range s.notes[max(0, len(s.notes)-notesLookedBack):] {
		if math.Abs(n.Pitch-pitch) < 0.6 {
			return false
		}
	}
	return isPartial(s.latelyPitch() - pitch)
}

// isPartialOfLast says whether the ear follows the last note, which rings on, and the new pitch is one of its
// partials: the period of the two together is that of the lower one.
func (s *segmenter) isPartialOfLast(followed, found float64) bool {
	if s.pending == nil || math.Abs(followed-s.latelyPitch()) > 0.6 {
		return false
	}
	apart := found - followed
	return math.Abs(apart-12) < 0.3 || math.Abs(apart-19) < 0.3 || math.Abs(apart-24) < 0.3
}

// struckAmongRinging is the pitch that was struck where the strings that ring leave no period and none stands out by
// itself: the best one if no other comes near it; or that of the last note, struck again, which brings
// nothing new.
func (s *segmenter) struckAmongRinging(struck onset, novelty *onsetNovelty) (newPitch, bool) {
	times := standsAloneRatio
	if novelty.share >= minNoveltyOfOther {
		times = standsAloneRatioOfOther
	}
	if novelty.first.salience >= salienceWithoutPeriod && novelty.first.salience >= times*novelty.second.salience {
		return novelty.first, true
	}
	if novelty.share >= minNoveltyOfOther {
		return newPitch{}, false
	}
	return s.again(struck, novelty)
}

// again is the pitch of the last note, where it was struck again.
func (s *segmenter) again(struck onset, novelty *onsetNovelty) (newPitch, bool) {
	if s.pending == nil || struck.seconds-s.pending.End() > ringsOnSeconds || struck.flux < restrikeFlux {
		return newPitch{}, false
	}
	if s.pending.Pitch < lowestRestrikePitch || s.pending.Pitch < lowStringPitch && struck.flux < lowPitchRestrikeFlux {
		return newPitch{}, false
	}
	without := 0 // frames without a period: a single string has one until it is stilled
	for k := struck.frame - 10; k < struck.frame-2; k++ {
		if math.IsNaN(s.at(k).pitch) {
			without++
		}
	}
	before, dip, after := s.levels(struck.frame)
	stilled := novelty.share < noNovelty && before-dip >= restrikeDipDecibels
	if without < 4 || before < s.pending.Loudness-ringsOnDecibels || after < before && struck.flux < strokeFluxAlone && !stilled {
		return newPitch{}, false
	}
	return newPitch{s.latelyPitch(), math.Max(novelty.first.salience, restrikeConfidence)}, true
}

// depth is the mean of the difference function at the pitches of some frames.
func (s *segmenter) depth(first, last int) float64 {
	sum := 0.0
	for k := first; k < last; k++ {
		sum += s.at(k).depth
	}
	return sum / float64(last-first)
}
