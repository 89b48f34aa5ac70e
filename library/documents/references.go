package documents

import (
	"encoding/json"
	"fmt"

	"undaris/store"
)

// references calls a function with every id of another document in the fields of a body, and puts what it returns in
// its place; false leaves it as it is.
func references(kind store.Kind, fields map[string]any, change func(kind store.Kind, id uint) (uint, bool)) {
	at := func(fields map[string]any, name string, kind store.Kind) {
		number, ok := fields[name].(json.Number)
		if !ok {
			return
		}
		id, err := number.Int64()
		if err != nil || id <= 0 {
			return
		}
		if to, ok := change(kind, uint(id)); ok {
			fields[name] = json.Number(fmt.Sprint(to))
		}
	}
	switch kind {
	case store.Line:
		at(fields, "lickId", store.Lick)
	case store.Band:
		at(fields, "line", store.Solo)
		for _, routine := range objects(fields["routines"]) {
			for _, segment := range objects(routine["segments"]) {
				at(segment, "exercise", store.Exercise)
			}
		}
	case store.Session:
		of := map[string]store.Kind{"lick": store.Lick, "exercise": store.Exercise, "tune": store.Chart}
		for _, block := range objects(fields["blocks"]) {
			if name, ok := block["kind"].(string); ok && of[name] != "" {
				at(block, "item", of[name])
			}
		}
	case PracticeSetting:
		at(fields, "goalLick", store.Lick)
		at(fields, "goalTune", store.Chart)
	}
}

func objects(list any) []map[string]any {
	all, _ := list.([]any)
	out := []map[string]any{}
	for _, one := range all {
		if object, ok := one.(map[string]any); ok {
			out = append(out, object)
		}
	}
	return out
}

// remapped is a stored body with the ids of other documents changed. A body that cannot be read, or names none, comes
// back as it was.
func Remapped(kind store.Kind, stored []byte, change func(kind store.Kind, id uint) (uint, bool)) []byte {
	fields, err := Fields(kind, stored)
	if err != nil {
		return stored
	}
	different := false
	references(kind, fields, func(kind store.Kind, id uint) (uint, bool) {
		to, ok := change(kind, id)
		different = different || ok && to != id
		return to, ok
	})
	if !different {
		return stored
	}
	return Seal(kind, fields)
}

// fieldsOf is a stored body brought up to the present schema, as its fields.
func Fields(kind store.Kind, stored []byte) (map[string]any, error) {
	body, err := current(kind, stored)
	if err != nil {
		return nil, err
	}
	fields := map[string]any{}
	return fields, decodeNumbers(body, &fields)
}
