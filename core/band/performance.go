package band

import (
	"slices"
	"sort"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Part is who plays a note.
type Part string

// The parts of a performance.
const (
	Click  Part = "click"
	Drums  Part = "drums"
	Bass   Part = "bass"
	Chords Part = "chords"
	Line   Part = "line"
)

// Parts lists every part, as a mixer shows them.
var Parts = []Part{Drums, Bass, Chords, Line, Click}

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
	// Pitch is the sounding pitch; of drums and click the sound's key in the General
	// MIDI percussion map.
	Pitch pitch.MIDI
	// Loudness is 1 to 127, as MIDI velocity.
	Loudness int
	Curve    []Point
	// Event is the index of the line's event that sounds here, -1 for the band.
	Event int
	// Continues are the tied events that the note rings on as, without being struck again.
	Continues []Continuation
}

// Continuation is a tied event of the line, so many ticks after its note began.
type Continuation struct {
	Ticks, Event int
}

// BeatMark says at which tick of the performance a counted beat begins, and where in the
// chart it is.
type BeatMark struct {
	Tick int
	// Bar counts the bars of a chorus from 0, repeats played out; Beat from 0. Before the
	// first bar, while it is counted in, Bar is negative.
	Bar, Beat int
	// At is the chart's tick within a chorus.
	At int
}

// ChordMark says which chord sounds from a tick of the performance on.
type ChordMark struct {
	Tick, Ticks int
	Chord       harmony.Chord
	// Silent says that the band rests (N.C.).
	Silent bool
	// At is the chart's tick within a chorus where the chord stands; of the final chord
	// of an ending the tick where the chart's last chord stands.
	At int
}

// Performance is everything that sounds, in order of time.
type Performance struct {
	// Tempo is counted beats a minute, BeatTicks the ticks of one.
	Tempo, BeatTicks int
	// CountIn is where the first bar begins, End where the last one ends.
	CountIn, End int
	Beats        []BeatMark
	Chords       []ChordMark
	Notes        []Note
}

// Order is what is to be performed.
type Order struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	// From is the first bar of the chorus as it is played, Bars how many; they
	// may run on into the next chorus.
	From, Bars int
	// Style is the band's; without a name it is the chart's own (StyleFor).
	Style Style
	// Seed varies what the band plays; Chorus is which time through the chart From lies
	// in, from 0: no two are alike.
	Seed   uint64
	Chorus int
	// Next is the chord after the last bar, for the bass to lead into; nil for the
	// chart's own.
	Next *harmony.Chord
	// CountIn is how many bars are counted in.
	CountIn int
	// Intro has the band play the last two bars of the chart before the first bar.
	Intro bool
	// Ending has the band end in the last two bars, slowing down, and adds a bar in
	// which the last chord rings.
	Ending bool
	// StopTime has the band strike the first four bars of each chorus, and rest between.
	StopTime bool
	Click    ClickPattern
	// Line is played over the band; its tick 0 is the chart's tick LineStart.
	Line      phrase.Phrase
	LineStart int
	// Cues are single notes that the line's part plays, in ticks of the chart.
	Cues []Cue
	// Silent parts are not heard.
	Silent []Part
}

// Cue is a note that tells what to aim at.
type Cue struct {
	Tick, Ticks int
	Pitch       pitch.MIDI
}

// MaxBars is how many bars one performance may have.
const MaxBars = 1024

// MaxCountIn is how many bars may be counted in.
const MaxCountIn = 2

// Perform arranges the order. It is the same for the same order every time.
func Perform(o Order) Performance {
	if o.Style.Name == "" {
		o.Style = StyleFor(o.Chart)
	}
	s := o.layOut()
	p := Performance{
		Tempo: o.Chart.Tempo, BeatTicks: o.Chart.Meter.BeatTicks(), CountIn: s.countIn, End: s.end,
		Beats: s.beats(), Chords: s.chordMarks(),
	}
	p.Notes = append(p.Notes, s.clicks()...)
	p.Notes = append(p.Notes, s.drums()...)
	p.Notes = append(p.Notes, s.bass()...)
	p.Notes = append(p.Notes, s.comping()...)
	p.Notes = append(p.Notes, s.line()...)
	p.Notes = append(p.Notes, s.cues()...)
	p.Notes = slices.DeleteFunc(p.Notes, func(n Note) bool { return slices.Contains(o.Silent, n.Part) })
	if o.Ending {
		p.slowDown(s)
	}
	for n := range p.Notes {
		p.Notes[n].Ticks = min(p.Notes[n].Ticks, p.End-p.Notes[n].Tick)
	}
	sort.SliceStable(p.Notes, func(a, b int) bool { return p.Notes[a].Tick < p.Notes[b].Tick })
	return p
}
