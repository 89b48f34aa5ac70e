package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/pitch"
	"undaris/format/document"
	"undaris/format/lickfile"
	"undaris/format/reading"
)

// ImportedLick is a lick read from a file or a paste; nothing is kept of it yet.
type ImportedLick struct {
	Lick    document.Lick `json:"lick"`
	Format  string        `json:"format" doc:"What the file was read as"`
	Remarks []Remark      `json:"remarks" doc:"What was not used, and what was taken for granted"`
	Voices  []Voice       `json:"voices" doc:"What the tracks and channels of a MIDI file hold; none for other files"`
}

type importLickRequest struct {
	Name    string `query:"name" doc:"The file's name; left out for a paste"`
	Tonic   string `query:"tonic" doc:"The key, where the file has none; left out for A"`
	Meter   string `query:"meter" doc:"The meter, where the file has none; left out for 4/4"`
	Voices  string `query:"voices" doc:"Of a MIDI file, the tracks and channels to read, as in 2.1,3.2; left out to have them chosen"`
	Fret    int    `query:"fret" minimum:"0" maximum:"27" doc:"The lowest fret under the hand, for notes without their places"`
	RawBody []byte `contentType:"application/octet-stream"`
}

const importLickPath = "/api/compute/lick/import"

func (s *server) registerComputeLickFile(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "import-lick", Method: http.MethodPost, Path: importLickPath, MaxBodyBytes: maxImport,
		Summary: "Read a lick from plain-text tab, MusicXML (plain or compressed), MIDI or Undaris JSON",
	}, func(_ context.Context, in *importLickRequest) (*body[ImportedLick], error) {
		terms, err := in.terms()
		if err != nil {
			return nil, err
		}
		l, format, err := lickfile.Read(in.Name, in.RawBody, terms)
		if err != nil {
			return nil, unreadable(format.Title, err)
		}
		return &body[ImportedLick]{ImportedLick{Lick: document.LickOf(l.Lick), Format: format.Title, Remarks: remarksOf(l.Remarks), Voices: voicesOf(l.Voices)}}, nil
	})
}

// terms is what the file's reader goes by where the file does not say.
func (in *importLickRequest) terms() (reading.Terms, error) {
	terms := reading.Plain()
	var err error
	if terms.Voices, err = reading.ParseVoices(in.Voices); err != nil {
		return terms, invalidAt("query.voices", err)
	}
	if in.Tonic != "" {
		note, err := pitch.ParseNote(in.Tonic)
		if err != nil {
			return terms, invalidAt("query.tonic", err)
		}
		terms.Tonic = note
	}
	if in.Meter != "" {
		meter, err := chart.ParseMeter(in.Meter)
		if err != nil {
			return terms, invalidAt("query.meter", err)
		}
		terms.Meter = meter
	}
	if in.Fret > 0 {
		terms.Window = terms.Instrument.WindowFrom(min(in.Fret, terms.Instrument.Frets-3))
	}
	return terms, nil
}

func remarksOf(all []reading.Remark) []Remark {
	remarks := make([]Remark, len(all))
	for n, remark := range all {
		remarks[n] = Remark(remark)
	}
	return remarks
}
