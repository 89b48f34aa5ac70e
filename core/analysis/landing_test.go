package analysis

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// A C7 gives way to an F7 at tick 1920, in C. Each row is what is played about it: tick,
// ticks, string and fret, and how it is sounded.
func TestLandingAt(t *testing.T) {
	type note struct {
		tick, ticks, str, fret int
		how                    phrase.Technique
	}
	for _, c := range []struct {
		name  string
		notes []note
		want  string
	}{
		{"the 3 on the change", []note{{1920, 480, 2, 10, phrase.Technique{}}}, "note 0 on: 3 chordTone"},
		{"an eighth late", []note{{2160, 240, 2, 10, phrase.Technique{}}}, "note 0 late: 3 chordTone"},
		{"a beat late", []note{{2400, 240, 2, 10, phrase.Technique{}}}, "note 0 late: 3 chordTone"},
		{"more than a beat late", []note{{2401, 240, 2, 10, phrase.Technique{}}}, "none"},
		{"a push that rings through", []note{{1680, 480, 2, 10, phrase.Technique{}}}, "note 0 early: 3 chordTone"},
		{"an eighth before, over by the change", []note{{1680, 240, 2, 10, phrase.Technique{}}}, "none"},
		{"earlier than an eighth, held over", []note{{1679, 960, 2, 10, phrase.Technique{}}}, "none"},
		{"an approach is not the landing it leads to", []note{{1680, 240, 2, 9, phrase.Technique{}}, {1920, 240, 2, 10, phrase.Technique{}}}, "note 1 on: 3 chordTone"},
		{"a half step hammered on to the 3", []note{{1920, 120, 2, 9, phrase.Technique{}}, {2040, 480, 2, 10, phrase.Technique{HammerOn: true}}}, "note 1 on: 3 chordTone"},
		{"the same, picked: the note that is on it", []note{{1920, 120, 2, 9, phrase.Technique{}}, {2040, 480, 2, 10, phrase.Technique{}}}, "note 0 on: b3 blue"},
		{"a slide of a half step, begun early", []note{{1800, 180, 2, 9, phrase.Technique{}}, {1980, 480, 2, 10, phrase.Technique{SlideFrom: 9}}}, "note 1 early: 3 chordTone"},
		{"a whole step hammered on to the 3", []note{{1920, 120, 2, 8, phrase.Technique{}}, {2040, 480, 2, 10, phrase.Technique{HammerOn: true}}}, "note 1 on: 3 chordTone"},
		{"bent up to the 5", []note{{1920, 240, 2, 11, phrase.Technique{}}, {2160, 480, 2, 11, phrase.Technique{Bend: 4}}}, "note 1 on: 5 chordTone"},
		{"a chord tone slurred away from is the landing", []note{{1920, 120, 2, 10, phrase.Technique{}}, {2040, 480, 2, 11, phrase.Technique{HammerOn: true}}}, "note 0 on: 3 chordTone"},
		{"a grace note is part of the note it leads to", []note{{1920, 60, 2, 9, phrase.Technique{Grace: true}}, {1980, 480, 2, 10, phrase.Technique{}}}, "note 1 late: 3 chordTone"},
		{"nothing is played", nil, "none"},
	} {
		p := phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: phrasetest.ChordOf(t, "C7")}, {Tick: 1920, Chord: phrasetest.ChordOf(t, "F7")}}}
		for _, n := range c.notes {
			p.Events = append(p.Events, phrase.Event{Tick: n.tick, Ticks: n.ticks, Fingered: neck.Fingered{Place: neck.Place{String: n.str, Fret: n.fret}}, Technique: n.how})
		}
		l := Landings(p, phrasetest.Guitar, phrasetest.KeyOfC(t))[0]
		got := string(l.Timing)
		if l.Index >= 0 {
			got = fmt.Sprintf("note %d %s: %s %s", l.Index, l.Timing, l.Degree, l.Class)
		}
		assert.Equal(t, c.want, got, c.name)
	}
}

// A note that is pushed over a change belongs to the chord that arrives, in every figure.
func TestAPushBelongsToTheChordThatArrives(t *testing.T) {
	p := phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: phrasetest.ChordOf(t, "C7")}, {Tick: 1920, Chord: phrasetest.ChordOf(t, "F7")}}}
	push := phrase.Event{Tick: 1680, Ticks: 720, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 10}}} // A, outside nothing over F7
	p.Events = []phrase.Event{phrasetest.At(0, 3, 9), push}
	key := phrasetest.KeyOfC(t)
	v := Judge(p, phrasetest.Guitar, key, 100)
	assert.Equal(t, "F7", p.Labels(phrasetest.Guitar, key)[1].Chord.Symbol())
	assert.Equal(t, [][]int{{0}, {1}}, [][]int{v.Coverage[0].Notes, v.Coverage[1].Notes})
	assert.Equal(t, "3", v.Coverage[1].Got[0].Degree.String())
	implied := ImpliedHarmonies(p, phrasetest.Guitar, key, nil)
	assert.Equal(t, [][]int{{0}, {1}}, [][]int{implied[0].Notes, implied[1].Notes})
	p.Events[1].Ticks = 240
	assert.Equal(t, "C7", p.Labels(phrasetest.Guitar, key)[1].Chord.Symbol(), "one that has ended by then does not")
}
