package api

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/solo"
	"undaris/format/document"
	"undaris/store"
)

// invalid is the problem for a field of the request's body that cannot be used:
// status 422, with the field's path and what is allowed. An error of the core
// that names its own field is put below the given one.
func invalid(field string, err error) error {
	location := "body"
	if field != "" {
		location += "." + field
	}
	detail := err.Error()
	var value any
	var fieldError *chart.FieldError
	if errors.As(err, &fieldError) {
		location += "." + fieldError.Field
		detail = fieldError.Detail
	}
	var text *chart.TextError
	if errors.As(err, &text) {
		location += ".text"
		value = Fault{Column: text.At, Symbol: text.Symbol, Nearest: append([]string{}, text.Nearest...)}
	}
	var layout *neck.LayoutError
	if errors.As(err, &layout) && layout.Nearest.Kind != "" {
		value = map[string]any{"layout": layoutOf(layout.Nearest)}
	}
	var instrument *neck.InstrumentError
	if errors.As(err, &instrument) {
		location += "." + instrument.Field
		value = map[string]any{"instrument": document.InstrumentOf(instrument.Nearest)}
	}
	var position *neck.PositionError
	if errors.As(err, &position) {
		value = map[string]any{"position": position.Nearest}
	}
	var target *solo.TargetError
	if errors.As(err, &target) {
		value = map[string]any{"nearest": targets(target.Nearest)}
	}
	return huma.Error422UnprocessableEntity(detail, &huma.ErrorDetail{Location: location, Message: detail, Value: value})
}

// unkept is the problem for what the store refused.
func unkept(what string, id uint, err error) error {
	var stale *store.StaleError
	switch {
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound(fmt.Sprintf("there is no %s with the id %d", what, id))
	case errors.As(err, &stale):
		return huma.NewError(http.StatusPreconditionFailed,
			fmt.Sprintf("this %s was saved elsewhere in the meantime; nothing was overwritten", what),
			&huma.ErrorDetail{Location: "body.version", Message: stale.Error(), Value: stale.Current})
	}
	return err
}

// indexed is the path of one of a list.
func indexed(list string, n int) string { return fmt.Sprintf("%s[%d]", list, n) }
