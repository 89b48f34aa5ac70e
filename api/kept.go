package api

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/store"
)

// Kept is what every kept thing carries.
type Kept struct {
	ID      uint      `json:"id"`
	Version int       `json:"version" doc:"Given with a save, so that no other save is overwritten"`
	Saved   time.Time `json:"saved"`
	// Damaged is left out of what can be read.
	Damaged string `json:"damaged,omitempty" doc:"What is wrong with one that cannot be read; then only its name, its versions and its text can be had"`
	// Mended is left out where nothing was.
	Mended []string `json:"mended,omitempty" doc:"Values that no rule of today allows, and what stands in their place until it is saved"`
}

// Revision is what every version of a kept thing carries.
type Revision struct {
	Version int       `json:"version"`
	Saved   time.Time `json:"saved"`
	Current bool      `json:"current"`
	// Label is left out of what has no name.
	Label string `json:"label,omitempty" doc:"What the player calls the version"`
	// Damaged is left out of what can be read.
	Damaged string `json:"damaged,omitempty" doc:"What is wrong with a version that cannot be read"`
}

// byID addresses one kept thing.
type byID struct {
	ID uint `path:"id"`
}

// deletion addresses one version of a kept thing.
type deletion struct {
	ID      uint `path:"id"`
	Version int  `query:"version" required:"true" minimum:"1" doc:"The version that is to be deleted"`
}

// VersionLabel names a version.
type VersionLabel struct {
	Label string `json:"label" doc:"At most 60 characters; empty takes the name away"`
}

type labelVersion struct {
	ID       uint `path:"id"`
	Revision int  `path:"revision" minimum:"1"`
	Body     VersionLabel
}

// registerKept serves what all kinds of kept things have in common, below their path.
func (s *server) registerKept(api huma.API, path, what string, kind store.Kind) {
	huma.Put(api, path+"/{id}/revisions/{revision}/label", func(_ context.Context, in *labelVersion) (*struct{}, error) {
		label := strings.TrimSpace(in.Body.Label)
		if len([]rune(label)) > store.MaxLabel {
			return nil, invalid("", &chart.FieldError{Field: "label", Detail: fmt.Sprintf("the name of a version has at most %d characters", store.MaxLabel)})
		}
		return nil, storeProblem(fmt.Sprintf("version %d of the %s", in.Revision, what), in.ID, s.store.LabelVersion(kind, in.ID, in.Revision, label))
	})
	huma.Get(api, path+"/{id}/text", func(_ context.Context, in *byID) (*file, error) {
		d, err := s.store.ReadAny(kind, in.ID)
		if err != nil {
			return nil, storeProblem(what, in.ID, err)
		}
		return &file{Type: "text/plain; charset=utf-8", Disposition: attached(d.Name + ".txt"), Body: d.Body}, nil
	})
}

func keptOf(d store.Document) Kept { return Kept{ID: d.ID, Version: d.Version, Saved: d.UpdatedAt} }

// revisionsOf are the versions of a document, newest first: itself, then those that later
// saves replaced.
func (s *server) revisionsOf(kind store.Kind, id uint) (store.Document, []store.Revision, error) {
	d, err := s.store.ReadAny(kind, id)
	if err != nil {
		return d, nil, err
	}
	earlier, err := s.store.Revisions(id)
	now := store.Revision{DocumentID: id, Version: d.Version, Name: d.Name, Label: d.Label, Body: d.Body, SavedAt: d.UpdatedAt}
	return d, append([]store.Revision{now}, earlier...), err
}

func revisionOf(r store.Revision, current int) Revision {
	return Revision{Version: r.Version, Saved: r.SavedAt, Current: r.Version == current, Label: r.Label}
}

// damagedError says that the body of a document cannot be read.
type damagedError struct {
	kind store.Kind
	id   uint
	err  error
}

func (e *damagedError) Error() string { return fmt.Sprintf("what is kept cannot be read: %s", e.err) }

func (e *damagedError) Unwrap() error { return e.err }

// unpack reads a document's body as it was written by pack. Its error is a *damagedError.
func unpack[T any](d store.Document) (T, error) {
	var value T
	if err := json.Unmarshal(d.Body, &value); err != nil {
		return value, &damagedError{d.Kind, d.ID, err}
	}
	return value, nil
}

// listing is one document of a list: what it is kept as, and its summary.
type listing[Summary any] struct {
	kept    Kept
	summary Summary
}

// listed makes a list from the summaries of its documents, without their bodies. A
// document without a summary is read; its summary is kept for the next time, unless it had
// to be mended. One that cannot be read is listed as damaged.
func listed[Summary any](s *server, documents []store.Document, read func(store.Document) (summary Summary, mended []string, err error)) ([]listing[Summary], error) {
	all := make([]listing[Summary], len(documents))
	for n, d := range documents {
		all[n].kept = keptOf(d)
		if len(d.Summary) > 0 && json.Unmarshal(d.Summary, &all[n].summary) == nil {
			continue
		}
		whole, err := s.store.ReadAny(d.Kind, d.ID)
		if err != nil {
			return nil, err
		}
		summary, mended, err := read(whole)
		if err != nil {
			all[n].kept.Damaged = err.Error()
			continue
		}
		all[n].summary, all[n].kept.Mended = summary, mended
		if mended != nil {
			continue
		}
		if err := s.store.KeepSummary(d, pack(summary)); err != nil {
			s.log.Warn("a summary could not be kept", "kind", d.Kind, "id", d.ID, "error", err)
		}
	}
	return all, nil
}

func pack(value any) []byte {
	body, err := json.Marshal(value)
	if err != nil {
		panic("a document is always writable: " + err.Error())
	}
	return body
}
