package change

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

var guitar = neck.Standard()

type setting struct {
	key    harmony.Key
	box    harmony.Box
	window neck.Window
}

// in sets up a dominant key in its E form.
func in(t testing.TB, tonic string) setting {
	t.Helper()
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	box, err := key.Box("")
	require.NoError(t, err)
	position, err := neck.FindPosition(guitar, key.Tonic.Class(), "E")
	require.NoError(t, err)
	return setting{key, box, position.Window}
}

func chord(t testing.TB, symbol string) harmony.Chord {
	t.Helper()
	c, err := harmony.ParseChord(symbol)
	require.NoError(t, err)
	return c
}

func (s setting) moves(school School, a, b harmony.Chord) []Move {
	return Moves(school, a, b, neck.Lay(guitar, s.window, a.Tones()), neck.Lay(guitar, s.window, b.Tones()))
}

func best(moves []Move, n int) []string {
	lines := []string{}
	for _, m := range moves[:n] {
		lines = append(lines, fmt.Sprintf("%d:%d %s→%s %d:%d %s %.2f", m.From.String, m.From.Fret, m.From.Degree, m.To.Degree, m.To.String, m.To.Fret, m.Kind, m.Score))
	}
	return lines
}

func TestBestMovesInC(t *testing.T) {
	s := in(t, "C")
	for change, want := range map[string][]string{
		"C7 F7": {"4:8 b7→3 4:7 half step 1.00", "2:11 b7→3 2:10 half step 1.00", "3:9 3→b7 3:8 half step 0.80", "5:7 3→b7 6:11 half step 0.80"},
		"F7 C7": {"5:8 R→3 5:7 half step 1.00", "3:8 b7→3 3:9 half step 1.00", "3:10 R→3 3:9 half step 1.00", "6:11 b7→3 5:7 half step 1.00"},
		"C7 G7": {"6:8 R→3 6:7 half step 1.00", "4:8 b7→3 4:9 half step 1.00", "4:10 R→3 4:9 half step 1.00", "1:8 R→3 1:7 half step 1.00"},
		"G7 F7": {"6:10 5→b7 6:11 half step 0.80", "3:7 5→b7 3:8 half step 0.80", "1:10 5→b7 1:11 half step 0.80", "4:9 3→3 4:7 whole step 0.70"},
		"G7 C7": {"5:8 b7→3 5:7 half step 1.00", "3:10 b7→3 3:9 half step 1.00", "4:9 3→b7 4:8 half step 0.80", "1:7 3→b7 2:11 half step 0.80"},
	} {
		pair := strings.Fields(change)
		assert.Equal(t, want, best(s.moves(ThirdsFirst, chord(t, pair[0]), chord(t, pair[1])), 4), change)
	}
}

func TestSchoolsRankDifferently(t *testing.T) {
	s := in(t, "C")
	c7, f7 := chord(t, "C7"), chord(t, "F7")
	assert.Equal(t, "3", s.moves(ThirdsFirst, c7, f7)[0].To.Degree.String())
	assert.Equal(t, []string{"5:7 3→R 5:8 half step 1.00", "3:9 3→R 3:10 half step 1.00"}, best(s.moves(RootsFirst, c7, f7), 2))
	assert.Equal(t, "4:8 b7→3 4:7 half step 1.00", best(s.moves(GuideTones, c7, f7), 1)[0])
	assert.Equal(t, []string{"5:7 3→R 5:8 half step 1.00", "4:8 b7→3 4:7 half step 1.00"}, best(s.moves(NearestTone, c7, f7), 2))
	_, err := ParseSchool("fifths first")
	assert.ErrorContains(t, err, "choose thirds first, guide tones, roots first or nearest tone")
}

func TestSentences(t *testing.T) {
	s := in(t, "C")
	c7, f7 := chord(t, "C7"), chord(t, "F7")
	sentences := []string{}
	for _, m := range s.moves(ThirdsFirst, c7, f7) {
		sentences = append(sentences, m.Sentence)
	}
	for _, want := range []string{
		"Bb, the b7 of C7, down a fret to A, the 3 of F7",
		"E, the 3 of C7, up a fret to F, the R of F7",
		"C, the R of C7, stays and becomes the 5 of F7",
		"G, the 5 of C7, up a whole step over to string 4: A, the 3 of F7",
		"G, the 5 of C7, up two frets to A, the 3 of F7",
	} {
		assert.Contains(t, sentences, want)
	}
}

func spelt(tones []harmony.Tone) string {
	notes := make([]string, len(tones))
	for n, tone := range tones {
		notes[n] = tone.Note.String() + "=" + tone.Degree.String()
	}
	return strings.Join(notes, " ")
}

func TestTellingTones(t *testing.T) {
	for _, c := range []struct{ tonic, leaving, arriving, want string }{
		{"C", "C7", "F7", "A=3"}, {"C", "F7", "C7", "E=3"}, {"C", "C7", "G7", "B=3 D=5"}, {"C", "G7", "F7", "A=3"}, {"C", "G7", "C7", "E=3"},
		{"Db", "Db7", "Gb7", "Bb=3"}, {"Db", "Gb7", "Db7", "F=3"}, {"Db", "Db7", "Ab7", "C=3 Eb=5"}, {"Db", "Ab7", "Gb7", "Bb=3"}, {"Db", "Ab7", "Db7", "F=3"},
		{"F#", "F#7", "B7", "D#=3"}, {"F#", "F#7", "C#7", "E#=3 G#=5"},
	} {
		assert.Equal(t, c.want, spelt(Telling(chord(t, c.leaving), chord(t, c.arriving), in(t, c.tonic).box)), "%s to %s", c.leaving, c.arriving)
	}
}

func TestWhatTheBoxLacks(t *testing.T) {
	s := in(t, "C")
	for symbol, want := range map[string]string{
		"C7":  "over C7 your box lacks E, the 3: one fret above its Eb",
		"F7":  "over F7 your box lacks A, the 3: one fret below its Bb",
		"G7":  "over G7 your box lacks B, the 3: one fret above its Bb",
		"Cm7": "over Cm7 your box has all it needs to say the chord",
	} {
		assert.Equal(t, want, BoxOver(chord(t, symbol), s.box).Sentence)
	}
	over := BoxOver(chord(t, "G7"), s.box)
	assert.Equal(t, "G=R F=b7", spelt(over.Holds))
	require.Len(t, over.Lacks, 2)
	assert.Equal(t, "D, the 5: one fret below its Eb", over.Lacks[1].Sentence)
	assert.False(t, over.Lacks[1].Add)
}

// Every move in every key, position and pair of chords: its tones belong to
// their chords, its distance is the distance on the neck, and the list is in order.
func TestMovesAreTrue(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tonic := rapid.SampledFrom(harmony.Tonics).Draw(t, "tonic")
		key, err := harmony.ParseKey(tonic, harmony.DominantMode)
		require.NoError(t, err)
		window := rapid.SampledFrom(neck.Positions(guitar, key.Tonic.Class())).Draw(t, "position").Window
		symbols := [2]harmony.Chord{}
		for n := range symbols {
			root := rapid.SampledFrom(harmony.Tonics).Draw(t, "root")
			symbols[n], err = harmony.ParseChord(root + rapid.SampledFrom(harmony.Signs()).Draw(t, "sign"))
			require.NoError(t, err)
		}
		school := rapid.SampledFrom(Schools).Draw(t, "school")
		score := 1.0
		for _, m := range (setting{key: key, window: window}).moves(school, symbols[0], symbols[1]) {
			_, leaves := symbols[0].Tone(m.From.Pitch.Class())
			_, arrives := symbols[1].Tone(m.To.Pitch.Class())
			assert.True(t, leaves && arrives)
			assert.Equal(t, int(guitar.Pitch(m.To.Place)-guitar.Pitch(m.From.Place)), m.Semitones)
			assert.LessOrEqual(t, m.Semitones*m.Semitones, 16)
			assert.LessOrEqual(t, m.Score, score+1e-9)
			score = m.Score
		}
	})
}

func TestApproachesLieAroundTheTarget(t *testing.T) {
	s := in(t, "C")
	target := neck.Place{String: 4, Fret: 7}
	for name, want := range map[string][]pitch.MIDI{
		"half step below": {56, 57}, "half step above": {58, 57}, "two half steps below": {55, 56, 57},
		"two half steps above": {59, 58, 57}, "enclosure": {58, 56, 57}, "slide": {56, 57},
	} {
		approach, err := FindApproach(name)
		require.NoError(t, err)
		wanted, err := approach.Wanted(guitar, s.window, target)
		require.NoError(t, err, name)
		pitches := []pitch.MIDI{}
		for _, w := range wanted {
			pitches = append(pitches, w.Pitch)
		}
		assert.Equal(t, want, pitches, name)
	}
	slide, err := FindApproach("slide")
	require.NoError(t, err)
	_, err = slide.Wanted(guitar, neck.Window{CoreEnd: 3, High: 4}, neck.Place{String: 3, Fret: 1})
	assert.ErrorContains(t, err, "has no fret below")
	below, err := FindApproach("")
	require.NoError(t, err)
	_, err = below.Wanted(guitar, s.window, neck.Place{String: 6, Fret: 6})
	assert.ErrorContains(t, err, "lies outside frets 6 to 11")
	_, err = FindApproach("backflip")
	assert.ErrorContains(t, err, "half step below, half step above")
}
