package sheet

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Lesson is a sheet of chosen parts of a tune, each beginning a page, with its lines one below the
// other: what a teacher hands out, or a player puts on the stand.
type Lesson struct {
	Order
	// Large sets everything larger (largePrint), to be read from a music stand.
	Large bool
	// WithChart draws the bars, four in a row; WithMaps every chord in the five positions.
	WithChart, WithMaps bool
	// Landings are those of a path through the changes, drawn as a table with the name of their
	// target strategy; none leaves it out.
	Landings []Landing
	Strategy string
	// Lines are licks, exercises and solos, as staff and tab.
	Lines []Score
}

// Landing is one row of a path: where to land as a chord arrives.
type Landing struct {
	// Bar is the number of the arriving chord's bar, from 1, and Beat that of its beat.
	Bar, Beat     int
	Leaving, Over harmony.Chord
	neck.Placed
	// Text says how it is come to.
	Text string
}

// largePrint is how much larger large print is: 1.4 times makes of the usual 3.4 mm letters 4.8 mm,
// about 14 points, where associations of the blind begin to speak of large print.
const largePrint = 1.4

// Drawing lays the lesson out.
func (l Lesson) Drawing() Drawing {
	if l.Paper == (Paper{}) {
		l.Paper = Papers[0]
	}
	paper := l.Paper
	if l.Large {
		l.Paper.Width, l.Paper.Height = paper.Width/largePrint, paper.Height/largePrint
	}
	return Drawing{l.Order.Chart.Title, func(c canvas) {
		if l.Large {
			c = enlarged{c, largePrint}
		}
		l.draw(c)
	}}
}

func (l Lesson) draw(c canvas) {
	if l.WithChart {
		l.chart(c)
	}
	if l.WithMaps {
		l.Practice().draw(c)
	}
	if len(l.Landings) > 0 {
		l.path(c)
	}
	y := 0.0
	for n, line := range l.Lines {
		line.Paper = l.Paper
		if n == 0 || y+titleHeight+line.systemHeight() > l.Paper.Height-margin {
			if n > 0 {
				l.footOf(c)
			}
			c.page(l.Paper.Width, l.Paper.Height)
			y = margin
		}
		y = line.drawFrom(c, y) + 4
	}
	if len(l.Lines) > 0 {
		l.footOf(c)
	}
	if !l.WithChart && !l.WithMaps && len(l.Landings) == 0 && len(l.Lines) == 0 {
		l.head(c, false)
		c.text(margin, margin+16, letters{size: 4}, "Nothing was chosen for this sheet.")
	}
}

func (l Lesson) footOf(c canvas) {
	c.text(margin, l.Paper.Height-8, letters{size: 2.8}, foot)
}

// How the bars of a chart are set on a page of their own, in mm.
const (
	chartBarsInRow = 4
	chartRow       = 21.0
	chartBarHeight = 14.0
)

// chart draws the bars of the tune large, four in a row.
func (l Lesson) chart(c canvas) {
	y := l.head(c, false) + 6
	width := (l.Paper.Width - 2*margin) / chartBarsInRow
	for b, bar := range l.Order.Chart.Bars {
		column := b % chartBarsInRow
		if column == 0 && b > 0 {
			if y += chartRow; y+chartRow > l.Paper.Height-margin {
				l.footOf(c)
				y = l.head(c, false) + 6
			}
		}
		x := margin + float64(column)*width
		l.chartBar(c, b, bar, x, y, width)
		if column == chartBarsInRow-1 || b+1 == len(l.Order.Chart.Bars) {
			c.line(x+width, y, x+width, y+chartBarHeight, 0.5)
		}
	}
	l.footOf(c)
}

// chartBar draws one bar: its number, what changes with it, its repeats, and its chords with their
// numerals, those that are imagined above them.
func (l Lesson) chartBar(c canvas, b int, bar chart.Bar, x, y, width float64) {
	c.line(x, y, x, y+chartBarHeight, 0.5)
	above := fmt.Sprint(b + 1)
	if heading := barHeading(bar); heading != "" {
		above += " · " + heading
	}
	if bar.Ending > 0 {
		above += fmt.Sprintf(" · %d.", bar.Ending)
	}
	c.text(x+0.6, y-1, letters{size: 2.6, bold: true}, above)
	if bar.RepeatFrom {
		c.text(x+0.7, y+chartBarHeight-1, letters{size: 4, bold: true}, ":")
	}
	if bar.RepeatTo > 1 {
		c.text(x+width-0.8, y+chartBarHeight-1, letters{size: 3, bold: true, at: right}, fmt.Sprintf(": ×%d", bar.RepeatTo))
	}
	in := l.Order.Chart.SettingOf(b)
	l.spans(c, bar.Imagined, in, x, y+3.6, width, 3, false)
	l.spans(c, bar.Spans, in, x, y+9.4, width, 6, true)
}

// spans draws chords where their beats are, no larger than they have room for.
func (l Lesson) spans(c canvas, spans []chart.Span, in chart.Setting, x, y, width, size float64, numerals bool) {
	beat := 0
	for _, span := range spans {
		at := x + 3 + (width-4)*float64(beat)/float64(in.Meter.Beats())
		beat += span.Beats
		if span.Empty() && !numerals {
			continue
		}
		name := Signs(span.Name())
		fits := (width - 4) * float64(span.Beats) / float64(in.Meter.Beats()) / (0.7 * float64(len([]rune(name))))
		c.text(at, y, letters{size: min(size, fits), bold: true}, name)
		if numerals && !span.Empty() {
			c.text(at, y+3.8, letters{size: 2.8}, Signs(in.Key.Roman(span.Chord)))
		}
	}
}

// pathRow is the height of a row of the path's table, in mm.
const pathRow = 11.0

// path draws a table of where to land at each change.
func (l Lesson) path(c canvas) {
	heading := func() float64 {
		y := l.head(c, false) + 5
		c.text(margin, y, letters{size: 4, bold: true}, "Where to land: "+l.Strategy)
		return y + 9
	}
	y := heading()
	for _, row := range l.Landings {
		if y+pathRow > l.Paper.Height-margin {
			l.footOf(c)
			y = heading()
		}
		c.text(margin, y, letters{size: 3.4}, fmt.Sprintf("bar %d", row.Bar))
		if row.Beat > 1 {
			c.text(margin, y+4, letters{size: 2.6}, fmt.Sprintf("beat %d", row.Beat))
		}
		c.text(margin+15, y, letters{size: 4, bold: true}, Signs(row.Leaving.Symbol()+" → "+row.Over.Symbol()))
		c.text(margin+56, y, letters{size: 4.4, bold: true}, Signs(row.Note.String()+", the "+row.Degree.String()))
		c.text(margin+86, y, letters{size: 3.6}, placeText(row.Place))
		c.text(margin+15, y+4.4, letters{size: 2.8}, Signs(row.Text))
		c.line(margin, y+6.2, l.Paper.Width-margin, y+6.2, 0.1)
		y += pathRow
	}
	l.footOf(c)
}

func placeText(p neck.Place) string {
	if p.Fret == 0 {
		return fmt.Sprintf("string %d, open", p.String)
	}
	return fmt.Sprintf("string %d, fret %d", p.String, p.Fret)
}

// enlarged draws everything larger by a factor, on pages that are so much larger too.
type enlarged struct {
	canvas
	by float64
}

func (e enlarged) page(width, height float64) { e.canvas.page(width*e.by, height*e.by) }

func (e enlarged) line(x1, y1, x2, y2, thick float64) {
	e.canvas.line(x1*e.by, y1*e.by, x2*e.by, y2*e.by, thick*e.by)
}

func (e enlarged) pill(x, y, w, h, thick float64, filled, dashed bool) {
	e.canvas.pill(x*e.by, y*e.by, w*e.by, h*e.by, thick*e.by, filled, dashed)
}

func (e enlarged) blank(x, y, w, h float64) {
	e.canvas.blank(x*e.by, y*e.by, w*e.by, h*e.by)
}

func (e enlarged) text(x, y float64, l letters, s string) {
	l.size *= e.by
	e.canvas.text(x*e.by, y*e.by, l, s)
}
