package api

import (
	"strconv"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/format/document"
)

// Tone is a spelled note with its degree.
type Tone struct {
	Degree string `json:"degree"`
	Note   string `json:"note"`
}

// Place is one string at one fret.
type Place = document.Place

// PlacedTone is a tone at its place on the neck.
type PlacedTone struct {
	Tone
	Place
	InKey        string  `json:"inKey" doc:"Its degree in the key"`
	MIDI         int     `json:"midi"`
	Finger       int     `json:"finger" doc:"1 to 4, 0 for an open string"`
	Reach        bool    `json:"reach" doc:"Outside the four core frets"`
	Class        string  `json:"class" enum:"chordTone,colour,blue,suspension,outside"`
	Alternatives []Place `json:"alternatives"`
	Spoken       string  `json:"spoken" doc:"The note as it is said aloud, with its place"`
}

// Judgement is what a note is over a chord.
type Judgement struct {
	Tone
	MIDIClass int    `json:"midiClass" doc:"0 to 11, C is 0"`
	Class     string `json:"class" enum:"chordTone,colour,blue,suspension,outside"`
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

// overChord is what each of the twelve notes is over one chord, worked out once
// for all the places it is drawn at.
type overChord [12]struct {
	tone  Tone
	inKey string
	class string
	// said is the note as it is said aloud: "E flat, flat 3 of C 7".
	said string
}

func newOverChord(k harmony.Key, c harmony.Chord) *overChord {
	over := &overChord{}
	name := spokenChord(c)
	for class := range pitch.Class(12) {
		tone := k.ToneOver(c, class)
		over[class].tone = toneOf(tone)
		over[class].inKey = k.DegreeOf(tone.Note).String()
		over[class].class = string(k.Classify(c, class))
		over[class].said = spokenNote(tone) + " of " + name
	}
	return over
}

// placed writes a placed tone as what it is over the chord.
func (o *overChord) placed(p neck.Placed) PlacedTone {
	note := &o[p.Pitch.Class()]
	placed := PlacedTone{
		Tone: note.tone, InKey: note.inKey, Place: placeOf(p.Place), MIDI: int(p.Pitch), Finger: p.Finger, Reach: p.Reach,
		Class: note.class, Alternatives: make([]Place, len(p.Alternatives)),
		Spoken: note.said + spokenPlace(p.Fingered),
	}
	for n, other := range p.Alternatives {
		placed.Alternatives[n] = placeOf(other)
	}
	return placed
}

func (o *overChord) placedAll(tones []neck.Placed) []PlacedTone {
	all := make([]PlacedTone, len(tones))
	for n, t := range tones {
		all[n] = o.placed(t)
	}
	return all
}

// spoken says a note as a player would read it out: "E flat, flat 3 of C 7,
// string 3, fret 8, finger 2".
func spoken(t harmony.Tone, c harmony.Chord, f neck.Fingered) string {
	return spokenNote(t) + " of " + spokenChord(c) + spokenPlace(f)
}

func spokenNote(t harmony.Tone) string {
	return pitch.Spoken(t.Note.String()) + ", " + pitch.Spoken(t.Degree.String())
}

func spokenPlace(f neck.Fingered) string {
	text := ", string " + strconv.Itoa(f.String)
	if f.Fret == 0 {
		return text + ", open"
	}
	text += ", fret " + strconv.Itoa(f.Fret)
	if f.Finger > 0 {
		text += ", finger " + strconv.Itoa(f.Finger)
	}
	return text
}

func spokenChord(c harmony.Chord) string {
	text := pitch.Spoken(c.Root.String()) + " " + c.Quality.Name
	if c.Quality.Sign == "7" {
		text = pitch.Spoken(c.Root.String()) + " 7"
	}
	if c.Bass != nil {
		text += " over " + pitch.Spoken(c.Bass.String())
	}
	return text
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
