package take

import (
	"math"
	"slices"
)

// segmenter cuts the decided frames at the onsets and writes the notes.
type segmenter struct {
	frames  []decided // from `first` on
	first   int
	onsets  []onset
	pending *Note // the last note, which may turn out to go on
	notes   []Note
	sound   *frames
	done    int // frames that notes were looked for in
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

func (s *segmenter) at(frame int) decided {
	if n := frame - s.first; n >= 0 && n < len(s.frames) {
		return s.frames[n]
	}
	return decided{pitch: math.NaN(), depth: 1, level: -120, floor: -120}
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
			s.frames = append([]decided(nil), s.frames[spare:]...)
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
		if k > s.done+1 && slices.ContainsFunc(s.onsets, func(o onset) bool { return o.frame == k }) {
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
	if at >= 0 && !s.ripple(struck) {
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
	if at < 0 {
		struck.seconds = float64(first) * hopSeconds
		if s.pending != nil && struck.seconds-s.pending.End() < 0.15 && math.Abs(curve[0]-s.endPitch()) < 0.8 {
			s.extend(first, last, curve)
			return
		}
	} else if s.goesOn(struck, first, curve) {
		s.extend(first, last, curve)
		return
	}
	if at < 0 && !s.swells(first, last) {
		return
	}
	begin := 0
	all := append(moves(curve), move{from: len(curve) - 1, to: len(curve) - 1})
	attack, slidFrom, onsetAt := Picked, 0, struck.seconds
	if at >= 0 {
		attack = s.attackAt(struck, curve)
	}
	for _, m := range all {
		piece := curve[begin:max(begin, m.from+1)]
		if len(piece) >= noteFrames && (attack == Picked || s.stands(first+begin, len(piece))) {
			next := s.note(onsetAt, attack, slidFrom, first+begin, piece, first, last)
			if s.passedOver(next) {
				next.Attack = Slid
				next.SlidFrom = int(math.Round(s.pending.Pitch-next.Pitch)) + s.pending.SlidFrom
				s.pending = nil
			}
			s.flush()
			s.pending = next
		}
		begin, attack, slidFrom = m.to, m.attack, 0
		onsetAt = float64(first)*hopSeconds + float64(m.from+m.to)/2*hopSeconds
		if m.attack == Slid {
			onsetAt = float64(first+m.to-moveSpan) * hopSeconds
			slidFrom = -int(math.Round(m.semitones))
		}
	}
}

// stands says whether a slurred piece is a note: it lasts, and has one clear pitch above what is heard where
// nobody plays.
func (s *segmenter) stands(frame, length int) bool {
	level, depth := 0.0, 0.0
	for k := frame; k < frame+length; k++ {
		level += s.at(k).level / float64(length)
		depth += s.at(k).depth / float64(length)
	}
	return length >= slurredFrames && depth < 0.3 && level > s.at(frame).floor+2*aboveFloor
}

// slurredFrames is how many frames a slurred note has at least: 30 ms.
const slurredFrames = 6

// passedOver says whether the pending note is a fret that the finger slid over on its way to the next.
func (s *segmenter) passedOver(next *Note) bool {
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

// curve is the pitches of the frames, those without one as between their neighbours, and single leaps of the
// ear taken out.
func (s *segmenter) curve(first, last int) []float64 {
	curve := make([]float64, last-first)
	known := -1
	for n := range curve {
		p := s.at(first + n).pitch
		if math.IsNaN(p) {
			continue
		}
		for m := known + 1; m < n; m++ {
			if known < 0 {
				curve[m] = p
			} else {
				curve[m] = curve[known] + (p-curve[known])*float64(m-known)/float64(n-known)
			}
		}
		curve[n] = p
		known = n
	}
	for m := known + 1; m > 0 && m < len(curve); m++ {
		curve[m] = curve[known]
	}
	return middles(curve, 3)
}

// goesOn says whether what seemed an onset is none: the pitch goes on and the string grows no louder, as when a
// hand brushes it, or it is stilled.
func (s *segmenter) goesOn(struck onset, first int, curve []float64) bool {
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
	before, dip, after := s.levels(struck.frame)
	if len(curve) >= 20 { // what a brush itself adds is over by then
		later := -120.0
		for k := struck.frame + 12; k < struck.frame+20; k++ {
			later = math.Max(later, s.at(k).level)
		}
		after = math.Min(after, later)
	}
	dipped, grew := before-dip, after-before
	switch {
	case s.ripple(struck), grew < -7 && len(curve) < stilledFrames:
		return true
	case dipped >= brushDip || grew >= brushGrowth:
		return false
	}
	if struck.flux < brushSure {
		return true
	}
	// A string that is struck again begins its wave anew, and its partials stand out of what is new.
	partials := 0.0
	if struck.fresh != nil {
		partials = struck.fresh.salience(s.latelyPitch())
	}
	stroke := math.Min(s.broken(struck.frame), 0.5)/brushBreak + math.Max(partials, 0)/brushPartials + math.Max(struck.flux-onsetLeast, 0)/brushFlux
	return stroke < brushMost
}

// What a hand that brushes a string does at most to a note that goes on, where a stroke does more (our choice,
// tuned on plucked strings by computation).
const (
	brushDip    = 2.5 // dB
	brushGrowth = 1.2 // dB
	// brushSure is the flux below which an onset needs more than its spectrum to be one.
	brushSure = 20.0
	brushMost = 1.6 // in the shares that follow
	// brushBreak is of the difference function, brushPartials of the salience, brushFlux of the flux.
	brushBreak    = 0.2
	brushPartials = 0.3
	brushFlux     = 60.0
)

// broken is how far from one period the wave is around a frame: the third highest of nine.
func (s *segmenter) broken(frame int) float64 {
	depths := make([]float64, 0, 9)
	for k := frame - 4; k <= frame+4; k++ {
		depths = append(depths, s.at(k).depth)
	}
	slices.Sort(depths)
	return depths[6]
}

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
	if new := struck.fresh; new != nil && new.first.salience >= clearlyNew {
		// Partials of the same string are no new note.
		if apart := new.first.pitch - s.pending.Pitch; math.Abs(apart) > 0.6 && math.Abs(apart-12) > 0.6 && math.Abs(apart-19) > 0.6 {
			return false
		}
	}
	before, dip, after := s.levels(struck.frame)
	return after-before < 3 && before-dip < 8
}

// stilledFrames is how long a string sounds at most when a hand stills it, in frames: 60 ms.
const stilledFrames = 12

// lowPitch is A1: below it the level of 10 ms goes up and down with the wave.
const lowPitch = 33

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

// extend lets the pending note go on over the frames.
func (s *segmenter) extend(first, last int, curve []float64) {
	n := s.pending
	have := int(math.Round(n.Length / hopSeconds))
	from := int(math.Round(n.Onset / hopSeconds))
	for k := from + have; k < first; k++ {
		n.Curve = append(n.Curve, n.Curve[len(n.Curve)-1])
	}
	for _, p := range curve {
		n.Curve = append(n.Curve, float32((p-n.Pitch)*100))
	}
	n.Length = float64(last)*hopSeconds - n.Onset
	n.shape()
}

// note writes a note from a piece of the curve.
func (s *segmenter) note(at float64, attack Attack, slidFrom, frame int, piece []float64, first, last int) *Note {
	n := &Note{Onset: at, Attack: attack, SlidFrom: slidFrom, Loudness: -120}
	end := frame + len(piece)
	n.Length = float64(end)*hopSeconds - at
	n.Pitch = beginsWith(piece)
	depth := 0.0
	for k := frame; k < end; k++ {
		n.Loudness = math.Max(n.Loudness, s.at(k).level)
		depth += s.at(k).depth
	}
	// Frames before the pitch was clear belong to the note: they have its first pitch.
	for k := int(math.Round(at / hopSeconds)); k < frame; k++ {
		n.Curve = append(n.Curve, float32((piece[0]-n.Pitch)*100))
	}
	for _, p := range piece {
		n.Curve = append(n.Curve, float32((p-n.Pitch)*100))
	}
	n.Confidence = math.Max(0.05, math.Min(1, 1.15-2*depth/float64(len(piece))))
	n.shape()
	return n
}

// shape finds the bend and the vibrato of a note. One that was bent before it was struck is called by the fret it
// falls back to.
func (n *Note) shape() {
	pre := n.Bend != nil && n.Bend.Pre
	if pre { // as it was heard
		n.rebase(n.Bend.Cents)
	}
	n.Bend, n.Vibrato = shaped(n.Curve)
	if n.Bend != nil && n.Bend.Pre {
		n.rebase(-n.Bend.Cents)
	}
}

// rebase moves what the curve is counted from by so many cents.
func (n *Note) rebase(cents float64) {
	n.Pitch += cents / 100
	for k := range n.Curve {
		n.Curve[k] -= float32(cents)
	}
}

// beginsWith is the pitch that a piece begins with: the middle of its first frames for as long as it stays,
// and of a string that moves at once the pitch it moves from.
func beginsWith(piece []float64) float64 {
	level := 1
	for level < len(piece) && level < 60 && math.Abs(piece[level]-piece[0]) < 0.12 {
		level++
	}
	if level >= 4 {
		sorted := slices.Clone(piece[:level])
		slices.Sort(sorted)
		return sorted[len(sorted)/2]
	}
	return piece[0]
}

// flush writes the pending note.
func (s *segmenter) flush() {
	if s.pending != nil {
		s.notes = append(s.notes, *s.pending)
		s.pending = nil
	}
}
