package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/routine"
	"undaris/format/document"
)

// PassRequest asks for one pass of a routine: what sounds, and what the stage shows.
type PassRequest struct {
	PlayContext
	Routine  document.Routine `json:"routine"`
	After    *PassPlace       `json:"after,omitempty" doc:"The place of the pass before; left out for the first"`
	At       *PassPlace       `json:"at,omitempty" doc:"The place of the pass itself, to ask for it again with other wishes"`
	InFile   bool             `json:"inFile,omitempty" doc:"Nobody can ask for the next segment: one that waits is left after it has gone round"`
	Skip     bool             `json:"skip,omitempty" doc:"Go on with the next segment"`
	Loop     *BarRange        `json:"loop,omitempty" doc:"Only these bars of the pass that it stands at"`
	Once     bool             `json:"once,omitempty" doc:"Those bars are played once, and the routine goes on after them"`
	Position string           `json:"position,omitempty" doc:"A position of the tune's key, by id or form; it follows the key"`
	Strategy string           `json:"strategy,omitempty"`
	Arrangement
	Line  *PlayedLine     `json:"line,omitempty" doc:"What is played over the band, in the tune's key"`
	Licks []document.Lick `json:"licks,omitempty" maxItems:"64" doc:"What may be played where licks are traded"`
	// Exercises are left out where the routine names none.
	Exercises []IdentifiedExercise `json:"exercises,omitempty" maxItems:"64" doc:"Those that segments of the routine name"`
}

// Arrangement is how the band plays.
type Arrangement struct {
	Style    string          `json:"style,omitempty" doc:"Left out for that of the tune"`
	Seed     uint32          `json:"seed,omitempty" doc:"The same seed plays the same"`
	Intro    string          `json:"intro,omitempty" enum:"one bar,two bars,turnaround,none" doc:"What comes before the first bar; left out for none"`
	Ending   bool            `json:"ending,omitempty" doc:"The band ends with this chorus, slowing down"`
	StopTime bool            `json:"stopTime,omitempty"`
	Click    *document.Click `json:"click,omitempty"`
}

// PassPlace is where in a routine a pass stands.
type PassPlace struct {
	Segment int    `json:"segment" minimum:"0" doc:"From 0"`
	Time    int    `json:"time" minimum:"0" doc:"Which time the segment is played, from 0"`
	Pass    int    `json:"pass" minimum:"0" doc:"Which pass of that time, from 0"`
	Chorus  int    `json:"chorus" minimum:"0" doc:"Which pass of the routine, from 0"`
	Tempo   int    `json:"tempo" minimum:"20" maximum:"400" doc:"That the segment began with"`
	Tonic   string `json:"tonic" doc:"That the segment began with"`
}

// NamedChord is a chord and its numeral in the key it comes in.
type NamedChord struct {
	Chord string `json:"chord"`
	Roman string `json:"roman"`
}

// BarRange is some bars of a chorus.
type BarRange struct {
	From int `json:"from" minimum:"1" doc:"The first, from 1"`
	To   int `json:"to" minimum:"1" doc:"The last"`
}

// Pass is one pass of a routine.
type Pass struct {
	// Over says that there is no pass: the routine has been played.
	Finished bool           `json:"finished"`
	Place    PassPlace      `json:"place"`
	Segment  string         `json:"segment" doc:"The segment's name"`
	View     string         `json:"view" doc:"What the stage shows; empty for what the player has chosen"`
	Chart    document.Chart `json:"chart" doc:"The tune as it is played, in its key and at its tempo"`
	Bars     int            `json:"bars" doc:"How many bars the chart has, repeats played out"`
	Position string         `json:"position" doc:"The position in that key"`
	Hand     []HandPlace    `json:"hand" doc:"Where the hand stands from which tick of the chorus on; more than one place where the key changes"`
	Style    string         `json:"style"`
	Text     string         `json:"text,omitempty" doc:"What could not be as it was asked"`
	// Next is left out where the routine ends with this pass.
	Next        *NamedChord  `json:"next,omitempty" doc:"The chord that comes after its last one"`
	Yours       []BarRange   `json:"yours" doc:"Bars that are the player's, where lines are traded"`
	Landings    []PathTarget `json:"landings" doc:"What to land on at each change, by the target strategy or the segment's aim"`
	Stage       []StageSpan  `json:"stage" doc:"The chords as the soloist follows them, each with what comes after it"`
	Performance Performance  `json:"performance"`
}

func (s *server) registerComputePass(api huma.API) {
	posts(api, "/api/compute/band/pass", func(_ context.Context, in *body[PassRequest]) (*body[Pass], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		pass, err := on.pass(in.Body)
		return &body[Pass]{pass}, err
	})
}

// arranged is a pass with all that it is answered from.
type arranged struct {
	on    playContext
	pass  routine.Pass
	order band.Order
	out   Pass
}

func (o playContext) pass(asked PassRequest) (Pass, error) {
	r, err := asked.Routine.Core(o.chart)
	if err != nil {
		return Pass{}, invalid("routine", err)
	}
	p, ok, err := passOf(r, o.chart, asked)
	if err != nil || !ok {
		return Pass{Finished: err == nil, Yours: []BarRange{}, Landings: []PathTarget{}, Stage: []StageSpan{}, Performance: Performance{Beats: []BeatMark{}, Chords: []ChordMark{}, Notes: []Note{}}}, err
	}
	a, err := o.arrange(asked, r, p)
	if err != nil {
		return Pass{}, err
	}
	a.out.Performance = a.on.performance(a.order)
	next, goesOn := following(r, o.chart, p, asked)
	if goesOn && asked.Loop != nil && !asked.Once {
		next = a.pass
	}
	home, err := o.position(asked.Position)
	if err != nil {
		return Pass{}, err
	}
	a.out.Stage, err = o.stage(a, home, next, goesOn, asked)
	return a.out, err
}

// arrange works out how a pass of a routine is played.
func (o playContext) arrange(asked PassRequest, r routine.Routine, p routine.Pass) (arranged, error) {
	if asked.Loop != nil {
		var err error
		if p, err = looped(p, *asked.Loop); err != nil {
			return arranged{}, err
		}
	}
	home, err := o.position(asked.Position)
	if err != nil {
		return arranged{}, err
	}
	there := o.withChart(p.Chart)
	position := home
	if p.Chart.Key.Tonic != o.chart.Key.Tonic {
		position = home.Follow(o.instrument, o.chart.Key.Tonic.Class(), o.instrument, p.Chart.Key.Tonic.Class())
	}
	out := Pass{
		Place: placeOfPass(p.Place), Segment: p.Segment.Name, View: string(p.Segment.View), Chart: document.ChartOf(p.Chart),
		Bars: p.Chart.Timeline().Bars(), Position: position.ID(), Yours: []BarRange{},
	}
	hand := change.HandPlaces(p.Chart.Timeline(), o.instrument, position)
	if out.Hand, err = there.hand(hand); err != nil {
		return arranged{}, err
	}
	path, err := there.landings(p, hand, asked.Strategy)
	if err != nil {
		return arranged{}, err
	}
	out.Landings = path.Landings
	request := band.Order{
		Chart: p.Chart, Instrument: o.instrument, From: p.From, Bars: p.Bars, Seed: uint64(asked.Seed), Chorus: p.Chorus,
		Ending: asked.Ending, StopTime: asked.StopTime || p.Segment.StopTime, Silent: p.Segment.Silent, Click: asked.Click.Core(),
	}
	if !asked.Ending {
		if next, key, ok := nextChord(r, o.chart, p, asked); ok {
			request.Next, out.Next = &next, &NamedChord{Chord: next.Symbol(), Roman: key.Roman(next)}
		}
	}
	if p.Segment.Click != (band.ClickPattern{}) {
		request.Click = p.Segment.Click
	}
	if err := request.Click.Check(); err != nil {
		return arranged{}, invalid("click", err)
	}
	if request.Style, out.Text, err = styleFor(asked.Style, p.Chart); err != nil {
		return arranged{}, err
	}
	out.Style = request.Style.Name
	if p.Chorus == 0 {
		request.CountIn, request.Intro = beginning(asked.Intro)
	}
	if p.Segment.Aim != 0 {
		request.Cues = cues(p, out.Landings, o.instrument)
	}
	if err := o.lineOf(asked, p, position, &request, &out); err != nil {
		return arranged{}, err
	}
	return arranged{on: there, pass: p, order: request, out: out}, nil
}

// passOf finds the pass that is asked for; false where the routine is over.
func passOf(r routine.Routine, c chart.Chart, asked PassRequest) (routine.Pass, bool, error) {
	switch {
	case asked.At != nil:
		place, err := asked.At.core(r, c)
		if err != nil {
			return routine.Pass{}, false, invalid("at", err)
		}
		return r.At(c, place), true, nil
	case asked.After != nil:
		place, err := asked.After.core(r, c)
		if err != nil {
			return routine.Pass{}, false, invalid("after", err)
		}
		p, ok := r.Next(c, place, asked.Skip)
		if asked.InFile {
			p, ok = r.NextInFile(c, place)
		}
		return p, ok, nil
	}
	return r.First(c), true, nil
}

func (p PassPlace) core(r routine.Routine, c chart.Chart) (routine.Place, error) {
	if p.Segment >= len(r.Segments) {
		return routine.Place{}, &chart.FieldError{Field: "segment", Detail: fmt.Sprintf("the routine has %d segments, no segment %d", len(r.Segments), p.Segment+1)}
	}
	if _, err := harmony.ParseKey(p.Tonic, c.Key.Mode); err != nil {
		return routine.Place{}, &chart.FieldError{Field: "tonic", Detail: err.Error()}
	}
	return routine.Place(p), nil
}

func placeOfPass(p routine.Place) PassPlace { return PassPlace(p) }

// looped is a pass cut to some of its bars.
func looped(p routine.Pass, bars BarRange) (routine.Pass, error) {
	count := p.Chart.Timeline().Bars()
	if bars.From > bars.To || bars.To > count {
		return p, invalid("", &chart.FieldError{Field: "loop", Detail: fmt.Sprintf("bars %d to %d are not in the chart; its bars are 1 to %d", bars.From, bars.To, count)})
	}
	p.From, p.Bars = bars.From-1, bars.To-bars.From+1
	return p, nil
}
