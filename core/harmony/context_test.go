package harmony

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/pitch"
)

// What follows a dominant says by which scale it joins and what it is called.
func TestWhatFollowsADominant(t *testing.T) {
	for _, c := range []struct {
		tonic       string
		mode        Mode
		chord, next string
		scale       string
		numeral     string
	}{
		{"C", MajorMode, "A7", "Dm7", "Phrygian dominant", "V7/ii"},
		{"C", MajorMode, "A7", "D7", "Mixolydian", "V7/II"},
		{"C", MajorMode, "A7", "F", "Phrygian dominant", "VI"},
		{"C", MajorMode, "D7", "G7", "Mixolydian", "V7/V"},
		{"C", MajorMode, "D7", "Gm7", "Phrygian dominant", "V7/v"},
		{"C", MajorMode, "C7", "F", "Mixolydian", "V7/IV"},
		{"C", MajorMode, "C7", "Fm", "Phrygian dominant", "V7/iv"},
		{"C", MajorMode, "Gm7", "C7", "Dorian", "ii7/IV"},
		{"C", MajorMode, "C#dim7", "Dm", "whole-half diminished", "vii°7/ii"},
		{"C", MajorMode, "E7", "Am", "Phrygian dominant", "V7/vi"},
		{"C", MajorMode, "Eb7", "D7", "Lydian dominant", "bIII"},
		{"C", MajorMode, "G7", "C", "Mixolydian", "V"},
		{"C", DominantMode, "C7", "Fm7", "Mixolydian", "I"},
		{"C", DominantMode, "A7", "Dm7", "Phrygian dominant", "VI"},
		{"C", DominantMode, "A7", "D7", "Mixolydian", "VI"},
		{"C", DominantMode, "F7", "C7", "Mixolydian", "IV"},
		{"C", DominantMode, "Db7", "C7", "Lydian dominant", "bII"},
		{"A", MinorMode, "E7", "Am7", "Phrygian dominant", "V"},
		{"A", MinorMode, "E7", "A7", "Mixolydian", "V"},
		{"A", MinorMode, "F7", "E7", "Lydian dominant", "bVI"},
	} {
		key, err := ParseKey(c.tonic, c.mode)
		require.NoError(t, err)
		chord := mustChord(t, c.chord)
		in := chord.In(key.Following(chord, mustChord(t, c.next)))
		scale, why := key.ChordScale(in)
		assert.Equal(t, c.scale, scale.Name, "%s before %s in %s %s: %s", c.chord, c.next, c.tonic, c.mode, why)
		assert.Equal(t, c.numeral, key.Roman(in), "%s before %s in %s %s", c.chord, c.next, c.tonic, c.mode)
		assert.NotEmpty(t, why)
	}
}

// A chord in a context is judged in its own key, whatever key is asked.
func TestAContextDecides(t *testing.T) {
	c, err := ParseKey("C", MajorMode)
	require.NoError(t, err)
	eb, err := ParseKey("Eb", MajorMode)
	require.NoError(t, err)
	f := mustChord(t, "F7")
	there := f.In(Context{Key: eb})
	for class := range 12 {
		assert.Equal(t, eb.Judge(f, pitch.Class(class)), c.Judge(there, pitch.Class(class)))
	}
	assert.Equal(t, "II", c.Roman(there))
	assert.True(t, there.SameContext(f.In(Context{Key: eb}), c))
	assert.False(t, there.SameContext(f, c))
	assert.True(t, f.SameContext(f.In(Context{Key: c}), c))
	assert.NotEqual(t, f.Identity(), there.Identity())
	assert.Equal(t, f, there.WithoutContext())
}

// Each scale of a dominant: what it adds, and what its notes are over the chord. The scales are those of
// any jazz theory (see dominantScales); o outside, c colour, b blue, s suspension, T chord tone.
func TestScalesOfADominant(t *testing.T) {
	key, err := ParseKey("C", MajorMode)
	require.NoError(t, err)
	g := mustChord(t, "G7")
	letters := map[Class]string{ChordTone: "T", Colour: "c", Blue: "b", Suspension: "s", Outside: "o"}
	for n, want := range []struct{ name, adds, classes string }{
		{"Mixolydian", "9 11 13", "TocbTsbTocTo"},
		{"Lydian dominant", "9 #11 13", "TocbTocTocTo"},
		{"Phrygian dominant", "b9 11 b13", "TcocTsbTcoTo"},
		{"altered", "b9 #9 #11 b13", "TcocTocTcoTo"},
		{"half-whole diminished", "b9 #9 #11 13", "TcocTocTocTo"},
		{"minor blues", "b3 11 b5", "ToobTsbTooTo"},
	} {
		choice := g.Scales()[n]
		assert.Equal(t, want.name, choice.Name)
		added := ""
		for k, tone := range choice.Adds {
			if k > 0 {
				added += " "
			}
			added += tone.Degree.String()
		}
		assert.Equal(t, want.adds, added, want.name)
		chosen := g.In(Context{Key: key, Scale: want.name, Why: PlayerChose})
		classes := ""
		for above := range 12 {
			classes += letters[key.Classify(chosen, pitch.ClassOf(7+above))]
		}
		assert.Equal(t, want.classes, classes, want.name)
		scale, why := key.ChordScale(chosen)
		assert.Equal(t, want.name, scale.Name)
		assert.Equal(t, "your choice for G7", why)
		for _, tone := range scale.Tones {
			over := key.ToneOver(chosen, tone.Note.Class())
			assert.Equal(t, over.Note, tone.Note, "one name for one note: %s in %s", tone.Note, want.name)
		}
	}
	names := func(symbol string) []string {
		all := []string{}
		for _, one := range mustChord(t, symbol).Scales() {
			all = append(all, one.Name)
		}
		return all
	}
	assert.Equal(t, []string{"Phrygian dominant", "altered", "half-whole diminished"}, names("G7b9"))
	assert.Equal(t, []string{"Mixolydian", "Lydian dominant"}, names("G13"))
	assert.Equal(t, []string{"altered"}, names("G7alt"))
	assert.Empty(t, names("Gm7"))
	assert.EqualError(t, mustChord(t, "G13").FindScale("altered"), `G13 cannot be played by "altered"; choose one of: Mixolydian, Lydian dominant`)
	assert.EqualError(t, mustChord(t, "Gm7").FindScale("altered"), "Gm7 is no dominant; only a dominant has scales to choose from")
}

// Over the altered scale the arpeggios a half step up and a tritone away lie inside.
func TestArpeggiosFollowTheChosenScale(t *testing.T) {
	key, err := ParseKey("C", MajorMode)
	require.NoError(t, err)
	g := mustChord(t, "G7")
	symbols := func(c Chord) []string {
		all := []string{}
		for _, s := range key.Superimposed(c) {
			if s.Suspensions == nil {
				all = append(all, s.Arpeggio.Symbol())
			}
		}
		return all
	}
	assert.NotContains(t, symbols(g), "Db7")
	altered := symbols(g.In(Context{Key: key, Scale: "altered", Why: PlayerChose}))
	assert.Contains(t, altered, "Db7")
	assert.Contains(t, altered, "Abm(maj7)")
}
