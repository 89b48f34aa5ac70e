package analysis

import (
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

func dropped(t *testing.T, p phrase.Phrase, tune ...string) []string {
	t.Helper()
	chords := []harmony.Chord{}
	for _, symbol := range tune {
		chords = append(chords, phrasetest.ChordOf(t, symbol))
	}
	says := []string{}
	for _, d := range ImpliedHarmonies(p, phrasetest.Guitar, phrasetest.KeyOfC(t), chords) {
		says = append(says, d.Text)
	}
	return says
}

// In the box the ear stays on the chord it knows, thirds tell the change, and the tone that would settle an unclear
// chord is named.
func TestTheBandDropsOut(t *testing.T) {
	box := phrase.Phrase{Meter: phrasetest.OverC7(t).Meter, Chords: phrasetest.Over(t, "C7", "F7"), Events: []phrase.Event{
		phrasetest.At(0, 1, 8), phrasetest.At(1, 1, 11), phrasetest.At(2, 1, 8), phrasetest.At(3, 2, 11), phrasetest.At(4, 2, 8, phrasetest.Lasting(480)), phrasetest.At(8, 1, 8), phrasetest.At(9, 1, 11), phrasetest.At(10, 1, 8), phrasetest.At(11, 2, 11), phrasetest.At(12, 2, 8, phrasetest.Lasting(480)),
	}}
	assert.Equal(t, []string{"C7 is heard", "F7 is heard as C7; A, the 3, would settle it"}, dropped(t, box, "C7", "F7", "G7"))
	withTones := box
	withTones.Events = []phrase.Event{phrasetest.At(0, 3, 9), phrasetest.At(1, 2, 8), phrasetest.At(2, 2, 11), phrasetest.At(3, 1, 8), phrasetest.At(4, 3, 9, phrasetest.Lasting(480)), phrasetest.At(8, 2, 10), phrasetest.At(9, 1, 8), phrasetest.At(10, 1, 11), phrasetest.At(12, 3, 10, phrasetest.Lasting(480))}
	assert.Equal(t, []string{"C7 is heard", "F7 is heard"}, dropped(t, withTones, "C7", "F7", "G7"))
	silent := box
	silent.Events = box.Events[:5]
	assert.Equal(t, "nothing is played over F7; A, the 3, would settle it", dropped(t, silent, "C7", "F7", "G7")[1])
	held := phrase.Phrase{Meter: box.Meter, Chords: phrasetest.Over(t, "C7", "F7"), Events: []phrase.Event{phrasetest.At(4, 2, 10, phrasetest.Lasting(1920))}}
	d := ImpliedHarmonies(held, phrasetest.Guitar, phrasetest.KeyOfC(t), []harmony.Chord{phrasetest.ChordOf(t, "C7"), phrasetest.ChordOf(t, "F7")})
	assert.Equal(t, []int{0}, d[0].Notes)
	assert.Equal(t, []int{0}, d[1].Notes, "a note held over the change weighs on both sides of it")
}

// Whatever the chord: its arpeggio alone is heard as it, or as a chord that has all of
// those tones too; and the tone that would settle an unclear one never makes it less clear.
func TestAnArpeggioTellsItsChord(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mode := rapid.SampledFrom(harmony.Modes).Draw(t, "mode")
		key, err := harmony.ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(t, "tonic"), mode)
		require.NoError(t, err)
		numeral := rapid.SampledFrom([]string{"I7", "IV7", "V7", "iim7", "vim7", "bVII7"}).Draw(t, "numeral")
		c, err := key.ParseRoman(numeral)
		require.NoError(t, err)
		weights := [12]float64{}
		for _, tone := range c.Tones() {
			weights[tone.Note.Class()] = 480
		}
		for _, other := range candidateChords(key, nil) {
			if sameTones(other.Chord, c) {
				continue
			}
			all := true
			for _, tone := range c.Tones() {
				_, ok := other.Tone(tone.Note.Class())
				all = all && ok
			}
			assert.True(t, all || fitOf(fitsOf(key, c), weights) > fitOf(other.fits, weights)-rootlessLoss, "%s against %s", c.Symbol(), other.Symbol())
		}
		loose := [12]float64{}
		for range 3 {
			loose[pitch.ClassOf(rapid.IntRange(0, 11).Draw(t, "class"))] += 240
		}
		d := ImpliedHarmony{Chord: c, Notes: []int{0}}
		d.recognize(key, loose, candidateChords(key, nil), 480)
		if d.SettlingTone != nil {
			loose[d.SettlingTone.Note.Class()] += weighsStrong * 480
			_, margin := bestRival(fitsOf(key, c), loose, othersThan(c, candidateChords(key, nil)))
			assert.GreaterOrEqual(t, margin, d.Margin-1e-9)
		}
	})
}

func TestGuideTonesTellMost(t *testing.T) {
	key, c7 := phrasetest.KeyOfC(t), phrasetest.ChordOf(t, "C7")
	for class, want := range map[pitch.Class]float64{4: fitsGuide, 10: fitsGuide, 0: fitsRoot, 7: fitsChordTone, 2: fitsColour, 5: fitsSuspension, 3: 0, 1: fitsOutside} {
		assert.Equal(t, want, fitOfNote(key, c7, class), class)
	}
	assert.True(t, harmony.IsGuideTone(pitch.MustDegree("3")))
}

// One chord by itself is said to be what it is among all.
func TestOneChordIsRecognizedAsAmongAll(t *testing.T) {
	outer := phrasetest.KeyOfC(t)
	rapid.Check(t, func(t *rapid.T) {
		p, i, key := phrase.Phrase{Meter: chart.FourFour}, neck.Standard(), outer
		tune := []harmony.Chord{}
		for bar := range rapid.IntRange(1, 4).Draw(t, "bars") {
			c := phrasetest.DrawnChord(t)
			p.Chords = append(p.Chords, phrase.PhraseChord{Tick: 1920 * bar, Chord: c})
			tune = append(tune, c)
		}
		for tick := rapid.IntRange(-1, 3).Draw(t, "begins") * 240; tick < 1920*len(tune); {
			e := phrasetest.At(0, rapid.IntRange(1, 6).Draw(t, "string"), rapid.IntRange(0, 12).Draw(t, "fret"))
			e.Tick, e.Ticks = tick, rapid.SampledFrom([]int{240, 480, 960, 2400}).Draw(t, "ticks")
			p.Events = append(p.Events, e)
			tick += e.Ticks
		}
		all := ImpliedHarmonies(p, i, key, tune)
		r := NewChordRecognizer(key, tune)
		for n := range all {
			require.Equal(t, all[n], r.At(p, i, n))
		}
	})
}
