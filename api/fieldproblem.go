package api

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/choice"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/solo/line"
	"undaris/format/document"
	"undaris/format/reading"
)

// Problem is the answer to what cannot be done (RFC 9457): a sentence, and every part of the
// request that is at fault.
type Problem struct {
	Title  string         `json:"title"`
	Status int            `json:"status" doc:"The HTTP status; 422 too where a refusal is preferred as an answer"`
	Detail string         `json:"detail" doc:"What is wrong and what is allowed, in plain words"`
	Errors []FieldProblem `json:"errors,omitempty"`
}

// FieldProblem is one part of a request that cannot be used. What does not apply is left out.
type FieldProblem struct {
	Field   string `json:"field" doc:"Where in the request, as in body.bars[2].text, query.tonic or header.If-Match; kept for what the store holds"`
	Message string `json:"message"`
	// Damaged and Version are of what the store holds.
	Damaged bool `json:"damaged,omitempty" doc:"What is kept cannot be read; its earlier versions and its text can be had"`
	Version int  `json:"version,omitempty" doc:"The version that is kept now, where another was named"`
	Value   any  `json:"value,omitempty" doc:"What was given, where that is a word or a number"`
	// Line and Column are of a text.
	Line    int      `json:"line,omitempty" doc:"From 1"`
	Column  int      `json:"column,omitempty" doc:"In characters, from 1"`
	Allowed []string `json:"allowed,omitempty" doc:"What can be chosen, where it can be listed"`
	Nearest []string `json:"nearest,omitempty" doc:"What can be used instead and is nearest, the best first"`
	// What a word cannot say is nearest is said by one of these.
	NearestTargets    []Target             `json:"nearestTargets,omitempty"`
	NearestLayout     *Layout              `json:"nearestLayout,omitempty"`
	NearestInstrument *document.Instrument `json:"nearestInstrument,omitempty"`
	NearestExercise   *document.Exercise   `json:"nearestExercise,omitempty"`
}

func (p *Problem) Error() string { return p.Detail }

// GetStatus is the HTTP status.
func (p *Problem) GetStatus() int { return p.Status }

// ContentType is the media type of a problem.
func (p *Problem) ContentType(string) string { return "application/problem+json" }

func problem(status int, detail string, fields ...FieldProblem) *Problem {
	return &Problem{Title: http.StatusText(status), Status: status, Detail: detail, Errors: fields}
}

// How much is said of a request (our choice: nobody reads more, and what is refused must not cost more than what is
// taken).
const (
	mostFaults = 20
	mostValue  = 300
)

func cutTo(text string, most int) string {
	if len(text) <= most {
		return text
	}
	return strings.ToValidUTF8(text[:most], "") + " …"
}

// shortValue is what was given where that is a word, a number or a truth; nothing else is given back.
func shortValue(value any) any {
	switch v := value.(type) {
	case string:
		return cutTo(v, mostValue)
	case bool, int, int64, uint64, float64, json.Number:
		return v
	}
	return nil
}

// problemOf is a problem of errors that huma has found: a request that has not the shape of
// its operation.
func problemOf(status int, detail string, errs ...error) *Problem {
	p := problem(status, detail)
	if left := len(errs) - mostFaults; left > 0 {
		errs = append(slices.Clone(errs[:mostFaults]), fmt.Errorf("%d more faults of this request are not listed", left))
	}
	for _, err := range errs {
		var shape huma.ErrorDetailer
		switch {
		case errors.As(err, &shape):
			d := shape.ErrorDetail()
			p.Errors = append(p.Errors, FieldProblem{Field: cutTo(d.Location, mostValue), Message: cutTo(d.Message, mostValue), Value: shortValue(d.Value)})
		case err != nil:
			p.Errors = append(p.Errors, FieldProblem{Message: err.Error()})
		}
	}
	return p
}

// invalid is the problem for a field of the request's body that cannot be used: status 422,
// with the field's path and what is allowed. An error of the core that names its own field
// is put below the given one.
func invalid(field string, err error) error {
	path := "body"
	if field != "" {
		path += "." + field
	}
	return invalidAt(path, err)
}

// invalidAt is invalid for any part of a request, as in "query.tonic".
func invalidAt(path string, err error) error {
	p := fieldProblem(path, err)
	return problem(http.StatusUnprocessableEntity, p.Message, p)
}

// fieldProblem tells of an error what it knows: the field below the path, what was given,
// what is allowed and what is nearest.
func fieldProblem(path string, err error) FieldProblem {
	p := FieldProblem{Field: path, Message: err.Error()}
	var field *chart.FieldError
	if errors.As(err, &field) {
		p.Field, p.Message = path+"."+field.Field, field.Detail
	}
	var unknown *choice.Error
	if errors.As(err, &unknown) {
		p.Value, p.Allowed, p.Nearest = unknown.Name, unknown.Allowed, words(unknown.Nearest())
	}
	var symbol *harmony.SymbolError
	if errors.As(err, &symbol) {
		p.Value, p.Column, p.Nearest = harmony.Shortened(symbol.Symbol), symbol.At, symbol.Nearest
	}
	var text *chart.TextError
	if errors.As(err, &text) {
		p.Field += ".text"
		p.Value, p.Column, p.Nearest = text.Symbol, text.At, text.Nearest
	}
	var position *neck.PositionError
	if errors.As(err, &position) {
		p.Value, p.Allowed, p.Nearest = position.Text, position.Allowed, words(position.Nearest)
	}
	var layout *neck.LayoutError
	if errors.As(err, &layout) && layout.Nearest.Kind != "" {
		nearest := layoutOf(layout.Nearest)
		p.NearestLayout = &nearest
	}
	var instrument *neck.InstrumentError
	if errors.As(err, &instrument) {
		p.Field += "." + instrument.Field
		nearest := document.InstrumentOf(instrument.Nearest)
		p.NearestInstrument = &nearest
	}
	var target *line.TargetError
	if errors.As(err, &target) {
		p.NearestTargets = targets(target.Nearest)
	}
	return p
}

// faultIn is the problem of one place of a text or a file that cannot be read.
func faultIn(fault reading.Fault) FieldProblem {
	return FieldProblem{
		Field: "body", Message: fault.Detail, Line: fault.Line, Column: fault.Column,
		Value: fault.Symbol, Nearest: fault.Nearest,
	}
}

// words are those that say something.
func words(all ...string) []string {
	said := []string{}
	for _, one := range all {
		if one != "" {
			said = append(said, one)
		}
	}
	return said
}
