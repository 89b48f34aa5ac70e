package listen

import (
	"math"
	"slices"
)

// Stroke is a note that has just begun, known about 75 ms after it did: for drills and for what lights up while it is
// played. How it goes on, and whether it was bent, only the notes tell.
type Stroke struct {
	// Seconds is its onset, from the beginning of the sound.
	Seconds float64
	// Pitch is a MIDI number with its cents as a share.
	Pitch float64
}

// What makes a stroke (our choice, tuned on plucked strings by computation).
const (
	// strokeDepth is the difference function up to which the pitch of a frame is clear.
	strokeDepth = 0.15
	// strokeFrames is how many frames with one pitch a stroke has.
	strokeFrames = 3
	// strokeWaits is how many frames after an onset its pitch may become clear.
	strokeWaits = 24
	// jumpFrames is how many frames lie between the pitches of a slur.
	jumpFrames = 8
	// strokeSpread is how many semitones these may lie apart, and jumpSpread the same on either side of a slur: a
	// string that is being bent moves more.
	strokeSpread = 0.3
	jumpSpread   = 0.12
	// strokesApart is how many frames lie between two strokes at least.
	strokesApart = 9
)

// strokeFinder finds strokes in the frames as they are made: the onsets, and the pitches that jump without one.
type strokeFinder struct {
	pitches []float64 // of the last frames; NaN where it is not clear
	count   int       // frames that came
	waiting *onset
	last    int // the frame of the last stroke
	strokes []Stroke
}

func newStrokeFinder() *strokeFinder { return &strokeFinder{last: -strokesApart} }

// pitchFrames is how many frames are looked back at.
const pitchFrames = jumpFrames + strokeFrames + 1

// add takes a frame in, and the onset that has become certain with it, nil for none.
func (s *strokeFinder) add(f frame, struck *onset) {
	s.count++
	s.pitches = append(s.pitches, clearPitch(f))
	if len(s.pitches) > pitchFrames {
		s.pitches = slices.Delete(s.pitches, 0, 1)
	}
	if struck != nil && struck.frame-s.last >= strokesApart {
		s.waiting = struck
	}
	pitch, steady := s.steadyPitch(len(s.pitches), strokeSpread)
	if s.waiting != nil {
		switch {
		case steady && s.count-strokeFrames >= s.waiting.frame+afterOnset:
			s.strike(s.waiting.seconds, s.waiting.frame, pitch)
		case s.count > s.waiting.frame+strokeWaits:
			s.waiting = nil
		}
		return
	}
	pitch, steady = s.steadyPitch(len(s.pitches), jumpSpread)
	before, wasSteady := s.steadyPitch(len(s.pitches)-jumpFrames, jumpSpread)
	jump := math.Abs(pitch - before)
	if at := s.count - jumpFrames/2; steady && wasSteady && at-s.last >= strokesApart && jump >= moveLeast && jump <= slurSpan {
		s.strike(float64(at)*hopSeconds, at, pitch)
	}
}

func (s *strokeFinder) strike(seconds float64, frame int, pitch float64) {
	s.strokes = append(s.strokes, Stroke{seconds, pitch})
	s.last, s.waiting = frame, nil
}

// steadyPitch is the pitch of the frames before one, where it is clear and stays within so many semitones.
func (s *strokeFinder) steadyPitch(before int, spread float64) (float64, bool) {
	if before < strokeFrames {
		return 0, false
	}
	lowest, highest := math.Inf(1), math.Inf(-1)
	for _, p := range s.pitches[before-strokeFrames : before] {
		if math.IsNaN(p) {
			return 0, false
		}
		lowest, highest = math.Min(lowest, p), math.Max(highest, p)
	}
	return s.pitches[before-1], highest-lowest < spread
}

// clearPitch is the pitch of a frame by itself, NaN where it has none that is clear.
func clearPitch(f frame) float64 {
	if f.level < f.floor+2*aboveFloor {
		return math.NaN()
	}
	for _, c := range f.candidates {
		if c.depth < strokeDepth {
			return c.pitch
		}
	}
	return math.NaN()
}

// Strokes are the strokes so far, in order of time. They stand as they are: what the notes make of them later
// changes none.
func (l *Listener) Strokes() []Stroke { return l.strokes.strokes }

// SoFar are the notes that are certain, the one that may still go on, and after these the strokes that no note has
// come of yet, as notes without a length: all that was played, as far as it is known now.
func (l *Listener) SoFar() []Note {
	all := slices.Clone(l.segments.notes)
	if l.segments.pending != nil {
		all = append(all, *l.segments.pending)
	}
	known := math.Inf(-1)
	if len(all) > 0 {
		known = all[len(all)-1].Onset
	}
	for _, s := range l.strokes.strokes {
		if s.Seconds > known+strokesApart*hopSeconds {
			all = append(all, Note{Onset: s.Seconds, Pitch: s.Pitch, Attack: Picked, Confidence: strokeConfidence})
		}
	}
	return all
}

// strokeConfidence is how sure a stroke alone is of being a note.
const strokeConfidence = 0.5

// Arrival is the pitch that a note comes to, as a semitone's MIDI number, and when, in seconds from the beginning of
// the sound: what a bent string is bent to, where it stays there; the note itself otherwise. It is what a note is
// meant to be, which drills ask for (our choice: a bend is heard as its goal).
func (n Note) Arrival() (semitone int, seconds float64) {
	if n.steadyOffsetCents() == 0 {
		return n.MIDI(), n.Onset
	}
	return n.SoundingMIDI(), n.Onset + n.Bend.Reached
}
