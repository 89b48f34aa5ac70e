package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/format/document"
)

// PerformanceRequest asks for what sounds.
type PerformanceRequest struct {
	On
	From    int         `json:"from" minimum:"1" doc:"The first bar, from 1"`
	Bars    int         `json:"bars" minimum:"1" maximum:"1024" doc:"How many bars; they may run on into the next chorus"`
	CountIn int         `json:"countIn" minimum:"0" maximum:"2" doc:"How many bars are counted in"`
	Line    *PlayedLine `json:"line,omitempty" doc:"What is played over the band"`
	Speed   int         `json:"speed,omitempty" minimum:"0" maximum:"200" doc:"In percent of the chart's tempo, 25 at least; left out for 100"`
	Silent  []string    `json:"silent,omitempty" enum:"click,bass,chords,line" doc:"Parts that are not heard"`
}

// PlayedLine is a phrase and where it stands in the chart.
type PlayedLine struct {
	document.Phrase
	Start int `json:"start" doc:"The chart's tick at which the phrase's tick 0 stands"`
}

// Performance is everything that sounds, in order of time. Ticks have the feel
// applied and count from the start of the count-in.
type Performance struct {
	Tempo     int       `json:"tempo" doc:"Counted beats a minute"`
	BeatTicks int       `json:"beatTicks" doc:"Ticks of a counted beat"`
	CountIn   int       `json:"countIn" doc:"The tick at which the first bar begins"`
	End       int       `json:"end" doc:"The tick at which the last bar ends"`
	Bars      []BarMark `json:"bars"`
	Notes     []Note    `json:"notes"`
}

// BarMark says when a bar of the chart begins.
type BarMark struct {
	Tick int `json:"tick"`
	Bar  int `json:"bar" doc:"From 1"`
}

// Note is one sounding note.
type Note struct {
	Part     string       `json:"part" enum:"click,bass,chords,line"`
	Tick     int          `json:"tick"`
	Ticks    int          `json:"ticks"`
	MIDI     int          `json:"midi"`
	Loudness int          `json:"loudness" doc:"1 to 127"`
	Curve    []CurvePoint `json:"curve,omitempty" doc:"How its pitch moves; straight between points"`
	Event    *int         `json:"event,omitempty" doc:"Which event of the line sounds, from 0"`
	On       []GoesOn     `json:"on,omitempty" doc:"The tied events of the line that it goes on as"`
}

// GoesOn is a tied event that a note goes on as.
type GoesOn struct {
	Ticks int `json:"ticks" doc:"After the note begins"`
	Event int `json:"event"`
}

// CurvePoint is a place on a note's pitch curve.
type CurvePoint struct {
	Ticks int `json:"ticks" doc:"After the note begins"`
	Cents int `json:"cents" doc:"Above its pitch"`
}

func (s *server) registerComputePerformance(api huma.API) {
	huma.Post(api, "/api/compute/performance", func(_ context.Context, in *body[PerformanceRequest]) (*body[Performance], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		c := on.chart
		if speed := max(in.Body.Speed, slowest); in.Body.Speed > 0 {
			c.Tempo = max((c.Tempo*speed+50)/100, 1)
		}
		order := band.Order{Chart: c, Instrument: on.instrument, From: in.Body.From - 1, Bars: in.Body.Bars, CountIn: in.Body.CountIn}
		if bars := len(c.Played()); order.From >= bars {
			return nil, invalid("", &chart.FieldError{Field: "from", Detail: fmt.Sprintf("bar %d is not in the chart; its bars are 1 to %d", in.Body.From, bars)})
		}
		for _, part := range in.Body.Silent {
			order.Silent = append(order.Silent, band.Part(part))
		}
		if line := in.Body.Line; line != nil {
			order.LineStart = line.Start
			if order.Line, err = line.Core(on.instrument); err != nil {
				return nil, invalid("line", err)
			}
		}
		return &body[Performance]{performanceOf(band.Perform(order))}, nil
	})
}

// slowest is the slowest speed, in percent: below it single notes are heard, no phrase.
const slowest = 25

func performanceOf(p band.Performance) Performance {
	out := Performance{
		Tempo: p.Tempo, BeatTicks: p.BeatTicks, CountIn: p.CountIn, End: p.End,
		Bars: make([]BarMark, len(p.Bars)), Notes: make([]Note, len(p.Notes)),
	}
	for n, mark := range p.Bars {
		out.Bars[n] = BarMark{Tick: mark.Tick, Bar: mark.Bar + 1}
	}
	for n, note := range p.Notes {
		out.Notes[n] = Note{Part: string(note.Part), Tick: note.Tick, Ticks: note.Ticks, MIDI: int(note.Pitch), Loudness: note.Loudness}
		if note.Event >= 0 {
			out.Notes[n].Event = &p.Notes[n].Event
		}
		for _, on := range note.On {
			out.Notes[n].On = append(out.Notes[n].On, GoesOn(on))
		}
		for _, point := range note.Curve {
			out.Notes[n].Curve = append(out.Notes[n].Curve, CurvePoint{Ticks: point.Ticks, Cents: point.Cents})
		}
	}
	return out
}
