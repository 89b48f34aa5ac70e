package bundle

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"undaris/format/bundle"
	"undaris/library/documents"
	"undaris/library/pieces"
	"undaris/store"
)

// ImportOrder says how a bundle is to be read.
type ImportOrder struct {
	// Replace removes everything first: what is here is what the bundle holds, and nothing else.
	Replace bool
	// Differing says what becomes of documents and settings that differ; empty for KeepMine.
	Differing Differing
}

// Imported says what reading a bundle has brought.
type Imported struct {
	New, Same, Replaced, KeptBoth, KeptMine int
	Answers, Entries                        int
	Sounds                                  int
}

// ErrPartial says that a bundle that holds a part of a library cannot replace all of one.
var ErrPartial = errors.New("this bundle holds a part of a library: it can be added to what is here, but not replace it")

// leastLeft is how much room the disk must have beside the sounds of a bundle.
const leastLeft = 64 << 20

// PreviewOf says what reading a bundle would bring; nothing is changed.
func PreviewOf(ctx context.Context, st *store.Store, b *bundle.Bundle) (Preview, error) {
	plan := bundlePlan{}
	err := st.Snapshot(ctx, func(st *store.Store) error {
		var err error
		plan, err = planBundle(ctx, st, b)
		return err
	})
	return plan.preview, err
}

// Import reads a bundle: its sounds first, then everything else in one transaction. What was there before stays
// among the versions of what is replaced; a bundle that is read twice brings nothing the second time. Once nobody else can
// write any more, and before anything is changed, before is called: what is saved meanwhile is in what it copies, or comes
// after.
func Import(ctx context.Context, st *store.Store, b *bundle.Bundle, sounds *store.Sounds, order ImportOrder, before func() error) (Imported, error) {
	done := Imported{}
	if free := sounds.Free(); free >= 0 && free < b.Bytes("")+leastLeft {
		return done, fmt.Errorf("the disk has %d MB left, and the bundle needs %d MB: %w", free>>20, (b.Bytes("")+leastLeft)>>20, &pieces.FullError{Free: free, Needs: b.Bytes("") + leastLeft, What: "the bundle"})
	}
	err := sounds.WhileKept(func() error {
		var err error
		if done.Sounds, err = importSounds(ctx, b, sounds); err != nil {
			return err
		}
		return keepDocuments(ctx, st, b, order, before, &done)
	})
	return done, err
}

// keepDocuments keeps all but the sounds of a bundle, in one transaction.
func keepDocuments(ctx context.Context, st *store.Store, b *bundle.Bundle, order ImportOrder, before func() error, done *Imported) error {
	return st.Together(ctx, func(st *store.Store) error {
		if err := before(); err != nil {
			return err
		}
		if order.Replace {
			if len(b.Paths("settings.jsonl")) == 0 {
				return ErrPartial
			}
			if err := st.Empty(ctx); err != nil {
				return err
			}
		}
		plan, err := planBundle(ctx, st, b)
		if err != nil {
			return err
		}
		ids := idMap{}
		for _, one := range plan.documents {
			if err := one.keep(ctx, st, ids, order.Differing, done); err != nil {
				return fmt.Errorf("keeping the %s %q: %w", one.Kind, one.Name, err)
			}
		}
		return plan.keepPractice(ctx, st, ids, order, done)
	})
}

// importSounds keeps the sounds of a bundle that are not here; each is what its name says.
func importSounds(ctx context.Context, b *bundle.Bundle, sounds *store.Sounds) (int, error) {
	count := 0
	for _, path := range b.Paths("sounds/") {
		if err := ctx.Err(); err != nil {
			return count, err
		}
		hash := strings.TrimSuffix(strings.TrimPrefix(path, "sounds/"), ".wav")
		if sounds.Has(hash) {
			continue
		}
		opened, err := b.Open(path)
		if err != nil {
			return count, err
		}
		kept, _, err := sounds.Keep(opened)
		_ = opened.Close()
		switch {
		case err != nil:
			return count, err
		case kept != hash:
			return count, &bundle.Error{Path: path, Detail: "is not the sound that its name says"}
		}
		count++
	}
	return count, nil
}

// keep does with a document of a bundle what is planned, and notes which id it has here.
func (p planned) keep(ctx context.Context, st *store.Store, ids idMap, differing Differing, done *Imported) error {
	d, err := p.document()
	if err != nil {
		return err
	}
	d.Body = documents.Remapped(d.Kind, d.Body, ids.of)
	switch {
	case p.state == StateSame:
		done.Same++
		ids[p.ID] = p.local
		return nil
	case p.state == StateDiffers && differing != TakeTheirs && (differing != KeepBoth || p.Kind == store.Band):
		done.KeptMine++
		ids[p.ID] = p.local
		return nil
	case p.state == StateDiffers && differing == TakeTheirs, p.local != 0 && p.deleted:
		done.Replaced++
		if p.deleted {
			done.Replaced, done.New = done.Replaced-1, done.New+1
		}
		ids[p.ID] = p.local
		return st.ReplaceKeepingBefore(ctx, p.local, d)
	case p.state == StateDiffers:
		done.KeptBoth++
		d.UID, d.ID, d.Label = p.beside, 0, ""
	default:
		done.New++
	}
	if d.ChartID != nil {
		if chart, ok := ids[*d.ChartID]; ok {
			d.ChartID = &chart
		} else {
			d.ChartID = nil
		}
	}
	id, err := st.Insert(ctx, d)
	if err != nil {
		return err
	}
	ids[p.ID] = id
	return p.keepRevisions(ctx, st, id, ids)
}

func (p planned) keepRevisions(ctx context.Context, st *store.Store, id uint, ids idMap) error {
	all := []store.Revision{}
	for _, r := range p.Revisions {
		stored, err := r.stored()
		if err != nil {
			return err
		}
		if r.Version >= 1 && r.Version < p.Version {
			all = append(all, store.Revision{DocumentID: id, Version: r.Version, Name: r.Name, Label: r.Label, Body: documents.Remapped(p.Kind, stored, ids.of), SavedAt: r.Saved})
		}
	}
	return st.InsertRevisions(ctx, all)
}

// keepPractice keeps settings, answers, cards and entries of the log. The memory of a card is the later one of both;
// what was added to its answers is counted.
func (p *bundlePlan) keepPractice(ctx context.Context, st *store.Store, ids idMap, order ImportOrder, done *Imported) error {
	for _, s := range p.settings {
		stored, err := s.stored()
		if err != nil {
			return err
		}
		mine, err := st.Setting(ctx, s.Name)
		if err != nil {
			return err
		}
		if mine.Version > 0 && order.Differing != TakeTheirs {
			continue
		}
		version := s.Version
		if mine.Version > 0 {
			version = mine.Version + 1
		}
		body := documents.Remapped(store.Kind(s.Name), stored, ids.of)
		if mine.Version > 0 && string(mine.Body) == string(body) {
			continue
		}
		if err := st.PutSetting(ctx, store.Setting{Name: s.Name, Version: version, Body: body, UpdatedAt: s.Saved}); err != nil {
			return err
		}
	}
	added := map[string][]store.Review{}
	reviews := make([]store.Review, len(p.reviews))
	for n, r := range p.reviews {
		reviews[n] = r.review()
		added[r.Card] = append(added[r.Card], reviews[n])
	}
	cards := []store.Card{}
	for _, c := range p.cards {
		theirs := c.card()
		mine, err := st.Card(ctx, c.ID)
		switch {
		case errors.Is(err, store.ErrNotFound):
			cards = append(cards, theirs)
		case err != nil:
			return err
		case len(added[c.ID]) > 0:
			cards = append(cards, mergedCard(mine, theirs, added[c.ID]))
		}
	}
	entries := make([]store.LogEntry, len(p.entries))
	at := map[string]int{}
	for n, e := range p.entries {
		at[e.UID] = n + 1
		entries[n] = e.entry()
		if id, ok := ids[e.Document]; ok {
			entries[n].DocumentID = &id
		} else {
			entries[n].DocumentID = nil
		}
	}
	for n, e := range p.entries {
		if by, ok := at[e.ReplacedBy]; ok && e.ReplacedBy != "" {
			number := uint(by)
			entries[n].ReplacedBy = &number
		}
	}
	done.Answers, done.Entries = len(reviews), len(entries)
	return st.InsertPractice(ctx, cards, reviews, entries)
}

// mergedCard is a card of both: remembered as where it was answered last, with the answers of both counted.
func mergedCard(mine, theirs store.Card, added []store.Review) store.Card {
	merged := mine
	if theirs.LastReviewAt.After(mine.LastReviewAt) {
		merged = theirs
	}
	merged.Answers, merged.RightAnswers = mine.Answers, mine.RightAnswers
	for _, r := range added {
		if r.TakenBackAt != nil {
			continue
		}
		merged.Answers++
		if r.Grade > 1 {
			merged.RightAnswers++
		}
	}
	return merged
}
