package harmony

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/pitch"
)

var (
	cBlues = Key{Mode: DominantMode}
	cMajor = Key{Mode: MajorMode}
	cMinor = Key{Mode: MinorMode}
)

// row writes the classes of the twelve notes above a chord's root as letters.
func row(k Key, c Chord) string {
	letters := ""
	for above := range 12 {
		class := k.Judge(c, pitch.ClassOf(int(c.Root.Class())+above)).Class
		letters += map[Class]string{ChordTone: "T", Colour: "C", Blue: "B", Suspension: "S", Outside: "O"}[class]
	}
	return letters
}

func TestClassTable(t *testing.T) {
	for _, c := range []struct {
		key    Key
		symbol string
		want   string
	}{
		{cBlues, "C7", "TOCBTSBTOCTO"},
		{cBlues, "F7", "TOCBTSBTOCTO"},
		{cBlues, "C9", "TOTBTSBTOCTO"},
		{cBlues, "C13", "TOTBTSBTOTTO"},
		{cBlues, "C7b9", "TTSBTSBTOCTO"},
		{cBlues, "C7#9", "TCSTTSBTOCTO"},
		{cBlues, "C7alt", "TTSTTSTOTSTO"},
		{cBlues, "C7b5", "TOCBTSTOOCTO"},
		{cBlues, "C7#11", "TOCBTSTTOCTO"},
		{cBlues, "C7b13", "TOCBTSBTTSTO"},
		{cBlues, "C", "TOCBTSOTOCBO"},
		{cMajor, "C", "TOCBTSOTOCBC"},
		{cMajor, "F", "TOCBTOCTOCBC"},
		{cMajor, "G", "TOCBTSOTOCBO"},
		{cMajor, "C6", "TOCBTSOTOTBC"},
		{cMajor, "Cmaj7", "TOCBTSOTOCOT"},
		{cMajor, "Fmaj7", "TOCBTOCTOCOT"},
		{cBlues, "Cm7", "TOCTOCBTSCTO"},
		{cMinor, "Cm7", "TOCTOCBTCSTO"},
		// The V of a minor chord: b9, #9 and b13 are colour, the plain 9 and 13 outside.
		{cMinor, "G7", "TCOCTSBTCOTO"},
		{cMinor, "G", "TCOCTSBTCOCO"},
		{cMinor, "G7b9", "TTOCTSBTCOTO"},
		{cMinor, "G7#9", "TCOTTSBTCOTO"},
		{cMinor, "G9", "TOTBTSBTOCTO"},
		{cMajor, "A7", "TCOCTSBTCOTO"},
		{cMajor, "E7", "TCOCTSBTCOTO"},
		{cBlues, "A7", "TCOCTSBTCOTO"},
		{cMajor, "D7", "TOCBTSBTOCTO"},
		{cMajor, "G7", "TOCBTSBTOCTO"},
		// bII7, bVI7 and bVII7: the #11 is colour, the 4 outside; IV7 stays as it is.
		{cBlues, "Db7", "TOCBTOCTOCTO"},
		{cBlues, "Ab7", "TOCBTOCTOCTO"},
		{cMajor, "Bb7", "TOCBTOCTOCTO"},
		{cMinor, "Ab7", "TOCBTOCTOCTO"},
		{cMinor, "Bb7", "TOCBTSBTOCTO"},
		{cMajor, "Em7", "TSOTOCBTCSTO"},
		{cMinor, "Fm7", "TOCTOCBTSCTO"},
		{cMinor, "Cm6", "TOCTOCBTCTCO"},
		{cMinor, "Cm(maj7)", "TOCTOCBTCSOT"},
		{cMajor, "Bm7b5", "TSSTOCTOCOTO"},
		{cMajor, "Bdim", "TSSTOCTOCOCO"},
		{cBlues, "Cdim7", "TOCTOCTOCTOC"},
		{cBlues, "C7sus4", "TOCBSTOTOCTO"},
		{cBlues, "Csus2", "TOTSSCOTOCCO"},
		{cBlues, "C7#5", "TCCCTSCOTSTO"},
		{cBlues, "C5", "TOCCCSBTOCCO"},
	} {
		chord := mustChord(t, c.symbol)
		assert.Equal(t, c.want, row(c.key, chord), "%s in %s", c.symbol, c.key.Mode)
	}
}

func TestReasonsAreWholeSentences(t *testing.T) {
	c7, g7 := mustChord(t, "C7"), mustChord(t, "G7")
	for _, c := range []struct {
		chord Chord
		note  string
		want  string
	}{
		{c7, "E", "E is the 3 of C7: a chord tone, rest on it."},
		{c7, "C", "C is the root of C7: a chord tone, rest on it."},
		{c7, "Eb", "Eb is the b3 of C7: lean on it, and bend or slide it up to E, the 3."},
		{c7, "F", "F is the 11 of C7: it suspends, and wants to move to E, the 3."},
		{c7, "D", "D is the 9 of C7: rest on it and it adds colour."},
		{c7, "Db", "Db is the b9 of C7: pass through it, never rest on it."},
		{g7, "C", "C is the 11 of G7: it suspends, and wants to move to B, the 3; over the V it may stay longer, tension belongs there."},
	} {
		note, err := pitch.ParseNote(c.note)
		assert.NoError(t, err)
		assert.Equal(t, c.want, cBlues.Judge(c.chord, note.Class()).Reason)
	}
}

// In A minor, F and C belong to the V: the b9 and the b13 of E7.
func TestTheDominantOfAMinorKey(t *testing.T) {
	aMinor := Key{Tonic: mustNote(t, "A"), Mode: MinorMode}
	e7 := mustChord(t, "E7")
	for _, c := range []struct{ note, want string }{
		{"F", "F is the b9 of E7: rest on it and it adds colour; over the V it may stay longer, tension belongs there."},
		{"C", "C is the b13 of E7: rest on it and it adds colour; over the V it may stay longer, tension belongs there."},
		{"G", "G is the #9 of E7: rest on it and it adds colour; over the V it may stay longer, tension belongs there."},
		{"A", "A is the 11 of E7: it suspends, and wants to move to G#, the 3; over the V it may stay longer, tension belongs there."},
		{"F#", "F# is the 9 of E7: pass through it, never rest on it."},
		{"C#", "C# is the 13 of E7: pass through it, never rest on it."},
	} {
		assert.Equal(t, c.want, aMinor.Judge(e7, mustNote(t, c.note).Class()).Reason)
	}
	arpeggios := []string{}
	for _, s := range aMinor.Superimposed(e7) {
		arpeggios = append(arpeggios, s.Arpeggio.Symbol())
	}
	assert.Contains(t, arpeggios, "Fdim7", "the diminished seventh on its b9")
	assert.NotContains(t, arpeggios, "Bm", "it has the plain 9")
}

func mustNote(t *testing.T, text string) pitch.Note {
	t.Helper()
	note, err := pitch.ParseNote(text)
	require.NoError(t, err)
	return note
}

// Over every chord in every key: its tones are chord tones, and whatever wants to move
// moves to a chord tone, within two semitones.
func TestWhatMovesMovesHome(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		letter := pitch.Letter(rapid.IntRange(0, 6).Draw(t, "letter"))
		root := pitch.Note{Letter: letter, Accidental: rapid.IntRange(-1, 1).Draw(t, "accidental")}
		key := Key{Mode: rapid.SampledFrom([]Mode{DominantMode, MajorMode, MinorMode}).Draw(t, "mode")}
		chord, err := ParseChord(root.String() + rapid.SampledFrom(EverySign()).Draw(t, "sign"))
		assert.NoError(t, err)
		for class := range pitch.Class(12) {
			j := key.Judge(chord, class)
			assert.Equal(t, class, j.Note.Class())
			if _, ok := chord.Tone(class); ok {
				assert.Equal(t, ChordTone, j.Class)
			}
			if j.Class == Blue || j.Class == Suspension {
				assert.Equal(t, ChordTone, key.Judge(chord, j.GoesTo.Note.Class()).Class, "%s over %s", j.Note, chord.Symbol())
				distance := j.GoesTo.Note.Class().Above(class)
				assert.Contains(t, []int{1, 2, 10, 11}, distance)
			} else {
				assert.Nil(t, j.GoesTo)
			}
		}
	})
}

func TestBoxByKey(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		kind  BoxKind
		name  string
		notes string
	}{
		{"C", DominantMode, "", "C minor pentatonic", "C Eb F G Bb"},
		{"F#", MinorMode, "", "F# minor pentatonic", "F# A B C# E"},
		{"Ab", MajorMode, "", "Ab major pentatonic", "Ab Bb C Eb F"},
		{"Gb", DominantMode, "", "Gb minor pentatonic", "Gb Bbb Cb Db Fb"},
		{"B", DominantMode, MinorBlues, "B minor blues", "B D E F F# A"},
	} {
		key, err := ParseKey(c.tonic, c.mode)
		assert.NoError(t, err)
		box, err := key.Box(c.kind)
		assert.NoError(t, err)
		assert.Equal(t, c.name, box.Name())
		assert.Equal(t, c.notes, spellTones(box.Tones))
	}
	_, err := cBlues.Box("hirajoshi")
	assert.ErrorContains(t, err, "minor pentatonic, major pentatonic, minor blues")
}

func TestParseKeySaysWhatIsAllowed(t *testing.T) {
	for _, tonic := range Tonics {
		_, err := ParseKey(tonic, DominantMode)
		assert.NoError(t, err)
	}
	for _, bad := range [][2]string{{"H", "major"}, {"Cbb", "major"}, {"C", "phrygian"}, {"", ""}} {
		_, err := ParseKey(bad[0], Mode(bad[1]))
		assert.ErrorContains(t, err, "is not a key")
	}
}
