package bundle

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"time"

	"undaris/format/bundle"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
)

// Order says what is to be in a bundle.
type Order struct {
	// ChartID is the tune that goes, with all that belongs to it: what was written over it, and the licks and exercises
	// that those name; 0 for everything: settings, cards and the log too.
	ChartID uint
	// Versions has earlier versions go with it and, of everything, what is deleted: one tune takes along nothing that was
	// thrown away.
	Versions bool
	// WithoutTakes leaves the player's own recordings out.
	WithoutTakes bool
}

// Write writes a bundle, of what was there at one moment, while others write. Sounds that are
// missing are left out and returned.
func Write(ctx context.Context, st *store.Store, to io.Writer, sounds *store.Sounds, order Order, made time.Time, by string) (missing []string, err error) {
	w := bundle.NewWriter(to)
	about := "everything"
	hashes := map[string]bool{}
	err = st.Snapshot(ctx, func(st *store.Store) error {
		documents, err := bundledDocuments(ctx, st, order)
		if err != nil {
			return err
		}
		for _, d := range documents {
			if order.ChartID == d.ID {
				about = fmt.Sprintf("the tune %s and what belongs to it", d.Name)
			}
			if err := addJSON(w, fmt.Sprintf("documents/%s-%d.json", d.Kind, d.ID), d); err != nil {
				return err
			}
			for _, hash := range d.sounds() {
				hashes[hash] = true
			}
		}
		if order.ChartID != 0 {
			return nil
		}
		return addPractice(ctx, w, st)
	})
	if err != nil {
		return nil, err
	}
	all := make([]string, 0, len(hashes))
	for hash := range hashes {
		all = append(all, hash)
	}
	slices.Sort(all)
	for _, hash := range all {
		switch err := addSound(w, sounds, hash); {
		case errors.Is(err, store.ErrNoSound):
			missing = append(missing, hash)
		case err != nil:
			return nil, err
		}
	}
	return missing, w.Close(made, by, about)
}

func addSound(w *bundle.Writer, sounds *store.Sounds, hash string) error {
	file, err := sounds.Open(hash)
	if err != nil {
		return err
	}
	defer func() { _ = file.Close() }()
	return w.Add("sounds/"+hash+".wav", file)
}

func addJSON(w *bundle.Writer, path string, value any) error {
	text, err := json.Marshal(value)
	if err != nil {
		return err
	}
	return w.Add(path, bytes.NewReader(append(text, '\n')))
}

// bundledDocuments are the documents of an order, in the order of a bundle.
func bundledDocuments(ctx context.Context, st *store.Store, order Order) ([]bundledDocument, error) {
	all, named := []bundledDocument{}, map[store.Kind]map[uint]bool{}
	wanted := func(d store.Document) bool {
		return (order.Versions && order.ChartID == 0 || !d.DeletedAt.Valid) && (!order.WithoutTakes || d.Kind != store.Take)
	}
	take := func(d store.Document) error {
		if !wanted(d) {
			return nil
		}
		all = append(all, bundledDocumentOf(d))
		documents.Remapped(d.Kind, d.Body, func(kind store.Kind, id uint) (uint, bool) {
			if named[kind] == nil {
				named[kind] = map[uint]bool{}
			}
			named[kind][id] = true
			return 0, false
		})
		return nil
	}
	if err := st.EachDocument(ctx, order.ChartID, take); err != nil {
		return nil, err
	}
	if order.ChartID != 0 {
		if !slices.ContainsFunc(all, func(d bundledDocument) bool { return d.ID == order.ChartID && d.Kind == store.Chart }) {
			return nil, store.ErrNotFound
		}
		known := map[uint]bool{}
		for _, d := range all {
			known[d.ID] = true
		}
		// What is named by what belongs to the tune; those kinds name nothing themselves.
		for kind, ids := range named {
			for id := range ids {
				if known[id] {
					continue
				}
				d, err := st.Read(ctx, kind, id)
				switch {
				case err == nil:
					all = append(all, bundledDocumentOf(d))
				case !errors.Is(err, store.ErrNotFound):
					return nil, err
				}
			}
		}
	}
	slices.SortFunc(all, func(a, b bundledDocument) int {
		if order := slices.Index(bundleOrder, a.Kind) - slices.Index(bundleOrder, b.Kind); order != 0 {
			return order
		}
		return int(a.ID) - int(b.ID)
	})
	if !order.Versions {
		return all, nil
	}
	for n := range all {
		revisions, err := st.Revisions(ctx, all[n].ID)
		if err != nil {
			return nil, err
		}
		for _, r := range revisions {
			all[n].Revisions = append(all[n].Revisions, bundledRevision{
				Version: r.Version, Name: r.Name, Label: r.Label, Saved: inBundle(r.SavedAt), keptText: keptTextOf(r.Body),
			})
		}
	}
	return all, nil
}

// sounds are the hashes of the sounds that a document and its versions refer to.
func (b bundledDocument) sounds() []string {
	if b.Kind != store.Take {
		return nil
	}
	hashes := []string{}
	add := func(k keptText) {
		stored, err := k.stored()
		d := document.Take{}
		if err == nil && documents.Open(store.Take, stored, &d) == nil && d.Sound != nil {
			hashes = append(hashes, d.Sound.Hash)
		}
	}
	add(b.keptText)
	for _, r := range b.Revisions {
		add(r.keptText)
	}
	return hashes
}

// addPractice adds what belongs to no document: settings, cards with their reviews, and the log.
func addPractice(ctx context.Context, w *bundle.Writer, st *store.Store) error {
	settings, err := st.Settings(ctx)
	if err != nil {
		return err
	}
	lines := jsonLines{}
	for _, s := range settings {
		if err := lines.add(bundledSetting{Name: s.Name, Version: s.Version, Saved: inBundle(s.UpdatedAt), keptText: keptTextOf(s.Body)}); err != nil {
			return err
		}
	}
	if err := w.Add("settings.jsonl", lines.reader()); err != nil {
		return err
	}
	lines = jsonLines{}
	if err := st.EachCard(ctx, func(c store.Card) error { return lines.add(bundledCardOf(c)) }); err != nil {
		return err
	}
	if err := w.Add("cards.jsonl", lines.reader()); err != nil {
		return err
	}
	lines = jsonLines{}
	if err := st.EachReview(ctx, func(r store.Review) error { return lines.add(bundledReviewOf(r)) }); err != nil {
		return err
	}
	if err := w.Add("reviews.jsonl", lines.reader()); err != nil {
		return err
	}
	uids, entries := map[uint]string{}, []store.LogEntry{}
	if err := st.EachLogEntry(ctx, func(e store.LogEntry) error {
		uids[e.ID] = e.UID
		entries = append(entries, e)
		return nil
	}); err != nil {
		return err
	}
	lines = jsonLines{}
	for _, e := range entries {
		if err := lines.add(bundledEntryOf(e, uids)); err != nil {
			return err
		}
	}
	return w.Add("log.jsonl", lines.reader())
}

// jsonLines are values, one a line.
type jsonLines struct{ text bytes.Buffer }

func (l *jsonLines) add(value any) error { return json.NewEncoder(&l.text).Encode(value) }

func (l *jsonLines) reader() io.Reader { return bytes.NewReader(l.text.Bytes()) }
