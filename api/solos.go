package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/format/document"
	"undaris/format/solofile"
	"undaris/library/documents"
)

// KeepSolo asks for a solo to be kept.
type KeepSolo struct {
	document.SoloDocument
	ChartID uint `json:"chartId"`
}

// KeptSolo is a solo of the library.
type KeptSolo struct {
	Kept
	KeepSolo
}

// SoloEntry is a solo in the list of the library.
type SoloEntry struct {
	Kept
	ChartID uint   `json:"chartId"`
	Name    string `json:"name"`
	documents.SoloSummary
	Text string `json:"text" doc:"How much of it there is, in words"`
}

// ReplaceSolo is a solo in the place of a version.
type ReplaceSolo struct {
	Replacing
	document.SoloDocument
}

func (r ReplaceSolo) content() document.SoloDocument { return r.SoloDocument }

func (s *server) registerSolos(api huma.API) {
	solos := resource[document.SoloDocument, documents.SoloSummary, KeptSolo, SoloEntry]{
		path: "solos", kind: documents.Solos, view: keptSolo, export: s.exportSolo, formats: solofile.Names(),
		entry: func(e documents.Entry[documents.SoloSummary]) SoloEntry {
			entry := SoloEntry{Kept: keptOf(e.Info), ChartID: e.ChartID, Name: e.Name, SoloSummary: e.Summary, Text: soloText(e.Summary)}
			entry.Damaged = e.Damaged
			return entry
		},
		texts: func(all []documents.Revision[document.SoloDocument]) []string {
			return each(all, func(r documents.Revision[document.SoloDocument]) string {
				return r.Name + ": " + soloText(documents.SummarizeSolo(r.Body))
			})
		},
	}
	serve(api, s, solos)
	serveList(api, s, solos)
	serveReplace[document.SoloDocument, documents.SoloSummary, KeptSolo, SoloEntry, ReplaceSolo](api, s, solos, "")
	creates(api, "/api/solos", func(ctx context.Context, in *creation[KeepSolo]) (*tagged[KeptSolo], error) {
		if err := s.needsChart(ctx, in.Body.ChartID); err != nil {
			return nil, err
		}
		item, err := documents.Solos.CreateOnce(ctx, s.library, in.UID, in.Body.SoloDocument, in.Body.ChartID)
		if err != nil {
			return nil, saveProblem("solo", "", 0, err)
		}
		view, err := keptSolo(ctx, item)
		return &tagged[KeptSolo]{ETag: etag(item.Version), Body: view}, err
	}, described("solos", "Keep a new solo over a tune"))
}

// soloText says how much of a solo there is.
func soloText(s documents.SoloSummary) string {
	return counted(s.Choruses, "chorus", "choruses") + ", " + counted(s.Notes, "note", "notes")
}

func keptSolo(_ context.Context, item documents.Item[document.SoloDocument]) (KeptSolo, error) {
	return KeptSolo{Kept: keptOf(item.Info), KeepSolo: KeepSolo{ChartID: item.ChartID, SoloDocument: item.Body}}, nil
}

// exportSolo writes a kept solo as a file, over its tune as it is now: what is heard of it,
// each chorus at its stage.
func (s *server) exportSolo(ctx context.Context, item documents.Item[document.SoloDocument], name string) (*file, error) {
	format, err := solofile.Find(name)
	if err != nil {
		return nil, err
	}
	kept, err := s.library.SoloNow(ctx, item)
	if err != nil {
		return nil, invalid("solo", err)
	}
	on, line, err := PlayContext{Chart: kept.Chart, Hands: kept.Hands}.joined(kept.Solo.Choruses)
	if err != nil {
		return nil, err
	}
	if len(line.Events) == 0 {
		return nil, invalid("", &chart.FieldError{Field: "solo", Detail: "the solo has no note that is heard: lay a block, or unmute one"})
	}
	out := solofile.Solo{Name: kept.Solo.Name, Chart: on.chart, Instrument: on.instrument, Line: line, Choruses: len(kept.Solo.Choruses)}
	return &file{Type: format.Type, Disposition: attached(kept.Solo.Name + format.Extension), Body: format.Write(out)}, nil
}
