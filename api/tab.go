package api

import (
	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/format/document"
)

// Tab is a phrase written out over a chart: what is shown as tab, and can be
// played over the band.
type Tab struct {
	Meter    string      `json:"meter"`
	BarLines []BarLine   `json:"barLines" doc:"The bars it touches, in its own ticks"`
	Start    int         `json:"start" doc:"The chart's tick at which its own tick 0 stands"`
	BarTicks int         `json:"barTicks" doc:"The length of its first bar"`
	Beat     int         `json:"beatTicks" doc:"The length of a counted beat there"`
	FirstBar int         `json:"firstBar" doc:"The chart's bar it begins in, from 1"`
	Bars     int         `json:"bars" doc:"How many bars of the chart it touches"`
	Events   []LineEvent `json:"events"`
}

// BarLine is where a bar lies.
type BarLine struct {
	Tick   int    `json:"tick"`
	Ticks  int    `json:"ticks"`
	Beat   int    `json:"beatTicks" doc:"The length of a counted beat"`
	Number int    `json:"number" doc:"The chart's bar, from 1; choruses go on counting"`
	Meter  string `json:"meter"`
}

// barLines are the bars of a chart that a phrase touches whose tick 0 stands at one of its ticks.
func barLines(t chart.Timeline, first, bars, start int) []BarLine {
	lines := make([]BarLine, bars)
	for n := range lines {
		bar := first + n
		m := t.MeterAt(bar)
		lines[n] = BarLine{Tick: t.Start(bar) - start, Ticks: m.BarTicks(), Beat: m.BeatTicks(), Number: bar + 1, Meter: m.String()}
	}
	return lines
}

// LabelledEvent is one note and what it is over its chord.
type LabelledEvent struct {
	document.Event
	Tone
	Chord string `json:"chord" doc:"The chord that sounds when it starts"`
	Class string `json:"class" enum:"chordTone,colour,blue,suspension,outside"`
	Why   string `json:"why"`
	// Written is left out where no imagined chord is followed.
	Written  *WrittenLabel `json:"written,omitempty" doc:"What it is over the chord the band plays below an imagined one"`
	BendMark string        `json:"bendMark,omitempty" doc:"How wide it is bent, as tab has it" example:"full"`
	Spoken   string        `json:"spoken"`
}

// tab writes a phrase whose tick 0 stands at a tick of the chart. The role, where
// there is one, is that of all its notes but the last, which is the target.
func (o playContext) tab(p phrase.Phrase, start int, role string) Tab {
	time := o.chart.Timeline()
	first, bars := p.Span(time, start)
	m := time.MeterAt(first)
	t := Tab{
		Meter: m.String(), Start: start, BarTicks: m.BarTicks(), Beat: m.BeatTicks(), FirstBar: first + 1, Bars: bars,
		BarLines: barLines(time, first, bars, start),
	}
	labelled := o.labelled(p)
	for n, event := range labelled {
		line := LineEvent{LabelledEvent: event, Role: role}
		if role != "" && n == len(labelled)-1 {
			line.Role = "target"
		}
		t.Events = append(t.Events, line)
	}
	return t
}

// labelled writes a phrase's notes with what each is over its chord.
func (o playContext) labelled(p phrase.Phrase) []LabelledEvent {
	events := document.PhraseOf(p).Events
	all := make([]LabelledEvent, len(events))
	for n, label := range p.Labels(o.instrument, o.home()) {
		all[n] = LabelledEvent{
			Event: events[n], Tone: toneOf(label.Tone), Chord: label.Chord.Symbol(), Class: string(label.Class),
			Why: label.Why(), Spoken: spokenEvent(label, p.Events[n]),
			BendMark: phrase.BendMarks[min(p.Events[n].Bend, phrase.MaxBend)],
		}
		if w := label.Written; w != nil {
			all[n].Written = &WrittenLabel{Chord: w.Chord.Symbol(), Degree: w.Degree.String(), Class: string(w.Class)}
		}
	}
	return all
}
