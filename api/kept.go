package api

import (
	"encoding/json"
	"fmt"
	"time"

	"undaris/store"
)

// Kept is what every kept thing carries.
type Kept struct {
	ID      uint      `json:"id"`
	Version int       `json:"version" doc:"Given with a save, so that no other save is overwritten"`
	Saved   time.Time `json:"saved"`
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

func keptOf(d store.Document) Kept { return Kept{ID: d.ID, Version: d.Version, Saved: d.UpdatedAt} }

// unpack reads a document's body as it was written by pack.
func unpack[T any](d store.Document) (T, error) {
	var value T
	if err := json.Unmarshal(d.Body, &value); err != nil {
		return value, fmt.Errorf("the %s with the id %d cannot be read from the data file: %w", d.Kind, d.ID, err)
	}
	return value, nil
}

// unpackAll reads the bodies of a list.
func unpackAll[T, Out any](documents []store.Document, out func(store.Document, T) Out) ([]Out, error) {
	all := make([]Out, len(documents))
	for n, d := range documents {
		value, err := unpack[T](d)
		if err != nil {
			return nil, err
		}
		all[n] = out(d, value)
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
