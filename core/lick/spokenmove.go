package lick

import (
	"slices"
	"strings"

	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// DegreeMove is a step from one degree to another over the chord that sounds, and how it is made: a
// slide, a bend, a hammer-on, a pull-off, a release, or plainly one note after the other.
type DegreeMove struct {
	Technique string
	From, To  pitch.Degree
}

// movesOf lists the moves of a lick, each once.
func movesOf(l Lick, i neck.Instrument) []DegreeMove {
	k, p := l.Key(), l.withOwnChords()
	degree := func(e phrase.Event, sounding pitch.MIDI) pitch.Degree {
		return k.ToneOver(p.Chords[p.ChordIndexOf(e)].Chord, sounding.Class()).Degree
	}
	moves := []DegreeMove{}
	add := func(technique string, e phrase.Event, from, to pitch.MIDI) {
		move := DegreeMove{technique, degree(e, from), degree(e, to)}
		if from != to && !slices.Contains(moves, move) {
			moves = append(moves, move)
		}
	}
	for n, e := range p.Events {
		fretted := i.Pitch(e.Place)
		if e.SlideFrom > 0 {
			add("slide", e, i.Pitch(neck.Place{String: e.String, Fret: e.SlideFrom}), fretted)
		}
		if e.Bend >= 2 && !e.PreBend {
			add("bend", e, fretted, e.Sounding(i))
		}
		if e.Release {
			add("release", e, e.Sounding(i), fretted)
		}
		if n == 0 {
			continue
		}
		before := p.Events[n-1].Sounding(i)
		add("", e, before, e.Sounding(i))
		if e.HammerOn {
			add("hammer-on", e, before, fretted)
		}
		if e.PullOff {
			add("pull-off", e, before, fretted)
		}
	}
	return moves
}

// moveWords are the words by which a player calls a move (common).
var moveWords = map[string]string{
	"slide": "slide", "slides": "slide", "slid": "slide", "bend": "bend", "bends": "bend", "bent": "bend", "hammer": "hammer-on", "hammer-on": "hammer-on", "hammered": "hammer-on",
	"pull": "pull-off", "pull-off": "pull-off", "pulled": "pull-off", "release": "release", "released": "release",
}

// ReadMoves takes the moves out of words that are searched with, as in "slide from b7 to R" or
// "bend 4 to 5", and returns them with the words that are left. What follows a technique must be
// two degrees with "to" between them; else the words stay words.
func ReadMoves(text string) (moves []DegreeMove, rest string) {
	words := strings.Fields(strings.NewReplacer("♭", "b", "♯", "#", "→", " to ").Replace(text))
	left := []string{}
	for n := 0; n < len(words); n++ {
		at, technique := n, ""
		if name, ok := moveWords[strings.ToLower(words[at])]; ok {
			at, technique = at+1, name
			if at < len(words) && strings.EqualFold(words[at], "on") || at < len(words) && strings.EqualFold(words[at], "off") {
				at++
			}
		}
		if at < len(words) && strings.EqualFold(words[at], "from") {
			at++
		}
		if at+2 < len(words) && strings.EqualFold(words[at+1], "to") {
			from, errFrom := readDegree(words[at])
			to, errTo := readDegree(words[at+2])
			if errFrom == nil && errTo == nil {
				moves = append(moves, DegreeMove{technique, from, to})
				n = at + 2
				continue
			}
		}
		left = append(left, words[n])
	}
	return moves, strings.Join(left, " ")
}

// readDegree reads a degree as players write it; the root is also 1 or "root".
func readDegree(text string) (pitch.Degree, error) {
	switch strings.ToLower(strings.Trim(text, ",.")) {
	case "r", "1", "root":
		return pitch.Degree{Number: 1}, nil
	}
	return pitch.ParseDegree(strings.ToLower(strings.Trim(text, ",.")))
}

// hasMove says whether one of the moves is the wanted one: degrees an octave apart are the same, and
// a move without a technique is any.
func hasMove(all []DegreeMove, wanted DegreeMove) bool {
	same := func(a, b pitch.Degree) bool { return a.Semitones() == b.Semitones() }
	return slices.ContainsFunc(all, func(m DegreeMove) bool {
		return (wanted.Technique == "" || m.Technique == wanted.Technique) && same(m.From, wanted.From) && same(m.To, wanted.To)
	})
}
