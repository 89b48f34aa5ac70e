package document

import (
	"fmt"
	"slices"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/choice"
	"undaris/core/routine"
)

// Band is how the band plays a tune, and the routines over it.
type Band struct {
	Style    string         `json:"style,omitempty" doc:"Left out for that of the tune's meter, feel and tempo"`
	Sound    string         `json:"sound,omitempty" doc:"What plays the chords: guitar, organ or electric piano; left out for guitar"`
	Intro    string         `json:"intro,omitempty" doc:"What comes before the first bar: one bar, two bars, turnaround or none; left out for one bar"`
	StopTime bool           `json:"stopTime,omitempty" doc:"The band strikes the first four bars of every chorus, and rests between"`
	Click    *Click         `json:"click,omitempty" doc:"Left out for every beat"`
	Levels   map[string]int `json:"levels,omitempty" doc:"How loud each part is, 0 to 100; a part left out is at 75"`
	Muted    []string       `json:"muted,omitempty" doc:"Parts that are not heard"`
	Line     uint           `json:"line,omitempty" doc:"The id of the solo that is played over the band; left out for none"`
	View     string         `json:"view,omitempty" doc:"What the stage shows; left out for tones"`
	Routines []Routine      `json:"routines,omitempty" maxItems:"100" doc:"The player's own"`
	Chosen   string         `json:"chosen,omitempty" doc:"The name of the routine that is played; left out for the first ready-made one"`
}

// What of a band may be chosen, the default first.
var (
	Sounds = []string{"guitar", "organ", "electric piano"}
	Intros = []string{"one bar", "two bars", "turnaround", "none"}
)

const (
	mostLevel = 100
	// PlainLevel is the level of a part that has none of its own.
	PlainLevel = 75
)

// Checked is the band as it is kept, with the names of its routines as they are seen, or a *chart.FieldError for
// the first thing that cannot be kept. What does not go
// with the tune as it is now may be kept, a style that its meter does not have or a routine
// that names a bar it has no more: the tune may change again.
func (b Band) Checked() (Band, error) {
	b.Routines = slices.Clone(b.Routines)
	for n := range b.Routines {
		b.Routines[n].Name = seenName(b.Routines[n].Name)
	}
	return b, b.check()
}

func (b Band) check() error {
	fail := func(field, format string, args ...any) error {
		return &chart.FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
	}
	if b.Style != "" {
		if _, err := choice.Find("a style", band.Styles, func(s band.Style) string { return s.Name }, b.Style); err != nil {
			return chart.InField("style", err)
		}
	}
	if b.Sound != "" {
		if _, err := choice.FindText("a sound of the chords", Sounds, b.Sound); err != nil {
			return chart.InField("sound", err)
		}
	}
	if b.Intro != "" {
		if _, err := choice.FindText("an intro", Intros, b.Intro); err != nil {
			return chart.InField("intro", err)
		}
	}
	if b.View != "" {
		if _, err := choice.FindText("a view of the stage", routine.Views, b.View); err != nil {
			return chart.InField("view", err)
		}
	}
	if err := b.Click.Core().Check(); err != nil {
		return fail("click", "%s", err)
	}
	for part, level := range b.Levels {
		if !slices.Contains(band.Parts, band.Part(part)) {
			return fail("levels", "%q is no part of the band", part)
		}
		if level < 0 || level > mostLevel {
			return fail("levels."+part, "a level is 0 to %d, not %d", mostLevel, level)
		}
	}
	for _, part := range b.Muted {
		if !slices.Contains(band.Parts, band.Part(part)) {
			return fail("muted", "%q is no part of the band", part)
		}
	}
	names := map[string]bool{}
	for n, r := range b.Routines {
		if r.Name == "" || len([]rune(r.Name)) > routine.MaxName {
			return fail(fmt.Sprintf("routines[%d].name", n), "a routine's name has 1 to %d characters", routine.MaxName)
		}
		if len(r.Segments) == 0 || len(r.Segments) > routine.MaxSegments {
			return fail(fmt.Sprintf("routines[%d].segments", n), "a routine has 1 to %d segments, not %d", routine.MaxSegments, len(r.Segments))
		}
		if names[r.Name] {
			return fail(fmt.Sprintf("routines[%d].name", n), "there are two routines called %q; give one another name", r.Name)
		}
		names[r.Name] = true
	}
	return nil
}
