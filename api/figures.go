package api

import (
	"fmt"

	"undaris/core/analysis"
	"undaris/core/harmony"
	"undaris/core/solo/chorus"
)

// Figures are what is counted of a chorus, each with the notes it comes from.
type Figures struct {
	Strong            Share       `json:"strong" doc:"Notes on strong beats: how many are home"`
	Rests             Share       `json:"rests" doc:"Notes rested on: how many are home or colour"`
	Heard             int         `json:"heard" doc:"Chords that are heard without the band"`
	Chords            int         `json:"chords" doc:"Of how many"`
	Space             float64     `json:"space" doc:"The share of the chorus that is silent"`
	Shape             PhraseShape `json:"shape"`
	Landings          int         `json:"landings" doc:"Changes landed on a home tone"`
	Changes           int         `json:"changes" doc:"Of how many that something is played over"`
	SilentChanges     int         `json:"silentChanges" doc:"Changes that are left to the band"`
	WithinSpan        bool        `json:"withinSpan" doc:"No reach is wider than the player's span"`
	EnoughStrongBeats bool        `json:"enoughStrongBeats" doc:"Enough strong beats are home"`
	EnoughHeard       bool        `json:"enoughHeard" doc:"Enough chords are heard without the band"`
	EnoughSpace       bool        `json:"enoughSpace" doc:"Enough of the time is silent"`
	// Rows are the figures in the order in which they are shown.
	Rows []FigureRow `json:"rows"`
}

// FigureRow is one figure of a chorus as it is shown.
type FigureRow struct {
	ID     string `json:"id" enum:"landings,strong,rests,heard,space,speed,reach,lean,spread,bends"`
	Name   string `json:"name"`
	Text   string `json:"text"`
	Events []int  `json:"events" doc:"The notes it is counted from, from 0; empty where it points at none"`
	Good   bool   `json:"good"`
}

func (o playContext) figures(r analysis.Review, targets []chorus.TargetReport) Figures {
	f := Figures{Strong: shareOf(r.Verdict.Strong), Rests: shareOf(r.Verdict.Rests), Space: r.Space, Shape: PhraseShape(r.Verdict.Shape), Chords: len(r.Implied)}
	f.EnoughStrongBeats, f.EnoughHeard, f.EnoughSpace = r.EnoughStrongBeats(), r.EnoughHeard(), r.EnoughSpace()
	f.WithinSpan = f.Shape.WidestMM <= o.spanMM
	for _, d := range r.Implied {
		if d.Recognition == analysis.Recognized {
			f.Heard++
		}
	}
	for _, t := range targets {
		switch {
		case t.Silent:
			f.SilentChanges++
			continue
		case t.Index >= 0 && t.Judgement.Class == harmony.ChordTone:
			f.Landings++
		}
		f.Changes++
	}
	f.Rows = f.rows(r, targets)
	return f
}

// rows words the figures.
func (f Figures) rows(r analysis.Review, targets []chorus.TargetReport) []FigureRow {
	landed, unheard := []int{}, []int{}
	for _, t := range targets {
		if t.Index >= 0 {
			landed = append(landed, t.Index)
		}
	}
	for _, d := range r.Implied {
		if d.Recognition != analysis.Recognized {
			unheard = append(unheard, d.Notes...)
		}
	}
	strong := "none"
	if f.Strong.Of > 0 {
		strong = fmt.Sprintf("%d %%", (100*f.Strong.Good+f.Strong.Of/2)/f.Strong.Of)
	}
	landings := fmt.Sprintf("%d of %d", f.Landings, f.Changes)
	if f.SilentChanges > 0 {
		landings += fmt.Sprintf(", %d silent", f.SilentChanges)
	}
	return []FigureRow{
		{"landings", "landings", landings, landed, f.Landings == f.Changes},
		{"strong", "strong beats", strong, f.Strong.Events, f.EnoughStrongBeats},
		{"rests", "rests well", fmt.Sprintf("%d of %d", f.Rests.Good, f.Rests.Of), f.Rests.Events, f.Rests.Good == f.Rests.Of},
		{"heard", "heard alone", fmt.Sprintf("%d of %d", f.Heard, f.Chords), unheard, f.EnoughHeard},
		{"space", "space", fmt.Sprintf("%.0f %%", 100*f.Space), []int{}, f.EnoughSpace},
		{"speed", "notes a second", fmt.Sprintf("%.1f", f.Shape.PerSecond), []int{}, true},
		{"reach", "widest reach", fmt.Sprintf("%.0f mm", f.Shape.WidestMM), []int{}, f.WithinSpan},
	}
}
