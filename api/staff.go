package api

import (
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// StaffBar is one bar of staff notation.
type StaffBar struct {
	Tick   int           `json:"tick" doc:"The lick's tick at which it begins"`
	Voices [][]StaffItem `json:"voices" doc:"Each fills the bar"`
}

// StaffItem is one sign of a voice: a rest, or notes that sound together.
type StaffItem struct {
	Tick     int         `json:"tick"`
	Ticks    int         `json:"ticks"`
	Kind     string      `json:"kind" doc:"whole to 64th; empty where no sign has that length"`
	Dots     int         `json:"dots"`
	Tuplet   int         `json:"tuplet" doc:"How many stand in the time of inTimeOf; 0 for none"`
	InTimeOf int         `json:"inTimeOf"`
	Tied     bool        `json:"tied" doc:"To the sign after it"`
	Bracket  int         `json:"bracket,omitempty" doc:"How many signs stand under a bracket that ends with this one"`
	Notes    []StaffNote `json:"notes" doc:"None for a rest"`
	Graces   []StaffNote `json:"graces"`
}

// StaffNote is a note as it is written: as it sounds, an octave of a guitar's staff lower.
type StaffNote struct {
	Event  int    `json:"event" doc:"From 0"`
	Note   string `json:"note"`
	Octave int    `json:"octave"`
}

// staffOf writes a phrase over its chords as staff notation. A bent note stands at the
// pitch it is bent to.
func staffOf(p phrase.Phrase, i neck.Instrument, k harmony.Key) []StaffBar {
	labels := p.Labels(i, k)
	notes := func(events []int) []StaffNote {
		all := make([]StaffNote, len(events))
		for n, e := range events {
			note := labels[e].Note
			all[n] = StaffNote{Event: e, Note: note.String(), Octave: p.Events[e].Sounding(i).Octave(note)}
		}
		return all
	}
	bars := []StaffBar{}
	for _, bar := range p.Notate() {
		out := StaffBar{Tick: bar.Tick, Voices: [][]StaffItem{}}
		for _, voice := range bar.Voices {
			signs := make([]StaffItem, len(voice))
			for n, w := range voice {
				signs[n] = StaffItem{Tick: w.Tick, Ticks: w.Ticks, Kind: w.Kind, Dots: w.Dots, Tuplet: w.Tuplet, InTimeOf: w.InTimeOf(), Tied: w.Tied, Bracket: w.Bracket, Notes: notes(w.Events), Graces: notes(w.Graces)}
			}
			out.Voices = append(out.Voices, signs)
		}
		bars = append(bars, out)
	}
	return bars
}
