package phrase

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

var guitar = neck.Standard()

// at is an eighth on a string and fret, the nth of its bar.
func at(n, s, fret int, with ...func(*Event)) Event {
	e := Event{Tick: n * 240, Ticks: 240, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: fret}}}
	for _, f := range with {
		f(&e)
	}
	return e
}

func hammer(e *Event)  { e.HammerOn = true }
func pull(e *Event)    { e.PullOff = true }
func bent(e *Event)    { e.Bend = 4 }
func tied(e *Event)    { e.Tied = true }
func long(e *Event)    { e.Ticks = 481 }
func release(e *Event) { e.Release = true }
func slide(from int) func(*Event) {
	return func(e *Event) { e.SlideFrom = from }
}

func TestCheckNamesTheNoteAndWhy(t *testing.T) {
	for want, events := range map[string][]Event{
		"": {at(0, 3, 8), at(1, 3, 10, hammer), at(2, 3, 8, pull), at(3, 3, 10, bent), at(4, 2, 8, slide(7)), at(5, 2, 8, tied)},
		"a phrase has 1 to 4096 notes; this has 0":                                     {},
		"note 1: string 7 is not on the instrument; its strings are 1 to 6":            {at(0, 7, 1)},
		"note 1: fret 23 is not on the neck; its frets are 0 to 22":                    {at(0, 1, 23)},
		"note 1: a note lasts at least one tick and at most 1048576":                   {at(0, 1, 2, func(e *Event) { e.Ticks = 0 })},
		"note 2: it starts before the note in front of it; notes are in order of time": {at(1, 1, 2), at(0, 2, 2)},
		"note 2: string 3 is still sounding note 1; one note at a time on a string":    {at(0, 3, 8, long), at(2, 3, 10)},
		"note 1: an open string cannot be bent":                                        {at(0, 1, 0, bent)},
		"note 1: a pre-bend or a release needs a bend":                                 {at(0, 1, 5, release)},
		"note 1: a bend is 0 to 3 semitones":                                           {at(0, 1, 5, func(e *Event) { e.Bend = 7 })},
		"note 1: a slide goes from one fret to another, and not over an open string":   {at(0, 1, 0, slide(2))},
		"note 1: a hammer-on or pull-off needs a note before it on its string":         {at(0, 1, 5, hammer)},
		"note 2: a hammer-on goes up from the note before on its string":               {at(0, 1, 5), at(1, 1, 3, hammer)},
		"note 2: a pull-off goes down from the note before on its string":              {at(0, 1, 5), at(1, 1, 7, pull)},
		"note 2: a tie needs the same note right before it":                            {at(0, 1, 5), at(1, 1, 7, tied)},
		"note 1: a slide out goes up or down, and not from an open string":             {at(0, 1, 0, func(e *Event) { e.SlideOut = 1 })},
		"note 1: finger 5 is not one; fingers are 1 to 4, and 0 where none is chosen":  {at(0, 1, 5, func(e *Event) { e.Finger = 5 })},
		"note 1: tick 33554432 is out of range":                                        {at(0, 1, 5, func(e *Event) { e.Tick = 1 << 25 })},
	} {
		err := Phrase{Meter: chart.FourFour, Events: events}.Check(guitar)
		if want == "" {
			assert.NoError(t, err)
			continue
		}
		assert.EqualError(t, errOf(err), want)
	}
}

// errOf writes an error about the whole phrase without a note's number.
func errOf(err error) error {
	if e, ok := err.(*EventError); ok && e.Field == "events" {
		return fmt.Errorf("%s", e.Detail)
	}
	return err
}

func twelveBar(t testing.TB, tonic string) chart.Chart {
	t.Helper()
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	return chart.Chart{Title: "A test", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
}

func TestLabelsFollowTheChordAndTheBend(t *testing.T) {
	p := Phrase{Meter: chart.FourFour, Events: []Event{at(0, 3, 8), at(4, 3, 10, bent), at(8, 3, 8), at(9, 2, 10)}}
	got := []string{}
	for _, label := range p.WithChordsOf(twelveBar(t, "C"), 0).Labels(guitar, harmony.Key{Mode: harmony.DominantMode}) {
		got = append(got, fmt.Sprintf("%s %s %s %s", label.Chord.Symbol(), label.Note, label.Degree, label.Class))
	}
	assert.Equal(t, []string{"C7 Eb b3 blue", "C7 G 5 home", "F7 Eb b7 home", "F7 A 3 home"}, got)
}

func TestAPhraseOfFourFourInTwelveEight(t *testing.T) {
	p := Phrase{Meter: chart.FourFour, Events: []Event{at(0, 3, 8), at(1, 3, 10), at(2, 2, 8), at(7, 2, 8)}}
	moved, err := p.InMeter(chart.TwelveEight)
	require.NoError(t, err)
	got := [][2]int{}
	for _, e := range moved.Events {
		got = append(got, [2]int{e.Tick, e.Ticks})
	}
	assert.Equal(t, [][2]int{{0, 480}, {480, 240}, {720, 480}, {2640, 240}}, got)
	assert.Equal(t, 1, moved.Bars())
	_, err = p.InMeter(chart.ThreeFour)
	assert.EqualError(t, err, "a phrase in 4/4 cannot be played in 3/4")
}

func TestAPhraseKnowsWhatItWasWrittenOver(t *testing.T) {
	p := Phrase{Meter: chart.FourFour, Events: []Event{at(-1, 3, 8), at(0, 3, 10), at(8, 3, 8)}}
	assert.Nil(t, p.Labels(guitar, harmony.Key{}), "nothing is known yet")
	for start, want := range map[int]string{
		3 * 1920:  "C7@-1920 F7@1920", // bars 3 and 4 share their chord
		11 * 1920: "C7@-1920 G7@0 C7@1920",
		0:         "G7@-1920 C7@0 F7@1920",
	} {
		got := []string{}
		for _, from := range p.WithChordsOf(twelveBar(t, "C"), start).Chords {
			got = append(got, fmt.Sprintf("%s@%d", from.Chord.Symbol(), from.Tick))
		}
		assert.Equal(t, want, strings.Join(got, " "), start)
	}
}

func call() Lick {
	return Lick{Name: "Call", Tonic: pitch.Note{}, Phrase: Phrase{Meter: chart.FourFour, Events: []Event{
		at(0, 3, 8), at(1, 3, 10, hammer), at(2, 2, 8), at(3, 2, 11), at(4, 2, 8, pull), at(5, 3, 10, bent),
	}}}
}

func places(p Phrase) string {
	all := []string{}
	for _, e := range p.Events {
		all = append(all, fmt.Sprintf("%d:%d", e.String, e.Fret))
	}
	return strings.Join(all, " ")
}

func TestALickSlidesToTheSameFormInAnotherKey(t *testing.T) {
	for tonic, want := range map[string]string{
		"C": "3:8 3:10 2:8 2:11 2:8 3:10", "A": "3:5 3:7 2:5 2:8 2:5 3:7", "F#": "3:2 3:4 2:2 2:5 2:2 3:4",
	} {
		key := twelveBar(t, tonic).Key.Tonic.Class()
		position, err := neck.FindPosition(guitar, key, "E")
		require.NoError(t, err)
		setting, err := call().PlaceIn(guitar, key, position.Window)
		require.NoError(t, err)
		assert.Equal(t, want, places(setting.Phrase), tonic)
		assert.True(t, setting.Slid)
		assert.Empty(t, setting.Lost)
	}
}

func TestALickIsFingeredAnewInAnotherPosition(t *testing.T) {
	position, err := neck.FindPosition(guitar, 0, "A-3")
	require.NoError(t, err)
	setting, err := call().PlaceIn(guitar, 0, position.Window)
	require.NoError(t, err)
	assert.False(t, setting.Slid)
	assert.Equal(t, "2:4 2:6 1:3 1:6 1:3 2:6", places(setting.Phrase), "the same pitches, two strings higher")
	assert.Zero(t, setting.Shift)
	assert.Empty(t, setting.Lost)
}

func TestASlurThatNoStringAllowsIsDroppedAndNamed(t *testing.T) {
	lick := Lick{Name: "Slur", Phrase: Phrase{Meter: chart.FourFour, Events: []Event{at(0, 3, 8), at(1, 3, 12, hammer)}}}
	position, err := neck.FindPosition(guitar, 0, "D-10")
	require.NoError(t, err)
	setting, err := lick.PlaceIn(guitar, 0, position.Window)
	require.NoError(t, err)
	assert.Equal(t, "4:13 3:12", places(setting.Phrase))
	assert.Equal(t, []string{"the hammer-on at note 2 needs one string, and here there are two: pick it"}, setting.Lost)
}

// Wherever a lick is set, no wide bend lies on the two low strings unless it was
// written there; each that is given up is named, and sounds the same pitch.
func TestAWideBendThatComesToLieLowIsPlayedAsItsGoal(t *testing.T) {
	given := 0
	for tonic := range pitch.Class(12) {
		for _, position := range neck.Positions(guitar, tonic) {
			lick := Lick{Name: "Low", Phrase: Phrase{Meter: chart.FourFour, Events: []Event{at(0, 1, 11), at(1, 3, 10, bent), at(2, 4, 10)}}}
			setting, err := lick.PlaceIn(guitar, tonic, position.Window)
			require.NoError(t, err)
			e := setting.Phrase.Events[1]
			assert.LessOrEqual(t, e.Bend, neck.MostBend(e.Place), position.ID())
			assert.Equal(t, 67+setting.Shift, int(e.Sounding(guitar)))
			for _, lost := range setting.Lost {
				if lost == "the bend at note 2 would lie on a low string: play the note it is bent to" {
					given++
				}
			}
		}
	}
	assert.Positive(t, given)
}

func TestABendThatWouldNeedAnOpenStringIsPlayedAsItsGoal(t *testing.T) {
	lick := Lick{Name: "Open", Phrase: Phrase{Meter: chart.FourFour, Events: []Event{at(0, 3, 10, bent), at(1, 1, 11)}}}
	key := twelveBar(t, "D").Key.Tonic.Class()
	position, err := neck.FindPosition(guitar, key, "D-0")
	require.NoError(t, err)
	setting, err := lick.PlaceIn(guitar, key, position.Window)
	require.NoError(t, err)
	assert.Equal(t, "3:2 1:1", places(setting.Phrase))
	assert.Equal(t, []string{"the bend at note 1 needs a fretted string, and here it would be open: leave it out"}, setting.Lost)
}

// Wherever a lick is set, it can be played, keeps its intervals over the tonic
// and stays in the window.
func TestSetKeepsTheIntervals(t *testing.T) {
	lick := call()
	rapid.Check(t, func(t *rapid.T) {
		tonic := pitch.Class(rapid.IntRange(0, 11).Draw(t, "tonic"))
		position := rapid.SampledFrom(neck.Positions(guitar, tonic)).Draw(t, "position")
		setting, err := lick.PlaceIn(guitar, tonic, position.Window)
		require.NoError(t, err)
		require.NoError(t, setting.Phrase.Check(guitar))
		for n, e := range setting.Phrase.Events {
			was := lick.Phrase.Events[n]
			assert.Equal(t, int(was.Sounding(guitar))+setting.Shift, int(e.Sounding(guitar)))
			assert.GreaterOrEqual(t, e.Fret, position.Low)
			assert.LessOrEqual(t, e.Fret, position.High)
		}
		assert.Equal(t, tonic, pitch.ClassOf(setting.Shift))
	})
}

func TestALickTooWideForAnyWindow(t *testing.T) {
	lick := Lick{Name: "Wide", Phrase: Phrase{Meter: chart.FourFour, Events: []Event{at(0, 6, 0), at(1, 1, 20)}}}
	_, err := lick.PlaceIn(guitar, 0, neck.Positions(guitar, 0)[1].Window)
	assert.EqualError(t, err, `"Wide" does not fit on frets 2 to 7 in any octave`)
}
