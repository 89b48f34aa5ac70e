package documents

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"slices"
	"strings"
	"time"

	"undaris/core/chart"
	"undaris/store"
)

// Library is the documents of one data file.
type Library struct {
	store *store.Store
	log   *slog.Logger
}

// New is the library over a data file. What does not keep a document from being read is
// told to the log.
func New(st *store.Store, log *slog.Logger) *Library {
	return &Library{store: st, log: log}
}

// Store is the data file that the documents are in, within the transaction that they are.
func (l *Library) Store() *store.Store { return l.store }

// IsNew says whether the data file has never held a document.
func (l *Library) IsNew(ctx context.Context) (bool, error) { return l.store.New(ctx) }

// Together runs several writes as one: all of them are kept, or none.
func (l *Library) Together(ctx context.Context, writes func(*Library) error) error {
	return l.store.Together(ctx, func(st *store.Store) error { return writes(New(st, l.log)) })
}

// Info is what is kept of every document beside its body.
type Info struct {
	ID      uint
	Version int
	Saved   time.Time
	Name    string
	// ChartID is the tune that it belongs to; 0 for none.
	ChartID uint
	// Practised is when it was last played; nil for never.
	Practised *time.Time
	// Deleted is when it was deleted; zero for what is not.
	Deleted time.Time
}

func infoOf(d store.Document) Info {
	i := Info{ID: d.ID, Version: d.Version, Saved: d.UpdatedAt, Name: d.Name, Practised: d.PractisedAt}
	if d.DeletedAt.Valid {
		i.Deleted = d.DeletedAt.Time
	}
	if d.ChartID != nil {
		i.ChartID = *d.ChartID
	}
	return i
}

// Item is one document, read.
type Item[Body any] struct {
	Info
	Body Body
	// Mended says which of its values no rule of today allows, and what stands in their place
	// until it is saved.
	Mended []string
}

// Entry is one document of a list: its summary, without its body.
type Entry[Summary any] struct {
	Info
	Summary Summary
	// Damaged says what is wrong with one that cannot be read; then it has no summary.
	Damaged string
	Mended  []string
}

// Revision is one version of a document.
type Revision[Body any] struct {
	Version int
	Saved   time.Time
	Current bool
	Name    string
	// Label is what the player calls the version; empty for none.
	Label string
	Body  Body
	// Damaged says what is wrong with a body that cannot be read.
	Damaged string
}

// Save says which version a save replaces.
type Save struct {
	Version int
	// KeepBefore keeps the version that is replaced, even if it is of the same sitting.
	KeepBefore bool
}

// Kind is one kind of document, and what is done with it.
type Kind[Body, Summary any] struct {
	// Noun is what one is called.
	Noun string
	kind store.Kind
	// check returns a body as it is kept, or a *chart.FieldError.
	check func(Body) (Body, error)
	// mend returns a body that was read with what no rule of today allows brought to the
	// nearest that is allowed, and what was done; nil where none is.
	mend func(Body) (Body, []string)
	name func(Body) string
	// rename gives a copy another name; nil where there can be no copy.
	rename    func(Body, string) Body
	maxName   int
	summarize func(Body) Summary
}

func (k Kind[Body, Summary]) document(body Body) store.Document {
	d := store.Document{Kind: k.kind, Name: k.name(body), Body: Seal(k.kind, body)}
	d.Summary, _ = json.Marshal(k.summarize(body))
	return d
}

// read opens the body of a document. Its error is a *DamagedError.
func (k Kind[Body, Summary]) read(d store.Document) (Item[Body], error) {
	item := Item[Body]{Info: infoOf(d)}
	var err error
	if d.Damaged != "" {
		err = errors.New(d.Damaged)
	} else {
		err = Open(k.kind, d.Body, &item.Body)
	}
	if err == nil {
		item.Body, item.Mended, err = k.readable(item.Body)
	}
	if err != nil {
		return item, &DamagedError{Kind: k.kind, ID: d.ID, Err: err}
	}
	return item, nil
}

// readable is a body as it can be shown, mended where it must be.
func (k Kind[Body, Summary]) readable(body Body) (Body, []string, error) {
	_, err := k.check(body)
	if err == nil || k.mend == nil {
		return body, nil, err
	}
	mended, remarks := k.mend(body)
	_, err = k.check(mended)
	return mended, remarks, err
}

// Create checks a body and keeps it, for a tune where the kind belongs to one (0 for none).
func (k Kind[Body, Summary]) Create(ctx context.Context, l *Library, body Body, chartID uint) (Item[Body], error) {
	return k.CreateOnce(ctx, l, "", body, chartID)
}

// CreateOnce is Create of a document that its author has given a uid: asked for again, because the answer has been lost on
// its way, it is the one that was kept the first time, as it is now.
func (k Kind[Body, Summary]) CreateOnce(ctx context.Context, l *Library, uid string, body Body, chartID uint) (Item[Body], error) {
	checked, err := k.check(body)
	if err != nil {
		return Item[Body]{}, &InvalidError{Err: err}
	}
	d := k.document(checked)
	d.UID = uid
	if chartID != 0 {
		d.ChartID = &chartID
	}
	// A save that has been asked for is made, though the page that asked is closed.
	d, err = l.store.Create(context.WithoutCancel(ctx), d)
	if err != nil {
		return Item[Body]{}, err
	}
	return k.read(d)
}

// Read returns one document.
func (k Kind[Body, Summary]) Read(ctx context.Context, l *Library, id uint) (Item[Body], error) {
	d, err := l.store.Read(ctx, k.kind, id)
	if err != nil {
		return Item[Body]{}, err
	}
	return k.read(d)
}

// ReadAll returns every document of the kind that can be read, in the order they were made:
// those over one tune, or all of them for 0.
func (k Kind[Body, Summary]) ReadAll(ctx context.Context, l *Library, chartID uint) ([]Item[Body], error) {
	all, faults, err := k.ReadAllWithDamaged(ctx, l, chartID)
	return slices.DeleteFunc(all, func(item Item[Body]) bool { return faults[item.ID] != nil }), err
}

// ReadAllWithDamaged is ReadAll with those that cannot be read: they have an empty body, and
// what is wrong with them is in the errors by their ids.
func (k Kind[Body, Summary]) ReadAllWithDamaged(ctx context.Context, l *Library, chartID uint) ([]Item[Body], map[uint]error, error) {
	documents, err := l.store.List(ctx, k.kind, chartID)
	if err != nil {
		return nil, nil, err
	}
	items, faults := make([]Item[Body], len(documents)), map[uint]error{}
	for n, d := range documents {
		item, err := k.read(d)
		if err != nil {
			item = Item[Body]{Info: infoOf(d)}
			faults[d.ID] = err
		}
		items[n] = item
	}
	return items, faults, nil
}

// Names lists the documents of the kind by id and name.
func (k Kind[Body, Summary]) Names(ctx context.Context, l *Library) (string, error) {
	all, err := l.store.Entries(ctx, k.kind, 0)
	names := make([]string, len(all))
	for n, d := range all {
		names[n] = fmt.Sprintf("%d (%s)", d.ID, d.Name)
	}
	return strings.Join(names, ", "), err
}

// List lists the documents of the kind in the order they were made, those over one tune, or
// all of them for 0.
func (k Kind[Body, Summary]) List(ctx context.Context, l *Library, chartID uint) ([]Entry[Summary], error) {
	documents, err := l.store.Entries(ctx, k.kind, chartID)
	if err != nil {
		return nil, err
	}
	return k.entries(ctx, l, documents)
}

// Changes is how often documents of the kind were written: as long as it is the same, so are they.
func (k Kind[Body, Summary]) Changes(ctx context.Context, l *Library) (int, error) {
	return l.store.ChangesOf(ctx, k.kind)
}

// Page is List of some of them.
func (k Kind[Body, Summary]) Page(ctx context.Context, l *Library, chartID uint, page store.Page) ([]Entry[Summary], error) {
	documents, err := l.store.EntriesOf(ctx, k.kind, chartID, page)
	if err != nil {
		return nil, err
	}
	return k.entries(ctx, l, documents)
}

// Deleted lists the deleted documents of the kind, the latest first.
func (k Kind[Body, Summary]) Deleted(ctx context.Context, l *Library) ([]Entry[Summary], error) {
	documents, err := l.store.Deleted(ctx, k.kind)
	if err != nil {
		return nil, err
	}
	return k.entries(ctx, l, documents)
}

// entries makes a list from the summaries of its documents, without their bodies. A document
// without a summary is read; its summary is kept for the next time, unless it had to be
// mended. One that cannot be read is listed as damaged.
func (k Kind[Body, Summary]) entries(ctx context.Context, l *Library, documents []store.Document) ([]Entry[Summary], error) {
	all := make([]Entry[Summary], len(documents))
	anew := []store.Document{}
	for n, d := range documents {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		all[n].Info = infoOf(d)
		if d.Damaged != "" {
			all[n].Damaged = (&DamagedError{Kind: k.kind, ID: d.ID, Err: errors.New(d.Damaged)}).Error()
			continue
		}
		if len(d.Summary) > 0 && json.Unmarshal(d.Summary, &all[n].Summary) == nil {
			continue
		}
		whole, err := l.store.ReadAny(ctx, k.kind, d.ID)
		if err != nil {
			return nil, err
		}
		item, err := k.read(whole)
		if err != nil {
			all[n].Damaged = err.Error()
			continue
		}
		all[n].Summary, all[n].Mended = k.summarize(item.Body), item.Mended
		if item.Mended != nil {
			continue
		}
		d.Summary, _ = json.Marshal(all[n].Summary)
		anew = append(anew, d)
	}
	if err := l.store.KeepSummaries(ctx, anew); err != nil {
		l.log.Warn("summaries could not be kept", "kind", k.kind, "count", len(anew), "error", err)
	}
	return all, nil
}

// Replace checks a body and saves it over a version. A body that cannot be read is never
// written over without being kept as a revision.
func (k Kind[Body, Summary]) Replace(ctx context.Context, l *Library, id uint, save Save, body Body) (Item[Body], error) {
	checked, err := k.check(body)
	if err != nil {
		return Item[Body]{}, &InvalidError{Err: err}
	}
	if before, err := l.store.Read(ctx, k.kind, id); err == nil {
		if _, err := k.read(before); err != nil {
			save.KeepBefore = true
		}
	}
	d := k.document(checked)
	kept, err := l.store.Replace(context.WithoutCancel(ctx), k.kind, id, store.Save{Version: save.Version, Name: d.Name, Body: d.Body, Summary: d.Summary, KeepBefore: save.KeepBefore})
	return Item[Body]{Info: infoOf(kept), Body: checked}, err
}

// Duplicate keeps a copy under a name of its own.
func (k Kind[Body, Summary]) Duplicate(ctx context.Context, l *Library, id uint) (Item[Body], error) {
	item, err := k.Read(ctx, l, id)
	if err != nil {
		return item, err
	}
	return k.Create(ctx, l, k.rename(item.Body, copyName(item.Name, k.maxName)), item.ChartID)
}

// copyName names a copy, within the length a name may have.
func copyName(name string, most int) string {
	const mark = ", copy"
	runes := []rune(name)
	return strings.TrimSpace(string(runes[:min(len(runes), most-len(mark))])) + mark
}

// Delete takes a document out of every list; Restore brings it back.
func (k Kind[Body, Summary]) Delete(ctx context.Context, l *Library, id uint, version int) error {
	return l.store.Delete(context.WithoutCancel(ctx), k.kind, id, version)
}

// Restore brings a deleted document back as it was.
func (k Kind[Body, Summary]) Restore(ctx context.Context, l *Library, id uint) (Item[Body], error) {
	d, err := l.store.Restore(context.WithoutCancel(ctx), k.kind, id)
	if err != nil {
		return Item[Body]{}, err
	}
	return k.read(d)
}

// Practised notes that a document was played now.
func (k Kind[Body, Summary]) Practised(ctx context.Context, l *Library, id uint) error {
	return l.store.Practised(context.WithoutCancel(ctx), k.kind, id, time.Now())
}

// Revisions lists the versions of a document, deleted or not, newest first: itself, then
// those that later saves replaced.
func (k Kind[Body, Summary]) Revisions(ctx context.Context, l *Library, id uint) ([]Revision[Body], error) {
	d, err := l.store.ReadAny(ctx, k.kind, id)
	if err != nil {
		return nil, err
	}
	earlier, err := l.store.Revisions(ctx, id)
	if err != nil {
		return nil, err
	}
	now := store.Revision{DocumentID: id, Version: d.Version, Name: d.Name, Label: d.Label, Body: d.Body, SavedAt: d.UpdatedAt}
	all := make([]Revision[Body], 0, len(earlier)+1)
	for _, r := range append([]store.Revision{now}, earlier...) {
		one := Revision[Body]{Version: r.Version, Saved: r.SavedAt, Current: r.Version == d.Version, Name: r.Name, Label: r.Label}
		item, err := k.read(store.Document{ID: id, Kind: k.kind, Body: r.Body})
		if err != nil {
			one.Damaged = err.Error()
		} else {
			one.Body = item.Body
		}
		all = append(all, one)
	}
	return all, nil
}

// RestoreRevision makes an earlier version the present one again; the present one is kept.
func (k Kind[Body, Summary]) RestoreRevision(ctx context.Context, l *Library, id uint, revision, version int) (Item[Body], error) {
	r, err := l.store.Revision(ctx, id, revision)
	if err != nil {
		return Item[Body]{}, err
	}
	// What cannot be read is not made the present version: it would only be found damaged then.
	if _, err := k.read(store.Document{ID: id, Kind: k.kind, Body: r.Body}); err != nil {
		return Item[Body]{}, err
	}
	d, err := l.store.Replace(context.WithoutCancel(ctx), k.kind, id, store.Save{Version: version, Name: r.Name, Body: r.Body, KeepBefore: true})
	if err != nil {
		return Item[Body]{}, err
	}
	return k.read(d)
}

// LabelVersion names a version of a document, the present one or an earlier; an empty label
// takes the name away. Its error is a *chart.FieldError for a label that is too long.
func (k Kind[Body, Summary]) LabelVersion(ctx context.Context, l *Library, id uint, version int, label string) error {
	label = strings.TrimSpace(label)
	if len([]rune(label)) > store.MaxLabel {
		return &chart.FieldError{Field: "label", Detail: fmt.Sprintf("the name of a version has at most %d characters", store.MaxLabel)}
	}
	return l.store.LabelVersion(context.WithoutCancel(ctx), k.kind, id, version, label)
}

// Text is the body of a document as it is stored, whether it can be read or not, and its name.
func (k Kind[Body, Summary]) Text(ctx context.Context, l *Library, id uint) (name string, text []byte, err error) {
	d, err := l.store.ReadAny(ctx, k.kind, id)
	return d.Name, d.Body, err
}
