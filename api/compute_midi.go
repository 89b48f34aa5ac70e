package api

import (
	"context"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/routine"
	"undaris/format/midifile"
)

// MIDIRequest asks for a routine as a MIDI file.
type MIDIRequest struct {
	PassRequest
	Parts []string `json:"parts,omitempty" enum:"click,drums,bass,chords,line" doc:"What is written; left out for all"`
}

// mostMIDIPasses is how many passes a file has at most, and passesThatWait how many of each
// segment that goes on until the player asks.
const (
	mostMIDIPasses = 300
	passesThatWait = 2
)

func (s *server) registerComputeMIDI(api huma.API) {
	huma.Post(api, "/api/compute/midi", func(_ context.Context, in *body[MIDIRequest]) (*file, error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		passes, err := on.passes(in.Body)
		if err != nil {
			return nil, err
		}
		return &file{
			Type: "audio/midi", Disposition: attached(on.chart.Title + ".mid"),
			Body: midifile.WritePasses(on.chart.Title, on.instrument, passes),
		}, nil
	})
}

// passes walks the routine from its first pass to its last.
func (o on) passes(asked MIDIRequest) ([]midifile.Pass, error) {
	r, err := asked.Routine.Core(o.chart)
	if err != nil {
		return nil, invalid("routine", err)
	}
	asked.After, asked.At, asked.Loop = nil, nil, nil
	ending := asked.Ending
	all := []midifile.Pass{}
	p, ok := r.First(o.chart), true
	stayed := 0
	for ok && len(all) < mostMIDIPasses {
		if p.Place.Pass == 0 {
			stayed = 0
		}
		stayed++
		var next routine.Pass
		next, ok = r.Next(o.chart, p.Place, p.Segment.Waits() && stayed >= passesThatWait)
		asked.Ending = ending && !ok
		a, err := o.arrange(asked.PassRequest, r, p)
		if err != nil {
			return nil, err
		}
		for _, part := range band.Parts {
			if len(asked.Parts) > 0 && !slices.Contains(asked.Parts, string(part)) {
				a.order.Silent = append(slices.Clone(a.order.Silent), part)
			}
		}
		all = append(all, midifile.Pass{Chart: p.Chart, Line: a.order.Line, Performance: band.Perform(a.order)})
		p = next
	}
	return all, nil
}
