package lick

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

func moves(t testing.TB, l Lick, chord string) []Move {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	p, err := neck.FindPosition(phrasetest.Guitar, 0, "E")
	require.NoError(t, err)
	return l.MovesTo(phrasetest.Guitar, p.Window, key, phrasetest.ChordOf(t, chord))
}

func wayOut(t testing.TB, m Move) string {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	notes := []string{}
	for n, label := range m.Phrase.Labels(phrasetest.Guitar, key) {
		e := m.Phrase.Events[n]
		note := fmt.Sprintf("%d:%d", e.String, e.Fret)
		if e.Bend > 0 {
			note += fmt.Sprintf("+%d", e.Bend/2)
		}
		notes = append(notes, note+" "+label.Degree.String())
	}
	return m.Text() + ": " + strings.Join(notes, ", ")
}

func TestALickMovedThreeWays(t *testing.T) {
	for chord, want := range map[string][3]string{
		"F7": {
			"frets 13 to 16, 49 mm, +5 half steps: 3:13 b3, 3:15+2 5, 2:13 5, 2:16 b7, 2:13 5, 3:14 3, 4:15 R",
			"frets 8 to 11, 65 mm, +5 half steps: 2:9 b3, 2:11+2 5, 1:8 5, 1:11 b7, 1:8 5, 2:10 3, 3:10 R",
			"frets 8 to 11, 65 mm, 0 changed: 3:8 b7, 3:10+2 9, 2:8 9, 2:11 11, 2:8 9, 3:9 7, 4:10 5",
		},
		"G7": {
			"frets 3 to 6, 87 mm, -5 half steps: 3:3 b3, 3:5+2 5, 2:3 5, 2:6 b7, 2:3 5, 3:4 3, 4:5 R",
			"frets 7 to 10, 69 mm, -5 half steps: 4:8 b3, 4:10+2 5, 3:7 5, 3:10 b7, 3:7 5, 4:9 3, 5:10 R",
			"frets 7 to 11, 89 mm, 2 changed: 3:7 5, 3:10+2 R, 2:8 R, 2:11 b3, 2:8 R, 3:9 13, 4:9 3",
		},
		"C7": {
			"frets 8 to 11, 65 mm: 3:8 b3, 3:10+2 5, 2:8 5, 2:11 b7, 2:8 5, 3:9 3, 4:10 R",
			"frets 8 to 11, 65 mm: 3:8 b3, 3:10+2 5, 2:8 5, 2:11 b7, 2:8 5, 3:9 3, 4:10 R",
			"frets 8 to 11, 65 mm, 0 changed: 3:8 b3, 3:10+2 5, 2:8 5, 2:11 b7, 2:8 5, 3:9 3, 4:10 R",
		},
	} {
		for n, m := range moves(t, overC7(t), chord) {
			assert.Equal(t, want[n], wayOut(t, m), "%s by %s", chord, m.Method)
		}
	}
	kept := moves(t, overC7(t), "G7")[2]
	require.Len(t, kept.Altered, 2, "what is on a strong beat, and what is rested on")
	assert.Equal(t, "note 1: Eb, the b13, becomes D, the 5 of G7: fret 7 instead of 8", kept.Altered[0].Text)
	assert.Equal(t, -1, kept.Altered[0].Semitones)
	stayed := moves(t, overC7(t), "Am7")[1]
	assert.Equal(t, []string{"the pull-off at note 5 needs one string, and here there are two: pick it"}, stayed.Lost)
}

// In another key a lick is moved from where it lies there, over its own chord there.
func TestALickIsSetIntoTheKeyFirst(t *testing.T) {
	key, err := harmony.ParseKey("Ab", harmony.DominantMode)
	require.NoError(t, err)
	p, err := neck.FindPosition(phrasetest.Guitar, key.Tonic.Class(), "E")
	require.NoError(t, err)
	set, err := overC7(t).TransposedTo(phrasetest.Guitar, key.Tonic, p.Window)
	require.NoError(t, err)
	assert.Equal(t, "Ab7", set.Phrase.Chords[0].Chord.Symbol())
	assert.Equal(t, neck.Place{String: 3, Fret: 4}, set.Phrase.Events[0].Place)
	home := set.MovesTo(phrasetest.Guitar, p.Window, key, phrasetest.ChordOf(t, "Ab7"))
	assert.Zero(t, home[0].Shift)
	assert.Empty(t, home[2].Altered)
	over := set.MovesTo(phrasetest.Guitar, p.Window, key, phrasetest.ChordOf(t, "Eb7"))
	assert.Len(t, over[2].Altered, 2, "as G7 asks of it in C")
	far := overC7(t)
	far.Phrase.Events = []phrase.Event{phrasetest.At(0, 6, 1), phrasetest.At(1, 1, 20)}
	_, err = far.TransposedTo(phrasetest.Guitar, key.Tonic, p.Window)
	var noRoom *NoRoomError
	assert.ErrorAs(t, err, &noRoom, "no position has room for it")
}

func TestALongNameMakesRoom(t *testing.T) {
	l := Lick{Name: strings.Repeat("é", MaxName)}.WithSuffix(", repaired")
	assert.Equal(t, strings.Repeat("é", MaxName-10)+", repaired", l.Name)
	assert.Equal(t, "Short, repaired", Lick{Name: "Short"}.WithSuffix(", repaired").Name)
	c := phrasetest.ChordOf(t, "F7")
	assert.Equal(t, []phrase.PhraseChord{{Chord: c}}, phrase.Phrase{}.WithDefaultChord(c).Chords)
	own := overC7(t).Phrase
	assert.Equal(t, own.Chords, own.WithDefaultChord(c).Chords)
}

// A bend is bent differently before the hand moves.
func TestABendIsBentDifferently(t *testing.T) {
	l := overC7(t)
	l.Phrase.Events = []phrase.Event{phrasetest.At(0, 3, 8, func(e *phrase.Event) { e.Bend = 2 }), phrasetest.At(1, 3, 10, phrasetest.BentWhole)}
	kept := moves(t, l, "F7")[2]
	assert.Equal(t, "3:8 b7, 3:10+2 9", strings.SplitN(wayOut(t, kept), ": ", 2)[1], "E, the 7, is not bent to; the G of the other is a colour")
	assert.Equal(t, "note 1: E, the 7, becomes Eb, the b7 of F7: no bend", kept.Altered[0].Text)
}

func TestMovesThatCannotBe(t *testing.T) {
	l := overC7(t)
	l.Phrase.Events = []phrase.Event{phrasetest.At(0, 1, 0), phrasetest.At(1, 1, 3)}
	slid := moves(t, l, "F7")[0]
	assert.Equal(t, "it uses an open string, which cannot be slid along", slid.Refused)
	assert.Empty(t, slid.Phrase.Events)
	l.Phrase.Events = []phrase.Event{phrasetest.At(0, 6, 1), phrasetest.At(1, 1, 20)}
	assert.Equal(t, "no 5 frets up or down keep it on the neck", moves(t, l, "F7")[0].Refused)
	assert.Equal(t, `"Over C7" does not fit on frets 6 to 11 in any octave`, moves(t, l, "F7")[1].Refused)
	open := neck.Presets()[3]
	require.Equal(t, "open G", open.Name)
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	ways := overC7(t).MovesTo(open, open.WindowFrom(8), key, phrasetest.ChordOf(t, "F7"))
	assert.Equal(t, "it was written for strings tuned otherwise", ways[0].Refused)
	fits := 0
	for core := range 12 {
		if overC7(t).MovesTo(open, open.WindowFrom(core), key, phrasetest.ChordOf(t, "F7"))[1].Refused == "" {
			fits++
		}
	}
	assert.Positive(t, fits, "the sound can be had on other strings")
	assert.Equal(t, "it was written for strings tuned otherwise", ways[2].Refused)
}

// Over any chord: a slid shape keeps strings and distances, a lick that stays keeps
// every interval over the root, and one that keeps its frets moves no note that was
// home or colour, brings every other there, and by no more than it must.
func TestMovesHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := drawnLick(t)
		mode := rapid.SampledFrom(harmony.Modes).Draw(t, "mode")
		key, err := harmony.ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(t, "tonic"), mode)
		require.NoError(t, err)
		c, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
		require.NoError(t, err)
		w := rapid.SampledFrom(neck.Positions(phrasetest.Guitar, key.Tonic.Class())).Draw(t, "position").Window
		for _, m := range l.MovesTo(phrasetest.Guitar, w, key, c) {
			if m.Refused != "" {
				assert.Empty(t, m.Phrase.Events)
				continue
			}
			require.NoError(t, m.Phrase.Check(phrasetest.Guitar))
			require.Len(t, m.Phrase.Events, len(l.Phrase.Events))
			altered := map[int]int{}
			for _, a := range m.Altered {
				altered[a.Index] = a.Semitones
			}
			for n, e := range m.Phrase.Events {
				was := l.Phrase.Events[n]
				assert.Equal(t, was.Tick, e.Tick)
				sounded, sounds := was.Sounding(phrasetest.Guitar), e.Sounding(phrasetest.Guitar)
				switch m.Method {
				case SlideShape:
					assert.Equal(t, was.String, e.String)
					assert.Equal(t, m.Shift, e.Fret-was.Fret)
					assert.Equal(t, c.Root.Class().Above(l.Root()), ((m.Shift%12)+12)%12)
				case StayInPosition:
					assert.Equal(t, sounded.Class().Above(l.Root()), sounds.Class().Above(c.Root.Class()), "the interval over the root")
					assert.True(t, e.Fret >= w.Low && e.Fret <= w.High)
				case KeepFrets:
					by, changed := altered[n]
					assert.Equal(t, by, int(sounds-sounded))
					if phrase.MayRestOn(key, c, sounded.Class()) || !changed {
						assert.False(t, changed)
						continue
					}
					assert.True(t, phrase.MayRestOn(key, c, sounds.Class()), "what clashed rests now")
					for less := 1; less < max(by, -by); less++ {
						for _, step := range []int{-less, less} {
							if phrase.MayRestOn(key, c, pitch.ClassOf(int(sounded)+step)) {
								_, ok := alteredBy(was, step)
								assert.False(t, ok, "%d half steps would have done", step)
							}
						}
					}
				}
			}
		}
	})
}

// alteredBy says plainly whether a note's sound can be had so many half steps off on
// its string: bent otherwise, or at another fret.
func alteredBy(e phrase.Event, by int) (phrase.Event, bool) {
	if e.Bend > 0 && e.Bend+2*by >= 0 && e.Bend+2*by <= neck.MostBend(e.Place) {
		return e, true
	}
	e.Fret += by
	return e, phrasetest.Guitar.Has(e.Place) && (e.Fret > 0 || e.Bend == 0) && e.Bend <= neck.MostBend(e.Place)
}

func drawnLick(t *rapid.T) Lick {
	p := phrasetest.DrawnOverSeventh(t)
	return Lick{Name: "any", Tonic: p.Chords[0].Chord.Root, Phrase: p}
}

// A lick of seven notes over the three chords of a twelve-bar, by all three ways.
func BenchmarkMovingALick(b *testing.B) {
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(b, err)
	p, err := neck.FindPosition(phrasetest.Guitar, 0, "E")
	require.NoError(b, err)
	l, chords := overC7(b), []harmony.Chord{phrasetest.ChordOf(b, "C7"), phrasetest.ChordOf(b, "F7"), phrasetest.ChordOf(b, "G7")}
	b.ReportAllocs()
	for b.Loop() {
		for _, c := range chords {
			l.MovesTo(phrasetest.Guitar, p.Window, key, c)
		}
	}
}
