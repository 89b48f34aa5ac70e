package harmony

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/pitch"
)

func mustChord(t testing.TB, symbol string) Chord {
	t.Helper()
	c, err := ParseChord(symbol)
	require.NoError(t, err)
	return c
}

func spell(c Chord) string { return spellTones(c.Tones()) }

func spellTones(tones []Tone) string {
	notes := make([]string, len(tones))
	for i, tone := range tones {
		notes[i] = tone.Note.String()
	}
	return strings.Join(notes, " ")
}

func TestSeventhChordsInAllSeventeenWrittenRoots(t *testing.T) {
	for symbol, want := range map[string]string{
		"C7": "C E G Bb", "C#7": "C# E# G# B", "Db7": "Db F Ab Cb", "D7": "D F# A C", "D#7": "D# F## A# C#",
		"Eb7": "Eb G Bb Db", "E7": "E G# B D", "F7": "F A C Eb", "F#7": "F# A# C# E", "Gb7": "Gb Bb Db Fb",
		"G7": "G B D F", "G#7": "G# B# D# F#", "Ab7": "Ab C Eb Gb", "A7": "A C# E G", "A#7": "A# C## E# G#",
		"Bb7": "Bb D F Ab", "B7": "B D# F# A",
	} {
		assert.Equal(t, want, spell(mustChord(t, symbol)), symbol)
	}
}

func TestMinorAndDiminishedInAllSeventeenWrittenRoots(t *testing.T) {
	for root, want := range map[string][2]string{
		"C": {"C Eb G", "C Eb Gb Bbb"}, "C#": {"C# E G#", "C# E G Bb"}, "Db": {"Db Fb Ab", "Db Fb Abb Cbb"},
		"D": {"D F A", "D F Ab Cb"}, "D#": {"D# F# A#", "D# F# A C"}, "Eb": {"Eb Gb Bb", "Eb Gb Bbb Dbb"},
		"E": {"E G B", "E G Bb Db"}, "F": {"F Ab C", "F Ab Cb Ebb"}, "F#": {"F# A C#", "F# A C Eb"},
		"Gb": {"Gb Bbb Db", "Gb Bbb Dbb Fbb"}, "G": {"G Bb D", "G Bb Db Fb"}, "G#": {"G# B D#", "G# B D F"},
		"Ab": {"Ab Cb Eb", "Ab Cb Ebb Gbb"}, "A": {"A C E", "A C Eb Gb"}, "A#": {"A# C# E#", "A# C# E G"},
		"Bb": {"Bb Db F", "Bb Db Fb Abb"}, "B": {"B D F#", "B D F Ab"},
	} {
		assert.Equal(t, want[0], spell(mustChord(t, root+"m")), root)
		assert.Equal(t, want[1], spell(mustChord(t, root+"dim7")), root)
	}
}

func TestEveryQualityOnC(t *testing.T) {
	want := map[string]string{
		"C": "C E G", "Cm": "C Eb G", "C7": "C E G Bb", "Cmaj7": "C E G B", "Cm7": "C Eb G Bb", "Cm(maj7)": "C Eb G B",
		"Cm7b5": "C Eb Gb Bb", "Cdim": "C Eb Gb", "Cdim7": "C Eb Gb Bbb", "Caug": "C E G#", "C6": "C E G A", "Cm6": "C Eb G A",
		"C6/9": "C E G A D", "C9": "C E G Bb D", "Cm9": "C Eb G Bb D", "Cmaj9": "C E G B D", "C11": "C E G Bb D F",
		"Cm11": "C Eb G Bb D F", "C13": "C E G Bb D A", "Cm13": "C Eb G Bb D F A", "Cadd9": "C E G D", "Csus2": "C D G",
		"Csus4": "C F G", "C7sus4": "C F G Bb", "C9sus4": "C F G Bb D", "C7b9": "C E G Bb Db", "C7#9": "C E G Bb D#",
		"C7#5": "C E G# Bb", "C7b5": "C E Gb Bb", "C7b13": "C E G Bb Ab", "C7#11": "C E G Bb F#", "C7alt": "C E Bb Db D# F# Ab", "C5": "C G",
	}
	require.Len(t, want, len(Signs()))
	for _, sign := range Signs() {
		c := mustChord(t, "C"+sign)
		assert.Equal(t, want["C"+sign], spell(c), sign)
		assert.Equal(t, "C"+sign, c.Symbol())
	}
}

func TestAliasesAreReadAndOneSymbolIsWritten(t *testing.T) {
	for alias, want := range map[string]string{
		"CM7": "Cmaj7", "CΔ": "Cmaj7", "CΔ7": "Cmaj7", "Cmin7": "Cm7", "C-7": "Cm7", "Cø": "Cm7b5", "Co": "Cdim", "C+": "Caug",
		"C7+5": "C7#5", "Cdom7": "C7", "B♭7": "Bb7", "F♯m7♭5": "F#m7b5", "C7(b9)": "C7b9", "Cm(M7)": "Cm(maj7)",
		"C/E": "C/E", "C7/Bb": "C7/Bb", "C69": "C6/9", "C6/9": "C6/9", "Cm/maj7": "Cm(maj7)", "Csus": "Csus4", " G7 ": "G7",
	} {
		assert.Equal(t, want, mustChord(t, alias).Symbol(), alias)
	}
}

func TestUnknownSymbolNamesPlaceAndNearest(t *testing.T) {
	_, err := ParseChord("Cm7x")
	var symbolError *SymbolError
	require.ErrorAs(t, err, &symbolError)
	assert.Equal(t, 4, symbolError.At)
	assert.Contains(t, symbolError.Nearest, "Cm7")
	for symbol, at := range map[string]int{"J7": 1, "": 1, "Bb7b7": 4, "C7/H": 3, "Cwat": 2} {
		_, err := ParseChord(symbol)
		require.ErrorAs(t, err, &symbolError, symbol)
		assert.Equal(t, at, symbolError.At, symbol)
		assert.Len(t, symbolError.Nearest, 3, symbol)
	}
	_, err = ParseChord("Hm7")
	require.ErrorAs(t, err, &symbolError)
	assert.Equal(t, []string{"Bm7"}, symbolError.Nearest, "the B of some countries")
}

func TestTransposeKeepsLetterDistance(t *testing.T) {
	note := func(text string) pitch.Note { n, err := pitch.ParseNote(text); require.NoError(t, err); return n }
	for to, want := range map[string]string{"Db": "Db7 Gb7 Ab7", "C#": "C#7 F#7 G#7", "F#": "F#7 B7 C#7", "Gb": "Gb7 Cb7 Db7", "B": "B7 E7 F#7"} {
		got := []string{}
		for _, symbol := range []string{"C7", "F7", "G7"} {
			got = append(got, mustChord(t, symbol).Transposed(note("C"), note(to)).Symbol())
		}
		assert.Equal(t, want, strings.Join(got, " "))
	}
	assert.Equal(t, "D/F#", mustChord(t, "C/E").Transposed(note("C"), note("D")).Symbol())
}

// Every chord on every root: tones sound their degree, take its letter, and the
// symbol reads back as the same chord.
func TestSpellingHoldsForEveryRootAndQuality(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		root := pitch.Note{Letter: pitch.Letter(rapid.IntRange(0, 6).Draw(t, "letter")), Accidental: rapid.IntRange(-1, 1).Draw(t, "accidental")}
		sign := rapid.SampledFrom(EverySign()).Draw(t, "sign")
		c, err := ParseChord(root.String() + sign)
		require.NoError(t, err)
		assert.Equal(t, root.String()+sign, c.Symbol())
		for _, tone := range c.Tones() {
			assert.Equal(t, tone.Degree.Semitones(), tone.Note.Class().Above(root.Class()))
			assert.Equal(t, (int(root.Letter)+tone.Degree.Number-1)%7, int(tone.Note.Letter))
		}
	})
}

func TestRoman(t *testing.T) {
	key := Key{Tonic: pitch.Note{}, Mode: DominantMode}
	for symbol, want := range map[string]string{
		"C7": "I", "F7": "IV", "G7": "V", "Dm7": "ii", "Ab7": "bVI", "F#dim7": "#iv°", "Bm7b5": "viiø", "Eb7": "bIII", "Db7": "bII", "Caug": "I+", "Cm": "i",
	} {
		assert.Equal(t, want, key.Roman(mustChord(t, symbol)), symbol)
	}
}

func FuzzParseChord(f *testing.F) {
	for _, seed := range []string{"C7", "F#m7b5/A", "B♭maj7", "C6/9", "", "H", "C7/H", "Cm(maj7)"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, symbol string) {
		c, err := ParseChord(symbol)
		if err != nil {
			var symbolError *SymbolError
			require.ErrorAs(t, err, &symbolError)
			return
		}
		again, err := ParseChord(c.Symbol())
		require.NoError(t, err)
		assert.Equal(t, c.Symbol(), again.Symbol())
	})
}
