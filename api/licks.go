package api

import (
	"context"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/lick"
	"undaris/format/document"
	"undaris/format/lickfile"
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
		licks := make([]KeptLick, len(documents))
		for n, d := range documents {
			chosen, err := unpack[document.Lick](d)
			licks[n] = keptLick(d, chosen)
			if err == nil {
				_, err = chosen.Core()
			}
			if err != nil {
				licks[n].Damaged, licks[n].Lick = err.Error(), document.Lick{Name: d.Name, Phrase: document.Phrase{Events: []document.Event{}}}
			}
		}
		return &body[[]KeptLick]{licks}, nil
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
			return nil, storeProblem("lick", in.ID, err)
		}
		chosen, err := unpack[document.Lick](d)
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		return &body[KeptLick]{keptLick(d, chosen)}, nil
	})
	huma.Put(api, "/api/licks/{id}", func(_ context.Context, in *replaceLick) (*body[KeptLick], error) {
		name, content, doc, err := lickBody(in.Body.Lick)
		if err != nil {
			return nil, invalid("lick", err)
		}
		d, err := s.store.Replace(store.Lick, in.ID, in.Body.save(store.Document{Name: name, Body: content}))
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		return &body[KeptLick]{keptLick(d, doc)}, nil
	})
	huma.Get(api, "/api/licks/{id}/export/{format}", func(_ context.Context, in *exportLick) (*file, error) {
		format, ok := lickfile.Find(in.Format)
		if !ok {
			return nil, huma.Error404NotFound(fmt.Sprintf("licks are not written as %q; there are %s", in.Format, lickfile.Names()))
		}
		d, err := s.store.Read(store.Lick, in.ID)
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		l, err := lickOf(d)
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		return &file{Type: format.Type, Disposition: attached(l.Name + format.Extension), Body: format.Write(l)}, nil
	})
	huma.Get(api, "/api/licks/{id}/revisions", func(_ context.Context, in *byID) (*body[[]LickRevision], error) {
		all, err := s.lickRevisions(in.ID)
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		return &body[[]LickRevision]{all}, nil
	})
	huma.Post(api, "/api/licks/{id}/revisions/{revision}/restore", func(_ context.Context, in *restoreRevision) (*body[KeptLick], error) {
		r, err := s.store.Revision(in.ID, in.Revision)
		if err != nil {
			return nil, storeProblem(fmt.Sprintf("version %d of the lick", in.Revision), in.ID, err)
		}
		d, err := s.store.Replace(store.Lick, in.ID, store.Save{Version: in.Body.Version, Name: r.Name, Body: r.Body, KeepBefore: true})
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		doc, err := unpack[document.Lick](d)
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		return &body[KeptLick]{keptLick(d, doc)}, nil
	})
	huma.Delete(api, "/api/licks/{id}", func(_ context.Context, in *deletion) (*struct{}, error) {
		return nil, storeProblem("lick", in.ID, s.store.Delete(store.Lick, in.ID, in.Version))
	})
	huma.Post(api, "/api/licks/{id}/restore", func(_ context.Context, in *byID) (*body[KeptLick], error) {
		d, err := s.store.Restore(store.Lick, in.ID)
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		chosen, err := unpack[document.Lick](d)
		if err != nil {
			return nil, storeProblem("lick", in.ID, err)
		}
		return &body[KeptLick]{keptLick(d, chosen)}, nil
	})
}

// LickRevision is a version of a lick.
type LickRevision struct {
	Revision
	Lick document.Lick `json:"lick"`
}

// lickRevisions lists the versions of a lick, newest first.
func (s *server) lickRevisions(id uint) ([]LickRevision, error) {
	d, versions, err := s.revisionsOf(store.Lick, id)
	if err != nil {
		return nil, err
	}
	all := make([]LickRevision, len(versions))
	for n, r := range versions {
		all[n].Revision = revisionOf(r, d.Version)
		if all[n].Lick, err = unpack[document.Lick](store.Document{ID: id, Kind: store.Lick, Body: r.Body}); err != nil {
			all[n].Damaged, all[n].Lick = err.Error(), document.Lick{Name: r.Name, Phrase: document.Phrase{Events: []document.Event{}}}
		}
	}
	return all, nil
}

type replaceLick struct {
	ID   uint `path:"id"`
	Body struct {
		Replacing
		Lick document.Lick `json:"lick"`
	}
}

// exportLick names the format a lick is written in.
type exportLick struct {
	ID     uint   `path:"id"`
	Format string `path:"format" doc:"tab, musicxml, midi or json"`
}

// KeepLick checks a lick and keeps it. Its error is a problem.
func KeepLick(st *store.Store, d document.Lick) (store.Document, error) {
	name, content, _, err := lickBody(d)
	if err != nil {
		return store.Document{}, invalid("", err)
	}
	return st.Create(store.Document{Kind: store.Lick, Name: name, Body: content})
}

// lickBody is the name and body under which a lick is kept, written anew from what was
// read.
func lickBody(d document.Lick) (name string, content []byte, kept document.Lick, err error) {
	chosen, err := d.Core()
	if err != nil {
		return "", nil, d, err
	}
	chosen.Name = strings.TrimSpace(chosen.Name)
	kept = document.LickOf(chosen)
	return chosen.Name, pack(kept), kept, nil
}

func lickOf(d store.Document) (lick.Lick, error) {
	doc, err := unpack[document.Lick](d)
	if err != nil {
		return lick.Lick{}, err
	}
	l, err := doc.Core()
	if err != nil {
		return l, &damagedError{d.Kind, d.ID, err}
	}
	return l, nil
}
