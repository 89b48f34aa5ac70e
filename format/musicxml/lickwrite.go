package musicxml

import (
	"fmt"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/floor"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// The names of the miscellaneous fields and notations of a lick that the format has no
// element for.
const (
	fieldTonic = "undaris-tonic"
	fieldAbout = "undaris-about"
	otherTied  = "tied"
	otherSlide = "slide from "
	otherTrill = "trill by half steps "
	otherRake  = "rake"
	// usualTrill is what a trill is read as that does not say how wide it is, in half steps.
	usualTrill    = 2
	alternate     = "alternate"
	lickDivisions = chart.TicksPerQuarter
)

// WriteLick writes a lick as plain MusicXML: a staff, and a tab staff with strings,
// frets and techniques. Durations are exact to the tick.
func WriteLick(l lick.Lick) []byte {
	w := lickWriter{Lick: l, on: l.WrittenFor(), key: l.Key(), voices: l.Phrase.Voices()}
	fields := []field{{fieldTonic, l.Tonic.String()}}
	if l.About != "" {
		fields = append(fields, field{fieldAbout, l.About})
	}
	if len(l.Tags) > 0 {
		fields = append(fields, field{fieldTags, strings.Join(l.Tags, ", ")})
	}
	return score{
		Version: "4.0", Work: &work{Title: l.Name},
		Identification: &ident{Encoding: &encoding{Software: "Undaris"}, Miscellaneous: &miscellaneous{Fields: fields}},
		PartList:       partList{Parts: []scorePart{{ID: "P1", Name: "Guitar"}}},
		Parts:          []part{{ID: "P1", Measures: w.measures()}},
	}.encode()
}

type lickWriter struct {
	lick.Lick
	on     neck.Instrument
	key    harmony.Key
	voices [][]phrase.VoiceNote
}

// span is the ticks that the score covers: whole bars, but for a pickup, which begins
// with its first note or chord.
func (w lickWriter) span() (first, end int) {
	first, end = 0, 1
	for _, voice := range w.voices {
		for _, s := range voice {
			first, end = min(first, s.Tick-len(s.Graces)*phrase.GraceTicks), max(end, s.End())
		}
	}
	for _, from := range w.Phrase.Chords {
		first, end = min(first, from.Tick), max(end, from.Tick+1)
	}
	return first, end
}

func (w lickWriter) measures() []measure {
	meter := w.Phrase.Meter
	bar := meter.BarTicks()
	first, end := w.span()
	all := []measure{}
	number := 0
	if first < 0 {
		number = -((-first + bar - 1) / bar) + 1
	} else {
		number = 1
	}
	for tick := first; tick < end; number++ {
		to := tick + bar - floor.Mod(tick, bar)
		m := measure{Number: strconv.Itoa(number), Implicit: number < 1}
		add := func(element any) { m.Elements = append(m.Elements, element) }
		if tick == first {
			add(w.opening())
		}
		for staff := 1; staff <= 2; staff++ {
			for v := range w.voices {
				if staff > 1 || v > 0 {
					add(backup(to - tick))
				}
				w.voice(v, staff, tick, to, add)
			}
		}
		if to >= end {
			add(&barline{Location: "right", Style: "light-heavy"})
		}
		all = append(all, m)
		tick = to
	}
	return all
}

func backup(ticks int) *shift {
	s := &shift{Duration: float64(ticks)}
	s.XMLName.Local = "backup"
	return s
}

// harmonies are the written chord and, as another analysis, the imagined one.
func harmonies(from phrase.PhraseChord) []*harmonyMark {
	if from.Written == nil {
		return []*harmonyMark{mark(from.Chord)}
	}
	imagined := mark(from.Chord)
	imagined.Type = alternate
	return []*harmonyMark{mark(*from.Written), imagined}
}

func (w lickWriter) opening() *attributes {
	mode := "major"
	if w.key.Mode == harmony.MinorMode {
		mode = "minor"
	}
	a := &attributes{
		Divisions: lickDivisions, Key: &keyMark{Fifths: max(min(w.key.Fifths(), 7), -7), Mode: mode},
		Time:   &timeMark{Beats: strconv.Itoa(w.Phrase.Meter.Count), BeatType: strconv.Itoa(w.Phrase.Meter.Unit)},
		Staves: 2, Clefs: []clef{{Number: 1, Sign: "G", Line: 2, Octave: -1}, {Number: 2, Sign: "TAB", Line: len(w.on.Open) - 1}},
		Staff: &staff{Number: 2, Lines: len(w.on.Open)},
	}
	for n := range w.on.Open {
		p := w.on.Open[len(w.on.Open)-1-n]
		at := pitchOf(w.key.Spell(p.Class()), p)
		a.Staff.Tuning = append(a.Staff.Tuning, stringTuning{Line: n + 1, Step: at.Step, Alter: at.Alter, Octave: at.Octave})
	}
	return a
}

// pitchOf writes a sounding pitch with the letter of its note.
func pitchOf(note pitch.Note, p pitch.MIDI) *pitchMark {
	return &pitchMark{Step: step(note), Alter: float64(note.Accidental), Octave: p.Octave(note)}
}

// voice writes one voice of a bar on one of the staves: rests where it is silent.
func (w lickWriter) voice(v, staff, from, to int, add func(any)) {
	name := strconv.Itoa(v + 1 + (staff-1)*len(w.voices))
	bar, beat := w.Phrase.Meter.BarTicks(), w.Phrase.Meter.BeatTicks()
	now := from
	// The first voice of the staff carries the chords: each before the sign it begins
	// with, or with an offset into it.
	over := w.Phrase.Chords
	if v > 0 || staff > 1 {
		over = nil
	}
	for len(over) > 0 && over[0].Tick < from {
		over = over[1:]
	}
	chords := func(until int) {
		for ; len(over) > 0 && over[0].Tick < until; over = over[1:] {
			for _, h := range harmonies(over[0]) {
				if over[0].Tick > now {
					h.Offset = &offsetTag{Value: float64(over[0].Tick - now)}
				}
				add(h)
			}
		}
	}
	rests := func(until int) {
		for _, p := range phrase.NoteValues(now, until-now, bar, beat) {
			chords(now + p.Ticks)
			n := signNote(p, staff, name)
			n.Rest = &rest{}
			add(n)
			now += p.Ticks
		}
	}
	for _, s := range w.voices[v] {
		if s.End() <= from || s.Tick >= to {
			continue
		}
		if s.Tick > now {
			rests(s.Tick)
		}
		if s.Tick >= from {
			chords(now + 1)
			for _, n := range s.Graces {
				g := w.note(n, staff, name)
				g.Grace, g.Type, g.Duration = &graceMark{}, "16th", 0
				if s.TakesTime {
					g.Grace.Steals = 100
				}
				add(g)
			}
		}
		tick := s.Tick
		all := phrase.NoteValues(s.Tick, s.Ticks, bar, beat)
		for k, p := range all {
			if tick >= from && tick < to {
				now = tick
				chords(now + p.Ticks)
				for chord, n := range s.Events {
					w.piece(n, p, k == 0, k == len(all)-1, chord > 0, staff, name, add)
				}
				now = tick + p.Ticks
			}
			tick += p.Ticks
		}
	}
	if now < to {
		rests(to)
	}
}

// signNote is a note as long as a sign.
func signNote(p phrase.NoteValue, staff int, voice string) *note {
	n := &note{Duration: float64(p.Ticks), Voice: voice, Type: p.Kind, Staff: staff, Dots: make([]dot, p.Dots)}
	if p.Tuplet > 0 {
		n.Tuplet = &tupletOf{Actual: p.Tuplet, Normal: p.InTimeOf()}
	}
	return n
}

// piece writes one part of a note, tied to the parts around it.
func (w lickWriter) piece(n int, p phrase.NoteValue, first, last, chord bool, staff int, voice string, add func(any)) {
	e := w.note(n, staff, voice)
	length := signNote(p, staff, voice)
	e.Duration, e.Type, e.Dots, e.Tuplet = length.Duration, length.Type, length.Dots, length.Tuplet
	if chord {
		e.Chord = &struct{}{}
	}
	if !first {
		e.Notations = w.place(n, staff)
	}
	tie := func(kind string) {
		e.Ties = append(e.Ties, typed{Type: kind})
		e.Notations.Tied = append(e.Notations.Tied, typed{Type: kind})
	}
	if !first || w.Phrase.Events[n].Tied {
		tie("stop")
	}
	if !last || w.tiedOn(n) {
		tie("start")
	}
	add(e)
}

// after is the next event on the string of an event, -1 for none.
func (w lickWriter) after(n int) int {
	for m := n + 1; m < len(w.Phrase.Events); m++ {
		if w.Phrase.Events[m].String == w.Phrase.Events[n].String {
			return m
		}
	}
	return -1
}

func (w lickWriter) tiedOn(n int) bool {
	m := w.after(n)
	return m >= 0 && w.Phrase.Events[m].Tied
}

// place is the string and fret of an event, on the tab staff.
func (w lickWriter) place(n, staff int) *notations {
	if staff == 1 {
		return &notations{}
	}
	fret := w.Phrase.Events[n].Fret
	return &notations{Technical: &technical{String: w.Phrase.Events[n].String, Fret: &fret}}
}

// note is an event without its length: its pitch and, on the tab staff, how it is played.
func (w lickWriter) note(n, staff int, voice string) *note {
	e := w.Phrase.Events[n]
	p := w.on.Pitch(e.Place)
	spelled := w.key.Spell(p.Class())
	if chord, ok := w.Phrase.ChordAt(e.Tick); ok {
		spelled = w.key.ToneOver(chord, p.Class()).Note
	}
	out := &note{Pitch: pitchOf(spelled, p), Voice: voice, Staff: staff, Notations: w.place(n, staff)}
	if e.Mute || e.Ghost {
		out.Head = &notehead{Text: "normal"}
		if e.Mute {
			out.Head.Text = "x"
		}
		if e.Ghost {
			out.Head.Parentheses = "yes"
		}
	}
	out.Notations.Articulation = articulated(e)
	if e.Vibrato || e.Trill > 0 {
		out.Notations.Ornaments = &ornaments{}
	}
	if e.Vibrato {
		out.Notations.Ornaments.Wavy = []typed{{Type: "start"}, {Type: "stop"}}
	}
	if e.Trill > 0 {
		out.Notations.Ornaments.Trill = &struct{}{}
	}
	if staff == 1 {
		return out
	}
	t := out.Notations.Technical
	if e.Finger > 0 {
		t.Fingering = strconv.Itoa(e.Finger)
	}
	next := phrase.Event{}
	if m := w.after(n); m >= 0 {
		next = w.Phrase.Events[m]
	}
	between := func(stops, starts bool) []typed {
		all := []typed{}
		if stops {
			all = append(all, typed{Type: "stop", Number: 1})
		}
		if starts {
			all = append(all, typed{Type: "start", Number: 1})
		}
		return all
	}
	t.HammerOn, t.PullOff = between(e.HammerOn, next.HammerOn), between(e.PullOff, next.PullOff)
	out.Notations.Slides = between(e.SlideFrom > 0, next.SlideFrom == e.Fret && e.Fret > 0)
	if e.SlideFrom > 0 {
		t.Other = append(t.Other, typed{Text: fmt.Sprint(otherSlide, e.SlideFrom)})
	}
	if e.Trill > 0 {
		t.Other = append(t.Other, typed{Text: fmt.Sprint(otherTrill, e.Trill)})
	}
	if e.Rake {
		t.Other = append(t.Other, typed{Text: otherRake})
	}
	if e.Bend > 0 {
		up := stringBend{Alter: float64(e.Bend) / 2}
		if e.PreBend {
			up.PreBend = &struct{}{}
		}
		t.Bends = append(t.Bends, up)
		if e.Release {
			t.Bends = append(t.Bends, stringBend{Alter: 0, Release: &struct{}{}})
		}
	}
	if e.Tied {
		out.Notations.Other = []typed{{Type: "single", Text: otherTied}}
	}
	return out
}

func articulated(e phrase.Event) *articulation {
	a := &articulation{}
	set := func(there bool, at **struct{}) {
		if there {
			*at = &struct{}{}
		}
	}
	set(e.Accent, &a.Accent)
	set(e.Staccato, &a.Staccato)
	set(e.SlideOut > 0, &a.Doit)
	set(e.SlideOut < 0, &a.Falloff)
	if *a == (articulation{}) {
		return nil
	}
	return a
}
