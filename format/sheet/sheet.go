package sheet

import (
	"fmt"
	"sort"
	"strings"

	"undaris/core/chart"
	"undaris/core/choice"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Paper is a size of paper, in mm.
type Paper struct {
	Name          string
	Width, Height float64
}

// Papers lists the sizes that sheets are drawn for.
var Papers = []Paper{{"A4", 210, 297}, {"Letter", 215.9, 279.4}}

// FindPaper finds a size by its name; the empty name is A4.
func FindPaper(name string) (Paper, error) {
	if name == "" {
		return Papers[0], nil
	}
	p, err := choice.Find("a size of paper", Papers, func(p Paper) string { return p.Name }, name)
	return p, chart.InField("paper", err)
}

// margin is the white around a sheet, and foot what stands below it.
const margin = 14

const foot = "warm up before wide stretches; stop at any pain; rest every 25 minutes"

// mapHeight is the height, in mm, of a sheet with one map.
const mapHeight = 126

// Order is what is drawn.
type Order struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	Paper      Paper
	// SpanMM is the player's comfortable stretch; Swaps the tones wanted elsewhere.
	SpanMM float64
	Swaps  []neck.Swap
}

// Drawing is a sheet that can be drawn.
type Drawing struct {
	title string
	draw  func(canvas)
}

// PDF draws the sheet as a PDF; the same sheet is the same file.
func (d Drawing) PDF() []byte {
	c := newPDF(d.title)
	d.draw(c)
	return c.done()
}

// SVG draws the sheet as an SVG, its pages below one another.
func (d Drawing) SVG() []byte {
	c := &svg{}
	d.draw(c)
	return c.done()
}

// OneMap draws a chord in a position, large: its tones as degrees and, below, as
// notes with their fingers; the box as small dashed rings.
func (o Order) OneMap(chord harmony.Chord, p neck.Position) Drawing {
	shape, form := o.shape(chord, p)
	return o.drawMap(chord, p, named(p, form), shape)
}

// MapInLayout is OneMap with the chord laid out in another way. Its error is a *neck.LayoutError where
// nothing lies there so.
func (o Order) MapInLayout(chord harmony.Chord, p neck.Position, l neck.Layout) (Drawing, error) {
	tones := neck.LayoutTones(o.Chart.Key, chord, l.Kind)
	shape, err := neck.PlaceInLayout(o.Instrument, p.Window, tones, l)
	if err != nil {
		return Drawing{}, err
	}
	form := neck.FormAt(o.Instrument, chord.Root.Class(), p.Window)
	shape = shape.Swapped(o.Instrument, p.Window, chord.Quality.Sign, form, o.Swaps)
	return o.drawMap(chord, p, named(p, form)+", "+l.Text(), shape), nil
}

// WholeNeck draws a chord's tones on all frets.
func (o Order) WholeNeck(chord harmony.Chord) Drawing {
	whole := neck.Window{CoreEnd: o.Instrument.Frets, High: o.Instrument.Frets}
	return Drawing{o.Chart.Title, func(c canvas) {
		c.page(o.Paper.Width, mapHeight)
		c.text(margin, margin+6, letters{size: 8, bold: true}, Signs(chord.Symbol()))
		c.text(margin+34, margin+6, letters{size: 4.4}, "the whole neck")
		c.text(o.Paper.Width-margin, margin+6, letters{size: 3.6, at: right}, o.Chart.Title)
		marks := []mark{}
		for s := range o.Instrument.Open {
			for fret := 0; fret <= whole.High; fret++ {
				at := neck.Place{String: s + 1, Fret: fret}
				if t, ok := chord.Tone(o.Instrument.Pitch(at).Class()); ok {
					marks = append(marks, markOf(at, t.Degree))
				}
			}
		}
		drawNeck(c, o.Instrument, frame{x: margin + 12, y: margin + 18, w: o.Paper.Width - 2*margin - 14, h: 56, first: 1, last: whole.High}, marks)
		c.text(margin, mapHeight-5, letters{size: 3}, foot)
	}}
}

// drawMap draws a shape of a chord, large.
func (o Order) drawMap(chord harmony.Chord, p neck.Position, title string, shape neck.Shape) Drawing {
	return Drawing{o.Chart.Title, func(c canvas) {
		c.page(o.Paper.Width, mapHeight)
		c.text(margin, margin+6, letters{size: 8, bold: true}, Signs(chord.Symbol()))
		c.text(margin+34, margin+6, letters{size: 4.4}, title)
		c.text(o.Paper.Width-margin, margin+6, letters{size: 3.6, at: right}, o.Chart.Title)
		first, last := max(p.Low, 1), p.High
		for _, t := range shape.Tones {
			if t.Fret > 0 { // so many a string leave the position
				first, last = min(first, t.Fret), max(last, t.Fret)
			}
		}
		drawNeck(c, o.Instrument, frame{x: margin + 12, y: margin + 16, w: o.Paper.Width - 2*margin - 14, h: 50, first: first, last: last}, append(o.box(p, shape), marksOf(shape)...))
		y := float64(margin + 84)
		for n, tone := range shape.Tones {
			x := margin + 6 + float64(n)*(o.Paper.Width-2*margin-8)/float64(max(len(shape.Tones), 8))
			c.text(x, y, letters{size: 4.2, bold: true, at: centre}, Signs(tone.Degree.String()))
			c.text(x, y+5, letters{size: 3.6, at: centre}, Signs(tone.Note.String()))
			c.text(x, y+9.5, letters{size: 3, at: centre}, fingerName(tone.Finger))
		}
		c.text(margin, mapHeight-9, letters{size: 3}, "black: root · rings: the box, "+o.boxName()+" · below: from the lowest string up, degree, note, finger")
		under := foot
		if caution := shape.Caution(o.SpanMM); o.SpanMM > 0 && caution != "" {
			under = caution
		}
		c.text(margin, mapHeight-5, letters{size: 3}, under)
	}}
}

// shape is the chord in a position, its tones where the player wants them.
func (o Order) shape(chord harmony.Chord, p neck.Position) (neck.Shape, neck.Form) {
	form := neck.FormAt(o.Instrument, chord.Root.Class(), p.Window)
	return neck.PlaceChord(o.Instrument, p.Window, chord, o.Swaps), form
}

// named says a position and the form a chord makes there, where forms lie.
func named(p neck.Position, form neck.Form) string {
	if p.Form == "" {
		return fmt.Sprintf("frets %d–%d", p.Core, p.CoreEnd)
	}
	return fmt.Sprintf("%s-form position, frets %d–%d: makes the %s form", p.Form, p.Core, p.CoreEnd, form)
}

func fingerName(finger int) string {
	if finger == 0 {
		return "open"
	}
	return fmt.Sprintf("finger %d", finger)
}

func marksOf(shape neck.Shape) []mark {
	marks := []mark{}
	for _, t := range shape.Tones {
		marks = append(marks, markOf(t.Place, t.Degree))
	}
	return marks
}

// markOf is a tone as a pebble, the root filled.
func markOf(at neck.Place, d pitch.Degree) mark {
	m := mark{Place: at, text: d.String(), form: tone}
	if d.Number == 1 && d.Alter == 0 {
		m.form = root
	}
	return m
}

func (o Order) box(p neck.Position, shape neck.Shape) []mark {
	box, err := o.Chart.Key.Box(o.Chart.Box)
	if err != nil {
		return nil
	}
	marks := []mark{}
	for _, t := range neck.PlaceTones(o.Instrument, p.Window, box.Tones).Tones {
		if _, taken := shape.Tone(t.Place); !taken {
			marks = append(marks, mark{Place: t.Place, form: dot})
		}
	}
	return marks
}

// fivePositions are the five forms, each at its lowest place on the neck where
// all of its frets are fretted, lowest first; in other tunings the five lowest
// windows.
func (o Order) fivePositions() []neck.Position {
	seen := map[neck.Form]bool{}
	five := []neck.Position{}
	for _, p := range neck.Positions(o.Instrument, o.Chart.Key.Tonic.Class()) {
		if p.Core > 0 && len(five) < 5 && (p.Form == "" || !seen[p.Form]) {
			seen[p.Form] = true
			five = append(five, p)
		}
	}
	sort.Slice(five, func(a, b int) bool { return five[a].Core < five[b].Core })
	return five
}

// A row of small necks with its caption is as high as the page has room for,
// between these.
const (
	leastRow = 33
	mostRow  = 48
)

// Practice draws the whole tune: its bars, then every chord in the five
// positions, on as many pages as it takes.
func (o Order) Practice() Drawing {
	return Drawing{o.Chart.Title, func(c canvas) {
		chords := o.Chart.Chords()
		five := o.fivePositions()
		y := o.head(c, true)
		bottom := o.Paper.Height - margin - 6
		height := min(max((bottom-y)/float64(len(chords)), leastRow), mostRow)
		for _, chord := range chords {
			if y+height > bottom+0.01 {
				o.foot(c)
				y = o.head(c, false)
			}
			o.row(c, y, height, chord, five)
			y += height
		}
		o.foot(c)
	}}
}

// head begins a page, with the bars of the tune on the first, and returns where
// the rows begin.
func (o Order) head(c canvas, bars bool) float64 {
	c.page(o.Paper.Width, o.Paper.Height)
	c.text(margin, margin+4, letters{size: 6.4, bold: true}, o.Chart.Title)
	facts := fmt.Sprintf("%s %s · %s · %s · %d", Signs(o.Chart.Key.Tonic.String()), o.Chart.Key.Mode, o.Chart.Meter, o.Chart.Feel, o.Chart.Tempo)
	c.text(o.Paper.Width-margin, margin+4, letters{size: 3.8, at: right}, facts)
	y := float64(margin + 11)
	if !bars {
		return y
	}
	return o.strip(c, y) + 5
}

// mostStripBars is how many bars the strip of a sheet draws; a longer tune is
// printed as a chart.
const mostStripBars = 48

func (o Order) strip(c canvas, y float64) float64 {
	const inARow, height = 8, 12
	w := (o.Paper.Width - 2*margin) / inARow
	for b, bar := range o.Chart.Bars {
		if b == mostStripBars {
			c.text(margin, y+float64(b/inARow*height)+4, letters{size: 3}, fmt.Sprintf("and %d more bars", len(o.Chart.Bars)-b))
			return y + float64(b/inARow*height) + 6
		}
		x, top := margin+float64(b%inARow)*w, y+float64(b/inARow*height)
		c.line(x, top, x, top+8, 0.3)
		if b%inARow == inARow-1 || b+1 == len(o.Chart.Bars) {
			c.line(x+w, top, x+w, top+8, 0.3)
		}
		in := o.Chart.SettingOf(b)
		if above := barHeading(bar); above != "" {
			c.text(x+0.5, top-0.7, letters{size: 2.4, bold: true}, above)
		}
		size := []float64{0, 4.2, 3.2, 2.5, 2.2}[min(len(bar.Spans), 4)]
		beat := 0
		for _, span := range bar.Spans {
			at := x + 1.5 + (w-2)*float64(beat)/float64(in.Meter.Beats())
			name := Signs(span.Name())
			// A long symbol is set smaller rather than into its neighbour.
			fits := (w - 2) * float64(span.Beats) / float64(in.Meter.Beats()) / (0.72 * float64(len([]rune(name))))
			c.text(at, top+5.2, letters{size: min(size, fits), bold: true}, name)
			if !span.Empty() {
				c.text(at, top+8, letters{size: 2.2}, Signs(in.Key.Roman(span.Chord)))
			}
			beat += span.Beats
		}
	}
	rows := (len(o.Chart.Bars) + inARow - 1) / inARow
	return y + float64(rows*height)
}

// barHeading is what stands above a bar: its section, what changes, and where it leads.
func barHeading(bar chart.Bar) string {
	parts := []string{}
	if bar.Section != "" {
		parts = append(parts, bar.Section)
	}
	if change := bar.Change.String(); change != "" {
		parts = append(parts, Signs(strings.TrimPrefix(change, "key ")))
	}
	for _, sign := range []struct {
		name string
		set  bool
	}{{"segno", bar.Signs.Segno}, {"coda", bar.Signs.Coda}, {"to coda", bar.Signs.ToCoda}, {"fine", bar.Signs.Fine}, {string(bar.Signs.Jump), bar.Signs.Jump != chart.NoJump}} {
		if sign.set {
			parts = append(parts, sign.name)
		}
	}
	return strings.Join(parts, " · ")
}

func (o Order) row(c canvas, y, height float64, chord harmony.Chord, five []neck.Position) {
	c.text(margin, y+4, letters{size: 5, bold: true}, Signs(chord.Symbol()))
	c.text(margin, y+8.5, letters{size: 3}, Signs(o.Chart.Key.Roman(chord)))
	indent := 20.0
	w := (o.Paper.Width - 2*margin - indent) / 5
	for n, p := range five {
		x := margin + indent + float64(n)*w
		shape, form := o.shape(chord, p)
		says := fmt.Sprintf("frets %d–%d", p.Core, p.CoreEnd)
		if p.Form != "" {
			says = fmt.Sprintf("position %s, %s form", p.Form, form)
		}
		c.text(x+w/2, y+1.5, letters{size: 2.6, at: centre}, says)
		drawNeck(c, o.Instrument, frame{x: x + 4, y: y + 5, w: w - 6, h: height - 15, first: max(p.Low, 1), last: p.High, small: true}, append(o.box(p, shape), marksOf(shape)...))
	}
}

func (o Order) foot(c canvas) {
	c.text(margin, o.Paper.Height-margin+4, letters{size: 2.8}, "black: root · rings: the box, "+o.boxName()+" · "+foot)
}

func (o Order) boxName() string {
	box, err := o.Chart.Key.Box(o.Chart.Box)
	if err != nil {
		return ""
	}
	return Signs(box.Name())
}

// Blank draws necks to fill in, eight on a page, twelve frets each.
func (o Order) Blank() Drawing {
	return Drawing{o.Chart.Title, func(c canvas) {
		c.page(o.Paper.Width, o.Paper.Height)
		const necks, frets = 8, 12
		step := (o.Paper.Height - 2*margin) / necks
		for n := range necks {
			drawNeck(c, o.Instrument, frame{x: margin + 6, y: margin + 8 + float64(n)*step, w: o.Paper.Width - 2*margin - 6, h: step - 17, first: 1, last: frets}, nil)
			c.line(margin+6, margin+4+float64(n)*step, margin+70, margin+4+float64(n)*step, 0.1)
		}
	}}
}
