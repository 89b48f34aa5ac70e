package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/format/document"
)

// VerdictRequest asks what can be said of a lick over the chords it was written for,
// in the chart's key and where the hand stands.
type VerdictRequest struct {
	MovesRequest
	Repair []int `json:"repair,omitempty" maxItems:"64" doc:"The notes to put right first, from 0"`
}

// Verdict is figures, each with the notes it comes from.
type Verdict struct {
	Strong         Share            `json:"strong" doc:"Notes on strong beats: how many are home"`
	Rests          Share            `json:"rests" doc:"Notes rested on: how many are home or colour"`
	Issues         []NoteIssue      `json:"issues" doc:"The notes that could be better, each once, and what would mend them"`
	Landings       []Landing        `json:"landings" doc:"What is first played at each change under the lick"`
	Coverage       []Coverage       `json:"coverage"`
	ImpliedHarmony []ImpliedHarmony `json:"impliedHarmony" doc:"What a listener makes of each chord when the band drops out"`
	Shape          PhraseShape      `json:"shape"`
	Ends           []LickEnd        `json:"ends" doc:"How its first note and its last lie to the nearest tones of the chord there"`
	Returns        []PhraseReturn   `json:"returns" doc:"The phrases that come back"`
	Lost           []string         `json:"lost" doc:"The techniques that repairs took away"`
	// Lick and Tab are as repaired.
	Lick document.Lick `json:"lick"`
	Tab  Tab           `json:"tab"`
	// OwnChart is given where the tab is not over the tune.
	OwnChart *document.Chart `json:"ownChart,omitempty" doc:"The lick's own bars and chords, which the tab is over where it is taken as written"`
}

// LickEnd is one end of a lick.
type LickEnd struct {
	Event int        `json:"event" doc:"From 0"`
	Chord string     `json:"chord" doc:"The chord that it begins over, or that comes back after it"`
	Near  []NearTone `json:"near"`
	Text  string     `json:"text"`
}

// NearTone is a chord tone near a note.
type NearTone struct {
	Tone
	HalfSteps int `json:"halfSteps" doc:"How far above the note it lies; negative for below"`
}

// PhraseReturn is a phrase that comes back.
type PhraseReturn struct {
	Text   string `json:"text"`
	Events []int  `json:"events" doc:"The notes of both, from 0"`
}

// Share is so many notes that are as they should be.
type Share struct {
	Of   int `json:"of"`
	Good int `json:"good"`
	// Events are all that were looked at.
	Events []int `json:"events" doc:"The notes looked at, from 0"`
}

// NoteIssue is a note that could be better.
type NoteIssue struct {
	Event  int    `json:"event" doc:"From 0"`
	Text   string `json:"text"`
	Repair string `json:"repair,omitempty" doc:"The nearest repair; left out where its string has none"`
}

// Landing is what is first played at a change.
type Landing struct {
	Chord  string `json:"chord"`
	Timing string `json:"timing" enum:"early,on,late,none"`
	Event  int    `json:"event" doc:"From 0; -1 for none"`
	Degree string `json:"degree,omitempty"`
	Class  string `json:"class,omitempty"`
}

// Coverage is a chord and which of its tones the lick has.
type Coverage struct {
	Chord  string `json:"chord"`
	Got    []Tone `json:"got"`
	Missed []Tone `json:"missed" doc:"The guide tones that it has not"`
	Events []int  `json:"events" doc:"The notes over it, from 0"`
}

// ImpliedHarmony is what a listener makes of one chord from the line alone.
type ImpliedHarmony struct {
	Chord        string  `json:"chord"`
	Recognition  string  `json:"recognition" enum:"heard,unclear,another chord,nothing"`
	Rival        string  `json:"rival" doc:"The chord that fits best beside it"`
	Margin       float64 `json:"margin" doc:"How much better it fits than its rival"`
	SettlingTone *Tone   `json:"settlingTone,omitempty" doc:"The tone that would make it clear"`
	Text         string  `json:"text"`
	Events       []int   `json:"events" doc:"The notes over it, from 0"`
}

// PhraseShape is the shape of a lick, whatever its chords.
type PhraseShape struct {
	Rhythm    string          `json:"rhythm" doc:"Its bars by their rhythm" example:"A A B A"`
	Ends      analysis.Ending `json:"ends" enum:"question,answer,open"`
	Space     float64         `json:"space" doc:"The share of silence, 0 to 1"`
	PerSecond float64         `json:"perSecond" doc:"Notes a second at the chart's tempo"`
	Shifts    int             `json:"shifts" doc:"How often the hand moves"`
	WidestMM  float64         `json:"widestMm" doc:"The widest reach between neighbouring notes"`
}

func (s *server) registerComputeVerdict(api huma.API) {
	posts(api, "/api/compute/lick/verdict", func(_ context.Context, in *body[VerdictRequest]) (*body[Verdict], error) {
		on, chosen, _, err := in.Body.placed()
		if err != nil {
			return nil, err
		}
		var own *document.Chart
		start := -1
		if in.Body.AsWritten {
			alone, at := chosen.ToChart(on.chart.Tempo, on.chart.Feel, on.chart.Swing)
			on, start = on.withChart(alone), at
			own = ownChart(on.chart)
		}
		chosen.Phrase = chosen.Phrase.WithDefaultChord(on.chart.TonicChord())
		if start < 0 {
			start = chosen.Phrase.StartAtChord(on.chart, chosen.Phrase.Chords[0].Chord)
		}
		for n, at := range in.Body.Repair {
			if at < 0 || at >= len(chosen.Phrase.Events) {
				return nil, invalid("", &chart.FieldError{Field: fmt.Sprintf("repair[%d]", n), Detail: fmt.Sprintf("the lick has no note %d; its notes are 0 to %d", at, len(chosen.Phrase.Events)-1)})
			}
		}
		lost := []string{}
		if len(in.Body.Repair) > 0 {
			chosen.Phrase, lost = analysis.Repair(chosen.Phrase, on.instrument, on.home(), on.chart.Tempo, in.Body.Repair)
			chosen = chosen.WithSuffix(", repaired")
		}
		verdict := on.verdict(chosen, start, lost)
		verdict.OwnChart = own
		return &body[Verdict]{verdict}, nil
	})
}

func shareOf(s analysis.Share) Share { return Share{s.Of, s.Good, append([]int{}, s.Notes...)} }

// verdict is what can be said of a lick whose tick 0 stands at a tick of the chart.
func (o playContext) verdict(l lick.Lick, start int, lost []string) Verdict {
	v := analysis.Judge(l.Phrase, o.instrument, o.home(), o.chart.Tempo)
	out := Verdict{
		Strong: shareOf(v.Strong), Rests: shareOf(v.Rests), Issues: []NoteIssue{}, Landings: []Landing{}, Coverage: []Coverage{}, ImpliedHarmony: []ImpliedHarmony{}, Returns: []PhraseReturn{},
		Shape: PhraseShape(v.Shape), Lost: append([]string{}, lost...), Lick: document.LickOf(l.WithInstrument(o.instrument)),
		Tab: o.tab(l.Phrase, start, ""),
	}
	for _, issue := range v.Issues() {
		one := NoteIssue{Event: issue.Index, Text: issue.Text}
		if issue.Alteration != nil {
			one.Repair = issue.Alteration.Text
		}
		out.Issues = append(out.Issues, one)
	}
	for _, d := range analysis.ImpliedHarmonies(l.Phrase, o.instrument, o.home(), o.chart.Chords()) {
		out.ImpliedHarmony = append(out.ImpliedHarmony, impliedOf(d))
	}
	for _, l := range v.Landings {
		landing := Landing{Chord: l.Chord.Symbol(), Timing: string(l.Timing), Event: l.Index}
		if l.Index >= 0 {
			landing.Degree, landing.Class = l.Degree.String(), string(l.Class)
		}
		out.Landings = append(out.Landings, landing)
	}
	out.Coverage = append(out.Coverage, coverageOf(v.Coverage)...)
	for _, end := range l.Ends(o.instrument, o.home()) {
		out.Ends = append(out.Ends, LickEnd{Event: end.Event, Chord: end.Chord.Symbol(), Text: end.Text, Near: each(end.Near, func(t lick.NearTone) NearTone {
			return NearTone{Tone: toneOf(t.Tone), HalfSteps: t.HalfSteps}
		})})
	}
	for _, r := range analysis.Returns(l.Phrase, o.instrument) {
		out.Returns = append(out.Returns, PhraseReturn{Text: r.Text, Events: append(append([]int{}, r.First...), r.Again...)})
	}
	return out
}

func impliedOf(d analysis.ImpliedHarmony) ImpliedHarmony {
	dropped := ImpliedHarmony{Chord: d.Chord.Symbol(), Recognition: string(d.Recognition), Rival: d.Rival.Symbol(), Margin: d.Margin, Text: d.Text, Events: append([]int{}, d.Notes...)}
	if d.SettlingTone != nil {
		tone := toneOf(*d.SettlingTone)
		dropped.SettlingTone = &tone
	}
	return dropped
}

func coverageOf(all []analysis.ChordCoverage) []Coverage {
	covered := make([]Coverage, len(all))
	for n, c := range all {
		covered[n] = Coverage{Chord: c.Chord.Symbol(), Got: tonesOf(c.Got), Missed: tonesOf(c.Missed), Events: append([]int{}, c.Notes...)}
	}
	return covered
}
