package lick

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

func call() Lick {
	return Lick{Name: "Call", Tonic: pitch.Note{}, Phrase: phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{
		phrasetest.At(0, 3, 8), phrasetest.At(1, 3, 10, phrasetest.HammerOn), phrasetest.At(2, 2, 8), phrasetest.At(3, 2, 11), phrasetest.At(4, 2, 8, phrasetest.PullOff), phrasetest.At(5, 3, 10, phrasetest.BentWhole),
	}}}
}

func TestALickSlidesToTheSameFormInAnotherKey(t *testing.T) {
	for tonic, want := range map[string]string{
		"C": "3:8 3:10 2:8 2:11 2:8 3:10", "A": "3:5 3:7 2:5 2:8 2:5 3:7", "F#": "3:2 3:4 2:2 2:5 2:2 3:4",
	} {
		key := phrasetest.TwelveBar(t, tonic).Key.Tonic.Class()
		position, err := neck.FindPosition(phrasetest.Guitar, key, "E")
		require.NoError(t, err)
		setting, err := call().PlaceIn(phrasetest.Guitar, key, position.Window)
		require.NoError(t, err)
		assert.Equal(t, want, phrasetest.Places(setting.Phrase), tonic)
		assert.True(t, setting.Slid)
		assert.Empty(t, setting.Lost)
	}
}

func TestALickIsFingeredAnewInAnotherPosition(t *testing.T) {
	position, err := neck.FindPosition(phrasetest.Guitar, 0, "A-3")
	require.NoError(t, err)
	setting, err := call().PlaceIn(phrasetest.Guitar, 0, position.Window)
	require.NoError(t, err)
	assert.False(t, setting.Slid)
	assert.Equal(t, "2:4 2:6 1:3 1:6 1:3 2:6", phrasetest.Places(setting.Phrase), "the same pitches, two strings higher")
	assert.Zero(t, setting.Shift)
	assert.Empty(t, setting.Lost)
}

func TestASlurThatNoStringAllowsIsDroppedAndNamed(t *testing.T) {
	lick := Lick{Name: "Slur", Phrase: phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{phrasetest.At(0, 3, 8), phrasetest.At(1, 3, 12, phrasetest.HammerOn)}}}
	position, err := neck.FindPosition(phrasetest.Guitar, 0, "D-10")
	require.NoError(t, err)
	setting, err := lick.PlaceIn(phrasetest.Guitar, 0, position.Window)
	require.NoError(t, err)
	assert.Equal(t, "4:13 3:12", phrasetest.Places(setting.Phrase))
	assert.Equal(t, []string{"the hammer-on at note 2 needs one string, and here there are two: pick it"}, setting.Lost)
}

// Wherever a lick is set, no wide bend lies on the two low strings unless it was
// written there; each that is given up is named, and sounds the same pitch.
func TestAWideBendThatComesToLieLowIsPlayedAsItsGoal(t *testing.T) {
	given := 0
	for tonic := range pitch.Class(12) {
		for _, position := range neck.Positions(phrasetest.Guitar, tonic) {
			lick := Lick{Name: "Low", Phrase: phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{phrasetest.At(0, 1, 11), phrasetest.At(1, 3, 10, phrasetest.BentWhole), phrasetest.At(2, 4, 10)}}}
			setting, err := lick.PlaceIn(phrasetest.Guitar, tonic, position.Window)
			require.NoError(t, err)
			e := setting.Phrase.Events[1]
			assert.LessOrEqual(t, e.Bend, neck.MostBend(e.Place), position.ID())
			assert.Equal(t, 67+setting.Shift, int(e.Sounding(phrasetest.Guitar)))
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
	lick := Lick{Name: "Open", Phrase: phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{phrasetest.At(0, 3, 10, phrasetest.BentWhole), phrasetest.At(1, 1, 11)}}}
	key := phrasetest.TwelveBar(t, "D").Key.Tonic.Class()
	position, err := neck.FindPosition(phrasetest.Guitar, key, "D-0")
	require.NoError(t, err)
	setting, err := lick.PlaceIn(phrasetest.Guitar, key, position.Window)
	require.NoError(t, err)
	assert.Equal(t, "3:2 1:1", phrasetest.Places(setting.Phrase))
	assert.Equal(t, []string{"the bend at note 1 needs a fretted string, and here it would be open: leave it out"}, setting.Lost)
}

// Wherever a lick is set, it can be played, keeps its intervals over the tonic
// and stays in the window.
func TestSetKeepsTheIntervals(t *testing.T) {
	lick := call()
	rapid.Check(t, func(t *rapid.T) {
		tonic := pitch.Class(rapid.IntRange(0, 11).Draw(t, "tonic"))
		position := rapid.SampledFrom(neck.Positions(phrasetest.Guitar, tonic)).Draw(t, "position")
		setting, err := lick.PlaceIn(phrasetest.Guitar, tonic, position.Window)
		require.NoError(t, err)
		require.NoError(t, setting.Phrase.Check(phrasetest.Guitar))
		for n, e := range setting.Phrase.Events {
			was := lick.Phrase.Events[n]
			assert.Equal(t, int(was.Sounding(phrasetest.Guitar))+setting.Shift, int(e.Sounding(phrasetest.Guitar)))
			assert.GreaterOrEqual(t, e.Fret, position.Low)
			assert.LessOrEqual(t, e.Fret, position.High)
		}
		assert.Equal(t, tonic, pitch.ClassOf(setting.Shift))
	})
}

func TestALickTooWideForAnyWindow(t *testing.T) {
	lick := Lick{Name: "Wide", Phrase: phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{phrasetest.At(0, 6, 0), phrasetest.At(1, 1, 20)}}}
	_, err := lick.PlaceIn(phrasetest.Guitar, 0, neck.Positions(phrasetest.Guitar, 0)[1].Window)
	assert.EqualError(t, err, `"Wide" does not fit on frets 2 to 7 in any octave`)
}

func TestALicksOwnChart(t *testing.T) {
	c, start := overTwo(t).ToChart(96, chart.Shuffle, 2)
	require.NoError(t, c.Check())
	assert.Equal(t, 1920, start, "a bar for the pickup")
	symbols := []string{}
	for _, bar := range c.Bars {
		symbols = append(symbols, chart.Text(bar.Spans))
	}
	assert.Equal(t, "C7 | C7 | F7", strings.Join(symbols, " | "))
	plain := overC7(t)
	plain.Phrase.Chords = nil
	c, start = plain.ToChart(96, chart.Straight, 2)
	assert.Equal(t, "C7", chart.Text(c.Bars[0].Spans))
	assert.Zero(t, start)
	halves := overC7(t)
	halves.Phrase.Chords = append(halves.Phrase.Chords, phrase.PhraseChord{Tick: 960, Chord: phrasetest.ChordOf(t, "A7")})
	c, _ = halves.ToChart(96, chart.Straight, 2)
	assert.Equal(t, "C7 A7", chart.Text(c.Bars[0].Spans))
	minor := overC7(t)
	minor.Phrase.Chords[0].Chord = phrasetest.ChordOf(t, "Cm7")
	assert.Equal(t, harmony.MinorMode, minor.Key().Mode)
	minor.Phrase.Chords[0].Chord = phrasetest.ChordOf(t, "Cmaj7")
	assert.Equal(t, harmony.MajorMode, minor.Key().Mode)
}

func TestLimitsOfALick(t *testing.T) {
	for want, spoil := range map[string]func(*Lick){
		"name: a lick's name has 1 to 60 characters":                         func(l *Lick) { l.Name = "" },
		"about: what a lick is about has at most 200 characters":             func(l *Lick) { l.About = strings.Repeat("x", 201) },
		"tags[0]: a tag has 1 to 24 characters in one line, without a comma": func(l *Lick) { l.Tags = []string{"a,b"} },
		"tags: at most 12 tags are kept":                                     func(l *Lick) { l.Tags = make([]string, 13) },
		"tonic: Fbb is not a tonic; a tonic has at most one b or #":          func(l *Lick) { l.Tonic = pitch.Note{Letter: 3, Accidental: -2} },
		"note 1: it begins more than 4 bars before bar 1":                    func(l *Lick) { l.Phrase.Events[0].Tick = -4*1920 - 1 },
		"note 7: it goes on past bar 64, where a lick ends at the latest":    func(l *Lick) { l.Phrase.Events[6].Tick = 64*1920 - 239 },
		"a phrase has 1 to 4096 notes; this has 0":                           func(l *Lick) { l.Phrase.Events = nil },
		"chord 1 is outside the 64 bars a lick may have":                     func(l *Lick) { l.Phrase.Chords[0].Tick = 1 << 20 },
	} {
		l := overC7(t)
		require.NoError(t, l.Check())
		spoil(&l)
		err := l.Check()
		if e, ok := err.(*phrase.EventError); ok && (e.Field == "events" || e.Field == "chords") {
			assert.Equal(t, want, e.Detail)
			continue
		}
		assert.EqualError(t, err, want)
	}
	empty := overC7(t)
	empty.Phrase.Events = nil
	assert.NoError(t, empty.CheckSoFar(), "it may be written from nothing")
}

// overTwo is a lick that leads over a change: the box over C7, and the 3 of F7.
func overTwo(t testing.TB) Lick {
	return Lick{Name: "Over two", About: "From the box into A.", Tags: []string{"change", "box"}, Tonic: phrasetest.KeyOfC(t).Tonic, Phrase: phrase.Phrase{
		Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: phrasetest.ChordOf(t, "C7")}, {Tick: 1920, Chord: phrasetest.ChordOf(t, "F7")}},
		Events: []phrase.Event{
			phrasetest.At(-1, 3, 8), phrasetest.At(0, 3, 10, phrasetest.HammerOn), phrasetest.At(2, 2, 8), phrasetest.At(3, 2, 11, phrasetest.BentWhole), phrasetest.At(6, 2, 8), phrasetest.At(7, 2, 9), phrasetest.At(8, 2, 10, phrasetest.SlideFrom(9)), phrasetest.At(12, 2, 8, phrasetest.Lasting(960)),
		},
	}}
}

// overC7 is a lick of the first box: the blue 3, the 4 bent to the 5, the b7, and home.
func overC7(t testing.TB) Lick {
	return Lick{Name: "Over C7", Tonic: pitch.Note{Letter: 0}, Phrase: phrasetest.OverC7(t)}
}
