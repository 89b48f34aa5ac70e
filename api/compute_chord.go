package api

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// ChordRequest asks for one chord in one position, with all that can be laid
// over it.
type ChordRequest struct {
	PlayContext
	Chord    string `json:"chord"`
	Next     string `json:"next,omitempty" doc:"The chord after it, whose tones are laid over as well"`
	Position string `json:"position,omitempty" doc:"A position's id or form; left out for the E form"`
	Slide    bool   `json:"slide,omitempty" doc:"Take the position by the chord: the form at the chord's own place"`
	Layout   Layout `json:"layout,omitempty"`
}

// Layout says which tones a shape takes, and how many a string.
type Layout struct {
	Kind string `json:"kind,omitempty" doc:"One of the layouts; left out for all tones"`
	From string `json:"from,omitempty" doc:"The degree that one octave starts from"`
	Low  int    `json:"low,omitempty" doc:"The first of some strings (1 is the highest sounding) or frets"`
	High int    `json:"high,omitempty" doc:"The last of them"`
}

// LayoutChoice is a layout that can be chosen, as it is begun with.
type LayoutChoice struct {
	Layout
	Text  string `json:"text"`
	Unit  string `json:"unit,omitempty" enum:"string,fret" doc:"What low and high count; left out where the layout has no bounds"`
	Least int    `json:"least,omitempty" doc:"The least that low may be"`
	Most  int    `json:"most,omitempty" doc:"The most that high may be"`
}

// ChordView is one chord in one position.
type ChordView struct {
	Position     Position       `json:"position"`
	Shape        Shape          `json:"shape"`
	Layouts      []LayoutChoice `json:"layouts" doc:"All that can be chosen; the first is that of all tones"`
	Easier       *Easier        `json:"easier,omitempty" doc:"The nearest placing within the player's span, where the shape is wider"`
	Recurrences  []Recurrence   `json:"recurrences" doc:"Where the same shape comes back in this tune"`
	ChordScale   Overlay        `json:"chordScale"`
	Extensions   Overlay        `json:"extensions"`
	Blend        Overlay        `json:"blend"`
	Next         Overlay        `json:"next"`
	Superimposed []Superimposed `json:"superimposed" doc:"Arpeggios of other chords to play over it, best first"`
	Function     string         `json:"function" doc:"The numeral of the chord in the key that holds there" example:"V7"`
	Scales       []ScaleOption  `json:"scales" doc:"The scales that a dominant can be played by, the calmest first; none over other chords"`
	Smaller      []SmallerShape `json:"smaller" doc:"Smaller structures of the chord in the position, kind by kind"`
}

// ScaleOption is a scale that a chord can be played by.
type ScaleOption struct {
	Name string `json:"name" example:"Lydian dominant"`
	Adds []Tone `json:"adds" doc:"What it has beside the chord"`
	Use  string `json:"use" doc:"When players take it"`
	Held bool   `json:"held" doc:"It is the one that is followed"`
	// ChosenFor is left out where nobody chose it.
	ChosenFor string `json:"chosenFor,omitempty" enum:"chord,function"`
}

func (o playContext) scales(k harmony.Key, chord harmony.Chord) []ScaleOption {
	held, _ := k.ChordScale(chord)
	chosen := o.chart.ScaleChosen(k, chord)
	return each(chord.Scales(), func(s harmony.ScaleChoice) ScaleOption {
		one := ScaleOption{Name: s.Name, Use: s.Use, Held: s.Name == held.Name, Adds: each(s.Adds, func(t harmony.Tone) Tone {
			return Tone{Degree: t.Degree.String(), Note: t.Note.String()}
		})}
		if chosen.Scale == s.Name {
			one.ChosenFor = "chord"
			if chosen.Function != "" {
				one.ChosenFor = "function"
			}
		}
		return one
	})
}

// Easier is a shape brought within the player's span.
type Easier struct {
	Tones     []PlacedTone `json:"tones"`
	StretchMM float64      `json:"stretchMm"`
	Text      string       `json:"text"`
}

// SmallerShape is a small part of a chord on a few strings.
type SmallerShape struct {
	Name      string       `json:"name"`
	Strings   string       `json:"strings" example:"strings 4 3 2"`
	Notes     []PlacedTone `json:"notes" doc:"From the lowest up"`
	StretchMM float64      `json:"stretchMm"`
	Caution   string       `json:"caution,omitempty"`
}

// Recurrence is a chord of the tune that makes the same shape elsewhere.
type Recurrence struct {
	Chord string `json:"chord"`
	Low   int    `json:"low" doc:"The core frets of its form there"`
	High  int    `json:"high"`
}

// Overlay is notes laid over a shape.
type Overlay struct {
	Name  string        `json:"name"`
	Rule  string        `json:"rule" doc:"Why these notes"`
	Notes []OverlayNote `json:"notes"`
}

// OverlayNote is a note of an overlay.
type OverlayNote struct {
	PlacedTone
	Of string `json:"of,omitempty" enum:"both,minor,major" doc:"In the blend: which of the two boxes has it"`
}

// Superimposed is an arpeggio of another chord.
type Superimposed struct {
	Chord   string       `json:"chord"`
	Degrees []string     `json:"degrees" doc:"What its tones are over the chord"`
	Leans   string       `json:"leans,omitempty" doc:"The degree that wants to move on, where one does"`
	Notes   []PlacedTone `json:"notes" doc:"Where it lies in the position, as degrees of the chord below"`
}

// mostSuperimposed is how many arpeggios are listed; the best come first.
const mostSuperimposed = 16

func (s *server) registerComputeChord(api huma.API) {
	posts(api, "/api/compute/chord", func(_ context.Context, in *body[ChordRequest]) (*body[ChordView], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		chord, err := on.chord(in.Body.Chord)
		if err != nil {
			return nil, invalid("chord", err)
		}
		position, err := on.position(in.Body.Position)
		if in.Body.Slide {
			if position, err = neck.FindPosition(on.instrument, chord.Root.Class(), in.Body.Position); err != nil {
				return nil, invalid("position", err)
			}
		}
		if err != nil {
			return nil, err
		}
		view, err := on.chordView(chord, position, in.Body.Layout)
		if err != nil {
			return nil, invalid("layout", err)
		}
		if in.Body.Next != "" {
			next, err := on.chord(in.Body.Next)
			if err != nil {
				return nil, invalid("next", err)
			}
			notes := newOverChord(on.home(), next).placedAll(neck.PlaceTones(on.instrument, position.Window, next.Tones()).Tones)
			view.Next = overlay(next.Symbol(), "the chord that comes next, as its own degrees", notes)
		}
		return &body[ChordView]{view}, nil
	})
}

func (o playContext) chordView(chord harmony.Chord, p neck.Position, l Layout) (ChordView, error) {
	c, i, key := o.chart, o.instrument, chord.Context(o.home()).Key
	over := newOverChord(key, chord)
	scale, rule := key.ChordScale(chord)
	tones := neck.LayoutTones(key, chord, neck.LayoutKind(l.Kind))
	laid, err := neck.PlaceInLayout(i, p.Window, tones, neck.Layout{Kind: neck.LayoutKind(l.Kind), From: l.From, Low: l.Low, High: l.High})
	if err != nil {
		return ChordView{}, err
	}
	form := neck.FormAt(i, chord.Root.Class(), p.Window)
	laid = laid.Swapped(i, p.Window, chord.Quality.Sign, form, o.swaps)
	lay := func(tones []harmony.Tone) []PlacedTone {
		return over.placedAll(neck.PlaceTones(i, p.Window, tones).Tones)
	}
	view := ChordView{
		Position: positionOf(p), Layouts: layoutChoices(neck.LayoutChoices(i, p.Window, chord.Tones())),
		Recurrences: o.recurrences(chord, p), ChordScale: overlay(scale.Root.String()+" "+scale.Name, rule, lay(scale.Tones)),
		Next: Overlay{Notes: []OverlayNote{}}, Superimposed: []Superimposed{},
		Function: key.FunctionNumeral(chord), Scales: o.scales(key, chord),
		Shape: Shape{
			Chord: chord.Symbol(), Form: string(form), Sign: chord.Quality.Sign, Tones: over.placedAll(laid.Tones),
			Beyond: over.placedAll(laid.Beyond), Box: []PlacedTone{}, StretchMM: laid.StretchMM, Caution: laid.Caution(o.spanMM),
		},
	}
	if easier, ok := laid.Easier(i, p.Window, o.spanMM); ok {
		view.Easier = &Easier{Tones: over.placedAll(easier.Tones), StretchMM: easier.StretchMM, Text: easier.Text}
	}
	if box, err := key.Box(c.Box); err == nil {
		view.Shape.Box = lay(box.Tones)
	}
	view.Extensions = extensions(key, chord, lay)
	view.Blend = blend(key, over, func(tones []harmony.Tone) []neck.Placed { return neck.PlaceTones(i, p.Window, tones).Tones })
	for n, found := range key.Superimposed(chord) {
		if n == mostSuperimposed {
			break
		}
		one := Superimposed{Chord: found.Arpeggio.Symbol(), Notes: lay(found.Arpeggio.Tones())}
		for _, j := range found.Tones {
			one.Degrees = append(one.Degrees, j.Degree.String())
		}
		if found.Suspensions != nil {
			one.Leans = found.Suspensions.Degree.String()
		}
		view.Superimposed = append(view.Superimposed, one)
	}
	view.Smaller = o.smaller(over, p, chord)
	return view, nil
}

func (o playContext) smaller(over *overChord, p neck.Position, chord harmony.Chord) []SmallerShape {
	all := []SmallerShape{}
	for _, found := range neck.Structures(o.instrument, p.Window, chord) {
		all = append(all, SmallerShape{
			Name: found.Name, Strings: found.Strings, Notes: over.placedAll(found.Tones), StretchMM: found.StretchMM, Caution: found.Caution(o.spanMM),
		})
	}
	return all
}

func overlay(name, rule string, notes []PlacedTone) Overlay {
	o := Overlay{Name: name, Rule: rule, Notes: make([]OverlayNote, len(notes))}
	for n, note := range notes {
		o.Notes[n] = OverlayNote{PlacedTone: note}
	}
	return o
}

func extensions(k harmony.Key, c harmony.Chord, lay func([]harmony.Tone) []PlacedTone) Overlay {
	tones, remarks := []harmony.Tone{}, []string{}
	for _, j := range k.Extensions(c) {
		tones = append(tones, j.Tone)
		remarks = append(remarks, fmt.Sprintf("%s, the %s, is %s", j.Note, j.Degree, j.Class.Text()))
	}
	return overlay("extensions", strings.Join(remarks, "; "), lay(tones))
}

// blend is the minor and the major box on the tonic in one position, and which
// of them has each note.
func blend(k harmony.Key, over *overChord, lay func([]harmony.Tone) []neck.Placed) Overlay {
	tones := k.Blend()
	bare := make([]harmony.Tone, len(tones))
	for n, t := range tones {
		bare[n] = t.Tone
	}
	blended := Overlay{
		Name: k.Tonic.String() + " minor and major pentatonic", Rule: "shared notes filled, the minor box's own half filled, the major box's own hollow",
		Notes: []OverlayNote{},
	}
	for _, placed := range lay(bare) {
		of := tones[slices.IndexFunc(tones, func(t harmony.BlendTone) bool { return t.Note.Class() == placed.Pitch.Class() })].Of
		blended.Notes = append(blended.Notes, OverlayNote{PlacedTone: over.placed(placed), Of: of})
	}
	return blended
}

func (o playContext) recurrences(chord harmony.Chord, p neck.Position) []Recurrence {
	found := []Recurrence{}
	for _, r := range neck.Recurrences(o.instrument, chord, p.Window, o.chart.Chords()) {
		found = append(found, Recurrence{Chord: r.Chord.Symbol(), Low: r.At.Core, High: r.At.CoreEnd})
	}
	return found
}

func layoutChoices(all []neck.LayoutChoice) []LayoutChoice {
	choices := make([]LayoutChoice, len(all))
	for n, one := range all {
		choices[n] = LayoutChoice{layoutOf(one.Layout), one.Text, one.Unit, one.Least, one.Most}
	}
	return choices
}

func layoutOf(l neck.Layout) Layout {
	return Layout{Kind: string(l.Kind), From: l.From, Low: l.Low, High: l.High}
}
