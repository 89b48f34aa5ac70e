package practice

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// walk is tones one after the other at pitches that the position has.
type walk struct {
	tones   []harmony.Tone
	pitches []pitch.MIDI
}

// sounding are the pitches under the hand that are tones of a scale or chord, from the lowest up,
// each with its tone; those within reach are among them where reach says so.
func (a maker) sounding(tones []harmony.Tone) walk {
	w := walk{}
	for s := range a.Instrument.Open {
		for fret := a.at.Core; fret <= a.at.CoreEnd; fret++ {
			p := neck.Place{String: s + 1, Fret: fret}
			if !a.Instrument.Has(p) {
				continue
			}
			sounds := a.Instrument.Pitch(p)
			n := slices.IndexFunc(tones, func(t harmony.Tone) bool { return t.Note.Class() == sounds.Class() })
			if n < 0 || slices.Contains(w.pitches, sounds) {
				continue
			}
			at, _ := slices.BinarySearch(w.pitches, sounds)
			w.pitches = slices.Insert(w.pitches, at, sounds)
			w.tones = slices.Insert(w.tones, at, tones[n])
		}
	}
	return w
}

// gapless says whether the notes from one index to another are neighbours among the tones.
func (w walk) gapless(from, to int, tones []harmony.Tone) bool {
	next := func(n int) pitch.Class {
		at := slices.IndexFunc(tones, func(t harmony.Tone) bool { return t.Note == w.tones[n].Note })
		return tones[(at+1)%len(tones)].Note.Class()
	}
	for n := from; n < to; n++ {
		if w.tones[n+1].Note.Class() != next(n) || w.pitches[n+1]-w.pitches[n] > 12 {
			return false
		}
	}
	return true
}

// arpeggio asks for the chord tones from a given one, up or down or in an order of their own.
func (a maker) arpeggio() (Question, error) {
	chord := a.card.Chords[0]
	tones := chord.Tones()
	if a.r.IntN(3) == 0 {
		return a.figure(chord, tones)
	}
	return a.run(chord, tones, len(tones), "the arpeggio")
}

// scale asks for the scale of the chord from one of its degrees, up or down.
func (a maker) scale() (Question, error) {
	chord := a.card.Chords[0]
	scale, _ := a.card.Key.ChordScale(chord)
	q, err := a.run(chord, scale.Tones, len(scale.Tones)+1, signed(scale.Name))
	if err != nil {
		q, err = a.run(chord, scale.Tones, len(scale.Tones)-1, signed(scale.Name))
	}
	return q, err
}

// run asks for so many neighbours among the tones, one way.
func (a maker) run(chord harmony.Chord, tones []harmony.Tone, length int, what string) (Question, error) {
	w := a.sounding(tones)
	starts := [][2]int{} // index, direction
	for n := range w.pitches {
		if n+length <= len(w.pitches) && w.gapless(n, n+length-1, tones) {
			starts = append(starts, [2]int{n, 1}, [2]int{n + length - 1, -1})
		}
	}
	if len(starts) == 0 {
		return Question{}, &CardError{fmt.Sprintf("%s of %s has no %d notes in a row on frets %d to %d", what, chord.SignedSymbol(), length, a.at.Core, a.at.CoreEnd)}
	}
	start := pick(a.r, starts)
	first := w.tones[start[0]]
	way := map[int]string{1: "up", -1: "down"}[start[1]]
	q := Question{Form: InOrder, Chord: chord.Symbol(), Title: fmt.Sprintf("from the %s, %s", signed(first.Degree.String()), way)}
	asked := []harmony.Tone{}
	// Anywhere that the whole of it lies may be begun: the first note decides the octave.
	begins := []neck.Place{}
	for _, other := range starts {
		if other[1] == start[1] && w.tones[other[0]].Note == first.Note {
			begins = append(begins, a.Instrument.PlacesOf(a.at.Window, w.pitches[other[0]])...)
		}
	}
	for n := range length {
		at := start[0] + n*start[1]
		asked = append(asked, w.tones[at])
		p := part{label: w.tones[at].Degree.String(), note: w.tones[at].Note}
		if n == 0 {
			p.after = func(_ []Given, g Given) bool { return g.Place == nil || slices.Contains(begins, *g.Place) }
			p.places = nil
		} else {
			p.after = a.goesOn(start[1])
		}
		q.parts = append(q.parts, p)
	}
	a.placeRun(&q, start, w)
	q.Detail = strings.ReplaceAll(degrees(asked), " ", " · ")
	if a.card.Kind == ScaleFrom {
		q.Detail = what
	}
	q.Parts = length
	q.Hint = fmt.Sprintf("it begins on %s, and is %s", signed(first.Note.String()), notes(asked))
	q.Text = fmt.Sprintf("%s from the %s %s is %s: %s.", upperFirst(what), signed(first.Degree.String()), way, degrees(asked), notes(asked))
	return q, nil
}

// placeRun gives each part of a run the place that it lies on, so that it can be shown; any place
// of its sound is right.
func (a maker) placeRun(q *Question, start [2]int, w walk) {
	for n := range q.parts {
		q.parts[n].shown = a.Instrument.PlacesOf(a.at.Window, w.pitches[start[0]+n*start[1]])
	}
}

// goesOn says that a note is within an octave of the one before, up or down.
func (a maker) goesOn(way int) func([]Given, Given) bool {
	return func(before []Given, g Given) bool {
		from, to := a.pitchOf(before[len(before)-1]), a.pitchOf(g)
		if from == nil || to == nil { // a name has no octave
			return true
		}
		by := way * int(*to-*from)
		return by > 0 && by <= 12
	}
}

// pitchOf is what a part of an answer sounds, nil for a name.
func (a maker) pitchOf(g Given) *pitch.MIDI {
	if g.Place != nil {
		p := a.Instrument.Pitch(*g.Place)
		return &p
	}
	return g.Pitch
}

// figure asks for the chord tones in an order that goes to and fro.
func (a maker) figure(chord harmony.Chord, tones []harmony.Tone) (Question, error) {
	order := a.r.Perm(len(tones))
	q := Question{Form: InOrder, Chord: chord.Symbol(), Title: "in this order"}
	asked := []harmony.Tone{}
	for _, n := range order {
		t := tones[n]
		places := slices.DeleteFunc(a.placesOf(t.Note.Class(), a.at.Window), func(p neck.Place) bool { return !inCore(a.at.Window, p) })
		if len(places) == 0 {
			return a.run(chord, tones, len(tones)-1, "the arpeggio")
		}
		asked = append(asked, t)
		q.parts = append(q.parts, part{label: t.Degree.String(), note: t.Note, shown: places})
	}
	q.Detail = strings.ReplaceAll(degrees(asked), " ", " · ")
	q.Parts = len(asked)
	q.Hint = fmt.Sprintf("they are %s", notes(asked))
	q.Text = fmt.Sprintf("%s of %s are %s.", degrees(asked), chord.SignedSymbol(), notes(asked))
	return q, nil
}

func upperFirst(text string) string { return strings.ToUpper(text[:1]) + text[1:] }
