package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/library/documents"
)

// KeepBand asks for the band of a tune to be kept.
type KeepBand struct {
	ChartID uint          `json:"chartId"`
	Band    document.Band `json:"band"`
}

// KeptBand is how the band plays a tune, as kept.
type KeptBand struct {
	Kept
	KeepBand
}

// ReplaceBand is a band in the place of a version.
type ReplaceBand struct {
	Replacing
	Band document.Band `json:"band"`
}

func (r ReplaceBand) content() document.Band { return r.Band }

// registerBands serves the bands of the tunes: at most one for each.
func (s *server) registerBands(api huma.API) {
	bands := resource[document.Band, struct{}, KeptBand, KeptBand]{
		path: "bands", kind: documents.Bands, view: keptBand, single: true,
		texts: func(all []documents.Revision[document.Band]) []string {
			return each(all, func(r documents.Revision[document.Band]) string {
				return counted(len(r.Body.Routines), "routine", "routines") + " of your own"
			})
		},
	}
	serve(api, s, bands)
	serveReplace[document.Band, struct{}, KeptBand, KeptBand, ReplaceBand](api, s, bands, "band")
	gets(api, "/api/bands", func(ctx context.Context, in *ofChart) (*body[[]KeptBand], error) {
		items, faults, err := documents.Bands.ReadAllWithDamaged(ctx, s.library, in.ChartID)
		all := make([]KeptBand, len(items))
		for n, item := range items {
			// In the place of one that cannot be read stands the plain one.
			all[n] = KeptBand{Kept: keptOf(item.Info), KeepBand: KeepBand{ChartID: item.ChartID, Band: item.Body}}
			if fault := faults[item.ID]; fault != nil {
				all[n].Damaged = fault.Error()
			}
		}
		return &body[[]KeptBand]{all}, err
	}, described("bands", "List the bands"))
	creates(api, "/api/bands", func(ctx context.Context, in *creation[KeepBand]) (*tagged[KeptBand], error) {
		if err := s.needsChart(ctx, in.Body.ChartID); err != nil {
			return nil, err
		}
		item, err := documents.Bands.CreateOnce(ctx, s.library, in.UID, in.Body.Band, in.Body.ChartID)
		if err != nil {
			return nil, saveProblem("band", "band", 0, err)
		}
		view, err := keptBand(ctx, item)
		return &tagged[KeptBand]{ETag: etag(item.Version), Body: view}, err
	}, described("bands", "Keep the band of a tune"))
}

func keptBand(_ context.Context, item documents.Item[document.Band]) (KeptBand, error) {
	return KeptBand{Kept: keptOf(item.Info), KeepBand: KeepBand{ChartID: item.ChartID, Band: item.Body}}, nil
}
