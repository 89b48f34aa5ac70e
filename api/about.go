package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/practice"
	"undaris/core/routine"
	"undaris/core/solo/chorus"
	"undaris/format/chartfile"
	"undaris/format/document"
	"undaris/format/lickfile"
	"undaris/format/solofile"
)

// body is a response with a body and nothing else.
type body[T any] struct{ Body T }

// About says which Undaris answers.
type About struct {
	Version string `json:"version"`
	Demo    bool   `json:"demo" doc:"The data is the demo set"`
}

func (s *server) registerAbout(api huma.API) {
	gets(api, "/api/about", func(context.Context, *struct{}) (*body[About], error) {
		return &body[About]{About{Version: s.version, Demo: s.demo}}, nil
	})
}

// ClassChoice is a class of notes over a chord and what it is called.
type ClassChoice struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Short string `json:"short" doc:"Its name where there is little room"`
}

// JumpChoice is a sign that sends the player back, and what it goes with.
type JumpChoice struct {
	Name  string `json:"name" example:"D.S. al coda"`
	Segno bool   `json:"segno" doc:"It goes back to a segno, else to the first bar"`
	Fine  bool   `json:"fine" doc:"The tune ends at a fine"`
	Coda  bool   `json:"coda" doc:"The second time round goes on at the coda"`
}

// Choices are what a player may choose from, in the order to show it.
type Choices struct {
	Tonics       map[string][]string   `json:"tonics" doc:"By mode"`
	Modes        []string              `json:"modes"`
	Schemes      []SchemeChoice        `json:"schemes"`
	Meters       []string              `json:"meters"`
	Formats      []FormatChoice        `json:"formats" doc:"What charts are exported as"`
	LickFormats  []FormatChoice        `json:"lickFormats" doc:"What licks are exported as"`
	Lengths      []Length              `json:"lengths" doc:"The note values, longest first"`
	MostBend     int                   `json:"mostBend" doc:"The widest bend, in quarter tones"`
	Techniques   []string              `json:"techniques" doc:"How notes may be played"`
	Feels        []string              `json:"feels"`
	Boxes        []string              `json:"boxes"`
	Classes      []ClassChoice         `json:"classes" doc:"What a note can be over a chord, with what it is called"`
	Layouts      []string              `json:"layouts"`
	Strategies   []string              `json:"strategies"`
	Approaches   []string              `json:"approaches"`
	Subdivisions map[string][]string   `json:"subdivisions" doc:"By meter"`
	Subdivision  string                `json:"subdivision" doc:"The one to begin with"`
	Tempo        Range                 `json:"tempo"`
	Bars         Range                 `json:"bars" doc:"Of a chart"`
	Swing        Range                 `json:"swing"`
	Capo         Range                 `json:"capo"`
	Times        Range                 `json:"times" doc:"How often bars are repeated"`
	Instruments  []document.Instrument `json:"instruments" doc:"The tunings that are offered"`
	Strings      Range                 `json:"strings"`
	Frets        Range                 `json:"frets"`
	ScaleMM      Range                 `json:"scaleMm"`
	SpanMM       Range                 `json:"spanMm"`
	Span         int                   `json:"span" doc:"The comfortable stretch to begin with, in mm"`
	Exercises    ExerciseChoices       `json:"exercises" doc:"What can be chosen of an exercise, and those that are ready made"`
	SoloFormats  []FormatChoice        `json:"soloFormats" doc:"What solos are exported as"`
	Forms        []string              `json:"forms" doc:"The phrase plans that are offered"`
	Stages       []string              `json:"stages" doc:"How far a chorus grows"`
	Density      float64               `json:"density" doc:"Notes a bar to begin with"`
	Blend        float64               `json:"blend" doc:"The blend to begin with"`
	Space        float64               `json:"space" doc:"The share of silence to begin with"`
	MaxSpace     float64               `json:"maxSpace"`
	Styles       map[string][]string   `json:"styles" doc:"What the band can play, by meter"`
	Sounds       []string              `json:"sounds" doc:"What can play the chords"`
	Intros       []string              `json:"intros" doc:"What can come before the first bar"`
	Parts        []string              `json:"parts" doc:"Of the band, as a mixer shows them"`
	StageViews   []string              `json:"stageViews" doc:"What the stage can show, from the most to nothing"`
	ClicksOn     []string              `json:"clicksOn" doc:"Which beats a click can sound on beside every one"`
	KeySteps     []string              `json:"keySteps" doc:"How a key can change when a segment is played again"`
	PlainLevel   int                   `json:"plainLevel" doc:"The level of a part that has none of its own"`
	Jumps        []JumpChoice          `json:"jumps" doc:"The signs that send the player back"`
	Endings      int                   `json:"endings" doc:"How many endings a repeat may have"`
	Drills       []DrillChoice         `json:"drills" doc:"The kinds of card, in the order in which they are learned"`
}

// DrillChoice is a kind of card.
type DrillChoice struct {
	Name string `json:"name"`
	Text string `json:"text" doc:"What is asked, in a few words"`
}

// Length is a note value, in ticks.
type Length struct {
	Name    string `json:"name"`
	Plain   int    `json:"plain"`
	Dotted  int    `json:"dotted"`
	Triplet int    `json:"triplet" doc:"One of three in the time of two"`
}

// SchemeChoice is a scheme and the mode it brings.
type SchemeChoice struct {
	Name string `json:"name"`
	Mode string `json:"mode"`
}

// FormatChoice is an open format.
type FormatChoice struct {
	Name  string `json:"name"`
	Title string `json:"title"`
}

// Range is the least and most of a number.
type Range struct {
	Least int `json:"least"`
	Most  int `json:"most"`
}

func (s *server) registerChoices(api huma.API) {
	choices := Choices{
		Tonics: map[string][]string{}, Modes: names(harmony.Modes), Meters: names(chart.Meters), Feels: names(chart.Feels), Boxes: names(harmony.BoxKinds),
		Classes: each(harmony.Classes, func(c harmony.Class) ClassChoice { return ClassChoice{string(c), c.Name(), c.Short()} }),
		Layouts: names(neck.LayoutKinds), Strategies: names(change.TargetStrategies), Subdivisions: map[string][]string{}, Subdivision: chart.DefaultSubdivision, Tempo: Range{chart.MinTempo, chart.MaxTempo},
		Bars: Range{1, chart.MaxBars}, Swing: Range{chart.MinSwing, chart.MaxSwing}, Capo: Range{0, chart.MaxCapo}, Times: Range{1, chart.MaxTimes},
		Strings: Range{neck.MinStrings, neck.MaxStrings}, Frets: Range{neck.MinFrets, neck.MaxFrets}, ScaleMM: Range{neck.MinScale, neck.MaxScale},
		SpanMM: Range{neck.MinSpanMM, neck.MaxSpanMM}, Span: neck.ComfortableSpanMM, Exercises: exerciseChoices(), Techniques: phrase.Techniques, MostBend: phrase.MaxBend,
		Density: chorus.DefaultDensity, Blend: chorus.DefaultBlend, Space: chorus.DefaultSpace, MaxSpace: chorus.MaxSpace,
		Styles: map[string][]string{}, Sounds: document.Sounds, Intros: document.Intros, Parts: names(band.Parts), StageViews: names(routine.Views),
		ClicksOn: names(band.ClicksOn[1:]), KeySteps: names(routine.KeySteps), PlainLevel: document.PlainLevel,
		Endings: chart.MaxEndings, Jumps: each(chart.Jumps, func(j chart.Jump) JumpChoice { return JumpChoice{string(j), j.ToSegno(), j.AlFine(), j.AlCoda()} }),
		Drills: each(practice.Kinds, func(k practice.KindFacts) DrillChoice { return DrillChoice{string(k.Kind), k.Text} }),
	}
	for _, i := range neck.Presets() {
		choices.Instruments = append(choices.Instruments, document.InstrumentOf(i))
	}
	for _, m := range harmony.Modes {
		choices.Tonics[string(m)] = m.Tonics()
	}
	for _, scheme := range chart.Schemes {
		choices.Schemes = append(choices.Schemes, SchemeChoice{Name: scheme.Name, Mode: string(scheme.In)})
	}
	for _, f := range chartfile.Formats {
		choices.Formats = append(choices.Formats, FormatChoice{Name: f.Name, Title: f.Title})
	}
	for _, f := range lickfile.Formats {
		choices.LickFormats = append(choices.LickFormats, FormatChoice{Name: f.Name, Title: f.Title})
	}
	for _, f := range solofile.Formats {
		choices.SoloFormats = append(choices.SoloFormats, FormatChoice{Name: f.Name, Title: f.Title})
	}
	for _, form := range chorus.Forms {
		choices.Forms = append(choices.Forms, string(form))
	}
	for _, stage := range chorus.Stages {
		choices.Stages = append(choices.Stages, string(stage))
	}
	for _, l := range chart.Lengths {
		choices.Lengths = append(choices.Lengths, Length(l))
	}
	for _, a := range change.ApproachKinds {
		choices.Approaches = append(choices.Approaches, a.Name)
	}
	for _, m := range chart.Meters {
		choices.Subdivisions[m.String()] = names(m.Subdivisions())
		choices.Styles[m.String()] = names(band.StylesFor(m))
	}
	gets(api, "/api/choices", func(context.Context, *struct{}) (*body[Choices], error) {
		return &body[Choices]{choices}, nil
	})
}
