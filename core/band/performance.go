// Package band arranges a chart, and a line over it, into a performance: the
// list of everything that sounds, when, how loud and how bent. The browser and
// any file writer sound the same list.
package band

import (
	"slices"
	"sort"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Part is who plays a note.
type Part string

// The parts of a performance.
const (
	Click  Part = "click"
	Bass   Part = "bass"
	Chords Part = "chords"
	Lead   Part = "line"
)

// Point is a place on a note's pitch curve: ticks after the note begins, and
// cents above its written pitch. Between points the curve is straight.
type Point struct {
	Ticks int
	Cents int
}

// Note is one sounding note. Its tick and length have the feel applied and
// count from the start of the performance, count-in included.
type Note struct {
	Part        Part
	Tick, Ticks int
	Pitch       pitch.MIDI
	// Loudness is 1 to 127, as MIDI velocity.
	Loudness int
	Curve    []Point
	// Event is the index of the line's event that sounds here, -1 for the band.
	Event int
	// On are the tied events that the note goes on as, without being struck again.
	On []GoesOn
}

// GoesOn is a tied event of the line, so many ticks after its note began.
type GoesOn struct {
	Ticks, Event int
}

// BarMark says at which tick of the performance a bar of the chart begins.
type BarMark struct {
	Tick int
	// Bar counts the bars of a chorus from 0, repeats played out.
	Bar int
}

// Performance is everything that sounds, in order of time.
type Performance struct {
	// Tempo is counted beats a minute, BeatTicks the ticks of one.
	Tempo, BeatTicks int
	// CountIn is where the first bar begins, End where the last one ends.
	CountIn, End int
	Bars         []BarMark
	Notes        []Note
}

// Order is what is to be performed.
type Order struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	// From is the first bar of the chorus as it is played, Bars how many; they
	// may run on into the next chorus.
	From, Bars int
	// CountIn is how many bars are counted in.
	CountIn int
	// Line is played over the band; its tick 0 is the chart's tick LineStart.
	Line      phrase.Phrase
	LineStart int
	// Silent parts are not heard: drop the band, and the click goes on.
	Silent []Part
}

// MaxBars is how many bars one performance may have.
const MaxBars = 1024

// Perform arranges the order. It is the same for the same order every time.
func Perform(o Order) Performance {
	bar := o.Chart.Meter.BarTicks()
	p := Performance{
		Tempo: o.Chart.Tempo, BeatTicks: o.Chart.Meter.BeatTicks(),
		CountIn: o.CountIn * bar, End: (o.CountIn + o.Bars) * bar,
	}
	chorus := len(o.Chart.Played())
	for n := range o.Bars {
		p.Bars = append(p.Bars, BarMark{Tick: p.CountIn + n*bar, Bar: (o.From + n) % chorus})
	}
	offset := p.CountIn - o.From*bar
	p.Notes = append(p.Notes, clicks(o.Chart.Meter, o.CountIn+o.Bars)...)
	spans := o.spans()
	p.Notes = append(p.Notes, bassLine(o.Chart, spans, offset)...)
	p.Notes = append(p.Notes, comping(o.Chart, spans, offset)...)
	p.Notes = append(p.Notes, o.lead(offset)...)
	p.Notes = slices.DeleteFunc(p.Notes, func(n Note) bool { return slices.Contains(o.Silent, n.Part) })
	sort.SliceStable(p.Notes, func(a, b int) bool { return p.Notes[a].Tick < p.Notes[b].Tick })
	return p
}

// spans unrolls the chart's written chords over the bars performed, cut to them:
// what is imagined the band does not play.
func (o Order) spans() []chart.Moment {
	bar := o.Chart.Meter.BarTicks()
	from, to := o.From*bar, (o.From+o.Bars)*bar
	length := o.Chart.Ticks()
	moments := o.Chart.Written().Moments()
	spans := []chart.Moment{}
	for chorus := 0; chorus*length < to; chorus++ {
		for _, m := range moments {
			m.Tick += chorus * length
			if m.Tick >= from && m.Tick < to {
				spans = append(spans, m)
			}
		}
	}
	return spans
}

// sounding makes a note from notated ticks of the chart.
func sounding(c chart.Chart, part Part, tick, ticks, offset int, p pitch.MIDI, loudness int) Note {
	start, end := c.Sounding(tick), c.Sounding(tick+ticks)
	return Note{Part: part, Tick: start + offset, Ticks: end - start, Pitch: p, Loudness: loudness, Event: -1}
}

// The click sounds at two pitches: the downbeat higher.
const (
	clickAccent = pitch.MIDI(76)
	clickPlain  = pitch.MIDI(77)
)

func clicks(m chart.Meter, bars int) []Note {
	notes := []Note{}
	for bar := range bars {
		for beat := range m.Beats() {
			note := Note{Part: Click, Tick: bar*m.BarTicks() + beat*m.BeatTicks(), Ticks: m.BeatTicks() / 4, Pitch: clickPlain, Loudness: 60, Event: -1}
			if beat == 0 {
				note.Pitch, note.Loudness = clickAccent, 84
			}
			notes = append(notes, note)
		}
	}
	return notes
}
