package api

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/format/document"
	"undaris/format/solofile"
	"undaris/store"
)

// SoloBody is a solo as it is kept: over which tune, for which hands.
type SoloBody struct {
	Solo  document.Solo   `json:"solo"`
	Chart document.Chart  `json:"chart" doc:"The tune as it was when the solo was saved"`
	Hands *document.Hands `json:"hands,omitempty" doc:"What it is kept for; left out for a guitar in standard tuning"`
}

// KeepSolo asks for a solo to be kept.
type KeepSolo struct {
	SoloBody
	ChartID uint `json:"chartId"`
}

// KeptSolo is a solo of the library.
type KeptSolo struct {
	Kept
	ChartID uint          `json:"chartId"`
	Solo    document.Solo `json:"solo"`
}

// SoloEntry is a solo in the list of the library.
type SoloEntry struct {
	Kept
	ChartID  uint   `json:"chartId"`
	Name     string `json:"name"`
	Choruses int    `json:"choruses"`
	Notes    int    `json:"notes"`
}

// SoloRevision is a version of a solo.
type SoloRevision struct {
	Version int           `json:"version"`
	Saved   time.Time     `json:"saved"`
	Current bool          `json:"current"`
	Solo    document.Solo `json:"solo"`
}

type soloExport struct {
	ID     uint   `path:"id"`
	Format string `path:"format" doc:"pdf, tab, musicxml or midi"`
}

type replaceSolo struct {
	ID   uint `path:"id"`
	Body struct {
		SoloBody
		Version int `json:"version" minimum:"1" doc:"The version that this one replaces"`
	}
}

func (s *server) registerSolos(api huma.API) {
	huma.Get(api, "/api/solos", func(_ context.Context, in *linesOf) (*body[[]SoloEntry], error) {
		documents, err := s.store.List(store.Solo, in.ChartID)
		if err != nil {
			return nil, err
		}
		entries, err := unpackAll(documents, soloEntry)
		return &body[[]SoloEntry]{entries}, err
	})
	huma.Post(api, "/api/solos", func(_ context.Context, in *body[KeepSolo]) (*body[KeptSolo], error) {
		if _, err := keptAs[document.Chart](s, store.Chart, "chartId", in.Body.ChartID); err != nil {
			return nil, err
		}
		d, err := PutSolo(s.store, in.Body)
		if err != nil {
			return nil, err
		}
		return keptSolo(d)
	}, created)
	huma.Get(api, "/api/solos/{id}", func(_ context.Context, in *byID) (*body[KeptSolo], error) {
		d, err := s.store.Read(store.Solo, in.ID)
		if err != nil {
			return nil, unkept("solo", in.ID, err)
		}
		return keptSolo(d)
	})
	huma.Put(api, "/api/solos/{id}", func(_ context.Context, in *replaceSolo) (*body[KeptSolo], error) {
		kept, err := in.Body.checked()
		if err != nil {
			return nil, err
		}
		d, err := s.store.Replace(store.Solo, in.ID, in.Body.Version, kept.Solo.Name, pack(kept))
		if err != nil {
			return nil, unkept("solo", in.ID, err)
		}
		return keptSolo(d)
	})
	huma.Delete(api, "/api/solos/{id}", func(_ context.Context, in *deletion) (*struct{}, error) {
		return nil, unkept("solo", in.ID, s.store.Delete(store.Solo, in.ID, in.Version))
	})
	huma.Post(api, "/api/solos/{id}/restore", func(_ context.Context, in *byID) (*body[KeptSolo], error) {
		d, err := s.store.Restore(store.Solo, in.ID)
		if err != nil {
			return nil, unkept("solo", in.ID, err)
		}
		return keptSolo(d)
	})
	huma.Post(api, "/api/solos/{id}/duplicate", func(_ context.Context, in *byID) (*body[KeptSolo], error) {
		d, err := s.store.Read(store.Solo, in.ID)
		if err != nil {
			return nil, unkept("solo", in.ID, err)
		}
		kept, err := unpack[SoloBody](d)
		if err != nil {
			return nil, err
		}
		kept.Solo.Name = (phrase.Lick{Name: kept.Solo.Name}).Named(", copy").Name
		if d, err = s.store.Create(store.Document{Kind: store.Solo, Name: kept.Solo.Name, ChartID: d.ChartID, Body: pack(kept)}); err != nil {
			return nil, err
		}
		return keptSolo(d)
	}, created)
	huma.Get(api, "/api/solos/{id}/revisions", func(_ context.Context, in *byID) (*body[[]SoloRevision], error) {
		all, err := s.soloRevisions(in.ID)
		if err != nil {
			return nil, unkept("solo", in.ID, err)
		}
		return &body[[]SoloRevision]{all}, nil
	})
	huma.Post(api, "/api/solos/{id}/revisions/{revision}/restore", func(_ context.Context, in *restoreRevision) (*body[KeptSolo], error) {
		r, err := s.store.Revision(in.ID, in.Revision)
		if err != nil {
			return nil, unkept(fmt.Sprintf("version %d of the solo", in.Revision), in.ID, err)
		}
		d, err := s.store.Replace(store.Solo, in.ID, in.Body.Version, r.Name, r.Body)
		if err != nil {
			return nil, unkept("solo", in.ID, err)
		}
		return keptSolo(d)
	})
	huma.Get(api, "/api/solos/{id}/export/{format}", func(_ context.Context, in *soloExport) (*file, error) {
		return s.exportSolo(in.ID, in.Format)
	})
}

// PutSolo checks a solo and keeps it. Its error is a problem.
func PutSolo(st *store.Store, k KeepSolo) (store.Document, error) {
	kept, err := k.checked()
	if err != nil {
		return store.Document{}, err
	}
	return st.Create(store.Document{Kind: store.Solo, Name: kept.Solo.Name, ChartID: &k.ChartID, Body: pack(kept)})
}

// checked reads every chorus over the chart, so that nothing is kept that cannot be opened.
func (b SoloBody) checked() (SoloBody, error) {
	b.Solo.Name = strings.TrimSpace(b.Solo.Name)
	if b.Solo.Name == "" || len([]rune(b.Solo.Name)) > phrase.MaxName {
		return b, invalid("", &chart.FieldError{Field: "solo.name", Detail: fmt.Sprintf("a solo's name has 1 to %d characters", phrase.MaxName)})
	}
	_, _, err := On{Chart: b.Chart, Hands: b.Hands}.joined(b.Solo.Choruses)
	return b, err
}

func keptSolo(d store.Document) (*body[KeptSolo], error) {
	kept, err := unpack[SoloBody](d)
	if err != nil {
		return nil, err
	}
	return &body[KeptSolo]{KeptSolo{Kept: keptOf(d), ChartID: *d.ChartID, Solo: kept.Solo}}, nil
}

func soloEntry(d store.Document, b SoloBody) SoloEntry {
	entry := SoloEntry{Kept: keptOf(d), ChartID: *d.ChartID, Name: b.Solo.Name, Choruses: len(b.Solo.Choruses)}
	for _, c := range b.Solo.Choruses {
		for _, block := range c.Blocks {
			entry.Notes += len(block.Notes)
		}
	}
	return entry
}

// soloRevisions lists the versions of a solo, newest first.
func (s *server) soloRevisions(id uint) ([]SoloRevision, error) {
	d, err := s.store.Read(store.Solo, id)
	if err != nil {
		return nil, err
	}
	earlier, err := s.store.Revisions(id)
	if err != nil {
		return nil, err
	}
	now, err := unpack[SoloBody](d)
	all := []SoloRevision{{Version: d.Version, Saved: d.UpdatedAt, Current: true, Solo: now.Solo}}
	for _, r := range earlier {
		before, err := unpack[SoloBody](store.Document{ID: id, Kind: store.Solo, Body: r.Body})
		if err != nil {
			return nil, err
		}
		all = append(all, SoloRevision{Version: r.Version, Saved: r.SavedAt, Solo: before.Solo})
	}
	return all, err
}

// exportSolo writes a kept solo as a file: what is heard of it, each chorus at its stage.
func (s *server) exportSolo(id uint, name string) (*file, error) {
	format, ok := solofile.Find(name)
	if !ok {
		return nil, huma.Error404NotFound(fmt.Sprintf("solos are not written as %q; there are %s", name, solofile.Names()))
	}
	d, err := s.store.Read(store.Solo, id)
	if err != nil {
		return nil, unkept("solo", id, err)
	}
	kept, err := unpack[SoloBody](d)
	if err != nil {
		return nil, err
	}
	on, line, err := On{Chart: kept.Chart, Hands: kept.Hands}.joined(kept.Solo.Choruses)
	if err != nil {
		return nil, err
	}
	if len(line.Events) == 0 {
		return nil, invalid("", &chart.FieldError{Field: "solo", Detail: "the solo has no note that is heard: lay a block, or unmute one"})
	}
	out := solofile.Solo{Name: kept.Solo.Name, Chart: on.chart, Instrument: on.instrument, Line: line, Choruses: len(kept.Solo.Choruses)}
	return &file{Type: format.Type, Disposition: attached(kept.Solo.Name + format.Extension), Body: format.Write(out)}, nil
}
