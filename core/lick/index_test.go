package lick

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase/phrasetest"
)

func TestLicksAreFound(t *testing.T) {
	licks := []Lick{overC7(t), overTwo(t)}
	f7, fsharp := phrasetest.ChordOf(t, "F7"), phrasetest.ChordOf(t, "F#7")
	e := phrasetest.WindowOf(t, "E")
	low := phrasetest.Guitar.WindowFrom(1)
	for want, all := range map[string][]Query{
		"0 1": {{}, {FitsChord: &f7}, {Technique: "bend"}, {In: &e}, {MostBars: 2}, {MostPerSecond: 4}, {Starts: "b3"}},
		"1": {
			{Text: "two"}, {Text: "INTO  a."}, {Text: "change"}, {Tag: "box"}, {Technique: "slide"}, {Lands: "3"}, {Leans: "9"}, {Ends: "9"},
			{Near: &neck.Place{String: 2, Fret: 10}},
		},
		"0": {{Text: "c7"}, {Scale: "both pentatonics"}, {Ends: "R"}, {MostBars: 1}, {Technique: "pull-off"}, {Near: &neck.Place{String: 4, Fret: 9}}},
		"":  {{Text: "three"}, {FitsChord: &fsharp}, {Scale: "major"}, {Tag: "bo"}, {Lands: "b7"}, {In: &low}, {MostPerSecond: 1}, {Near: &neck.Place{String: 6, Fret: 1}}},
	} {
		for _, w := range all {
			found := []string{}
			for _, f := range NewIndex(phrasetest.Guitar, phrasetest.KeyOfC(t), 120, licks).Find(w) {
				found = append(found, string(rune('0'+f.Index)))
			}
			assert.Equal(t, want, strings.Join(found, " "), "%+v", w)
		}
	}
}

func TestLicksThatEndNearALandingComeNearestFirst(t *testing.T) {
	licks := []Lick{overC7(t), overTwo(t), overC7(t)}
	licks[2].Phrase.Events = licks[2].Phrase.Events[:2]
	found := NewIndex(phrasetest.Guitar, phrasetest.KeyOfC(t), 120, licks).Find(Query{Near: &neck.Place{String: 1, Fret: 5}})
	require.Len(t, found, 2, "the one that ends on C is nine half steps off")
	says := []string{}
	for _, f := range found {
		says = append(says, f.Text)
	}
	assert.Equal(t, []string{"ends a whole step below it, string 2 fret 8", "ends a whole step below it, string 3 fret 10"}, says)
}

// Whatever is asked, what is found is as asked, and what is not found is not.
func TestFindLeavesNothingOut(t *testing.T) {
	licks := []Lick{overC7(t), overTwo(t), call()}
	rapid.Check(t, func(t *rapid.T) {
		near := neck.Place{String: rapid.IntRange(1, 6).Draw(t, "string"), Fret: rapid.IntRange(0, 15).Draw(t, "fret")}
		c := phrasetest.DrawnChord(t)
		found := map[int]bool{}
		for _, f := range NewIndex(phrasetest.Guitar, harmony.Key{Mode: harmony.DominantMode}, 100, licks).Find(Query{Near: &near, FitsChord: &c}) {
			found[f.Index] = true
		}
		for n, l := range licks {
			last := l.Phrase.Events[len(l.Phrase.Events)-1].Sounding(phrasetest.Guitar)
			away := int(phrasetest.Guitar.Pitch(near) - last)
			assert.Equal(t, max(away, -away) <= 4 && l.Fits(phrasetest.Guitar, harmony.Key{Mode: harmony.DominantMode}, c), found[n])
		}
	})
}
