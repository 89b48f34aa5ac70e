package sheet

import (
	"fmt"
	"math"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Score is a line over a chart, written as staff notation with tab below it.
type Score struct {
	Title      string
	Chart      chart.Chart
	Instrument neck.Instrument
	// Line has its tick 0 at the start of the chart.
	Line  phrase.Phrase
	Paper Paper
}

// How a score is set, in mm.
const (
	barsInSystem  = 4
	staffGap      = 1.7 // between two lines of the staff
	tabGap        = 2.4
	staffTop      = 12 // below the top of its system, for the chords
	tabBelow      = 13 // below the staff
	systemBelow   = 11
	clefWidth     = 9
	stemLength    = 5.6
	headWidth     = 2.1
	headHeight    = 1.5
	lineThickness = 0.13
)

// PDF draws the score as a PDF; the same score is the same file.
func (s Score) PDF() []byte { return s.drawing().PDF() }

func (s Score) drawing() Drawing {
	if s.Paper == (Paper{}) {
		s.Paper = Papers[0]
	}
	return Drawing{title: s.Title, draw: s.draw}
}

func (s Score) draw(c canvas) {
	c.page(s.Paper.Width, s.Paper.Height)
	c.text(margin, margin+6, letters{size: 6.5, bold: true}, Signs(s.Title))
	c.text(margin, margin+12, letters{size: 3.4}, Signs(fmt.Sprintf("over %s · %s %s · %s · %s · %d", s.Chart.Title, s.Chart.Key.Tonic, s.Chart.Key.Mode, s.Chart.Meter, s.Chart.Feel, s.Chart.Tempo)))
	y := float64(margin) + 16
	bars := []phrase.NotatedBar{}
	if len(s.Line.Events) > 0 {
		bars = s.Line.Notate()
	}
	labels := s.Line.Labels(s.Instrument, s.Chart.Key)
	height := staffTop + 4*staffGap + tabBelow + float64(len(s.Instrument.Open)-1)*tabGap + systemBelow
	for first := 0; first < len(bars); first += barsInSystem {
		if y+height > s.Paper.Height-margin {
			c.text(margin, s.Paper.Height-8, letters{size: 2.8}, foot)
			c.page(s.Paper.Width, s.Paper.Height)
			y = margin
		}
		system := system{Score: s, canvas: c, labels: labels, top: y + staffTop, first: first == 0}
		system.draw(bars[first:min(first+barsInSystem, len(bars))])
		y += height
	}
	c.text(margin, s.Paper.Height-8, letters{size: 2.8}, foot)
}

// system is one row of bars.
type system struct {
	Score
	canvas
	labels []phrase.Label
	// top is the y of the staff's highest line.
	top   float64
	first bool
}

func (s system) tabTop() float64 { return s.top + 4*staffGap + tabBelow }

func (s system) draw(bars []phrase.NotatedBar) {
	right := s.Paper.Width - margin
	for n := range 5 {
		s.line(margin, s.top+float64(n)*staffGap, right, s.top+float64(n)*staffGap, lineThickness)
	}
	strings := len(s.Instrument.Open)
	bottom := s.tabTop() + float64(strings-1)*tabGap
	for n := range strings {
		s.line(margin, s.tabTop()+float64(n)*tabGap, right, s.tabTop()+float64(n)*tabGap, lineThickness)
	}
	s.clef(margin + 3.2)
	for n, letter := range []string{"T", "A", "B"} {
		s.text(margin+2, s.tabTop()+float64(strings-1)*tabGap/2+float64(n-1)*3.2+1.1, letters{size: 3.2, bold: true}, letter)
	}
	at := float64(margin) + clefWidth
	at = s.signature(at)
	if s.first {
		s.text(at+1, s.top+2*staffGap-0.5, letters{size: 4.2, bold: true}, fmt.Sprint(s.Chart.Meter.Count))
		s.text(at+1, s.top+4*staffGap-0.4, letters{size: 4.2, bold: true}, fmt.Sprint(s.Chart.Meter.Unit))
		at += 5
	}
	width := (right - at) / barsInSystem
	s.line(margin, s.top, margin, bottom, 0.3)
	for n, bar := range bars {
		x := at + float64(n)*width
		if n > 0 {
			s.line(x, s.top, x, bottom, 0.2)
		}
		s.bar(bar, x+2.5, width-4)
	}
	end := at + float64(len(bars))*width
	s.line(end, s.top, end, bottom, 0.3)
}

// clef draws a treble clef about x: a spiral round the second line and its stem, from
// points along it, in gaps of the staff below its highest line.
func (s system) clef(x float64) {
	spine := [][2]float64{{0.1, 3.2}, {0.55, 2.9}, {0.75, 3.3}, {0.35, 3.75}, {-0.35, 3.6}, {-0.65, 2.9}, {-0.25, 2.2}, {0.45, 1.5}, {0.7, 0.5}, {0.45, -0.6}, {0.1, -0.4}, {-0.05, 0.6}, {0.35, 3.2}, {0.55, 4.6}, {0.15, 5.2}, {-0.4, 4.9}}
	curve := smooth(spine)
	for n := 1; n < len(curve); n++ {
		s.line(x+curve[n-1][0]*staffGap, s.top+curve[n-1][1]*staffGap, x+curve[n][0]*staffGap, s.top+curve[n][1]*staffGap, 0.32)
	}
	s.pill(x-0.4*staffGap, s.top+4.85*staffGap, 0.8, 0.8, 0.1, true, false)
}

// smooth runs a curve through points (Catmull and Rom).
func smooth(points [][2]float64) [][2]float64 {
	const parts = 6
	all := [][2]float64{}
	for n := 0; n+1 < len(points); n++ {
		p0, p1, p2, p3 := points[max(n-1, 0)], points[n], points[n+1], points[min(n+2, len(points)-1)]
		for k := range parts {
			t := float64(k) / parts
			point := [2]float64{}
			for d := range 2 {
				point[d] = 0.5 * (2*p1[d] + (p2[d]-p0[d])*t + (2*p0[d]-5*p1[d]+4*p2[d]-p3[d])*t*t + (3*p1[d]-p0[d]-3*p2[d]+p3[d])*t*t*t)
			}
			all = append(all, point)
		}
	}
	return append(all, points[len(points)-1])
}

// The places of the signs of a signature, in half gaps below the highest line.
var (
	sharpsAt = []int{0, 3, -1, 2, 5, 1, 4}
	flatsAt  = []int{4, 1, 5, 2, 6, 3, 7}
)

// signature draws the key's signs and returns where they end.
func (s system) signature(x float64) float64 {
	fifths := s.Chart.Key.Fifths()
	for n := range min(max(fifths, -fifths), 7) {
		sign, at := "♯", sharpsAt[n]
		if fifths < 0 {
			sign, at = "♭", flatsAt[n]
		}
		s.text(x+float64(n)*1.5, s.top+float64(at)*staffGap/2+1.2, letters{size: 3.6}, sign)
	}
	return x + float64(min(max(fifths, -fifths), 7))*1.5 + 1
}

// inSignature is the accidental that the key's signature gives a letter.
func inSignature(k harmony.Key, l pitch.Letter) int {
	fifths := k.Fifths()
	order := "FCGDAEB"
	if fifths < 0 {
		order = "BEADGCF"
	}
	for n := range min(max(fifths, -fifths), 7) {
		if string(order[n]) == (pitch.Note{Letter: l}).String() {
			return sign(fifths)
		}
	}
	return 0
}

func sign(n int) int {
	if n < 0 {
		return -1
	}
	return 1
}

// bar draws the notes of one bar between x and x+width.
func (s system) bar(bar phrase.NotatedBar, x, width float64) {
	m := s.Chart.Meter
	at := func(tick int) float64 { return x + width*float64(tick-bar.Tick)/float64(m.BarTicks()) }
	s.chords(bar, at)
	shown := map[string]int{}
	for _, voice := range bar.Voices {
		for from := 0; from < len(voice); {
			to := from + 1
			for to < len(voice) && beamed(voice[from]) && beamed(voice[to]) && voice[to].Tick/m.BeatTicks() == voice[from].Tick/m.BeatTicks() {
				to++
			}
			s.group(voice[from:to], at, shown)
			from = to
		}
	}
	for n, e := range s.Line.Events {
		if e.Tick >= bar.Tick && e.Tick < bar.Tick+m.BarTicks() {
			s.tabNote(n, at(e.Tick))
		}
	}
	if bar.Tick >= 0 { // a pickup has no number
		s.text(x-2, s.top-7.8, letters{size: 2.6}, fmt.Sprint(bar.Tick/m.BarTicks()+1))
	}
}

// chords names the chords that begin in the bar.
func (s system) chords(bar phrase.NotatedBar, at func(int) float64) {
	length := s.Chart.Ticks()
	into := ((bar.Tick % length) + length) % length
	for _, moment := range s.Chart.ChordSpans() {
		if moment.Tick >= into && moment.Tick < into+s.Chart.Meter.BarTicks() {
			name := moment.Chord.Symbol()
			if moment.Imagined {
				name = "(" + name + ")"
			}
			s.text(at(bar.Tick+moment.Tick-into), s.top-4.4, letters{size: 3.6, bold: true}, Signs(name))
		}
	}
}

// beamed says whether a sign has a flag that joins it to its neighbours.
func beamed(w phrase.NotatedNote) bool { return len(w.Events) > 0 && flags(w) > 0 }

func flags(w phrase.NotatedNote) int {
	return map[string]int{"eighth": 1, "16th": 2, "32nd": 3, "64th": 4}[w.Kind]
}

// height is the y of a note on the staff: a guitar's is written an octave up. Steps count
// from the highest line down.
func (s system) height(n int) (y float64, steps int) {
	note := s.labels[n].Note
	octave := s.Line.Events[n].Sounding(s.Instrument).Octave(note) + 1
	const highest = 5*7 + 3 // F5, the highest line
	steps = highest - (octave*7 + letterStep(note.Letter))
	return s.top + float64(steps)*staffGap/2, steps
}

// letterStep counts letters from C.
func letterStep(l pitch.Letter) int {
	for n, name := range "CDEFGAB" {
		if string(name) == (pitch.Note{Letter: l}).String() {
			return n
		}
	}
	return 0
}

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
	if signs[0].Triplet && len(signs) > 1 {
		y := end + 2.6
		if up {
			y = end - 0.8
		}
		s.text((at(signs[0].Tick)+at(signs[len(signs)-1].Tick))/2, y, letters{size: 2.6, at: centre}, "3")
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

// tabNote writes a note on its string: how it is played before or above it, its degree
// below the strings.
func (s system) tabNote(n int, x float64) {
	e := s.Line.Events[n]
	y := s.tabTop() + float64(e.String-1)*tabGap
	name := fmt.Sprint(e.Fret)
	s.blank(x, y, 1.2+1.5*float64(len(name)), tabGap*0.9)
	s.text(x, y+1, letters{size: 3, bold: true, at: centre}, name)
	mark := ""
	switch {
	case e.SlideFrom > 0:
		mark = "sl."
	case e.Bend > 0:
		mark = "b" + map[int]string{1: "¼", 2: "½", 3: "¾", 4: "1", 5: "1¼", 6: "1½"}[e.Bend]
	case e.HammerOn:
		mark = "H"
	case e.PullOff:
		mark = "P"
	case e.Vibrato:
		mark = "~~"
	}
	if mark != "" {
		s.text(x, s.tabTop()-1.8, letters{size: 2.4, at: centre}, mark)
	}
	bottom := s.tabTop() + float64(len(s.Instrument.Open)-1)*tabGap
	s.text(x, bottom+4, letters{size: 2.5, at: centre}, Signs(s.labels[n].Degree.String()))
}
