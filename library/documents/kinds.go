package documents

import (
	"fmt"
	"strings"
	"time"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/format/document"
	"undaris/store"
)

// The kinds of document.
var (
	// Charts are tunes. They are written anew from what was read, so that only canonical
	// symbols are kept.
	Charts = Kind[document.Chart, ChartSummary]{
		Noun: "chart", kind: store.Chart, maxName: chart.MaxTitle, summarize: summarizeChart,
		check: func(d document.Chart) (document.Chart, error) {
			c, err := d.Core()
			if err != nil {
				return d, err
			}
			c.Title = strings.TrimSpace(c.Title)
			return document.ChartOf(c), nil
		},
		mend:   document.Chart.Mended,
		name:   func(d document.Chart) string { return d.Title },
		rename: func(d document.Chart, title string) document.Chart { d.Title = title; return d },
	}
	// Licks are phrases to be used again.
	Licks = Kind[document.Lick, LickSummary]{
		Noun: "lick", kind: store.Lick, maxName: lick.MaxName,
		summarize: func(d document.Lick) LickSummary {
			return LickSummary{Tags: d.Tags, Tonic: d.Tonic, Notes: len(d.Events)}
		},
		check: func(d document.Lick) (document.Lick, error) {
			l, err := d.Core()
			if err != nil {
				return d, err
			}
			l.Name = strings.TrimSpace(l.Name)
			return document.LickOf(l), nil
		},
		name:   func(d document.Lick) string { return d.Name },
		rename: func(d document.Lick, name string) document.Lick { d.Name = name; return d },
	}
	// Solos are choruses over a tune.
	Solos = Kind[document.SoloDocument, SoloSummary]{
		Noun: "solo", kind: store.Solo, maxName: lick.MaxName, summarize: SummarizeSolo, check: document.SoloDocument.Checked,
		name:   func(d document.SoloDocument) string { return d.Solo.Name },
		rename: func(d document.SoloDocument, name string) document.SoloDocument { d.Solo.Name = name; return d },
	}
	// Lines are licks led over a change of a tune.
	Lines = Kind[document.LineDocument, LineSummary]{
		Noun: "line", kind: store.Line, maxName: lick.MaxName, summarize: summarizeLine, check: checkLine,
		name:   func(d document.LineDocument) string { return d.Name },
		rename: func(d document.LineDocument, name string) document.LineDocument { d.Name = name; return d },
	}
	// Bands are how the band plays a tune, one for each at most, with the routines over it.
	Bands = Kind[document.Band, struct{}]{
		Noun: "band", kind: store.Band, maxName: 60, summarize: func(document.Band) struct{} { return struct{}{} },
		check: document.Band.Checked,
		name:  func(document.Band) string { return "band" },
	}
	// Exercises are figures and structures walked through chords.
	Exercises = Kind[document.Exercise, ExerciseSummary]{
		Noun: "exercise", kind: store.Exercise, maxName: lick.MaxName,
		summarize: func(d document.Exercise) ExerciseSummary {
			return ExerciseSummary{Tags: d.Tags, Text: exerciseTitle(d)}
		},
		check:  document.Exercise.Checked,
		name:   func(d document.Exercise) string { return d.Name },
		rename: func(d document.Exercise, name string) document.Exercise { d.Name = name; return d },
	}
	// Takes are one's own playing, recorded over a tune.
	Takes = Kind[document.Take, TakeSummary]{
		Noun: "take", kind: store.Take, maxName: lick.MaxName, summarize: summarizeTake, check: document.Take.Checked,
		name:   func(d document.Take) string { return d.Name },
		rename: func(d document.Take, name string) document.Take { d.Name = name; return d },
	}
	// Sessions are practice sessions, and templates of them.
	Sessions = Kind[document.Session, SessionSummary]{
		Noun: "session", kind: store.Session, maxName: 60,
		summarize: func(d document.Session) SessionSummary {
			return SessionSummary{Minutes: d.Minutes, Template: d.Template, Began: d.Began, Ended: d.Ended}
		},
		check:  document.Session.Checked,
		name:   func(d document.Session) string { return d.Name },
		rename: func(d document.Session, name string) document.Session { d.Name = name; return d },
	}
)

// ExerciseSummary is what a list shows of an exercise beside its name.
type ExerciseSummary struct {
	Tags []string `json:"tags"`
	Text string   `json:"text" doc:"What it is, in a few words"`
}

func exerciseTitle(d document.Exercise) string {
	e, err := d.Core()
	if err != nil {
		return ""
	}
	return e.Title()
}

// SessionSummary is what a list shows of a session beside its name.
type SessionSummary struct {
	Minutes  int        `json:"minutes"`
	Template bool       `json:"template"`
	Began    *time.Time `json:"began,omitempty"`
	Ended    *time.Time `json:"ended,omitempty"`
}

// ChartSummary is what a list shows of a chart beside its title.
type ChartSummary struct {
	Tags   []string     `json:"tags"`
	Key    document.Key `json:"key"`
	Meter  string       `json:"meter"`
	Tempo  int          `json:"tempo"`
	Feel   string       `json:"feel"`
	Bars   int          `json:"bars" doc:"Of one chorus, repeats played out"`
	Scheme string       `json:"scheme" doc:"The scheme its bars follow, empty for none"`
}

func summarizeChart(d document.Chart) ChartSummary {
	c, err := d.Core()
	if err != nil {
		return ChartSummary{Tags: []string{}}
	}
	return ChartSummary{Tags: append([]string{}, d.Tags...), Key: d.Key, Meter: d.Meter, Tempo: d.Tempo, Feel: d.Feel, Bars: len(c.PlayedBars()), Scheme: c.SchemeOf()}
}

// LickSummary is what a list shows of a lick beside its name.
type LickSummary struct {
	Tags  []string `json:"tags"`
	Tonic string   `json:"tonic"`
	Notes int      `json:"notes"`
}

// SoloSummary is what a list shows of a solo beside its name.
type SoloSummary struct {
	Choruses int `json:"choruses"`
	Notes    int `json:"notes"`
}

// SummarizeSolo counts the choruses and the notes of a solo.
func SummarizeSolo(d document.SoloDocument) SoloSummary {
	summary := SoloSummary{Choruses: len(d.Solo.Choruses)}
	for _, c := range d.Solo.Choruses {
		for _, block := range c.Blocks {
			summary.Notes += len(block.Notes)
		}
	}
	return summary
}

// LineSummary is what a list shows of a line beside its name.
type LineSummary struct {
	Key    string `json:"key" doc:"The tonic it was kept in"`
	Change string `json:"change" doc:"The change it leads over" example:"C7 to F7, bar 4 to 5"`
}

func summarizeLine(d document.LineDocument) LineSummary {
	summary := LineSummary{Key: d.Chart.Key.Tonic}
	c, err := d.Chart.Core()
	if err != nil {
		return summary
	}
	if ch, err := c.ChangeAt(d.Choice.Change); err == nil {
		summary.Change = fmt.Sprintf("%s to %s, bar %d to %d", ch.Leaving.Chord.Symbol(), ch.Arriving.Chord.Symbol(), ch.Leaving.Bar+1, ch.Arriving.Bar+1)
	}
	return summary
}

func checkLine(d document.LineDocument) (document.LineDocument, error) {
	d.Name = strings.TrimSpace(d.Name)
	if d.Name == "" || len([]rune(d.Name)) > lick.MaxName {
		return d, &chart.FieldError{Field: "name", Detail: fmt.Sprintf("a line's name has 1 to %d characters", lick.MaxName)}
	}
	over, _, err := document.PlayContextOf(d.Chart, d.Hands)
	if err != nil {
		return d, err
	}
	_, err = d.Line.Phrase.Core(over.Instrument)
	return d, err
}
