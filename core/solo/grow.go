package solo

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/phrase"
)

// Stage is how far a chorus has grown, as players grow one: each stage is the same chorus
// with more notes between.
type Stage string

// The stages.
const (
	// Skeleton is chord tones only: landings, strong beats, what is held.
	Skeleton Stage = "chord tones"
	// Joined adds the notes of each chord's joining scale.
	Joining Stage = "joining scale"
	// Blended adds the rest of the box.
	Blended Stage = "box and chord tones"
	// Full has the passing notes too.
	Full Stage = "passing notes"
)

// Stages lists them as they grow.
var Stages = []Stage{Skeleton, Joining, Blended, Full}

// ParseStage reads a stage by its name; the empty name is the full chorus.
func ParseStage(text string) (Stage, error) {
	if text == "" {
		return Full, nil
	}
	for _, s := range Stages {
		if string(s) == text {
			return s, nil
		}
	}
	return "", &chart.FieldError{Field: "stage", Detail: fmt.Sprintf("%q is not a stage; choose chord tones, joining scale, box and chord tones, or passing notes", text)}
}

// rank is the first stage, from 0, that has a note of a class over a chord.
func (g *ground) rank(e phrase.Event, landing bool) int {
	over := g.chords[g.chordAt(e.Tick)]
	class := e.Sounding(g.Instrument).Class()
	m := g.Chart.Meter
	switch {
	case over.class[class] == harmony.Home && (landing || m.Strong(e.Tick) || e.Ticks >= m.BeatTicks()):
		return 0
	case over.class[class] == harmony.Home || over.joins[class]:
		return 1
	case g.boxed[class]:
		return 2
	}
	return 3
}

// Grown is a chorus at a stage: the notes that come later left out, those before them
// ringing on in their place. Nothing is lost: the chorus itself stays as it is. Its error
// is a *chart.FieldError.
func (o ChorusOrder) Grown(c Chorus, stage Stage) (Chorus, error) {
	if stage == Full {
		return c, nil
	}
	g, err := o.lay()
	if err != nil {
		return Chorus{}, err
	}
	return g.grown(c, stage), nil
}

func (g *ground) grown(c Chorus, stage Stage) Chorus {
	o := g.ChorusOrder
	upTo := slices.Index(Stages, stage)
	if upTo < 0 || stage == Full {
		return c
	}
	landings := map[int]bool{}
	p := c.Heard(o.Chart)
	for _, a := range g.arrivals {
		if t := g.target(p, a); t.Index >= 0 {
			landings[p.Events[t.Index].Tick] = true
		}
	}
	grown := Chorus{}
	for _, b := range c.Blocks {
		notes := []phrase.Event{}
		for _, e := range b.Notes {
			if g.rank(e, landings[e.Tick]) <= upTo {
				notes = append(notes, e)
			} else if last := len(notes) - 1; last >= 0 && notes[last].End() == e.Tick && notes[last].Ticks < o.Chart.Meter.BeatTicks() {
				notes[last].Ticks = min(notes[last].Ticks+e.Ticks, 2*o.Chart.Meter.BeatTicks())
			}
		}
		b.Notes = notes
		grown.Blocks = append(grown.Blocks, b)
	}
	return grown
}

// NoteAt is which note of the whole chorus a note of it at a stage is, by the index of its
// event; -1 stays -1. Its error is a *chart.FieldError.
func (o ChorusOrder) NoteAt(c Chorus, stage Stage, note int) (int, error) {
	if note < 0 || stage == Full {
		return note, nil
	}
	grown, err := o.Grown(c, stage)
	if err != nil {
		return 0, err
	}
	events := grown.Heard(o.Chart).Events
	if note >= len(events) {
		return 0, &chart.FieldError{Field: "edit.note", Detail: fmt.Sprintf("there is no note %d; the line has %d at this stage", note+1, len(events))}
	}
	return slices.IndexFunc(c.Heard(o.Chart).Events, func(e phrase.Event) bool {
		return e.Tick == events[note].Tick && e.String == events[note].String
	}), nil
}
