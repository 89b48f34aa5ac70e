package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/format/document"
)

// PerformanceRequest asks for what sounds.
type PerformanceRequest struct {
	PlayContext
	From    int          `json:"from" minimum:"1" doc:"The first bar, from 1"`
	Bars    int          `json:"bars,omitempty" minimum:"1" maximum:"1024" doc:"How many bars; they may run on into the next chorus; left out for one, or as many as a shape takes"`
	CountIn int          `json:"countIn" minimum:"0" maximum:"2" doc:"How many bars are counted in"`
	Line    *PlayedLine  `json:"line,omitempty" doc:"What is played over the band"`
	Shape   *ShapeToHear `json:"shape,omitempty" doc:"Places that are heard in place of a line, from the first bar on"`
	Speed   int          `json:"speed,omitempty" minimum:"0" maximum:"200" doc:"In percent of the chart's tempo, 25 at least; left out for 100"`
	Chorus  int          `json:"chorus,omitempty" minimum:"0" doc:"Which time through, from 0: no two are played alike"`
	Silent  []string     `json:"silent,omitempty" enum:"click,drums,bass,chords,line" doc:"Parts that are not heard"`
	Arrangement
}

// ShapeToHear is places as they are heard, from the first on.
type ShapeToHear struct {
	Places   []Place `json:"places" minItems:"1" maxItems:"64"`
	Strummed bool    `json:"strummed,omitempty" doc:"Together, in place of one after the other"`
}

// PlayedLine is a phrase and where it stands in the chart.
type PlayedLine struct {
	document.Phrase
	Start int `json:"start" doc:"The chart's tick at which the phrase's tick 0 stands"`
}

// Performance is everything that sounds, in order of time. Ticks have the feel
// applied and count from the start of the count-in.
type Performance struct {
	Tempo     int         `json:"tempo" doc:"Counted beats a minute"`
	BeatTicks int         `json:"beatTicks" doc:"Ticks of a counted beat"`
	CountIn   int         `json:"countIn" doc:"The tick at which the first bar begins"`
	End       int         `json:"end" doc:"The tick at which the last bar ends"`
	Beats     []BeatMark  `json:"beats" doc:"Every counted beat"`
	Chords    []ChordMark `json:"chords" doc:"Which chord sounds when"`
	Notes     []Note      `json:"notes"`
}

// BeatMark says when a counted beat begins, and where in the chart it is.
type BeatMark struct {
	Tick int `json:"tick"`
	Bar  int `json:"bar" doc:"From 1; 0 and less before the first bar"`
	Beat int `json:"beat" doc:"From 1"`
	At   int `json:"at" doc:"The chart's tick in its chorus"`
}

// ChordMark says which chord sounds from a tick on.
type ChordMark struct {
	Tick   int    `json:"tick"`
	Ticks  int    `json:"ticks"`
	Chord  string `json:"chord"`
	Roman  string `json:"roman"`
	Silent bool   `json:"silent,omitempty" doc:"The band rests"`
	At     int    `json:"at" doc:"The chart's tick in its chorus"`
}

// Note is one sounding note.
type Note struct {
	Part      string         `json:"part" enum:"click,drums,bass,chords,line"`
	Tick      int            `json:"tick"`
	Ticks     int            `json:"ticks"`
	MIDI      int            `json:"midi"`
	Loudness  int            `json:"loudness" doc:"1 to 127"`
	Curve     []CurvePoint   `json:"curve,omitempty" doc:"How its pitch moves; straight between points"`
	Event     *int           `json:"event,omitempty" doc:"Which event of the line sounds, from 0"`
	Continues []Continuation `json:"continues,omitempty" doc:"The tied events of the line that it rings on as"`
}

// Continuation is a tied event that a note rings on as.
type Continuation struct {
	Ticks int `json:"ticks" doc:"After the note begins"`
	Event int `json:"event"`
}

// CurvePoint is a place on a note's pitch curve.
type CurvePoint struct {
	Ticks int `json:"ticks" doc:"After the note begins"`
	Cents int `json:"cents" doc:"Above its pitch"`
}

func (s *server) registerComputePerformance(api huma.API) {
	posts(api, "/api/compute/band/performance", func(_ context.Context, in *body[PerformanceRequest]) (*body[Performance], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		c := on.chart
		if speed := max(in.Body.Speed, slowest); in.Body.Speed > 0 {
			c.Tempo = max((c.Tempo*speed+50)/100, 1)
		}
		request := band.Order{
			Chart: c, Instrument: on.instrument, From: in.Body.From - 1, Bars: in.Body.Bars, CountIn: in.Body.CountIn,
			Chorus: in.Body.Chorus, Seed: uint64(in.Body.Seed), StopTime: in.Body.StopTime, Ending: in.Body.Ending, Click: in.Body.Click.Core(),
		}
		if request.Style, _, err = styleFor(in.Body.Style, c); err != nil {
			return nil, err
		}
		if err := request.Click.Check(); err != nil {
			return nil, invalid("click", err)
		}
		if bars := len(c.PlayedBars()); request.From >= bars {
			return nil, invalid("", &chart.FieldError{Field: "from", Detail: fmt.Sprintf("bar %d is not in the chart; its bars are 1 to %d", in.Body.From, bars)})
		}
		for _, part := range in.Body.Silent {
			request.Silent = append(request.Silent, band.Part(part))
		}
		if line := in.Body.Line; line != nil {
			request.LineStart = line.Start
			if request.Line, err = line.Core(on.instrument); err != nil {
				return nil, invalid("line", err)
			}
		}
		if shape := in.Body.Shape; shape != nil {
			places := make([]neck.Place, len(shape.Places))
			for n, at := range shape.Places {
				places[n] = neck.Place(at)
			}
			request.LineStart, request.Line = c.Timeline().Start(request.From), phrase.ShapeToHear(places, shape.Strummed, c.Meter)
			if err := request.Line.Check(on.instrument); err != nil {
				return nil, invalid("shape", err)
			}
			request.Bars = max(request.Bars, request.Line.Bars())
		}
		request.Bars = max(request.Bars, 1)
		return &body[Performance]{on.performance(request)}, nil
	})
}

// slowest is the slowest speed, in percent: below it single notes are heard, no phrase.
const slowest = 25

// performance arranges an order, and names its chords in the key of its chart.
func (o playContext) performance(request band.Order) Performance {
	p := band.Perform(request)
	out := Performance{
		Tempo: p.Tempo, BeatTicks: p.BeatTicks, CountIn: p.CountIn, End: p.End,
		Beats: make([]BeatMark, len(p.Beats)), Chords: make([]ChordMark, len(p.Chords)), Notes: make([]Note, len(p.Notes)),
	}
	for n, mark := range p.Beats {
		bar := mark.Bar + 1
		out.Beats[n] = BeatMark{Tick: mark.Tick, Bar: bar, Beat: mark.Beat + 1, At: mark.At}
	}
	romans := map[string]string{}
	for n, mark := range p.Chords {
		symbol := mark.Chord.Symbol()
		if _, ok := romans[symbol]; !ok {
			romans[symbol] = request.Chart.Key.Roman(mark.Chord)
		}
		out.Chords[n] = ChordMark{Tick: mark.Tick, Ticks: mark.Ticks, Chord: symbol, Roman: romans[symbol], Silent: mark.Silent, At: mark.At}
	}
	for n, note := range p.Notes {
		out.Notes[n] = Note{Part: string(note.Part), Tick: note.Tick, Ticks: note.Ticks, MIDI: int(note.Pitch), Loudness: note.Loudness}
		if note.Event >= 0 {
			out.Notes[n].Event = &p.Notes[n].Event
		}
		for _, one := range note.Continues {
			out.Notes[n].Continues = append(out.Notes[n].Continues, Continuation(one))
		}
		for _, point := range note.Curve {
			out.Notes[n].Curve = append(out.Notes[n].Curve, CurvePoint{Ticks: point.Ticks, Cents: point.Cents})
		}
	}
	return out
}
