// Package charttest draws charts for the property tests of other packages: songs whose key, meter and
// feel change on the way, with a bar before bar 1, repeats, endings, jumps and chosen scales.
package charttest

import (
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
)

// Song draws a chart of at most so many written bars with all that a chart may have, its chords with
// the common signs.
func Song(t *rapid.T, bars int) chart.Chart {
	c := chart.Chart{
		Title: "A drawn song", Key: Key(t), Meter: rapid.SampledFrom(chart.Meters).Draw(t, "meter"), Feel: chart.Straight,
		Tempo: rapid.IntRange(40, 240).Draw(t, "tempo"), Swing: float64(rapid.IntRange(10, 30).Draw(t, "swing")) / 10,
		Imagining: rapid.Bool().Draw(t, "imagining"),
	}
	switch {
	case c.Meter == chart.TwelveEight:
		c.Feel = chart.Slow128
	case rapid.Bool().Draw(t, "shuffled"):
		c.Feel = chart.Shuffle
	}
	c.Bars = chart.EmptyBars(rapid.IntRange(1, bars).Draw(t, "bars"), c.Meter)
	c = Changed(t, c)
	for b := range c.Bars {
		meter := c.SettingOf(b).Meter
		c.Bars[b].Spans = Spans(t, meter.Beats(), Symbol)
		if rapid.IntRange(0, 5).Draw(t, "imagined?") == 0 {
			if chord := Symbol(t); meter.Beats() > 1 {
				c.Bars[b].Imagined = []chart.Span{{Beats: 1}, {Chord: chord, Beats: meter.Beats() - 1}}
			}
		}
	}
	c = Signed(t, c)
	for _, chord := range c.Chords() {
		if scales := chord.Scales(); len(scales) > 0 && rapid.IntRange(0, 3).Draw(t, "choose a scale?") == 0 {
			key := chord.Context(c.Key).Key
			forFunction := &key
			if rapid.Bool().Draw(t, "for the chord") {
				forFunction = nil
			}
			if next, err := c.WithScale(chord, forFunction, rapid.SampledFrom(scales).Draw(t, "scale").Name); err == nil {
				c = next
			}
		}
	}
	if err := c.Check(); err != nil {
		t.Fatal(err)
	}
	return c
}

// Key draws a key.
func Key(t *rapid.T) harmony.Key {
	mode := rapid.SampledFrom(harmony.Modes).Draw(t, "mode")
	key, err := harmony.ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(t, "tonic"), mode)
	if err != nil {
		t.Fatal(err)
	}
	return key
}

// Changed is the chart with some changes of key, meter and feel, and perhaps a bar before bar 1.
func Changed(t *rapid.T, c chart.Chart) chart.Chart {
	for range rapid.IntRange(0, 4).Draw(t, "changes") {
		at, count := rapid.IntRange(0, len(c.Bars)-1).Draw(t, "at"), rapid.IntRange(0, 3).Draw(t, "count")
		edit := rapid.SampledFrom([]func() (chart.Chart, error){
			func() (chart.Chart, error) { return c.ChangedKey(at, count, Key(t), true) },
			func() (chart.Chart, error) {
				return c.ChangedMeter(at, count, rapid.SampledFrom(chart.Meters).Draw(t, "another meter"))
			},
			func() (chart.Chart, error) {
				return c.ChangedFeel(at, count, rapid.SampledFrom(chart.Feels).Draw(t, "another feel"))
			},
			func() (chart.Chart, error) { return c.WithPickup(rapid.IntRange(0, 3).Draw(t, "pickup")) },
		}).Draw(t, "change")
		if next, err := edit(); err == nil {
			c = next
		}
	}
	return c
}

// Signed is the chart with some repeats, endings and jumps.
func Signed(t *rapid.T, c chart.Chart) chart.Chart {
	for range rapid.IntRange(0, 4).Draw(t, "signs") {
		at, count := rapid.IntRange(0, len(c.Bars)-1).Draw(t, "at"), rapid.IntRange(1, 4).Draw(t, "count")
		number := rapid.IntRange(1, 4).Draw(t, "number")
		edit := rapid.SampledFrom([]func() (chart.Chart, error){
			func() (chart.Chart, error) { return c.Repeat(at, count, number) },
			func() (chart.Chart, error) { return c.Ending(at, count, number) },
			func() (chart.Chart, error) { return withJump(t, c) },
		}).Draw(t, "sign")
		if next, err := edit(); err == nil {
			c = next
		}
	}
	return c
}

// withJump is the chart with a jump and what it leads to, wherever they fall; most of them cannot be
// played out, and are the caller's to leave.
func withJump(t *rapid.T, c chart.Chart) (chart.Chart, error) {
	place := func(label string) int { return rapid.IntRange(0, len(c.Bars)-1).Draw(t, label) }
	jump := rapid.SampledFrom(chart.Jumps).Draw(t, "jump")
	signs := map[int]chart.Signs{}
	set := func(label string, mark func(*chart.Signs)) {
		bar := place(label)
		s := signs[bar]
		mark(&s)
		signs[bar] = s
	}
	set("jump from", func(s *chart.Signs) { s.Jump = jump })
	if jump.ToSegno() {
		set("segno", func(s *chart.Signs) { s.Segno = true })
	}
	if jump.AlFine() {
		set("fine", func(s *chart.Signs) { s.Fine = true })
	}
	if jump.AlCoda() {
		set("to coda", func(s *chart.Signs) { s.ToCoda = true })
		set("coda", func(s *chart.Signs) { s.Coda = true })
	}
	return c.WithSigns(signs)
}

// Spans draws the chords of a bar of so many beats, some of them silent.
func Spans(t *rapid.T, beats int, chord func(*rapid.T) harmony.Chord) []chart.Span {
	all := []chart.Span{}
	for left := beats; left > 0; {
		span := chart.Span{Beats: rapid.IntRange(1, left).Draw(t, "beats")}
		if rapid.IntRange(0, 6).Draw(t, "silent?") > 0 {
			span.Chord = chord(t)
		}
		left -= span.Beats
		all = append(all, span)
	}
	return all
}

// Symbol draws a chord on a common root with any sign that can be read.
func Symbol(t *rapid.T) harmony.Chord {
	c, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
	if err != nil {
		t.Fatal(err)
	}
	return c
}
