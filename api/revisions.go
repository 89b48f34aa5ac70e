package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/store"
)

// ChartRevision is one version of a chart.
type ChartRevision struct {
	Revision
	Title   string   `json:"title"`
	Changes []string `json:"changes" doc:"What this version changed of the one before it"`
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
			return nil, storeProblem("chart", in.ID, err)
		}
		return &body[[]ChartRevision]{all}, nil
	})
	huma.Post(api, "/api/charts/{id}/revisions/{revision}/restore", func(_ context.Context, in *restoreRevision) (*body[KeptChart], error) {
		r, err := s.store.Revision(in.ID, in.Revision)
		if err != nil {
			return nil, storeProblem(fmt.Sprintf("version %d of the chart", in.Revision), in.ID, err)
		}
		d, err := s.store.Replace(store.Chart, in.ID, store.Save{Version: in.Body.Version, Name: r.Name, Body: r.Body, KeepBefore: true})
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		return s.keptChart(d)
	})
}

// chartRevisions lists the versions of a chart, newest first, each with what it
// changed. One that cannot be read is listed as damaged.
func (s *server) chartRevisions(id uint) ([]ChartRevision, error) {
	d, versions, err := s.revisionsOf(store.Chart, id)
	if err != nil {
		return nil, err
	}
	all := make([]ChartRevision, len(versions))
	charts := make([]*chart.Chart, len(versions))
	for n, r := range versions {
		all[n] = ChartRevision{Revision: revisionOf(r, d.Version), Title: r.Name, Changes: []string{}}
		c, err := chartOf(store.Document{ID: id, Kind: store.Chart, Body: r.Body})
		if err != nil {
			all[n].Damaged = err.Error()
			continue
		}
		charts[n] = &c
	}
	for n := range all {
		switch {
		case n == len(all)-1:
			all[n].Changes = []string{"the chart as it was first kept"}
		case charts[n] != nil && charts[n+1] != nil:
			all[n].Changes = chart.Differences(*charts[n+1], *charts[n])
		}
	}
	return all, nil
}
