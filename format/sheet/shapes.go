package sheet

import (
	"undaris/core/phrase"
)

// How the necks of shapes are set, in mm: three in a row, or one where the frets are many.
const (
	shapeHeight   = 24.0
	shapeRow      = 42.0
	shapesInRow   = 3
	fretsOfNarrow = 8
)

// drawShapes draws what is played over each chord on a neck, each chord once, from a height of the page
// down, and returns where they end.
func (s Score) drawShapes(c canvas, y float64) float64 {
	seen := map[string]bool{}
	column := 0
	for _, part := range s.Line.ByChord() {
		symbol := part.Chord.Symbol()
		if seen[symbol] || len(part.Places) == 0 {
			continue
		}
		seen[symbol] = true
		first, last := s.fretsOf(part)
		columns := shapesInRow
		if last-first >= fretsOfNarrow {
			columns = 1
		}
		if column+1 > columns {
			column, y = 0, y+shapeRow
		}
		if y+shapeRow > s.Paper.Height-margin {
			c.text(margin, s.Paper.Height-8, letters{size: 2.8}, foot)
			c.page(s.Paper.Width, s.Paper.Height)
			column, y = 0, margin
		}
		width := (s.Paper.Width - 2*margin) / float64(columns)
		left := margin + float64(column)*width
		c.text(left, y+6, letters{size: 4.4, bold: true}, Signs(symbol))
		drawNeck(c, s.Instrument, frame{x: left + 7, y: y + 10, w: width - 12, h: shapeHeight, first: first, last: last}, s.marksOver(part))
		if column++; columns == 1 {
			column = shapesInRow
		}
	}
	if len(seen) == 0 {
		return y
	}
	return y + shapeRow
}

// fretsOf are the frets to draw for a part: those it is played on, at least five.
func (s Score) fretsOf(part phrase.ChordPart) (first, last int) {
	first, last = s.Instrument.Frets, 1
	for _, f := range part.Places {
		if f.Fret > 0 {
			first, last = min(first, f.Fret), max(last, f.Fret)
		}
	}
	first = min(first, last)
	return first, min(max(last, first+4), s.Instrument.Frets)
}

// marksOver are the places of a part with their degrees.
func (s Score) marksOver(part phrase.ChordPart) []mark {
	marks := []mark{}
	for _, f := range part.Places {
		played := s.Chart.Key.ToneOver(part.Chord, s.Instrument.Pitch(f.Place).Class())
		marks = append(marks, markOf(f.Place, played.Degree))
	}
	return marks
}
