package sheet

import (
	"fmt"
	"math"
	"strconv"

	"undaris/core/phrase"
)

// group draws signs that share a beam, or one sign.
func (s system) group(signs []phrase.NotatedNote, at func(int) float64, shown map[string]int) {
	if len(signs[0].Events) == 0 {
		s.rest(signs[0], at(signs[0].Tick)+1)
		return
	}
	high, low := math.Inf(1), math.Inf(-1)
	for _, w := range signs {
		for _, n := range w.Events {
			y, _ := s.height(n)
			high, low = min(high, y), max(low, y)
		}
	}
	up := (high+low)/2 > s.top+2*staffGap
	end := low + stemLength
	if up {
		end = high - stemLength
	}
	for k, w := range signs {
		x := at(w.Tick)
		for _, n := range w.Events {
			s.head(n, x, w, shown)
		}
		if w.Kind != "whole" && w.Kind != "" {
			y, _ := s.height(w.Events[0])
			s.line(stemAt(x, up), y, stemAt(x, up), end, 0.2)
		}
		if w.Tied && len(w.Events) > 0 {
			y, _ := s.height(w.Events[0])
			next := at(w.Tick + w.Ticks)
			s.arc(x+headWidth/2, next-headWidth/2, y, up)
		}
		for f := range flags(w) {
			y := end + float64(f)*1.1*map[bool]float64{true: 1, false: -1}[up]
			switch {
			case len(signs) == 1:
				s.line(stemAt(x, up), y, stemAt(x, up)+1.6, y+2*map[bool]float64{true: 1, false: -1}[up], 0.3)
			case k+1 < len(signs) && flags(signs[k+1]) > f:
				s.line(stemAt(x, up), y, stemAt(at(signs[k+1].Tick), up), y, 0.7)
			case k == 0 || flags(signs[k-1]) <= f:
				s.line(stemAt(x, up)-1.2, y, stemAt(x, up), y, 0.7)
			}
		}
	}
	if signs[0].Tuplet > 0 && len(signs) > 1 {
		y := end + 2.6
		if up {
			y = end - 0.8
		}
		s.text((at(signs[0].Tick)+at(signs[len(signs)-1].Tick))/2, y, letters{size: 2.6, at: centre}, strconv.Itoa(signs[0].Tuplet))
	}
}

func stemAt(x float64, up bool) float64 {
	if up {
		return x + headWidth/2 - 0.1
	}
	return x - headWidth/2 + 0.1
}

// head draws a note's head with its accidental, ledger lines and dots.
func (s system) head(n int, x float64, w phrase.NotatedNote, shown map[string]int) {
	y, steps := s.height(n)
	for ledger := -2; ledger >= steps; ledger -= 2 {
		s.line(x-1.7, s.top+float64(ledger)*staffGap/2, x+1.7, s.top+float64(ledger)*staffGap/2, lineThickness)
	}
	for ledger := 10; ledger <= steps; ledger += 2 {
		s.line(x-1.7, s.top+float64(ledger)*staffGap/2, x+1.7, s.top+float64(ledger)*staffGap/2, lineThickness)
	}
	hollow := w.Kind == "whole" || w.Kind == "half"
	s.pill(x, y, headWidth, headHeight, 0.3, !hollow, false)
	for d := range w.Dots {
		s.pill(x+2.2+float64(d), y-0.4, 0.5, 0.5, 0.1, true, false)
	}
	note := s.labels[n].Note
	place := fmt.Sprintf("%d %d", steps, note.Letter)
	before, said := shown[place]
	if !said {
		before = inSignature(s.Chart.Key, note.Letter)
	}
	if note.Accidental != before {
		s.text(x-1.6, y+1.1, letters{size: 3.4, at: right}, map[int]string{0: "♮", 1: "♯", -1: "♭", 2: "♯♯", -2: "♭♭"}[note.Accidental])
	}
	shown[place] = note.Accidental
}

// arc ties two heads.
func (s system) arc(from, to, y float64, below bool) {
	depth := -1.6
	if below {
		depth = 1.6
	}
	const parts = 8
	for k := range parts {
		a, b := float64(k)/parts, float64(k+1)/parts
		s.line(from+(to-from)*a, y+depth*0.6+depth*4*a*(1-a)*0.5, from+(to-from)*b, y+depth*0.6+depth*4*b*(1-b)*0.5, 0.22)
	}
}

// rest draws the sign of a rest.
func (s system) rest(w phrase.NotatedNote, x float64) {
	middle := s.top + 2*staffGap
	switch w.Kind {
	case "whole", "":
		s.line(x, s.top+staffGap+0.5, x+2.2, s.top+staffGap+0.5, 0.9)
	case "half":
		s.line(x, middle-0.5, x+2.2, middle-0.5, 0.9)
	case "quarter":
		for _, part := range [][4]float64{{-0.4, -2.2, 0.5, -1}, {0.5, -1, -0.4, 0.1}, {-0.4, 0.1, 0.6, 1.2}, {0.6, 1.2, -0.2, 1.1}, {-0.2, 1.1, 0.1, 2.2}} {
			s.line(x+part[0], middle+part[1], x+part[2], middle+part[3], 0.45)
		}
	default:
		for f := range flags(w) {
			s.pill(x-0.4-float64(f)*0.3, middle-1.1+float64(f)*1.5, 0.8, 0.8, 0.1, true, false)
			s.line(x-0.4-float64(f)*0.3, middle-0.8+float64(f)*1.5, x+0.8-float64(f)*0.3, middle-1.2+float64(f)*1.5, 0.22)
		}
		s.line(x+0.8, middle-1.2, x-0.3, middle+2.2, 0.22)
	}
	for d := range w.Dots {
		s.pill(x+2.4+float64(d), middle-0.7, 0.5, 0.5, 0.1, true, false)
	}
}
