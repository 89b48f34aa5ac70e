package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/phrase"
	"undaris/format/document"
	"undaris/format/reading"
)

// LickRequest is a lick as it is being written, and one edit of it.
type LickRequest struct {
	Lick document.Lick `json:"lick" doc:"It may have no notes yet"`
	// Excerpt is left out for a lick of its own.
	Excerpt bool      `json:"excerpt,omitempty" doc:"The notes are out of a longer line: slurs from notes outside it are taken away, and said"`
	Edit    *LickEdit `json:"edit,omitempty" doc:"Left out to read it as it is"`
	Tempo   int       `json:"tempo,omitempty" doc:"The tempo it is heard and judged at, in counted beats a minute; left out for 100"`
	Feel    string    `json:"feel,omitempty" doc:"Left out for straight"`
	Swing   float64   `json:"swing,omitempty" doc:"Left out for 2"`
}

// LickEdit is one change of a lick. It works on the notes that start from a tick up to,
// but not at, another, on one string or on all.
type LickEdit struct {
	Kind      string           `json:"kind" enum:"put,clear,removeTime,insertTime,setLength,setTechnique,shift,transpose,moveString,paste,repeat,setChord,clearChord"`
	From      int              `json:"from" doc:"The lick's tick"`
	To        int              `json:"to,omitempty"`
	String    int              `json:"string,omitempty" doc:"0 for every string"`
	Fret      int              `json:"fret,omitempty" doc:"Of a note that is put"`
	Ticks     int              `json:"ticks,omitempty" doc:"How long a note is to last, or how much room to make"`
	By        int              `json:"by,omitempty" doc:"How far a selection is moved: ticks, half steps or strings"`
	Technique string           `json:"technique,omitempty"`
	Value     int              `json:"value,omitempty" doc:"0 takes the technique away; a bend in quarter tones; a slide 1 from below, -1 from above; a trill 1 with the whole step above, -1 with the half step; any other 1"`
	Events    []document.Event `json:"events,omitempty" maxItems:"4096" doc:"What is pasted, its tick 0 at from"`
	Chord     string           `json:"chord,omitempty" doc:"What holds from there on"`
}

// WrittenLick is a lick as it is being written: read, labelled over its own chords, and
// ready to be heard.
type WrittenLick struct {
	Lick    document.Lick `json:"lick"`
	Remarks []string      `json:"remarks" doc:"What had to be done beside the edit"`
	Neck    Neck          `json:"neck" doc:"What it is written for"`
	// Instrument is given back to hear it.
	Instrument document.Instrument `json:"instrument" doc:"The same, as what plays it"`
	Chart      document.Chart      `json:"chart" doc:"Its own bars and chords"`
	Tab        Tab                 `json:"tab" doc:"Over its own chart"`
	Staff      []StaffBar          `json:"staff" doc:"The same as staff notation"`
	Low        int                 `json:"low" doc:"The lowest and highest fret"`
	High       int                 `json:"high"`
}

func (s *server) registerComputeLick(api huma.API) {
	posts(api, "/api/compute/lick", func(_ context.Context, in *body[LickRequest]) (*body[WrittenLick], error) {
		read := func() (chosen lick.Lick, lost []string, err error) {
			chosen, err = in.Body.Lick.SoFar()
			return chosen, nil, err
		}
		if in.Body.Excerpt {
			read = in.Body.Lick.Excerpt
		}
		chosen, remarks, err := read()
		if err != nil {
			return nil, invalid("lick", err)
		}
		feel, err := chart.ParseFeel(orElse(in.Body.Feel, string(chart.Straight)))
		if err != nil {
			return nil, invalid("", err)
		}
		if in.Body.Edit != nil {
			edit, err := in.Body.Edit.core(chosen)
			if err != nil {
				return nil, err
			}
			if chosen.Phrase, remarks, err = chosen.Phrase.Apply(chosen.WrittenFor(), edit); err != nil {
				return nil, invalid("edit", err)
			}
			if err := chosen.CheckSoFar(); err != nil {
				return nil, invalid("edit", err)
			}
		}
		written, err := writtenLick(chosen, orElse(in.Body.Tempo, reading.DefaultTempo), feel, orElse(in.Body.Swing, reading.DefaultSwing))
		written.Remarks = append([]string{}, remarks...)
		return &body[WrittenLick]{written}, err
	})
}

// orElse is the value, or another where it is left out.
func orElse[T comparable](value, other T) T {
	var none T
	if value == none {
		return other
	}
	return value
}

func (e LickEdit) core(l lick.Lick) (phrase.Edit, error) {
	edit := phrase.Edit{
		Kind: phrase.EditKind(e.Kind), From: e.From, To: e.To, String: e.String, Fret: e.Fret, Ticks: e.Ticks, By: e.By, Technique: e.Technique, Value: e.Value,
	}
	if edit.Kind == phrase.SetChord {
		c, err := harmony.ParseChord(e.Chord)
		if err != nil {
			return phrase.Edit{}, invalid("edit.chord", err)
		}
		edit.Chord = c
	}
	if len(e.Events) > 0 {
		pasted, err := document.Phrase{Meter: l.Phrase.Meter.String(), Events: e.Events}.SoFar(l.WrittenFor())
		if err != nil {
			return phrase.Edit{}, invalid("edit", err)
		}
		edit.Events = pasted.Events
	}
	return edit, nil
}

// writtenLick is a lick over its own chords, on the neck it is written for.
func writtenLick(l lick.Lick, tempo int, feel chart.Feel, swing float64) (WrittenLick, error) {
	c, start := l.ToChart(tempo, feel, swing)
	if err := c.Check(); err != nil {
		return WrittenLick{}, invalid("", err)
	}
	o := playContext{chart: c, instrument: l.WrittenFor()}
	p := l.Phrase.WithDefaultChord(c.TonicChord())
	low, high := p.Frets()
	shown := l.WrittenFor()
	shown.Frets = max(usualFrets, high)
	tab := o.tab(p, start, "")
	if tab.Events == nil {
		tab.Events = []LineEvent{}
	}
	tab.FirstBar, tab.Bars = 1, len(c.Bars)
	return WrittenLick{
		Lick: document.LickOf(l), Neck: neckOf(shown), Instrument: document.InstrumentOf(l.WrittenFor()), Chart: document.ChartOf(c), Tab: tab, Staff: staffOf(p, o.instrument, c.Key), Low: low, High: high, Remarks: []string{},
	}, nil
}

// usualFrets is how many frets of a neck are shown for a lick that does not need more.
const usualFrets = 22
