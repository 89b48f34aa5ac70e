package practice

import (
	"fmt"
	"strings"

	"undaris/core/harmony"
)

// spell asks for the notes of a chord, or of the scale of a chord.
func (a maker) spell() Question {
	chord := a.card.Chords[0]
	tones := chord.Tones()
	q := Question{Form: AllOfThem, Chord: chord.Symbol(), Title: "spell it", Detail: "the notes of the chord, from the root up or in any order"}
	said := fmt.Sprintf("%s is %%s.", chord.SignedSymbol())
	if a.card.Kind == SpellScale {
		scale, _ := a.card.Key.ChordScale(chord)
		tones = scale.Tones
		q.Title, q.Detail = "spell its scale", fmt.Sprintf("the notes of the scale of the chord in %s", signed(a.card.Key.Tonic.String()))
		said = fmt.Sprintf("%s over %s is %%s.", signed(scale.Name), chord.SignedSymbol())
	}
	for _, t := range tones {
		q.parts = append(q.parts, part{label: t.Note.String(), note: t.Note, byNote: true})
		q.Parts++
	}
	q.Hint = fmt.Sprintf("its degrees are %s", degrees(tones))
	q.Text = fmt.Sprintf(said, notes(tones))
	return q
}

// degrees writes the degrees of tones one after the other.
func degrees(tones []harmony.Tone) string {
	all := make([]string, len(tones))
	for n, t := range tones {
		all[n] = signed(t.Degree.String())
	}
	return strings.Join(all, " ")
}

// notes writes their names.
func notes(tones []harmony.Tone) string {
	all := make([]string, len(tones))
	for n, t := range tones {
		all[n] = signed(t.Note.String())
	}
	return strings.Join(all, " ")
}
