package api

import (
	"undaris/core/analysis"
	"undaris/core/change"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/format/document"
)

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
	First          []Finding           `json:"first" doc:"What a teacher would say first, at most three; none where there is nothing that a listener minds"`
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
	view.First, view.Style = findingsOf(r.First), findingsOf(r.Style)
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

func findingsOf(found []analysis.Finding) []Finding {
	all := []Finding{}
	for _, f := range found {
		all = append(all, Finding{f.Name, f.Good, f.Text, append([]int{}, f.Notes...)})
	}
	return all
}
