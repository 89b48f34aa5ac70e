package api

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/line"
	"undaris/format/document"
)

// LineChoice is what a player chooses of a line, beside its chart and lick.
type LineChoice = document.LineChoice

// LineRequest asks for a lick led over a change.
type LineRequest struct {
	PlayContext
	Lick document.Lick `json:"lick"`
	LineChoice
}

// Line is a lick led over a change, as it is played and why.
type Line struct {
	Position Position               `json:"position"`
	Meter    string                 `json:"meter"`
	Start    int                    `json:"start" doc:"The chart's tick at which the line's own tick 0 stands"`
	Arrival  int                    `json:"arrival" doc:"The chart's tick of the target"`
	RunStart int                    `json:"runStart" doc:"The chart's tick of the first note of the run into the target"`
	BarTicks int                    `json:"barTicks"`
	BarLines []BarLine              `json:"barLines" doc:"The bars it touches, in its own ticks"`
	Beat     int                    `json:"beatTicks"`
	FirstBar int                    `json:"firstBar" doc:"The chart's bar the line begins in, from 1"`
	Bars     int                    `json:"bars" doc:"How many bars of the chart it touches"`
	Target   Target                 `json:"target"`
	Kept     int                    `json:"kept" doc:"How many notes of the lick stand as written"`
	Of       int                    `json:"of"`
	Notes    []string               `json:"notes" doc:"What was done, in sentences"`
	Events   []LineEvent            `json:"events"`
	Chords   []document.PhraseChord `json:"chords" doc:"The chords under it, each until the next"`
}

// LineEvent is one note of a line.
type LineEvent struct {
	LabelledEvent
	Role string `json:"role,omitempty" enum:"lick,tail,approach,target" doc:"What it is there for; left out where all are alike"`
}

// WrittenLabel is what a note is over the written chord.
type WrittenLabel struct {
	Chord  string `json:"chord"`
	Degree string `json:"degree"`
	Class  string `json:"class" enum:"chordTone,colour,blue,suspension,outside"`
}

func (s *server) registerComputeLine(api huma.API) {
	posts(api, "/api/compute/line", func(_ context.Context, in *body[LineRequest]) (*body[Line], error) {
		a, written, err := in.Body.writeLine(in.Body.Lick, in.Body.LineChoice)
		if err != nil {
			return nil, err
		}
		return &body[Line]{lineOf(a, written)}, nil
	})
}

// writeLine leads a lick over a change, or says which field of the request stands in the way.
func (o PlayContext) writeLine(l document.Lick, choice LineChoice) (changeContext, line.Line, error) {
	a, err := o.change(choice.Position, choice.Change, choice.Strategy)
	if err != nil {
		return changeContext{}, line.Line{}, err
	}
	chosen, err := l.Core()
	if err != nil {
		return changeContext{}, line.Line{}, invalid("lick", err)
	}
	approach, err := change.FindApproachKind(choice.Approach)
	if err != nil {
		return changeContext{}, line.Line{}, invalid("approach", err)
	}
	subdivision, err := a.chart.Meter.Subdivision(choice.Subdivision)
	if err != nil {
		return changeContext{}, line.Line{}, invalid("", err)
	}
	request := line.Request{
		Chart: a.chart, Instrument: a.instrument, Position: a.position, Change: a.change, Lick: chosen,
		Swaps: a.swaps, Strategy: a.strategy, Approach: approach, Subdivision: subdivision,
	}
	if choice.Target != nil {
		request.Target = &neck.Place{String: choice.Target.String, Fret: choice.Target.Fret}
	}
	written, err := request.Write()
	if err != nil {
		return changeContext{}, line.Line{}, invalid(atFault(err), err)
	}
	return a, written, nil
}

// atFault is the field of a line's request that an error of its writing is about.
func atFault(err error) string {
	var target *line.TargetError
	if errors.As(err, &target) {
		return "target"
	}
	return "lick"
}

func lineOf(a changeContext, l line.Line) Line {
	events := a.labelled(l.Phrase)
	time := a.chart.Timeline()
	first, bars := l.Phrase.Span(time, l.Start)
	m := time.MeterAt(first)
	line := Line{
		Position: positionOf(a.position), Meter: m.String(), BarTicks: m.BarTicks(), Beat: m.BeatTicks(), BarLines: barLines(time, first, bars, l.Start),
		Start: l.Start, Arrival: l.Arrival, RunStart: l.RunStart,
		FirstBar: first + 1, Bars: bars, Target: targetOf(l.Target), Kept: l.Kept, Of: l.Of, Notes: l.Notes,
		Events: make([]LineEvent, len(events)), Chords: document.PhraseOf(l.Phrase).Chords,
	}
	for n, event := range events {
		event.Why = l.Why[n]
		line.Events[n] = LineEvent{LabelledEvent: event, Role: string(l.Roles[n])}
	}
	return line
}

// spokenEvent says a note of a line and how it is played.
func spokenEvent(label phrase.Label, e phrase.Event) string {
	text := spoken(label.Tone, label.Chord, e.Fingered)
	for _, technique := range e.Names() {
		text += ", " + technique
	}
	return text
}
