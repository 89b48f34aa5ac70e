package survey

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/chart"
	"undaris/core/floor"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Chorus is a chorus to be measured. Events are in order of time, from tick 0 at its top.
type Chorus struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	Events     []phrase.Event
}

// PhraseStarts are the ticks at which phrases begin: after half a beat of silence or more, or
// after a note of two beats.
func (c Chorus) PhraseStarts() []int {
	starts := []int{}
	beat := c.Chart.Meter.BeatTicks()
	for n, e := range c.Events {
		if n == 0 || 2*(e.Tick-c.soundsUntil(n)) >= beat || c.Events[n-1].Ticks >= 2*beat {
			starts = append(starts, e.Tick)
		}
	}
	return starts
}

// soundsUntil is when the last of the notes before the nth ends.
func (c Chorus) soundsUntil(n int) int {
	end := 0
	for _, e := range c.Events[:n] {
		end = max(end, e.End())
	}
	return end
}

// PlaceInBar says where in its bar a tick lies, as it is counted to the eighth: "1", "4&".
func (c Chorus) PlaceInBar(tick int) string {
	bar, beat := c.Chart.Meter.BarTicks(), c.Chart.Meter.BeatTicks()
	in := floor.Mod(tick, bar)
	place := fmt.Sprint(in/beat + 1)
	if in%beat != 0 {
		place += "&"
	}
	return place
}

// Timings of what is played where a chord arrives.
const (
	Early  = "early"
	OnTime = "on"
	Late   = "late"
	Silent = "silent"
	Missed = "missed"
)

// Landing is what is played where a chord arrives.
type Landing struct {
	Timing string
	// Degree is the number of the degree of the arriving chord, 0 where none is landed on.
	Degree int
}

// Landings are those on every change of the chart, the change back to the top at tick 0. A
// chord tone lands up to an eighth before the change if it rings on, or up to a beat after
// it; nothing that sounds from an eighth before to a beat after is silence.
func (c Chorus) Landings() []Landing {
	all := []Landing{}
	beat := c.Chart.Meter.BeatTicks()
	early := beat / 2
	if c.Chart.Meter.Compound() {
		early = beat / 3
	}
	for _, ch := range c.Chart.TargetChanges() {
		at := ch.Tick % c.Chart.Ticks()
		landing := Landing{Timing: Silent}
		for _, e := range c.Events {
			if e.Tick < at-early || e.Tick > at+beat || e.Tick < at && e.End() <= at {
				if e.Tick < at && e.End() > at {
					landing.Timing = Missed
				}
				continue
			}
			landing.Timing = Missed
			tone, ok := ch.Arriving.Chord.Tone(e.Sounding(c.Instrument).Class())
			if !ok {
				continue
			}
			landing.Degree = tone.Degree.Number
			switch {
			case e.Tick < at:
				landing.Timing = Early
			case e.Tick > at:
				landing.Timing = Late
			default:
				landing.Timing = OnTime
			}
			break
		}
		all = append(all, landing)
	}
	return all
}

// Bars are the bars of the chorus, each as its onsets with strings and frets; empty for a
// silent one.
func (c Chorus) Bars() []string { return c.bars(true) }

// BarRhythms are the bars as onsets alone.
func (c Chorus) BarRhythms() []string { return c.bars(false) }

func (c Chorus) bars(places bool) []string {
	bar := c.Chart.Meter.BarTicks()
	all := make([]string, c.Chart.Ticks()/bar)
	for _, e := range c.Events {
		if e.Tick < 0 || e.Tick/bar >= len(all) {
			continue
		}
		one := fmt.Sprint(e.Tick % bar)
		if places {
			one += fmt.Sprintf(":%d:%d", e.String, e.Fret)
		}
		all[e.Tick/bar] += one + " "
	}
	return all
}

// BeatPairs are the onsets within every two beats in which something begins.
func (c Chorus) BeatPairs() []string {
	pair := 2 * c.Chart.Meter.BeatTicks()
	found := map[int][]string{}
	for _, e := range c.Events {
		if e.Tick >= 0 {
			found[e.Tick/pair] = append(found[e.Tick/pair], fmt.Sprint(e.Tick%pair))
		}
	}
	all := []string{}
	for n := 0; n*pair < c.Chart.Ticks(); n++ {
		if onsets, ok := found[n]; ok {
			all = append(all, strings.Join(onsets, " "))
		}
	}
	return all
}

// OffBeatTies counts the notes that begin off the beat and sound through the next one.
func (c Chorus) OffBeatTies() int {
	beat := c.Chart.Meter.BeatTicks()
	ties := 0
	for _, e := range c.Events {
		if in := floor.Mod(e.Tick, beat); in > 0 && in+e.Ticks > beat {
			ties++
		}
	}
	return ties
}

// LongNotes counts the notes of a beat and a half or more.
func (c Chorus) LongNotes() int {
	long := 0
	for _, e := range c.Events {
		if 2*e.Ticks >= 3*c.Chart.Meter.BeatTicks() {
			long++
		}
	}
	return long
}

// Bend is one bend of a chorus: where it comes from and goes to as degrees of the key, as
// in "4 to 5", and how long it sounds in beats.
type Bend struct {
	Kind  string
	Beats float64
}

// Bends are the bends of a half step or more, and those of a quarter as curls.
func (c Chorus) Bends() []Bend {
	all := []Bend{}
	for _, e := range c.Events {
		if e.Bend == 0 {
			continue
		}
		from := c.degreeOf(c.Instrument.Pitch(e.Place))
		kind := "curled " + from
		if e.Bend > 1 {
			kind = from + " to " + c.degreeOf(e.Sounding(c.Instrument))
		}
		if e.PreBend {
			kind += ", bent before"
		}
		if e.Release {
			kind += ", released"
		}
		all = append(all, Bend{kind, float64(e.Ticks) / float64(c.Chart.Meter.BeatTicks())})
	}
	return all
}

func (c Chorus) degreeOf(p pitch.MIDI) string {
	return [12]string{"R", "b2", "2", "b3", "3", "4", "b5", "5", "b6", "6", "b7", "7"}[(12+int(p.Class())-int(c.Chart.Key.Tonic.Class()))%12]
}

// Climax is the highest note: how often it comes, whether it lasts a beat and is bent or
// shaken, and where in the chorus it comes first, 0 to 1.
type Climax struct {
	Times   int
	Long    bool
	Touched bool
	At      float64
}

// Climax is that of the chorus; the zero Climax of one without notes.
func (c Chorus) Climax() Climax {
	climax, high := Climax{}, pitch.MIDI(-1)
	for _, e := range c.Events {
		switch p := e.Sounding(c.Instrument); {
		case p > high:
			high = p
			climax = Climax{1, e.Ticks >= c.Chart.Meter.BeatTicks(), e.Bend > 0 || e.Vibrato, float64(e.Tick) / float64(c.Chart.Ticks())}
		case p == high:
			climax.Times++
		}
	}
	return climax
}

// DoubleStops counts the onsets at which more than one note is struck.
func (c Chorus) DoubleStops() int {
	stops := 0
	for n := 1; n < len(c.Events); n++ {
		if c.Events[n].Tick == c.Events[n-1].Tick && (n == 1 || c.Events[n-2].Tick != c.Events[n].Tick) {
			stops++
		}
	}
	return stops
}

// Repeats counts the notes of the same pitch as the note that they follow without a rest.
func (c Chorus) Repeats() int {
	repeats := 0
	for n := 1; n < len(c.Events); n++ {
		if c.Events[n].Tick == c.Events[n-1].End() && c.Events[n].Sounding(c.Instrument) == c.Events[n-1].Sounding(c.Instrument) {
			repeats++
		}
	}
	return repeats
}

// Moves counts the moves from note to note within phrases: all of them, those from a chord tone
// to a chord tone, and those that go straight back to the note before the last.
func (c Chorus) Moves() (all, betweenTones, back int) {
	isTone := func(e phrase.Event) bool {
		chord := c.Chart.ChordAt(e.Tick)
		_, ok := chord.Tone(e.Sounding(c.Instrument).Class())
		return ok
	}
	beat := c.Chart.Meter.BeatTicks()
	joined := func(a, b phrase.Event) bool { return b.Tick > a.Tick && 2*(b.Tick-a.End()) < beat }
	for n := 1; n < len(c.Events); n++ {
		a, b := c.Events[n-1], c.Events[n]
		if !joined(a, b) {
			continue
		}
		all++
		if isTone(a) && isTone(b) {
			betweenTones++
		}
		if n > 1 && joined(c.Events[n-2], a) && c.Events[n-2].Sounding(c.Instrument) == b.Sounding(c.Instrument) && a.Sounding(c.Instrument) != b.Sounding(c.Instrument) {
			back++
		}
	}
	return all, betweenTones, back
}

// Silence is the share of 32nd notes in which nothing sounds.
func (c Chorus) Silence() float64 {
	const slot = chart.TicksPerQuarter / 8
	silent, slots := 0, c.Chart.Ticks()/slot
	for n := range slots {
		at := n*slot + slot/2
		if !slices.ContainsFunc(c.Events, func(e phrase.Event) bool { return e.Tick <= at && at < e.End() }) {
			silent++
		}
	}
	return float64(silent) / float64(slots)
}

// NotesPerBar is how many notes a bar has on average.
func (c Chorus) NotesPerBar() float64 {
	return float64(len(c.Events)) * float64(c.Chart.Meter.BarTicks()) / float64(c.Chart.Ticks())
}

// HoldsAlike is the longest run of even bars in which a note of a beat and a half or more
// begins at the same place.
func (c Chorus) HoldsAlike() int {
	bar := c.Chart.Meter.BarTicks()
	longest, run, last := 0, 0, -1
	for n := 1; n*bar < c.Chart.Ticks(); n += 2 {
		at := -1
		for _, e := range c.Events {
			if e.Tick >= n*bar && e.Tick < (n+1)*bar && 2*e.Ticks >= 3*c.Chart.Meter.BeatTicks() {
				at = e.Tick % bar
				break
			}
		}
		if at >= 0 && at == last {
			run++
		} else {
			run = 1
		}
		if last = at; at >= 0 {
			longest = max(longest, run)
		}
	}
	return longest
}

// GuideTones counts the chords of a bar or more under which their 3rd or 7th is played, of
// how many. A chord that goes on over several bars counts once.
func (c Chorus) GuideTones() (played, of int) {
	spans := c.Chart.ChordSpans()
	for n := 0; n < len(spans); {
		chord, from, to := spans[n].Chord, spans[n].Tick, 0
		for ; n < len(spans) && spans[n].Chord.Same(chord); n++ {
			to = spans[n].Tick + spans[n].Ticks
		}
		if to-from < c.Chart.Meter.BarTicks() {
			continue
		}
		of++
		if slices.ContainsFunc(c.Events, func(e phrase.Event) bool {
			tone, ok := chord.Tone(e.Sounding(c.Instrument).Class())
			return ok && e.End() > from && e.Tick < to && harmony.IsGuideTone(tone.Degree)
		}) {
			played++
		}
	}
	return played, of
}
