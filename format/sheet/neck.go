package sheet

import (
	"strconv"
	"strings"

	"undaris/core/neck"
)

// form is how a note is drawn, told apart without colour.
type form int

const (
	root form = iota // filled
	tone             // a pebble
	dot              // small and dashed: what lies over the chord
)

// mark is one note of a drawing.
type mark struct {
	neck.Place
	text string
	form form
}

// frame is a neck's place on the page, from the first fret drawn to the last.
type frame struct {
	x, y, w, h  float64
	first, last int
	// small leaves out the names of the strings.
	small bool
}

// inlays are the frets that a neck marks.
var inlays = map[int]bool{3: true, 5: true, 7: true, 9: true, 12: true, 15: true, 17: true, 19: true, 21: true, 24: true}

// drawNeck draws a stretch of neck with its notes: the highest string on top, as
// tab has it, frets all as wide as each other.
func drawNeck(c canvas, i neck.Instrument, f frame, marks []mark) {
	strings := len(i.Open)
	gap := f.h / float64(strings-1)
	frets := f.last - f.first + 1
	fret := f.w / float64(frets)
	// An open string sounds before the first fret wire.
	x := func(number int) float64 {
		if number == 0 {
			return f.x - gap*0.8
		}
		return f.x + (float64(number-f.first)+0.5)*fret
	}
	for s := range strings {
		y := f.y + float64(s)*gap
		c.line(f.x, y, f.x+f.w, y, 0.12+0.05*float64(s))
	}
	for n := range frets + 1 {
		thick := 0.2
		if f.first == 1 && n == 0 {
			thick = 1
		}
		c.line(f.x+float64(n)*fret, f.y, f.x+float64(n)*fret, f.y+f.h, thick)
	}
	size := min(gap*0.8, 4)
	for n := f.first; n <= f.last; n++ {
		number := letters{size: size * 0.85, at: centre, bold: inlays[n]}
		if !f.small || n == f.first || inlays[n] {
			c.text(x(n), f.y+f.h+gap*0.5+size, number, strconv.Itoa(n)) // clear of the pebbles
		}
	}
	for _, m := range marks {
		y := f.y + float64(m.String-1)*gap
		text := Signs(m.text)
		wide := gap * 0.86 * max(1, 0.62+0.3*float64(len([]rune(text))))
		switch m.form {
		case root, tone:
			c.pill(x(m.Fret), y, min(wide, fret*0.95), gap*0.86, 0.3, m.form == root, false)
			c.text(x(m.Fret), y+size*0.34, letters{size: size * 0.92, bold: true, at: centre, light: m.form == root}, text)
		case dot:
			c.pill(x(m.Fret), y, gap*0.5, gap*0.5, 0.2, false, true)
		}
	}
}

// Signs writes b and # as the signs that players read.
func Signs(text string) string {
	runes := []rune(text)
	out := strings.Builder{}
	for n, r := range runes {
		before := rune(0)
		if n > 0 {
			before = runes[n-1]
		}
		next := rune(0)
		if n+1 < len(runes) {
			next = runes[n+1]
		}
		afterNote := before >= 'A' && before <= 'G' || before == 'b' || before == '#' || before == 0 || before == ' ' || before == '/' || before >= '0' && before <= '9' || before == 'm'
		beforeDegree := next >= '0' && next <= '9' || next == 'I' || next == 'V' || next == 'i' || next == 'v' || next == 'b'
		isNote := before >= 'A' && before <= 'G'
		switch {
		case r == '#' && afterNote:
			out.WriteRune('♯')
		case r == 'b' && afterNote && (isNote || before == 'b' || beforeDegree):
			out.WriteRune('♭')
		default:
			out.WriteRune(r)
		}
	}
	return out.String()
}
