package documents

import (
	"errors"
	"fmt"

	"undaris/store"
)

// migration brings the fields of a body from one schema up to the next, in place.
type migration func(fields map[string]any) error

// migrations are by the schema they begin at, then by kind; a kind without one stays as it
// is. They are never changed once released; testdata has bodies of every earlier schema.
var migrations = map[int]map[store.Kind]migration{
	1: {store.Lick: phraseChords, store.Line: lineNotes, store.Solo: soloPlans},
}

// rename gives a field another name.
func rename(fields map[string]any, from, to string) {
	if value, ok := fields[from]; ok {
		fields[to] = value
		delete(fields, from)
	}
}

// phraseChords: the chords under a phrase were called "over".
func phraseChords(lick map[string]any) error {
	rename(lick, "over", "chords")
	return nil
}

// soloPlans: the target strategy of a plan was called its "school"; the plan of question and
// answer and the stage of the chord's scale have plain names now.
func soloPlans(body map[string]any) error {
	solo, ok := body["solo"].(map[string]any)
	if !ok {
		return errors.New("it has no solo")
	}
	choruses, _ := solo["choruses"].([]any)
	for n, one := range choruses {
		chorus, ok := one.(map[string]any)
		if !ok {
			return fmt.Errorf("chorus %d is none", n+1)
		}
		if chorus["stage"] == "joining scale" {
			chorus["stage"] = "scale of the chord"
		}
		if plan, ok := chorus["plan"].(map[string]any); ok {
			rename(plan, "school", "strategy")
			if plan["form"] == "question–answer" {
				plan["form"] = "question-answer"
			}
		}
	}
	return nil
}

// eventFields are those of a note; schema 1 kept what was said of it beside them.
var eventFields = []string{
	"tick", "ticks", "string", "fret", "finger", "slideFrom", "slideOut", "hammerOn", "pullOff", "bend", "preBend", "release", "vibrato", "mute",
	"accent", "staccato", "tied", "grace",
}

// lineNotes: schema 1 kept a line as it was answered, with its sentences. Its notes, their
// roles and where they lie stay.
func lineNotes(body map[string]any) error {
	if lick, ok := body["lick"].(map[string]any); ok {
		rename(lick, "over", "chords")
	}
	if choice, ok := body["choice"].(map[string]any); ok {
		rename(choice, "school", "strategy")
	}
	answered, ok := body["line"].(map[string]any)
	if !ok {
		return errors.New("it has no line")
	}
	written, _ := answered["events"].([]any)
	events, roles := make([]any, len(written)), make([]any, len(written))
	for n, one := range written {
		labelled, ok := one.(map[string]any)
		if !ok {
			return fmt.Errorf("note %d is none", n+1)
		}
		event := map[string]any{}
		for _, name := range eventFields {
			if value, ok := labelled[name]; ok {
				event[name] = value
			}
		}
		events[n], roles[n] = event, ""
		if role, ok := labelled["role"].(string); ok {
			roles[n] = role
		}
	}
	phrase := map[string]any{"meter": answered["meter"], "events": events}
	if chords, ok := answered["over"]; ok {
		phrase["chords"] = chords
	}
	line := map[string]any{"phrase": phrase, "roles": roles}
	for _, name := range []string{"start", "arrival", "runStart", "kept", "of"} {
		line[name] = answered[name]
	}
	body["line"] = line
	return nil
}
