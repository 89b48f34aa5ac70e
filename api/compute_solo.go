package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/analysis"
	"undaris/core/change"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
	"undaris/format/document"
)

// SoloRequest asks for a chorus to be planned.
type SoloRequest struct {
	PlayContext
	Plan  document.ChorusPlan `json:"plan"`
	Licks []document.Lick     `json:"licks,omitempty" maxItems:"500" doc:"The vocabulary"`
	Kept  []document.Block    `json:"kept,omitempty" maxItems:"4096" doc:"Blocks that stay as they are, in order of time"`
}

// PlannedSolo is up to three choruses, the best first.
type PlannedSolo struct {
	Best        []ChorusView `json:"best"`
	Concessions []Concession `json:"concessions" doc:"What of the plan gave way, so that a chorus could be had"`
}

// Concession is a part of a plan that gave way.
type Concession struct {
	Field string `json:"field"`
	Text  string `json:"text"`
}

// ChorusRequest is a chorus and one edit of it; without one it is read as it is.
type ChorusRequest struct {
	PlayContext
	Chorus document.Chorus `json:"chorus"`
	Licks  []document.Lick `json:"licks,omitempty" maxItems:"500" doc:"The vocabulary, for what is planned anew"`
	Edit   *ChorusEdit     `json:"edit,omitempty"`
}

// ChorusEdit is one change of a chorus.
type ChorusEdit struct {
	Kind      string           `json:"kind" enum:"lock,unlock,mute,unmute,move,stretch,makeRest,swapLick,addBlock,writeNotes,alterNote,reroll"`
	Blocks    []int            `json:"blocks,omitempty" maxItems:"4096" doc:"Which blocks, from 0"`
	Tick      int              `json:"tick,omitempty" doc:"Where a block is laid"`
	Ticks     int              `json:"ticks,omitempty" doc:"How far a block or its end is moved, or how long a rest is laid"`
	Bar       int              `json:"bar,omitempty" doc:"The first bar to plan anew, from 1"`
	Bars      int              `json:"bars,omitempty" doc:"How many; with no bars and no blocks all that is not locked"`
	Lick      *document.Lick   `json:"lick,omitempty"`
	Approach  string           `json:"approach,omitempty" doc:"Left out for any that fits"`
	BlockKind string           `json:"blockKind,omitempty" doc:"What is laid: lick, approach, connector, free notes, rest"`
	Notes     []document.Event `json:"notes,omitempty" maxItems:"4096" doc:"The notes that a block is to have, or the one that a note becomes"`
	Note      int              `json:"note,omitempty" doc:"The event of the line that is altered, from 0; -1 for one more"`
	Seed      uint64           `json:"seed,omitempty" maximum:"4294967295"`
}

// ChorusView is a chorus, what is heard of it, and everything that is said of it.
type ChorusView struct {
	Blocks  []document.Block `json:"blocks"`
	Remarks []string         `json:"remarks" doc:"What gave way to the edit"`
	Block   int              `json:"block" doc:"The block that the edit was about, from 0; -1 for none"`
	Tab     Tab              `json:"tab" doc:"What is heard, its tick 0 the chorus's"`
	// BlockOf are the blocks of the tab's events.
	BlockOf        []int               `json:"blockOf" doc:"In which block each note of the tab stands, from 0; -1 for none"`
	Step           int                 `json:"step" doc:"The ticks that blocks snap to"`
	Targets        []ChorusTarget      `json:"targets"`
	Figures        Figures             `json:"figures"`
	Written        *Figures            `json:"written,omitempty" doc:"The same over what the band plays, where another chord is imagined"`
	ImpliedHarmony []ImpliedHarmonyBar `json:"impliedHarmony" doc:"What a listener makes of each chord when the band drops out"`
	Coverage       []Coverage          `json:"coverage"`
	Style          []Finding           `json:"style" doc:"What keeps it from being dull"`
	Issues         []ChorusIssue       `json:"issues" doc:"What could be better, the gravest first"`
	Phrase         document.Phrase     `json:"phrase" doc:"What is heard, to be played"`
}

// ChorusTarget is a tone aimed at where a chord arrives, and what lands there.
type ChorusTarget struct {
	Tick   int    `json:"tick"`
	Chord  string `json:"chord"`
	Aim    Tone   `json:"aim"`
	Event  int    `json:"event" doc:"The note of the tab that lands, from 0; -1 for none"`
	Timing string `json:"timing" enum:"early,on,late,none"`
	Tone   *Tone  `json:"tone,omitempty"`
	Class  string `json:"class,omitempty"`
	OnAim  bool   `json:"onAim" doc:"It is the tone aimed at"`
}

// Figures are what is counted of a chorus, each with the notes it comes from.
type Figures struct {
	Strong            Share       `json:"strong" doc:"Notes on strong beats: how many are home"`
	Rests             Share       `json:"rests" doc:"Notes rested on: how many are home or colour"`
	Heard             int         `json:"heard" doc:"Chords that are heard without the band"`
	Chords            int         `json:"chords" doc:"Of how many"`
	Space             float64     `json:"space" doc:"The share of the chorus that is silent"`
	Shape             PhraseShape `json:"shape"`
	Landings          int         `json:"landings" doc:"Changes landed on a home tone"`
	Changes           int         `json:"changes" doc:"Of how many"`
	WithinSpan        bool        `json:"withinSpan" doc:"No reach is wider than the player's span"`
	EnoughStrongBeats bool        `json:"enoughStrongBeats" doc:"Enough strong beats are home"`
	EnoughHeard       bool        `json:"enoughHeard" doc:"Enough chords are heard without the band"`
	EnoughSpace       bool        `json:"enoughSpace" doc:"Enough of the time is silent"`
	// Rows are the figures in the order in which they are shown.
	Rows []FigureRow `json:"rows"`
}

// FigureRow is one figure of a chorus as it is shown.
type FigureRow struct {
	ID     string `json:"id" enum:"landings,strong,rests,heard,space,speed,reach"`
	Name   string `json:"name"`
	Text   string `json:"text"`
	Events []int  `json:"events" doc:"The notes it is counted from, from 0; empty where it points at none"`
	Good   bool   `json:"good"`
}

// ImpliedHarmonyBar is what is heard of one chord, and where it lies.
type ImpliedHarmonyBar struct {
	ImpliedHarmony
	Tick  int `json:"tick"`
	Ticks int `json:"ticks"`
}

// Finding is one thing that keeps a chorus from being dull, or does not.
type Finding struct {
	Name   string `json:"name"`
	Good   bool   `json:"good"`
	Text   string `json:"text"`
	Events []int  `json:"events" doc:"The notes it comes from, from 0"`
}

// ChorusIssue is one thing that could be better, and what would mend it.
type ChorusIssue struct {
	About   string         `json:"about"`
	Text    string         `json:"text"`
	Tick    int            `json:"tick"`
	Events  []int          `json:"events"`
	Repairs []ChorusRepair `json:"repairs"`
}

// ChorusRepair is one note put right.
type ChorusRepair struct {
	Text string     `json:"text"`
	Edit ChorusEdit `json:"edit"`
}

// ChorusesRequest asks for the line of several choruses.
type ChorusesRequest struct {
	PlayContext
	Choruses []document.Chorus `json:"choruses" minItems:"1" maxItems:"16"`
}

// JoinedChoruses is their line, to be played.
type JoinedChoruses struct {
	Phrase document.Phrase `json:"phrase"`
	Bars   int             `json:"bars"`
}

// TransposeSolo asks for a solo as it lies after its tune or its neck has changed.
type TransposeSolo struct {
	Solo document.Solo `json:"solo"`
	From PlayContext   `json:"from" doc:"What it is over and for"`
	To   PlayContext   `json:"to" doc:"What it is to be over and for"`
}

// TransposedSolo is a solo moved along, and what could not stay.
type TransposedSolo struct {
	Solo        document.Solo    `json:"solo"`
	Concessions []SoloConcession `json:"concessions"`
}

// SoloConcession is something that could not stay as it was.
type SoloConcession struct {
	Chorus int    `json:"chorus" doc:"From 0"`
	Tick   int    `json:"tick" doc:"Of that chorus"`
	Text   string `json:"text"`
}

func (s *server) registerComputeSolo(api huma.API) {
	huma.Post(api, "/api/compute/solo/transposed", func(_ context.Context, in *body[TransposeSolo]) (*body[TransposedSolo], error) {
		from, err := in.Body.From.core()
		if err != nil {
			return nil, err
		}
		to, err := in.Body.To.core()
		if err != nil {
			return nil, err
		}
		moved, conceded, err := in.Body.Solo.Transposed(from, to)
		if err != nil {
			return nil, invalid("solo", err)
		}
		out := TransposedSolo{Solo: moved, Concessions: []SoloConcession{}}
		for _, c := range conceded {
			out.Concessions = append(out.Concessions, SoloConcession{Chorus: c.Chorus, Tick: c.Tick, Text: c.Text})
		}
		return &body[TransposedSolo]{out}, nil
	})
	huma.Post(api, "/api/compute/solo", func(_ context.Context, in *body[SoloRequest]) (*body[PlannedSolo], error) {
		on, request, err := in.Body.order(in.Body.Plan, in.Body.Licks)
		if err != nil {
			return nil, err
		}
		if request.Kept, err = document.Blocks(in.Body.Kept, on.chart, on.instrument); err != nil {
			return nil, invalid("kept", err)
		}
		planned, err := planner.Plan(request)
		if err != nil {
			return nil, invalid("plan", err)
		}
		out := PlannedSolo{Concessions: []Concession{}}
		for _, p := range planned.Best {
			view, err := on.chorus(request, p.Chorus, "", nil)
			if err != nil {
				return nil, err
			}
			out.Best = append(out.Best, view)
		}
		for _, g := range planned.Concessions {
			out.Concessions = append(out.Concessions, Concession{g.Field, g.Text})
		}
		return &body[PlannedSolo]{out}, nil
	})
	huma.Post(api, "/api/compute/solo/chorus", func(_ context.Context, in *body[ChorusRequest]) (*body[ChorusView], error) {
		on, request, err := in.Body.order(in.Body.Chorus.Plan, in.Body.Licks)
		if err != nil {
			return nil, err
		}
		blocks, err := document.Blocks(in.Body.Chorus.Blocks, on.chart, on.instrument)
		if err != nil {
			return nil, invalid("chorus", err)
		}
		current, remarks, block := chorus.Chorus{Blocks: blocks}, []string{}, -1
		if in.Body.Edit != nil {
			edit, err := in.Body.Edit.core(on, request)
			if err != nil {
				return nil, err
			}
			stage, err := chorus.ParseStage(in.Body.Chorus.Stage)
			if err != nil {
				return nil, invalid("chorus", err)
			}
			if edit.Note, err = request.NoteInWhole(current, stage, edit.Note); err != nil {
				return nil, invalid("", err)
			}
			edited, err := planner.Edit(request, current, edit)
			if err != nil {
				return nil, invalid("", err)
			}
			current, remarks, block = edited.Chorus, edited.Remarks, edited.Block
		}
		view, err := on.chorus(request, current, in.Body.Chorus.Stage, remarks)
		if err != nil {
			return nil, err
		}
		view.Block = block
		return &body[ChorusView]{view}, nil
	})
	huma.Post(api, "/api/compute/solo/line", func(_ context.Context, in *body[ChorusesRequest]) (*body[JoinedChoruses], error) {
		on, line, err := in.Body.joined(in.Body.Choruses)
		if err != nil {
			return nil, err
		}
		return &body[JoinedChoruses]{JoinedChoruses{document.PhraseOf(line), len(in.Body.Choruses) * len(on.chart.PlayedBars())}}, nil
	})
}

// order reads what a chorus is planned by.
func (o PlayContext) order(plan document.ChorusPlan, licks []document.Lick) (playContext, chorus.Request, error) {
	read, err := o.read()
	if err != nil {
		return playContext{}, chorus.Request{}, err
	}
	vocabulary := make([]lick.Lick, len(licks))
	for n, l := range licks {
		if vocabulary[n], err = l.Core(); err != nil {
			return playContext{}, chorus.Request{}, invalid(indexed("licks", n), err)
		}
	}
	request, err := plan.Request(read.chart, read.instrument, read.spanMM, read.swaps, vocabulary)
	if err != nil {
		return playContext{}, chorus.Request{}, invalid("plan", err)
	}
	return read, request, nil
}

// joined is the line of several choruses over the chart, each at its stage.
func (o PlayContext) joined(docs []document.Chorus) (playContext, phrase.Phrase, error) {
	read, err := o.read()
	if err != nil {
		return playContext{}, phrase.Phrase{}, err
	}
	line, err := document.JoinedLine(docs, chorus.PlayContext{Chart: read.chart, Instrument: read.instrument, SpanMM: read.spanMM}, read.swaps)
	if err != nil {
		return playContext{}, phrase.Phrase{}, invalid("", err)
	}
	return read, line, nil
}

// core is the tune and the neck that a solo is played over and on.
func (o PlayContext) core() (chorus.PlayContext, error) {
	read, err := o.read()
	return chorus.PlayContext{Chart: read.chart, Instrument: read.instrument, SpanMM: read.spanMM}, err
}

// core reads an edit.
func (e ChorusEdit) core(o playContext, request chorus.Request) (chorus.Edit, error) {
	edit := chorus.Edit{
		Kind: chorus.EditKind(e.Kind), Blocks: e.Blocks, Tick: e.Tick, Ticks: e.Ticks, Bar: e.Bar - 1, Bars: e.Bars, BlockKind: chorus.Kind(e.BlockKind), Note: e.Note, Seed: e.Seed,
	}
	edit.Bar = max(edit.Bar, 0)
	if e.Lick != nil {
		chosen, err := e.Lick.Core()
		if err != nil {
			return edit, invalid("edit.lick", err)
		}
		edit.Lick = &chosen
	}
	if e.Approach != "" {
		approach, err := change.FindApproachKind(e.Approach)
		if err != nil {
			return edit, invalid("edit.approach", err)
		}
		edit.Approach = &approach
	}
	if len(e.Notes) > 0 {
		notes, err := document.Notes(e.Notes, request.Chart, o.instrument)
		if err != nil {
			return edit, invalid("edit", err)
		}
		edit.Notes = notes
	}
	return edit, nil
}

// chorus is everything that is said of a chorus at a stage.
func (o playContext) chorus(request chorus.Request, c chorus.Chorus, stage string, remarks []string) (ChorusView, error) {
	at, err := chorus.ParseStage(stage)
	if err != nil {
		return ChorusView{}, invalid("chorus", err)
	}
	r, err := request.Analyse(c, at)
	if err != nil {
		return ChorusView{}, invalid("plan", err)
	}
	view := ChorusView{Block: -1,
		Blocks: document.BlocksOf(c.Blocks), Remarks: append([]string{}, remarks...), Tab: o.tab(r.Line, 0, ""), BlockOf: append([]int{}, r.BlockOf...),
		Step: request.Subdivision.Ticks(request.Chart.Meter), Phrase: document.PhraseOf(r.Line), Figures: o.figures(r.Review, r.Targets),
		Targets: []ChorusTarget{}, ImpliedHarmony: []ImpliedHarmonyBar{}, Coverage: []Coverage{}, Style: []Finding{}, Issues: []ChorusIssue{},
	}
	if view.Tab.Events == nil {
		view.Tab.Events = []LineEvent{}
	}
	for n := range view.Tab.Events {
		view.Tab.Events[n].Role, view.Tab.Events[n].Why = string(r.Roles[n]), r.Why[n]
	}
	for _, t := range r.Targets {
		target := ChorusTarget{Tick: t.Tick, Chord: t.Chord.Symbol(), Aim: toneOf(t.Aim), Event: t.Index, Timing: string(t.Timing), OnAim: t.OnAim}
		if t.Index >= 0 {
			landed := toneOf(t.Judgement.Tone)
			target.Tone, target.Class = &landed, string(t.Judgement.Class)
		}
		view.Targets = append(view.Targets, target)
	}
	if written, both := request.OverWrittenChords(c, at); both {
		figures := o.figures(written, nil)
		view.Written = &figures
	}
	for _, d := range r.Implied {
		view.ImpliedHarmony = append(view.ImpliedHarmony, ImpliedHarmonyBar{impliedOf(d), d.From, d.To - d.From})
	}
	view.Coverage = append(view.Coverage, coverageOf(r.Verdict.Coverage)...)
	for _, f := range r.Style {
		view.Style = append(view.Style, Finding{f.Name, f.Good, f.Text, append([]int{}, f.Notes...)})
	}
	for _, issue := range r.Issues {
		one := ChorusIssue{About: issue.About, Text: issue.Text, Tick: issue.Tick, Events: append([]int{}, issue.Notes...), Repairs: []ChorusRepair{}}
		for _, repair := range issue.Repairs {
			one.Repairs = append(one.Repairs, ChorusRepair{repair.Text, ChorusEdit{
				Kind: string(repair.Edit.Kind), Note: repair.Edit.Note, Notes: document.PhraseOf(phrase.Phrase{Meter: request.Chart.Meter, Events: repair.Edit.Notes}).Events,
			}})
		}
		view.Issues = append(view.Issues, one)
	}
	return view, nil
}

func (o playContext) figures(r analysis.Review, targets []chorus.TargetReport) Figures {
	f := Figures{Strong: shareOf(r.Verdict.Strong), Rests: shareOf(r.Verdict.Rests), Space: r.Space, Shape: PhraseShape(r.Verdict.Shape), Chords: len(r.Implied), Changes: len(targets)}
	f.EnoughStrongBeats, f.EnoughHeard, f.EnoughSpace = r.EnoughStrongBeats(), r.EnoughHeard(), r.EnoughSpace()
	f.WithinSpan = f.Shape.WidestMM <= o.spanMM
	for _, d := range r.Implied {
		if d.Recognition == analysis.Recognized {
			f.Heard++
		}
	}
	for _, t := range targets {
		if t.Index >= 0 && t.Judgement.Class == harmony.ChordTone {
			f.Landings++
		}
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
	return []FigureRow{
		{"landings", "landings", fmt.Sprintf("%d of %d", f.Landings, f.Changes), landed, f.Landings == f.Changes},
		{"strong", "strong beats", strong, f.Strong.Events, f.EnoughStrongBeats},
		{"rests", "rests well", fmt.Sprintf("%d of %d", f.Rests.Good, f.Rests.Of), f.Rests.Events, f.Rests.Good == f.Rests.Of},
		{"heard", "heard alone", fmt.Sprintf("%d of %d", f.Heard, f.Chords), unheard, f.EnoughHeard},
		{"space", "space", fmt.Sprintf("%.0f %%", 100*f.Space), []int{}, f.EnoughSpace},
		{"speed", "notes a second", fmt.Sprintf("%.1f", f.Shape.PerSecond), []int{}, true},
		{"reach", "widest reach", fmt.Sprintf("%.0f mm", f.Shape.WidestMM), []int{}, f.WithinSpan},
	}
}
