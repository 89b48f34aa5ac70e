package api

import (
	"cmp"
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// RunRequest asks when a run of even notes must start to land on time; or, with a
// start, how many notes there are from there, and how a run between two places is
// made to fit.
type RunRequest struct {
	PlayContext
	Position    string `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Subdivision string `json:"subdivision,omitempty" doc:"Left out for eighths"`
	Arrival     int    `json:"arrival" doc:"The chart's tick that the last note falls on"`
	Notes       int    `json:"notes,omitempty" doc:"How many notes, the last included; left out where a start is given"`
	Start       *int   `json:"start,omitempty" doc:"The chart's tick to start on; negative in the chorus before"`
	From        *Place `json:"from,omitempty" doc:"Where the run begins on the neck"`
	To          *Place `json:"to,omitempty" doc:"Where it ends"`
	Tones       string `json:"tones,omitempty" doc:"The notes between: box, scale of the chord or chord tones; left out for the box"`
	Goal        int    `json:"goal,omitempty" doc:"A tempo to work up to; left out for none"`
}

// Run is a run of even notes in time.
type Run struct {
	Notes       int        `json:"notes"`
	Subdivision string     `json:"subdivision"`
	Start       int        `json:"start"`
	Arrival     int        `json:"arrival"`
	Starts      string     `json:"starts" doc:"When it starts, as a player counts" example:"the and of beat 3 of bar 4"`
	Lands       string     `json:"lands"`
	Ticks       []int      `json:"ticks" doc:"The chart's ticks of its notes"`
	From        int        `json:"from" doc:"The downbeat of the bar it starts in: where a ruler of it begins"`
	BarTicks    int        `json:"barTicks"`
	BarLines    []BarLine  `json:"barLines" doc:"The bars it runs through, in ticks of the chart"`
	Beat        int        `json:"beatTicks"`
	PerSecond   float64    `json:"perSecond" doc:"Notes a second at the chart's tempo"`
	Equal       []Equal    `json:"equal" doc:"The tempos at which the other subdivisions go as fast"`
	Ladder      []int      `json:"ladder,omitempty" doc:"The tempos from the chart's to the goal"`
	Fitted      *FittedRun `json:"fitted,omitempty" doc:"The run between two places, made to fit"`
}

// Equal is the tempo at which a subdivision goes as fast as the run.
type Equal struct {
	Subdivision string  `json:"subdivision"`
	Tempo       float64 `json:"tempo"`
}

// FittedRun is a run between two places made to fit the number of notes.
type FittedRun struct {
	Between int      `json:"between" doc:"How many notes lie there as they are, both ends included"`
	Added   []string `json:"added" doc:"The chromatic passing notes put in, and where"`
	Dropped []string `json:"dropped" doc:"The notes left out"`
	Missing int      `json:"missing" doc:"How many notes there is time for and no place"`
	Text    string   `json:"text"`
	Tab     Tab      `json:"tab"`
	Passing []int    `json:"passing" doc:"Which notes of the tab were put in, from 0"`
}

func (s *server) registerComputeRun(api huma.API) {
	posts(api, "/api/compute/change/run", func(_ context.Context, in *body[RunRequest]) (*body[Run], error) {
		on, position, subdivision, err := in.Body.inTime(in.Body.Position, in.Body.Subdivision)
		if err != nil {
			return nil, err
		}
		var run chart.Run
		if in.Body.Start != nil {
			run, err = on.chart.RunBetween(*in.Body.Start, in.Body.Arrival, subdivision)
		} else {
			run, err = on.chart.CountBack(in.Body.Arrival, in.Body.Notes, subdivision)
		}
		if err != nil {
			return nil, invalid("", err)
		}
		out := on.run(run)
		if in.Body.Goal != 0 {
			if out.Ladder, err = chart.Ladder(on.chart.Tempo, in.Body.Goal); err != nil {
				return nil, invalid("", err)
			}
		}
		if in.Body.From != nil && in.Body.To != nil {
			if out.Fitted, err = on.fitted(run, position.Window, *in.Body.From, *in.Body.To, in.Body.Tones); err != nil {
				return nil, err
			}
		}
		return &body[Run]{out}, nil
	})
}

func (o playContext) run(r chart.Run) Run {
	t := o.chart.Timeline()
	m := t.MeterAt(t.BarAt(r.Arrival))
	first := t.BarAt(r.Start)
	out := Run{
		Notes: r.Notes, Subdivision: r.Subdivision.Name, Start: r.Start, Arrival: r.Arrival,
		Starts: o.chart.CountedInChorus(r.Start), Lands: o.chart.CountedInChorus(r.Arrival), Ticks: r.Ticks(), From: t.Start(first), BarTicks: m.BarTicks(), Beat: m.BeatTicks(),
		BarLines:  barLines(t, first, max(t.BarsUntil(r.Arrival+1)-first, 1), 0),
		PerSecond: chart.NotesPerSecond(float64(o.chart.Tempo), r.Subdivision), Equal: []Equal{},
	}
	for _, s := range m.Subdivisions() {
		if s != r.Subdivision {
			out.Equal = append(out.Equal, Equal{s.Name, chart.EqualTempo(float64(o.chart.Tempo), r.Subdivision, s)})
		}
	}
	return out
}

// fitted makes the run between two places fit the time, and writes it out.
func (o playContext) fitted(r chart.Run, w neck.Window, from, to Place, over string) (*FittedRun, error) {
	begin, end := neck.Place{String: from.String, Fret: from.Fret}, neck.Place{String: to.String, Fret: to.Fret}
	chord := o.chart.ChordAt(r.Start)
	tones, err := exercise.TonesOver(o.chart, chord, exercise.Tones(cmp.Or(over, string(exercise.BoxTones))))
	if err != nil {
		return nil, invalid("", err)
	}
	run, err := change.TonesBetween(o.instrument, w, tones, begin, end)
	if err != nil {
		return nil, invalid("from", err)
	}
	fill := change.FitRun(o.home(), chord, run, r.Notes)
	wanted := make([]neck.NoteToPlace, len(fill.Notes))
	for n, note := range fill.Notes {
		wanted[n] = neck.NoteToPlace{Pitch: note.Pitch}
	}
	wanted[0].At, wanted[len(wanted)-1].At = &begin, &end
	fingering, _, err := neck.FingerPhrase(o.instrument, w, wanted)
	if err != nil {
		return nil, invalid("from", err)
	}
	// Where notes are missing the run starts as late as it must to land on time.
	line, start := change.EvenNotes(o.chart, fingering, chart.RunStart(r.Arrival, len(fingering), r.Subdivision, o.chart.Meter), r.Subdivision)
	out := &FittedRun{Between: len(run), Added: []string{}, Dropped: []string{}, Missing: fill.Missing, Passing: []int{}, Tab: o.tab(line, start, "approach")}
	for n, note := range fill.Notes {
		if note.Added {
			out.Passing = append(out.Passing, n)
			out.Added = append(out.Added, fmt.Sprintf("%s before %s", o.spelled(chord, note.Pitch), o.spelled(chord, fill.Notes[n+1].Pitch)))
		}
	}
	for _, p := range fill.Dropped {
		out.Dropped = append(out.Dropped, o.spelled(chord, p))
	}
	out.Text = fill.Text(len(run), r.Notes)
	return out, nil
}

func (o playContext) spelled(c harmony.Chord, p pitch.MIDI) string {
	return o.home().ToneOver(c, p.Class()).Note.String()
}
