package transcribe

import (
	"math"

	"undaris/core/chart"
	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Clock says where the chart lies in the time of a take.
type Clock struct {
	// Start is when the chart's tick From sounds, in seconds from the beginning of the take, the delay of
	// the way through the air and the machine taken off.
	Start float64
	From  int
	// SecondsPerTick is how long a tick lasts.
	SecondsPerTick float64
}

// At is the sounding tick of a moment.
func (c Clock) At(seconds float64) float64 {
	return float64(c.From) + (seconds-c.Start)/c.SecondsPerTick
}

// ClockFor is the clock of a chart at its tempo.
func ClockFor(c chart.Chart, start float64, from int) Clock {
	return Clock{Start: start, From: from, SecondsPerTick: 60 / float64(c.Tempo*c.Meter.BeatTicks())}
}

// Order is what is to be written.
type Order struct {
	// Notes are what was heard, in order of time.
	Notes      []listen.Note
	Chart      chart.Chart
	Instrument neck.Instrument
	// Hand is where the fretting hand stands.
	Hand  neck.Window
	Clock Clock
	// Meant are the notated ticks that notes are known to stand for, by their index; the others are written
	// on the division of their beat that lies nearest.
	Meant map[int]int
}

// Place is where a note that was heard stands in the phrase.
type Place struct {
	// Note is its index in what was heard, Event the index in the phrase, -1 where the instrument does not
	// have it.
	Note, Event int
	// Tick is where it is written, Late how many seconds after that it was played, early below 0, and
	// LateTicks the same in ticks.
	Tick      int
	Late      float64
	LateTicks float64
}

// Written is what was heard, as a phrase over the chart.
type Written struct {
	Phrase phrase.Phrase
	Places []Place
}

// leastConfidence is how sure a note must be to be written.
const leastConfidence = 0.2

// Write writes the notes.
func Write(o Order) Written {
	line := o.Chart.Timeline()
	heard, sounding, together := []int{}, []float64{}, []bool{}
	for n, note := range o.Notes {
		if note.Confidence < leastConfidence {
			continue
		}
		heard = append(heard, n)
		sounding = append(sounding, o.Clock.At(note.Onset))
		together = append(together, note.Together && len(heard) > 1)
	}
	at := quantize(sounding, together, line)
	for k, n := range heard {
		if tick, meant := o.Meant[n]; meant && (k == 0 || tick > at[k-1].tick) {
			at[k] = placed{tick, line.Swung(tick)}
		}
	}
	notes := make([]phrase.PitchedNote, len(heard))
	w := Written{Places: make([]Place, len(heard))}
	for k, n := range heard {
		late := sounding[k] - float64(at[k].sounds)
		w.Places[k] = Place{Note: n, Event: -1, Tick: at[k].tick, LateTicks: late, Late: late * o.Clock.SecondsPerTick}
		notes[k] = pitched(o.Notes[n], at[k].tick, o.lasts(k, heard, at, line))
	}
	assigned := phrase.AssignStrings(o.Instrument, o.Hand, notes)
	dropped := map[int]bool{}
	for _, k := range assigned.Dropped {
		dropped[k] = true
	}
	event := 0
	for k := range notes {
		if dropped[k] {
			continue
		}
		w.Places[k].Event = event
		o.slide(assigned.Events, event, o.Notes[heard[k]])
		event++
	}
	phrase.DropBrokenSlurs(assigned.Events)
	w.Phrase = phrase.Phrase{Meter: o.Chart.Meter, Events: assigned.Events}.WithChordsOf(o.Chart, 0)
	return w
}

// lasts is how many ticks the note is written: as long as it was heard, to the nearest thirty-second, and
// until the next note where hardly a gap is left.
func (o Order) lasts(k int, heard []int, at []placed, line chart.Timeline) int {
	note := o.Notes[heard[k]]
	ticks := int(math.Round(note.Length/o.Clock.SecondsPerTick/leastApart)) * leastApart
	for m := k + 1; m < len(at); m++ {
		if at[m].tick == at[k].tick {
			continue
		}
		apart := at[m].tick - at[k].tick
		if ticks >= apart || float64(apart-ticks) <= gapShare*float64(apart) {
			ticks = apart
		}
		break
	}
	return max(ticks, leastApart)
}

// gapShare is the share of the time until the next note that may be silent in a note that is written as long
// as that: players lift a finger before they set the next.
const gapShare = 0.35

// pitched is what is known of a note before it has a string.
func pitched(n listen.Note, tick, ticks int) phrase.PitchedNote {
	p := phrase.PitchedNote{Tick: tick, Ticks: ticks, Pitch: pitch.MIDI(n.MIDI())}
	p.HammerOn, p.PullOff = n.Attack == listen.Hammered, n.Attack == listen.Pulled
	p.Vibrato = n.Vibrato != nil
	if n.Bend != nil {
		p.Bend = min(int(math.Round(n.Bend.Cents/50)), phrase.MaxBend)
		p.PreBend = p.Bend > 0 && n.Bend.Pre
		p.Release = p.Bend > 0 && n.Bend.Released > 0
	}
	return p
}

// slide says from which fret an event was slid into, where the note before lies on its string.
func (o Order) slide(events []phrase.Event, n int, note listen.Note) {
	if note.Attack != listen.Slid || n == 0 || note.SlidFrom == 0 {
		return
	}
	e := &events[n]
	if from := e.Fret + note.SlidFrom; from >= 1 && from <= o.Instrument.Frets && e.Fret > 0 && from != e.Fret {
		e.SlideFrom = from
	}
}
