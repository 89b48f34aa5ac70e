package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/pitch"
	"undaris/format/document"
)

// LickVariant is a lick at every other place.
type LickVariant struct {
	Group string `json:"group" enum:"octaves,keys,positions"`
	Name  string `json:"name" doc:"Which: an octave up, the key of Ab, the C form"`
	LickMove
}

// SplitRequest is a lick to be cut into its chords.
type SplitRequest struct {
	Lick document.Lick `json:"lick"`
}

// JoinRequest is two licks to be played end to end.
type JoinRequest struct {
	MovesRequest
	With        document.Lick `json:"with" doc:"What is played behind it"`
	Notes       int           `json:"notes,omitempty" minimum:"0" maximum:"12" doc:"How many notes lead from the one to the other"`
	Subdivision string        `json:"subdivision,omitempty" doc:"What they run in; left out for eighths"`
}

// JoinedLicks is two licks end to end.
type JoinedLicks struct {
	Lick   document.Lick `json:"lick"`
	Remark string        `json:"remark" doc:"What could not be done of the notes between, empty where all was"`
	Tab    Tab           `json:"tab"`
	// OwnChart is what the tab is over.
	OwnChart document.Chart `json:"ownChart" doc:"The lick's own bars and chords, which the tab is over"`
}

func (s *server) registerComputeVariants(api huma.API) {
	posts(api, "/api/compute/lick/variants", func(_ context.Context, in *body[MovesRequest]) (*body[[]LickVariant], error) {
		on, chosen, position, err := in.Body.placed()
		if err != nil {
			return nil, err
		}
		key := on.chart.Key
		if in.Body.AsWritten {
			key = chosen.Key()
		}
		out := []LickVariant{}
		for _, e := range chosen.Variants(on.instrument, key, position) {
			out = append(out, LickVariant{Group: e.Group, Name: e.Name, LickMove: on.variant(chosen, e)})
		}
		return &body[[]LickVariant]{out}, nil
	})
	posts(api, "/api/compute/lick/split", func(_ context.Context, in *body[SplitRequest]) (*body[[]document.Lick], error) {
		chosen, err := in.Body.Lick.Core()
		if err != nil {
			return nil, invalid("lick", err)
		}
		out := []document.Lick{}
		for _, part := range chosen.SplitByChord() {
			out = append(out, document.LickOf(part))
		}
		return &body[[]document.Lick]{out}, nil
	})
	posts(api, "/api/compute/lick/join", func(_ context.Context, in *body[JoinRequest]) (*body[JoinedLicks], error) {
		on, chosen, position, err := in.Body.placed()
		if err != nil {
			return nil, err
		}
		_, with, _, err := in.Body.setLick(in.Body.With, in.Body.Position)
		if err != nil {
			return nil, err
		}
		if with.Phrase, err = with.Phrase.InMeter(chosen.Phrase.Meter); err != nil {
			return nil, invalid("with", err)
		}
		if with, err = with.TransposedTo(on.instrument, chosen.Tonic, position.Window); err != nil {
			return nil, invalid("with", err)
		}
		subdivision, err := chosen.Phrase.Meter.Subdivision(in.Body.Subdivision)
		if err != nil {
			return nil, invalid("", err)
		}
		joined, err := chosen.Join(on.instrument, with, in.Body.Notes, subdivision)
		if err != nil {
			return nil, invalid("", err)
		}
		own, start := joined.Lick.ToChart(on.chart.Tempo, on.chart.Feel, on.chart.Swing)
		on = on.withChart(own)
		return &body[JoinedLicks]{JoinedLicks{Lick: document.LickOf(joined.Lick.WithInstrument(on.instrument)), Remark: joined.Remark, Tab: on.tab(joined.Lick.Phrase.WithDefaultChord(own.TonicChord()), start, ""), OwnChart: document.ChartOf(own)}}, nil
	})
}

// elsewhere writes a lick at another place, over its own chords.
func (o playContext) variant(l lick.Lick, e lick.Variant) LickMove {
	if e.Refused != "" {
		return o.lickMove(l, e.Move, o.chart.TonicChord())
	}
	where := e.Name
	if where == e.Tonic.String() {
		where = pitch.Signed(where) // names are shown as they are
	}
	kept := lick.Lick{Name: l.Name, About: l.About, Tags: l.Tags, Tonic: e.Tonic, Phrase: e.Phrase}.WithSuffix(", " + where).WithInstrument(o.instrument)
	own, start := kept.ToChart(o.chart.Tempo, o.chart.Feel, o.chart.Swing)
	there := playContext{chart: own, instrument: o.instrument, spanMM: o.spanMM}
	out := there.cost(e.Move)
	tab, doc := there.tab(e.Phrase, start, ""), document.LickOf(kept)
	out.Tab, out.Lick = &tab, &doc
	out.OwnChart = ownChart(own)
	return out
}

func ownChart(c chart.Chart) *document.Chart {
	d := document.ChartOf(c)
	return &d
}
