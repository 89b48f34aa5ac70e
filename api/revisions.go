package api

import (
	"context"
	"fmt"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/format/document"
	"undaris/store"
)

// ChartRevision is one version of a chart.
type ChartRevision struct {
	Version int       `json:"version"`
	Title   string    `json:"title"`
	Saved   time.Time `json:"saved"`
	Current bool      `json:"current"`
	Changes []string  `json:"changes" doc:"What this version changed of the one before it"`
}

type restoreRevision struct {
	ID       uint `path:"id"`
	Revision int  `path:"revision" minimum:"1"`
	Body     struct {
		Version int `json:"version" minimum:"1" doc:"The present version, which the restored one replaces"`
	}
}

func (s *server) registerRevisions(api huma.API) {
	huma.Get(api, "/api/charts/{id}/revisions", func(_ context.Context, in *byID) (*body[[]ChartRevision], error) {
		all, err := s.chartRevisions(in.ID)
		if err != nil {
			return nil, unkept("chart", in.ID, err)
		}
		return &body[[]ChartRevision]{all}, nil
	})
	huma.Post(api, "/api/charts/{id}/revisions/{revision}/restore", func(_ context.Context, in *restoreRevision) (*body[KeptChart], error) {
		r, err := s.store.Revision(in.ID, in.Revision)
		if err != nil {
			return nil, unkept(fmt.Sprintf("version %d of the chart", in.Revision), in.ID, err)
		}
		d, err := s.store.Replace(store.Chart, in.ID, in.Body.Version, r.Name, r.Body)
		if err != nil {
			return nil, unkept("chart", in.ID, err)
		}
		return s.keptChart(d)
	})
}

// chartRevisions lists the versions of a chart, newest first, each with what it
// changed.
func (s *server) chartRevisions(id uint) ([]ChartRevision, error) {
	d, err := s.store.Read(store.Chart, id)
	if err != nil {
		return nil, err
	}
	earlier, err := s.store.Revisions(id)
	if err != nil {
		return nil, err
	}
	now, err := chartOf(d)
	if err != nil {
		return nil, err
	}
	all := []ChartRevision{{Version: d.Version, Title: d.Name, Saved: d.UpdatedAt, Current: true}}
	for _, r := range earlier {
		before, err := chartOf(store.Document{ID: id, Kind: store.Chart, Body: r.Body})
		if err != nil {
			return nil, err
		}
		all[len(all)-1].Changes = chart.Differences(before, now)
		all = append(all, ChartRevision{Version: r.Version, Title: r.Name, Saved: r.SavedAt})
		now = before
	}
	all[len(all)-1].Changes = []string{"the chart as it was first kept"}
	return all, nil
}

func chartOf(d store.Document) (chart.Chart, error) {
	doc, err := unpack[document.Chart](d)
	if err != nil {
		return chart.Chart{}, err
	}
	return doc.Core()
}
