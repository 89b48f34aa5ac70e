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
	Lines []PlayedLine `json:"lines,omitempty" maxItems:"16" doc:"What is played over one chorus after the other; they go round"`
	Parts []string     `json:"parts,omitempty" enum:"click,drums,bass,chords,line" doc:"What is written; left out for all"`
}

// mostPassesInFile is how many passes a file has at most: about two hours.
const mostPassesInFile = 300

func (s *server) registerComputeMIDI(api huma.API) {
	huma.Post(api, "/api/compute/band/midi", func(_ context.Context, in *body[MIDIRequest]) (*file, error) {
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
func (o playContext) passes(asked MIDIRequest) ([]midifile.Pass, error) {
	r, err := asked.Routine.Core(o.chart)
	if err != nil {
		return nil, invalid("routine", err)
	}
	asked.After, asked.At, asked.Loop = nil, nil, nil
	ending := asked.Ending
	all := []midifile.Pass{}
	p, ok := r.First(o.chart), true
	for ok && len(all) < mostPassesInFile {
		var next routine.Pass
		next, ok = r.NextInFile(o.chart, p.Place)
		asked.Ending = ending && !ok
		if len(asked.Lines) > 0 {
			asked.Line = &asked.Lines[p.Chorus%len(asked.Lines)]
		}
		a, err := o.arrange(asked.PassRequest, r, p)
		if err != nil {
			return nil, err
		}
		for _, part := range band.Parts {
			if len(asked.Parts) > 0 && !slices.Contains(asked.Parts, string(part)) {
				a.order.Silent = append(slices.Clone(a.order.Silent), part)
			}
		}
		all = append(all, midifile.Pass{Chart: p.Chart, From: p.From, Line: a.order.Line, Performance: band.Perform(a.order)})
		p = next
	}
	return all, nil
}
