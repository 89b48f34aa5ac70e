package phrase_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

func edited(t *testing.T, p phrase.Phrase, e phrase.Edit) (phrase.Phrase, string) {
	t.Helper()
	out, remarks, err := p.Apply(phrasetest.Guitar, e)
	require.NoError(t, err)
	return out, strings.Join(remarks, "; ")
}

func TestNotesAreWrittenInOneVoice(t *testing.T) {
	p := phrase.Phrase{Meter: chart.FourFour}
	for _, step := range []struct {
		edit phrase.Edit
		want string
		said string
	}{
		{phrase.Edit{Kind: phrase.Put, From: 0, String: 3, Fret: 8, Ticks: 480}, "0+480 3:8", ""},
		{phrase.Edit{Kind: phrase.Put, From: 240, String: 2, Fret: 8, Ticks: 480}, "0+240 3:8, 240+480 2:8", ""},
		{phrase.Edit{Kind: phrase.Put, From: 240, String: 1, Fret: 8, Ticks: 480}, "0+240 3:8, 240+480 2:8, 240+480 1:8", ""},
		{phrase.Edit{Kind: phrase.Put, From: 0, String: 3, Fret: 10, Ticks: 60}, "0+240 3:10, 240+480 2:8, 240+480 1:8", ""},
		{phrase.Edit{Kind: phrase.Put, From: -240, String: 3, Fret: 8, Ticks: 960}, "-240+240 3:8, 0+240 3:10, 240+480 2:8, 240+480 1:8", ""},
		{phrase.Edit{Kind: phrase.SetTechnique, From: 0, To: 1, Technique: "hammer-on", Value: 1}, "-240+240 3:8, 0+240 3:10 hammered on, 240+480 2:8, 240+480 1:8", ""},
		{phrase.Edit{Kind: phrase.Put, From: 0, String: 3, Fret: 7}, "-240+240 3:8, 0+240 3:7, 240+480 2:8, 240+480 1:8", "the hammer-on at note 2 no longer fits: pick it"},
		{phrase.Edit{Kind: phrase.Clear, From: 240, To: 241, String: 2}, "-240+240 3:8, 0+240 3:7, 240+480 1:8", ""},
		{phrase.Edit{Kind: phrase.SetLength, From: 0, To: 1, Ticks: 480}, "-240+240 3:8, 0+480 3:7, 240+480 1:8", "note 2 rings on over the next one"},
		{phrase.Edit{Kind: phrase.InsertTime, From: 240, Ticks: 120}, "-240+240 3:8, 0+240 3:7, 360+480 1:8", ""},
		{phrase.Edit{Kind: phrase.RemoveTime, From: 0, To: 120}, "-240+240 3:8, 240+480 1:8", ""},
		{phrase.Edit{Kind: phrase.Shift, From: 0, To: 960, By: 80}, "-240+240 3:8, 320+480 1:8", ""},
		{phrase.Edit{Kind: phrase.Transpose, From: 0, To: 960, By: 3}, "-240+240 3:8, 320+480 1:11", ""},
		{phrase.Edit{Kind: phrase.MoveString, From: 0, To: 960, By: 1}, "-240+240 3:8, 320+480 2:16", ""},
		{phrase.Edit{Kind: phrase.Repeat, From: -240, To: 0}, "-240+240 3:8, 0+240 3:8, 560+480 2:16", ""},
		{phrase.Edit{Kind: phrase.Paste, From: 500, Events: []phrase.Event{phrasetest.At(0, 1, 5), phrasetest.At(1, 1, 7, phrasetest.HammerOn)}}, "-240+240 3:8, 0+240 3:8, 500+240 1:5, 740+240 1:7 hammered on", ""},
		{phrase.Edit{Kind: phrase.Put, From: 760, String: 1, Fret: 8, Ticks: 240}, "-240+240 3:8, 0+240 3:8, 500+240 1:5, 740+20 1:7 hammered on, 760+240 1:8", ""},
	} {
		var remarks string
		p, remarks = edited(t, p, step.edit)
		assert.Equal(t, step.want, phrasetest.Text(p), "%+v", step.edit)
		assert.Equal(t, step.said, remarks, "%+v", step.edit)
	}
}

func TestEveryTechniqueIsSetAndTakenAway(t *testing.T) {
	p := phrasetest.FourFour(phrasetest.At(0, 3, 8), phrasetest.At(1, 3, 10), phrasetest.At(2, 3, 8), phrasetest.At(3, 3, 8))
	for _, one := range []struct {
		from  int
		name  string
		value int
		want  string
	}{
		{240, "hammer-on", 1, "hammered on"}, {240, "slide", 1, "slid from fret 8"}, {480, "pull-off", 1, "pulled off"}, {480, "slide", -1, "slid from fret 10"},
		{0, "slide", 1, "slid from fret 6"}, {0, "slide", -1, "slid from fret 10"}, {240, "bend", 4, "bent a whole step"}, {240, "bend", 1, "bent a quarter tone"},
		{720, "tie", 1, "tied"}, {0, "vibrato", 1, "with vibrato"}, {0, "mute", 1, "muted"}, {0, "accent", 1, "accented"}, {0, "staccato", 1, "short"},
		{0, "slide out", 1, "slid away upwards"}, {0, "slide out", -1, "slid away downwards"},
	} {
		played, _ := edited(t, p, phrase.Edit{Kind: phrase.SetTechnique, From: one.from, To: one.from + 1, Technique: one.name, Value: one.value})
		assert.Contains(t, phrasetest.Text(played), one.want)
		assert.True(t, played.Events[one.from/240].Uses(one.name))
		plain, _ := edited(t, played, phrase.Edit{Kind: phrase.SetTechnique, From: one.from, To: one.from + 1, Technique: one.name})
		assert.Equal(t, phrasetest.Text(p), phrasetest.Text(plain), one.name)
	}
	bentUp, _ := edited(t, p, phrase.Edit{Kind: phrase.SetTechnique, From: 240, To: 241, Technique: "bend", Value: 4})
	for name, want := range map[string]string{"pre-bend": "240+240 3:10 bent beforehand a whole step", "release": "240+240 3:10 bent a whole step released"} {
		played, _ := edited(t, bentUp, phrase.Edit{Kind: phrase.SetTechnique, From: 240, To: 241, Technique: name, Value: 1})
		assert.Contains(t, phrasetest.Text(played), want)
	}
	for _, name := range phrase.Techniques {
		assert.False(t, phrase.Technique{}.Uses(name), name)
	}
	assert.False(t, phrase.Technique{Vibrato: true}.Uses("whistle"))
}

func TestAGraceNoteIsCrushedIntoTheNext(t *testing.T) {
	p := phrasetest.FourFour(phrasetest.At(0, 3, 8), phrasetest.At(2, 2, 7), phrasetest.At(4, 2, 8))
	graced, _ := edited(t, p, phrase.Edit{Kind: phrase.SetTechnique, From: 480, To: 481, Technique: "grace", Value: 1})
	assert.Equal(t, "0+240 3:8, 900+60 2:7 grace note, 960+240 2:8", phrasetest.Text(graced))
	alone, _ := edited(t, graced, phrase.Edit{Kind: phrase.Shift, From: 960, To: 961, By: 240})
	assert.Equal(t, "0+240 3:8, 900+60 2:7, 1200+240 2:8", phrasetest.Text(alone), "what it led to has gone")
	full := phrasetest.FourFour(phrasetest.At(0, 3, 8), phrasetest.At(1, 2, 7), phrasetest.At(2, 2, 8))
	full.Events[0].Ticks = 480
	graced, _ = edited(t, full, phrase.Edit{Kind: phrase.SetTechnique, From: 240, To: 241, Technique: "grace", Value: 1})
	assert.Equal(t, "0+420 3:8, 420+60 2:7 grace note, 480+240 2:8", phrasetest.Text(graced), "what sounded makes room")
	_, _, err := p.Apply(phrasetest.Guitar, phrase.Edit{Kind: phrase.SetTechnique, From: 960, To: 961, Technique: "grace", Value: 1})
	assert.EqualError(t, err, "note 3: a grace note needs a note after it")
	long := phrasetest.FourFour(phrasetest.At(0, 3, 8, func(e *phrase.Event) { e.Grace = true }), phrasetest.At(1, 3, 9))
	assert.EqualError(t, long.Check(phrasetest.Guitar), "note 1: a grace note lasts 60 ticks and ends where the next note begins")
	moved, err := graced.InMeter(chart.TwelveEight)
	require.NoError(t, err)
	assert.Equal(t, "0+660 3:8, 660+60 2:7 grace note, 720+480 2:8", phrasetest.Text(moved))
}

func TestWhatCannotBeWrittenIsSaid(t *testing.T) {
	p := phrasetest.FourFour(phrasetest.At(0, 3, 8), phrasetest.At(1, 6, 10), phrasetest.At(2, 1, 0))
	for want, e := range map[string]phrase.Edit{
		"fret: string 3 has no fret 23; strings are 1 to 6, frets 0 to 22":                            {Kind: phrase.Put, String: 3, Fret: 23, Ticks: 240},
		"fret: string 7 has no fret 2; strings are 1 to 6, frets 0 to 22":                             {Kind: phrase.Put, String: 7, Fret: 2, Ticks: 240},
		"ticks: a note lasts at least one tick":                                                       {Kind: phrase.Put, From: 900, String: 3, Fret: 2},
		"note 1: a hammer-on or pull-off needs a note before it on its string":                        {Kind: phrase.SetTechnique, From: 0, To: 1, Technique: "hammer-on", Value: 1},
		"note 3: an open string cannot be bent":                                                       {Kind: phrase.SetTechnique, From: 480, To: 481, Technique: "bend", Value: 2},
		"note 3: an open string cannot be shaken":                                                     {Kind: phrase.SetTechnique, From: 480, To: 481, Technique: "vibrato", Value: 1},
		"note 3: an open string cannot be slid to":                                                    {Kind: phrase.SetTechnique, From: 480, To: 481, Technique: "slide", Value: 1},
		"note 2: string 6 is bent a half step at most":                                                {Kind: phrase.SetTechnique, From: 240, To: 241, Technique: "bend", Value: 4},
		"note 1: a pre-bend or a release needs a bend":                                                {Kind: phrase.SetTechnique, From: 0, To: 1, Technique: "release", Value: 1},
		"from: there is no note there to be changed":                                                  {Kind: phrase.Transpose, From: 1000, To: 1001, By: 1},
		"from: there is no note there to be moved":                                                    {Kind: phrase.Shift, From: 1000, To: 1001, By: 1},
		"from: there is no note there to be played again":                                             {Kind: phrase.Repeat, From: 1000, To: 1001},
		"note 1: 20 half steps on, it is off the neck: frets are 0 to 22":                             {Kind: phrase.Transpose, From: 0, To: 999, By: 20},
		"note 3: there is no string -8; strings are 1 to 6":                                           {Kind: phrase.MoveString, From: 480, To: 481, By: -9},
		"ticks: the room that is made is at least one tick":                                           {Kind: phrase.InsertTime},
		"note 1: string 1 does not have its pitch":                                                    {Kind: phrase.MoveString, From: 0, To: 1, By: -2},
		"to: the time that is taken out ends after it begins":                                         {Kind: phrase.RemoveTime},
		`kind: "knit" is not an edit`:                                                                 {Kind: "knit"},
		`technique: "whistle" is not a technique; there are ` + strings.Join(phrase.Techniques, ", "): {Kind: phrase.SetTechnique, To: 999, Technique: "whistle", Value: 1},
		"note 4: tick 33554432 is out of range":                                                       {Kind: phrase.Put, From: 1 << 25, String: 3, Fret: 2, Ticks: 4},
	} {
		out, remarks, err := p.Apply(phrasetest.Guitar, e)
		assert.EqualError(t, err, want)
		assert.Equal(t, p, out, "nothing is changed")
		assert.Empty(t, remarks)
	}
}

func TestChordsUnderAPhrase(t *testing.T) {
	p := phrasetest.FourFour(phrasetest.At(0, 3, 8), phrasetest.At(9, 3, 8))
	p, _ = edited(t, p, phrase.Edit{Kind: phrase.SetChord, From: 0, Chord: phrasetest.ChordOf(t, "C7")})
	p, _ = edited(t, p, phrase.Edit{Kind: phrase.SetChord, From: 1920, Chord: phrasetest.ChordOf(t, "F7")})
	p, _ = edited(t, p, phrase.Edit{Kind: phrase.SetChord, From: 1920, Chord: phrasetest.ChordOf(t, "F9")})
	under := func(p phrase.Phrase) string {
		all := []string{}
		for _, from := range p.Chords {
			all = append(all, fmt.Sprintf("%s@%d", from.Chord.Symbol(), from.Tick))
		}
		return strings.Join(all, " ")
	}
	assert.Equal(t, "C7@0 F9@1920", under(p))
	later, _ := edited(t, p, phrase.Edit{Kind: phrase.InsertTime, From: 480, Ticks: 480})
	assert.Equal(t, "C7@0 F9@2400", under(later))
	sooner, _ := edited(t, p, phrase.Edit{Kind: phrase.RemoveTime, From: 480, To: 2400})
	assert.Equal(t, "C7@0 F9@480", under(sooner))
	none, _ := edited(t, p, phrase.Edit{Kind: phrase.ClearChord, From: 1920, To: 1921})
	assert.Equal(t, "C7@0", under(none))
}

// Whatever is done in whatever order: the phrase can be played, or nothing was changed
// and it is said why. Room that is made and taken out again changes nothing but the
// note that sounded into it.
func TestAnyEditsLeaveAPhraseThatCanBePlayed(t *testing.T) {
	c7 := phrasetest.ChordOf(t, "C7")
	rapid.Check(t, func(t *rapid.T) {
		p := phrase.Phrase{Meter: chart.FourFour}
		for range rapid.IntRange(1, 40).Draw(t, "edits") {
			e := phrase.Edit{
				Kind: rapid.SampledFrom(phrase.EditKinds).Draw(t, "do"), From: 120 * rapid.IntRange(-4, 20).Draw(t, "from"), String: rapid.IntRange(0, 6).Draw(t, "string"),
				Fret: rapid.IntRange(0, 22).Draw(t, "fret"), Ticks: 80 * rapid.IntRange(0, 12).Draw(t, "ticks"), By: rapid.IntRange(-30, 30).Draw(t, "by"),
				Technique: rapid.SampledFrom(phrase.Techniques).Draw(t, "technique"), Value: rapid.IntRange(-1, 6).Draw(t, "value"), Chord: c7,
			}
			e.To = e.From + 120*rapid.IntRange(0, 10).Draw(t, "long")
			if e.Kind == phrase.Paste {
				e.Events = []phrase.Event{phrasetest.At(0, 3, 5), phrasetest.At(1, 3, 7, phrasetest.HammerOn)}
			}
			next, _, err := p.Apply(phrasetest.Guitar, e)
			if err != nil {
				require.Equal(t, p, next)
				continue
			}
			require.NoError(t, next.CheckSoFar(phrasetest.Guitar))
			if e.Kind == phrase.InsertTime {
				back, _, err := next.Apply(phrasetest.Guitar, phrase.Edit{Kind: phrase.RemoveTime, From: e.From, To: e.From + e.Ticks})
				require.NoError(t, err)
				require.Len(t, back.Events, len(p.Events))
				for n := range back.Events {
					require.Equal(t, p.Events[n].Tick, back.Events[n].Tick)
					require.Equal(t, p.Events[n].Place, back.Events[n].Place)
				}
			}
			p = next
		}
	})
}

// The places and techniques of an edited phrase keep their fingers in one hand.
func TestEditedNotesAreFingered(t *testing.T) {
	p := phrase.Phrase{Meter: chart.FourFour}
	for n, place := range []neck.Place{{String: 3, Fret: 8}, {String: 3, Fret: 10}, {String: 2, Fret: 8}, {String: 2, Fret: 11}} {
		p, _ = edited(t, p, phrase.Edit{Kind: phrase.Put, From: n * 240, String: place.String, Fret: place.Fret, Ticks: 240})
	}
	fingers := []int{}
	for _, e := range p.Events {
		fingers = append(fingers, e.Finger)
	}
	assert.Equal(t, []int{1, 3, 1, 4}, fingers)
}

func TestWhatNoHandCouldPlayIsTakenAway(t *testing.T) {
	p := phrasetest.FourFour(phrasetest.At(0, 3, 8, phrasetest.HammerOn), phrasetest.At(1, 3, 0, phrasetest.BentWhole), phrasetest.At(2, 3, 5, phrasetest.TooLong), phrasetest.At(3, 3, 7, phrasetest.HammerOn), phrasetest.At(4, 3, 7, phrasetest.Tied))
	mended, remarks := p.Playable()
	require.NoError(t, mended.Check(phrasetest.Guitar))
	assert.Equal(t, "0+240 3:8, 240+240 3:0, 480+240 3:5, 720+240 3:7 hammered on, 960+240 3:7 tied", phrasetest.Text(mended))
	assert.Equal(t, []string{
		"note 3 is cut short by the next on its string", "note 2 is on an open string, which cannot be bent, slid or shaken", "the hammer-on at note 1 no longer fits: pick it",
	}, remarks)
	again, nothing := mended.Playable()
	assert.Equal(t, mended, again, "what can be played stays as it is")
	assert.Empty(t, nothing)
}
