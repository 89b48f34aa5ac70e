package document

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
	"undaris/core/solo/chorus"
)

// Solo is one or more choruses over a tune, in their order.
type Solo struct {
	Name     string   `json:"name" doc:"1 to 60 characters"`
	Choruses []Chorus `json:"choruses" minItems:"1" maxItems:"16"`
}

// Chorus is one time through the tune: what it was planned by, and its blocks.
type Chorus struct {
	Plan   ChorusPlan `json:"plan"`
	Stage  string     `json:"stage,omitempty" doc:"How far it has grown; left out for all of it"`
	Blocks []Block    `json:"blocks" doc:"In order of time; they do not overlap"`
}

// Block is a part of a chorus on its time line.
type Block struct {
	Kind   string  `json:"kind" enum:"lick,approach,connector,free notes,rest"`
	Name   string  `json:"name"`
	Start  int     `json:"start" doc:"A tick of the chorus; negative in a pickup"`
	Ticks  int     `json:"ticks"`
	Locked bool    `json:"locked,omitempty" doc:"It stays when the chorus is planned again"`
	Muted  bool    `json:"muted,omitempty" doc:"It is not heard"`
	Notes  []Event `json:"notes,omitempty" doc:"Its events, in ticks of the chorus"`
}

// ChorusPlan is what a chorus is planned by. What is left out is the default.
type ChorusPlan struct {
	Position    string    `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Shifts      []Shift   `json:"shifts,omitempty" maxItems:"32" doc:"Where the hand goes to at later bars; left out to stay"`
	Strategy    string    `json:"strategy,omitempty"`
	Approaches  []string  `json:"approaches,omitempty" maxItems:"32" doc:"Those allowed; left out for all"`
	Box         string    `json:"box,omitempty" doc:"The box that is played in; left out for the chart's"`
	FromLicks   bool      `json:"fromLicks,omitempty" doc:"Phrases begin with licks of the vocabulary"`
	NoBends     bool      `json:"noBends,omitempty" doc:"Nothing is bent, and licks with bends are left out"`
	Tags        []string  `json:"tags,omitempty" maxItems:"12" doc:"The licks that the vocabulary was chosen by; left out for all"`
	Subdivision string    `json:"subdivision,omitempty"`
	Density     *float64  `json:"density,omitempty" doc:"Notes a bar, on average; left out for 4"`
	Blend       []float64 `json:"blend,omitempty" maxItems:"1024" doc:"0 (the box) to 1 (chord tones), one for each bar or one for all; left out for 0.5"`
	Form        string    `json:"form,omitempty" doc:"Letters A to H with blanks between, or question-answer; left out for A A B"`
	Space       *float64  `json:"space,omitempty" doc:"The share of silence wanted, 0 to 0.6; left out for 0.25"`
	Seed        uint64    `json:"seed,omitempty" maximum:"4294967295" doc:"The same seed gives the same chorus"`
	// Part is left out for a chorus that is planned by itself.
	Part *ChorusPart `json:"part,omitempty" doc:"Its place in a solo that is planned as one"`
}

// ChorusPart is the place of a chorus among several that are planned as one.
type ChorusPart struct {
	Chorus int `json:"chorus" minimum:"1" maximum:"16" doc:"From 1"`
	Of     int `json:"of" minimum:"1" maximum:"16"`
}

// Shift moves the hand at the start of a bar.
type Shift struct {
	Bar      int    `json:"bar" doc:"From 2"`
	Position string `json:"position"`
}

// BlocksOf writes blocks as documents.
func BlocksOf(blocks []chorus.Block) []Block {
	all := make([]Block, len(blocks))
	for n, b := range blocks {
		all[n] = Block{Kind: string(b.Kind), Name: b.Name, Start: b.Start, Ticks: b.Ticks, Locked: b.Locked, Muted: b.Muted}
		if len(b.Notes) > 0 {
			all[n].Notes = PhraseOf(phrase.Phrase{Meter: chart.FourFour, Events: b.Notes}).Events
		}
	}
	return all
}

// Blocks reads blocks over a chart and checks that they are in order and can be played.
// Its error is a *chart.FieldError.
func Blocks(docs []Block, c chart.Chart, i neck.Instrument) ([]chorus.Block, error) {
	all := make([]chorus.Block, len(docs))
	for n, d := range docs {
		notes, err := Notes(d.Notes, c, i)
		if err != nil {
			return nil, noteField(fmt.Sprintf("blocks[%d].notes", n), err)
		}
		all[n] = chorus.Block{Kind: chorus.Kind(d.Kind), Name: d.Name, Start: d.Start, Ticks: d.Ticks, Locked: d.Locked, Muted: d.Muted, Notes: notes}
		if len([]rune(d.Name)) > lick.MaxName {
			return nil, &chart.FieldError{Field: fmt.Sprintf("blocks[%d].name", n), Detail: fmt.Sprintf("a block's name has at most %d characters", lick.MaxName)}
		}
	}
	return all, chorus.Chorus{Blocks: all}.Check(c.Timeline())
}

// Notes reads notes of a chorus over a chart, each of which lies on the neck. Its error is a
// *chart.FieldError.
func Notes(docs []Event, c chart.Chart, i neck.Instrument) ([]phrase.Event, error) {
	p, err := Phrase{Meter: c.Meter.String(), Events: docs}.read()
	if err != nil {
		return nil, err
	}
	return p.Events, eventField(apart(p).CheckSoFar(i))
}

// apart is a block's notes without their slurs and ties, which may come from the block
// before: those are mended where the chorus is heard.
func apart(p phrase.Phrase) phrase.Phrase {
	alone := phrase.Phrase{Meter: p.Meter, Events: slices.Clone(p.Events)}
	for n := range alone.Events {
		e := &alone.Events[n]
		e.HammerOn, e.PullOff, e.Tied = false, false, false
	}
	return alone
}

// noteField names the field of a note as one of a block's.
func noteField(notes string, err error) error {
	var field *chart.FieldError
	if !errors.As(err, &field) {
		return err
	}
	return &chart.FieldError{Field: notes + strings.TrimPrefix(field.Field, "events"), Detail: field.Detail}
}

// vocabulary is the licks that the plan may use: those with one of its tags, or all.
func (d ChorusPlan) vocabulary(licks []lick.Lick) []lick.Lick {
	if !d.FromLicks || len(d.Tags) == 0 {
		return licks
	}
	return slices.DeleteFunc(slices.Clone(licks), func(l lick.Lick) bool {
		return !slices.ContainsFunc(l.Tags, func(tag string) bool { return slices.Contains(d.Tags, tag) })
	})
}

// Request reads the plan over a chart, for hands and with a vocabulary. Its error is a
// *chart.FieldError or what FindPosition and the like return, with no field.
func (d ChorusPlan) Request(c chart.Chart, i neck.Instrument, spanMM float64, swaps []neck.Swap, licks []lick.Lick) (chorus.Request, error) {
	o := chorus.Request{
		Chart: c, Instrument: i, SpanMM: spanMM, Swaps: swaps, Licks: d.vocabulary(licks), FromLicks: d.FromLicks, NoBends: d.NoBends, Box: harmony.BoxKind(d.Box),
		Density: chorus.DefaultDensity, Space: chorus.DefaultSpace, Blend: d.Blend, Seed: d.Seed,
	}
	at := func(field string, err error) error {
		if err == nil {
			return nil
		}
		var named *chart.FieldError
		if errors.As(err, &named) {
			return err
		}
		return &chart.FieldError{Field: field, Detail: err.Error()}
	}
	if d.Part != nil {
		o.Part = chorus.Part{Chorus: d.Part.Chorus - 1, Of: d.Part.Of}
	}
	var err error
	if o.Position, err = chorus.FindPosition(c, i, c.Key, d.Position); err != nil {
		return o, at("position", err)
	}
	for n, s := range d.Shifts {
		to, err := chorus.FindPosition(c, i, c.Timeline().KeyAt(s.Bar-1), s.Position)
		if err != nil {
			return o, at(fmt.Sprintf("shifts[%d].position", n), err)
		}
		o.Shifts = append(o.Shifts, chorus.Shift{Bar: s.Bar - 1, Position: to})
	}
	if o.Strategy, err = change.ParseTargetStrategy(d.Strategy); err != nil {
		return o, at("strategy", err)
	}
	for n, name := range d.Approaches {
		a, err := change.FindApproachKind(name)
		if err != nil {
			return o, at(fmt.Sprintf("approaches[%d]", n), err)
		}
		o.Approaches = append(o.Approaches, a)
	}
	if o.Subdivision, err = c.Meter.Subdivision(d.Subdivision); err != nil {
		return o, at("subdivision", err)
	}
	if o.Form, err = chorus.ParseForm(d.Form); err != nil {
		return o, at("form", err)
	}
	if d.Density != nil {
		o.Density = *d.Density
	}
	if d.Space != nil {
		o.Space = *d.Space
	}
	return o, o.Check()
}

// tonicAt is the tonic of the key in a played bar of the chart, from 0.
func tonicAt(c chart.Chart, bar int) pitch.Class {
	return c.Timeline().KeyAt(bar).Tonic.Class()
}
