package api

import (
	"context"
	"fmt"
	"math"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/practice"
)

// TimedRequest asks for what is to be played over a chorus of the tune: one tone at each change, and
// which notes over each chord.
type TimedRequest struct {
	PlayContext
	Position string `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Degree   int    `json:"degree,omitempty" enum:"1,3,5,7" doc:"The degree that is asked for at each change; left out for 3"`
	Notes    string `json:"notes,omitempty" enum:"chord tones,scale,box" doc:"Which notes may be played; left out for chord tones"`
}

// Timed is what is to be played over a chorus.
type Timed struct {
	Targets []TimedTarget `json:"targets"`
	Spans   []TimedSpan   `json:"spans" doc:"The chords, with the notes that may be played"`
	Bars    int           `json:"bars"`
	Ticks   int           `json:"ticks" doc:"How long the chorus is"`
	Open    []int         `json:"open" doc:"What the open strings sound, as MIDI numbers, string 1 first"`
}

// TimedTarget is the tone that is asked for at a change.
type TimedTarget struct {
	Target
	Tick  int    `json:"tick" doc:"The chart's tick"`
	Bar   int    `json:"bar" doc:"From 1"`
	Chord string `json:"chord"`
}

// TimedSpan is a chord while it is on.
type TimedSpan struct {
	Tick  int    `json:"tick"`
	Ticks int    `json:"ticks"`
	Chord string `json:"chord"`
	Notes []Tone `json:"notes"`
}

// TimedHit is a note that was played.
type TimedHit struct {
	Tick float64 `json:"tick" doc:"Where in the chorus it was heard, in ticks from its first bar on"`
	MIDI int     `json:"midi" minimum:"0" maximum:"127"`
}

// MarkTimedRequest is what was played over a chorus.
type MarkTimedRequest struct {
	TimedRequest
	Hits      []TimedHit `json:"hits" maxItems:"4096"`
	Tempo     int        `json:"tempo,omitempty" doc:"In counted beats a minute, as it was played; left out for the chart's"`
	LatencyMS int        `json:"latencyMs,omitempty" minimum:"0" maximum:"500" doc:"How much later than it is played a note is heard of"`
}

// TimedMarks is what was played over a chorus, marked.
type TimedMarks struct {
	Targets  []TimedMark `json:"targets" doc:"How each change was met"`
	Hits     []HitMark   `json:"hits" doc:"Whether each note was one of those asked for"`
	On       int         `json:"on" doc:"How many changes were met on time"`
	Right    int         `json:"right" doc:"How many notes were asked for"`
	MiddleMS int         `json:"middleMs" doc:"How late, or, negative, early, the changes were met in the middle"`
	Met      int         `json:"met" doc:"How many changes were met at all"`
	Text     string      `json:"text" doc:"All of it in one sentence"`
}

// TimedMark is how one change was met.
type TimedMark struct {
	Timing string `json:"timing" enum:"early,on,late,missed,other note"`
	OffMS  int    `json:"offMs"`
	Hit    int    `json:"hit" doc:"The note by its index; -1 for none"`
	Text   string `json:"text"`
}

// HitMark is whether a note was one of those asked for.
type HitMark struct {
	Right bool   `json:"right"`
	Text  string `json:"text"`
}

// timed is what is asked, read.
type timed struct {
	playContext
	path  []change.PathTarget
	spans []chart.ChordSpan
	notes [][]harmony.Tone
}

func (r TimedRequest) readTimed() (timed, error) {
	on, err := r.read()
	if err != nil {
		return timed{}, err
	}
	position, err := on.position(r.Position)
	if err != nil {
		return timed{}, err
	}
	t := timed{playContext: on}
	degree := r.Degree
	if degree == 0 {
		degree = 3
	}
	path, err := change.PathRequest{Strategy: change.ThirdsFirst, Instrument: on.instrument, Hand: change.HandPlaces(on.chart.Timeline(), on.instrument, position), Swaps: on.swaps, Changes: on.chart.TargetChanges(), OnlyDegree: degree}.Find()
	if err != nil {
		return t, invalid("chart", err)
	}
	t.path = path.Targets
	slices.SortStableFunc(t.path, func(a, b change.PathTarget) int {
		return a.Change.Tick%on.chart.Ticks() - b.Change.Tick%on.chart.Ticks()
	})
	if _, err := on.home().Box(on.chart.Box); err != nil {
		return t, invalid("chart", err)
	}
	for _, span := range on.chart.ChordSpans() {
		notes := span.Chord.Tones()
		switch r.Notes {
		case "scale":
			scale, _ := span.Key.ChordScale(span.Chord)
			notes = scale.Tones
		case "box":
			notes = []harmony.Tone{}
			box, _ := span.Key.Box(on.chart.Box) // the kind of box is known to exist
			for _, tone := range box.Tones {
				notes = append(notes, span.Key.ToneOver(span.Chord, tone.Note.Class()))
			}
		}
		t.spans, t.notes = append(t.spans, span), append(t.notes, notes)
	}
	if len(t.spans) == 0 || len(t.path) == 0 {
		return t, invalid("chart", &chart.FieldError{Field: "bars", Detail: "the tune has no chord to play over"})
	}
	return t, nil
}

func (t timed) view() Timed {
	v := Timed{Targets: []TimedTarget{}, Spans: []TimedSpan{}, Bars: len(t.chart.PlayedBars()), Ticks: t.chart.Ticks(), Open: each(t.instrument.Open, func(p pitch.MIDI) int { return int(p) })}
	for _, p := range t.path {
		v.Targets = append(v.Targets, TimedTarget{
			Target: targetOf(p.Placed), Tick: p.Change.Tick % t.chart.Ticks(), Bar: p.Change.Arriving.Bar + 1, Chord: p.Change.Arriving.Chord.Symbol(),
		})
	}
	for n, s := range t.spans {
		v.Spans = append(v.Spans, TimedSpan{Tick: s.Tick, Ticks: s.Ticks, Chord: s.Chord.Symbol(), Notes: each(t.notes[n], func(tone harmony.Tone) Tone {
			return Tone{Degree: tone.Degree.String(), Note: tone.Note.String()}
		})})
	}
	return v
}

func (r MarkTimedRequest) mark() (TimedMarks, error) {
	t, err := r.readTimed()
	if err != nil {
		return TimedMarks{}, err
	}
	tempo := r.Tempo
	if tempo == 0 {
		tempo = t.chart.Tempo
	}
	if tempo < 5 || tempo > chart.MaxTempo {
		return TimedMarks{}, invalid("tempo", fmt.Errorf("a tempo is 5 to %d beats a minute; %d is not", chart.MaxTempo, tempo))
	}
	ms := func(tick float64) float64 {
		return tick * 60_000 / float64(tempo*t.chart.Meter.BeatTicks())
	}
	targets, spans, hits := []practice.TimedTarget{}, []practice.AllowedSpan{}, []practice.Hit{}
	for _, p := range t.path {
		targets = append(targets, practice.TimedTarget{MS: ms(float64(p.Change.Tick % t.chart.Ticks())), Chord: p.Change.Arriving.Chord, Tone: p.Tone})
	}
	for n, s := range t.spans {
		spans = append(spans, practice.AllowedSpan{FromMS: ms(float64(s.Tick)), ToMS: ms(float64(s.Tick + s.Ticks)), Chord: s.Chord, Notes: t.notes[n]})
	}
	for _, h := range r.Hits {
		hits = append(hits, practice.Hit{MS: ms(h.Tick), Pitch: pitch.MIDI(h.MIDI)})
	}
	met := practice.MarkTargets(t.home(), targets, hits, float64(r.LatencyMS))
	out := TimedMarks{Targets: []TimedMark{}, Hits: []HitMark{}}
	for _, m := range met {
		if m.Timing == practice.OnTime {
			out.On++
		}
		out.Targets = append(out.Targets, TimedMark{Timing: string(m.Timing), OffMS: int(math.Round(m.OffMS)), Hit: m.Hit, Text: m.Text})
	}
	for _, m := range practice.MarkNotes(t.home(), spans, hits, float64(r.LatencyMS)) {
		if m.Right {
			out.Right++
		}
		out.Hits = append(out.Hits, HitMark{Right: m.Right, Text: m.Text})
	}
	middle, count := practice.MiddleOff(met)
	out.MiddleMS, out.Met = int(math.Round(middle)), count
	out.Text = fmt.Sprintf("%d of %s met on time; %d of %s asked for.", out.On, counted(len(met), "change was", "changes were"), out.Right, counted(len(hits), "note was", "notes were"))
	return out, nil
}

func (s *server) registerComputeTimed(api huma.API) {
	posts(api, "/api/compute/practice/timed", func(_ context.Context, in *body[TimedRequest]) (*body[Timed], error) {
		t, err := in.Body.readTimed()
		if err != nil {
			return nil, err
		}
		return &body[Timed]{t.view()}, nil
	})
	posts(api, "/api/compute/practice/timed/mark", func(_ context.Context, in *body[MarkTimedRequest]) (*body[TimedMarks], error) {
		marks, err := in.Body.mark()
		return &body[TimedMarks]{marks}, err
	})
}
