package api

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/store"
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

type replaceBand struct {
	ID   uint `path:"id"`
	Body struct {
		Band document.Band `json:"band"`
		Replacing
	}
}

// registerBands serves the bands of the tunes: at most one for each.
func (s *server) registerBands(api huma.API) {
	huma.Get(api, "/api/bands", func(_ context.Context, in *linesOf) (*body[[]KeptBand], error) {
		all, err := s.store.List(store.Band, in.ChartID)
		if err != nil {
			return nil, err
		}
		kept := make([]KeptBand, len(all))
		for n, d := range all {
			kept[n] = keptBand(d)
		}
		return &body[[]KeptBand]{kept}, nil
	})
	huma.Post(api, "/api/bands", func(_ context.Context, in *body[KeepBand]) (*body[KeptBand], error) {
		if _, err := keptAs[document.Chart](s, store.Chart, "chartId", in.Body.ChartID); err != nil {
			return nil, err
		}
		d, err := PutBand(s.store, in.Body)
		if err != nil {
			return nil, err
		}
		return &body[KeptBand]{keptBand(d)}, nil
	}, created)
	huma.Get(api, "/api/bands/{id}", func(_ context.Context, in *byID) (*body[KeptBand], error) {
		d, err := s.store.Read(store.Band, in.ID)
		if err != nil {
			return nil, storeProblem("band", in.ID, err)
		}
		return &body[KeptBand]{keptBand(d)}, nil
	})
	huma.Put(api, "/api/bands/{id}", func(_ context.Context, in *replaceBand) (*body[KeptBand], error) {
		if err := in.Body.Band.Check(); err != nil {
			return nil, invalid("band", err)
		}
		save := in.Body.save(bandDocument(in.Body.Band))
		if before, err := s.store.Read(store.Band, in.ID); err == nil && keptBand(before).Damaged != "" {
			save.KeepBefore = true // what cannot be read is not written over
		}
		d, err := s.store.Replace(store.Band, in.ID, save)
		if err != nil {
			return nil, storeProblem("band", in.ID, err)
		}
		return &body[KeptBand]{keptBand(d)}, nil
	})
	huma.Post(api, "/api/bands/{id}/restore", func(_ context.Context, in *byID) (*body[KeptBand], error) {
		d, err := s.store.Restore(store.Band, in.ID)
		if err != nil {
			return nil, storeProblem("band", in.ID, err)
		}
		return &body[KeptBand]{keptBand(d)}, nil
	})
}

// PutBand checks a band and keeps it for its tune. Its error is a problem.
func PutBand(st *store.Store, k KeepBand) (store.Document, error) {
	if err := k.Band.Check(); err != nil {
		return store.Document{}, invalid("band", err)
	}
	d := bandDocument(k.Band)
	d.ChartID = &k.ChartID
	kept, err := st.Create(d)
	if errors.Is(err, store.ErrExists) {
		return store.Document{}, huma.Error412PreconditionFailed("the band of this tune has been kept in another window in between")
	}
	return kept, err
}

func bandDocument(b document.Band) store.Document {
	return store.Document{Kind: store.Band, Name: "band", Body: pack(b)}
}

// keptBand is a band as kept; one that cannot be read is listed as damaged, and the plain one
// stands in its place.
func keptBand(d store.Document) KeptBand {
	kept := KeptBand{Kept: keptOf(d), KeepBand: KeepBand{ChartID: *d.ChartID}}
	b, err := unpack[document.Band](d)
	if err == nil {
		err = b.Check()
	}
	if err != nil {
		kept.Damaged = err.Error()
		return kept
	}
	kept.Band = b
	return kept
}
