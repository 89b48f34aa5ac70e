package analysis

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

func offences(all []Issue) []string {
	said := []string{}
	for _, o := range all {
		text := o.Text
		if o.Alteration != nil {
			text += "; " + o.Alteration.Text
		}
		said = append(said, text)
	}
	return said
}

func TestAVerdict(t *testing.T) {
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	// Eb F(bent to G) G Bb G E C over C7, and an A over F7 an eighth late.
	p := phrasetest.OverC7(t)
	p.Chords = append(p.Chords, phrase.PhraseChord{Tick: 1920, Chord: phrasetest.ChordOf(t, "F7")})
	p.Events = append(p.Events, phrasetest.At(9, 2, 10, func(e *phrase.Event) { e.Ticks = 480 }))
	for n, finger := range []int{1, 3, 1, 4, 1, 2, 3, 3} {
		p.Events[n].Finger = finger
	}
	v := Judge(p, phrasetest.Guitar, key, 120)
	assert.Equal(t, []int{2, 1}, []int{v.Strong.Of, v.Strong.Good})
	assert.Equal(t, []string{"note 1: Eb, the b3 of C7, is a blue note on a strong beat; play E, the 3: fret 9 instead of 8"}, offences(v.Strong.Issues))
	assert.Equal(t, []int{2, 2}, []int{v.Rests.Of, v.Rests.Good}, "C before the gap, and A")
	assert.Equal(t, []string{"note 1: Eb, the b3 of C7, is a blue note and does not move on by a step; play E, the 3: fret 9 instead of 8"}, offences(v.Passing))
	require.Len(t, v.Landings, 1)
	assert.Equal(t, "F7 late 7 3", fmt.Sprintf("%s %s %d %s", v.Landings[0].Chord.Symbol(), v.Landings[0].Timing, v.Landings[0].Index, v.Landings[0].Degree))
	covered := []string{}
	for _, c := range v.Coverage {
		covered = append(covered, fmt.Sprintf("%s: %s, missed %s", c.Chord.Symbol(), degreesOf(c.Got), degreesOf(c.Missed)))
	}
	assert.Equal(t, []string{"C7: R 3 5 b7, missed ", "F7: 3, missed b7"}, covered)
	assert.Equal(t, "A B", v.Shape.Rhythm)
	assert.Equal(t, AnswerEnding, v.Shape.Ends)
	assert.InDelta(t, 1-2160.0/2640, v.Shape.Space, 1e-9)
	assert.InDelta(t, 8/(2640.0/480*60/120), v.Shape.PerSecond, 1e-9)
	assert.Zero(t, v.Shape.Shifts)
	assert.InDelta(t, phrasetest.Guitar.StretchMM(8, 11), v.Shape.WidestMM, 1e-9)

	repaired, lost := Repair(p, phrasetest.Guitar, key, 120, []int{0})
	assert.Empty(t, lost)
	assert.Equal(t, 9, repaired.Events[0].Fret)
	assert.Equal(t, 8, p.Events[0].Fret, "the phrase itself is left alone")
	again := Judge(repaired, phrasetest.Guitar, key, 120)
	assert.Empty(t, again.Issues())
	assert.Equal(t, Verdict{}, Judge(phrase.Phrase{Meter: chart.FourFour, Events: p.Events}, phrasetest.Guitar, key, 120), "nothing is said where no chords are known")
}

func degreesOf(tones []harmony.Tone) string {
	names := make([]string, len(tones))
	for n, tone := range tones {
		names[n] = tone.Degree.String()
	}
	return strings.Join(names, " ")
}

// A blue note that is curled a quarter tone goes where it wants: it is no offence.
func TestACurledBlueNoteIsNoOffence(t *testing.T) {
	p := phrasetest.OverC7(t)
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	p.Events = []phrase.Event{phrasetest.At(1, 3, 8, func(e *phrase.Event) { e.Ticks, e.Bend = 960, 1 })}
	assert.Empty(t, Judge(p, phrasetest.Guitar, key, 100).Issues())
	p.Events[0].Bend = 0
	assert.Len(t, Judge(p, phrasetest.Guitar, key, 100).Issues(), 1)
}

// The figures add up, every offence is of a note that is not as it should be, and a
// repaired phrase has no more of them and can be played.
func TestVerdictsHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := phrasetest.DrawnOverSeventh(t)
		key := harmony.Key{Tonic: p.Chords[0].Chord.Root, Mode: harmony.DominantMode}
		v := Judge(p, phrasetest.Guitar, key, 100)
		assert.Equal(t, v.Strong.Of, v.Strong.Good+len(v.Strong.Issues))
		assert.Equal(t, v.Rests.Of, v.Rests.Good+len(v.Rests.Issues))
		assert.GreaterOrEqual(t, v.Rests.Of, 1, "the last note is rested on")
		assert.True(t, v.Shape.Space >= 0 && v.Shape.Space < 1)
		labels := p.Labels(phrasetest.Guitar, key)
		notes := []int{}
		for _, o := range v.Issues() {
			assert.NotEqual(t, harmony.ChordTone, labels[o.Index].Class)
			notes = append(notes, o.Index)
			if o.Repair != nil {
				assert.True(t, phrase.MayRestOn(key, labels[o.Index].Chord, o.Repair.Sounding(phrasetest.Guitar).Class()))
			}
		}
		repaired, _ := Repair(p, phrasetest.Guitar, key, 100, notes)
		require.NoError(t, repaired.Check(phrasetest.Guitar))
		after := Judge(repaired, phrasetest.Guitar, key, 100)
		assert.LessOrEqual(t, len(after.Rests.Issues), len(v.Rests.Issues))
	})
}
