package listen

import (
	"math"
	"slices"
)

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
