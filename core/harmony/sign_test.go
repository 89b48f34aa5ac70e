package harmony

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/pitch"
)

// What lead sheets write, the one symbol that is written for it, and its notes.
func TestLeadSheetSymbols(t *testing.T) {
	for _, c := range []struct{ read, symbol, notes string }{
		{"CΔ", "Cmaj7", "C E G B"}, {"C∆", "Cmaj7", "C E G B"}, {"C△7", "Cmaj7", "C E G B"}, {"C^7", "Cmaj7", "C E G B"}, {"C^", "Cmaj7", "C E G B"}, {"C∆9", "Cmaj9", "C E G B D"},
		{"CMaj", "C", "C E G"}, {"CMa7", "Cmaj7", "C E G B"}, {"CMAJ7", "Cmaj7", "C E G B"}, {"CØ7", "Cm7b5", "C Eb Gb Bb"}, {"CmMaj7", "Cm(maj7)", "C Eb G B"}, {"CmΔ", "Cm(maj7)", "C Eb G B"},
		{"Cmi6", "Cm6", "C Eb G A"}, {"C7(9)", "C9", "C E G Bb D"}, {"Cm6/9", "Cm6/9", "C Eb G A D"}, {"Cm69", "Cm6/9", "C Eb G A D"}, {"Cm(add9)", "Cm(add9)", "C Eb G D"}, {"Cmadd9", "Cm(add9)", "C Eb G D"},
		{"Cm(maj9)", "Cm(maj9)", "C Eb G B D"}, {"Cmaj13", "Cmaj13", "C E G B D A"}, {"Cmaj7♯11", "Cmaj7#11", "C E G B F#"}, {"Cmaj7(#11)", "Cmaj7#11", "C E G B F#"}, {"Cmaj7♯5", "Cmaj7#5", "C E G# B"}, {"C+maj7", "Cmaj7#5", "C E G# B"},
		{"C9♯11", "C9#11", "C E G Bb D F#"}, {"C13♯11", "C13#11", "C E G Bb D F# A"}, {"C13♭9", "C13b9", "C E G Bb Db A"}, {"C7♭9♭13", "C7b9b13", "C E G Bb Db Ab"}, {"C7b13b9", "C7b9b13", "C E G Bb Db Ab"},
		{"C7(♭9,♯11)", "C7b9#11", "C E G Bb Db F#"}, {"C7(b9, #11)", "C7b9#11", "C E G Bb Db F#"}, {"C7♯5♯9", "C7#5#9", "C E G# Bb D#"}, {"C7#9#5", "C7#5#9", "C E G# Bb D#"}, {"C7♭5♭9", "C7b5b9", "C E Gb Bb Db"},
		{"C9♯5", "C9#5", "C E G# Bb D"}, {"C+9", "C9#5", "C E G# Bb D"}, {"C+7", "C7#5", "C E G# Bb"}, {"C13sus4", "C13sus4", "C F G Bb D A"}, {"C13sus", "C13sus4", "C F G Bb D A"}, {"C7sus4♭9", "C7sus4b9", "C F G Bb Db"}, {"C7b9sus4", "C7sus4b9", "C F G Bb Db"},
		{"C2", "Csus2", "C D G"}, {"C4", "Csus4", "C F G"}, {"Cadd4", "Cadd11", "C E G F"}, {"Cadd11", "Cadd11", "C E G F"}, {"Cadd2", "Cadd9", "C E G D"}, {"(C7)", "C7", "C E G Bb"}, {"( Bb7 )", "Bb7", "Bb D F Ab"},
		{"C-7b5", "Cm7b5", "C Eb Gb Bb"}, {"Cm7(b5)", "Cm7b5", "C Eb Gb Bb"}, {"Cm9b5", "Cm9b5", "C Eb Gb Bb D"}, {"C-9", "Cm9", "C Eb G Bb D"}, {"C°7", "Cdim7", "C Eb Gb Bbb"}, {"Cdim", "Cdim", "C Eb Gb"}, {"Cmb5", "Cdim", "C Eb Gb"}, {"C#5", "C#5", "C# G#"},
		{"C(#5)", "Caug", "C E G#"}, {"C7alt", "C7alt", "C E Bb Db D# F# Ab"}, {"Calt", "C7alt", "C E Bb Db D# F# Ab"}, {"C7b9#9", "C7b9#9", "C E G Bb Db D#"}, {"Cno3", "C5", "C G"}, {"C7-9", "C7b9", "C E G Bb Db"}, {"C7+9", "C7#9", "C E G Bb D#"},
		{"Csus2", "Csus2", "C D G"}, {"Csus7", "C7sus4", "C F G Bb"}, {"C9sus", "C9sus4", "C F G Bb D"}, {"C6add9", "C6/9", "C E G A D"}, {"C6/9/E", "C6/9/E", "C E G A D"}, {"Cm7/Bb", "Cm7/Bb", "C Eb G Bb"}, {"C11", "C11", "C E G Bb D F"}, {"Cm7(11)", "Cm11", "C Eb G Bb D F"},
		{"C7(13)", "C13", "C E G Bb D A"}, {"C7#5b9", "C7#5b9", "C E G# Bb Db"}, {"Cdom9", "C9", "C E G Bb D"}, {"Cdom", "C7", "C E G Bb"}, {"C6/9#11", "C6/9#11", "C E G A D F#"}, {"C6/9(#11)", "C6/9#11", "C E G A D F#"}, {"C69#11/G", "C6/9#11/G", "C E G A D F#"},
	} {
		chord, err := ParseChord(c.read)
		require.NoError(t, err, c.read)
		assert.Equal(t, c.symbol, chord.Symbol(), c.read)
		assert.Equal(t, c.notes, spell(chord), c.read)
	}
}

// What no chord is, with what could be meant.
func TestSymbolsThatAreRefused(t *testing.T) {
	for symbol, nearest := range map[string][]string{
		"C(9)": {"C9", "Cadd9"}, "C(11)": {"C11", "Cadd11"}, "C/D7": {"C/D", "C", "D7"}, "Cmaj7/Dm7": {"Cmaj7/D", "Cmaj7", "Dm7"},
	} {
		_, err := ParseChord(symbol)
		var fault *SymbolError
		require.ErrorAs(t, err, &fault, symbol)
		assert.Equal(t, nearest, fault.Nearest, symbol)
	}
	for _, symbol := range []string{"C9b9", "C13b13", "C7(9)(b9)", "C7b9(9)", "C7(11)(#11)", "C7(13)b13", "C7add9b9", "C11#11", "C7b5#11", "C7#5b13", "Cm7#9", "Csus4add11", "C6maj7", "C5b9", "Cb9b9x", "Cdim9", "Cmaj7b9", "C7sus4#9", "Cm#5", "C)", "C((7", "C7 7", "C7,,7",
		"C7omit3", "C7no3", "Cmsus4", "Cm7sus4", "Cm7alt", "C7sus4alt", "C9alt", "Csus4sus2", "Cdimsus4", "C6/9b9", "Cm6/9#11"} {
		_, err := ParseChord(symbol)
		assert.Error(t, err, symbol)
	}
}

// Every quality there is, on all 35 roots: its symbol is read as itself, its tones are spelled by letter, it is found by
// its degrees, and no two qualities are written alike.
func TestEveryQualityOnEveryRoot(t *testing.T) {
	signs := map[string]*Quality{}
	for _, q := range bySpec {
		if other := signs[q.Sign]; other != nil {
			require.Same(t, other, q, q.Sign)
		}
		signs[q.Sign] = q
	}
	assert.Greater(t, len(signs), 90)
	for sign, q := range signs {
		assert.NotEmpty(t, q.Name, sign)
		found, ok := QualityOf(q.Degrees())
		require.True(t, ok, sign)
		assert.Equal(t, degreeKey(q.degrees), degreeKey(found.degrees), sign)
		for letter := range 7 {
			for accidental := -2; accidental <= 2; accidental++ {
				root := pitch.Note{Letter: pitch.Letter(letter), Accidental: accidental}
				chord, err := ParseChord(root.String() + sign)
				require.NoError(t, err, root.String()+sign)
				require.Equal(t, sign, chord.Quality.Sign)
				require.Equal(t, root, chord.Root)
				for _, tone := range chord.Tones() {
					require.Equal(t, (letter+tone.Degree.Number-1)%7, int(tone.Note.Letter))
				}
			}
		}
	}
}

// Brackets, commas, order and signs of accidentals change nothing.
func TestAlterationsInAnyOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		parts := rapid.SampledFrom([][]string{{"b9", "b13"}, {"b9", "#11"}, {"#5", "#9"}, {"b5", "b9"}, {"b9", "#9"}, {"#9", "b13"}, {"b9", "#9", "b13"}, {"#5", "b9", "#9"}}).Draw(t, "parts")
		want, err := ParseChord("G7" + strings.Join(parts, ""))
		require.NoError(t, err)
		shuffled := rapid.Permutation(parts).Draw(t, "order")
		text := strings.Join(shuffled, rapid.SampledFrom([]string{"", ",", ", ", " "}).Draw(t, "between"))
		if rapid.Bool().Draw(t, "brackets") {
			text = "(" + text + ")"
		}
		if rapid.Bool().Draw(t, "signs") {
			text = strings.NewReplacer("b", "♭", "#", "♯").Replace(text)
		}
		got, err := ParseChord("G7" + text)
		require.NoError(t, err, text)
		assert.Equal(t, want.Symbol(), got.Symbol(), text)
	})
}

// No word that a symbol ends with is lost: it is heard in the chord, or the symbol is refused.
func TestNoWordIsLost(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := "C" + rapid.SampledFrom([]string{"", "m", "maj", "sus2", "sus4", "dim", "aug"}).Draw(t, "triad") + rapid.SampledFrom([]string{"", "6", "7", "9", "13", "7b9"}).Draw(t, "number")
		word := rapid.SampledFrom([]string{"sus2", "sus4", "alt", "no3", "omit3"}).Draw(t, "word")
		chord, err := ParseChord(text + word)
		if err != nil {
			return
		}
		q := chord.Quality
		heard := map[string]bool{"sus2": q.has("2"), "sus4": q.has("4"), "alt": q.Sign == "7alt", "no3": !q.has("3") && !q.has("b3"), "omit3": !q.has("3") && !q.has("b3")}
		require.True(t, heard[word], "%s is read as %s", text+word, chord.Symbol())
	})
}

// No degree that a symbol names is lost: what is read holds each of them, or the symbol is refused.
func TestNoNamedDegreeIsLost(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := "C" + rapid.SampledFrom([]string{"", "m", "maj", "sus4", "dim", "+"}).Draw(t, "triad") + rapid.SampledFrom([]string{"", "6", "7", "9", "11", "13"}).Draw(t, "number")
		named := rapid.SliceOfN(rapid.SampledFrom([]string{"b5", "#5", "b9", "9", "#9", "11", "#11", "b13", "13"}), 0, 4).Draw(t, "named")
		for _, degree := range named {
			if rapid.Bool().Draw(t, "inBrackets") {
				degree = "(" + degree + ")"
			}
			text += degree
		}
		chord, err := ParseChord(text)
		if err != nil {
			return
		}
		if len(named) > 0 && strings.HasPrefix(text, "C"+named[0]) {
			return // C11b9 is an eleventh, C#5 a power chord
		}
		for _, degree := range named {
			if degree == "11" && chord.Quality.has("13") {
				continue // our thirteenths have no 11
			}
			require.True(t, chord.Quality.has(degree) || strings.HasPrefix(chord.Quality.Sign, "dim") && degree == "b5", "%s is read as %s without its %s", text, chord.Symbol(), degree)
		}
	})
}
