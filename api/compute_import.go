package api

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/pitch"
	"undaris/format/chartfile"
	"undaris/format/reading"
)

// Imported is a chart read from a file or a paste; nothing is kept of it yet.
type Imported struct {
	ReadChart
	Format  string   `json:"format" doc:"What the file was read as"`
	Remarks []Remark `json:"remarks" doc:"What was not used, and what was taken for granted"`
	Unread  []Unread `json:"unread" doc:"The bars that could not be read; each is marked in the chart, silent, to be written over"`
	Voices  []Voice  `json:"voices" doc:"What the tracks and channels of a MIDI file hold; none for other files"`
}

// Unread is a bar of a file that could not be read.
type Unread struct {
	Line    int      `json:"line"`
	Column  int      `json:"column"`
	Symbol  string   `json:"symbol"`
	Text    string   `json:"text"`
	Nearest []string `json:"nearest"`
}

func unreadOf(faults reading.Faults) []Unread {
	all := make([]Unread, len(faults))
	for n, f := range faults {
		all[n] = Unread{Line: f.Line, Column: f.Column, Symbol: f.Symbol, Text: f.Detail, Nearest: append([]string{}, f.Nearest...)}
	}
	return all
}

// Voice is the notes of one channel of one track of a MIDI file.
type Voice struct {
	ID      string `json:"id" doc:"Its track and channel, as it is chosen" example:"2.1"`
	Track   int    `json:"track"`
	Channel int    `json:"channel"`
	Name    string `json:"name"`
	Notes   int    `json:"notes"`
	Low     string `json:"low" doc:"Its lowest note" example:"E2"`
	High    string `json:"high"`
	Plays   string `json:"plays" enum:"chords,single notes,drums"`
	Used    bool   `json:"used"`
}

func voicesOf(voices []reading.Voice) []Voice {
	all := make([]Voice, len(voices))
	for n, v := range voices {
		all[n] = Voice{
			ID: v.ID().String(), Track: v.Track, Channel: v.Channel, Name: v.Name, Notes: v.Notes, Plays: string(v.Plays), Used: v.Used,
			Low: pitch.MIDI(v.Low).Named(), High: pitch.MIDI(v.High).Named(),
		}
	}
	return all
}

// Remark is said of one line of a file.
type Remark struct {
	Line   int    `json:"line" doc:"From 1; 0 for the file as a whole. A measure, in files without lines"`
	Source string `json:"source"`
	Text   string `json:"text"`
}

// maxImport is the largest file that is read, 8 MiB.
const maxImport = 8 << 20

type importRequest struct {
	Name    string `query:"name" doc:"The file's name; left out for a paste"`
	Voices  string `query:"voices" doc:"Of a MIDI file, the tracks and channels to read, as in 2.1,3.2; left out to have them chosen"`
	RawBody []byte `contentType:"application/octet-stream"`
}

func (s *server) registerComputeImport(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "import-chart", Method: http.MethodPost, Path: importPath, MaxBodyBytes: maxImport,
		Summary: "Read a chart from a bar grid, ChordPro, MusicXML (plain or compressed) or MIDI",
	}, func(_ context.Context, in *importRequest) (*body[Imported], error) {
		voices, err := reading.ParseVoices(in.Voices)
		if err != nil {
			return nil, invalidAt("query.voices", err)
		}
		r, format, err := chartfile.Read(in.Name, in.RawBody, voices)
		if err != nil {
			return nil, unreadable(format.Title, err)
		}
		return &body[Imported]{Imported{ReadChart: readChart(r.Chart), Format: format.Title, Remarks: remarksOf(r.Remarks), Unread: unreadOf(r.Unread), Voices: voicesOf(r.Voices)}}, nil
	})
}

const importPath = "/api/compute/chart/import"

// unreadable is the problem for a file that cannot be read: every fault with its
// place.
func unreadable(format string, err error) error {
	faults, ok := err.(reading.Faults)
	if !ok {
		return err
	}
	fields := make([]FieldProblem, len(faults))
	for n, fault := range faults {
		fields[n] = faultIn(fault)
	}
	text := faults[0].Error()
	if len(faults) > 1 {
		text = fmt.Sprintf("%d places cannot be read", len(faults))
	}
	return problem(http.StatusUnprocessableEntity, fmt.Sprintf("read as %s: %s", format, text), fields...)
}
