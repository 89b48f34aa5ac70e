package practice

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/change"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// landing asks for the chord tone nearest to a place over a change; where several are equally
// near, the one that the player's strategy values more is said, and all are right.
func (a maker) landing() (Question, error) {
	leaving, arriving := a.card.Chords[0], a.card.Chords[1]
	from := neck.PlaceChord(a.Instrument, a.at.Window, leaving, a.Swaps)
	to := neck.PlaceChord(a.Instrument, a.at.Window, arriving, a.Swaps)
	if len(from.Tones) == 0 || len(to.Tones) == 0 {
		return Question{}, &CardError{fmt.Sprintf("frets %d to %d have no tones of %s and %s", a.at.Core, a.at.CoreEnd, leaving.SignedSymbol(), arriving.SignedSymbol())}
	}
	here := pick(a.r, from.Tones)
	near := change.NearbyTargets(a.Strategy, a.Instrument, here.Place, arriving, to)
	if len(near) == 0 {
		return Question{}, &CardError{fmt.Sprintf("no tone of %s lies near", arriving.SignedSymbol())}
	}
	q := Question{
		Form: OneOfThem, Chord: arriving.Symbol(),
		Title:  "the nearest chord tone",
		Detail: fmt.Sprintf("from the %s of %s to %s", signed(here.Degree.String()), leaving.SignedSymbol(), arriving.SignedSymbol()),
		Shown:  []LitPlace{{here.Place, here.Degree.String()}},
	}
	least := distance(near[0].Semitones)
	said := []string{}
	for _, t := range near {
		if distance(t.Semitones) != least {
			continue
		}
		places := append([]neck.Place{t.Place}, t.Alternatives...)
		q.parts = append(q.parts, part{label: t.Degree.String(), note: t.Note, places: places})
		if text := fmt.Sprintf("%s, the %s", signed(t.Note.String()), signed(t.Degree.String())); !slices.Contains(said, text) {
			said = append(said, text)
		}
	}
	far := map[int]string{0: "held", 1: "a half step away", 2: "a whole step away"}[least]
	if far == "" {
		far = fmt.Sprintf("%d half steps away", least)
	}
	q.Hint = "it is " + far
	q.Text = fmt.Sprintf("%s of %s, %s.", strings.Join(said, ", or "), arriving.SignedSymbol(), far)
	return q, nil
}

func distance(semitones int) int { return max(semitones, -semitones) }

// boxAndChord asks for the tones of a chord that the box lacks.
func (a maker) boxAndChord() (Question, error) {
	chord := a.card.Chords[0]
	box, err := a.card.Key.Box("")
	if err != nil {
		return Question{}, &CardError{err.Error()}
	}
	coverage := change.CoverageOf(chord, box)
	if len(coverage.Missing) == 0 {
		return Question{}, &CardError{fmt.Sprintf("%s has all of %s: there is nothing to ask", box.Name(), chord.SignedSymbol())}
	}
	q := Question{
		Form: AllOfThem, Chord: chord.Symbol(), NeedsPlace: true,
		Title:  "what does the box lack?",
		Detail: fmt.Sprintf("the tones of %s that %s has not, in this position", chord.SignedSymbol(), signed(box.Name())),
	}
	missing := []harmony.Tone{}
	for _, m := range coverage.Missing {
		missing = append(missing, m.Tone)
		for _, p := range a.placesOf(m.Note.Class(), a.at.Window) {
			q.parts = append(q.parts, part{label: m.Degree.String(), note: m.Note, places: []neck.Place{p}, optional: !inCore(a.at.Window, p)})
		}
	}
	if len(q.RightAnswer().Given) == 0 {
		return q, &CardError{fmt.Sprintf("none of what the box lacks lies on frets %d to %d", a.at.Core, a.at.CoreEnd)}
	}
	if held := tonesOfBox(chord, box); len(held) > 0 {
		q.Hint = fmt.Sprintf("it has %s", degrees(held))
	} else {
		q.Hint = "it has none of the chord"
	}
	q.Text = fmt.Sprintf("%s lacks the %s of %s: %s.", upperFirst(signed(box.Name())), degrees(missing), chord.SignedSymbol(), notes(missing))
	return q, nil
}

func tonesOfBox(chord harmony.Chord, box harmony.Box) []harmony.Tone {
	return change.CoverageOf(chord, box).Has
}

// guideLine asks for one guide tone for each chord of a progression, each the nearest to the one
// before; the first may be any.
func (a maker) guideLine() (Question, error) {
	q := Question{Form: InOrder, Title: "a guide-tone line", Detail: "a 3 or a 7 of each chord, moving least"}
	symbols := []string{}
	before := -1
	line := []string{}
	for _, chord := range a.card.Chords {
		options := a.guideTones(chord)
		if len(options) == 0 {
			return q, &CardError{fmt.Sprintf("%s has no guide tone on frets %d to %d", chord.SignedSymbol(), a.at.Core, a.at.CoreEnd)}
		}
		chosen := options[0]
		if before >= 0 {
			for _, o := range options {
				if distance(int(a.Instrument.Pitch(o.Place))-before) < distance(int(a.Instrument.Pitch(chosen.Place))-before) {
					chosen = o
				}
			}
		}
		p := part{label: chosen.Label, note: chosen.note, shown: []neck.Place{chosen.Place}, after: a.leastMove(options)}
		for _, o := range options {
			p.others = append(p.others, o.note)
		}
		before = int(a.Instrument.Pitch(chosen.Place))
		q.parts = append(q.parts, p)
		q.Parts++
		symbols = append(symbols, chord.SignedSymbol())
		line = append(line, fmt.Sprintf("%s of %s", signed(chosen.Label), chord.SignedSymbol()))
	}
	q.Chord, q.Title = "", strings.Join(symbols, "  ")
	q.Detail = "a guide-tone line: the 3 or the 7 of each chord, moving least"
	q.Hint = "it begins on the " + line[0]
	q.Text = fmt.Sprintf("One such line is the %s.", strings.Join(line, ", the "))
	return q, nil
}

// guidePlace is a place of a guide tone.
type guidePlace struct {
	LitPlace
	note pitch.Note
}

// guideTones are the places under the hand that sound a guide tone of a chord, from string 1 on.
func (a maker) guideTones(chord harmony.Chord) []guidePlace {
	all := []guidePlace{}
	for _, t := range chord.Tones() {
		if !harmony.IsGuideTone(t.Degree) {
			continue
		}
		for _, p := range a.placesOf(t.Note.Class(), a.at.Window) {
			all = append(all, guidePlace{LitPlace{p, t.Degree.String()}, t.Note})
		}
	}
	return all
}

// leastMove says whether a guide tone is as near to the note before as any of its chord is.
func (a maker) leastMove(options []guidePlace) func([]Given, Given) bool {
	return func(before []Given, g Given) bool {
		if len(before) == 0 {
			return true
		}
		from, to := a.pitchOf(before[len(before)-1]), a.pitchOf(g)
		if from == nil || to == nil { // a name has no octave
			return true
		}
		least := 128
		for _, o := range options {
			least = min(least, distance(int(a.Instrument.Pitch(o.Place)-*from)))
		}
		return distance(int(*to-*from)) <= least
	}
}
