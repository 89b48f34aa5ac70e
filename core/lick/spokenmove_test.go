package lick_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

func TestMovesInWords(t *testing.T) {
	for text, want := range map[string]struct {
		moves []lick.DegreeMove
		rest  string
	}{
		"slide from b7 to R":         {[]lick.DegreeMove{{Technique: "slide", From: pitch.MustDegree("b7"), To: pitch.MustDegree("R")}}, ""},
		"bend 4 to 5 turnaround":     {[]lick.DegreeMove{{Technique: "bend", From: pitch.MustDegree("4"), To: pitch.MustDegree("5")}}, "turnaround"},
		"hammer on from ♭3 to 3":     {[]lick.DegreeMove{{Technique: "hammer-on", From: pitch.MustDegree("b3"), To: pitch.MustDegree("3")}}, ""},
		"b7 to root":                 {[]lick.DegreeMove{{From: pitch.MustDegree("b7"), To: pitch.MustDegree("R")}}, ""},
		"slide into the turnaround":  {nil, "slide into the turnaround"},
		"from here to eternity":      {nil, "from here to eternity"},
		"slide from b7 to somewhere": {nil, "slide from b7 to somewhere"},
		"slow":                       {nil, "slow"},
		"":                           {nil, ""},
	} {
		moves, rest := lick.ReadMoves(text)
		assert.Equal(t, want.moves, moves, text)
		assert.Equal(t, want.rest, rest, text)
	}
}

// A lick is found by what its notes do, and not where they do something else.
func TestLicksAreFoundByTheirMoves(t *testing.T) {
	c := phrasetest.Song(t, "A", harmony.DominantMode, "A7")
	at := func(s, fret int) neck.Fingered { return neck.Fingered{Place: neck.Place{String: s, Fret: fret}} }
	p := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{
		{Tick: 0, Ticks: 480, Fingered: at(3, 7), Technique: phrase.Technique{Bend: 4}},
		{Tick: 480, Ticks: 480, Fingered: at(2, 10), Technique: phrase.Technique{SlideFrom: 8}},
		{Tick: 960, Ticks: 480, Fingered: at(2, 8)},
	}}.WithChordsOf(c, 0)
	l := lick.Lick{Name: "Ferry bell", Tonic: c.Key.Tonic, Phrase: p}
	require.NoError(t, l.Check())
	known := lick.NewIndex(neck.Standard(), c.Key, 100, []lick.Lick{l})
	for text, found := range map[string]int{
		"bend from 4 to 5": 1, "bend from 4 to b5": 0, "slide from b7 to R": 1, "slide from R to b7": 0, "R to b7": 1, "5 to R": 1, "hammer R to b7": 0,
		"bell": 1, "bell slide b7 to R": 1, "horn slide b7 to R": 0,
	} {
		assert.Len(t, known.Find(lick.Query{Text: text}), found, text)
	}
}

func TestTheEndsOfALick(t *testing.T) {
	c := phrasetest.Song(t, "A", harmony.DominantMode, "A7", "D7")
	at := func(s, fret int) neck.Fingered { return neck.Fingered{Place: neck.Place{String: s, Fret: fret}} }
	p := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{{Tick: 0, Ticks: 480, Fingered: at(3, 9)}, {Tick: 1920, Ticks: 480, Fingered: at(3, 7)}}}.WithChordsOf(c, 0)
	ends := lick.Lick{Tonic: c.Key.Tonic, Phrase: p}.Ends(neck.Standard(), c.Key)
	require.Len(t, ends, 2)
	assert.Equal(t, "your first note, E, is the 5 of A7", ends[0].Text)
	assert.Equal(t, "your last note, D, lies a fret above C#, the 3 of A7, which comes back, and two frets below E, its 5", ends[1].Text)
	assert.Equal(t, -1, ends[1].Near[0].HalfSteps)
}
