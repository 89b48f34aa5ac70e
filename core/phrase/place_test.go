package phrase_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

func sound(tick int, p pitch.MIDI, how ...func(*phrase.Technique)) phrase.PitchedNote {
	s := phrase.PitchedNote{Tick: tick, Ticks: 240, Pitch: p}
	for _, f := range how {
		f(&s.Technique)
	}
	return s
}

func TestSoundsArePutOnStrings(t *testing.T) {
	w := phrasetest.Guitar.WindowFrom(8)
	line := phrase.AssignStrings(phrasetest.Guitar, w, []phrase.PitchedNote{sound(0, 63), sound(240, 65, func(t *phrase.Technique) { t.HammerOn = true }), sound(480, 67), sound(720, 70)})
	assert.Equal(t, "0+240 3:8, 240+240 3:10 hammered on, 480+240 2:8, 720+240 2:11", phrasetest.Text(phrasetest.FourFour(line.Events...)))
	assert.Equal(t, w, line.Window)
	pair := phrase.AssignStrings(phrasetest.Guitar, w, []phrase.PitchedNote{sound(0, 67), sound(0, 72), sound(240, 67)})
	assert.Equal(t, "0+240 1:8, 0+240 2:8, 240+240 2:8", phrasetest.Text(phrasetest.FourFour(pair.Events...)), "two at once on two strings")
	far := phrase.AssignStrings(phrasetest.Guitar, w, []phrase.PitchedNote{sound(0, 41), sound(240, 43)})
	assert.Equal(t, "0+240 6:1, 240+240 6:3", phrasetest.Text(phrasetest.FourFour(far.Events...)), "the hand goes where there is room")
	assert.NotEqual(t, w, far.Window)
	wide := phrase.AssignStrings(phrasetest.Guitar, w, []phrase.PitchedNote{sound(0, 40), sound(240, 86)})
	assert.Equal(t, "0+240 6:0, 240+240 1:22", phrasetest.Text(phrasetest.FourFour(wide.Events...)), "no one place has both")
	none := phrase.AssignStrings(phrasetest.Guitar, w, []phrase.PitchedNote{sound(0, 20), sound(240, 67), sound(480, 120)})
	assert.Equal(t, []int{0, 2}, none.Dropped)
	seven := []phrase.PitchedNote{}
	for n := range 7 {
		seven = append(seven, sound(0, pitch.MIDI(64+n)))
	}
	crowd := phrase.AssignStrings(phrasetest.Guitar, w, seven)
	assert.NotEmpty(t, crowd.Dropped, "six strings sound at most six notes")
	lowest := phrase.AssignStrings(phrasetest.Guitar, w, []phrase.PitchedNote{sound(0, 40, func(t *phrase.Technique) { t.Bend = 2 })})
	assert.Equal(t, []int{0}, lowest.Dropped, "the open low string cannot be bent")
}

// Whatever sounds: what is placed can be played and sounds as it did, and every note is
// placed or listed.
func TestPlacedSoundsCanBePlayed(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		notes := []phrase.PitchedNote{}
		tick := 0
		for range rapid.IntRange(1, 20).Draw(t, "notes") {
			tick += rapid.SampledFrom([]int{0, 120, 240}).Draw(t, "step")
			notes = append(notes, phrase.PitchedNote{
				Tick: tick, Ticks: rapid.IntRange(1, 900).Draw(t, "ticks"), Pitch: pitch.MIDI(rapid.IntRange(30, 95).Draw(t, "pitch")),
				Technique: phrase.Technique{Bend: rapid.SampledFrom([]int{0, 0, 2, 4}).Draw(t, "bend"), HammerOn: rapid.Bool().Draw(t, "hammer-on")},
			})
		}
		p := phrase.AssignStrings(phrasetest.Guitar, phrasetest.Guitar.WindowFrom(rapid.IntRange(0, 18).Draw(t, "core")), notes)
		require.NoError(t, phrase.Phrase{Meter: chart.FourFour, Events: p.Events}.CheckSoFar(phrasetest.Guitar))
		require.LessOrEqual(t, len(p.Events), len(notes)-len(p.Dropped))
		at := map[int]map[pitch.MIDI]bool{}
		for n, note := range notes {
			if !contains(p.Dropped, n) {
				if at[note.Tick] == nil {
					at[note.Tick] = map[pitch.MIDI]bool{}
				}
				at[note.Tick][note.Pitch] = true
			}
		}
		for _, e := range p.Events {
			assert.True(t, at[e.Tick][phrasetest.Guitar.Pitch(e.Place)])
		}
	})
}

func contains(all []int, one int) bool {
	for _, n := range all {
		if n == one {
			return true
		}
	}
	return false
}

func BenchmarkOnStrings(b *testing.B) {
	notes := []phrase.PitchedNote{}
	for n := range 16 {
		notes = append(notes, sound(240*n, pitch.MIDI(60+(n*5)%13)))
	}
	b.ReportAllocs()
	for b.Loop() {
		phrase.AssignStrings(phrasetest.Guitar, neck.Standard().WindowFrom(8), notes)
	}
}

// Six strings sound six notes: an open chord comes to lie on all of them, and of more
// notes than strings as many as there are strings are kept.
func TestManyNotesAtOnce(t *testing.T) {
	chord := []phrase.PitchedNote{}
	for _, p := range []pitch.MIDI{40, 47, 52, 56, 59, 64} {
		chord = append(chord, sound(0, p))
	}
	open := phrase.AssignStrings(phrasetest.Guitar, phrasetest.Guitar.WindowFrom(0), chord)
	assert.Equal(t, "0+240 1:0, 0+240 2:0, 0+240 3:1, 0+240 4:2, 0+240 5:2, 0+240 6:0", phrasetest.Text(phrasetest.FourFour(open.Events...)))
	assert.Empty(t, open.Dropped)
	cluster := []phrase.PitchedNote{}
	for n := range 8 {
		cluster = append(cluster, sound(0, pitch.MIDI(57+n)))
	}
	kept := phrase.AssignStrings(phrasetest.Guitar, phrasetest.Guitar.WindowFrom(5), cluster)
	assert.LessOrEqual(t, len(kept.Events), 6)
	assert.Len(t, kept.Dropped, 8-len(kept.Events))
}
