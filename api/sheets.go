package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/format/sheet"
	"undaris/library/documents"
)

// sheetRequest names a sheet of a kept chart.
type sheetRequest struct {
	ID       uint   `path:"id"`
	What     string `path:"what" enum:"map,practice,blank" doc:"One chord in one position, the whole tune, or empty necks"`
	As       string `query:"as" enum:"pdf,svg" default:"pdf"`
	Paper    string `query:"paper" enum:"A4,Letter" default:"A4"`
	Chord    string `query:"chord" doc:"For a map"`
	Position string `query:"position" doc:"For a map; left out for the E form"`
	Layout   string `query:"layout" doc:"For a map: how the chord is laid out; left out for all tones"`
	From     string `query:"from" doc:"For one octave: the degree it starts from"`
	Low      int    `query:"low" doc:"For some strings or frets: the first"`
	High     int    `query:"high" doc:"For some strings or frets: the last"`
	Whole    bool   `query:"whole" doc:"For a map: on all frets"`
}

func (s *server) registerSheets(api huma.API) {
	huma.Get(api, "/api/charts/{id}/sheets/{what}", func(ctx context.Context, in *sheetRequest) (*file, error) {
		item, err := documents.Charts.Read(ctx, s.library, in.ID)
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		c, err := item.Body.Core()
		if err != nil {
			return nil, err
		}
		paper, err := sheet.FindPaper(in.Paper)
		if err != nil {
			return nil, invalid("", err)
		}
		kept, err := documents.PlayerSettings.Read(ctx, s.library)
		if err != nil {
			return nil, err
		}
		instrument, spanMM, swaps, err := kept.Body.Hands.Core(c.Capo)
		if err != nil {
			return nil, invalid("", err)
		}
		request := sheet.Order{Chart: c, Instrument: instrument, Paper: paper, SpanMM: spanMM, Swaps: swaps}
		drawing, name := request.Practice(), c.Title
		switch in.What {
		case "blank":
			drawing, name = request.Blank(), "Blank necks"
		case "map":
			chord, err := harmony.ParseChord(in.Chord)
			if err != nil {
				return nil, invalidAt("query.chord", err)
			}
			chord = c.InContext(chord)
			position, err := neck.FindPosition(instrument, c.Key.Tonic.Class(), in.Position)
			if err != nil {
				return nil, invalidAt("query.position", err)
			}
			drawing = request.OneMap(chord, position)
			layout := neck.Layout{Kind: neck.LayoutKind(in.Layout), From: in.From, Low: in.Low, High: in.High}
			switch {
			case in.Whole:
				drawing = request.WholeNeck(chord)
			case layout.Kind != "" && layout.Kind != neck.AllTones:
				if drawing, err = request.MapInLayout(chord, position, layout); err != nil {
					return nil, invalidAt("query.layout", err)
				}
			}
			name = fmt.Sprintf("%s, %s in %s", c.Title, chord.Symbol(), position.ID())
		}
		out := &file{Type: "application/pdf"}
		if in.As == "svg" {
			out.Type, out.Body = "image/svg+xml", drawing.SVG()
		} else {
			out.Body = drawing.PDF()
		}
		out.Disposition = attached(name + "." + in.As)
		return out, nil
	})
}
