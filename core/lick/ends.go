package lick

import (
	"fmt"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// LickEnd is one end of a lick and how its note lies to the chord there.
type LickEnd struct {
	// Event is the note's index, Last says that it is the last one.
	Event int
	Last  bool
	// Chord is the one that comes back after the last note, or that the first begins over.
	Chord harmony.Chord
	Near  []NearTone
	Text  string
}

// NearTone is a chord tone near a note: so many half steps above it (negative for below).
type NearTone struct {
	harmony.Tone
	HalfSteps int
}

// nearestTones is how many tones are named, and endReach how many half steps away they lie at most.
const (
	nearestTones = 2
	endReach     = 3
)

// Ends says of the first note of a lick and of its last how they lie to the nearest tones of the
// chord there: the one that the lick begins over, and the one that comes back when it is played again.
// Notes are spelled in a key.
func (l Lick) Ends(i neck.Instrument, k harmony.Key) []LickEnd {
	p := l.withOwnChords()
	first, last := 0, len(p.Events)-1
	back := p.Chords[0].Chord
	ends := []LickEnd{{Event: first, Chord: p.Chords[p.ChordIndexOf(p.Events[first])].Chord}, {Event: last, Last: true, Chord: back}}
	for n := range ends {
		end := &ends[n]
		sounding := p.Events[end.Event].Sounding(i)
		end.Near = nearTones(end.Chord, sounding)
		end.Text = endText(*end, k.ToneOver(end.Chord, sounding.Class()))
	}
	return ends
}

// nearTones are the tones of a chord nearest to a pitch, the nearest first; of two as near the one
// above.
func nearTones(c harmony.Chord, from pitch.MIDI) []NearTone {
	found := []NearTone{}
	for away := 0; away <= endReach && len(found) < nearestTones; away++ {
		for _, halfSteps := range []int{away, -away} {
			tone, ok := c.Tone((from + pitch.MIDI(halfSteps)).Class())
			if !ok || halfSteps == 0 && len(found) > 0 || len(found) == nearestTones {
				continue
			}
			found = append(found, NearTone{Tone: tone, HalfSteps: halfSteps})
		}
	}
	return found
}

func endText(e LickEnd, note harmony.Tone) string {
	which, chord := "first", e.Chord.SignedSymbol()
	if e.Last {
		which, chord = "last", e.Chord.SignedSymbol()+", which comes back"
	}
	said := fmt.Sprintf("your %s note, %s, ", which, note.Note)
	if len(e.Near) == 0 {
		return said + fmt.Sprintf("is far from every tone of %s", chord)
	}
	if nearest := e.Near[0]; nearest.HalfSteps == 0 {
		return said + fmt.Sprintf("is the %s of %s", degreeText(nearest.Degree), chord)
	}
	parts := []string{}
	for n, t := range e.Near {
		of := "its"
		if n == 0 {
			of = "the"
		}
		part := fmt.Sprintf("%s %s, %s %s", fretsText(-t.HalfSteps), t.Note, of, degreeText(t.Degree))
		if n == 0 {
			part += " of " + chord
		}
		parts = append(parts, part)
	}
	return said + "lies " + strings.Join(parts, ", and ")
}

func degreeText(d pitch.Degree) string {
	if d.Number == 1 && d.Alter == 0 {
		return "root"
	}
	return d.String()
}

// fretsText says how far a note lies above a tone, or below where it is negative.
func fretsText(halfSteps int) string {
	way := "above"
	if halfSteps < 0 {
		way, halfSteps = "below", -halfSteps
	}
	return [...]string{"on", "a fret", "two frets", "three frets"}[halfSteps] + " " + way
}
