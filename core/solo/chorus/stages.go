package chorus

import (
	"fmt"
	"slices"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/choice"
	"undaris/core/harmony"
	"undaris/core/phrase"
)

// Stage is how far a chorus has grown, as players grow one: each stage is the same chorus
// with more notes between.
type Stage string

// The stages.
const (
	// ChordToneStage is chord tones only: landings, strong beats, what is held.
	ChordToneStage Stage = "chord tones"
	// ScaleStage adds the notes of each chord's scale.
	ScaleStage Stage = "scale of the chord"
	// BoxStage adds the rest of the box.
	BoxStage Stage = "box and chord tones"
	// FullStage has the passing notes too.
	FullStage Stage = "passing notes"
)

// Stages lists them as they grow.
var Stages = []Stage{ChordToneStage, ScaleStage, BoxStage, FullStage}

// ParseStage reads a stage by its name; the empty name is the full chorus.
func ParseStage(text string) (Stage, error) {
	if text == "" {
		return FullStage, nil
	}
	s, err := choice.FindText("a stage", Stages, text)
	return s, chart.InField("stage", err)
}

// firstStageWith is the first stage, from 0, that has a note of a class over a chord.
func (pc *Context) firstStageWith(e phrase.Event, landing bool) int {
	over := pc.Chords[pc.ChordAt(e.Tick)]
	class := e.Sounding(pc.Instrument).Class()
	switch {
	case over.Class[class] == harmony.ChordTone && (landing || pc.Time.IsStrong(e.Tick) || analysis.IsLong(e, pc.Time.MeterAt(pc.Time.BarAt(e.Tick)))):
		return 0
	case over.Class[class] == harmony.ChordTone || over.InScale[class]:
		return 1
	case over.InBox[class]:
		return 2
	}
	return 3
}

// Grown is a chorus at a stage: the notes that come later left out, those before them
// ringing on in their place. Nothing is lost: the chorus itself stays as it is. Its error
// is a *chart.FieldError.
func (o Request) Grown(c Chorus, stage Stage) (Chorus, error) {
	if stage == FullStage {
		return c, nil
	}
	pc, err := o.NewContext()
	if err != nil {
		return Chorus{}, err
	}
	return pc.grown(c, stage), nil
}

func (pc *Context) grown(c Chorus, stage Stage) Chorus {
	o := pc.Request
	upTo := slices.Index(Stages, stage)
	if upTo < 0 || stage == FullStage {
		return c
	}
	landings := map[int]bool{}
	p := c.Phrase(o.Chart)
	for _, a := range pc.Targets {
		if t := pc.Landing(p, a); t.Index >= 0 {
			landings[p.Events[t.Index].Tick] = true
		}
	}
	grown := Chorus{}
	for _, b := range c.Blocks {
		notes := []phrase.Event{}
		for _, e := range b.Notes {
			if pc.firstStageWith(e, landings[e.Tick]) <= upTo {
				notes = append(notes, e)
			} else if last := len(notes) - 1; last >= 0 && notes[last].End() == e.Tick && notes[last].Ticks < pc.Time.BeatTicksAt(e.Tick) {
				notes[last].Ticks = min(notes[last].Ticks+e.Ticks, 2*pc.Time.BeatTicksAt(e.Tick))
			}
		}
		b.Notes = notes
		grown.Blocks = append(grown.Blocks, b)
	}
	return grown
}

// NoteInWhole is which note of the whole chorus a note of it at a stage is, by the index of its
// event; -1 stays -1. Its error is a *chart.FieldError.
func (o Request) NoteInWhole(c Chorus, stage Stage, note int) (int, error) {
	if note < 0 || stage == FullStage {
		return note, nil
	}
	grown, err := o.Grown(c, stage)
	if err != nil {
		return 0, err
	}
	events := grown.Phrase(o.Chart).Events
	if note >= len(events) {
		return 0, &chart.FieldError{Field: "edit.note", Detail: fmt.Sprintf("there is no note %d; the line has %d at this stage", note+1, len(events))}
	}
	return slices.IndexFunc(c.Phrase(o.Chart).Events, func(e phrase.Event) bool {
		return e.Tick == events[note].Tick && e.String == events[note].String
	}), nil
}
