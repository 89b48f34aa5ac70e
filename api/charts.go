package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

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
	Title string       `json:"title"`
	Key   document.Key `json:"key"`
	Tempo int          `json:"tempo"`
	Feel  string       `json:"feel"`
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
		documents, err := s.store.List(store.Chart, 0)
		if err != nil {
			return nil, err
		}
		entries, err := unpackAll(documents, func(d store.Document, c document.Chart) ChartEntry {
			return ChartEntry{Kept: keptOf(d), Title: c.Title, Key: c.Key, Tempo: c.Tempo, Feel: c.Feel}
		})
		return &body[[]ChartEntry]{entries}, err
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
	doc, err := unpack[document.Chart](d)
	if err != nil {
		return nil, err
	}
	c, err := doc.Core()
	if err != nil {
		return nil, err
	}
	return &body[KeptChart]{KeptChart{Kept: keptOf(d), ReadChart: readChart(c)}}, nil
}
