package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/format/lickfile"
	"undaris/library/documents"
)

// KeptLick is a lick of the library.
type KeptLick struct {
	Kept
	Lick document.Lick `json:"lick"`
}

// LickEntry is a lick in the list of the deleted ones.
type LickEntry struct {
	Kept
	Name string `json:"name"`
	documents.LickSummary
}

// ReplaceLick is a lick in the place of a version.
type ReplaceLick struct {
	Replacing
	Lick document.Lick `json:"lick"`
}

func (r ReplaceLick) content() document.Lick { return r.Lick }

func (s *server) registerLicks(api huma.API) {
	licks := resource[document.Lick, documents.LickSummary, KeptLick, LickEntry]{
		path: "licks", kind: documents.Licks, view: keptLick, export: exportLick, formats: lickfile.Names(),
		entry: func(e documents.Entry[documents.LickSummary]) LickEntry {
			entry := LickEntry{Kept: keptOf(e.Info), Name: e.Name, LickSummary: e.Summary}
			entry.Damaged = e.Damaged
			if entry.Tags == nil {
				entry.Tags = []string{}
			}
			return entry
		},
		texts: func(all []documents.Revision[document.Lick]) []string {
			return each(all, func(r documents.Revision[document.Lick]) string {
				return fmt.Sprintf("%s: %s, in %s", r.Name, counted(len(r.Body.Events), "note", "notes"), r.Body.Tonic)
			})
		},
	}
	serve(api, s, licks)
	serveReplace[document.Lick, documents.LickSummary, KeptLick, LickEntry, ReplaceLick](api, s, licks, "lick")
	gets(api, "/api/licks", func(ctx context.Context, _ *struct{}) (*body[[]KeptLick], error) {
		items, faults, err := documents.Licks.ReadAllWithDamaged(ctx, s.library, 0)
		all := make([]KeptLick, len(items))
		for n, item := range items {
			all[n] = KeptLick{Kept: keptOf(item.Info), Lick: item.Body}
			if fault := faults[item.ID]; fault != nil {
				all[n].Damaged, all[n].Lick = fault.Error(), document.Lick{Name: item.Name, Phrase: document.Phrase{Events: []document.Event{}}}
			}
		}
		return &body[[]KeptLick]{all}, err
	}, described("licks", "List the licks with their notes"))
	creates(api, "/api/licks", func(ctx context.Context, in *creation[document.Lick]) (*tagged[KeptLick], error) {
		item, err := documents.Licks.CreateOnce(ctx, s.library, in.UID, in.Body, 0)
		if err != nil {
			return nil, saveProblem("lick", "", 0, err)
		}
		view, err := keptLick(ctx, item)
		return &tagged[KeptLick]{ETag: etag(item.Version), Body: view}, err
	}, described("licks", "Keep a new lick"))
}

func keptLick(_ context.Context, item documents.Item[document.Lick]) (KeptLick, error) {
	return KeptLick{Kept: keptOf(item.Info), Lick: item.Body}, nil
}

func exportLick(_ context.Context, item documents.Item[document.Lick], name string) (*file, error) {
	format, err := lickfile.Find(name)
	if err != nil {
		return nil, err
	}
	l, err := item.Body.Core()
	if err != nil {
		return nil, invalid("lick", err)
	}
	return &file{Type: format.Type, Disposition: attached(l.Name + format.Extension), Body: format.Write(l)}, nil
}
