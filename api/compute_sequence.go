package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/phrase"
	"undaris/format/document"
)

// SequenceRequest asks for an exercise written out over bars of a chart.
type SequenceRequest struct {
	On
	Position    string `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Over        string `json:"over,omitempty" doc:"What is walked over; left out for chord tones"`
	Cell        string `json:"cell,omitempty" doc:"The figure; left out for one after another"`
	Order       string `json:"order,omitempty" doc:"Which way round; left out for as written"`
	Subdivision string `json:"subdivision,omitempty" doc:"Left out for eighths"`
	From        int    `json:"from" minimum:"1" doc:"The first bar, from 1"`
	Bars        int    `json:"bars" minimum:"1" maximum:"64"`
}

// Sequence is an exercise written out.
type Sequence struct {
	Meter    string          `json:"meter"`
	Start    int             `json:"start" doc:"The chart's tick at which its own tick 0 stands"`
	BarTicks int             `json:"barTicks"`
	Beat     int             `json:"beatTicks"`
	Events   []LabelledEvent `json:"events"`
}

// LabelledEvent is one note and what it is over its chord.
type LabelledEvent struct {
	document.Event
	Tone
	Chord string `json:"chord" doc:"The chord that sounds when it starts"`
	Class string `json:"class" enum:"home,colour,blue,lean,outside"`
	Why   string `json:"why"`
	// Written is left out where no imagined chord is followed.
	Written *WrittenLabel `json:"written,omitempty" doc:"What it is over the chord the band plays below an imagined one"`
	Spoken  string        `json:"spoken"`
}

func (s *server) registerComputeSequence(api huma.API) {
	huma.Post(api, "/api/compute/sequence", func(_ context.Context, in *body[SequenceRequest]) (*body[Sequence], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		position, err := on.position(in.Body.Position)
		if err != nil {
			return nil, err
		}
		subdivision, err := on.chart.Meter.Subdivision(in.Body.Subdivision)
		if err != nil {
			return nil, invalid("", err)
		}
		p, err := phrase.Sequence{
			Chart: on.chart, Instrument: on.instrument, Window: position.Window, Subdivision: subdivision, From: in.Body.From - 1, Bars: in.Body.Bars,
			Over: first(in.Body.Over, phrase.SequenceOvers), Cell: first(in.Body.Cell, phrase.SequenceCells(phrase.OverBox)), Order: first(in.Body.Order, phrase.SequenceOrders),
		}.Write()
		if err != nil {
			return nil, invalid("", err)
		}
		m := on.chart.Meter
		return &body[Sequence]{Sequence{
			Meter: m.String(), Start: (in.Body.From - 1) * m.BarTicks(), BarTicks: m.BarTicks(), Beat: m.BeatTicks(), Events: on.labelled(p),
		}}, nil
	})
}

// first is what was chosen, or else the first of what may be.
func first(chosen string, all []string) string {
	if chosen == "" {
		return all[0]
	}
	return chosen
}

// labelled writes a phrase's notes with what each is over its chord.
func (o on) labelled(p phrase.Phrase) []LabelledEvent {
	events := document.PhraseOf(p).Events
	all := make([]LabelledEvent, len(events))
	for n, label := range p.Labels(o.instrument, o.chart.Key) {
		all[n] = LabelledEvent{
			Event: events[n], Tone: toneOf(label.Tone), Chord: label.Chord.Symbol(), Class: string(label.Class),
			Why: label.Reason, Spoken: spokenEvent(label, p.Events[n]),
		}
		if w := label.Written; w != nil {
			all[n].Written = &WrittenLabel{Chord: w.Chord.Symbol(), Degree: w.Degree.String(), Class: string(w.Class)}
		}
	}
	return all
}
