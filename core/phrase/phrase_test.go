package phrase_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

func TestCheckNamesTheNoteAndWhy(t *testing.T) {
	for want, events := range map[string][]phrase.Event{
		"": {phrasetest.At(0, 3, 8), phrasetest.At(1, 3, 10, phrasetest.HammerOn), phrasetest.At(2, 3, 8, phrasetest.PullOff), phrasetest.At(3, 3, 10, phrasetest.BentWhole), phrasetest.At(4, 2, 8, phrasetest.SlideFrom(7)), phrasetest.At(5, 2, 8, phrasetest.Tied)},
		"a phrase has 1 to 4096 notes; this has 0":                                     {},
		"note 1: string 7 is not on the instrument; its strings are 1 to 6":            {phrasetest.At(0, 7, 1)},
		"note 1: fret 23 is not on the neck; its frets are 0 to 22":                    {phrasetest.At(0, 1, 23)},
		"note 1: a note lasts at least one tick and at most 1048576":                   {phrasetest.At(0, 1, 2, func(e *phrase.Event) { e.Ticks = 0 })},
		"note 2: it starts before the note in front of it; notes are in order of time": {phrasetest.At(1, 1, 2), phrasetest.At(0, 2, 2)},
		"note 2: string 3 is still sounding note 1; one note at a time on a string":    {phrasetest.At(0, 3, 8, phrasetest.TooLong), phrasetest.At(2, 3, 10)},
		"note 1: an open string cannot be bent":                                        {phrasetest.At(0, 1, 0, phrasetest.BentWhole)},
		"note 1: a pre-bend or a release needs a bend":                                 {phrasetest.At(0, 1, 5, phrasetest.Released)},
		"note 1: a bend is 0 to 3 semitones":                                           {phrasetest.At(0, 1, 5, func(e *phrase.Event) { e.Bend = 7 })},
		"note 1: a slide goes from one fret to another, and not over an open string":   {phrasetest.At(0, 1, 0, phrasetest.SlideFrom(2))},
		"note 1: a hammer-on or pull-off needs a note before it on its string":         {phrasetest.At(0, 1, 5, phrasetest.HammerOn)},
		"note 2: a hammer-on goes up from the note before on its string":               {phrasetest.At(0, 1, 5), phrasetest.At(1, 1, 3, phrasetest.HammerOn)},
		"note 3: a hammer-on goes up from the note before on its string":               {phrasetest.At(0, 2, 5), phrasetest.At(1, 1, 5), phrasetest.At(2, 1, 5, phrasetest.HammerOn)},
		"note 3: a pull-off goes down from the note before on its string":              {phrasetest.At(0, 2, 5), phrasetest.At(1, 1, 5), phrasetest.At(2, 1, 5, phrasetest.PullOff)},
		"note 2: a pull-off goes down from the note before on its string":              {phrasetest.At(0, 1, 5), phrasetest.At(1, 1, 7, phrasetest.PullOff)},
		"note 2: a tie needs the same note right before it":                            {phrasetest.At(0, 1, 5), phrasetest.At(1, 1, 7, phrasetest.Tied)},
		"note 1: a slide out goes up or down, and not from an open string":             {phrasetest.At(0, 1, 0, func(e *phrase.Event) { e.SlideOut = 1 })},
		"note 1: finger 5 is not one; fingers are 1 to 4, and 0 where none is chosen":  {phrasetest.At(0, 1, 5, func(e *phrase.Event) { e.Finger = 5 })},
		"note 1: tick 33554432 is out of range":                                        {phrasetest.At(0, 1, 5, func(e *phrase.Event) { e.Tick = 1 << 25 })},
	} {
		err := phrase.Phrase{Meter: chart.FourFour, Events: events}.Check(phrasetest.Guitar)
		if want == "" {
			assert.NoError(t, err)
			continue
		}
		assert.EqualError(t, phrasetest.ErrorText(err), want)
	}
}

func TestLabelsFollowTheChordAndTheBend(t *testing.T) {
	p := phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{phrasetest.At(0, 3, 8), phrasetest.At(4, 3, 10, phrasetest.BentWhole), phrasetest.At(8, 3, 8), phrasetest.At(9, 2, 10)}}
	got := []string{}
	for _, label := range p.WithChordsOf(phrasetest.TwelveBar(t, "C"), 0).Labels(phrasetest.Guitar, harmony.Key{Mode: harmony.DominantMode}) {
		got = append(got, fmt.Sprintf("%s %s %s %s", label.Chord.Symbol(), label.Note, label.Degree, label.Class))
	}
	assert.Equal(t, []string{"C7 Eb b3 blue", "C7 G 5 chordTone", "F7 Eb b7 chordTone", "F7 A 3 chordTone"}, got)
}

func TestAPhraseOfFourFourInTwelveEight(t *testing.T) {
	p := phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{phrasetest.At(0, 3, 8), phrasetest.At(1, 3, 10), phrasetest.At(2, 2, 8), phrasetest.At(7, 2, 8)}}
	moved, err := p.InMeter(chart.TwelveEight)
	require.NoError(t, err)
	got := [][2]int{}
	for _, e := range moved.Events {
		got = append(got, [2]int{e.Tick, e.Ticks})
	}
	assert.Equal(t, [][2]int{{0, 480}, {480, 240}, {720, 480}, {2640, 240}}, got)
	assert.Equal(t, 1, moved.Bars())
	two, err := p.InMeter(chart.TwoFour)
	require.NoError(t, err)
	assert.Equal(t, p.Events, two.Events, "a bar of 4/4 is two of 2/4")
	assert.Equal(t, 2, two.Bars())
	_, err = p.InMeter(chart.ThreeFour)
	assert.EqualError(t, err, "a phrase in 4/4 cannot be played in 3/4")
}

func TestAPhraseKnowsWhatItWasWrittenOver(t *testing.T) {
	p := phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{phrasetest.At(-1, 3, 8), phrasetest.At(0, 3, 10), phrasetest.At(8, 3, 8)}}
	assert.Nil(t, p.Labels(phrasetest.Guitar, harmony.Key{}), "nothing is known yet")
	for start, want := range map[int]string{
		3 * 1920:  "C7@-1920 F7@1920", // bars 3 and 4 share their chord
		11 * 1920: "C7@-1920 G7@0 C7@1920",
		0:         "G7@-1920 C7@0 F7@1920",
	} {
		got := []string{}
		for _, from := range p.WithChordsOf(phrasetest.TwelveBar(t, "C"), start).Chords {
			got = append(got, fmt.Sprintf("%s@%d", from.Chord.Symbol(), from.Tick))
		}
		assert.Equal(t, want, strings.Join(got, " "), start)
	}
}
