package api

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/format/document"
	"undaris/library/documents"
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
	documents.LineSummary
}

func (s *server) registerLines(api huma.API) {
	lines := resource[document.LineDocument, documents.LineSummary, KeptLine, LineEntry]{
		path: "lines", kind: documents.Lines, view: s.keptLine,
		entry: func(e documents.Entry[documents.LineSummary]) LineEntry {
			entry := LineEntry{Kept: keptOf(e.Info), ChartID: e.ChartID, Name: e.Name, LineSummary: e.Summary}
			entry.Damaged = e.Damaged
			return entry
		},
		texts: func(all []documents.Revision[document.LineDocument]) []string {
			return each(all, func(r documents.Revision[document.LineDocument]) string {
				return fmt.Sprintf("%s: %s", r.Name, counted(len(r.Body.Line.Phrase.Events), "note", "notes"))
			})
		},
	}
	serve(api, s, lines)
	serveList(api, s, lines)
	creates(api, "/api/lines", func(ctx context.Context, in *creation[KeepLine]) (*tagged[KeptLine], error) {
		item, err := s.createLine(ctx, in.UID, in.Body)
		if err != nil {
			return nil, err
		}
		view, err := s.keptLine(ctx, item)
		return &tagged[KeptLine]{ETag: etag(item.Version), Body: view}, err
	}, described("lines", "Write a lick over a change of a kept tune, and keep the line"))
}

// createLine writes a line from a kept chart and lick, and keeps it.
func (s *server) createLine(ctx context.Context, uid string, k KeepLine) (documents.Item[document.LineDocument], error) {
	none := documents.Item[document.LineDocument]{}
	tune, err := needed(ctx, s.library, documents.Charts, "chartId", k.ChartID)
	if err != nil {
		return none, err
	}
	from, err := needed(ctx, s.library, documents.Licks, "lickId", k.LickID)
	if err != nil {
		return none, err
	}
	_, written, err := PlayContext{Chart: tune, Hands: k.Hands}.writeLine(from, k.LineChoice)
	if err != nil {
		return none, err
	}
	name := strings.TrimSpace(k.Name)
	if name == "" {
		name = fmt.Sprintf("%s into %s", from.Name, written.Target.Note)
	}
	notes := document.LineNotes{Start: written.Start, Arrival: written.Arrival, RunStart: written.RunStart, Kept: written.Kept, Of: written.Of, Phrase: document.PhraseOf(written.Phrase)}
	for _, role := range written.Roles {
		notes.Roles = append(notes.Roles, string(role))
	}
	item, err := documents.Lines.CreateOnce(ctx, s.library, uid, document.LineDocument{
		Name: name, LickID: k.LickID, Chart: tune, Lick: from, Choice: k.LineChoice, Hands: k.Hands, Line: notes,
	}, k.ChartID)
	if err != nil {
		return none, saveProblem("line", "", 0, err)
	}
	return item, nil
}

// needsChart says which tunes there are where a request names one that there is not.
func (s *server) needsChart(ctx context.Context, id uint) error {
	_, err := needed(ctx, s.library, documents.Charts, "chartId", id)
	return err
}

// needed reads a document that a request names by a field; where there is none, the problem
// names the field and what there is.
func needed[Body, Summary any](ctx context.Context, l *documents.Library, kind documents.Kind[Body, Summary], field string, id uint) (Body, error) {
	item, err := kind.Read(ctx, l, id)
	if errors.Is(err, store.ErrNotFound) {
		names, err := kind.Names(ctx, l)
		if err != nil {
			return item.Body, err
		}
		return item.Body, invalid(field, fmt.Errorf("there is no %s with the id %d; there are %s", kind.Noun, id, names))
	}
	if err != nil {
		return item.Body, storeProblem(kind.Noun, id, err)
	}
	return item.Body, nil
}

// keptLine is a line where its tune is now. It is kept as it was, so that it lies there
// again, to the note, when the tune comes back.
func (s *server) keptLine(ctx context.Context, item documents.Item[document.LineDocument]) (KeptLine, error) {
	d := item.Body
	out := KeptLine{Kept: keptOf(item.Info), ChartID: item.ChartID, Name: d.Name, LickID: d.LickID, Choice: d.Choice, Hands: d.Hands}
	read, err := PlayContext{Chart: d.Chart, Hands: d.Hands}.change(d.Choice.Position, d.Choice.Change, d.Choice.Strategy)
	if err != nil {
		return out, err
	}
	p, err := d.Line.Phrase.Core(read.instrument)
	if err != nil {
		return out, invalid("line", err)
	}
	out.Chart, out.Line = readChart(read.chart), keptNotes(read, p, d.Line)
	// What was done is said where the line would be written the same today.
	if _, again, err := (PlayContext{Chart: d.Chart, Hands: d.Hands}).writeLine(d.Lick, d.Choice); err == nil && slices.Equal(again.Phrase.Events, p.Events) {
		out.Line = lineOf(read, again)
	}
	tune, hands, found, err := s.library.Present(ctx, item.ChartID)
	if err != nil || !found {
		return out, err
	}
	if err := out.follow(PlayContext{Chart: tune, Hands: &hands}, d, p); err != nil {
		s.log.Warn("a kept line could not follow its tune", "id", item.ID, "error", err)
	}
	return out, nil
}

// keptNotes is a line by its notes alone: each with what it is over its chord, and its role.
func keptNotes(a changeContext, p phrase.Phrase, notes document.LineNotes) Line {
	last := p.Events[len(p.Events)-1]
	time := a.chart.Timeline()
	first, bars := p.Span(time, notes.Start)
	m := time.MeterAt(first)
	line := Line{
		Position: positionOf(a.position), Meter: m.String(), BarTicks: m.BarTicks(), Beat: m.BeatTicks(), BarLines: barLines(time, first, bars, notes.Start),
		Start: notes.Start, Arrival: notes.Arrival, RunStart: notes.RunStart, FirstBar: first + 1, Bars: bars,
		Target: Target{Tone: toneOf(a.home().ToneOver(a.playContext.chart.ChordAt(notes.Arrival), last.Sounding(a.instrument).Class())), Place: placeOf(last.Place)},
		Kept:   notes.Kept, Of: notes.Of, Notes: []string{}, Chords: document.PhraseOf(p).Chords,
	}
	for n, event := range a.labelled(p) {
		one := LineEvent{LabelledEvent: event}
		if n < len(notes.Roles) {
			one.Role = notes.Roles[n]
		}
		line.Events = append(line.Events, one)
	}
	return line
}

// follow moves the line along to the tune and neck as they are now.
func (k *KeptLine) follow(now PlayContext, d document.LineDocument, p phrase.Phrase) error {
	from, _, err := document.PlayContextOf(d.Chart, d.Hands)
	if err != nil {
		return err
	}
	to, _, err := document.PlayContextOf(now.Chart, now.Hands)
	if err != nil {
		return err
	}
	position := document.FollowedPosition(d.Choice.Position, from, to)
	a, err := now.change(position.ID(), d.Choice.Change, d.Choice.Strategy)
	if document.SameSetting(from, to) || err != nil {
		return err
	}
	moved, conceded := chorus.TransposeLine(p, from, to)
	notes := d.Line
	if len(moved.Events) != len(p.Events) {
		notes.Roles = nil
	}
	k.Line, k.Chart, k.Hands, k.KeptIn = keptNotes(a, moved.WithChordsOf(a.chart, notes.Start), notes), readChart(a.chart), now.Hands, d.Chart.Key.Tonic
	k.Choice.Position = position.ID()
	if k.Choice.Target != nil {
		k.Choice.Target = &k.Line.Target.Place
	}
	for _, c := range conceded {
		k.Moved = append(k.Moved, c.Text)
	}
	return nil
}
