package harmony

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/pitch"
)

func TestChordScales(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		chord string
		name  string
		notes string
		rule  string
	}{
		{"C", DominantMode, "C7", "Mixolydian", "C D E F G A Bb", "a dominant of a blues joins as Mixolydian"},
		{"C", DominantMode, "F#dim7", "whole-half diminished", "F# G# A B C D Eb E#", "the usual scale of a diminished seventh chord"},
		{"C", MajorMode, "F", "Lydian", "F G A B C D E", "the key has this chord, so it joins as its mode in C major"},
		{"Ab", MajorMode, "Fm7", "natural minor", "F G Ab Bb C Db Eb", "the key has this chord, so it joins as its mode in Ab major"},
		{"Ab", MajorMode, "F7", "Phrygian dominant", "F Gb A Bb C Db Eb", "F7 leads to a minor chord, so it joins by the harmonic minor of that"},
		{"Ab", MajorMode, "C7", "Phrygian dominant", "C Db E F G Ab Bb", "C7 leads to a minor chord, so it joins by the harmonic minor of that"},
		{"Bb", DominantMode, "G7", "Phrygian dominant", "G Ab B C D Eb F", "G7 leads to a minor chord, so it joins by the harmonic minor of that"},
		{"Bb", DominantMode, "G7#9", "Phrygian dominant with #9", "G Ab A# B C D Eb F", "G7#9 leads to a minor chord, so it joins by the harmonic minor of that"},
		{"Ab", MajorMode, "Bb7", "Mixolydian", "Bb C D Eb F G Ab", "the key does not have this chord, so it joins by the usual scale of a dominant seventh chord"},
		{"C", DominantMode, "Ab7", "Lydian dominant", "Ab Bb C D Eb F Gb", "Ab7 is the bVI of the key, so it joins as Lydian dominant: its #11 is a note of the key"},
		{"A", MinorMode, "G7", "Mixolydian", "G A B C D E F", "the key has this chord, so it joins as its mode in A minor"},
		{"A", MinorMode, "E", "Phrygian dominant", "E F G# A B C D", "E leads to a minor chord, so it joins by the harmonic minor of that"},
		{"Ab", MajorMode, "Cm7", "Phrygian", "C Db Eb F G Ab Bb", "the key has this chord, so it joins as its mode in Ab major"},
		{"F#", MinorMode, "F#m7", "natural minor", "F# G# A B C# D E", "the key has this chord, so it joins as its mode in F# minor"},
		{"F#", MinorMode, "Bm7", "Dorian", "B C# D E F# G# A", "the key has this chord, so it joins as its mode in F# minor"},
		{"F#", MinorMode, "C#7", "Phrygian dominant", "C# D E# F# G# A B", "C#7 leads to a minor chord, so it joins by the harmonic minor of that"},
		{"F#", MinorMode, "D7", "Lydian dominant", "D E F# G# A B C", "D7 is the bVI of the key, so it joins as Lydian dominant: its #11 is a note of the key"},
		{"C", DominantMode, "G7alt", "altered", "G Ab A# B C# Eb F", "the usual scale of a altered chord"},
		{"C", DominantMode, "G7#11", "Lydian dominant", "G A B C# D E F", "the usual scale of a seventh sharp eleven chord"},
		{"C", DominantMode, "G7b9", "half-whole diminished", "G Ab A# B C# D E F", "the usual scale of a seventh flat nine chord"},
	} {
		scale, rule := mustKey(t, c.tonic, c.mode).ChordScale(mustChord(t, c.chord))
		assert.Equal(t, c.name, scale.Name, c.chord)
		assert.Equal(t, c.notes, spellTones(scale.Tones), c.chord)
		assert.Equal(t, strings.Replace(c.rule, "a altered", "an altered", 1), rule, c.chord)
	}
}

// Every chord's scale of the chord has the chord's own tones, and names them as the
// chord does.
func TestTheChordScaleHoldsTheChord(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mode := rapid.SampledFrom(Modes).Draw(t, "mode")
		key, err := ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(t, "tonic"), mode)
		require.NoError(t, err)
		chord, err := ParseChord(rapid.SampledFrom(Tonics).Draw(t, "root") + rapid.SampledFrom(EverySign()).Draw(t, "sign"))
		require.NoError(t, err)
		scale, rule := key.ChordScale(chord)
		assert.NotEmpty(t, rule)
		for _, tone := range chord.Tones() {
			found, ok := scale.tone(tone.Note.Class())
			assert.True(t, ok, "%s over %s lacks %s", scale.Name, chord.Symbol(), tone.Note)
			assert.Equal(t, tone, found)
		}
	})
}

// The scale of a dominant and the classes of its notes are of one mind: nothing that the
// scale offers is called outside. (A seventh with a lowered fifth has no scale of its own
// yet that leaves out the plain fifth.)
func TestNoToneOfADominantsScaleIsOutside(t *testing.T) {
	for _, mode := range Modes {
		for _, tonic := range mode.Tonics() {
			key := mustKey(t, tonic, mode)
			for _, root := range Tonics {
				for _, sign := range dominantSigns() {
					chord := mustChord(t, root+sign)
					scale, _ := key.ChordScale(chord)
					for _, tone := range scale.Tones {
						class := key.Classify(chord, tone.Note.Class())
						assert.NotEqual(t, Outside, class, "%s over %s in %s %s (%s)", tone.Note, chord.Symbol(), tonic, mode, scale.Name)
					}
				}
			}
		}
	}
}

func TestExtensionsAsTheKeyHasThem(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		chord string
		want  string
	}{
		{"C", DominantMode, "C7", "9 colour, 11 suspension, 13 colour"}, {"C", MajorMode, "F", "9 colour, #11 colour, 13 colour"},
		{"Ab", MajorMode, "Cm7", "b9 suspension, 11 colour, b13 colour"}, {"C", DominantMode, "C13", "11 suspension"},
		{"F#", MinorMode, "C#7", "b9 colour, 11 suspension, b13 colour"},
	} {
		said := []string{}
		for _, j := range mustKey(t, c.tonic, c.mode).Extensions(mustChord(t, c.chord)) {
			said = append(said, j.Degree.String()+" "+string(j.Class))
		}
		assert.Equal(t, c.want, strings.Join(said, ", "), c.chord)
	}
}

func TestANinthIsAddedToFour(t *testing.T) {
	key := mustKey(t, "C", DominantMode)
	for chord, want := range map[string]string{"C7": "C E G Bb D", "C9": "C E G Bb D", "G7b9": "G B D F Ab", "Am": "A C E B"} {
		assert.Equal(t, want, spellTones(key.WithNinth(mustChord(t, chord))), chord)
	}
}

// The arpeggios of other chords over the four usual sevenths, best first; behind
// the stroke those with one tone that leans.
func TestSuperimposedArpeggios(t *testing.T) {
	for _, c := range []struct {
		chord string
		mode  Mode
		want  string
	}{
		{"C7", DominantMode, "Em7b5 3 5 b7 9, Edim 3 5 b7, Gm 5 b7 9, Am 13 R 3, Am7 13 R 3 5 | Bbmaj7 b7 9 11 13, Fmaj7 11 13 R 3, " +
			"Gm7 5 b7 9 11, Bb b7 9 11, Dm 9 11 13, Dm7 9 11 13 R, F 11 13 R"},
		{"Dm7", MajorMode, "Fmaj7 b3 5 b7 9, Cmaj7 b7 9 11 13, F b3 5 b7, G7 11 13 R b3, Am7 5 b7 9 11, C b7 9 11, Em 9 11 13, Em7 9 11 13 R, " +
			"Am 5 b7 9, Bdim 13 R b3, Bm7b5 13 R b3 5, G 11 13 R | C7 b7 9 11 b13, Gm7 11 b13 R b3, Edim 9 11 b13, " +
			"Em7b5 9 11 b13 R, Bb b13 R b3, Bbmaj7 b13 R b3 5, Gm 11 b13 R"},
		{"Cmaj7", MajorMode, "Em7 3 5 7 9, Em 3 5 7, G 5 7 9, Am 13 R 3, Am7 13 R 3 5 | Bm7b5 7 9 11 13, Fmaj7 11 13 R 3, G7 5 7 9 11, " +
			"Bdim 7 9 11, Dm 9 11 13, Dm7 9 11 13 R, F 11 13 R"},
		{"Bm7b5", MajorMode, "Dm b3 b5 b7, Em7 11 b13 R b3, G b13 R b3, G7 b13 R b3 b5, Em 11 b13 R | Dm7 b3 b5 b7 b9, Dm(maj7) b3 b5 b7 9, " +
			"A7 b7 9 11 b13, Am7 b7 b9 11 b13, Fmaj7 b5 b7 b9 11, A b7 9 11, Am b7 b9 11, C b9 11 b13, Cmaj7 b9 11 b13 R, " +
			"C#dim 9 11 b13, C#aug 9 b5 b7, C#m7b5 9 11 b13 R, F b5 b7 b9, Faug b5 b7 9, Aaug b7 9 b5"},
	} {
		list := mustKey(t, "C", c.mode).Superimposed(mustChord(t, c.chord))
		said := strings.Builder{}
		for n, s := range list {
			switch {
			case n > 0 && s.Suspensions != nil && list[n-1].Suspensions == nil:
				said.WriteString(" | ")
			case n > 0:
				said.WriteString(", ")
			}
			said.WriteString(s.Arpeggio.Symbol())
			for _, j := range s.Tones {
				said.WriteString(" " + j.Degree.String())
				assert.True(t, j.Class == ChordTone || j.Class == Colour || s.Suspensions != nil && j.Class == Suspension, "%s over %s", s.Arpeggio.Symbol(), c.chord)
			}
			if n > 0 && (list[n-1].Suspensions == nil) == (s.Suspensions == nil) {
				assert.GreaterOrEqual(t, list[n-1].worth(), s.worth(), "best first")
			}
		}
		assert.Equal(t, c.want, said.String(), c.chord)
	}
	for _, c := range []struct {
		chord        string
		listed, left []string
	}{
		{"G7", []string{"Bdim"}, []string{"G7", "G"}},
		{"C7b9", []string{"Edim7", "Gdim7", "Dbdim7"}, []string{"C", "C7"}},
		{"C7alt", []string{"Gb7", "Dbm", "Dbm(maj7)", "Bbm7b5"}, []string{"C7"}},
		{"C7#5", []string{"Gb7", "Dbm(maj7)"}, []string{"Caug"}},
	} {
		symbols := []string{}
		for _, s := range mustKey(t, "C", DominantMode).Superimposed(mustChord(t, c.chord)) {
			symbols = append(symbols, s.Arpeggio.Symbol())
		}
		assert.Subset(t, symbols, c.listed, c.chord)
		for _, left := range c.left {
			assert.NotContains(t, symbols, left, "what the chord has on its own root adds nothing")
		}
	}
}

// dominantSigns are the signs of all dominants but those with a lowered fifth alone.
func dominantSigns() []string {
	signs := []string{}
	for _, sign := range EverySign() {
		q, _, _ := readSign(sign)
		if q.family == dominant && (!q.has("b5") || q.isAltered()) {
			signs = append(signs, sign)
		}
	}
	return signs
}

// A note over a chord has one name: that of the chord's scale, wherever it is asked.
func TestOneNameForOneNote(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		chord string
		note  string
		want  string
	}{
		{"C", DominantMode, "C7b9", "Eb", "#9 D#"}, {"C", DominantMode, "C7b9", "Gb", "#11 F#"}, {"C", DominantMode, "C7", "Eb", "b3 Eb"}, {"C", DominantMode, "C7", "F#", "b5 Gb"},
		{"C", DominantMode, "Db7", "G", "#11 G"}, {"C", DominantMode, "Gb7", "C", "#11 C"}, {"C", DominantMode, "Gb7", "A", "#9 A"}, {"C", DominantMode, "D#7", "F#", "b3 F#"},
		{"C", DominantMode, "C7#5", "Eb", "#9 D#"}, {"C", MajorMode, "Fmaj7", "B", "#11 B"}, {"C", MajorMode, "Em7", "F", "b9 F"}, {"C", MajorMode, "Bm7b5", "G", "b13 G"},
		{"Gb", DominantMode, "Gb7", "D", "#5 D"}, {"A", MinorMode, "E7", "G", "#9 G"}, {"C", MajorMode, "G9#5", "C#", "#11 C#"},
	} {
		note, err := pitch.ParseNote(c.note)
		require.NoError(t, err)
		tone := mustKey(t, c.tonic, c.mode).ToneOver(mustChord(t, c.chord), note.Class())
		assert.Equal(t, c.want, tone.Degree.String()+" "+tone.Note.String(), "%s over %s", c.note, c.chord)
	}
	rapid.Check(t, func(t *rapid.T) {
		mode := rapid.SampledFrom([]Mode{DominantMode, MajorMode, MinorMode}).Draw(t, "mode")
		key, err := ParseKey(rapid.SampledFrom(Tonics).Draw(t, "tonic"), mode)
		require.NoError(t, err)
		chord, err := ParseChord(rapid.SampledFrom(Tonics).Draw(t, "root") + rapid.SampledFrom(EverySign()).Draw(t, "sign"))
		require.NoError(t, err)
		scale, _ := key.ChordScale(chord)
		for _, tone := range scale.Tones {
			if tone.Note.Class().Above(chord.Root.Class()) == 3 && key.leadsToMinor(chord) {
				continue // written as the key has it
			}
			over := key.ToneOver(chord, tone.Note.Class())
			require.Equal(t, tone.Note, over.Note, "%s over %s in %s %s", tone.Note, chord.Symbol(), key.Tonic, key.Mode)
			require.Zero(t, (over.Degree.Number-tone.Degree.Number)%7)
		}
		for _, tension := range key.Extensions(chord) {
			require.Equal(t, key.ToneOver(chord, tension.Note.Class()), tension.Tone)
		}
		for class := range pitch.Class(12) {
			over := key.ToneOver(chord, class)
			if over.Degree.String() != "#9" {
				require.Equal(t, over.Degree.Over(chord.Root), over.Note, "degrees and letters agree")
			}
		}
	})
}
