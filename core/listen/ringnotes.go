package listen

import "math"

// ringingNote is a note that was struck while strings ring, as long as the sound is loud enough up to a frame, and at a
// level pitch; it is none where it is too short or too soft.
func (s *segmenter) ringingNote(struck onset, pitch newPitch, from, to int) (Note, bool) {
	loudest, end := -120.0, from
	for k := from + 1; k < to; k++ {
		loudest = math.Max(loudest, s.at(k).level)
	}
	floor := s.floor(from, to)
	for k := from + 1; k < to; k++ {
		if s.at(k).level >= math.Max(loudest-fallen, floor+aboveFloor) {
			end = k + 1
		}
	}
	note := Note{
		Onset: struck.seconds, Length: float64(end)*hopSeconds - struck.seconds, Pitch: pitch.pitch, Attack: Picked, Loudness: loudest,
		Curve: make([]float32, end-from), Confidence: math.Min(maxConfidenceAmongRinging, pitch.salience),
	}
	return note, end-from >= minFramesAmongRinging && loudest >= floor+2*aboveFloor
}

// pieces are the notes of one stroke: the first, and those that its curve of pitches is slurred to.
func pieces(first Note, curve []float64) []Note {
	all, begin := []Note{}, 0
	next := first
	for _, m := range append(moves(curve), move{from: len(curve) - 1, to: len(curve) - 1}) {
		piece := curve[begin:max(begin, m.from+1)]
		if len(piece) >= noteFrames {
			next.Pitch = beginsWith(piece)
			next.Length = first.Onset + float64(begin+len(piece))*hopSeconds - next.Onset
			next.Curve = make([]float32, 0, len(piece))
			for _, p := range piece {
				next.Curve = append(next.Curve, float32((p-next.Pitch)*100))
			}
			next.shape()
			all = append(all, next)
		}
		begin = m.to
		next = Note{Onset: first.Onset + float64(m.from+m.to)/2*hopSeconds, Attack: m.attack, Loudness: first.Loudness, Confidence: first.Confidence}
		if m.attack == Slid {
			next.Onset = first.Onset + float64(m.to-moveSpan)*hopSeconds
			next.SlidFrom = -int(math.Round(m.semitones))
		}
	}
	return all
}
