package chart

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
)

func key(t testing.TB, tonic string, mode harmony.Mode) harmony.Key {
	t.Helper()
	k, err := harmony.ParseKey(tonic, mode)
	require.NoError(t, err)
	return k
}

func barsText(bars []Bar) string {
	texts := make([]string, len(bars))
	for n, bar := range bars {
		texts[n] = Text(bar.Spans)
	}
	return strings.Join(texts, " | ")
}

// Every scheme in three keys, written out by hand.
func TestSchemesInThreeKeys(t *testing.T) {
	for name, want := range map[string]map[string]string{
		"quick change": {
			"C":  "C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7",
			"Db": "Db7 | Gb7 | Db7 | Db7 | Gb7 | Gb7 | Db7 | Db7 | Ab7 | Gb7 | Db7 | Ab7",
			"E":  "E7 | A7 | E7 | E7 | A7 | A7 | E7 | E7 | B7 | A7 | E7 | B7",
		},
		"slow change": {
			"C":  "C7 | C7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7",
			"B":  "B7 | B7 | B7 | B7 | E7 | E7 | B7 | B7 | F#7 | E7 | B7 | F#7",
			"Ab": "Ab7 | Ab7 | Ab7 | Ab7 | Db7 | Db7 | Ab7 | Ab7 | Eb7 | Db7 | Ab7 | Eb7",
		},
		"minor twelve-bar": {
			"F#": "F#m7 | F#m7 | F#m7 | F#m7 | Bm7 | Bm7 | F#m7 | F#m7 | D7 | C#7 | F#m7 | C#7",
			"A":  "Am7 | Am7 | Am7 | Am7 | Dm7 | Dm7 | Am7 | Am7 | F7 | E7 | Am7 | E7",
			"C":  "Cm7 | Cm7 | Cm7 | Cm7 | Fm7 | Fm7 | Cm7 | Cm7 | Ab7 | G7 | Cm7 | G7",
		},
		"jazz blues": {
			"C":  "C7 | F7 | C7 | C7 | F7 | F#dim7 | C7 | A7 | Dm7 | G7 | C7 A7 | Dm7 G7",
			"F":  "F7 | Bb7 | F7 | F7 | Bb7 | Bdim7 | F7 | D7 | Gm7 | C7 | F7 D7 | Gm7 C7",
			"Gb": "Gb7 | Cb7 | Gb7 | Gb7 | Cb7 | Cdim7 | Gb7 | Eb7 | Abm7 | Db7 | Gb7 Eb7 | Abm7 Db7",
		},
		"eight-bar, V first": {
			"C": "C7 | G7 | F7 | F7 | C7 | G7 | C7 | G7", "A": "A7 | E7 | D7 | D7 | A7 | E7 | A7 | E7",
			"Eb": "Eb7 | Bb7 | Ab7 | Ab7 | Eb7 | Bb7 | Eb7 | Bb7",
		},
		"eight-bar, I first": {
			"C": "C7 | C7 | F7 | F7 | C7 | G7 | C7 | G7", "G": "G7 | G7 | C7 | C7 | G7 | D7 | G7 | D7",
			"F#": "F#7 | F#7 | B7 | B7 | F#7 | C#7 | F#7 | C#7",
		},
		"sixteen-bar": {
			"C":  "C7 | C7 | C7 | C7 | C7 | C7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7",
			"D":  "D7 | D7 | D7 | D7 | D7 | D7 | D7 | D7 | G7 | G7 | D7 | D7 | A7 | G7 | D7 | A7",
			"Bb": "Bb7 | Bb7 | Bb7 | Bb7 | Bb7 | Bb7 | Bb7 | Bb7 | Eb7 | Eb7 | Bb7 | Bb7 | F7 | Eb7 | Bb7 | F7",
		},
		"one-chord vamp": {"C": "C7 | C7 | C7 | C7", "C#": "C#7 | C#7 | C#7 | C#7", "G": "G7 | G7 | G7 | G7"},
		"minor vamp":     {"E": "Em7 | Em7 | Em7 | Em7", "G#": "G#m7 | G#m7 | G#m7 | G#m7", "D": "Dm7 | Dm7 | Dm7 | Dm7"},
	} {
		s, err := FindScheme(name)
		require.NoError(t, err)
		for tonic, bars := range want {
			assert.Equal(t, bars, barsText(s.Bars(key(t, tonic, s.In).Tonic, FourFour)), "%s in %s", name, tonic)
		}
	}
	assert.Len(t, Schemes, 9)
}

// Every turnaround and ending in three keys, of which one is minor.
func TestTurnaroundsInThreeKeys(t *testing.T) {
	want := map[string][3]string{
		// in C (a blues), in Ab (a song), in F# minor
		"I–V":                    {"C7 | G7", "Ab | Eb", "F#m7 | C#7"},
		"I IV I V":               {"C7 F7 | C7 G7", "Ab Db | Ab Eb", "F#m7 Bm7 | F#m7 C#7"},
		"I VI7 ii7 V7":           {"C7 A7 | Dm7 G7", "Ab F7 | Bbm7 Eb7", "F#m7 D#m7b5 | G#m7b5 C#7"},
		"iii7 VI7 ii7 V7":        {"Em7 A7 | Dm7 G7", "Cm7 F7 | Bbm7 Eb7", "Amaj7 Dmaj7 | G#m7b5 C#7"},
		"I I/3 IV #IVdim7 I/5 V": {"C7 C7/E F7 F#dim7 | C7/G G7", "Ab Ab/C Db Ddim7 | Ab/Eb Eb", "F#m7 F#m7/A Bm7 B#dim7 | F#m7/C# C#7"},
		"I bVI7 V7":              {"C7 | Ab7 G7", "Ab | Fb7 Eb7", "F#m7 | D7 C#7"},
		"I bIII7 bVI7 bII7":      {"C7 Eb7 | Ab7 Db7", "Ab Cb7 | Fb7 Bbb7", "F#m7 A7 | D7 G7"},
		"I, inner line down":     {"C C7 C6 Caug | C G7", "Ab Ab7 Ab6 Abaug | Ab Eb", "F#m F#m7 F#m6 D/F# | F#m C#7"},
		"V to I":                 {"G7 | C7", "Eb | Ab", "C#7 | F#m7"},
		"bVI7 V7 I":              {"Ab7 G7 | C7", "Fb7 Eb7 | Ab", "D7 C#7 | F#m7"},
		"bII7 I6/9":              {"Db7 | C6/9", "Bbb7 | Ab6/9", "G7 | F#m6"},
	}
	require.Len(t, Turnarounds, len(want))
	for _, turn := range Turnarounds {
		for n, k := range []harmony.Key{key(t, "C", harmony.DominantMode), key(t, "Ab", harmony.MajorMode), key(t, "F#", harmony.MinorMode)} {
			bars, err := turn.Bars(k, FourFour)
			require.NoError(t, err)
			assert.Equal(t, want[turn.Name][n], barsText(bars), "%s in %s %s", turn, k.Tonic, k.Mode)
		}
	}
}

// In every key every scheme and turnaround is the one in C, moved; and it fills
// whole bars of every meter, or says which does not have the beats.
func TestSchemesAndTurnaroundsInEveryKeyAndMeter(t *testing.T) {
	for _, mode := range harmony.Modes {
		home := key(t, "C", mode)
		for _, tonic := range mode.Tonics() {
			there := key(t, tonic, mode)
			for _, meter := range Meters {
				for _, s := range Schemes {
					if s.In == mode {
						c := Chart{Title: "A", Key: home, Meter: meter, Tempo: 90, Swing: 2, Bars: s.Bars(home.Tonic, meter)}
						if meter == TwelveEight {
							c.Feel = Slow128
						}
						moved := c.Transposed(there)
						require.NoError(t, moved.Check())
						assert.Equal(t, s.Name, moved.SchemeOf())
						assert.Equal(t, barsText(s.Bars(there.Tonic, meter)), barsText(moved.Bars))
					}
				}
				for _, turn := range Turnarounds {
					bars, err := turn.Bars(there, meter)
					if err != nil {
						assert.Less(t, meter.Beats(), 4)
						assert.ErrorContains(t, err, "a bar of "+meter.String()+" has")
						continue
					}
					in, err := turn.Bars(home, meter)
					require.NoError(t, err)
					assert.Equal(t, barsText(Chart{Key: home, Bars: in}.Transposed(there).Bars), barsText(bars))
				}
			}
		}
	}
}

func TestATurnaroundWrittenOrImagined(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	turn, err := FindTurnaround("iii7 VI7 ii7 V7")
	require.NoError(t, err)
	written, err := c.WithTurnaround(turn, 10, false)
	require.NoError(t, err)
	assert.Equal(t, "Em7 A7 | Dm7 G7", barsText(written.Bars[10:]))
	assert.Equal(t, "C7 | G7", barsText(c.Bars[10:]), "the chart itself is left alone")

	imagined, err := c.WithTurnaround(turn, 10, true)
	require.NoError(t, err)
	require.NoError(t, imagined.Check())
	assert.Equal(t, "C7 | G7", barsText(imagined.Bars[10:]))
	assert.Equal(t, "C7 F7 C7 C7 F7 F7 C7 C7 G7 F7 Em7 A7 Dm7 G7", symbols(imagined))
	moments := imagined.ChordSpans()
	assert.Equal(t, "C7", moments[11].Written.Symbol(), "A7 is over the band's C7")
	assert.True(t, moments[11].Imagined)
	assert.Equal(t, symbols(c), symbols(imagined.WithoutImagined()), "the band plays what is written")
	_, err = c.WithTurnaround(turn, 11, true)
	assert.EqualError(t, err, "bar: a turnaround takes two bars; it can start on bar 1 to 11")
	_, err = FindTurnaround("V–V")
	assert.ErrorContains(t, err, "choose one of: I–V, I IV I V")
}

func TestCapo(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  harmony.Mode
		capo  int
		want  string
	}{
		{"Ab", harmony.MajorMode, 1, "G"}, {"Bb", harmony.DominantMode, 3, "G"}, {"F#", harmony.MinorMode, 2, "E"},
		{"C", harmony.DominantMode, 0, "C"}, {"C", harmony.DominantMode, 12, "C"}, {"E", harmony.DominantMode, 3, "Db"},
		{"C", harmony.MinorMode, 4, "G#"}, {"C", harmony.MajorMode, 6, "F#"},
	} {
		chart := Chart{Key: key(t, c.tonic, c.mode), Capo: c.capo}
		assert.Equal(t, c.want, chart.AsFretted().Key.Tonic.String(), "%s %s with a capo on %d", c.tonic, c.mode, c.capo)
	}
}

// Transposing there and back gives the chart again, whatever chords it has.
func TestTransposingBackIsWhereItWas(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := drawChart(t)
		mode := c.Key.Mode
		name := rapid.SampledFrom(mode.Tonics()).Draw(t, "to")
		to, err := harmony.ParseKey(name, mode)
		require.NoError(t, err)
		moved := c.Transposed(to)
		require.NoError(t, moved.Check())
		for n, m := range moved.ChordSpans() {
			was := c.ChordSpans()[n].Chord
			shift := to.Tonic.Class().Above(c.Key.Tonic.Class())
			assert.Equal(t, shift, m.Chord.Root.Class().Above(was.Root.Class()))
			assert.Equal(t, was.Quality, m.Chord.Quality)
			_, err := harmony.ParseChord(m.Chord.Symbol())
			assert.NoError(t, err, "a chord that can be read again")
		}
		back := moved.Transposed(c.Key)
		for n, m := range back.ChordSpans() {
			assert.Equal(t, c.ChordSpans()[n].Chord.Root.Class(), m.Chord.Root.Class())
		}
		assert.Equal(t, barsText(c.Bars), barsText(c.Rekeyed(to).Bars), "re-reading leaves the chords")
	})
}
