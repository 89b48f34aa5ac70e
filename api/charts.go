package api

import (
	"context"
	"fmt"
	"mime"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/format/chartfile"
	"undaris/format/document"
	"undaris/store"
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
	ChartSummary
	// Practised is left out for never.
	Practised *time.Time `json:"practised,omitempty" doc:"When it was last played"`
}

// ChartSummary is what a list shows of a chart beside its title; it is kept with the
// chart, so that a list reads no bodies.
type ChartSummary struct {
	Tags   []string     `json:"tags"`
	Key    document.Key `json:"key"`
	Meter  string       `json:"meter"`
	Tempo  int          `json:"tempo"`
	Feel   string       `json:"feel"`
	Bars   int          `json:"bars" doc:"Of one chorus, repeats played out"`
	Scheme string       `json:"scheme" doc:"The scheme its bars follow, empty for none"`
}

// exportChart names the format a chart is written in.
type exportChart struct {
	ID     uint   `path:"id"`
	Format string `path:"format" doc:"grid, chordpro, musicxml, mxl or midi"`
}

// file is a response that the browser keeps as a file.
type file struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// Replacing names the version that a save replaces.
type Replacing struct {
	Version int `json:"version" minimum:"1" doc:"The version that this one replaces"`
	// KeepBefore is for saves over what someone else has written.
	KeepBefore bool `json:"keepBefore,omitempty" doc:"Keep the version that is replaced, even if it is of the same sitting"`
}

// save is a document as it replaces a version.
func (r Replacing) save(d store.Document) store.Save {
	return store.Save{Version: r.Version, Name: d.Name, Body: d.Body, Summary: d.Summary, KeepBefore: r.KeepBefore}
}

type replaceChart struct {
	ID   uint `path:"id"`
	Body struct {
		Replacing
		Chart document.Chart `json:"chart"`
	}
}

func (s *server) registerCharts(api huma.API) {
	huma.Get(api, "/api/charts", func(context.Context, *struct{}) (*body[[]ChartEntry], error) {
		return s.chartEntries(s.store.Entries(store.Chart, 0))
	})
	huma.Get(api, "/api/charts/deleted", func(context.Context, *struct{}) (*body[[]ChartEntry], error) {
		return s.chartEntries(s.store.Deleted(store.Chart))
	})
	huma.Post(api, "/api/charts", func(_ context.Context, in *body[document.Chart]) (*body[KeptChart], error) {
		d, err := KeepChart(s.store, in.Body)
		if err != nil {
			return nil, err
		}
		return s.keptChart(d)
	}, created)
	huma.Get(api, "/api/charts/{id}", func(_ context.Context, in *byID) (*body[KeptChart], error) {
		d, err := s.store.Read(store.Chart, in.ID)
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		return s.keptChart(d)
	})
	huma.Put(api, "/api/charts/{id}", func(_ context.Context, in *replaceChart) (*body[KeptChart], error) {
		d, err := chartDocument(in.Body.Chart)
		if err != nil {
			return nil, invalid("chart", err)
		}
		d, err = s.store.Replace(store.Chart, in.ID, in.Body.save(d))
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		return s.keptChart(d)
	})
	huma.Post(api, "/api/charts/{id}/copy", func(_ context.Context, in *byID) (*body[KeptChart], error) {
		d, err := s.store.Read(store.Chart, in.ID)
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		doc, err := unpack[document.Chart](d)
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		doc.Title = copyTitle(doc.Title)
		copied, err := KeepChart(s.store, doc)
		if err != nil {
			return nil, err
		}
		return s.keptChart(copied)
	}, created)
	huma.Post(api, "/api/charts/{id}/practised", func(_ context.Context, in *byID) (*struct{}, error) {
		return nil, storeProblem("chart", in.ID, s.store.Practised(store.Chart, in.ID, time.Now()))
	})
	huma.Get(api, "/api/charts/{id}/export/{format}", func(_ context.Context, in *exportChart) (*file, error) {
		format, ok := chartfile.Find(in.Format)
		if !ok {
			return nil, huma.Error404NotFound(fmt.Sprintf("charts are not written as %q; there are %s", in.Format, exportNames()))
		}
		d, err := s.store.Read(store.Chart, in.ID)
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		c, err := chartOf(d)
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		return &file{Type: format.Type, Disposition: attached(c.Title + format.Extension), Body: format.Write(c)}, nil
	})
	huma.Delete(api, "/api/charts/{id}", func(_ context.Context, in *deletion) (*struct{}, error) {
		return nil, storeProblem("chart", in.ID, s.store.Delete(store.Chart, in.ID, in.Version))
	})
	huma.Post(api, "/api/charts/{id}/restore", func(_ context.Context, in *byID) (*body[KeptChart], error) {
		d, err := s.store.Restore(store.Chart, in.ID)
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		return s.keptChart(d)
	})
}

func (s *server) chartEntries(documents []store.Document, err error) (*body[[]ChartEntry], error) {
	if err != nil {
		return nil, err
	}
	all, err := listed(s, documents, func(d store.Document) (ChartSummary, []string, error) {
		c, mended, err := chartAsMended(d)
		return chartSummary(c), mended, err
	})
	entries := make([]ChartEntry, len(all))
	for n, one := range all {
		entries[n] = ChartEntry{Kept: one.kept, Title: documents[n].Name, ChartSummary: one.summary, Practised: documents[n].PractisedAt}
		if one.summary.Tags == nil {
			entries[n].Tags = []string{}
		}
	}
	return &body[[]ChartEntry]{entries}, err
}

func chartSummary(c chart.Chart) ChartSummary {
	if len(c.Bars) == 0 {
		return ChartSummary{}
	}
	doc := document.ChartOf(c)
	return ChartSummary{
		Tags: append([]string{}, doc.Tags...), Key: doc.Key, Meter: doc.Meter, Tempo: doc.Tempo, Feel: doc.Feel,
		Bars: len(c.PlayedBars()), Scheme: c.SchemeOf(),
	}
}

// copyTitle names a copy, within the length a title may have.
func copyTitle(title string) string {
	const mark = ", copy"
	runes := []rune(title)
	return strings.TrimSpace(string(runes[:min(len(runes), chart.MaxTitle-len(mark))])) + mark
}

// attached asks the browser to keep a response as a file of this name.
func attached(name string) string {
	return mime.FormatMediaType("attachment", map[string]string{"filename": fileName(name)})
}

// fileName is the title as a file may be called on any machine.
func fileName(title string) string {
	name := strings.Map(func(c rune) rune {
		if c < ' ' || strings.ContainsRune(`<>:"/\|?*`, c) {
			return '-'
		}
		return c
	}, title)
	return strings.Trim(name, " .")
}

func exportNames() string {
	all := make([]string, len(chartfile.Formats))
	for n, f := range chartfile.Formats {
		all[n] = f.Name
	}
	return strings.Join(all, ", ")
}

func created(o *huma.Operation) { o.DefaultStatus = http.StatusCreated }

// KeepChart checks a chart and keeps it. Its error is a problem.
func KeepChart(st *store.Store, c document.Chart) (store.Document, error) {
	d, err := chartDocument(c)
	if err != nil {
		return store.Document{}, invalid("", err)
	}
	return st.Create(d)
}

// chartDocument is a chart as it is kept: written anew from what was read, so that only
// canonical symbols are stored.
func chartDocument(doc document.Chart) (store.Document, error) {
	c, err := doc.Core()
	if err != nil {
		return store.Document{}, err
	}
	c.Title = strings.TrimSpace(c.Title)
	return store.Document{Kind: store.Chart, Name: c.Title, Body: pack(document.ChartOf(c)), Summary: pack(chartSummary(c))}, nil
}

// chartOf reads the chart of a document. Its error is a *damagedError.
func chartOf(d store.Document) (chart.Chart, error) {
	c, _, err := chartAsMended(d)
	return c, err
}

// chartAsMended is chartOf with what of it no rule of today allows, and what stands in
// its place.
func chartAsMended(d store.Document) (chart.Chart, []string, error) {
	doc, err := unpack[document.Chart](d)
	if err != nil {
		return chart.Chart{}, nil, err
	}
	c, err := doc.Core()
	if err == nil {
		return c, nil, nil
	}
	mended, said := doc.Mended()
	if c, err = mended.Core(); err != nil {
		return chart.Chart{}, nil, &damagedError{d.Kind, d.ID, err}
	}
	return c, said, nil
}

func (s *server) keptChart(d store.Document) (*body[KeptChart], error) {
	c, mended, err := chartAsMended(d)
	if err != nil {
		return nil, storeProblem("chart", d.ID, err)
	}
	kept := KeptChart{Kept: keptOf(d), ReadChart: readChart(c)}
	kept.Mended = mended
	return &body[KeptChart]{kept}, nil
}
