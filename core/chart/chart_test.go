package chart

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
)

func twelveBar(t testing.TB, scheme, tonic string) Chart {
	t.Helper()
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	s, err := FindScheme(scheme)
	require.NoError(t, err)
	return Chart{Title: "A test", Key: key, Meter: FourFour, Tempo: 112, Feel: Shuffle, Swing: 2, Bars: s.Bars(key.Tonic, FourFour)}
}

func symbols(c Chart) string {
	names := []string{}
	for _, m := range c.ChordSpans() {
		names = append(names, m.Chord.Symbol())
	}
	return strings.Join(names, " ")
}

func TestTransposingToEveryTonicGivesTheSchemeThere(t *testing.T) {
	from := twelveBar(t, "quick change", "C")
	for _, tonic := range harmony.Tonics {
		there := twelveBar(t, "quick change", tonic)
		assert.Equal(t, symbols(there), symbols(from.Transposed(there.Key)))
	}
	assert.Equal(t, "C7", from.Bars[0].Spans[0].Chord.Symbol(), "the chart itself is left alone")
}

func TestChangesOfAQuickChange(t *testing.T) {
	got := []string{}
	for _, ch := range twelveBar(t, "quick change", "C").Changes() {
		got = append(got, fmt.Sprintf("%d→%d %s %s @%d", ch.Leaving.Bar+1, ch.Arriving.Bar+1, ch.Leaving.Chord.Symbol(), ch.Arriving.Chord.Symbol(), ch.Tick))
	}
	assert.Equal(t, []string{
		"1→2 C7 F7 @1920", "2→3 F7 C7 @3840", "4→5 C7 F7 @7680", "6→7 F7 C7 @11520", "8→9 C7 G7 @15360",
		"9→10 G7 F7 @17280", "10→11 F7 C7 @19200", "11→12 C7 G7 @21120", "12→1 G7 C7 @23040",
	}, got)
}

func TestChordAtFoldsIntoTheChorus(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	for tick, want := range map[int]string{0: "C7", 1919: "C7", 1920: "F7", 23039: "G7", 23040: "C7", -1: "G7", -1920: "G7", -1921: "C7"} {
		assert.Equal(t, want, c.ChordAt(tick).Symbol(), tick)
	}
	dm7, err := harmony.ParseChord("Dm7")
	require.NoError(t, err)
	c.Bars[0].Spans = []Span{{Chord: c.Bars[0].Spans[0].Chord, Beats: 1}, {Chord: dm7, Beats: 3}}
	assert.Equal(t, "C7", c.ChordAt(479).Symbol())
	assert.Equal(t, "Dm7", c.ChordAt(480).Symbol())
	assert.Equal(t, "C7 Dm7 F7", strings.Join(strings.Fields(symbols(c))[:3], " "))
}

func TestCheckNamesTheFieldAndWhatIsAllowed(t *testing.T) {
	for field, spoil := range map[string]func(*Chart){
		"title":              func(c *Chart) { c.Title = "  " },
		"tempo":              func(c *Chart) { c.Tempo = 19 },
		"swing":              func(c *Chart) { c.Swing = 3.5 },
		"feel":               func(c *Chart) { c.Feel = Slow128 },
		"box":                func(c *Chart) { c.Box = "none" },
		"bars":               func(c *Chart) { c.Bars = nil },
		"bars[3]":            func(c *Chart) { c.Bars[3].Spans[0].Beats = 3 },
		"capo":               func(c *Chart) { c.Capo = 13 },
		"tags[1]":            func(c *Chart) { c.Tags = []string{"fine", "not, this"} },
		"bars[1].section":    func(c *Chart) { c.Bars[1].Section = "[A]" },
		"bars[2].imagined":   func(c *Chart) { c.Bars[2].Imagined = []Span{{Beats: 4}} },
		"bars[4].repeatFrom": func(c *Chart) { c.Bars[4].RepeatFrom = true },
		"bars[5].repeatTo":   func(c *Chart) { c.Bars[5].RepeatTo = 10 },
		"bars[6].ending":     func(c *Chart) { c.Bars[6].Ending = 2 },
	} {
		c := twelveBar(t, "quick change", "C")
		spoil(&c)
		var fieldError *FieldError
		require.ErrorAs(t, c.Check(), &fieldError, field)
		assert.Equal(t, field, fieldError.Field)
	}
}

func TestCounted(t *testing.T) {
	for _, c := range []struct {
		meter Meter
		tick  int
		want  string
	}{
		{FourFour, 0, "beat 1"}, {FourFour, 240, "the and of beat 1"}, {FourFour, 640, "the second triplet of beat 2"},
		{FourFour, 800, "the last triplet of beat 2"}, {FourFour, 1080, "the second sixteenth of beat 3"},
		{FourFour, 1320, "the last sixteenth of beat 3"}, {FourFour, -240, "the and of beat 4"}, {FourFour, 7, "just after beat 1"},
		{TwelveEight, 720, "beat 2"}, {TwelveEight, 1200, "the last eighth of beat 2"}, {TwelveEight, 960, "the second eighth of beat 2"},
		{TwelveEight, 840, "the second sixteenth of beat 2"}, {ThreeFour, 1440 + 960, "beat 3"}, {SixEight, 720, "beat 2"},
	} {
		assert.Equal(t, c.want, c.meter.Counted(c.tick), "%s at %d", c.meter, c.tick)
	}
	assert.Equal(t, "the and of beat 3 of bar 4", BarLinesIn(FourFour, nil).CountedInBar(3*1920+960+240))
	for tick, want := range map[int]string{
		-480: "beat 4 of the bar before bar 1", -1920: "beat 1 of the bar before bar 1", -2400: "beat 4 of two bars before bar 1",
		-3840: "beat 1 of two bars before bar 1", -3841: "just after beat 4 of three bars before bar 1", -11520: "beat 1 of 6 bars before bar 1", 0: "beat 1 of bar 1",
	} {
		assert.Equal(t, want, BarLinesIn(FourFour, nil).CountedInBar(tick))
	}
}

// A run counted back for each of the four subdivisions, five notes on beat 1.
func TestRunStartForEverySubdivision(t *testing.T) {
	for name, want := range map[string]string{
		"quarter": "beat 1", "eighth": "beat 3", "triplet": "the last triplet of beat 3", "sixteenth": "beat 4",
	} {
		s, err := FourFour.Subdivision(name)
		require.NoError(t, err)
		assert.Equal(t, want, FourFour.Counted(RunStart(1920, 5, s, FourFour)), name)
	}
	for name, want := range map[string]string{"eighth": "the last eighth of beat 3", "sixteenth": "the second eighth of beat 4"} {
		s, err := TwelveEight.Subdivision(name)
		require.NoError(t, err)
		assert.Equal(t, want, TwelveEight.Counted(RunStart(2880, 5, s, TwelveEight)), name)
	}
	_, err := TwelveEight.Subdivision("triplet")
	assert.EqualError(t, err, `subdivision: "triplet" is not a subdivision of this meter; choose one of: dotted quarter, duplet, eighth, quadruplet, sixteenth, thirty-second`)
}

func TestShuffleDelaysTheOffBeat(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	for tick, want := range map[int]int{0: 0, 240: 320, 120: 160, 360: 400, 160: 160, 320: 320, 480: 480, 720: 800, -240: -160} {
		assert.Equal(t, want, c.setting().Swung(tick, c.Swing), tick)
	}
	c.Swing = 1
	assert.Equal(t, 240, c.setting().Swung(240, c.Swing))
	c.Swing, c.Feel = 2, Straight
	assert.Equal(t, 240, c.setting().Swung(240, c.Swing))
}

// Whatever the swing, time never runs backwards on the eighth and sixteenth
// grid, and beats stay where they are.
func TestSoundingKeepsOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := Chart{Meter: FourFour, Feel: Shuffle, Swing: rapid.Float64Range(MinSwing, MaxSwing).Draw(t, "swing")}
		before := -1
		for tick := 0; tick < 1920; tick += 120 {
			now := c.setting().Swung(tick, c.Swing)
			assert.Greater(t, now, before)
			if tick%480 == 0 {
				assert.Equal(t, tick, now)
			}
			before = now
		}
	})
}

func TestMetersAndFeelsReadBack(t *testing.T) {
	for _, m := range Meters {
		got, err := ParseMeter(m.String())
		require.NoError(t, err)
		assert.Equal(t, m, got)
	}
	for _, f := range Feels {
		got, err := ParseFeel(string(f))
		require.NoError(t, err)
		assert.Equal(t, f, got)
	}
	_, err := FindScheme("polka")
	assert.ErrorContains(t, err, `"polka" is not a scheme; choose one of: quick change, slow change, minor twelve-bar, jazz blues`)
	_, err = ParseMeter("7/8")
	assert.ErrorContains(t, err, "4/4, 12/8, 3/4, 6/8, 2/4, 5/4, 6/4, 9/8")
	_, err = ParseFeel("bossa")
	assert.ErrorContains(t, err, "straight, shuffle, slow 12/8")
}
