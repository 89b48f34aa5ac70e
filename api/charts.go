package api

import (
	"context"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/format/chartfile"
	"undaris/format/document"
	"undaris/library/documents"
)

// KeptChart is a chart of the library.
type KeptChart struct {
	Kept
	ReadChart
}

// ChartEntry is a chart in the list of the library.
type ChartEntry struct {
	Kept
	Title string `json:"title"`
	documents.ChartSummary
	// Practised is left out for never.
	Practised *time.Time `json:"practised,omitempty" doc:"When it was last played"`
}

// ReplaceChart is a chart in the place of a version.
type ReplaceChart struct {
	Replacing
	Chart document.Chart `json:"chart"`
}

func (r ReplaceChart) content() document.Chart { return r.Chart }

func (s *server) registerCharts(api huma.API) {
	charts := resource[document.Chart, documents.ChartSummary, KeptChart, ChartEntry]{
		path: "charts", kind: documents.Charts, view: keptChart, texts: chartTexts, export: exportChart, formats: chartfile.Names(),
		entry: func(e documents.Entry[documents.ChartSummary]) ChartEntry {
			entry := ChartEntry{Kept: keptOf(e.Info), Title: e.Name, ChartSummary: e.Summary, Practised: e.Practised}
			entry.Damaged, entry.Mended = e.Damaged, e.Mended
			if entry.Tags == nil {
				entry.Tags = []string{}
			}
			return entry
		},
	}
	serve(api, s, charts)
	serveList(api, s, charts)
	serveReplace[document.Chart, documents.ChartSummary, KeptChart, ChartEntry, ReplaceChart](api, s, charts, "chart")
	creates(api, "/api/charts", func(ctx context.Context, in *creation[document.Chart]) (*tagged[KeptChart], error) {
		item, err := documents.Charts.CreateOnce(ctx, s.library, in.UID, in.Body, 0)
		if err != nil {
			return nil, saveProblem("chart", "", 0, err)
		}
		view, err := keptChart(ctx, item)
		return &tagged[KeptChart]{ETag: etag(item.Version), Body: view}, err
	}, described("charts", "Keep a new chart"))
	huma.Post(api, "/api/charts/{id}/practised", func(ctx context.Context, in *byID) (*struct{}, error) {
		return nil, storeProblem("chart", in.ID, documents.Charts.Practised(ctx, s.library, in.ID))
	}, described("charts", "Note that a chart was played now"))
}

func keptChart(_ context.Context, item documents.Item[document.Chart]) (KeptChart, error) {
	c, err := item.Body.Core()
	if err != nil {
		return KeptChart{}, err
	}
	kept := KeptChart{Kept: keptOf(item.Info), ReadChart: readChart(c)}
	kept.Mended = item.Mended
	return kept, nil
}

// chartTexts say what each version of a chart changed of the one before.
func chartTexts(all []documents.Revision[document.Chart]) []string {
	texts := make([]string, len(all))
	for n, r := range all {
		if n == len(all)-1 {
			texts[n] = "the chart as it was first kept"
			continue
		}
		if r.Damaged != "" || all[n+1].Damaged != "" {
			texts[n] = r.Name
			continue
		}
		before, err := all[n+1].Body.Core()
		after, second := r.Body.Core()
		if err != nil || second != nil {
			continue
		}
		if texts[n] = strings.Join(chart.Differences(before, after), "; "); texts[n] == "" {
			texts[n] = "saved again, nothing changed"
		}
	}
	return texts
}

func exportChart(_ context.Context, item documents.Item[document.Chart], name string) (*file, error) {
	format, err := chartfile.Find(name)
	if err != nil {
		return nil, err
	}
	c, err := item.Body.Core()
	if err != nil {
		return nil, invalid("chart", err)
	}
	return &file{Type: format.Type, Disposition: attached(c.Title + format.Extension), Body: format.Write(c)}, nil
}
