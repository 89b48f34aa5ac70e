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

// drawChart draws a chart with anything a chart can have.
func drawChart(t *rapid.T) Chart {
	mode := rapid.SampledFrom(harmony.Modes).Draw(t, "mode")
	k, err := harmony.ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(t, "tonic"), mode)
	require.NoError(t, err)
	c := Chart{
		Title: "A draw", Key: k, Meter: rapid.SampledFrom(Meters).Draw(t, "meter"), Tempo: rapid.IntRange(20, 400).Draw(t, "tempo"),
		Feel: Straight, Swing: 2, Imagining: rapid.Bool().Draw(t, "imagining"),
	}
	if c.Meter == TwelveEight {
		c.Feel = Slow128
	}
	spans := func(label string) []Span {
		left := c.Meter.Beats()
		all := []Span{}
		for left > 0 {
			span := Span{Beats: rapid.IntRange(1, left).Draw(t, label)}
			if rapid.IntRange(0, 5).Draw(t, "empty") > 0 {
				root := k.DegreeOf(k.Tonic).Over(k.Tonic).Up(rapid.IntRange(0, 6).Draw(t, "letters"), rapid.IntRange(0, 11).Draw(t, "semitones"))
				if root.Accidental >= -2 && root.Accidental <= 2 {
					chord, err := harmony.ParseChord(root.String() + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
					require.NoError(t, err)
					span.Chord = chord
				}
			}
			left -= span.Beats
			all = append(all, span)
		}
		return all
	}
	for range rapid.IntRange(1, 12).Draw(t, "bars") {
		bar := Bar{Spans: spans("beats")}
		if rapid.IntRange(0, 3).Draw(t, "imagined?") == 0 {
			imagined := spans("imagined")
			for _, span := range imagined {
				if !span.Empty() {
					bar.Imagined = imagined
				}
			}
		}
		c.Bars = append(c.Bars, bar)
	}
	require.NoError(t, c.Check())
	return c
}

func TestWritingABar(t *testing.T) {
	blues, minor := key(t, "C", harmony.DominantMode), key(t, "A", harmony.MinorMode)
	for _, c := range []struct {
		text  string
		key   harmony.Key
		meter Meter
		want  string
	}{
		{"F7", blues, FourFour, "F7:4"}, {"Dm7 G7", blues, FourFour, "Dm7:2 G7:2"}, {"C7 A7 Dm7 G7", blues, FourFour, "C7:1 A7:1 Dm7:1 G7:1"},
		{"C7 A7 G7", blues, FourFour, "C7:2 A7:1 G7:1"}, {"C7 . . G7", blues, FourFour, "C7:3 G7:1"}, {"C7 / G7 /", blues, FourFour, "C7:2 G7:2"},
		{"IV", blues, FourFour, "F7:4"}, {"bVI7 V7", blues, TwelveEight, "Ab7:2 G7:2"}, {"ii7 V", blues, FourFour, "Dm7:2 G7:2"},
		{"I/3 #IVdim7", blues, FourFour, "C7/E:2 F#dim7:2"}, {"iv", minor, ThreeFour, "Dm7:3"}, {"iiø V7", minor, ThreeFour, "Bm7b5:2 E7:1"},
		{"B♭7 F♯m7♭5", blues, SixEight, "Bb7:1 F#m7b5:1"}, {"N.C.", blues, FourFour, "N.C.:4"}, {"nc . C7 .", blues, FourFour, "N.C.:2 C7:2"},
		{"", blues, FourFour, "N.C.:4"}, {"%", blues, FourFour, "E7:4"}, {"Imaj IVmaj7", blues, FourFour, "C:2 Fmaj7:2"}, {"vii°7", minor, FourFour, "G#dim7:4"},
	} {
		e7, err := harmony.ParseChord("E7")
		require.NoError(t, err)
		spans, err := ReadBar(c.text, c.key, c.meter, []Span{{Chord: e7, Beats: 4}})
		if c.text == "vii°7" {
			// The seventh degree is counted on the major scale, so it is G#.
			require.NoError(t, err)
		}
		require.NoError(t, err, c.text)
		got := []string{}
		for _, span := range spans {
			got = append(got, fmt.Sprintf("%s:%d", span.Name(), span.Beats))
		}
		assert.Equal(t, c.want, strings.Join(got, " "), c.text)
	}
}

func TestABarThatCannotBeReadSaysWhere(t *testing.T) {
	blues := key(t, "C", harmony.DominantMode)
	for _, c := range []struct {
		text    string
		at      int
		says    string
		nearest string
	}{
		{"C7 Hm7", 4, `"Hm7" is not a chord`, "Bm7"}, {"Dm7 G7x", 7, `"G7x" is not a chord`, "G7"}, {"C7 . .", 1, "3 beats; a bar of 4/4 has 4", ""},
		{"C7 . . . .", 1, "5 beats; a bar of 4/4 has 4", ""}, {"C D E F G", 9, "5 chords; a bar of 4/4 has 4 beats", ""},
		{". C7", 1, "a held beat needs a chord before it", ""}, {"%", 1, "no bar before", ""}, {"h7", 1, `"h7" is not a chord`, "B7"},
		{"IVx", 3, `"IVx" is not a chord`, "IV"}, {"I/x", 3, `"I/x" is not a chord`, "I/3"}, {"C7 %", 4, `"%" is not a chord`, ""},
	} {
		_, err := ReadBar(c.text, blues, FourFour, nil)
		var textError *TextError
		require.ErrorAs(t, err, &textError, c.text)
		assert.Equal(t, c.at, textError.At, c.text)
		assert.Contains(t, textError.Detail, c.says)
		if c.nearest != "" {
			assert.Contains(t, textError.Nearest, c.nearest, c.text)
		}
	}
}

// What a bar's text says is what is read from it, in both layers.
func TestBarTextReadsBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := drawChart(t)
		for _, bar := range c.Bars {
			spans, err := ReadBar(Text(bar.Spans), c.Key, c.Meter, nil)
			require.NoError(t, err, Text(bar.Spans))
			assert.Equal(t, bar.Spans, spans)
			imagined, err := ReadImagined(ImaginedText(bar.Imagined), c.Key, c.Meter)
			require.NoError(t, err, ImaginedText(bar.Imagined))
			assert.Equal(t, bar.Imagined, imagined)
		}
	})
}

// A text without blanks is cut into words in one walk over it, and is refused with its place.
func TestAVeryLongBarIsRefusedAtOnce(t *testing.T) {
	for text, at := range map[string]int{strings.Repeat("/", 1<<20): 1, "C7 é" + strings.Repeat("b", 1<<20): 4, strings.Repeat("\u00a0C ", 1<<18): 0} {
		_, err := ReadBar(text, harmony.Key{Mode: harmony.MajorMode}, FourFour, nil)
		require.Error(t, err)
		assert.Less(t, len(err.Error()), 400)
		var place *TextError
		if at > 0 && assert.ErrorAs(t, err, &place) {
			assert.Equal(t, at, place.At)
		}
	}
	assert.Equal(t, []word{{"é", 2}, {"♭♭", 4}, {"b", 8}}, words(" é ♭♭  b "))
	assert.Empty(t, words(" \t"))
}

func FuzzReadBar(f *testing.F) {
	for _, seed := range []string{"C7", "Dm7 . G7 .", "%", "N.C.", "I/3 bVI7", "_ Db7", ". . x", "C6/9/E"} {
		f.Add(seed)
	}
	k, err := harmony.ParseKey("Ab", harmony.MajorMode)
	require.NoError(f, err)
	f.Fuzz(func(t *testing.T, text string) {
		if spans, err := ReadBar(text, k, FourFour, nil); err == nil {
			again, err := ReadBar(Text(spans), k, FourFour, nil)
			require.NoError(t, err)
			require.Equal(t, spans, again)
		}
		if spans, err := ReadImagined(text, k, FourFour); err == nil {
			again, err := ReadImagined(ImaginedText(spans), k, FourFour)
			require.NoError(t, err)
			require.Equal(t, spans, again)
		}
	})
}

func TestWriteGoesOnOverTheNextBars(t *testing.T) {
	c := Chart{Title: "A", Key: key(t, "Ab", harmony.MajorMode), Meter: FourFour, Tempo: 84, Feel: Straight, Swing: 2, Bars: EmptyBars(2, FourFour)}
	c, err := c.Write(1, "| Ab | Fm7 Bb7 | % |")
	require.NoError(t, err)
	assert.Equal(t, "N.C. | Ab | Fm7 Bb7 | Fm7 Bb7", barsText(c.Bars))
	_, err = c.Write(0, "Ab | Q7")
	var textError *TextError
	require.ErrorAs(t, err, &textError)
	assert.Equal(t, 6, textError.At)
	_, err = c.Write(5, "Ab")
	assert.EqualError(t, err, "bar: bar 6 is not there; the chart has 4")
}

func TestSplittingAndLengths(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	split, err := c.Split(1, 2)
	require.NoError(t, err)
	assert.Equal(t, "F7 F7", Text(split.Bars[1].Spans))
	split, err = split.Split(1, 3)
	require.NoError(t, err)
	assert.Equal(t, []int{2, 1, 1}, []int{split.Bars[1].Spans[0].Beats, split.Bars[1].Spans[1].Beats, split.Bars[1].Spans[2].Beats})
	uneven, err := split.Lengths(1, []int{1, 1, 2})
	require.NoError(t, err)
	assert.Equal(t, "F7 F7 F7 .", Text(uneven.Bars[1].Spans))
	for want, edit := range map[string]func() (Chart, error){
		"beats: bar 2: 5 beats; a bar of 4/4 has 4":                                 func() (Chart, error) { return split.Lengths(1, []int{2, 2, 1}) },
		"beats: bar 2 has 3 chords and so needs as many lengths, not 2":             func() (Chart, error) { return split.Lengths(1, []int{2, 2}) },
		"parts: bar 2 has 3 chords already; write over it to have fewer":            func() (Chart, error) { return split.Split(1, 2) },
		"parts: a bar splits into 2, 3 or 4, not 5":                                 func() (Chart, error) { return c.Split(0, 5) },
		"bar: bar 13 is not there; the chart has 12":                                func() (Chart, error) { return c.Split(12, 2) },
		"count: a chart has at least one bar":                                       func() (Chart, error) { return c.Remove(0, 12) },
		"count: that would be 513 bars; a chart has at most 512":                    func() (Chart, error) { return c.Insert(0, 501) },
		"times: bars are played 1 to 9 times, not 12":                               func() (Chart, error) { return c.Repeat(0, 4, 12) },
		"bars[4].ending: bar 5: a second ending follows a first one":                func() (Chart, error) { return c.Ending(4, 1, 2) },
		"bars[0].ending: bar 1: a first ending needs something before it to repeat": func() (Chart, error) { return c.Ending(0, 1, 1) },
		"parts: a bar of 3/4 has 3 beats and does not split into 4; a chord lasts at least a beat": func() (Chart, error) {
			waltz, err := c.WithMeter(ThreeFour)
			require.NoError(t, err)
			return waltz.Split(0, 4)
		},
	} {
		_, err := edit()
		assert.EqualError(t, err, want)
	}
}

func TestSectionsRepeatsAndEndings(t *testing.T) {
	c := Chart{Title: "A", Key: key(t, "Ab", harmony.MajorMode), Meter: FourFour, Tempo: 84, Feel: Straight, Swing: 2, Bars: EmptyBars(1, FourFour)}
	c, err := c.Write(0, "Ab | Db | Eb | Ab | Fm")
	require.NoError(t, err)
	c, err = c.Section(0, " A ")
	require.NoError(t, err)
	c, err = c.Repeat(0, 3, 2)
	require.NoError(t, err)
	assert.Equal(t, []int{0, 1, 2, 0, 1, 2, 3, 4}, c.PlayedBars())
	c, err = c.Ending(2, 1, 1)
	require.NoError(t, err)
	c, err = c.Ending(3, 1, 2)
	require.NoError(t, err)
	require.NoError(t, c.Check())
	assert.Equal(t, []int{0, 1, 2, 0, 1, 3, 4}, c.PlayedBars())
	assert.Equal(t, "Ab Db Eb Ab Db Ab Fm", symbols(c))
	assert.Equal(t, 7*1920, c.Ticks())
	assert.Equal(t, 3, c.ChordSpans()[5].Source)
	assert.Equal(t, "Ab", c.ChordAt(5*1920).Symbol())

	// Section A once more at the end takes its label along, not its signs.
	copied, err := c.Copy(0, 3, 5)
	require.NoError(t, err)
	require.NoError(t, copied.Check())
	assert.Equal(t, "A", copied.Bars[5].Section)
	assert.Equal(t, "Ab Db Eb Ab Db Ab Fm Ab Db Eb", symbols(copied))

	// Taking out the bar that closed the repeat takes the rest of it along.
	cut, err := c.Remove(2, 1)
	require.NoError(t, err)
	require.NoError(t, cut.Check())
	assert.Equal(t, "Ab Db Ab Fm", symbols(cut))
	cut, err = c.Remove(0, 1)
	require.NoError(t, err)
	assert.Equal(t, "A", cut.Bars[0].Section, "the label moves to what is left of its section")
	once, err := c.Repeat(0, 5, 1)
	require.NoError(t, err)
	assert.Equal(t, []int{0, 1, 2, 3, 4}, once.PlayedBars())
}

func TestTooLongARepeat(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	c.Bars = EmptyBars(100, FourFour)
	c.Bars[99].RepeatTo = 6
	assert.EqualError(t, c.Check(), "bars: with its repeats a chorus has 600 bars; at most 512 can be played")
	c.Bars[99].RepeatTo = 5
	assert.NoError(t, c.Check())
	assert.Len(t, c.PlayedBars(), 500)
}

func TestSilenceKeepsTheChordBefore(t *testing.T) {
	c := Chart{Title: "A", Key: key(t, "C", harmony.DominantMode), Meter: FourFour, Tempo: 84, Feel: Straight, Swing: 2, Bars: EmptyBars(3, FourFour)}
	assert.Equal(t, "C7 C7 C7", symbols(c), "nothing is written: home")
	assert.Empty(t, c.Changes())
	c, err := c.Write(1, "F7 N.C.")
	require.NoError(t, err)
	assert.Equal(t, "F7 F7 F7 F7", symbols(c))
	assert.True(t, c.ChordSpans()[2].Silent)
	assert.False(t, c.ChordSpans()[1].Silent)
}

func TestImaginedChordsCutTheBar(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	c, err := c.Write(3, "C7 G7")
	require.NoError(t, err)
	c, err = c.Imagine(3, ". . . Db7")
	require.NoError(t, err)
	got := []string{}
	for _, m := range c.ChordSpans()[3:6] {
		got = append(got, fmt.Sprintf("%s over %s %d+%d", m.Chord.Symbol(), m.Written.Symbol(), m.Beat, m.Ticks/480))
	}
	assert.Equal(t, []string{"C7 over C7 0+2", "G7 over G7 2+1", "Db7 over G7 3+1"}, got)
	off, err := c.Imagine(3, "")
	require.NoError(t, err)
	assert.Empty(t, off.Bars[3].Imagined)
}

func TestMetersAndFeelsRespreadTheBars(t *testing.T) {
	c := twelveBar(t, "jazz blues", "C")
	slow, err := c.WithFeel(Slow128)
	require.NoError(t, err)
	assert.Equal(t, TwelveEight, slow.Meter)
	assert.Equal(t, barsText(c.Bars), barsText(slow.Bars))
	waltz, err := slow.WithMeter(ThreeFour)
	require.NoError(t, err)
	require.NoError(t, waltz.Check())
	assert.Equal(t, Straight, waltz.Feel)
	assert.Equal(t, []int{2, 1}, []int{waltz.Bars[10].Spans[0].Beats, waltz.Bars[10].Spans[1].Beats})
	full, err := c.Write(0, "C7 A7 Dm7 G7")
	require.NoError(t, err)
	_, err = full.WithMeter(SixEight)
	assert.EqualError(t, err, "bars[0]: bar 1 has more chords than 6/8 has beats (2); take some out first")
}

// Whatever is done to a chart, one at a time, what comes back can be kept.
func TestEveryEditLeavesASoundChart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := drawChart(t)
		for range rapid.IntRange(1, 8).Draw(t, "edits") {
			at, count := rapid.IntRange(-1, 13).Draw(t, "at"), rapid.IntRange(0, 6).Draw(t, "count")
			number := rapid.IntRange(0, 4).Draw(t, "number")
			before := barsText(c.Bars)
			edits := []func() (Chart, error){
				func() (Chart, error) { return c.Split(at, number) },
				func() (Chart, error) { return c.Insert(at, count) },
				func() (Chart, error) { return c.Remove(at, count) },
				func() (Chart, error) { return c.Copy(at, count, number) },
				func() (Chart, error) { return c.Repeat(at, count, number) },
				func() (Chart, error) { return c.Ending(at, count, number) },
				func() (Chart, error) { return c.Section(at, "B") },
				func() (Chart, error) { return c.WithMeter(Meters[number%len(Meters)]) },
				func() (Chart, error) { return c.WithFeel(Feels[number%len(Feels)]) },
				func() (Chart, error) { return c.WithTurnaround(Turnarounds[count], at, number > 2) },
				func() (Chart, error) { return c.Write(at, "C7 | % | V7") },
			}
			next, err := rapid.SampledFrom(edits).Draw(t, "edit")()
			assert.Equal(t, before, barsText(c.Bars), "an edit leaves the chart it is given alone")
			if err != nil {
				continue
			}
			require.NoError(t, next.Check())
			require.Len(t, next.PlayedBars(), next.barCount())
			moments := next.ChordSpans()
			require.Equal(t, next.Ticks(), moments[len(moments)-1].Tick+moments[len(moments)-1].Ticks)
			c = next
		}
	})
}

func TestFacts(t *testing.T) {
	f := twelveBar(t, "jazz blues", "C").Facts()
	chords := []string{}
	for _, fact := range f.Chords {
		chords = append(chords, fmt.Sprintf("%s %d×%d", fact.Chord.Symbol(), fact.Times, fact.Beats))
	}
	assert.Equal(t, []string{"C7 4×18", "F7 2×8", "F#dim7 1×4", "A7 2×6", "Dm7 2×6", "G7 2×6"}, chords)
	assert.Equal(t, "Dm7→G7 [9 11]", fmt.Sprintf("%s→%s %v", f.Changes[3].Leaving.Symbol(), f.Changes[3].Arriving.Symbol(), f.Changes[3].Arrivals))
	assert.Len(t, f.Changes, 8)
	assert.Equal(t, 2, f.MostChords)
	assert.Equal(t, []int{10, 11}, f.Fastest)
	assert.InDelta(t, 12*4*60/112.0, f.Seconds, 1e-9)
	assert.Nil(t, twelveBar(t, "quick change", "C").Facts().Fastest)
}

func TestDifferencesSayWhatChanged(t *testing.T) {
	c := twelveBar(t, "quick change", "C")
	edited := func(edit func(Chart) (Chart, error)) Chart {
		t.Helper()
		next, err := edit(c)
		require.NoError(t, err)
		return next
	}
	faster := c
	faster.Tempo, faster.Title = 120, "Another"
	for _, d := range []struct {
		after Chart
		want  []string
	}{
		{c, []string{}},
		{faster, []string{"title A test → Another", "tempo 112 → 120"}},
		{c.Transposed(key(t, "D", harmony.DominantMode)), []string{"transposed from C to D"}},
		{c.Rekeyed(key(t, "F", harmony.DominantMode)), []string{"key C dominant → F dominant"}},
		{edited(func(c Chart) (Chart, error) { return c.Write(2, "C7 A7") }), []string{"bar 3: C7 → C7 A7"}},
		{edited(func(c Chart) (Chart, error) { return c.Insert(4, 2) }), []string{"bars 5–6 put in"}},
		{edited(func(c Chart) (Chart, error) { return c.Remove(10, 1) }), []string{"bar 11 taken out"}},
		{edited(func(c Chart) (Chart, error) { return c.Imagine(11, "Db7") }), []string{"imagined chords on", "bar 12: imagined none → Db7"}},
		{edited(func(c Chart) (Chart, error) { return c.Write(0, "A | B | C | D | E | F") }),
			[]string{"bar 1: C7 → A", "bar 2: F7 → B", "bar 3: C7 → C", "bar 4: C7 → D", "and 2 more bars"}},
		{edited(func(c Chart) (Chart, error) { return c.WithFeel(Slow128) }), []string{"meter 4/4 → 12/8", "feel shuffle → slow 12/8"}},
	} {
		assert.Equal(t, d.want, Differences(c, d.after))
	}
}
