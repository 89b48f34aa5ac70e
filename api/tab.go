package api

import (
	"undaris/core/phrase"
	"undaris/format/document"
)

// Tab is a phrase written out over a chart: what is shown as tab, and can be
// played over the band.
type Tab struct {
	Meter    string      `json:"meter"`
	Start    int         `json:"start" doc:"The chart's tick at which its own tick 0 stands"`
	BarTicks int         `json:"barTicks"`
	Beat     int         `json:"beatTicks"`
	FirstBar int         `json:"firstBar" doc:"The chart's bar it begins in, from 1"`
	Bars     int         `json:"bars" doc:"How many bars of the chart it touches"`
	Events   []LineEvent `json:"events"`
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
	first, bars := p.Span(start)
	m := o.chart.Meter
	t := Tab{Meter: m.String(), Start: start, BarTicks: m.BarTicks(), Beat: m.BeatTicks(), FirstBar: first + 1, Bars: bars}
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
	for n, label := range p.Labels(o.instrument, o.chart.Key) {
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
