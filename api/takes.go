package api

import (
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"os"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/practice"
	"undaris/core/take/judge"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
)

// KeepTake asks for a take to be kept.
type KeepTake struct {
	document.Take
	ChartID uint `json:"chartId"`
}

// KeptTake is a take of the library.
type KeptTake struct {
	Kept
	KeepTake
}

// TakeEntry is a take in the list of the library.
type TakeEntry struct {
	Kept
	ChartID uint   `json:"chartId"`
	Name    string `json:"name"`
	documents.TakeSummary
	Text string `json:"text" doc:"What it is, in words"`
}

// ReplaceTake is a take in the place of a version.
type ReplaceTake struct {
	Replacing
	document.Take
}

func (r ReplaceTake) content() document.Take { return r.Take }

// TakeVerdict is what is said of a take.
type TakeVerdict struct {
	First   []Finding        `json:"first" doc:"At most three findings, what costs a listener most first"`
	Rest    []Finding        `json:"rest" doc:"The other findings"`
	Good    []Finding        `json:"good" doc:"What was good"`
	Rows    []FigureRow      `json:"rows" doc:"The figures as they are shown"`
	Timing  TakeTiming       `json:"timing"`
	Bends   []TakeBendHeard  `json:"bends"`
	Pairs   []TakePair       `json:"pairs" doc:"The plan beside what was heard; empty without a plan"`
	Heard   []HeardNote      `json:"heard" doc:"The notes that were heard, in order of time"`
	Implied []ImpliedHarmony `json:"impliedHarmony" doc:"What a listener makes of each chord when the band drops out"`
	Missed  []MissedChange   `json:"missed" doc:"The changes that something was played on, and no tone of the arriving chord"`
	Remarks []string         `json:"remarks" doc:"What is to be known of the recording"`
	Tab     Tab              `json:"tab" doc:"What was heard, written over the tune"`
}

// MissedChange is a change that was missed, and the card that drills it.
type MissedChange struct {
	Event  int    `json:"event" doc:"The note that was played, in the tab; -1 where it has none"`
	Bar    int    `json:"bar" doc:"From 1"`
	Change string `json:"change" example:"C7 to F7"`
	Text   string `json:"text"`
	Card   string `json:"card" doc:"The card of the nearest landing over that change"`
}

// TakeLick is some notes of a take as a lick.
type TakeLick struct {
	Lick document.Lick `json:"lick"`
	Lost []string      `json:"lost" doc:"The techniques that were lost at its ends"`
}

// HeardNote is where a note that was heard stands in the tab.
type HeardNote struct {
	Event  int     `json:"event" doc:"Its place in the tab, from 0; -1 where it has none"`
	Bar    int     `json:"bar" doc:"The bar it is in, from 1; choruses go on counting"`
	Onset  float64 `json:"onset" doc:"Seconds from the beginning of the sound"`
	Late   float64 `json:"late" doc:"Milliseconds after where it is written, early below 0"`
	Text   string  `json:"text" doc:"The same in words"`
	Stray  bool    `json:"stray,omitempty" doc:"It lies far from where the others lie"`
	Unsure bool    `json:"unsure,omitempty" doc:"The ear is not sure of it"`
}

// TakeTiming is how a take lies in time.
type TakeTiming struct {
	Lean   float64         `json:"lean" doc:"Milliseconds that the notes are late in the middle, early below 0"`
	Spread float64         `json:"spread" doc:"Milliseconds from there that a note usually lies"`
	Drift  float64         `json:"drift" doc:"Milliseconds later from bar to bar"`
	Swing  float64         `json:"swing" doc:"The ratio of the eighths as played, 0 where it is not known"`
	Bars   []TakeBarTiming `json:"bars"`
}

// TakeBarTiming is how late the notes of a bar are beside the lean.
type TakeBarTiming struct {
	Bar  int     `json:"bar" doc:"From 1"`
	Late float64 `json:"late" doc:"Milliseconds"`
}

// TakeBendHeard is one bend and what it goes for.
type TakeBendHeard struct {
	Note      int     `json:"note" doc:"Among those heard, from 0"`
	Target    int     `json:"target" doc:"Half steps"`
	Cents     float64 `json:"cents" doc:"How far from there it comes, sharp above 0"`
	Judgement string  `json:"judgement" enum:"true,flat,sharp"`
	Text      string  `json:"text"`
}

// TakePair is a note of the plan, one that was heard, or both.
type TakePair struct {
	Kind    string `json:"kind" enum:"as meant,changed,left out,added"`
	Planned int    `json:"planned" doc:"The event of the plan, from 0; -1 for none"`
	Heard   int    `json:"heard" doc:"Among those heard, from 0; -1 for none"`
	Fits    bool   `json:"fits" doc:"It belongs over its chord though it is not as planned"`
}

// takeVerdictPath is where a take is judged that is not kept.
const takeVerdictPath = "/api/compute/take/verdict"

// largeTake lets a take of an hour in.
func largeTake(o *huma.Operation) { o.MaxBodyBytes = maxTake }

func (s *server) registerTakes(api huma.API) {
	takes := resource[document.Take, documents.TakeSummary, KeptTake, TakeEntry]{
		path: "takes", kind: documents.Takes, view: keptTake,
		entry: func(e documents.Entry[documents.TakeSummary]) TakeEntry {
			entry := TakeEntry{Kept: keptOf(e.Info), ChartID: e.ChartID, Name: e.Name, TakeSummary: e.Summary, Text: takeText(e.Summary)}
			entry.Damaged = e.Damaged
			return entry
		},
		texts: func(all []documents.Revision[document.Take]) []string {
			return each(all, func(r documents.Revision[document.Take]) string {
				return fmt.Sprintf("%s: %s", r.Name, counted(len(r.Body.Notes), "note", "notes"))
			})
		},
	}
	serve(api, s, takes)
	serveList(api, s, takes)
	serveReplace[document.Take, documents.TakeSummary, KeptTake, TakeEntry, ReplaceTake](api, s, takes, "", largeTake)
	gets(api, "/api/takes/{id}/verdict", func(ctx context.Context, in *byID) (*body[TakeVerdict], error) {
		item, err := documents.Takes.Read(ctx, s.library, in.ID)
		if err != nil {
			return nil, storeProblem("take", in.ID, err)
		}
		verdict, err := verdictOfTake(item.Body)
		return &body[TakeVerdict]{verdict}, err
	}, described("takes", "Judge a take: landings, timing, intonation, and what it says of the chords"))
	posts(api, takeVerdictPath, func(_ context.Context, in *body[document.Take]) (*body[TakeVerdict], error) {
		checked, err := in.Body.Checked()
		if err != nil {
			return nil, invalid("", err)
		}
		verdict, err := verdictOfTake(checked)
		return &body[TakeVerdict]{verdict}, err
	}, largeTake)
	huma.Get(api, "/api/takes/{id}/beside/{other}", func(ctx context.Context, in *struct {
		ID    uint `path:"id"`
		Other uint `path:"other" doc:"The take that was played before"`
	}) (*body[[]FigureBeside], error) {
		now, err := s.takeFigures(ctx, in.ID)
		if err != nil {
			return nil, err
		}
		before, err := s.takeFigures(ctx, in.Other)
		if err != nil {
			return nil, err
		}
		return &body[[]FigureBeside]{each(now, func(f judge.Figure) FigureBeside {
			one := FigureBeside{ID: f.ID, Before: "none", Difference: string(judge.Same)}
			for _, b := range before {
				if b.ID == f.ID {
					one.Before, one.Difference = b.Text, string(f.Beside(b))
				}
			}
			return one
		})}, nil
	}, described("takes", "Set the figures of a take beside those of an earlier one"))
	huma.Get(api, "/api/takes/{id}/lick", func(ctx context.Context, in *struct {
		ID   uint `path:"id"`
		From int  `query:"from" minimum:"0" doc:"The first event of the tab, from 0"`
		To   int  `query:"to" minimum:"0" doc:"The last one"`
	}) (*body[TakeLick], error) {
		item, err := documents.Takes.Read(ctx, s.library, in.ID)
		if err != nil {
			return nil, storeProblem("take", in.ID, err)
		}
		made, lost, err := item.Body.Lick(in.From, in.To)
		if err != nil {
			return nil, invalid("", err)
		}
		return &body[TakeLick]{TakeLick{made, append([]string{}, lost...)}}, nil
	}, described("takes", "Some notes of a take as a lick, without keeping it"))
	huma.Get(api, "/api/takes/{id}/sound", func(ctx context.Context, in *byID) (*huma.StreamResponse, error) {
		item, err := documents.Takes.Read(ctx, s.library, in.ID)
		if err != nil {
			return nil, storeProblem("take", in.ID, err)
		}
		if item.Body.Sound == nil {
			return nil, problem(http.StatusNotFound, "this take has no sound; it was played on keys")
		}
		sound, err := s.sounds.Open(item.Body.Sound.Hash)
		if errors.Is(err, store.ErrNoSound) {
			return nil, problem(http.StatusNotFound, "the sound of this take is not there any more")
		}
		if err != nil {
			return nil, err
		}
		return streamed(sound, "audio/wav"), nil
	}, described("takes", "The sound of a take, as WAV"), fileAnswer("audio/wav"))
}

// FigureBeside is a figure of a take beside that of an earlier one.
type FigureBeside struct {
	ID         string `json:"id" doc:"Of the figure"`
	Before     string `json:"before" doc:"The earlier take's"`
	Difference string `json:"difference" enum:"better,worse,same,other" doc:"Other is another matter of style"`
}

func (s *server) takeFigures(ctx context.Context, id uint) ([]judge.Figure, error) {
	item, err := documents.Takes.Read(ctx, s.library, id)
	if err != nil {
		return nil, storeProblem("take", id, err)
	}
	order, err := item.Body.Order()
	if err != nil {
		return nil, invalid("kept", err)
	}
	return judge.Judge(order).Figures(), nil
}

// streamed answers with a file, whole or the range that is asked for, so that a player may go to any place of it;
// and closes it.
func streamed(sound *os.File, media string) *huma.StreamResponse {
	return &huma.StreamResponse{Body: func(ctx huma.Context) {
		defer func() { _ = sound.Close() }()
		gin := humagin.Unwrap(ctx)
		gin.Header("Content-Type", media)
		http.ServeContent(gin.Writer, gin.Request, "", time.Time{}, sound)
	}}
}

func keptTake(_ context.Context, item documents.Item[document.Take]) (KeptTake, error) {
	return KeptTake{Kept: keptOf(item.Info), KeepTake: KeepTake{ChartID: item.ChartID, Take: item.Body}}, nil
}

// takeText says what a take is.
func takeText(s documents.TakeSummary) string {
	text := counted(s.Notes, "note", "notes") + fmt.Sprintf(", at %d", s.Tempo)
	if s.Landings > 0 {
		text += fmt.Sprintf(", %d of %d changes landed", s.Landed, s.Landings)
	}
	return text
}

func verdictOfTake(d document.Take) (TakeVerdict, error) {
	order, err := d.Order()
	if err != nil {
		return TakeVerdict{}, invalid("kept", err)
	}
	v := judge.Judge(order)
	o := playContext{chart: order.Chart, instrument: order.Instrument}
	line := order.Chart.Timeline()
	out := TakeVerdict{
		First: takeFindings(v.First, v), Rest: takeFindings(v.Rest, v), Good: takeFindings(v.Good, v), Rows: takeRows(v),
		Timing: TakeTiming{Lean: ms(v.Timing.Lean), Spread: ms(v.Timing.Spread), Drift: ms(v.Timing.Drift), Swing: v.Timing.SwingPlayed, Bars: []TakeBarTiming{}},
		Bends:  []TakeBendHeard{}, Pairs: []TakePair{}, Heard: []HeardNote{}, Implied: []ImpliedHarmony{}, Missed: []MissedChange{}, Remarks: append([]string{}, d.Remarks...), Tab: Tab{BarLines: []BarLine{}, Events: []LineEvent{}},
	}
	for _, b := range v.Timing.Bars {
		out.Timing.Bars = append(out.Timing.Bars, TakeBarTiming{Bar: b.Bar + 1, Late: ms(b.Late)})
	}
	for _, b := range v.Intonation.Bends {
		out.Bends = append(out.Bends, TakeBendHeard{Note: b.Note, Target: b.Target, Cents: b.Cents, Judgement: string(b.Judgement), Text: b.Text()})
	}
	for _, p := range v.Pairs {
		out.Pairs = append(out.Pairs, TakePair{Kind: string(p.Kind), Planned: p.Planned, Heard: p.Heard, Fits: p.Fits})
	}
	stray := map[int]bool{}
	for _, n := range v.Timing.Stray {
		stray[n] = true
	}
	out.Heard = make([]HeardNote, len(order.Notes))
	for n, note := range order.Notes {
		out.Heard[n] = HeardNote{Event: -1, Onset: note.Onset, Unsure: note.Confidence < judge.SureConfidence}
	}
	for _, p := range v.Written.Places {
		h := &out.Heard[p.Note]
		h.Event, h.Bar, h.Late, h.Text, h.Stray = p.Event, line.BarAt(p.Tick)+1, ms(p.Late), judge.LateText(p.Late), stray[p.Note]
	}
	position := neck.NearestPosition(order.Instrument, order.Chart.Key.Tonic.Class(), d.Position)
	for _, m := range v.MissedChanges(order.Chart) {
		card := practice.Card{Kind: practice.Landing, Key: m.Arriving.Context(m.Key).Key, Position: position.Name(neck.Positions(order.Instrument, order.Chart.Key.Tonic.Class())), Chords: []harmony.Chord{m.Leaving, m.Arriving}}
		out.Missed = append(out.Missed, MissedChange{
			Event: out.Heard[m.Note].Event, Bar: line.BarAt(m.Tick) + 1, Card: card.ID(),
			Change: card.Subject(), Text: m.Played.Reason,
		})
	}
	for _, d := range v.Review.Implied {
		out.Implied = append(out.Implied, impliedOf(d))
	}
	if len(v.Written.Phrase.Events) > 0 {
		out.Tab = o.tab(v.Written.Phrase, 0, "")
	}
	return out, nil
}

func ms(seconds float64) float64 { return math.Round(10000*seconds) / 10 }

// takeFindings are findings with the notes they come from as events of the tab.
func takeFindings(found []judge.Finding, v judge.Verdict) []Finding {
	event := map[int]int{}
	for _, p := range v.Written.Places {
		event[p.Note] = p.Event
	}
	return each(found, func(f judge.Finding) Finding {
		one := Finding{f.Name, f.Good, f.Text, []int{}}
		for _, n := range f.Notes {
			if e, ok := event[n]; ok && e >= 0 {
				one.Events = append(one.Events, e)
			}
		}
		return one
	})
}

// takeRows are the figures of a take as they are shown.
func takeRows(v judge.Verdict) []FigureRow {
	return each(v.Figures(), func(f judge.Figure) FigureRow { return FigureRow{f.ID, f.Name, f.Text, []int{}, f.Good} })
}
