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
	// ringingFrames is how long such a note is at least, in frames.
	ringingFrames = 4
)

// ringing are the notes of an onset that the ear cannot follow by their period, because other strings ring
// on or two were struck: what is new in the spectrum says which they are. It is empty where the period does.
// (The thresholds are our choice, tuned on plucked strings by computation.)
func (s *segmenter) ringing(struck onset, from, to, first, last int) []Note {
	new := struck.fresh
	if new == nil || new.first.salience < clearlyNew {
		return nil
	}
	double := new.second.salience >= secondNew
	if last-first >= noteFrames && !double {
		curve := s.curve(first, last)
		beginning := curve[:min(len(curve), 15)]
		pitch := middles(beginning, 15)[len(beginning)/2]
		share := new.salience(pitch) / new.first.salience
		if math.Abs(pitch-new.first.pitch) < 0.6 || share >= explained || s.depth(first, last) < clearPeriod && (share >= explainedClearly || new.first.salience < newBesideClear) {
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
	all := []Note{note(new.first)}
	if double {
		second := note(new.second)
		second.Together = true
		all = append(all, second)
	}
	return all
}

// depth is the mean of the difference function at the pitches of some frames.
func (s *segmenter) depth(first, last int) float64 {
	sum := 0.0
	for k := first; k < last; k++ {
		sum += s.at(k).depth
	}
	return sum / float64(last-first)
}
