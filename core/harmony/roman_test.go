package harmony

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/pitch"
)

func mustKey(t testing.TB, tonic string, mode Mode) Key {
	t.Helper()
	k, err := ParseKey(tonic, mode)
	require.NoError(t, err)
	return k
}

func TestRomansAreReadInTheKey(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		text  string
		want  string
	}{
		{"C", DominantMode, "I", "C7"}, {"C", DominantMode, "IV7", "F7"}, {"C", DominantMode, "bVI7", "Ab7"}, {"C", DominantMode, "♭VI7", "Ab7"},
		{"C", DominantMode, "ii7", "Dm7"}, {"C", DominantMode, "#IVdim7", "F#dim7"}, {"C", DominantMode, "#iv°7", "F#dim7"},
		{"Ab", MajorMode, "I", "Ab"}, {"Ab", MajorMode, "ii7", "Bbm7"}, {"Ab", MajorMode, "V7", "Eb7"}, {"Ab", MajorMode, "I/3", "Ab/C"},
		{"Ab", MajorMode, "IVmaj7", "Dbmaj7"}, {"Ab", MajorMode, "viiø", "Gm7b5"}, {"Ab", MajorMode, "vi", "Fm"},
		{"F#", MinorMode, "i", "F#m7"}, {"F#", MinorMode, "im", "F#m"}, {"F#", MinorMode, "iv", "Bm7"}, {"F#", MinorMode, "bVI7", "D7"},
		{"F#", MinorMode, "V7#9", "C#7#9"}, {"Db", DominantMode, "IV", "Gb7"}, {"C#", DominantMode, "IV", "F#7"}, {"B", DominantMode, "V7/b7", "F#7/E"},
		{"C", MajorMode, "I6/9", "C6/9"}, {"C", MajorMode, "bII7/E", "Db7/E"}, {"C", MajorMode, "I+", "Caug"},
		{"C", MajorMode, "V7/V", "D7"}, {"C", DominantMode, "V/V", "D7"}, {"C", MajorMode, "V/vi", "E"}, {"C", MajorMode, "ii7/IV", "Gm7"}, {"C", MajorMode, "viio7/ii", "C#dim7"},
		{"F#", MinorMode, "V7/iv", "F#7"}, {"Ab", MajorMode, "V7b9/bVII", "Db7b9"}, {"C", MajorMode, "V6/9/V", "D6/9"}, {"C", MajorMode, "ii7b5", "Dm7b5"},
	} {
		got, err := mustKey(t, c.tonic, c.mode).ParseRoman(c.text)
		require.NoError(t, err, c.text)
		assert.Equal(t, c.want, got.Symbol(), "%s in %s %s", c.text, c.tonic, c.mode)
		assert.True(t, LooksRoman(c.text))
	}
	for text, at := range map[string]int{"X7": 1, "bbbI": 4, "": 1, "IV7x": 4, "I/z": 3, "IIII": 4, "V7/bbbI": 7, "V7x/V": 3, "V7/3/V": 5, "X/V": 1} {
		_, err := mustKey(t, "C", MajorMode).ParseRoman(text)
		var symbolError *SymbolError
		require.ErrorAs(t, err, &symbolError, text)
		assert.Equal(t, at, symbolError.At, text)
		assert.NotEmpty(t, symbolError.Nearest)
	}
	for _, symbol := range []string{"C7", "Bb", "", "b", "m7"} {
		assert.False(t, LooksRoman(symbol), symbol)
	}
}

func TestFunctionInWords(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		chord string
		want  string
	}{
		{"C", DominantMode, "F7", "IV: a fourth above home; its 3 is the 6 of the key, its b7 is the b3 of the key"},
		{"C", DominantMode, "C7", "I: home; its 3 is the 3 of the key, its b7 is the b7 of the key"},
		{"C", DominantMode, "G7", "V: a fifth above home; its 3 is the 7 of the key, its b7 is the 4 of the key. The V: it wants to go home"},
		{"A", MinorMode, "G7", "bVII: a minor seventh above home; its 3 is the 2 of the key, its b7 is the b6 of the key"},
		{"A", MinorMode, "B7", "II: a whole step above home; its 3 is the #4 of the key, its b7 is home itself. It leads a fourth up, to the chord on E: V7/V"},
		{"C", DominantMode, "A7", "VI: a sixth above home; its 3 is the #1 of the key, its b7 is the 5 of the key. It leads a fourth up, to the chord on D: V7/ii"},
		{"C", MajorMode, "D7", "II: a whole step above home; its 3 is the #4 of the key, its b7 is home itself. It leads a fourth up, to the chord on G: V7/V"},
		{"C", MajorMode, "Gbdim7", "bv°: a diminished fifth above home; its b3 is the 6 of the key, its bb7 is the b3 of the key. It passes: its root moves a half step up to G or down again"},
		{"C", MajorMode, "Abdim7", "bvi°: a minor sixth above home; its b3 is the 7 of the key, its bb7 is the 4 of the key. It passes: its root moves a half step up to A or down again"},
		{"C", DominantMode, "F#dim7", "#iv°: an augmented fourth above home; its b3 is the 6 of the key, its bb7 is the b3 of the key. It passes: its root moves a half step up to G or down again"},
		{"F#", MinorMode, "D7", "bVI: a minor sixth above home; its 3 is home itself, its b7 is the b5 of the key. It stands a half step above the V and slides down into it"},
		{"Ab", MajorMode, "Bbb7", "bII: a half step above home; its 3 is the 4 of the key, its b7 is the 7 of the key. It stands a half step above home and slides down into it"},
		{"C", MajorMode, "A5", "VI: a sixth above home"},
	} {
		got := mustKey(t, c.tonic, c.mode).Function(mustChord(t, c.chord))
		assert.Equal(t, c.want, got)
	}
}

func TestSignatures(t *testing.T) {
	for _, c := range []struct {
		tonic  string
		mode   Mode
		fifths int
	}{
		{"C", MajorMode, 0}, {"C", DominantMode, 0}, {"A", MinorMode, 0}, {"Ab", MajorMode, -4}, {"F#", MinorMode, 3}, {"Gb", DominantMode, -6},
		{"F#", MajorMode, 6}, {"B", MajorMode, 5}, {"Bb", MinorMode, -5}, {"G#", MinorMode, 5}, {"F", MajorMode, -1}, {"Cb", MajorMode, -7},
	} {
		assert.Equal(t, c.fifths, mustKey(t, c.tonic, c.mode).Fifths(), "%s %s", c.tonic, c.mode)
		assert.Equal(t, c.tonic, TonicOf(c.fifths, c.mode).String())
	}
	for from, want := range map[string]string{"C#": "Db", "D#": "Eb", "G#": "Ab", "Gb": "F#", "Cb": "B", "Fb": "E", "B#": "C"} {
		assert.Equal(t, want, mustKey(t, from, MajorMode).Plain().Tonic.String())
	}
	for from, want := range map[string]string{"Ab": "G#", "Db": "C#", "Gb": "F#", "A#": "Bb", "D#": "D#"} {
		assert.Equal(t, want, mustKey(t, from, MinorMode).Plain().Tonic.String())
	}
}

func TestSoundingNotesAreNamed(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		notes string
		want  string
		exact bool
	}{
		{"C", DominantMode, "C E G Bb", "C7", true}, {"C", DominantMode, "F A C Eb", "F7", true}, {"C", DominantMode, "F# A C Eb", "F#dim7", true},
		{"Ab", MajorMode, "F Ab C", "Fm", true}, {"Ab", MajorMode, "F Ab C Eb", "Fm7", true}, {"Ab", MajorMode, "Ab C Eb F", "Ab6", true},
		{"F#", MinorMode, "F# A C# E", "F#m7", true}, {"F#", MinorMode, "C# E# B", "C#7", false}, {"C", MajorMode, "D F Ab C", "Dm7b5", true},
		{"Gb", MajorMode, "Cb Eb Gb", "Cb", true}, {"C", MajorMode, "G B D F A E", "G13", true}, {"C", MajorMode, "G C D", "Gsus4", true},
	} {
		var weights [12]float64
		var bass *pitch.Class
		for n, name := range splitNotes(t, c.notes) {
			class := name.Class()
			weights[class] = 1
			if n == 0 {
				bass = &class
			}
		}
		named := mustKey(t, c.tonic, c.mode).NameChord(weights, bass)
		require.NotEmpty(t, named)
		assert.Equal(t, c.want, named[0].Chord.Symbol(), c.notes)
		assert.Equal(t, c.exact, named[0].Exact(), c.notes)
	}
	assert.Empty(t, Key{Mode: MajorMode}.NameChord([12]float64{}, nil))
}

func splitNotes(t *testing.T, text string) []pitch.Note {
	t.Helper()
	notes := []pitch.Note{}
	for rest := text; rest != ""; {
		n, after, err := pitch.ReadNote(rest)
		require.NoError(t, err)
		notes = append(notes, n)
		rest = after
		if rest != "" {
			rest = rest[1:]
		}
	}
	return notes
}

// Every chord with its root in the bass is named as one that has exactly its
// notes.
func TestEveryChordIsNamedByItsNotes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		key := Key{Tonic: pitch.Note{Letter: pitch.Letter(rapid.IntRange(0, 6).Draw(t, "letter"))}, Mode: rapid.SampledFrom(Modes).Draw(t, "mode")}
		chord, err := ParseChord(rapid.SampledFrom(Tonics).Draw(t, "root") + rapid.SampledFrom(Signs()).Draw(t, "sign"))
		require.NoError(t, err)
		var weights [12]float64
		for _, tone := range chord.Tones() {
			weights[tone.Note.Class()] = 1
		}
		root := chord.Root.Class()
		named := key.NameChord(weights, &root)[0]
		assert.True(t, named.Exact(), "%s named %s", chord.Symbol(), named.Chord.Symbol())
		assert.Equal(t, root, named.Chord.Root.Class(), "%s named %s", chord.Symbol(), named.Chord.Symbol())
	})
}
