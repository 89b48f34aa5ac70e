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
	Title  string       `json:"title"`
	Tags   []string     `json:"tags"`
	Key    document.Key `json:"key"`
	Meter  string       `json:"meter"`
	Tempo  int          `json:"tempo"`
	Feel   string       `json:"feel"`
	Bars   int          `json:"bars" doc:"Of one chorus, repeats played out"`
	Scheme string       `json:"scheme" doc:"The scheme its bars follow, empty for none"`
	// Practised is left out for never.
	Practised *time.Time `json:"practised,omitempty" doc:"When it was last played"`
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

type replaceChart struct {
	ID   uint `path:"id"`
	Body struct {
		Version int            `json:"version" minimum:"1" doc:"The version that this one replaces"`
		Chart   document.Chart `json:"chart"`
	}
}

func (s *server) registerCharts(api huma.API) {
	huma.Get(api, "/api/charts", func(context.Context, *struct{}) (*body[[]ChartEntry], error) {
		return chartEntries(s.store.List(store.Chart, 0))
	})
	huma.Get(api, "/api/charts/deleted", func(context.Context, *struct{}) (*body[[]ChartEntry], error) {
		return chartEntries(s.store.Deleted(store.Chart))
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
			return nil, unkept("chart", in.ID, err)
		}
		return s.keptChart(d)
	})
	huma.Put(api, "/api/charts/{id}", func(_ context.Context, in *replaceChart) (*body[KeptChart], error) {
		name, content, err := chartBody(in.Body.Chart)
		if err != nil {
			return nil, invalid("chart", err)
		}
		d, err := s.store.Replace(store.Chart, in.ID, in.Body.Version, name, content)
		if err != nil {
			return nil, unkept("chart", in.ID, err)
		}
		return s.keptChart(d)
	})
	huma.Post(api, "/api/charts/{id}/copy", func(_ context.Context, in *byID) (*body[KeptChart], error) {
		d, err := s.store.Read(store.Chart, in.ID)
		if err != nil {
			return nil, unkept("chart", in.ID, err)
		}
		doc, err := unpack[document.Chart](d)
		if err != nil {
			return nil, err
		}
		doc.Title = copyTitle(doc.Title)
		copied, err := KeepChart(s.store, doc)
		if err != nil {
			return nil, err
		}
		return s.keptChart(copied)
	}, created)
	huma.Post(api, "/api/charts/{id}/practised", func(_ context.Context, in *byID) (*struct{}, error) {
		return nil, unkept("chart", in.ID, s.store.Practised(store.Chart, in.ID, time.Now()))
	})
	huma.Get(api, "/api/charts/{id}/export/{format}", func(_ context.Context, in *exportChart) (*file, error) {
		format, ok := chartfile.Find(in.Format)
		if !ok {
			return nil, huma.Error404NotFound(fmt.Sprintf("charts are not written as %q; there are %s", in.Format, exportNames()))
		}
		d, err := s.store.Read(store.Chart, in.ID)
		if err != nil {
			return nil, unkept("chart", in.ID, err)
		}
		c, err := chartOf(d)
		if err != nil {
			return nil, err
		}
		return &file{Type: format.Type, Disposition: attached(c.Title + format.Extension), Body: format.Write(c)}, nil
	})
	huma.Delete(api, "/api/charts/{id}", func(_ context.Context, in *deletion) (*struct{}, error) {
		return nil, unkept("chart", in.ID, s.store.Delete(store.Chart, in.ID, in.Version))
	})
	huma.Post(api, "/api/charts/{id}/restore", func(_ context.Context, in *byID) (*body[KeptChart], error) {
		d, err := s.store.Restore(store.Chart, in.ID)
		if err != nil {
			return nil, unkept("chart", in.ID, err)
		}
		return s.keptChart(d)
	})
}

func chartEntries(documents []store.Document, err error) (*body[[]ChartEntry], error) {
	if err != nil {
		return nil, err
	}
	entries := make([]ChartEntry, len(documents))
	for n, d := range documents {
		c, err := chartOf(d)
		if err != nil {
			return nil, err
		}
		doc := document.ChartOf(c)
		entries[n] = ChartEntry{
			Kept: keptOf(d), Title: doc.Title, Tags: append([]string{}, doc.Tags...), Key: doc.Key, Meter: doc.Meter, Tempo: doc.Tempo, Feel: doc.Feel,
			Bars: len(c.Played()), Scheme: c.SchemeOf(), Practised: d.PractisedAt,
		}
	}
	return &body[[]ChartEntry]{entries}, nil
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
	name, content, err := chartBody(c)
	if err != nil {
		return store.Document{}, invalid("", err)
	}
	return st.Create(store.Document{Kind: store.Chart, Name: name, Body: content})
}

// chartBody is the name and body under which a chart is kept: written anew from
// what was read, so that only canonical symbols are stored.
func chartBody(d document.Chart) (string, []byte, error) {
	c, err := d.Core()
	if err != nil {
		return "", nil, err
	}
	c.Title = strings.TrimSpace(c.Title)
	return c.Title, pack(document.ChartOf(c)), nil
}

func (s *server) keptChart(d store.Document) (*body[KeptChart], error) {
	c, err := chartOf(d)
	if err != nil {
		return nil, err
	}
	return &body[KeptChart]{KeptChart{Kept: keptOf(d), ReadChart: readChart(c)}}, nil
}
