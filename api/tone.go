package api

import (
	"fmt"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Tone is a spelled note with its degree.
type Tone struct {
	Degree string `json:"degree"`
	Note   string `json:"note"`
}

// Place is one string at one fret.
type Place struct {
	String int `json:"string" minimum:"1" maximum:"8" doc:"1 is the highest sounding"`
	Fret   int `json:"fret" minimum:"0" maximum:"27" doc:"0 is open"`
}

// PlacedTone is a tone at its place on the neck.
type PlacedTone struct {
	Tone
	Place
	MIDI         int     `json:"midi"`
	Finger       int     `json:"finger" doc:"1 to 4, 0 for an open string"`
	Reach        bool    `json:"reach" doc:"Outside the four core frets"`
	Class        string  `json:"class" enum:"home,colour,blue,lean,outside"`
	Alternatives []Place `json:"alternatives"`
	Spoken       string  `json:"spoken" doc:"The note as it is said aloud, with its place"`
}

// Judgement is what a note is over a chord.
type Judgement struct {
	Tone
	MIDIClass int    `json:"midiClass" doc:"0 to 11, C is 0"`
	Class     string `json:"class" enum:"home,colour,blue,lean,outside"`
	Reason    string `json:"reason"`
}

func toneOf(t harmony.Tone) Tone { return Tone{Degree: t.Degree.String(), Note: t.Note.String()} }

func tonesOf(tones []harmony.Tone) []Tone {
	all := make([]Tone, len(tones))
	for n, t := range tones {
		all[n] = toneOf(t)
	}
	return all
}

func placeOf(p neck.Place) Place { return Place{String: p.String, Fret: p.Fret} }

// placedOf writes a placed tone as what it is over the chord.
func placedOf(k harmony.Key, c harmony.Chord, p neck.Placed) PlacedTone {
	j := k.Judge(c, p.Pitch.Class())
	placed := PlacedTone{
		Tone: toneOf(j.Tone), Place: placeOf(p.Place), MIDI: int(p.Pitch), Finger: p.Finger, Reach: p.Reach,
		Class: string(j.Class), Alternatives: make([]Place, len(p.Alternatives)),
		Spoken: spoken(j.Tone, c, p.Fingered),
	}
	for n, other := range p.Alternatives {
		placed.Alternatives[n] = placeOf(other)
	}
	return placed
}

func placedAll(k harmony.Key, c harmony.Chord, tones []neck.Placed) []PlacedTone {
	all := make([]PlacedTone, len(tones))
	for n, t := range tones {
		all[n] = placedOf(k, c, t)
	}
	return all
}

// spoken says a note as a player would read it out: "E flat, flat 3 of C7,
// string 3, fret 8, finger 2".
func spoken(t harmony.Tone, c harmony.Chord, f neck.Fingered) string {
	said := fmt.Sprintf("%s, %s of %s, string %d, ", pitch.Spoken(t.Note.String()), pitch.Spoken(t.Degree.String()), spokenChord(c), f.String)
	if f.Fret == 0 {
		return said + "open"
	}
	said += fmt.Sprintf("fret %d", f.Fret)
	if f.Finger > 0 {
		said += fmt.Sprintf(", finger %d", f.Finger)
	}
	return said
}

func spokenChord(c harmony.Chord) string {
	said := pitch.Spoken(c.Root.String()) + " " + c.Quality.Name
	if c.Quality.Sign == "7" {
		said = pitch.Spoken(c.Root.String()) + " 7"
	}
	if c.Bass != nil {
		said += " over " + pitch.Spoken(c.Bass.String())
	}
	return strings.TrimSpace(said)
}

// judgements is what each of the twelve notes is over the chord, from its root.
func judgements(k harmony.Key, c harmony.Chord) []Judgement {
	all := make([]Judgement, 12)
	for above := range all {
		class := pitch.ClassOf(int(c.Root.Class()) + above)
		j := k.Judge(c, class)
		all[above] = Judgement{Tone: toneOf(j.Tone), MIDIClass: int(class), Class: string(j.Class), Reason: j.Reason}
	}
	return all
}
