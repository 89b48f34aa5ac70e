package phrase

import (
	"math"

	"undaris/core/chart"
	"undaris/core/floor"
)

// VoiceNote is what one voice plays at one moment: notes that begin and end together, and
// the grace notes before them, as indices of events. Its ticks are as written: what
// grace notes took from the notes before them is theirs again.
type VoiceNote struct {
	Tick, Ticks    int
	Events, Graces []int
	// TakesTime says that the grace notes took their time from what the voice played before.
	TakesTime bool
}

// End is the tick at which it stops.
func (s VoiceNote) End() int { return s.Tick + s.Ticks }

// Voices lays the events of the phrase into voices, in each of which nothing overlaps:
// as few as there must be, the first taken first (common practice of notation).
func (p Phrase) Voices() [][]VoiceNote {
	all := [][]VoiceNote{}
	graces := []int{}
	tick, above := math.MinInt, 0
	for n := 0; n < len(p.Events); {
		e := p.Events[n]
		if e.Grace {
			graces = append(graces, n)
			n++
			continue
		}
		s := VoiceNote{Tick: e.Tick, Ticks: e.Ticks, Graces: graces}
		for ; n < len(p.Events) && p.Events[n].Tick == e.Tick && p.Events[n].Ticks == e.Ticks && !p.Events[n].Grace; n++ {
			s.Events = append(s.Events, n)
		}
		graces = nil
		begin := s.Tick - len(s.Graces)*GraceTicks
		v := 0
		if s.Tick == tick {
			v = above // what begins at once stays in its order
		}
		for v < len(all) && all[v][len(all[v])-1].End() > begin {
			v++
		}
		if v == len(all) {
			all = append(all, nil)
		}
		if before := len(all[v]) - 1; before >= 0 && len(s.Graces) > 0 && all[v][before].End() == begin {
			all[v][before].Ticks, s.TakesTime = s.Tick-all[v][before].Tick, true
		}
		all[v] = append(all[v], s)
		tick, above = s.Tick, v+1
	}
	return all
}

// NoteValue is a part of a note's time that one sign of notation can stand for.
type NoteValue struct {
	Ticks int
	// Kind is whole, half, quarter, eighth, 16th, 32nd or 64th; empty where no sign has
	// that length.
	Kind string
	Dots int
	// Tuplet says how many stand in the time of fewer: 3 in that of two, 5 in that of four, 0 none.
	Tuplet int
}

// noteValues are the lengths that have a sign of their own, longest first.
var noteValues = []NoteValue{
	{2880, "whole", 1, 0}, {1920, "whole", 0, 0}, {1440, "half", 1, 0}, {960, "half", 0, 0}, {720, "quarter", 1, 0}, {640, "half", 0, 3},
	{480, "quarter", 0, 0}, {384, "quarter", 0, 5}, {360, "eighth", 1, 0}, {320, "quarter", 0, 3}, {288, "eighth", 1, 5}, {240, "eighth", 0, 0}, {192, "eighth", 0, 5}, {180, "16th", 1, 0}, {160, "eighth", 0, 3},
	{120, "16th", 0, 0}, {96, "16th", 0, 5}, {90, "32nd", 1, 0}, {80, "16th", 0, 3}, {60, "32nd", 0, 0}, {48, "32nd", 0, 5}, {40, "32nd", 0, 3}, {30, "64th", 0, 0},
}

// maxNoteValues is how many signs a time within a bar is cut into at most.
const maxNoteValues = 4

// NoteValues cuts a time from a tick on into parts that signs stand for: at bar lines first,
// then at the next beat where it begins off one. A time that no few signs make up is one
// part without a sign: its length alone says it.
func NoteValues(tick, ticks, bar, beat int) []NoteValue {
	all := []NoteValue{}
	for ticks > 0 {
		inBar := floor.Mod(tick, bar)
		here := min(ticks, bar-inBar)
		all = append(all, noteValuesInBar(inBar, here, beat)...)
		tick, ticks = tick+here, ticks-here
	}
	return all
}

func noteValuesInBar(at, ticks, beat int) []NoteValue {
	parts := []NoteValue{}
	for left := ticks; left > 0; {
		if len(parts) == maxNoteValues {
			return []NoteValue{{Ticks: ticks}}
		}
		room := left
		if off := at % beat; off > 0 && left > beat-off && len(parts) == 0 {
			room = beat - off
		}
		found := false
		for _, s := range noteValues {
			if s.Ticks <= room && (s.Ticks == left || s.Ticks == room || s.Tuplet == 0) {
				parts = append(parts, s)
				left, at, found = left-s.Ticks, at+s.Ticks, true
				break
			}
		}
		if !found {
			return []NoteValue{{Ticks: ticks}}
		}
	}
	return parts
}

// NotatedNote is one sign in a bar of a voice: a rest, or what is struck or goes on there.
type NotatedNote struct {
	NoteValue
	Tick int
	// Events sound there; none is a rest. Graces stand before the first of their signs.
	Events, Graces []int
	// Tied says that the sign is tied to the one after it, since the note goes on.
	Tied bool
	// Bracket is how many values of a tuplet stand under one bracket that ends with this one; 0
	// where none ends.
	Bracket int
}

// NotatedBar is one bar of notation; its voices fill it.
type NotatedBar struct {
	// Tick is where it begins.
	Tick   int
	Meter  chart.Meter
	Voices [][]NotatedNote
}

// Notate writes the phrase out in bars, from that of its first note to that of its
// last: every voice filled up with rests. A voice that is silent for a whole bar is left
// out of it, but for the first.
func (p Phrase) Notate() []NotatedBar {
	if len(p.Events) == 0 {
		return nil
	}
	lines := p.BarLines()
	bars := []NotatedBar{}
	for bar := min(lines.BarAt(p.Events[0].Tick), 0); bar < p.Bars(); bar++ {
		b := NotatedBar{Tick: lines.Start(bar), Meter: lines.MeterAt(lines.Start(bar))}
		for v, voice := range p.Voices() {
			written, sounds := p.voiceIn(voice, b.Tick, lines.End(bar), b.Meter.BeatTicks())
			if sounds || v == 0 {
				b.Voices = append(b.Voices, written)
			}
		}
		bars = append(bars, b)
	}
	return bars
}

// voiceIn is what a voice writes from one bar line to the next.
func (p Phrase) voiceIn(voice []VoiceNote, from, to, beat int) (written []NotatedNote, sounds bool) {
	now := from
	rest := func(until int) {
		for _, s := range NoteValues(now, until-now, to-from, beat) {
			written = append(written, NotatedNote{NoteValue: s, Tick: now})
			now += s.Ticks
		}
	}
	for _, s := range voice {
		if s.End() <= from || s.Tick >= to {
			continue
		}
		sounds = true
		if s.Tick > now {
			rest(s.Tick)
		}
		start, end := max(s.Tick, from), min(s.End(), to)
		parts := NoteValues(start, end-start, to-from, beat)
		for k, part := range parts {
			one := NotatedNote{NoteValue: part, Tick: now, Events: s.Events, Tied: k < len(parts)-1 || end < s.End()}
			if start == s.Tick && k == 0 {
				one.Graces = s.Graces
			}
			written = append(written, one)
			now += part.Ticks
		}
	}
	if now < to {
		rest(to)
	}
	bracketTuplets(written)
	return written, sounds
}

// InTimeOf is how many plain values the values of a tuplet take the time of; 0 for none.
func (v NoteValue) InTimeOf() int { return map[int]int{3: 2, 5: 4}[v.Tuplet] }

// bracketTuplets puts tuplets under brackets: as few as make up whole eighths, of quintuplets whole quarters (common).
func bracketTuplets(written []NotatedNote) {
	count, ticks := 0, 0
	for n, one := range written {
		if one.Tuplet == 0 || n > 0 && one.Tuplet != written[n-1].Tuplet {
			count, ticks = 0, 0
		}
		if one.Tuplet == 0 {
			continue
		}
		whole := chart.TicksPerQuarter / 2
		if one.Tuplet == 5 {
			whole = chart.TicksPerQuarter
		}
		count, ticks = count+1, ticks+one.Ticks
		if count > 1 && ticks%whole == 0 {
			written[n].Bracket = count
			count, ticks = 0, 0
		}
	}
}
