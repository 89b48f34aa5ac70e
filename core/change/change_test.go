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
)

var guitar = neck.Standard()

type setting struct {
	key    harmony.Key
	box    harmony.Box
	window neck.Window
}

// in sets up a key, a dominant one unless told otherwise, in its E form.
func in(t testing.TB, tonic string, modes ...harmony.Mode) setting {
	t.Helper()
	mode := append(modes, harmony.DominantMode)[0]
	key, err := harmony.ParseKey(tonic, mode)
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

func (s setting) moves(strategy TargetStrategy, a, b harmony.Chord) []Move {
	return Moves(strategy, a, b, neck.PlaceTones(guitar, s.window, a.Tones()), neck.PlaceTones(guitar, s.window, b.Tones()))
}

func best(moves []Move, n int) []string {
	lines := []string{}
	for _, m := range moves[:n] {
		lines = append(lines, fmt.Sprintf("%d:%d %s→%s %d:%d %s %.2f", m.From.String, m.From.Fret, m.From.Degree, m.To.Degree, m.To.String, m.To.Fret, m.Kind, m.Score))
	}
	return lines
}

// The four best moves of the usual changes, in two keys each.
func TestBestMoves(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  harmony.Mode
		moves map[string][]string
	}{
		{"C", harmony.DominantMode, map[string][]string{
			"C7 F7": {"4:8 b7→3 4:7 half step 1.00", "2:11 b7→3 2:10 half step 1.00", "3:9 3→b7 3:8 half step 0.80", "5:7 3→b7 6:11 half step 0.80"},
			"F7 C7": {"5:8 R→3 5:7 half step 1.00", "3:8 b7→3 3:9 half step 1.00", "3:10 R→3 3:9 half step 1.00", "6:11 b7→3 5:7 half step 1.00"},
			"C7 G7": {"6:8 R→3 6:7 half step 1.00", "4:8 b7→3 4:9 half step 1.00", "4:10 R→3 4:9 half step 1.00", "1:8 R→3 1:7 half step 1.00"},
			"G7 F7": {"6:10 5→b7 6:11 half step 0.80", "3:7 5→b7 3:8 half step 0.80", "1:10 5→b7 1:11 half step 0.80", "4:9 3→3 4:7 whole step 0.70"},
			"G7 C7": {"5:8 b7→3 5:7 half step 1.00", "3:10 b7→3 3:9 half step 1.00", "4:9 3→b7 4:8 half step 0.80", "1:7 3→b7 2:11 half step 0.80"},
		}},
		{"A", harmony.DominantMode, map[string][]string{
			"A7 D7": {"4:5 b7→3 4:4 half step 1.00", "2:8 b7→3 2:7 half step 1.00", "3:6 3→b7 3:5 half step 0.80", "5:4 3→b7 6:8 half step 0.80"},
			"D7 A7": {"5:5 R→3 5:4 half step 1.00", "3:5 b7→3 3:6 half step 1.00", "3:7 R→3 3:6 half step 1.00", "6:8 b7→3 5:4 half step 1.00"},
			"A7 E7": {"6:5 R→3 6:4 half step 1.00", "4:5 b7→3 4:6 half step 1.00", "4:7 R→3 4:6 half step 1.00", "1:5 R→3 1:4 half step 1.00"},
			"E7 D7": {"6:7 5→b7 6:8 half step 0.80", "3:4 5→b7 3:5 half step 0.80", "1:7 5→b7 1:8 half step 0.80", "4:6 3→3 4:4 whole step 0.70"},
			"E7 A7": {"5:5 b7→3 5:4 half step 1.00", "3:7 b7→3 3:6 half step 1.00", "4:6 3→b7 4:5 half step 0.80", "1:4 3→b7 2:8 half step 0.80"},
		}},
		{"C", harmony.MajorMode, map[string][]string{
			"Dm7 G7":   {"6:8 b7→3 6:7 half step 1.00", "4:10 b7→3 4:9 half step 1.00", "1:8 b7→3 1:7 half step 1.00", "4:7 5→3 4:9 whole step 0.70"},
			"G7 Cmaj7": {"5:8 b7→3 5:7 half step 1.00", "3:10 b7→3 3:9 half step 1.00", "3:7 5→3 3:9 whole step 0.70", "6:10 5→3 5:7 whole step 0.70"},
			"Am F":     {"5:7 5→R 5:8 half step 0.60", "3:9 5→R 3:10 half step 0.60", "4:7 R→3 4:7 held 0.50", "2:10 R→3 2:10 held 0.50"},
		}},
		{"Bb", harmony.MajorMode, map[string][]string{
			"Cm7 F7":    {"6:6 b7→3 6:5 half step 1.00", "4:8 b7→3 4:7 half step 1.00", "1:6 b7→3 1:5 half step 1.00", "4:5 5→3 4:7 whole step 0.70"},
			"F7 Bbmaj7": {"5:6 b7→3 5:5 half step 1.00", "3:8 b7→3 3:7 half step 1.00", "3:5 5→3 3:7 whole step 0.70", "6:8 5→3 5:5 whole step 0.70"},
			"Gm Eb":     {"5:5 5→R 5:6 half step 0.60", "3:7 5→R 3:8 half step 0.60", "4:5 R→3 4:5 held 0.50", "2:8 R→3 2:8 held 0.50"},
		}},
	} {
		s := in(t, c.tonic, c.mode)
		for change, want := range c.moves {
			pair := strings.Fields(change)
			assert.Equal(t, want, best(s.moves(ThirdsFirst, chord(t, pair[0]), chord(t, pair[1])), 4), change)
		}
	}
}

// On a vamp the chord arrives at itself: every move goes somewhere else.
func TestMovesWithinOneChord(t *testing.T) {
	moves := in(t, "C").moves(ThirdsFirst, chord(t, "C7"), chord(t, "C7"))
	assert.Equal(t, []string{"4:10 R→b7 4:8 whole step 0.56", "1:8 R→b7 2:11 whole step 0.56"}, best(moves, 2))
	for _, m := range moves {
		assert.NotZero(t, m.Semitones)
	}
}

func TestStrategiesRankDifferently(t *testing.T) {
	s := in(t, "C")
	c7, f7 := chord(t, "C7"), chord(t, "F7")
	assert.Equal(t, "3", s.moves(ThirdsFirst, c7, f7)[0].To.Degree.String())
	assert.Equal(t, []string{"5:7 3→R 5:8 half step 1.00", "3:9 3→R 3:10 half step 1.00"}, best(s.moves(RootsFirst, c7, f7), 2))
	assert.Equal(t, "4:8 b7→3 4:7 half step 1.00", best(s.moves(GuideTones, c7, f7), 1)[0])
	assert.Equal(t, []string{"5:7 3→R 5:8 half step 1.00", "4:8 b7→3 4:7 half step 1.00"}, best(s.moves(NearestTone, c7, f7), 2))
	_, err := ParseTargetStrategy("fifths first")
	assert.ErrorContains(t, err, "choose one of: thirds first, guide tones, roots first, nearest tone")
}

func TestSentences(t *testing.T) {
	s := in(t, "C")
	c7, f7 := chord(t, "C7"), chord(t, "F7")
	sentences := []string{}
	for _, m := range s.moves(ThirdsFirst, c7, f7) {
		sentences = append(sentences, m.Text)
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

func TestGuideTones(t *testing.T) {
	for _, c := range []struct{ tonic, leaving, arriving, want string }{
		{"C", "C7", "F7", "A=3"}, {"C", "F7", "C7", "E=3"}, {"C", "C7", "G7", "B=3 D=5"}, {"C", "G7", "F7", "A=3"}, {"C", "G7", "C7", "E=3"},
		{"Db", "Db7", "Gb7", "Bb=3"}, {"Db", "Gb7", "Db7", "F=3"}, {"Db", "Db7", "Ab7", "C=3 Eb=5"}, {"Db", "Ab7", "Gb7", "Bb=3"}, {"Db", "Ab7", "Db7", "F=3"},
		{"F#", "F#7", "B7", "D#=3"}, {"F#", "F#7", "C#7", "E#=3 G#=5"},
	} {
		assert.Equal(t, c.want, spelt(DefiningTones(chord(t, c.leaving), chord(t, c.arriving), in(t, c.tonic).box)), "%s to %s", c.leaving, c.arriving)
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
		assert.Equal(t, want, CoverageOf(chord(t, symbol), s.box).Text)
	}
	over := CoverageOf(chord(t, "G7"), s.box)
	assert.Equal(t, "G=R F=b7", spelt(over.Has))
	require.Len(t, over.Missing, 2)
	assert.Equal(t, "D, the 5: one fret below its Eb", over.Missing[1].Text)
	assert.False(t, over.Missing[1].Needed)
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
			symbols[n], err = harmony.ParseChord(root + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
			require.NoError(t, err)
		}
		strategy := rapid.SampledFrom(TargetStrategies).Draw(t, "school")
		score := 1.0
		for _, m := range (setting{key: key, window: window}).moves(strategy, symbols[0], symbols[1]) {
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
