package listen

import (
	"math"
	"slices"
)

// segmenter cuts the decided frames at the onsets and writes the notes.
type segmenter struct {
	frames   []pitchFrame // from `first` on
	first    int
	onsets   []onset
	pending  *Note // the last note, which may turn out to go on
	notes    []Note
	sound    *frames
	detector *noveltyDetector
	// lastNovelty is what was new at the last onset; nil where that is not known.
	lastNovelty *onsetNovelty
	done        int // frames that notes were looked for in
}

const (
	// settleFrames is how many frames after an onset its region may be looked at: the tracker has decided on
	// them, and no later onset changes them.
	settleFrames = 2*onsetApart + noveltyFrames
	// gapFrames is how long there is no pitch until a note has ended, in frames.
	gapFrames = 12
	// longestRegion is how many frames a note is held open: half a minute.
	longestRegion = 6000
	// noteFrames is how many frames with a pitch a note has at least: 20 ms.
	noteFrames = 4
	// afterOnset is how many frames after an onset its pitch is not heard yet.
	afterOnset = 2
	// aboveFloor is how many dB a note stands above what is heard where nobody plays.
	aboveFloor = 5.0
	// fallen is how many dB below its loudest a note is over.
	fallen = 36.0
)

// until is the number of frames that are decided.
func (s *segmenter) until() int { return s.first + len(s.frames) }

func (s *segmenter) at(frame int) pitchFrame {
	if n := frame - s.first; n >= 0 && n < len(s.frames) {
		return s.frames[n]
	}
	return pitchFrame{pitch: math.NaN(), depth: 1, level: -120, floor: -120}
}

// work writes the notes of all regions that are closed; at the end of the take all are.
func (s *segmenter) work(end bool) {
	for {
		to, closed := s.region(end)
		if !closed {
			return
		}
		s.regionNotes(s.done, to)
		s.done = to
		for len(s.onsets) > 0 && s.onsets[0].frame < to-1 {
			s.onsets = s.onsets[1:]
		}
		if spare := s.done - 400 - s.first; spare > 4000 {
			s.frames = append([]pitchFrame(nil), s.frames[spare:]...)
			s.first += spare
		}
		if end && s.done >= s.until() {
			return
		}
	}
}

// region is where the region that begins at s.done ends: at the next onset, or after a gap.
func (s *segmenter) region(end bool) (to int, closed bool) {
	limit := s.until()
	if !end {
		limit -= settleFrames
	}
	gap, voiced := 0, false
	for k := s.done; k < limit; k++ {
		if k > s.done+1 && slices.ContainsFunc(s.onsets, func(o onset) bool { return o.frame == k && !o.soft }) {
			return k, true
		}
		if math.IsNaN(s.at(k).pitch) {
			gap++
		} else {
			gap, voiced = 0, true
		}
		if voiced && gap >= gapFrames || !voiced && gap >= longestRegion/10 || k-s.done >= longestRegion {
			return k, true
		}
	}
	return limit, end && limit > s.done
}

// regionNotes writes the notes between two frames, the first of which may be an onset.
func (s *segmenter) regionNotes(from, to int) {
	struck, at := onset{frame: from, seconds: float64(from) * hopSeconds}, -1
	if at = slices.IndexFunc(s.onsets, func(o onset) bool { return o.frame == from }); at >= 0 {
		struck = s.onsets[at]
	}
	first, last := s.voiced(from, to, at >= 0)
	if at >= 0 && !s.ripple(struck) && !(last-first >= outlastsBrush && s.isContinuation(struck, s.curve(first, last))) {
		if all := s.ringing(struck, from, to, first, last); len(all) > 0 {
			for n := range all {
				s.flush()
				s.pending = &all[n]
			}
			return
		}
	}
	if last-first < noteFrames {
		return
	}
	curve := s.curve(first, last)
	isContinuation := at >= 0 && s.isContinuation(struck, curve)
	if at < 0 {
		struck.seconds = float64(first) * hopSeconds
		isContinuation = s.pending != nil && struck.seconds-s.pending.End() < 0.15 && math.Abs(curve[0]-s.endPitch()) < 0.8
		if !isContinuation && !s.swells(first, last) {
			return
		}
	}
	begin, leaps := 0, false
	all := append(moves(curve), move{from: len(curve) - 1, to: len(curve) - 1})
	attack, slidFrom, onsetAt := Picked, 0, struck.seconds
	if at >= 0 {
		attack = s.attackAt(struck, curve)
	}
	for _, m := range all {
		piece := curve[begin:max(begin, m.from+1)]
		if isContinuation { // the pending note has this piece too; slurs and slides go on from it
			s.extend(first, first+len(piece), piece)
			isContinuation = false
		} else if len(piece) >= noteFrames && (attack == Picked || s.stands(first+begin, len(piece), leaps)) {
			next := s.note(onsetAt, attack, slidFrom, first+begin, piece, first, last)
			if s.isPassingSlide(next) {
				next.Attack = Slid
				next.SlidFrom = int(math.Round(s.pending.Pitch-next.Pitch)) + s.pending.SlidFrom
				s.pending = nil
			}
			s.flush()
			s.pending = next
		}
		begin, attack, slidFrom = m.to, m.attack, 0
		leaps = m.attack != Slid && math.Abs(m.semitones) > slurSpan || isPartial(math.Abs(m.semitones))
		onsetAt = float64(first)*hopSeconds + float64(m.from+m.to)/2*hopSeconds
		if m.attack == Slid {
			onsetAt = float64(first+m.to-moveSpan) * hopSeconds
			slidFrom = -int(math.Round(m.semitones))
		}
	}
}

// stands says whether a slurred piece is a note: it lasts, and has one clear pitch above what is heard where
// nobody plays. A leap further than fingers reach is more likely the period that strings which ring have together:
// it has to be clearer.
func (s *segmenter) stands(frame, length int, leaps bool) bool {
	level, depth := 0.0, 0.0
	for k := frame; k < frame+length; k++ {
		level += s.at(k).level / float64(length)
		depth += s.at(k).depth / float64(length)
	}
	most := 0.3
	if leaps {
		most = leapDepth
	}
	return length >= slurredFrames && depth < most && level > s.at(frame).floor+2*aboveFloor
}

// leapDepth is the difference function up to which a leap without a stroke is a note.
const leapDepth = 0.08

// slurredFrames is how many frames a slurred note has at least: 30 ms.
const slurredFrames = 6

// isPassingSlide says whether the pending note is a fret that the finger slid over on its way to the next.
func (s *segmenter) isPassingSlide(next *Note) bool {
	p := s.pending
	if p == nil || p.Attack == Picked || next.Attack == Picked || p.Length > onTheWay*hopSeconds {
		return false
	}
	came := next.Pitch - p.Pitch
	return p.Attack == Slid && float64(p.SlidFrom)*came < 0 || p.Attack == Hammered && came > 0 || p.Attack == Pulled && came < 0
}

// voiced is the first and the one past the last frame between two that have the pitch of a note.
func (s *segmenter) voiced(from, to int, struck bool) (first, last int) {
	first = from
	if struck {
		first += afterOnset
	}
	for first < to && math.IsNaN(s.at(first).pitch) {
		first++
	}
	loudest := silence + 0.0
	for k := first; k < to; k++ {
		loudest = math.Max(loudest, s.at(k).level)
	}
	last = to
	if to < s.until() && struck {
		last--
	}
	floor := s.floor(from, to)
	least := math.Max(loudest-fallen, floor+aboveFloor)
	for last > first && (math.IsNaN(s.at(last-1).pitch) || s.at(last-1).level < least) {
		last--
	}
	return first, last
}

// floor is the level where nobody plays, as far as it is known between two frames.
func (s *segmenter) floor(from, to int) float64 {
	floor := s.at(from).floor
	if from < len(noiseFloor{}.last) { // the take begins: what does not fade is nobody's note
		levels := []float64{}
		for k := from; k < to; k++ {
			levels = append(levels, s.at(k).level)
		}
		slices.Sort(levels)
		floor = math.Max(floor, levels[len(levels)/5]-aboveFloor/2)
	}
	return floor
}

// What a stroke of the pick leaves in the sound and the fretting hand alone does not: the string is stilled
// before, it grows louder, and its whole spectrum is new. A note is slurred where these, in shares of what is
// usual, come to less than slurMost (our choice, tuned on plucked strings by computation).
const (
	strokeDip  = 3.5 // dB
	strokeRise = 3.0 // dB
	strokeFlux = 80.0
	slurMost   = 2.1
	// slurSpan is how many semitones a finger hammers on or pulls off at most.
	slurSpan = 5.5
)

// attackAt says how the note of an onset begins.
func (s *segmenter) attackAt(struck onset, curve []float64) Attack {
	if s.pending == nil || struck.seconds-s.pending.End() > 0.03 {
		return Picked
	}
	semitones := average(curve[:min(len(curve), 6)]) - s.endPitch()
	before, dip, after := s.levels(struck.frame)
	stroke := (before-dip)/strokeDip + math.Max(0, after-before)/strokeRise + struck.flux/strokeFlux
	switch {
	case math.Abs(semitones) < moveLeast || math.Abs(semitones) > slurSpan || stroke >= slurMost:
		return Picked
	case semitones > 0:
		return Hammered
	}
	return Pulled
}

// levels are the levels in dB before an onset, lowest just before it, and after it.
func (s *segmenter) levels(frame int) (before, dip, after float64) {
	before, dip, after = -120, 0, -120
	for k := frame - 12; k < frame-4; k++ {
		before = math.Max(before, s.at(k).level)
	}
	for k := frame - 5; k <= frame+1; k++ {
		dip = math.Min(dip, s.at(k).level)
	}
	for k := frame + 1; k < frame+8; k++ {
		after = math.Max(after, s.at(k).level)
	}
	return before, dip, after
}

// swells says whether a pitch that begins without an onset is a note: it grows, and stands out.
func (s *segmenter) swells(first, last int) bool {
	if last-first < 12 {
		return false
	}
	loudest, depth := -120.0, 0.0
	for k := first; k < last; k++ {
		loudest = math.Max(loudest, s.at(k).level)
		depth += s.at(k).depth
	}
	before := s.at(first - 6).level
	return loudest-before > 10 && loudest > s.at(first).floor+2*aboveFloor && depth/float64(last-first) < 0.2
}

func (s *segmenter) endPitch() float64 {
	n := s.pending
	if len(n.Curve) == 0 {
		return n.Pitch
	}
	return n.Pitch + float64(n.Curve[len(n.Curve)-1])/100
}

// flush writes the pending note.
func (s *segmenter) flush() {
	if s.pending != nil {
		s.notes = append(s.notes, *s.pending)
		s.pending = nil
	}
}
