package practice

import (
	"fmt"

	"undaris/core/floor"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// PhraseTask is the limit that a phrase of one's own is written within (our choice, after what
// teachers set: a limit makes one listen).
type PhraseTask struct {
	// Name is what it is kept by, Text says it to the player.
	Name, Text string
	// keeps says whether a phrase in a key keeps to it, and what is in the way.
	keeps func(i neck.Instrument, k harmony.Key, p phrase.Phrase) (bool, string)
}

// PhraseTasks are the limits, one after the other.
var PhraseTasks = []PhraseTask{
	{"three notes", "three notes only, in any octave, as long as you like", func(i neck.Instrument, _ harmony.Key, p phrase.Phrase) (bool, string) {
		classes := map[pitch.Class]bool{}
		for _, e := range p.Events {
			classes[e.Sounding(i).Class()] = true
		}
		return len(classes) <= 3, fmt.Sprintf("it has %d different notes", len(classes))
	}},
	{"end on the 3 of IV", "end on the 3 of IV", func(i neck.Instrument, k harmony.Key, p phrase.Phrase) (bool, string) {
		four, err := k.ParseRoman("IV")
		if err != nil || len(four.Tones()) < 2 {
			return false, "the key has no IV"
		}
		third, last := four.Tones()[1].Note, p.Events[len(p.Events)-1].Sounding(i).Class()
		return last == third.Class(), fmt.Sprintf("it ends on %s; the 3 of IV is %s", signed(k.Spell(last).String()), signed(third.String()))
	}},
	{"begin off the beat", "begin off the beat", func(_ neck.Instrument, _ harmony.Key, p phrase.Phrase) (bool, string) {
		beat := p.Meter.BeatTicks()
		return floor.Mod(p.Events[0].Tick, beat) != 0, "it begins on a beat"
	}},
	{"two strings", "two neighbouring strings only", func(_ neck.Instrument, _ harmony.Key, p phrase.Phrase) (bool, string) {
		low, high := p.Events[0].String, p.Events[0].String
		for _, e := range p.Events {
			low, high = min(low, e.String), max(high, e.String)
		}
		return high-low <= 1, fmt.Sprintf("it goes over strings %d to %d", low, high)
	}},
	{"a bend", "at least one bend, held for a beat", func(_ neck.Instrument, _ harmony.Key, p phrase.Phrase) (bool, string) {
		for _, e := range p.Events {
			if e.Bend > 1 && e.Ticks >= p.Meter.BeatTicks() {
				return true, ""
			}
		}
		return false, "no bend of it lasts a beat"
	}},
	{"half silence", "as much silence as sound", func(_ neck.Instrument, _ harmony.Key, p phrase.Phrase) (bool, string) {
		sounds, end := 0, 0
		for _, e := range p.Events {
			sounds += max(e.End()-max(e.Tick, end), 0)
			end = max(end, e.End())
		}
		bars := (max(end, 1) + p.Meter.BarTicks() - 1) / p.Meter.BarTicks()
		share := 100 * sounds / (bars * p.Meter.BarTicks())
		return share <= 50, fmt.Sprintf("it sounds for %d %% of its bars", share)
	}},
}

// TaskOfDay is the limit of a day, counted in days from any one.
func TaskOfDay(day int) PhraseTask {
	return PhraseTasks[floor.Mod(day, len(PhraseTasks))]
}

// Keeps says whether a phrase in a key keeps to the limit, in one sentence. One without notes does not.
func (t PhraseTask) Keeps(i neck.Instrument, k harmony.Key, p phrase.Phrase) (bool, string) {
	if len(p.Events) == 0 {
		return false, "It has no notes yet."
	}
	kept, why := t.keeps(i, k, p)
	if kept {
		return true, fmt.Sprintf("It keeps to the limit: %s.", t.Text)
	}
	return false, fmt.Sprintf("The limit was %s; %s.", t.Text, why)
}
