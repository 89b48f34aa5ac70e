package api

import (
	"context"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/store"
)

// KeptLick is a lick of the library.
type KeptLick struct {
	Kept
	Lick document.Lick `json:"lick"`
}

func keptLick(d store.Document, l document.Lick) KeptLick { return KeptLick{Kept: keptOf(d), Lick: l} }

func (s *server) registerLicks(api huma.API) {
	huma.Get(api, "/api/licks", func(context.Context, *struct{}) (*body[[]KeptLick], error) {
		documents, err := s.store.List(store.Lick, 0)
		if err != nil {
			return nil, err
		}
		licks, err := unpackAll(documents, keptLick)
		return &body[[]KeptLick]{licks}, err
	})
	huma.Post(api, "/api/licks", func(_ context.Context, in *body[document.Lick]) (*body[KeptLick], error) {
		d, err := KeepLick(s.store, in.Body)
		if err != nil {
			return nil, err
		}
		return &body[KeptLick]{keptLick(d, in.Body)}, nil
	}, created)
	huma.Get(api, "/api/licks/{id}", func(_ context.Context, in *byID) (*body[KeptLick], error) {
		d, err := s.store.Read(store.Lick, in.ID)
		if err != nil {
			return nil, unkept("lick", in.ID, err)
		}
		lick, err := unpack[document.Lick](d)
		return &body[KeptLick]{keptLick(d, lick)}, err
	})
	huma.Delete(api, "/api/licks/{id}", func(_ context.Context, in *deletion) (*struct{}, error) {
		return nil, unkept("lick", in.ID, s.store.Delete(store.Lick, in.ID, in.Version))
	})
	huma.Post(api, "/api/licks/{id}/restore", func(_ context.Context, in *byID) (*body[KeptLick], error) {
		d, err := s.store.Restore(store.Lick, in.ID)
		if err != nil {
			return nil, unkept("lick", in.ID, err)
		}
		lick, err := unpack[document.Lick](d)
		return &body[KeptLick]{keptLick(d, lick)}, err
	})
}

// KeepLick checks a lick and keeps it. Its error is a problem.
func KeepLick(st *store.Store, d document.Lick) (store.Document, error) {
	lick, err := d.Core()
	if err != nil {
		return store.Document{}, invalid("", err)
	}
	return st.Create(store.Document{Kind: store.Lick, Name: strings.TrimSpace(lick.Name), Body: pack(document.LickOf(lick))})
}
