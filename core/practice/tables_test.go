package practice_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/practice"
)

// answerText writes an answer as it is read in a table: "3:9 3:8", "A C", "E".
func answerText(a practice.Answer) string {
	words := []string{}
	if a.Choice != "" {
		words = append(words, a.Choice)
	}
	for _, g := range a.Given {
		word := ""
		if g.Place != nil {
			word = fmt.Sprintf("%d:%d", g.Place.String, g.Place.Fret)
		}
		if g.Note != nil {
			word += g.Note.String()
		}
		words = append(words, word)
	}
	return strings.Join(words, " ")
}

// ask asks a card until a question has a title.
func ask(t *testing.T, id, title string) practice.Question {
	t.Helper()
	card, err := practice.ParseCard(id)
	require.NoError(t, err)
	titles := map[string]bool{}
	for seed := range uint64(400) {
		q, err := practice.Ask(context(neck.Standard()), card, seed)
		require.NoError(t, err)
		titles[q.Title+", "+q.Detail] = true
		if said := q.Title + ", " + q.Detail; strings.HasPrefix(said, title) && !strings.Contains(said, "on strings") {
			return q
		}
	}
	require.Fail(t, "never asked", "%s; asked are %v", title, titles)
	return practice.Question{}
}

// What is right was worked out by hand, on a guitar in standard tuning.
func TestWhatIsRight(t *testing.T) {
	for _, c := range []struct{ id, title, right, says string }{
		{"find it|C dominant|E|C7", "every 5, in this position", "2:8 5:10", "The 5, G, on string 2 fret 8, string 5 fret 10."},
		{"find it|C dominant|E|C7", "every ♭7, along the neck", "1:6 2:11 3:3 4:8 5:1 6:6", "The ♭7, B♭, on "},
		{"find it|C dominant|A|F7", "every 3, in this position", "1:5 6:5", ""},
		{"arpeggio in order|C dominant|A|C7", "from the ♭7, down", "1:6 1:3 2:5 3:5", "The arpeggio from the ♭7 down is ♭7 5 3 R: B♭ G E C."},
		{"scale from a degree|C dominant|E|F7", "from the R, up", "5:8 5:10 4:7 4:8 4:10 3:7 3:8 2:6", "Mixolydian from the R up is R 2 3 4 5 6 ♭7 R: F G A B♭ C D E♭ F."},
		{"nearest landing|C dominant|E|C7 F7", "the nearest chord tone, from the R of", "", "C, the 5 of F7, held."},
		{"nearest landing|C dominant|E|C7 F7", "the nearest chord tone, from the ♭7 of", "", "A, the 3 of F7, a half step away."},
		{"box and chord|C dominant|E|F7", "what does the box lack?", "2:10 4:7", "C minor pentatonic lacks the 3 of F7: A."},
		{"box and chord|C dominant|E|G7", "what does the box lack?", "1:7 4:9 6:7 1:10 3:7 6:10", "C minor pentatonic lacks the 3 5 of G7: B D."},
		{"which form|C dominant|A|F7", "which form is it?", "D", "F7 on frets 3 to 6 is the D form: its root lies on string 2 and 4."},
		{"where is the form|C dominant|A|F7", "in the A form", "8–11", "F7 in the A form lies on frets 8–11."},
		{"guide-tone line|C dominant|E|C7 F7 C7 G7", "C7  F7  C7  G7", "3:9 3:8 3:9 2:6", "One such line is the 3 of C7, the ♭7 of F7, the 3 of C7, the ♭7 of G7."},
		{"spell a chord|Ab major||Bbm7", "spell it", "Bb Db F Ab", "B♭m7 is B♭ D♭ F A♭."},
		{"spell a scale|F# minor||C#7", "spell its scale", "C# D E# F# G# A B", ""},
		{"name it over the next chord|C dominant|E|C7 F7", "the 3 of C7: what does it become?", "7", "E is the 7 of F7."},
	} {
		q := ask(t, c.id, c.title)
		if c.says != "" {
			assert.Contains(t, q.Text, strings.TrimSuffix(c.says, "."), c.title)
		}
		if c.right != "" {
			assert.Equal(t, c.right, answerText(q.RightAnswer()), "%s: %s, %s", c.id, q.Title, q.Detail)
		}
	}
}

// An answer is marked part by part, and what is wrong is said.
func TestPartsAreMarked(t *testing.T) {
	i := neck.Standard()
	place := func(s, fret int) practice.Given { return practice.Given{Place: &neck.Place{String: s, Fret: fret}} }
	named := func(name string) practice.Given {
		note, err := pitch.ParseNote(name)
		require.NoError(t, err)
		return practice.Given{Note: &note}
	}
	down := ask(t, "arpeggio in order|C dominant|A|C7", "from the ♭7, down")
	mark, err := down.Mark(i, practice.Answer{Given: []practice.Given{place(1, 6), place(1, 3), place(3, 5)}})
	require.NoError(t, err)
	assert.False(t, mark.Right)
	assert.Equal(t, []practice.PartState{practice.Right, practice.Right, practice.Wrong, practice.Missing}, states(mark))
	assert.Equal(t, "3 was asked; this is C, the R", mark.Parts[2].Text)
	assert.Equal(t, [2]int{2, 4}, [2]int{mark.Got, mark.Of})
	// Up in place of down.
	mark, err = down.Mark(i, practice.Answer{Given: []practice.Given{place(4, 8), place(3, 12), place(2, 5), place(3, 5)}})
	require.NoError(t, err)
	assert.Equal(t, practice.Wrong, mark.Parts[0].State, "from there it does not go down within the position")
	// By pitch, from an instrument that does not say on which string.
	pitches := []practice.Given{}
	for _, midi := range []pitch.MIDI{70, 67, 64, 60} {
		pitches = append(pitches, practice.Given{Pitch: &midi})
	}
	mark, err = down.Mark(i, practice.Answer{Given: pitches})
	require.NoError(t, err)
	assert.True(t, mark.Right)

	spelled := ask(t, "spell a chord|Ab major||Bbm7", "spell it")
	mark, err = spelled.Mark(i, practice.Answer{Given: []practice.Given{named("Bb"), named("C#"), named("F"), named("Ab"), named("C")}})
	require.NoError(t, err)
	assert.Equal(t, []practice.PartState{practice.Right, practice.Misnamed, practice.Right, practice.Right, practice.Wrong}, states(mark))
	assert.Equal(t, "the sound is right; here it is called D♭", mark.Parts[1].Text)
	assert.Equal(t, "C, the 9", mark.Parts[4].Text)

	find := ask(t, "find it|C dominant|E|C7", "every 5, in this position")
	mark, err = find.Mark(i, practice.Answer{Given: []practice.Given{place(2, 8)}})
	require.NoError(t, err)
	assert.Equal(t, []practice.PartState{practice.Right, practice.Missing}, states(mark))
	assert.Equal(t, &neck.Place{String: 5, Fret: 10}, mark.Parts[1].Place)
	g := pitch.MIDI(67)
	_, err = find.Mark(i, practice.Answer{Given: []practice.Given{{Pitch: &g}}})
	assert.ErrorContains(t, err, "asked for by place")
	_, err = find.Mark(i, practice.Answer{Choice: "3"})
	assert.ErrorContains(t, err, "not with a choice")
	_, err = find.Mark(i, practice.Answer{Given: []practice.Given{place(2, 80)}})
	assert.ErrorContains(t, err, "not on the neck")
}

func states(m practice.Mark) []practice.PartState {
	all := []practice.PartState{}
	for _, p := range m.Parts {
		all = append(all, p.State)
	}
	return all
}

// What cannot be asked says why, and what can be.
func TestWhatCannotBeAsked(t *testing.T) {
	open, err := neck.ReadTuning("D A D G A D")
	require.NoError(t, err)
	odd := neck.Instrument{Name: "DADGAD", Open: open, Frets: 21, ScaleMM: 648}
	for id, says := range map[string]string{
		"which form|C dominant|E|C7":     "needs the five forms",
		"box and chord|C dominant|E|C":   "",
		"which bar, by ear|C major||C F": "too short to be lost in",
		"box and chord|C dominant|E|Cm7": "has all of Cm7",
	} {
		card, err := practice.ParseCard(id)
		require.NoError(t, err)
		_, err = practice.Ask(context(odd), card, 1)
		if says != "" {
			assert.ErrorContains(t, err, says, id)
		}
	}
	for id, says := range map[string]string{
		"find it|C dominant|E":            "a card is kind|key|position|chords",
		"guess it|C dominant|E|C7":        "guess it",
		"find it|H major|E|C7":            "H major",
		"find it|C dominant|E|C77":        "C77",
		"find it|C dominant|E|C7 F7":      "over 1 chords; these are 2",
		"nearest landing|C dominant|E|C7": "over 2 chords; these are 1",
	} {
		_, err := practice.ParseCard(id)
		assert.ErrorContains(t, err, says, id)
	}
}

func FuzzParseCard(f *testing.F) {
	f.Add("find it|C dominant|E|C7")
	f.Add("guide-tone line|F# minor|A+1|F#m7 Bm7 C#7")
	f.Fuzz(func(t *testing.T, id string) {
		card, err := practice.ParseCard(id)
		if err != nil {
			return
		}
		again, err := practice.ParseCard(card.ID())
		require.NoError(t, err)
		assert.Equal(t, card.ID(), again.ID())
		_, _ = practice.Ask(context(neck.Standard()), card, 1)
	})
}
