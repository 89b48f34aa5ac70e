package listen

import "math"

// curve is the pitches of the frames, those without one as between their neighbours, and single leaps of the
// ear taken out.
func (s *segmenter) curve(first, last int) []float64 {
	curve := make([]float64, last-first)
	known, folded := -1, 0.0
	for n := range curve {
		p := s.at(first + n).pitch
		if math.IsNaN(p) {
			continue
		}
		if known >= 0 {
			p, folded = unfolded(curve[known], p, folded)
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

// unfolded is a pitch that follows another, so many semitones higher as the period is taken for that which the note
// has together with strings that ring: no pitch falls by an octave, or to one whose partial it was, without a stroke.
func unfolded(last, now, folded float64) (pitch, next float64) {
	if folded > 0 && math.Abs(now-last) < math.Abs(now+folded-last) {
		return now, 0
	}
	if apart := last - now - folded; isPartial(apart) {
		folded += math.Round(apart)
	}
	return now + folded, folded
}

// isPartial says whether a pitch so many semitones above another is one of its partials, up to the tenth.
func isPartial(above float64) bool {
	times := math.Exp2(above / 12)
	whole := math.Round(times)
	return whole >= 2 && whole <= 10 && math.Abs(12*math.Log2(times/whole)) < 0.3
}
