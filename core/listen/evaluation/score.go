package evaluation

import (
	"math"
	"slices"

	"undaris/core/listen"
	"undaris/core/listen/pluck"
)

// OnsetWithin and PitchWithin are how near a note must come to count as heard: seconds, and semitones.
const (
	OnsetWithin = 0.05
	PitchWithin = 0.5
)

// Score counts what was heard of a line.
type Score struct {
	Played, Heard, Right int
	// OnsetErrors are seconds, PitchErrors and BendErrors cents, of the notes that were heard right.
	OnsetErrors, PitchErrors, BendErrors []float64
	// Bends counts the bends that were played, BendsHeard those that were heard as bends.
	Bends, BendsHeard int
	// Attacks counts the slurs and slides that were heard right, Slurs those that were played.
	Slurs, SlursHeard int
	// Vibratos likewise, with the errors of their rates in Hz and widths in cents.
	Vibratos, VibratosHeard int
	RateErrors, WidthErrors []float64
	MissedNotes, AddedNotes []float64 // onsets
}

// F is the harmonic mean of precision and recall.
func (s Score) F() float64 {
	if s.Played+s.Heard == 0 {
		return 1
	}
	return 2 * float64(s.Right) / float64(s.Played+s.Heard)
}

// Add adds another score.
func (s *Score) Add(o Score) {
	s.Played += o.Played
	s.Heard += o.Heard
	s.Right += o.Right
	s.OnsetErrors = append(s.OnsetErrors, o.OnsetErrors...)
	s.PitchErrors = append(s.PitchErrors, o.PitchErrors...)
	s.BendErrors = append(s.BendErrors, o.BendErrors...)
	s.Bends += o.Bends
	s.BendsHeard += o.BendsHeard
	s.Slurs += o.Slurs
	s.SlursHeard += o.SlursHeard
	s.Vibratos += o.Vibratos
	s.VibratosHeard += o.VibratosHeard
	s.RateErrors = append(s.RateErrors, o.RateErrors...)
	s.WidthErrors = append(s.WidthErrors, o.WidthErrors...)
}

// onsetOf is when a note that is played begins: a slide when the finger arrives.
func onsetOf(p pluck.Played) float64 {
	if p.Attack == pluck.Slid && len(p.Curve) > 0 {
		return p.Onset + p.Curve[len(p.Curve)-1].Seconds
	}
	return p.Onset
}

func pitchOf(p pluck.Played) float64 { return p.Pitch + p.Cents(onsetOf(p)-p.Onset)/100 }

func pitchHeard(n listen.Note) float64 {
	if n.Bend != nil && n.Bend.Pre {
		return n.Pitch + n.Bend.Cents/100
	}
	return n.Pitch
}

// Compare scores what was heard against what was played: each note once, the nearest onsets first.
func Compare(played []pluck.Played, heard []listen.Note) Score {
	s := Score{Played: len(played), Heard: len(heard)}
	type pair struct {
		p, h  int
		apart float64
	}
	pairs := []pair{}
	for p, note := range played {
		for h, other := range heard {
			apart := math.Abs(onsetOf(note) - other.Onset)
			if apart <= OnsetWithin && math.Abs(pitchOf(note)-pitchHeard(other)) <= PitchWithin {
				pairs = append(pairs, pair{p, h, apart})
			}
		}
	}
	slices.SortStableFunc(pairs, func(a, b pair) int {
		switch {
		case a.apart < b.apart:
			return -1
		case a.apart > b.apart:
			return 1
		}
		return 0
	})
	usedP, usedH := map[int]bool{}, map[int]bool{}
	for _, x := range pairs {
		if usedP[x.p] || usedH[x.h] {
			continue
		}
		usedP[x.p], usedH[x.h] = true, true
		s.right(played[x.p], heard[x.h])
	}
	for p, note := range played {
		s.count(note)
		if !usedP[p] {
			s.MissedNotes = append(s.MissedNotes, onsetOf(note))
		}
	}
	for h, note := range heard {
		if !usedH[h] {
			s.AddedNotes = append(s.AddedNotes, note.Onset)
		}
	}
	return s
}

// bendPlayed is how far a note was bent, in cents; a curve that goes to and fro is a vibrato.
func bendPlayed(p pluck.Played) (cents float64, bent, shaken bool) {
	if p.Attack == pluck.Slid {
		return 0, false, false
	}
	for _, c := range p.Curve {
		if c.Cents < -1 {
			return 0, false, true
		}
		cents = math.Max(cents, c.Cents)
	}
	return cents, cents > 0, false
}

func (s *Score) count(p pluck.Played) {
	_, bent, shaken := bendPlayed(p)
	switch {
	case bent:
		s.Bends++
	case shaken:
		s.Vibratos++
	}
	if p.Attack != pluck.Picked {
		s.Slurs++
	}
}

func (s *Score) right(p pluck.Played, h listen.Note) {
	s.Right++
	s.OnsetErrors = append(s.OnsetErrors, h.Onset-onsetOf(p))
	s.PitchErrors = append(s.PitchErrors, 100*(pitchHeard(h)-pitchOf(p)))
	cents, bent, shaken := bendPlayed(p)
	if bent && h.Bend != nil {
		s.BendsHeard++
		s.BendErrors = append(s.BendErrors, h.Bend.Cents-cents)
	}
	if shaken && h.Vibrato != nil {
		s.VibratosHeard++
		most := 0.0
		for _, c := range p.Curve {
			most = math.Max(most, c.Cents)
		}
		s.WidthErrors = append(s.WidthErrors, h.Vibrato.Cents-most)
	}
	if p.Attack != pluck.Picked && string(p.Attack) == string(h.Attack) {
		s.SlursHeard++
	}
}

// Median is the middle of the absolute values; 0 of none.
func Median(values []float64) float64 {
	if len(values) == 0 {
		return 0
	}
	sizes := make([]float64, len(values))
	for n, v := range values {
		sizes[n] = math.Abs(v)
	}
	slices.Sort(sizes)
	return sizes[len(sizes)/2]
}

// Most is the largest of the absolute values.
func Most(values []float64) float64 {
	most := 0.0
	for _, v := range values {
		most = math.Max(most, math.Abs(v))
	}
	return most
}
