package sheet

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/floor"
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
	// Shapes draws what is played over each chord on a neck, after the notes.
	Shapes bool
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
	s.drawFrom(c, margin)
	c.text(margin, s.Paper.Height-8, letters{size: 2.8}, foot)
}

// titleHeight is the room of a score's title, in mm.
const titleHeight = 16

// systemHeight is the height of a row of bars.
func (s Score) systemHeight() float64 {
	return staffTop + 4*staffGap + tabBelow + float64(len(s.Instrument.Open)-1)*tabGap + systemBelow
}

// drawFrom draws the score from a height of the page down, going on to further pages, and returns
// where it ends.
func (s Score) drawFrom(c canvas, y float64) float64 {
	c.text(margin, y+6, letters{size: 6.5, bold: true}, Signs(s.Title))
	c.text(margin, y+12, letters{size: 3.4}, Signs(s.facts()))
	y += titleHeight
	bars := []phrase.NotatedBar{}
	if len(s.Line.Events) > 0 {
		bars = s.Line.Notate()
	}
	labels := s.Line.Labels(s.Instrument, s.Chart.Key)
	height := s.systemHeight()
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
	if s.Shapes {
		y = s.drawShapes(c, y)
	}
	return y
}

// facts says over what the line is played.
func (s Score) facts() string {
	text := fmt.Sprintf("%s %s · %s · %s · %d", s.Chart.Key.Tonic, s.Chart.Key.Mode, s.Chart.Meter, s.Chart.Feel, s.Chart.Tempo)
	if s.Chart.Title == "" || s.Chart.Title == s.Title {
		return text
	}
	return "over " + s.Chart.Title + " · " + text
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

// The places of the signs of a signature, in half gaps below the highest line.
var (
	sharpsAt = []int{0, 3, -1, 2, 5, 1, 4}
	flatsAt  = []int{4, 1, 5, 2, 6, 3, 7}
)

// bar draws the notes of one bar between x and x+width.
func (s system) bar(bar phrase.NotatedBar, x, width float64) {
	m := bar.Meter
	at := func(tick int) float64 { return x + width*float64(tick-bar.Tick)/float64(m.BarTicks()) }
	s.chords(bar, at)
	shown := map[string]int{}
	for _, voice := range bar.Voices {
		for from := 0; from < len(voice); {
			to := from + 1
			for to < len(voice) && beamed(voice[from]) && beamed(voice[to]) && (voice[to].Tick-bar.Tick)/m.BeatTicks() == (voice[from].Tick-bar.Tick)/m.BeatTicks() {
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
		s.text(x-2, s.top-7.8, letters{size: 2.6}, s.barName(bar))
	}
}

// barName is the number of a bar, and the meter and the key where they change with it.
func (s system) barName(bar phrase.NotatedBar) string {
	lines, time := s.Line.BarLines(), s.Chart.Timeline()
	number := lines.BarAt(bar.Tick)
	name := fmt.Sprint(number + 1)
	if number > 0 && lines.MeterAt(lines.Start(number-1)) != bar.Meter {
		name += " · " + bar.Meter.String()
	}
	if key := time.KeyAt(number); number > 0 && key != time.KeyAt(number-1) {
		name += fmt.Sprintf(" · %s %s", Signs(key.Tonic.String()), key.Mode)
	}
	return name
}

// chords names the chords that begin in the bar.
func (s system) chords(bar phrase.NotatedBar, at func(int) float64) {
	length := s.Chart.Ticks()
	into := floor.Mod(bar.Tick, length)
	for _, moment := range s.Chart.ChordSpans() {
		if moment.Tick >= into && moment.Tick < into+bar.Meter.BarTicks() {
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
		mark = phrase.BendMarks[min(e.Bend, phrase.MaxBend)]
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
