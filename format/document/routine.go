package document

import (
	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/routine"
)

// Routine is what is played through.
type Routine struct {
	Name     string    `json:"name" doc:"1 to 60 characters"`
	Segments []Segment `json:"segments" minItems:"1" maxItems:"64"`
	Seed     uint32    `json:"seed,omitempty" doc:"Decides what is random"`
}

// Segment is one stretch of a routine. One of choruses, bars and minutes says how long it
// is; without any it goes on until the player asks for the next one.
type Segment struct {
	Name      string      `json:"name,omitempty" doc:"At most 60 characters"`
	Choruses  int         `json:"choruses,omitempty"`
	Bars      int         `json:"bars,omitempty"`
	Minutes   float64     `json:"minutes,omitempty"`
	From      int         `json:"from,omitempty" doc:"The first bar, from 1, where bars are played; left out for the first"`
	Chord     int         `json:"chord,omitempty" doc:"Stay on this chord of the tune, counted from 1 in the order they first sound; left out for the tune"`
	Tempo     int         `json:"tempo,omitempty" doc:"Counted beats a minute; left out for that of the segment before"`
	Key       string      `json:"key,omitempty" doc:"A tonic; left out for that of the segment before"`
	Silent    []string    `json:"silent,omitempty" doc:"Parts that rest: drums, bass, chords, line, click"`
	StopTime  bool        `json:"stopTime,omitempty" doc:"The band strikes the first four bars of a chorus, and rests between"`
	Click     *Click      `json:"click,omitempty" doc:"Left out for every beat"`
	View      string      `json:"view,omitempty" doc:"What the stage shows; left out for what the player has chosen"`
	Aim       int         `json:"aim,omitempty" doc:"The degree to land on at every change: 1, 3, 5 or 7; it is sounded before"`
	TradeBars int         `json:"tradeBars,omitempty" doc:"The line plays so many bars and rests as many"`
	Licks     bool        `json:"licks,omitempty" doc:"Licks of the library are played where the line plays"`
	Exercise  uint        `json:"exercise,omitempty" doc:"The id of the exercise that the line plays"`
	End       *SegmentEnd `json:"end,omitempty" doc:"What changes when it has been played: then it is played again"`
}

// SegmentEnd is what changes each time a segment has been played.
type SegmentEnd struct {
	TempoBy int    `json:"tempoBy,omitempty" doc:"Added to the tempo"`
	TempoTo int    `json:"tempoTo,omitempty" doc:"Until this tempo is reached"`
	KeyBy   string `json:"keyBy,omitempty" doc:"fourths, half steps or random"`
	Again   int    `json:"again,omitempty" doc:"How many times more it is played"`
	Wait    bool   `json:"wait,omitempty" doc:"It goes on until the player asks for the next one"`
}

// Click is how the click goes.
type Click struct {
	On          string `json:"on,omitempty" doc:"2 and 4, 1, every second bar; left out for every beat"`
	PerBeat     int    `json:"perBeat,omitempty" doc:"How many clicks a beat has, 1 to 6"`
	Plain       bool   `json:"plain,omitempty" doc:"The first beat is not accented"`
	AccentEvery int    `json:"accentEvery,omitempty" doc:"Accents every so many clicks instead of the first beat"`
	Heard       int    `json:"heard,omitempty" doc:"So many bars are clicked before each gap"`
	Gap         int    `json:"gap,omitempty" doc:"So many bars are not"`
	Growing     bool   `json:"growing,omitempty" doc:"Each gap is a bar longer than the one before"`
}

// Core reads the pattern of a click; nil is every beat.
func (c *Click) Core() band.ClickPattern {
	if c == nil {
		return band.ClickPattern{}
	}
	return band.ClickPattern{
		On: band.ClickOn(c.On), PerBeat: c.PerBeat, Plain: c.Plain, AccentEvery: c.AccentEvery, Heard: c.Heard, Gap: c.Gap, Growing: c.Growing,
	}
}

// ClickOf writes the pattern of a click, nil where it is every beat.
func ClickOf(c band.ClickPattern) *Click {
	if c == (band.ClickPattern{}) {
		return nil
	}
	return &Click{On: string(c.On), PerBeat: c.PerBeat, Plain: c.Plain, AccentEvery: c.AccentEvery, Heard: c.Heard, Gap: c.Gap, Growing: c.Growing}
}

// Core reads the routine and checks it over a chart. Its error is a *chart.FieldError.
func (r Routine) Core(c chart.Chart) (routine.Routine, error) {
	read := routine.Routine{Name: r.Name, Seed: uint64(r.Seed)}
	for _, s := range r.Segments {
		one := routine.Segment{
			Name: s.Name, Choruses: s.Choruses, Bars: s.Bars, Minutes: s.Minutes, From: max(s.From-1, 0), Chord: s.Chord,
			Tempo: s.Tempo, Key: s.Key, StopTime: s.StopTime, Click: s.Click.Core(), View: routine.View(s.View), Aim: s.Aim,
			TradeBars: s.TradeBars, Licks: s.Licks, Exercise: s.Exercise,
		}
		for _, part := range s.Silent {
			one.Silent = append(one.Silent, band.Part(part))
		}
		if s.End != nil {
			one.End = routine.End{TempoBy: s.End.TempoBy, TempoTo: s.End.TempoTo, KeyBy: routine.KeyStep(s.End.KeyBy), Again: s.End.Again, Wait: s.End.Wait}
		}
		read.Segments = append(read.Segments, one)
	}
	return read, read.Check(c)
}

// RoutineOf writes a routine as a document.
func RoutineOf(r routine.Routine) Routine {
	d := Routine{Name: r.Name, Seed: uint32(r.Seed)}
	for _, s := range r.Segments {
		one := Segment{
			Name: s.Name, Choruses: s.Choruses, Bars: s.Bars, Minutes: s.Minutes, Chord: s.Chord, Tempo: s.Tempo, Key: s.Key,
			StopTime: s.StopTime, Click: ClickOf(s.Click), View: string(s.View), Aim: s.Aim, TradeBars: s.TradeBars, Licks: s.Licks, Exercise: s.Exercise,
		}
		if s.From > 0 {
			one.From = s.From + 1
		}
		for _, part := range s.Silent {
			one.Silent = append(one.Silent, string(part))
		}
		if s.End != (routine.End{}) {
			one.End = &SegmentEnd{TempoBy: s.End.TempoBy, TempoTo: s.End.TempoTo, KeyBy: string(s.End.KeyBy), Again: s.End.Again, Wait: s.End.Wait}
		}
		d.Segments = append(d.Segments, one)
	}
	return d
}
