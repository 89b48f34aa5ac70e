package take

import "math"

const (
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
	// plainlyNew is the salience from which a pitch is new beyond doubt, where it is plainTimes that of the next pitch.
	plainlyNew = 0.57
	plainTimes = 5.0
	// againFlux is the flux from which a string was struck again.
	againFlux = 15.0
	// stillRings is how long after its end, in seconds, a string may still ring and be struck again.
	stillRings = 0.5
	// stillLoud is how many dB below its loudest such a string sounds at least: else a hand only squeaks over it.
	stillLoud = 12.0
	// againSure is how sure it is that what brings nothing new is the last note again.
	againSure = 0.3
	// ringingFrames is how long such a note is at least, in frames.
	ringingFrames = 4
)

// ringing are the notes of an onset that the ear cannot follow by their period, because other strings ring
// on or two were struck: what is new in the spectrum says which they are. It is empty where the period does.
// (The thresholds are our choice, tuned on plucked strings by computation; newAmongRinging, againFlux and
// stillLoud after a look at recorded notes too.)
func (s *segmenter) ringing(struck onset, from, to, first, last int) []Note {
	new := struck.fresh
	if new == nil {
		return nil
	}
	if new.short != nil {
		new = new.short
	}
	pitch, double := new.first, new.first.salience >= clearlyNew && new.second.salience >= secondNew
	switch {
	case last-first >= noteFrames:
		if !double && s.followed(new, first, last) {
			return nil
		}
	case new.first.salience < clearlyNew:
		known := false
		if pitch, known = s.amongRinging(struck, new); !known {
			return nil
		}
	}
	loudest, end := -120.0, from
	for k := from + 1; k < to; k++ {
		loudest = math.Max(loudest, s.at(k).level)
	}
	for k := from + 1; k < to; k++ {
		if s.at(k).level >= math.Max(loudest-fallen, s.floor(from, to)+aboveFloor) {
			end = k + 1
		}
	}
	if end-from < ringingFrames || loudest < s.floor(from, to)+2*aboveFloor {
		return nil
	}
	note := func(p newPitch) Note {
		return Note{
			Onset: struck.seconds, Length: float64(end)*hopSeconds - struck.seconds, Pitch: p.pitch, Attack: Picked, Loudness: loudest,
			Curve: make([]float32, end-from), Confidence: math.Min(0.9, p.salience),
		}
	}
	all := []Note{note(pitch)}
	if double {
		second := note(new.second)
		second.Together = true
		all = append(all, second)
	}
	return all
}

// followed says whether the pitch that the ear follows by its period explains what is new at an onset.
func (s *segmenter) followed(new *fresh, first, last int) bool {
	curve := s.curve(first, last)
	beginning := curve[:min(len(curve), 15)]
	pitch := middles(beginning, 15)[len(beginning)/2]
	share, depth := new.salience(pitch)/new.first.salience, s.depth(first, last)
	alone := new.first.salience >= aloneLeast*new.second.salience && share < unexplained
	plain := new.first.salience >= plainlyNew && new.first.salience >= plainTimes*new.second.salience && share < explained
	switch {
	case math.Abs(pitch-new.first.pitch) < 0.6:
		return true
	case new.first.salience < clearlyNew:
		again := s.pending != nil && math.Abs(pitch-s.latelyPitch()) <= 0.6 // brings nothing new
		return again || !alone || new.first.salience < newAmongRinging || depth < clearPeriod
	case (alone || plain) && s.partialOfLast(pitch, new.first.pitch):
		return false
	case depth < clearPeriod && new.first.salience < newBesideClear:
		return true
	}
	return share >= explained || depth < clearPeriod && share >= explainedClearly
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
	if new.first.salience >= newAmongRinging && new.first.salience >= aloneLeast*new.second.salience {
		return new.first, true
	}
	if s.pending == nil || struck.seconds-s.pending.End() > stillRings || struck.flux < againFlux {
		return newPitch{}, false
	}
	without := 0 // frames without a period: a single string has one until it is stilled
	for k := struck.frame - 10; k < struck.frame-2; k++ {
		if math.IsNaN(s.at(k).pitch) {
			without++
		}
	}
	before, _, after := s.levels(struck.frame)
	if without < 4 || before < s.pending.Loudness-stillLoud || after < before && struck.flux < strokeFluxAlone {
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
