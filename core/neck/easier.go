package neck

import (
	"fmt"
	"slices"
	"strings"
)

// What a player may set as a comfortable span, in millimetres.
const (
	MinSpanMM = 50
	MaxSpanMM = 200
)

// Easier is a shape brought within a span.
type Easier struct {
	Shape
	// Moved are the tones that lie elsewhere than before, Left those that have no
	// place within the span.
	Moved, Left []Placed
	// Up is where the same frets lie an octave higher, where they are closer and
	// also within the span; nil where the neck ends before.
	Up *Window
	// Text says it all.
	Text string
}

// Easier is the placing nearest to a shape that a hand of the given span has in
// one place, found by trying every stretch of frets: most tones kept, then
// fewest moved, then the least cost of fingering. Open strings stretch nothing.
// It is nothing where the shape is within the span already.
func (s Shape) Easier(i Instrument, w Window, spanMM float64) (Easier, bool) {
	if s.StretchMM <= spanMM {
		return Easier{}, false
	}
	best, bestCost := Easier{}, 0
	for low := max(w.Low, 1); low <= w.High; low++ {
		for high := low; high <= w.High && i.StretchMM(low, high) <= spanMM; high++ {
			one, cost := s.within(i, w, low, high)
			switch kept := len(one.Tones); {
			case kept == 0 || kept < len(best.Tones):
			case kept > len(best.Tones), len(one.Moved) < len(best.Moved), len(one.Moved) == len(best.Moved) && cost < bestCost:
				best, bestCost = one, cost
			}
		}
	}
	if len(best.Tones) == 0 {
		return Easier{}, false
	}
	if up := i.WindowFrom(w.Core + 12); up.CoreEnd <= i.Frets && up.High == w.High+12 && i.StretchMM(s.lowest()+12, s.highest()+12) <= spanMM && !s.open() {
		best.Up = &up
	}
	best.Text = best.text(spanMM)
	return best, true
}

// within is the shape on the frets from low to high and the open strings.
func (s Shape) within(i Instrument, w Window, low, high int) (Easier, int) {
	one := Easier{}
	kept := []Placed{}
	for _, tone := range s.Tones {
		inside := func(p Place) bool { return p.Fret == 0 || (p.Fret >= low && p.Fret <= high) }
		if inside(tone.Place) {
			kept = append(kept, tone)
			continue
		}
		n := slices.IndexFunc(tone.Alternatives, inside)
		if n < 0 {
			one.Left = append(one.Left, tone)
			continue
		}
		tone.Place = tone.Alternatives[n]
		kept = append(kept, tone)
		one.Moved = append(one.Moved, tone)
	}
	if len(kept) == 0 {
		return one, 0
	}
	wanted := make([]NoteToPlace, len(kept))
	for n := range kept {
		at := kept[n].Place
		wanted[n] = NoteToPlace{Pitch: kept[n].Pitch, At: &at}
	}
	_, cost, err := Finger(i, w, wanted)
	if err != nil {
		panic("places that were found can be fingered: " + err.Error())
	}
	one.Shape = fingeredAgain(i, w, kept)
	return one, cost
}

func (e Easier) text(spanMM float64) string {
	parts := []string{}
	for _, tone := range e.Moved {
		parts = append(parts, fmt.Sprintf("the %s on string %d fret %d", tone.Degree, tone.String, tone.Fret))
	}
	said := fmt.Sprintf("Within %.0f mm: ", spanMM)
	if len(parts) > 0 {
		said += "play " + strings.Join(parts, " and ")
	}
	if len(e.Left) > 0 {
		left := []string{}
		for _, tone := range e.Left {
			left = append(left, fmt.Sprintf("the %s on string %d", tone.Degree, tone.String))
		}
		if len(parts) > 0 {
			said += ", and "
		}
		said += "leave out " + strings.Join(left, " and ")
	}
	if e.Up != nil {
		said += fmt.Sprintf("; or play it an octave up, frets %d to %d", e.Up.Core, e.Up.CoreEnd)
	}
	return said + "."
}

func (s Shape) lowest() int {
	lowest := 1 << 10
	for _, tone := range s.Tones {
		if tone.Fret > 0 {
			lowest = min(lowest, tone.Fret)
		}
	}
	return lowest
}

func (s Shape) highest() int {
	highest := 0
	for _, tone := range s.Tones {
		highest = max(highest, tone.Fret)
	}
	return highest
}

// open says whether the shape uses an open string.
func (s Shape) open() bool {
	return slices.ContainsFunc(s.Tones, func(t Placed) bool { return t.Fret == 0 })
}
