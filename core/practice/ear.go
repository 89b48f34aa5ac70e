package practice

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// strummed is how many beats a chord sounds that is heard before a question.
const strummed = 2

// chordToHear is a chord on the upper strings of its position, as it is strummed.
func (a maker) chordToHear(chord harmony.Chord) Sound {
	shape := neck.PlaceChord(a.Instrument, a.at.Window, chord, nil)
	s := Sound{Beats: strummed}
	for n := 1; n <= len(a.Instrument.Open); n++ {
		for _, t := range shape.Tones {
			if t.String == n && !slices.ContainsFunc(s.Places, func(p neck.Place) bool { return p.String == n }) {
				s.Places = append(s.Places, t.Place)
			}
		}
	}
	return s
}

// earDegree lets a chord and one of its tones be heard, and asks which it was.
func (a maker) earDegree() (Question, error) {
	chord := a.card.Chords[0]
	shape := neck.PlaceChord(a.Instrument, a.at.Window, chord, nil)
	if len(shape.Tones) == 0 {
		return Question{}, &CardError{fmt.Sprintf("no tone of %s lies on frets %d to %d", chord.SignedSymbol(), a.at.Core, a.at.CoreEnd)}
	}
	t := pick(a.r, shape.Tones)
	q := Question{
		Form: Chosen, Chord: chord.Symbol(), Title: "which degree was it?", Detail: "the chord, then one of its tones",
		Heard: []Sound{a.chordToHear(chord), {Places: []neck.Place{t.Place}, Beats: strummed}},
		right: []string{t.Degree.String()},
		parts: []part{{label: t.Degree.String(), note: t.Note, places: []neck.Place{t.Place}}},
		Hint:  "sing the root first, and count up to it",
		Text:  fmt.Sprintf("It was %s, the %s of %s.", signed(t.Note.String()), signed(t.Degree.String()), chord.SignedSymbol()),
	}
	for _, tone := range chord.Tones() {
		q.Choices = append(q.Choices, tone.Degree.String())
	}
	return q, nil
}

// earChord lets the home chord be heard and then I, IV or V, and asks which came.
func (a maker) earChord() (Question, error) {
	key := a.card.Key
	romans := []string{"I", "IV", "V"}
	if key.Mode == harmony.MinorMode {
		romans = []string{"i", "iv", "v"}
	}
	chords := []harmony.Chord{}
	for _, roman := range romans {
		chord, err := key.ParseRoman(roman)
		if err != nil {
			return Question{}, &CardError{err.Error()}
		}
		chords = append(chords, chord)
	}
	n := a.r.IntN(len(chords))
	return Question{
		Form: Chosen, Title: "which chord came?", Detail: fmt.Sprintf("first home, %s; then one of three", chords[0].SignedSymbol()),
		Heard: []Sound{a.chordToHear(chords[0]), a.chordToHear(chords[n])},
		right: []string{romans[n]}, Choices: romans,
		Hint: fmt.Sprintf("hum %s and hear whether it is in the chord", signed(key.Tonic.String())),
		Text: fmt.Sprintf("It was %s, the %s.", chords[n].SignedSymbol(), romans[n]),
	}, nil
}

// barsHeard is how many chords of a form are heard before it is asked where they were.
const barsHeard = 3

// earBar lets some chords of a progression be heard, one for each bar, and asks where they were.
func (a maker) earBar() (Question, error) {
	chords := a.card.Chords
	if len(chords) < barsHeard {
		return Question{}, &CardError{fmt.Sprintf("a form of %d chords is too short to be lost in", len(chords))}
	}
	from := a.r.IntN(len(chords) - barsHeard + 1)
	q := Question{
		Form: Chosen, Title: "where in the form was it?", Detail: fmt.Sprintf("%d bars; which was the first of them?", barsHeard),
		HeardBars: BarRange{From: from, Bars: barsHeard},
	}
	said := []string{}
	for n := range barsHeard {
		q.Heard = append(q.Heard, a.chordToHear(chords[from+n]))
		said = append(said, chords[from+n].SignedSymbol())
	}
	for n := range len(chords) - barsHeard + 1 {
		bar := fmt.Sprintf("bar %d", n+1)
		q.Choices = append(q.Choices, bar)
		same := true
		for k := range barsHeard {
			same = same && chords[n+k].Same(chords[from+k])
		}
		if same {
			q.right = append(q.right, bar)
		}
	}
	q.Hint = fmt.Sprintf("the first chord was %s", said[0])
	q.Text = fmt.Sprintf("They were %s: %s.", strings.Join(said, ", "), strings.Join(q.right, " or "))
	return q, nil
}
