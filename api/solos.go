package api

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/solo/chorus"
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
	ChartID uint `json:"chartId"`
	SoloBody
}

// SoloEntry is a solo in the list of the library.
type SoloEntry struct {
	Kept
	ChartID uint   `json:"chartId"`
	Name    string `json:"name"`
	SoloSummary
}

// SoloSummary is what a list shows of a solo beside its name.
type SoloSummary struct {
	Choruses int `json:"choruses"`
	Notes    int `json:"notes"`
}

// SoloRevision is a version of a solo.
type SoloRevision struct {
	Revision
	Name string `json:"name"`
	SoloSummary
}

type soloExport struct {
	ID     uint   `path:"id"`
	Format string `path:"format" doc:"pdf, tab, musicxml or midi"`
}

type replaceSolo struct {
	ID   uint `path:"id"`
	Body struct {
		SoloBody
		Replacing
	}
}

func (s *server) registerSolos(api huma.API) {
	huma.Get(api, "/api/solos", func(_ context.Context, in *linesOf) (*body[[]SoloEntry], error) {
		return s.soloEntries(s.store.Entries(store.Solo, in.ChartID))
	})
	huma.Get(api, "/api/solos/deleted", func(context.Context, *struct{}) (*body[[]SoloEntry], error) {
		return s.soloEntries(s.store.Deleted(store.Solo))
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
			return nil, storeProblem("solo", in.ID, err)
		}
		return keptSolo(d)
	})
	huma.Put(api, "/api/solos/{id}", func(_ context.Context, in *replaceSolo) (*body[KeptSolo], error) {
		kept, err := in.Body.checked()
		if err != nil {
			return nil, err
		}
		d, err := s.store.Replace(store.Solo, in.ID, in.Body.save(kept.document()))
		if err != nil {
			return nil, storeProblem("solo", in.ID, err)
		}
		return keptSolo(d)
	})
	huma.Delete(api, "/api/solos/{id}", func(_ context.Context, in *deletion) (*struct{}, error) {
		return nil, storeProblem("solo", in.ID, s.store.Delete(store.Solo, in.ID, in.Version))
	})
	huma.Post(api, "/api/solos/{id}/restore", func(_ context.Context, in *byID) (*body[KeptSolo], error) {
		d, err := s.store.Restore(store.Solo, in.ID)
		if err != nil {
			return nil, storeProblem("solo", in.ID, err)
		}
		return keptSolo(d)
	})
	huma.Post(api, "/api/solos/{id}/duplicate", func(_ context.Context, in *byID) (*body[KeptSolo], error) {
		d, err := s.store.Read(store.Solo, in.ID)
		if err != nil {
			return nil, storeProblem("solo", in.ID, err)
		}
		kept, err := unpack[SoloBody](d)
		if err != nil {
			return nil, storeProblem("solo", in.ID, err)
		}
		kept.Solo.Name = (lick.Lick{Name: kept.Solo.Name}).WithSuffix(", copy").Name
		copied := kept.document()
		copied.ChartID = d.ChartID
		if d, err = s.store.Create(copied); err != nil {
			return nil, err
		}
		return keptSolo(d)
	}, created)
	huma.Get(api, "/api/solos/{id}/revisions", func(_ context.Context, in *byID) (*body[[]SoloRevision], error) {
		all, err := s.soloRevisions(in.ID)
		if err != nil {
			return nil, storeProblem("solo", in.ID, err)
		}
		return &body[[]SoloRevision]{all}, nil
	})
	huma.Post(api, "/api/solos/{id}/revisions/{revision}/restore", func(_ context.Context, in *restoreRevision) (*body[KeptSolo], error) {
		r, err := s.store.Revision(in.ID, in.Revision)
		if err != nil {
			return nil, storeProblem(fmt.Sprintf("version %d of the solo", in.Revision), in.ID, err)
		}
		d, err := s.store.Replace(store.Solo, in.ID, store.Save{Version: in.Body.Version, Name: r.Name, Body: r.Body, KeepBefore: true})
		if err != nil {
			return nil, storeProblem("solo", in.ID, err)
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
	d := kept.document()
	d.ChartID = &k.ChartID
	return st.Create(d)
}

// document is the solo as it is kept.
func (b SoloBody) document() store.Document {
	return store.Document{Kind: store.Solo, Name: b.Solo.Name, Body: pack(b), Summary: pack(soloSummary(b))}
}

// setting is what the solo is kept over and for.
func (b SoloBody) setting() (chorus.PlayContext, error) {
	return PlayContext{Chart: b.Chart, Hands: b.Hands}.core()
}

func (o PlayContext) core() (chorus.PlayContext, error) {
	read, err := o.read()
	return chorus.PlayContext{Chart: read.chart, Instrument: read.instrument, SpanMM: read.spanMM}, err
}

// checked reads every chorus over the chart, so that nothing is kept that cannot be opened.
func (b SoloBody) checked() (SoloBody, error) {
	b.Solo.Name = strings.TrimSpace(b.Solo.Name)
	if b.Solo.Name == "" || len([]rune(b.Solo.Name)) > lick.MaxName {
		return b, invalid("", &chart.FieldError{Field: "solo.name", Detail: fmt.Sprintf("a solo's name has 1 to %d characters", lick.MaxName)})
	}
	if _, _, err := (PlayContext{Chart: b.Chart, Hands: b.Hands}).joined(b.Solo.Choruses); err != nil {
		return b, err
	}
	at, err := b.setting()
	if err != nil {
		return b, err
	}
	choruses := make([]document.Chorus, len(b.Solo.Choruses))
	for n, c := range b.Solo.Choruses {
		c.Plan = c.Plan.Named(at)
		choruses[n] = c
	}
	b.Solo.Choruses = choruses
	return b, nil
}

func keptSolo(d store.Document) (*body[KeptSolo], error) {
	kept, err := unpack[SoloBody](d)
	if err != nil {
		return nil, storeProblem("solo", d.ID, err)
	}
	return &body[KeptSolo]{KeptSolo{Kept: keptOf(d), ChartID: *d.ChartID, SoloBody: kept}}, nil
}

func (s *server) soloEntries(documents []store.Document, err error) (*body[[]SoloEntry], error) {
	if err != nil {
		return nil, err
	}
	all, err := listed(s, documents, func(d store.Document) (SoloSummary, []string, error) {
		b, err := unpack[SoloBody](d)
		return soloSummary(b), nil, err
	})
	entries := make([]SoloEntry, len(all))
	for n, one := range all {
		entries[n] = SoloEntry{Kept: one.kept, Name: documents[n].Name, ChartID: *documents[n].ChartID, SoloSummary: one.summary}
	}
	return &body[[]SoloEntry]{entries}, err
}

func soloSummary(b SoloBody) SoloSummary {
	summary := SoloSummary{Choruses: len(b.Solo.Choruses)}
	for _, c := range b.Solo.Choruses {
		for _, block := range c.Blocks {
			summary.Notes += len(block.Notes)
		}
	}
	return summary
}

// soloRevisions lists the versions of a solo, newest first.
func (s *server) soloRevisions(id uint) ([]SoloRevision, error) {
	d, versions, err := s.revisionsOf(store.Solo, id)
	if err != nil {
		return nil, err
	}
	all := make([]SoloRevision, len(versions))
	for n, r := range versions {
		all[n] = SoloRevision{Revision: revisionOf(r, d.Version), Name: r.Name}
		b, err := unpack[SoloBody](store.Document{ID: id, Kind: store.Solo, Body: r.Body})
		if err != nil {
			all[n].Damaged = err.Error()
			continue
		}
		all[n].SoloSummary = soloSummary(b)
	}
	return all, nil
}

// exportSolo writes a kept solo as a file: what is heard of it, each chorus at its stage.
func (s *server) exportSolo(id uint, name string) (*file, error) {
	format, ok := solofile.Find(name)
	if !ok {
		return nil, huma.Error404NotFound(fmt.Sprintf("solos are not written as %q; there are %s", name, solofile.Names()))
	}
	d, err := s.store.Read(store.Solo, id)
	if err != nil {
		return nil, storeProblem("solo", id, err)
	}
	kept, err := unpack[SoloBody](d)
	if err != nil {
		return nil, storeProblem("solo", id, err)
	}
	if kept, err = s.withItsTune(kept, *d.ChartID); err != nil {
		return nil, err
	}
	on, line, err := PlayContext{Chart: kept.Chart, Hands: kept.Hands}.joined(kept.Solo.Choruses)
	if err != nil {
		return nil, err
	}
	if len(line.Events) == 0 {
		return nil, invalid("", &chart.FieldError{Field: "solo", Detail: "the solo has no note that is heard: lay a block, or unmute one"})
	}
	out := solofile.Solo{Name: kept.Solo.Name, Chart: on.chart, Instrument: on.instrument, Line: line, Choruses: len(kept.Solo.Choruses)}
	return &file{Type: format.Type, Disposition: attached(kept.Solo.Name + format.Extension), Body: format.Write(out)}, nil
}

// withItsTune is a solo moved along to where its tune and the player's neck are now. It
// stays as it was kept where the tune is gone.
func (s *server) withItsTune(kept SoloBody, chartID uint) (SoloBody, error) {
	now, err := s.present(chartID)
	if err != nil || now == nil {
		return kept, err
	}
	from, err := kept.setting()
	if err != nil {
		return kept, err
	}
	to, err := now.core()
	if err != nil {
		return kept, err
	}
	moved, _, err := kept.Solo.Transposed(from, to)
	if err != nil {
		return kept, invalid("solo", err)
	}
	return SoloBody{Solo: moved, Chart: now.Chart, Hands: now.Hands}, nil
}

// present is a kept tune as it is now, and the player's hands; nil where the tune is gone
// or cannot be read.
func (s *server) present(chartID uint) (*PlayContext, error) {
	d, err := s.store.Read(store.Chart, chartID)
	if err != nil {
		if errors.Is(err, store.ErrNotFound) {
			return nil, nil
		}
		return nil, err
	}
	c, err := chartOf(d)
	if err != nil {
		return nil, nil
	}
	player, err := s.player()
	if err != nil {
		return nil, err
	}
	return &PlayContext{Chart: document.ChartOf(c), Hands: &player.Player.Hands}, nil
}
