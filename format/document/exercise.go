package document

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/lick"
)

// Exercise is an exercise as it is kept: what is walked, over what, where, how and when. What is
// left out is the plain choice.
type Exercise struct {
	Name         string            `json:"name" doc:"1 to 60 characters"`
	About        string            `json:"about" doc:"What it is good for, at most 200 characters"`
	Tags         []string          `json:"tags,omitempty" maxItems:"12" doc:"The player's own words for it, each at most 24 characters without a comma"`
	Tones        string            `json:"tones,omitempty" doc:"What is walked; left out for chord tones"`
	Extensions   []int             `json:"extensions,omitempty" maxItems:"3" doc:"9, 11 and 13 that are added to an arpeggio"`
	Superimposed int               `json:"superimposed,omitempty" doc:"The degree that a superimposed arpeggio stands on: 3, 5, 7 or 9; left out for the best"`
	Broken       bool              `json:"broken,omitempty" doc:"The notes of a structure one after the other"`
	Over         ExerciseOver      `json:"over"`
	Where        ExerciseWhere     `json:"where"`
	Order        ExerciseOrder     `json:"order"`
	Into         string            `json:"into,omitempty" doc:"How a chord is led into the next; left out for directly"`
	Ornaments    ExerciseOrnaments `json:"ornaments"`
	Time         ExerciseTime      `json:"time"`
	Position     string            `json:"position,omitempty" doc:"Where the hand stands: a form, or a position's id; left out for the home position"`
}

// ExerciseOver is what an exercise is walked over.
type ExerciseOver struct {
	Kind  string `json:"kind,omitempty" doc:"Left out for the tune"`
	From  int    `json:"from,omitempty" minimum:"0" doc:"The first bar of the tune, from 1; left out for 1"`
	Bars  int    `json:"bars,omitempty" minimum:"0" maximum:"64" doc:"How many bars; left out for all, or for four of one chord"`
	Chord string `json:"chord,omitempty" doc:"The one chord; left out for that of the tonic"`
	Text  string `json:"text,omitempty" maxLength:"2000" doc:"A progression in bar notation" example:"| Am7 | D7 |"`
}

// ExerciseWhere is where on the neck an exercise lies.
type ExerciseWhere struct {
	Kind       string `json:"kind,omitempty" doc:"Left out for in position"`
	LowString  int    `json:"lowString,omitempty" doc:"The lowest number of the strings, 1 the highest sounding; left out with highString for all"`
	HighString int    `json:"highString,omitempty" doc:"The highest number of the strings"`
	LowFret    int    `json:"lowFret,omitempty"`
	HighFret   int    `json:"highFret,omitempty"`
	PerString  int    `json:"perString,omitempty" doc:"Notes on a string"`
}

// ExerciseOrder is the order of an exercise's tones.
type ExerciseOrder struct {
	Direction string `json:"direction,omitempty" doc:"Left out for up and down"`
	Start     string `json:"start,omitempty" doc:"Where each chord begins; left out for the nearest tone"`
	Figure    string `json:"figure,omitempty" doc:"Left out for one after another"`
	Numbers   []int  `json:"numbers,omitempty" maxItems:"24" doc:"The player's own figure, in steps from 1"`
	Turn      string `json:"turn,omitempty" doc:"Which way round; left out for as written"`
}

// ExerciseOrnaments are notes and techniques added to an exercise.
type ExerciseOrnaments struct {
	Before      string `json:"before,omitempty" doc:"What leads into some tones; left out for nothing"`
	To          []int  `json:"to,omitempty" maxItems:"7" doc:"The degrees that are led into; left out for the 5"`
	Tail        string `json:"tail,omitempty"`
	Slurs       bool   `json:"slurs,omitempty"`
	Slides      bool   `json:"slides,omitempty"`
	Trill       bool   `json:"trill,omitempty"`
	SkipStrings bool   `json:"skipStrings,omitempty"`
}

// ExerciseTime is when the notes of an exercise are played.
type ExerciseTime struct {
	Subdivision string `json:"subdivision,omitempty" doc:"Left out for eighths"`
	Pattern     string `json:"pattern,omitempty" doc:"Left out for through"`
	Notes       int    `json:"notes,omitempty" doc:"Of a run into a chord, the landing counted; left out for 5"`
	Accent      int    `json:"accent,omitempty" doc:"Every so many-th note is accented"`
	Play        int    `json:"play,omitempty" doc:"So many notes are played"`
	Rest        int    `json:"rest,omitempty" doc:"and so many left out"`
	NoEnding    bool   `json:"noEnding,omitempty" doc:"Without the held last note"`
}

// Core reads the choices. Its error is a *chart.FieldError.
func (d Exercise) Core() (exercise.Exercise, error) {
	e := exercise.Exercise{
		Tones: exercise.Tones(d.Tones), Extensions: d.Extensions, Superimposed: d.Superimposed, Broken: d.Broken, Into: exercise.Into(d.Into),
		Over:  exercise.Over{Kind: exercise.OverKind(d.Over.Kind), From: max(d.Over.From-1, 0), Bars: d.Over.Bars, Text: d.Over.Text},
		Where: exercise.Where{Kind: exercise.WhereKind(d.Where.Kind), LowString: d.Where.LowString, HighString: d.Where.HighString, LowFret: d.Where.LowFret, HighFret: d.Where.HighFret, PerString: d.Where.PerString},
		Order: exercise.Order{Direction: exercise.Direction(d.Order.Direction), Start: exercise.Start(d.Order.Start), Figure: exercise.Figure(d.Order.Figure), Numbers: d.Order.Numbers, Turn: exercise.FigureTurn(d.Order.Turn)},
		Ornaments: exercise.Ornaments{
			Before: exercise.Approach(d.Ornaments.Before), To: d.Ornaments.To, Tail: exercise.Tail(d.Ornaments.Tail), Slurs: d.Ornaments.Slurs,
			Slides: d.Ornaments.Slides, Trill: d.Ornaments.Trill, SkipStrings: d.Ornaments.SkipStrings,
		},
		Time: exercise.Time{Subdivision: d.Time.Subdivision, Pattern: exercise.Pattern(d.Time.Pattern), Notes: d.Time.Notes, Accent: d.Time.Accent, Play: d.Time.Play, Rest: d.Time.Rest, NoEnding: d.Time.NoEnding},
	}
	if d.Over.Chord != "" {
		chord, err := harmony.ParseChord(d.Over.Chord)
		if err != nil {
			return e, &chart.FieldError{Field: "over.chord", Detail: err.Error(), Cause: err}
		}
		e.Over.Chord = &chord
	}
	return e, nil
}

// ExerciseOf writes an exercise as a document, with what the player calls it.
func ExerciseOf(e exercise.Exercise, name, about string) Exercise {
	d := Exercise{
		Name: name, About: about, Tones: string(e.Tones), Extensions: e.Extensions, Superimposed: e.Superimposed, Broken: e.Broken, Into: string(e.Into),
		Over:  ExerciseOver{Kind: string(e.Over.Kind), Bars: e.Over.Bars, Text: e.Over.Text},
		Where: ExerciseWhere{Kind: string(e.Where.Kind), LowString: e.Where.LowString, HighString: e.Where.HighString, LowFret: e.Where.LowFret, HighFret: e.Where.HighFret, PerString: e.Where.PerString},
		Order: ExerciseOrder{Direction: string(e.Order.Direction), Start: string(e.Order.Start), Figure: string(e.Order.Figure), Numbers: e.Order.Numbers, Turn: string(e.Order.Turn)},
		Ornaments: ExerciseOrnaments{
			Before: string(e.Ornaments.Before), To: e.Ornaments.To, Tail: string(e.Ornaments.Tail), Slurs: e.Ornaments.Slurs,
			Slides: e.Ornaments.Slides, Trill: e.Ornaments.Trill, SkipStrings: e.Ornaments.SkipStrings,
		},
		Time: ExerciseTime{Subdivision: e.Time.Subdivision, Pattern: string(e.Time.Pattern), Notes: e.Time.Notes, Accent: e.Time.Accent, Play: e.Time.Play, Rest: e.Time.Rest, NoEnding: e.Time.NoEnding},
	}
	if e.Over.From > 0 {
		d.Over.From = e.Over.From + 1
	}
	if e.Over.Chord != nil {
		d.Over.Chord = e.Over.Chord.Symbol()
	}
	return d
}

// Checked is the exercise as it is kept, or a *chart.FieldError. Choices that only some tunes or necks
// allow are kept as they are: what is in the way is said where they are walked.
func (d Exercise) Checked() (Exercise, error) {
	d.Name = seenName(d.Name)
	switch {
	case d.Name == "" || len([]rune(d.Name)) > lick.MaxName:
		return d, &chart.FieldError{Field: "name", Detail: fmt.Sprintf("an exercise's name has 1 to %d characters", lick.MaxName)}
	case len([]rune(d.About)) > lick.MaxAbout:
		return d, &chart.FieldError{Field: "about", Detail: fmt.Sprintf("what an exercise is good for has at most %d characters", lick.MaxAbout)}
	case len([]rune(d.Position)) > 20:
		return d, &chart.FieldError{Field: "position", Detail: "a position is a form or an id, as in E or E-7"}
	}
	if err := lick.CheckTags(d.Tags); err != nil {
		return d, err
	}
	e, err := d.Core()
	if err != nil {
		return d, err
	}
	if err := e.CheckNames(); err != nil {
		return d, err
	}
	kept := ExerciseOf(e, d.Name, d.About)
	kept.Tags, kept.Position = slices.Clone(d.Tags), d.Position
	return kept, nil
}
