package take

import (
	"math"
	"slices"
)

const (
	// littleNew is the share of the sound that is new below which nothing is new but chance: a string was struck again, or
	// none. Below fewNew it may have been struck again, from muchNew it was not, and from mostlyNew the pitch that the ear
	// follows would be new if it were the one that was struck.
	littleNew = 0.06
	fewNew    = 0.2
	muchNew   = 0.3
	mostlyNew = 0.4
	// foreign is the salience below which a pitch has no part in what is new, and leastNew that of a pitch that then is
	// believed at all.
	foreign  = 0.1
	leastNew = 0.2
	// lately is how many notes are looked back at for strings that ring.
	lately = 6
	// clearlyNew is the salience from which what is new at an onset is a pitch of its own, and not the same
	// string struck again.
	clearlyNew = 0.5
	// explained is the share of the best salience from which the pitch that the ear follows explains what is
	// new as well.
	explained = 0.75
	// explainedClearly is the same where its period is as clear as clearPeriod.
	explainedClearly = 0.6
	clearPeriod      = 0.06
	// newBesideClear is the salience that it takes to be believed more than such a period.
	newBesideClear = 0.65
	// secondNew is the salience from which a second pitch was struck together with the first.
	secondNew = 0.4
	// newAmongRinging is the salience from which a pitch is new where nothing has a period.
	newAmongRinging = 0.4
	// aloneLeast is how many times as salient as the next pitch one is that stands alone, and unexplained the share of
	// its salience below which another pitch explains nothing of it.
	aloneLeast  = 2.0
	unexplained = 0.3
	// besideMuch is the same where muchNew is new.
	besideMuch = 1.5
	// plainlyNew is the salience from which a pitch is new beyond doubt, where it is plainTimes that of the next pitch.
	plainlyNew = 0.57
	plainTimes = 5.0
	// againFlux is the flux from which a string was struck again.
	againFlux = 15.0
	// lowStrings is the pitch below which strings that ring beat so slowly that their onsets seem to be strokes: there it
	// takes lowFlux, and below lowestAgain nothing is heard as struck again.
	lowStrings  = 45
	lowestAgain = 36
	lowFlux     = 40
	// dipAgain is how many dB the sound dips at least where a string is struck again, no louder than it rang.
	dipAgain = 2.5
	// stillRings is how long after its end, in seconds, a string may still ring and be struck again.
	stillRings = 0.5
	// stillLoud is how many dB below its loudest such a string sounds at least: else a hand only squeaks over it.
	stillLoud = 12.0
	// againSure is how sure it is that what brings nothing new is the last note again.
	againSure = 0.3
	// mostSure is how sure a note among ringing strings is at most.
	mostSure = 0.9
	// ringingFrames is how long such a note is at least, in frames.
	ringingFrames = 4
)

// ringing are the notes of an onset that the ear cannot follow by their period, because other strings ring
// on or two were struck: what is new in the spectrum says which they are. It is empty where the period does.
// (The thresholds are our choice, tuned on plucked strings by computation and looked at in recorded notes.)
func (s *segmenter) ringing(struck onset, from, to, first, last int) []Note {
	new := struck.fresh
	if new == nil {
		return nil
	}
	if new.short != nil {
		new = new.short
	}
	pitch, known := s.struckPitch(struck, new, first, last)
	if !known {
		return nil
	}
	note, known := s.ringingNote(struck, pitch, from, to)
	switch {
	case !known:
		return nil
	case pitch == new.first && new.isDouble():
		second := note
		second.Pitch, second.Confidence, second.Together = new.second.pitch, math.Min(mostSure, new.second.salience), true
		second.Curve = slices.Clone(note.Curve)
		return []Note{note, second}
	}
	return pieces(note, s.novelty.curve(s.sound, struck, pitch.pitch, from+len(note.Curve)))
}

// struckPitch is the pitch that was struck, where the ear cannot follow it by its period: from one frame up to another
// there is one.
func (s *segmenter) struckPitch(struck onset, new *fresh, first, last int) (pitch newPitch, known bool) {
	voiced := last-first >= noteFrames
	switch {
	case voiced && new.share < fewNew && struck.flux >= againFlux && s.followsCommon(first, last):
		return newPitch{s.latelyPitch(), againSure}, true
	case voiced && new.share < littleNew: // what is there was there before
		return newPitch{}, false
	case voiced:
		return new.first, new.isDouble() || !s.followed(new, first, last)
	case new.share < littleNew:
		return s.again(struck, new)
	case new.first.salience < clearlyNew:
		return s.amongRinging(struck, new)
	}
	return new.first, true
}

// followed says whether the pitch that the ear follows by its period explains what is new at an onset.
func (s *segmenter) followed(new *fresh, first, last int) bool {
	curve := s.curve(first, last)
	beginning := curve[:min(len(curve), 15)]
	pitch := middles(beginning, 15)[len(beginning)/2]
	share, depth := new.salience(pitch)/new.first.salience, s.depth(first, last)
	alone := new.first.salience >= aloneLeast*new.second.salience && share < unexplained
	plain := new.first.salience >= plainlyNew && new.first.salience >= plainTimes*new.second.salience && share < explained
	partial := s.partialOfLast(pitch, new.first.pitch)
	switch {
	case math.Abs(pitch-new.first.pitch) < 0.6:
		return true
	// A string that rings is followed, or a period of several: it has no part in what is new.
	case !partial && new.share >= mostlyNew && new.salience(pitch) < foreign && new.first.salience >= leastNew && (depth >= clearPeriod || new.first.salience >= newAmongRinging):
		return false
	case !partial && alone && new.share >= fewNew && share < foreign && new.first.salience >= clearlyNew:
		return false
	case new.first.salience >= newAmongRinging && !new.sounds(pitch): // a period of several strings
		return false
	case new.first.salience < clearlyNew:
		again := s.pending != nil && math.Abs(pitch-s.latelyPitch()) <= 0.6 // brings nothing new
		return again || !alone || new.first.salience < newAmongRinging || depth < clearPeriod
	case (alone || plain) && partial:
		return false
	case depth < clearPeriod && new.first.salience < newBesideClear:
		return true
	}
	return share >= explained || depth < clearPeriod && share >= explainedClearly
}

// followsCommon says whether the ear follows the period that the last note has together with others that ring.
func (s *segmenter) followsCommon(first, last int) bool {
	if s.pending == nil {
		return false
	}
	curve := s.curve(first, last)
	pitch := middles(curve, len(curve))[len(curve)/2]
	for _, n := range s.notes[max(0, len(s.notes)-lately):] {
		if math.Abs(n.Pitch-pitch) < 0.6 {
			return false
		}
	}
	return isPartial(s.latelyPitch() - pitch)
}

// partialOfLast says whether the ear follows the last note, which rings on, and the new pitch is one of its
// partials: the period of the two together is that of the lower one.
func (s *segmenter) partialOfLast(followed, new float64) bool {
	if s.pending == nil || math.Abs(followed-s.latelyPitch()) > 0.6 {
		return false
	}
	apart := new - followed
	return math.Abs(apart-12) < 0.3 || math.Abs(apart-19) < 0.3 || math.Abs(apart-24) < 0.3
}

// amongRinging is the pitch that was struck where the strings that ring leave no period and none stands out by
// itself: the best one if no other comes near it; or that of the last note, struck again, which brings
// nothing new.
func (s *segmenter) amongRinging(struck onset, new *fresh) (newPitch, bool) {
	times := aloneLeast
	if new.share >= muchNew {
		times = besideMuch
	}
	if new.first.salience >= newAmongRinging && new.first.salience >= times*new.second.salience {
		return new.first, true
	}
	if new.share >= muchNew {
		return newPitch{}, false
	}
	return s.again(struck, new)
}

// again is the pitch of the last note, where it was struck again.
func (s *segmenter) again(struck onset, new *fresh) (newPitch, bool) {
	if s.pending == nil || struck.seconds-s.pending.End() > stillRings || struck.flux < againFlux {
		return newPitch{}, false
	}
	if s.pending.Pitch < lowestAgain || s.pending.Pitch < lowStrings && struck.flux < lowFlux {
		return newPitch{}, false
	}
	without := 0 // frames without a period: a single string has one until it is stilled
	for k := struck.frame - 10; k < struck.frame-2; k++ {
		if math.IsNaN(s.at(k).pitch) {
			without++
		}
	}
	before, dip, after := s.levels(struck.frame)
	stilled := new.share < littleNew && before-dip >= dipAgain
	if without < 4 || before < s.pending.Loudness-stillLoud || after < before && struck.flux < strokeFluxAlone && !stilled {
		return newPitch{}, false
	}
	return newPitch{s.latelyPitch(), math.Max(new.first.salience, againSure)}, true
}

// depth is the mean of the difference function at the pitches of some frames.
func (s *segmenter) depth(first, last int) float64 {
	sum := 0.0
	for k := first; k < last; k++ {
		sum += s.at(k).depth
	}
	return sum / float64(last-first)
}
