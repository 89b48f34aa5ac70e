package documents

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"undaris/store"
)

// Schema is the version of the bodies that are written now. Bodies without an envelope are of
// schema 1.
const Schema = 2

// envelope is a body as it is stored.
type envelope struct {
	Kind   store.Kind `json:"kind"`
	Schema int        `json:"schema"`
	// Sum is the beginning of the SHA-256 of the body as it is written here, so that a body that a bad disk has changed
	// is not read as if it were right; left out of what was written before there were sums, and not looked at then.
	Sum  string          `json:"sum,omitempty"`
	Body json.RawMessage `json:"body"`
}

// sumOf is the sum of a body: 16 hexadecimal digits.
func sumOf(body []byte) string {
	sum := sha256.Sum256(body)
	return hex.EncodeToString(sum[:8])
}

// DamagedError says that the body of a document cannot be read.
type DamagedError struct {
	Kind store.Kind
	ID   uint
	Err  error
}

func (e *DamagedError) Error() string { return fmt.Sprintf("what is kept cannot be read: %s", e.Err) }

func (e *DamagedError) Unwrap() error { return e.Err }

// InvalidError says why a body may not be kept: a *chart.FieldError, or another error of what
// was to be kept.
type InvalidError struct{ Err error }

func (e *InvalidError) Error() string { return e.Err.Error() }

func (e *InvalidError) Unwrap() error { return e.Err }

// seal puts a body into its envelope.
func Seal(kind store.Kind, body any) []byte {
	packed, err := json.Marshal(body)
	if err == nil {
		packed, err = json.Marshal(envelope{Kind: kind, Schema: Schema, Sum: sumOf(packed), Body: packed})
	}
	if err != nil {
		panic("a document is always writable: " + err.Error())
	}
	return packed
}

// open reads a stored body into a value, brought up to the present schema.
func Open(kind store.Kind, stored []byte, value any) error {
	body, err := current(kind, stored)
	if err != nil {
		return err
	}
	return json.Unmarshal(body, value)
}

// current is a stored body without its envelope, brought up to the present schema.
func current(kind store.Kind, stored []byte) (json.RawMessage, error) {
	sealed := envelope{Kind: kind, Schema: 1, Body: stored}
	var outer envelope
	if err := json.Unmarshal(stored, &outer); err == nil && (outer.Schema != 0 || outer.Body != nil || outer.Sum != "") {
		sealed = outer
		// A name that is none of an envelope was changed: perhaps that of the sum, which would not be looked at then.
		strict := json.NewDecoder(bytes.NewReader(stored))
		strict.DisallowUnknownFields()
		if err := strict.Decode(&envelope{}); err != nil {
			return nil, fmt.Errorf("its envelope is not what was written: %w", err)
		}
	}
	switch {
	case sealed.Schema < 1 || sealed.Body == nil:
		return nil, errors.New("its envelope names no schema, or has no body")
	case sealed.Kind != kind:
		return nil, fmt.Errorf("it is a %s and not a %s", sealed.Kind, kind)
	case sealed.Sum != "" && sealed.Sum != sumOf(sealed.Body):
		return nil, errors.New("it is not what was kept: the disk has changed it, or another program")
	case sealed.Schema > Schema:
		return nil, fmt.Errorf("it was written by a later version of Undaris (schema %d; this one reads up to %d)", sealed.Schema, Schema)
	case sealed.Schema == Schema:
		return sealed.Body, nil
	}
	var fields map[string]any
	if err := decodeNumbers(sealed.Body, &fields); err != nil {
		return nil, err
	}
	if fields["kind"] == string(kind) {
		return nil, errors.New("it is an envelope that was changed") // no body has that
	}
	for schema := sealed.Schema; schema < Schema; schema++ {
		if migrate := migrations[schema][kind]; migrate != nil {
			if err := migrate(fields); err != nil {
				return nil, fmt.Errorf("bringing it from schema %d up to %d: %w", schema, schema+1, err)
			}
		}
	}
	return json.Marshal(fields)
}

// decodeNumbers is json.Unmarshal that keeps numbers as they are written.
func decodeNumbers(text []byte, value any) error {
	decoder := json.NewDecoder(bytes.NewReader(text))
	decoder.UseNumber()
	if err := decoder.Decode(value); err != nil {
		return err
	}
	if _, err := decoder.Token(); !errors.Is(err, io.EOF) {
		return errors.New("there is more behind its end")
	}
	return nil
}
