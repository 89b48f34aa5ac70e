package api

import (
	"errors"
	"fmt"

	"undaris/core/band"
	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/routine"
	"undaris/core/solo/chorus"
)

// landings is what to land on at each change of a pass.
func (o playContext) landings(p routine.Pass, hand []change.HandPlace, strategy string) (Path, error) {
	chosen, err := change.ParseTargetStrategy(strategy)
	if err != nil {
		return Path{}, invalid("strategy", err)
	}
	request := change.PathRequest{
		Strategy: chosen, Instrument: o.instrument, Hand: hand, Swaps: o.swaps, Changes: p.Chart.TargetChanges(), OnlyDegree: p.Segment.Aim,
	}
	path, err := request.Find()
	if err != nil {
		return Path{}, err
	}
	return o.path(chosen, path), nil
}

// nextChord is the chord that follows a pass, for the bass to lead into, and the key it comes
// in; false where nothing follows.
func nextChord(r routine.Routine, c chart.Chart, p routine.Pass, asked PassRequest) (harmony.Chord, harmony.Key, bool) {
	next, from := p.Chart, p.From
	if asked.Loop == nil || asked.Once {
		after, ok := r.Next(c, p.Place, false)
		if !ok {
			return harmony.Chord{}, harmony.Key{}, false
		}
		next, from = after.Chart, after.From
	}
	t := next.Timeline()
	return next.WithoutImagined().ChordAt(t.Start(from)), t.KeyAt(from), true
}

// styleFor finds the style that is asked for; where the meter does not have it, the nearest,
// and says so.
func styleFor(name string, c chart.Chart) (band.Style, string, error) {
	style, err := band.FindStyle(name, c)
	var meter *band.MeterError
	if errors.As(err, &meter) {
		return band.StyleFor(c), meter.Error(), nil
	}
	if err != nil {
		return style, "", invalid("style", err)
	}
	return style, "", nil
}

// beginning is how many bars are counted in, and whether the turnaround comes first.
func beginning(intro string) (countIn int, turnaround bool) {
	switch intro {
	case "one bar":
		return 1, false
	case "two bars":
		return band.MaxCountIn, false
	case "turnaround":
		return 1, true
	}
	return 0, false
}

// cues sound what to land on a beat before each change.
func cues(p routine.Pass, landings []PathTarget, i neck.Instrument) []band.Cue {
	beat := p.Chart.Meter.BeatTicks()
	all := []band.Cue{}
	for _, l := range landings {
		all = append(all, band.Cue{Tick: max(l.Change-beat, 0), Ticks: beat * 9 / 10, Pitch: i.Pitch(neck.Place{String: l.String, Fret: l.Fret})})
	}
	return all
}

// lineOf lays over the band what is played over it: the line, moved to the key of the pass, the exercise of its segment, or
// where licks are traded one of them for each stretch.
func (o playContext) lineOf(asked PassRequest, p routine.Pass, position neck.Position, request *band.Order, out *Pass) error {
	if asked.Line != nil && p.Segment.Chord == 0 {
		line, err := asked.Line.Core(o.instrument)
		if err != nil {
			return invalid("line", err)
		}
		request.LineStart = asked.Line.Start
		if p.Chart.Key.Tonic != o.chart.Key.Tonic {
			from := chorus.PlayContext{Chart: o.chart, Instrument: o.instrument, SpanMM: o.spanMM}
			to := from
			to.Chart = p.Chart
			line, _ = chorus.TransposeLine(line, from, to)
		}
		request.Line = line
	}
	if p.Segment.Exercise > 0 {
		line, ok, err := o.exerciseLine(asked, p, position)
		if err != nil {
			return err
		}
		if ok {
			request.Line, request.LineStart = line, 0
		}
	}
	if p.Segment.TradeBars == 0 {
		return nil
	}
	licks := []lick.Lick{}
	if p.Segment.Licks {
		for n, d := range asked.Licks {
			chosen, err := d.Core()
			if err != nil {
				return invalid(fmt.Sprintf("licks[%d]", n), err)
			}
			licks = append(licks, chosen)
		}
	}
	trade := routine.Trade{Pass: p, Instrument: o.instrument, Position: position, Seed: uint64(asked.Seed)}
	for _, one := range trade.PlayerBars() {
		out.Yours = append(out.Yours, BarRange{From: one.From + 1, To: one.From + one.Bars})
	}
	request.Line, request.LineStart = trade.Line(request.Line, request.LineStart, licks)
	return nil
}

// HandPlace is where the hand stands from a tick of the chorus on.
type HandPlace struct {
	Tick     int    `json:"tick"`
	Position string `json:"position" doc:"The position in the key that holds there"`
	Key      string `json:"key"`
	Box      string `json:"box" doc:"The box of that key, such as Eb major pentatonic"`
}

func (o playContext) hand(places []change.HandPlace) ([]HandPlace, error) {
	t := o.chart.Timeline()
	out := make([]HandPlace, len(places))
	for n, p := range places {
		key := t.KeyAt(t.BarAt(p.Tick))
		box, err := key.Box(o.chart.Box)
		if err != nil {
			return nil, invalid("chart.box", err)
		}
		out[n] = HandPlace{Tick: p.Tick, Position: p.Position.ID(), Key: keyText(key), Box: box.Name()}
	}
	return out, nil
}
