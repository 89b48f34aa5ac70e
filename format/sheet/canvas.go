// Package sheet draws necks, charts and practice sheets on paper, as SVG and
// PDF: lines and letters only, so that they are sharp at any size and can be
// read in black and white. Lengths are millimetres.
package sheet

import (
	"bytes"
	_ "embed"
	"encoding/xml"
	"fmt"
	"strings"
	"time"
	"unicode"

	"codeberg.org/go-pdf/fpdf"
)

//go:embed fonts/sans.ttf
var sans []byte

//go:embed fonts/sans-bold.ttf
var sansBold []byte

// align is where a text stands about its x.
type align int

const (
	left align = iota
	centre
	right
)

// letters is how a text is set.
type letters struct {
	// size is the height of the letters, in mm from baseline to baseline.
	size float64
	bold bool
	at   align
	// light sets white on black.
	light bool
}

// canvas is what sheets are drawn on.
type canvas interface {
	// page begins a page of the size.
	page(width, height float64)
	line(x1, y1, x2, y2, thick float64)
	// pill is a rectangle with round ends about its middle.
	pill(x, y, w, h, thick float64, filled, dashed bool)
	// blank is white, about its middle, so that what stands there can be read.
	blank(x, y, w, h float64)
	// text stands on its baseline y.
	text(x, y float64, l letters, s string)
	done() []byte
}

// svg draws one page as SVG; further pages stand below the first.
type svg struct {
	out           strings.Builder
	width, height float64
	top           float64
}

func (s *svg) page(width, height float64) {
	s.top = s.height
	s.width = max(s.width, width)
	s.height += height
}

func (s *svg) line(x1, y1, x2, y2, thick float64) {
	fmt.Fprintf(&s.out, `<line x1="%.2f" y1="%.2f" x2="%.2f" y2="%.2f" stroke="#000" stroke-width="%.2f"/>`+"\n", x1, y1+s.top, x2, y2+s.top, thick)
}

func (s *svg) pill(x, y, w, h, thick float64, filled, dashed bool) {
	fill, dash := "#fff", ""
	if filled {
		fill = "#000"
	}
	if dashed {
		dash = fmt.Sprintf(` stroke-dasharray="%.2f"`, thick*2.5)
	}
	fmt.Fprintf(&s.out, `<rect x="%.2f" y="%.2f" width="%.2f" height="%.2f" rx="%.2f" fill="%s" stroke="#000" stroke-width="%.2f"%s/>`+"\n",
		x-w/2, y-h/2+s.top, w, h, min(w, h)/2, fill, thick, dash)
}

func (s *svg) blank(x, y, w, h float64) {
	fmt.Fprintf(&s.out, `<rect x="%.2f" y="%.2f" width="%.2f" height="%.2f" fill="#fff"/>`+"\n", x-w/2, y-h/2+s.top, w, h)
}

func (s *svg) text(x, y float64, l letters, text string) {
	weight, fill := "400", "#000"
	if l.bold {
		weight = "700"
	}
	if l.light {
		fill = "#fff"
	}
	escaped := strings.Builder{}
	_ = xml.EscapeText(&escaped, []byte(text)) // a strings.Builder takes any text
	fmt.Fprintf(&s.out, `<text x="%.2f" y="%.2f" font-size="%.2f" font-weight="%s" text-anchor="%s" fill="%s">%s</text>`+"\n",
		x, y+s.top, l.size, weight, [...]string{"start", "middle", "end"}[l.at], fill, escaped.String())
}

func (s *svg) done() []byte {
	return fmt.Appendf(nil, `<svg xmlns="http://www.w3.org/2000/svg" width="%.2fmm" height="%.2fmm" viewBox="0 0 %.2f %.2f" font-family="'Atkinson Hyperlegible Next', 'DejaVu Sans', sans-serif">
<rect width="100%%" height="100%%" fill="#fff"/>
%s</svg>
`, s.width, s.height, s.width, s.height, s.out.String())
}

// pdf draws on the pages of a PDF; its letters travel with it.
type pdf struct{ f *fpdf.Fpdf }

func newPDF(title string) *pdf {
	f := fpdf.New("P", "mm", "A4", "")
	f.SetAutoPageBreak(false, 0)
	f.SetTitle(title, true)
	f.SetProducer("Undaris", true)
	// The same sheet is the same file, whenever it is made.
	f.SetCreationDate(time.Unix(0, 0).UTC())
	f.SetModificationDate(time.Unix(0, 0).UTC())
	f.SetCatalogSort(true)
	f.AddUTF8FontFromBytes("sans", "", sans)
	f.AddUTF8FontFromBytes("sans", "B", sansBold)
	return &pdf{f}
}

func (p *pdf) page(width, height float64) {
	p.f.AddPageFormat("P", fpdf.SizeType{Wd: width, Ht: height})
}

func (p *pdf) line(x1, y1, x2, y2, thick float64) {
	p.f.SetLineWidth(thick)
	p.f.Line(x1, y1, x2, y2)
}

func (p *pdf) pill(x, y, w, h, thick float64, filled, dashed bool) {
	p.f.SetLineWidth(thick)
	p.f.SetFillColor(255, 255, 255)
	if filled {
		p.f.SetFillColor(0, 0, 0)
	}
	if dashed {
		p.f.SetDashPattern([]float64{thick * 2.5, thick * 2.5}, 0)
		defer p.f.SetDashPattern(nil, 0)
	}
	p.f.RoundedRect(x-w/2, y-h/2, w, h, min(w, h)/2, "1234", "DF")
}

func (p *pdf) blank(x, y, w, h float64) {
	p.f.SetFillColor(255, 255, 255)
	p.f.Rect(x-w/2, y-h/2, w, h, "F")
}

// pointsPerMM is the size of letters in points, as a PDF counts it.
const pointsPerMM = 72 / 25.4

// drawable is a text without what the fonts of a PDF have no letter for: beyond the first 65,536 there is none, as the
// pictures that are typed beside words; what is left stands as one blank where it stood between blanks.
func drawable(text string) string {
	cut := strings.Map(func(r rune) rune {
		if r > 0xFFFF || unicode.Is(unicode.Variation_Selector, r) || r == '\u200d' {
			return -1
		}
		return r
	}, text)
	if cut == text {
		return text
	}
	return strings.Join(strings.Fields(cut), " ")
}

func (p *pdf) text(x, y float64, l letters, text string) {
	text = drawable(text)
	style := ""
	if l.bold {
		style = "B"
	}
	p.f.SetFont("sans", style, l.size*pointsPerMM)
	p.f.SetTextColor(0, 0, 0)
	if l.light {
		p.f.SetTextColor(255, 255, 255)
	}
	switch l.at {
	case centre:
		x -= p.f.GetStringWidth(text) / 2
	case right:
		x -= p.f.GetStringWidth(text)
	}
	p.f.Text(x, y, text)
}

func (p *pdf) done() []byte {
	out := &bytes.Buffer{}
	if err := p.f.Output(out); err != nil {
		panic("memory can always be written: " + err.Error())
	}
	return out.Bytes()
}
