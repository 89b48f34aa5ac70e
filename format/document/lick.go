package document

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Event is one note of a phrase.
type Event struct {
	Tick      int     `json:"tick" doc:"Where it starts, 480 to a quarter note; negative in a pickup"`
	Ticks     int     `json:"ticks" doc:"How long it lasts"`
	String    int     `json:"string" doc:"1 is the highest sounding"`
	Fret      int     `json:"fret" doc:"0 is open"`
	Finger    int     `json:"finger,omitempty" doc:"1 to 4, left out for none"`
	SlideFrom int     `json:"slideFrom,omitempty" doc:"The fret it is slid from"`
	SlideOut  string  `json:"slideOut,omitempty" enum:"up,down" doc:"Which way it slides away at its end"`
	HammerOn  bool    `json:"hammerOn,omitempty"`
	PullOff   bool    `json:"pullOff,omitempty"`
	Bend      float64 `json:"bend,omitempty" doc:"Semitones, in steps of a quarter tone (0.5)"`
	PreBend   bool    `json:"preBend,omitempty"`
	Release   bool    `json:"release,omitempty"`
	Vibrato   bool    `json:"vibrato,omitempty"`
	Mute      bool    `json:"mute,omitempty"`
	Accent    bool    `json:"accent,omitempty"`
	Staccato  bool    `json:"staccato,omitempty"`
	Tied      bool    `json:"tied,omitempty"`
	Trill     int     `json:"trill,omitempty" minimum:"0" maximum:"4" doc:"Half steps above it lies the note that it is trilled with; left out for none"`
	Rake      bool    `json:"rake,omitempty" doc:"The pick is dragged over damped thicker strings into it"`
	Ghost     bool    `json:"ghost,omitempty" doc:"Played so softly that it is hinted at"`
	Grace     bool    `json:"grace,omitempty" doc:"Crushed into the note after it"`
}

// Phrase is notes in a meter.
type Phrase struct {
	Meter  string        `json:"meter" doc:"4/4, 3/4, 6/8 or 12/8"`
	Events []Event       `json:"events" doc:"The notes in order of time"`
	Chords []PhraseChord `json:"chords,omitempty" doc:"The chords it was written over, each until the next"`
}

// PhraseChord is a chord under a phrase.
type PhraseChord struct {
	Tick  int    `json:"tick" doc:"The phrase's tick from which it sounds"`
	Chord string `json:"chord"`
	// Written is left out where the chord is no imagined one.
	Written string `json:"written,omitempty" doc:"What the band plays below an imagined chord"`
}

// Lick is a phrase kept to be used again.
type Lick struct {
	Name  string `json:"name" doc:"1 to 60 characters"`
	About string `json:"about" doc:"What it is good for, at most 200 characters"`
	Tonic string `json:"tonic" doc:"The tonic it was written over"`
	// Tags are left out for none.
	Tags []string `json:"tags,omitempty" maxItems:"12" doc:"The player's own words for it, each at most 24 characters without a comma"`
	// Tuning is left out for standard.
	Tuning string `json:"tuning,omitempty" doc:"The open strings it was written for, from the lowest up; left out for standard tuning"`
	Phrase
}

// PhraseOf writes a phrase as a document.
func PhraseOf(p phrase.Phrase) Phrase {
	d := Phrase{Meter: p.Meter.String(), Events: make([]Event, len(p.Events))}
	for n, e := range p.Events {
		d.Events[n] = Event{
			Tick: e.Tick, Ticks: e.Ticks, String: e.String, Fret: e.Fret, Finger: e.Finger,
			SlideFrom: e.SlideFrom, SlideOut: slideNames[e.SlideOut+1], HammerOn: e.HammerOn, PullOff: e.PullOff, Bend: float64(e.Bend) / 2,
			PreBend: e.PreBend, Release: e.Release, Vibrato: e.Vibrato, Mute: e.Mute, Accent: e.Accent,
			Staccato: e.Staccato, Tied: e.Tied, Grace: e.Grace, Trill: e.Trill, Rake: e.Rake, Ghost: e.Ghost,
		}
	}
	for _, from := range p.Chords {
		over := PhraseChord{Tick: from.Tick, Chord: from.Chord.Symbol()}
		if from.Written != nil {
			over.Written = from.Written.Symbol()
		}
		d.Chords = append(d.Chords, over)
	}
	return d
}

// slideNames says a slide out: down, none, up.
var slideNames = [3]string{"down", "", "up"}

// Core reads the phrase and checks that it can be played on the instrument. Its
// error is a *chart.FieldError.
func (d Phrase) Core(i neck.Instrument) (phrase.Phrase, error) {
	p, err := d.SoFar(i)
	if err != nil {
		return phrase.Phrase{}, err
	}
	return p, eventField(p.Check(i))
}

// SoFar is Core for a phrase that is being written and may have no notes yet.
func (d Phrase) SoFar(i neck.Instrument) (phrase.Phrase, error) {
	p, err := d.read()
	if err != nil {
		return phrase.Phrase{}, err
	}
	return p, eventField(p.CheckSoFar(i))
}

// read is the phrase as it is written, whether it can be played or not.
func (d Phrase) read() (phrase.Phrase, error) {
	meter, err := chart.ParseMeter(d.Meter)
	if err != nil {
		return phrase.Phrase{}, err
	}
	p := phrase.Phrase{Meter: meter, Events: make([]phrase.Event, len(d.Events))}
	for n, e := range d.Events {
		quarters := e.Bend * 2
		if quarters != math.Trunc(quarters) || math.Abs(quarters) > 100 {
			return phrase.Phrase{}, &chart.FieldError{
				Field: fmt.Sprintf("events[%d].bend", n), Detail: fmt.Sprintf("note %d: a bend of %g is not in steps of a quarter tone (0.5)", n+1, e.Bend),
			}
		}
		slideOut := slices.Index(slideNames[:], e.SlideOut) - 1
		if slideOut < -1 {
			return phrase.Phrase{}, &chart.FieldError{
				Field: fmt.Sprintf("events[%d].slideOut", n), Detail: fmt.Sprintf("note %d: it slides out up or down, not %q", n+1, e.SlideOut),
			}
		}
		p.Events[n] = phrase.Event{
			Tick: e.Tick, Ticks: e.Ticks,
			Fingered: neck.Fingered{Place: neck.Place{String: e.String, Fret: e.Fret}, Finger: e.Finger},
			Technique: phrase.Technique{
				SlideFrom: e.SlideFrom, SlideOut: slideOut, HammerOn: e.HammerOn, PullOff: e.PullOff, Bend: int(quarters), PreBend: e.PreBend,
				Release: e.Release, Vibrato: e.Vibrato, Mute: e.Mute, Accent: e.Accent, Staccato: e.Staccato, Tied: e.Tied, Grace: e.Grace, Trill: e.Trill, Rake: e.Rake, Ghost: e.Ghost,
			},
		}
	}
	for n, over := range d.Chords {
		chord, err := harmony.ParseChord(over.Chord)
		if err != nil {
			return phrase.Phrase{}, &chart.FieldError{Field: fmt.Sprintf("chords[%d].chord", n), Detail: err.Error()}
		}
		from := phrase.PhraseChord{Tick: over.Tick, Chord: chord}
		if over.Written != "" {
			written, err := harmony.ParseChord(over.Written)
			if err != nil {
				return phrase.Phrase{}, &chart.FieldError{Field: fmt.Sprintf("chords[%d].written", n), Detail: err.Error()}
			}
			from.Written = &written
		}
		p.Chords = append(p.Chords, from)
	}
	return p, nil
}

// eventField names the field of an *phrase.EventError as a path.
func eventField(err error) error {
	var event *phrase.EventError
	if !errors.As(err, &event) {
		return err
	}
	if event.Field == "events" || event.Field == "chords" {
		return &chart.FieldError{Field: event.Field, Detail: event.Detail}
	}
	return &chart.FieldError{Field: fmt.Sprintf("events[%d].%s", event.Index, event.Field), Detail: event.Error()}
}

// LickOf writes a lick as a document.
func LickOf(l lick.Lick) Lick {
	d := Lick{Name: l.Name, About: l.About, Tonic: l.Tonic.String(), Tags: l.Tags, Phrase: PhraseOf(l.Phrase)}
	if l.Instrument != nil {
		d.Tuning = l.Instrument.Tuning()
	}
	return d
}

// Core reads the lick and checks it whole. Its error is a *chart.FieldError.
func (d Lick) Core() (lick.Lick, error) {
	l, err := d.SoFar()
	if err != nil {
		return lick.Lick{}, err
	}
	return l, eventField(l.Check())
}

// SoFar is Core for a lick that is being written and may have no notes yet.
func (d Lick) SoFar() (lick.Lick, error) { return d.with(d.Phrase.SoFar) }

// Excerpt is SoFar for notes out of a longer line: slurs and ties from notes that are not
// among them are taken away, and named.
func (d Lick) Excerpt() (lick.Lick, []string, error) {
	var lost []string
	l, err := d.with(func(i neck.Instrument) (phrase.Phrase, error) {
		p, err := d.Phrase.read()
		if err != nil {
			return p, err
		}
		p, lost = p.Playable()
		return p, eventField(p.CheckSoFar(i))
	})
	return l, lost, err
}

// with is the lick with its notes as they are read for its instrument.
func (d Lick) with(notes func(neck.Instrument) (phrase.Phrase, error)) (lick.Lick, error) {
	tonic, err := pitch.ParseNote(d.Tonic)
	if err != nil {
		return lick.Lick{}, &chart.FieldError{Field: "tonic", Detail: err.Error()}
	}
	// What nobody sees of a name is left out.
	l := lick.Lick{Name: chart.Visible(d.Name), About: d.About, Tags: d.Tags, Tonic: tonic}
	if d.Tuning != "" {
		on, err := Instrument{Name: "lick", Tuning: d.Tuning, Frets: neck.MaxFrets, ScaleMM: neck.Standard().ScaleMM}.Core()
		if err != nil {
			return lick.Lick{}, &chart.FieldError{Field: "tuning", Detail: err.Error()}
		}
		l.Instrument = &on
	}
	if l.Phrase, err = notes(l.WrittenFor()); err != nil {
		return lick.Lick{}, err
	}
	return l, eventField(l.CheckSoFar())
}
