package practice

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// find asks for every place of one tone of a chord, or of all, where the hand stands, on some of
// its strings, or along the neck.
func (a maker) find() (Question, error) {
	chord := a.card.Chords[0]
	tones := chord.Tones()
	asked := tones
	what := "every tone"
	if a.r.IntN(3) > 0 {
		t := pick(a.r, tones)
		asked, what = []harmony.Tone{t}, "every "+signed(t.Degree.String())
	}
	w, where := a.at.Window, "in this position"
	first, last := 1, len(a.Instrument.Open)
	whole := len(asked) == 1 && a.r.IntN(4) == 0
	switch {
	case whole:
		w = neck.Window{Core: 0, CoreEnd: min(12, a.Instrument.Frets), Low: 0, High: min(12, a.Instrument.Frets)}
		where = fmt.Sprintf("along the neck, frets 0 to %d", w.High)
	case a.r.IntN(3) == 0:
		first = 1 + a.r.IntN(last-2)
		last = first + 2
		where = fmt.Sprintf("in this position, on strings %d to %d", first, last)
	}
	q := Question{Form: AllOfThem, Chord: chord.Symbol(), Title: what, Detail: where, NeedsPlace: true}
	if whole {
		q.Position = neck.Position{Window: w}
	}
	lines := []string{}
	for _, t := range asked {
		places := slices.DeleteFunc(a.placesOf(t.Note.Class(), w), func(p neck.Place) bool { return p.String < first || p.String > last })
		said := []string{}
		for _, p := range places {
			q.parts = append(q.parts, part{label: t.Degree.String(), note: t.Note, places: []neck.Place{p}, optional: !inCore(w, p)})
			if inCore(w, p) {
				said = append(said, fmt.Sprintf("string %d fret %d", p.String, p.Fret))
			}
		}
		if len(said) > 0 {
			lines = append(lines, fmt.Sprintf("the %s, %s, on %s", signed(t.Degree.String()), signed(t.Note.String()), strings.Join(said, ", ")))
		}
	}
	if len(lines) == 0 { // none of it lies under the hand there: ask in the whole position
		if first != 1 || last != len(a.Instrument.Open) || len(asked) == 1 {
			return a.findAll()
		}
		return q, &CardError{fmt.Sprintf("no tone of %s lies on frets %d to %d", chord.SignedSymbol(), w.Low, w.High)}
	}
	q.Hint = howMany(len(q.RightAnswer().Given))
	q.Text = strings.ToUpper(lines[0][:1]) + strings.Join(lines, "; ")[1:] + "."
	return q, nil
}

// findAll asks for every tone of the chord in its position.
func (a maker) findAll() (Question, error) {
	chord := a.card.Chords[0]
	q := Question{Form: AllOfThem, Chord: chord.Symbol(), Title: "every tone", Detail: "in this position", NeedsPlace: true}
	for _, t := range chord.Tones() {
		for _, p := range a.placesOf(t.Note.Class(), a.at.Window) {
			q.parts = append(q.parts, part{label: t.Degree.String(), note: t.Note, places: []neck.Place{p}, optional: !inCore(a.at.Window, p)})
		}
	}
	given := len(q.RightAnswer().Given)
	if given == 0 {
		return q, &CardError{fmt.Sprintf("no tone of %s lies on frets %d to %d", chord.SignedSymbol(), a.at.Core, a.at.CoreEnd)}
	}
	q.Hint = howMany(given)
	q.Text = fmt.Sprintf("The tones of %s, %s, lie on %d places here.", chord.SignedSymbol(), notes(chord.Tones()), given)
	return q, nil
}

// name asks for the degree of a lit place over a chord: the one that is on, or the next.
func (a maker) name() (Question, error) {
	lit, over := a.card.Chords[0], a.card.Chords[len(a.card.Chords)-1]
	q := Question{Form: Chosen, Chord: over.Symbol(), Title: "which degree is it?", Detail: fmt.Sprintf("over %s", over.SignedSymbol())}
	places := []neck.Place{}
	for class := range pitch.Class(12) {
		// Chord tones most of the time, now and then a colour or a blue note.
		wanted := a.card.Key.Classify(lit, class) == harmony.ChordTone
		if a.card.Kind == Name && a.r.IntN(4) == 0 {
			wanted = a.card.Key.Classify(lit, class) != harmony.Outside
		}
		if wanted {
			for _, p := range a.placesOf(class, a.at.Window) {
				if inCore(a.at.Window, p) {
					places = append(places, p)
				}
			}
		}
	}
	if len(places) == 0 {
		return q, &CardError{fmt.Sprintf("no tone of %s lies on frets %d to %d", lit.SignedSymbol(), a.at.Core, a.at.CoreEnd)}
	}
	at := pick(a.r, places)
	label := "?"
	tone := a.card.Key.ToneOver(over, a.Instrument.Pitch(at).Class())
	if a.card.Kind == NameNext {
		now := a.card.Key.ToneOver(lit, a.Instrument.Pitch(at).Class())
		label = now.Degree.String()
		q.Title = fmt.Sprintf("the %s of %s: what does it become?", signed(label), lit.SignedSymbol())
		q.Detail = fmt.Sprintf("over %s, the next chord", over.SignedSymbol())
	}
	q.Shown = []LitPlace{{at, label}}
	q.Choices = a.degreesOver(over)
	q.right = []string{tone.Degree.String()}
	q.parts = []part{{label: tone.Degree.String(), note: tone.Note, places: []neck.Place{at}}}
	q.Hint = fmt.Sprintf("it is %s", signed(tone.Note.String()))
	q.Text = fmt.Sprintf("%s is the %s of %s.", signed(tone.Note.String()), signed(tone.Degree.String()), over.SignedSymbol())
	return q, nil
}

// degreesOver are the degrees of the twelve notes over a chord, from the root up.
func (a maker) degreesOver(chord harmony.Chord) []string {
	all := make([]string, 12)
	for n := range all {
		all[n] = a.card.Key.ToneOver(chord, pitch.ClassOf(int(chord.Root.Class())+n)).Degree.String()
	}
	return all
}

func howMany(n int) string {
	if n == 1 {
		return "there is one"
	}
	return fmt.Sprintf("there are %d", n)
}
