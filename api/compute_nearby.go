package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/neck"
)

// NearbyTargetsRequest asks what lies near a place of the neck: the landings on the
// next chord from there, or where a target there can be come from.
type NearbyTargetsRequest struct {
	PlayContext
	Position string `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Change   int    `json:"change" doc:"The tick of the change, as the chart's reading lists it"`
	Strategy string `json:"strategy,omitempty" doc:"What to aim at; left out for thirds first"`
	Here     Place  `json:"here" doc:"Where the hand is"`
}

// NearbyTargets is what lies near a place.
type NearbyTargets struct {
	// Leaving and Arriving are what the place is over either chord.
	Leaving  Target         `json:"leaving" doc:"The place over the leaving chord"`
	Arriving Target         `json:"arriving" doc:"The place over the arriving chord"`
	Class    string         `json:"class" enum:"chordTone,colour,blue,suspension,outside" doc:"Its class over the arriving chord"`
	To       []NearbyTarget `json:"to" doc:"The nearest tones of the arriving chord, nearest first"`
	From     []NearbyTarget `json:"from" doc:"Where the place can be come from, strongest first; empty where it is no placed tone of the arriving chord"`
}

// NearbyTarget is a tone and how far it lies.
type NearbyTarget struct {
	Target
	Semitones int    `json:"semitones" doc:"Upwards; negative downwards. Of a source: from it to the target"`
	Strings   int    `json:"strings" doc:"How many strings over, towards the higher sounding"`
	OfChord   bool   `json:"ofChord" doc:"A tone of its chord; else of the box"`
	Text      string `json:"text"`
}

func (s *server) registerComputeNearby(api huma.API) {
	posts(api, "/api/compute/change/nearby", func(_ context.Context, in *body[NearbyTargetsRequest]) (*body[NearbyTargets], error) {
		a, err := in.Body.change(in.Body.Position, in.Body.Change, in.Body.Strategy)
		if err != nil {
			return nil, err
		}
		here := neck.Place{String: in.Body.Here.String, Fret: in.Body.Here.Fret}
		if !a.instrument.Has(here) {
			return nil, invalid("here", fmt.Errorf("string %d fret %d is not on the neck; its strings are 1 to %d and its frets 0 to %d",
				here.String, here.Fret, len(a.instrument.Open), a.instrument.Frets))
		}
		view, err := a.nearbyTargets(here)
		if err != nil {
			return nil, invalid("chart", err)
		}
		return &body[NearbyTargets]{view}, nil
	})
}

func (a changeContext) nearbyTargets(here neck.Place) (NearbyTargets, error) {
	key, leaving, arriving := a.home(), a.change.Leaving.Chord, a.change.Arriving.Chord
	box, err := key.Box(a.chart.Box)
	if err != nil {
		return NearbyTargets{}, err
	}
	p := a.instrument.Pitch(here)
	placed := neck.Placed{Pitch: p, Fingered: neck.Fingered{Place: here}}
	view := NearbyTargets{To: []NearbyTarget{}, From: []NearbyTarget{}, Class: string(key.Classify(arriving, p.Class()))}
	placed.Tone = key.ToneOver(leaving, p.Class())
	view.Leaving = a.over(a.change.Leaving, placed)
	placed.Tone = key.ToneOver(arriving, p.Class())
	view.Arriving = a.over(a.change.Arriving, placed)
	to := neck.PlaceChord(a.instrument, a.position.Window, arriving, a.swaps)
	for _, l := range change.NearbyTargets(a.strategy, a.instrument, here, arriving, to) {
		view.To = append(view.To, NearbyTarget{Target: a.over(a.change.Arriving, l.Placed), Semitones: l.Semitones, Strings: l.Strings, OfChord: true, Text: l.Text})
	}
	if target, ok := to.Tone(here); ok {
		from := neck.PlaceChord(a.instrument, a.position.Window, leaving, a.swaps)
		for _, s := range change.Sources(key, leaving, arriving, target, from, neck.PlaceTones(a.instrument, a.position.Window, box.Tones)) {
			view.From = append(view.From, NearbyTarget{Target: a.over(a.change.Leaving, s.Placed), Semitones: s.Semitones, Strings: s.Strings, OfChord: s.OfChord, Text: s.Text})
		}
	}
	return view, nil
}
