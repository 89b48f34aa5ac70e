package api

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/solo/chorus"
	"undaris/format/document"
	"undaris/store"
)

// KeepLine asks for a line to be written and kept. The server writes it itself
// from the kept chart and lick.
type KeepLine struct {
	Name    string `json:"name,omitempty" doc:"At most 60 characters; left out for one made from lick and target"`
	ChartID uint   `json:"chartId"`
	LickID  uint   `json:"lickId"`
	LineChoice
	Hands *document.Hands `json:"hands,omitempty" doc:"Left out for a guitar in standard tuning"`
}

// lineBody is a line as it is stored: all that it was made from, and itself.
// It stands as it was kept, whatever becomes of its chart and lick.
type lineBody struct {
	Name   string          `json:"name"`
	LickID uint            `json:"lickId"`
	Chart  document.Chart  `json:"chart"`
	Lick   document.Lick   `json:"lick"`
	Choice LineChoice      `json:"choice"`
	Hands  *document.Hands `json:"hands,omitempty"`
	Line   Line            `json:"line"`
}

// KeptLine is a line of the library.
type KeptLine struct {
	Kept
	ChartID uint            `json:"chartId"`
	Name    string          `json:"name"`
	LickID  uint            `json:"lickId"`
	Choice  LineChoice      `json:"choice"`
	Chart   ReadChart       `json:"chart" doc:"The tune as it is now; as it was when the line was kept, where it is gone"`
	Hands   *document.Hands `json:"hands,omitempty" doc:"What it is for"`
	Line    Line            `json:"line"`
	// KeptIn is left out where the line lies as it was kept.
	KeptIn string   `json:"keptIn,omitempty" doc:"The key it was kept in, where it has moved with its tune"`
	Moved  []string `json:"moved,omitempty" doc:"What could not stay when it moved, note by note"`
}

// LineEntry is a line in the list of the library.
type LineEntry struct {
	Kept
	ChartID uint   `json:"chartId"`
	Name    string `json:"name"`
	LineSummary
}

// LineSummary is what a list shows of a line beside its name.
type LineSummary struct {
	Key    string `json:"key" doc:"The tonic it was kept in"`
	Change string `json:"change" doc:"The change it leads over" example:"C7 to F7, bar 4 to 5"`
}

type linesOf struct {
	ChartID uint `query:"chart" doc:"Only those over this chart; left out for all"`
}

func (s *server) registerLines(api huma.API) {
	huma.Get(api, "/api/lines", func(_ context.Context, in *linesOf) (*body[[]LineEntry], error) {
		documents, err := s.store.Entries(store.Line, in.ChartID)
		if err != nil {
			return nil, err
		}
		all, err := listed(s, documents, func(d store.Document) (LineSummary, []string, error) {
			b, err := unpack[lineBody](d)
			return lineSummary(b), nil, err
		})
		entries := make([]LineEntry, len(all))
		for n, one := range all {
			entries[n] = LineEntry{Kept: one.kept, Name: documents[n].Name, ChartID: *documents[n].ChartID, LineSummary: one.summary}
		}
		return &body[[]LineEntry]{entries}, err
	})
	huma.Post(api, "/api/lines", func(_ context.Context, in *body[KeepLine]) (*body[KeptLine], error) {
		return s.keepLine(in.Body)
	}, created)
	huma.Get(api, "/api/lines/{id}", func(_ context.Context, in *byID) (*body[KeptLine], error) {
		d, err := s.store.Read(store.Line, in.ID)
		if err != nil {
			return nil, storeProblem("line", in.ID, err)
		}
		return s.keptLine(d)
	})
	huma.Delete(api, "/api/lines/{id}", func(_ context.Context, in *deletion) (*struct{}, error) {
		return nil, storeProblem("line", in.ID, s.store.Delete(store.Line, in.ID, in.Version))
	})
	huma.Post(api, "/api/lines/{id}/restore", func(_ context.Context, in *byID) (*body[KeptLine], error) {
		d, err := s.store.Restore(store.Line, in.ID)
		if err != nil {
			return nil, storeProblem("line", in.ID, err)
		}
		return s.keptLine(d)
	})
}

func (s *server) keepLine(k KeepLine) (*body[KeptLine], error) {
	name := strings.TrimSpace(k.Name)
	if len([]rune(name)) > lick.MaxName {
		return nil, invalid("name", fmt.Errorf("a line's name has at most %d characters", lick.MaxName))
	}
	chartDoc, err := keptAs[document.Chart](s, store.Chart, "chartId", k.ChartID)
	if err != nil {
		return nil, err
	}
	lickDoc, err := keptAs[document.Lick](s, store.Lick, "lickId", k.LickID)
	if err != nil {
		return nil, err
	}
	line, err := s.line(PlayContext{Chart: chartDoc, Hands: k.Hands}, lickDoc, k.LineChoice)
	if err != nil {
		return nil, err
	}
	if name == "" {
		name = fmt.Sprintf("%s into %s", lickDoc.Name, line.Target.Note)
	}
	kept := lineBody{Name: name, LickID: k.LickID, Chart: chartDoc, Lick: lickDoc, Choice: k.LineChoice, Hands: k.Hands, Line: line}
	d, err := s.store.Create(store.Document{Kind: store.Line, Name: name, ChartID: &k.ChartID, Body: pack(kept), Summary: pack(lineSummary(kept))})
	if err != nil {
		return nil, err
	}
	return s.keptLine(d)
}

// keptAs reads a kept thing that a request names by a field; where there is
// none, the problem names the field and what there is.
func keptAs[T any](s *server, kind store.Kind, field string, id uint) (T, error) {
	var none T
	d, err := s.store.Read(kind, id)
	if errors.Is(err, store.ErrNotFound) {
		all, err := s.store.List(kind, 0)
		if err != nil {
			return none, err
		}
		there := make([]string, len(all))
		for n, one := range all {
			there[n] = fmt.Sprintf("%d (%s)", one.ID, one.Name)
		}
		return none, invalid(field, fmt.Errorf("there is no %s with the id %d; there are %s", kind, id, strings.Join(there, ", ")))
	}
	if err != nil {
		return none, err
	}
	return unpack[T](d)
}

// keptLine is a line where its tune is now. It is kept as it was, so that it lies there
// again, to the note, when the tune comes back.
func (s *server) keptLine(d store.Document) (*body[KeptLine], error) {
	b, err := unpack[lineBody](d)
	if err != nil {
		return nil, storeProblem("line", d.ID, err)
	}
	c, err := b.Chart.Core()
	if err != nil {
		return nil, storeProblem("line", d.ID, &damagedError{d.Kind, d.ID, err})
	}
	out := KeptLine{
		Kept: keptOf(d), ChartID: *d.ChartID, Name: b.Name, LickID: b.LickID, Choice: b.Choice, Chart: readChart(c), Hands: b.Hands, Line: b.Line,
	}
	now, err := s.present(*d.ChartID)
	if err != nil || now == nil {
		return &body[KeptLine]{out}, err
	}
	if err := out.follow(*now, b); err != nil {
		s.log.Warn("a kept line could not follow its tune", "id", d.ID, "error", err)
	}
	return &body[KeptLine]{out}, nil
}

// follow moves the line along to the tune and neck as they are now.
func (k *KeptLine) follow(now PlayContext, b lineBody) error {
	from, err := PlayContext{Chart: b.Chart, Hands: b.Hands}.core()
	if err != nil {
		return err
	}
	read, err := now.read()
	if err != nil {
		return err
	}
	to := chorus.PlayContext{Chart: read.chart, Instrument: read.instrument, SpanMM: read.spanMM}
	ch, err := findChange(read.chart, b.Choice.Change)
	if document.SameSetting(from, to) || err != nil {
		return err
	}
	events := make([]document.Event, len(b.Line.Events))
	for n, e := range b.Line.Events {
		events[n] = e.Event
	}
	p, err := document.Phrase{Meter: b.Line.Meter, Events: events}.Core(from.Instrument)
	if err != nil {
		return err
	}
	moved, conceded := chorus.TransposeLine(p, from, to)
	position := document.FollowedPosition(b.Choice.Position, from, to)
	line := b.Line
	line.Position, line.Notes, line.Events = positionOf(position), []string{}, make([]LineEvent, len(moved.Events))
	moved = moved.WithChordsOf(read.chart, line.Start)
	for n, event := range read.labelled(moved) {
		line.Events[n] = LineEvent{LabelledEvent: event}
		if len(moved.Events) == len(b.Line.Events) {
			line.Events[n].Role = b.Line.Events[n].Role
		}
	}
	last := moved.Events[len(moved.Events)-1]
	line.Target = Target{Tone: toneOf(read.chart.Key.ToneOver(ch.Arriving.Chord, last.Sounding(read.instrument).Class())), Place: placeOf(last.Place)}
	line.Chords = document.PhraseOf(moved).Chords
	k.Line, k.Chart, k.Hands, k.KeptIn = line, readChart(read.chart), now.Hands, b.Chart.Key.Tonic
	k.Choice.Position = position.ID()
	if k.Choice.Target != nil {
		k.Choice.Target = &line.Target.Place
	}
	for _, c := range conceded {
		k.Moved = append(k.Moved, c.Text)
	}
	return nil
}

func lineSummary(b lineBody) LineSummary {
	entry := LineSummary{Key: b.Chart.Key.Tonic}
	c, err := b.Chart.Core()
	if err != nil {
		return entry
	}
	if ch, err := findChange(c, b.Choice.Change); err == nil {
		entry.Change = over(ch)
	}
	return entry
}

// over says a change in a few words.
func over(ch chart.Change) string {
	return fmt.Sprintf("%s to %s, bar %d to %d", ch.Leaving.Chord.Symbol(), ch.Arriving.Chord.Symbol(), ch.Leaving.Bar+1, ch.Arriving.Bar+1)
}
