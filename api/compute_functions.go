package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/exercise"
	"undaris/core/neck"
)

// FunctionsRequest asks what a few fretted notes are over every chord of a chart.
type FunctionsRequest struct {
	PlayContext
	Position    string  `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Places      []Place `json:"places,omitempty" maxItems:"6" doc:"Left out for the small box near a root"`
	Subdivision string  `json:"subdivision,omitempty" doc:"That of the motif; left out for eighths"`
}

// Functions is the function table and the motif it makes.
type Functions struct {
	Chords []string      `json:"chords" doc:"The distinct chords in the order they first sound"`
	Rows   []FunctionRow `json:"rows"`
	Motif  Tab           `json:"motif" doc:"The notes over every chord of the chorus, each bent as it must be there"`
}

// FunctionRow is one fretted note.
type FunctionRow struct {
	Place
	Note      string     `json:"note" doc:"As it lies, spelled in the key"`
	Functions []Function `json:"functions" doc:"Over the chords, in their order"`
}

// Function is what a fretted note is over a chord.
type Function struct {
	Bent        []BentNote `json:"bent" doc:"Bent 0, 1, 2 and 3 half steps, as far as the string bends there"`
	Bend        int        `json:"bend" doc:"The least bend, in half steps, that makes it home, or else colour"`
	IsChordTone bool       `json:"isChordTone" doc:"That bend makes it home"`
	Vibrato     bool       `json:"vibrato" doc:"It is home as it lies: shake it"`
	Text        string     `json:"text"`
}

// BentNote is a note as it lies or bent.
type BentNote struct {
	Tone
	Class string `json:"class" enum:"chordTone,colour,blue,suspension,outside"`
}

func (s *server) registerComputeFunctions(api huma.API) {
	posts(api, "/api/compute/change/functions", func(_ context.Context, in *body[FunctionsRequest]) (*body[Functions], error) {
		on, position, subdivision, err := in.Body.inTime(in.Body.Position, in.Body.Subdivision)
		if err != nil {
			return nil, err
		}
		places := []neck.Place{}
		for _, p := range in.Body.Places {
			places = append(places, neck.Place{String: p.String, Fret: p.Fret})
		}
		if len(places) == 0 {
			box, err := on.home().Box(on.chart.Box)
			if err != nil {
				return nil, invalid("chart", err)
			}
			for _, tone := range change.SmallBox(on.instrument, position.Window, box) {
				places = append(places, tone.Place)
			}
		}
		chords := on.chart.Chords()
		rows, err := change.FunctionTable(on.home(), on.instrument, places, chords)
		if err != nil {
			return nil, invalid("places", err)
		}
		motif, err := exercise.Motif(on.chart, on.instrument, position.Window, rows, chords, subdivision)
		if err != nil {
			return nil, invalid("places", err)
		}
		out := Functions{Rows: []FunctionRow{}, Motif: on.tab(motif, 0, "")}
		for _, c := range chords {
			out.Chords = append(out.Chords, c.Symbol())
		}
		for _, row := range rows {
			out.Rows = append(out.Rows, on.functionRow(row))
		}
		return &body[Functions]{out}, nil
	})
}

func (o playContext) functionRow(row change.FunctionRow) FunctionRow {
	out := FunctionRow{Place: placeOf(row.Place), Note: o.home().ToneOver(o.chart.TonicChord(), row.Pitch.Class()).Note.String()}
	for _, f := range row.Functions {
		function := Function{Bend: f.Bend, IsChordTone: f.IsChordTone, Vibrato: f.Vibrato, Text: f.Text}
		for _, j := range f.Bent {
			function.Bent = append(function.Bent, BentNote{Tone: toneOf(j.Tone), Class: string(j.Class)})
		}
		out.Functions = append(out.Functions, function)
	}
	return out
}
