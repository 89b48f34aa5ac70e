package chart

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
)

// plainSong is so many bars of 4/4 in C major, a chord each: C D E F G A B and again.
func plainSong(t *testing.T, bars int) Chart {
	t.Helper()
	c := Chart{Title: "A song", Key: key(t, "C", harmony.MajorMode), Meter: FourFour, Tempo: 120, Feel: Straight, Swing: 2, Bars: EmptyBars(bars, FourFour)}
	names := []string{}
	for n := range bars {
		names = append(names, string("CDEFGAB"[n%7]))
	}
	c, err := c.Write(0, strings.Join(names, " | "))
	require.NoError(t, err)
	return c
}

// The order of bars, as players take repeats, endings and jumps.
func TestEndingsAndJumpsArePlayedOut(t *testing.T) {
	for _, c := range []struct {
		name, want string
		bars       int
		mark       func(b []Bar)
	}{
		{"two endings", "0 1 0 2 3", 4, func(b []Bar) { b[1].Ending, b[1].RepeatTo, b[2].Ending = 1, 2, 2 }},
		{"three endings", "0 1 0 2 0 3 4", 5, func(b []Bar) {
			b[1].Ending, b[1].RepeatTo, b[2].Ending, b[2].RepeatTo, b[3].Ending = 1, 2, 2, 2, 3
		}},
		{"a first ending three times", "0 1 0 1 0 1 0 2", 3, func(b []Bar) { b[1].Ending, b[1].RepeatTo, b[2].Ending = 1, 4, 2 }},
		{"four endings from the second bar", "0 1 2 1 3 1 4 1 5 6", 7, func(b []Bar) {
			b[1].RepeatFrom = true
			for n := range 4 {
				b[2+n].Ending = n + 1
				if n < 3 {
					b[2+n].RepeatTo = 2
				}
			}
		}},
		{"D.C.", "0 1 2 0 1 2 3", 4, func(b []Bar) { b[2].Signs.Jump = DC }},
		{"D.C. al fine", "0 1 2 3 0 1", 4, func(b []Bar) { b[3].Signs.Jump, b[1].Signs.Fine = DCAlFine, true }},
		{"D.S. al fine", "0 1 2 3 1 2", 4, func(b []Bar) { b[3].Signs.Jump, b[1].Signs.Segno, b[2].Signs.Fine = DSAlFine, true, true }},
		{"D.S. al coda", "0 1 2 3 1 2 4 5", 6, func(b []Bar) {
			b[3].Signs.Jump, b[1].Signs.Segno, b[2].Signs.ToCoda, b[4].Signs.Coda = DSAlCoda, true, true, true
		}},
		{"no repeat after a D.C., and the last ending", "0 1 0 2 3 0 2", 4, func(b []Bar) {
			b[1].Ending, b[1].RepeatTo, b[2].Ending = 1, 2, 2
			b[3].Signs.Jump, b[2].Signs.Fine = DCAlFine, true
		}},
		{"a repeat in the coda is taken", "0 1 0 2 3 2 3", 4, func(b []Bar) {
			b[1].Signs.Jump, b[0].Signs.ToCoda, b[2].Signs.Coda = DCAlCoda, true, true
			b[2].RepeatFrom, b[3].RepeatTo = true, 2
		}},
		{"a coda in the middle of an ending that closes", "0 1 0 3 5", 6, func(b []Bar) {
			b[0].Signs.ToCoda, b[1].Signs.Jump, b[3].Signs.Coda = true, DCAlCoda, true
			b[2].Ending, b[3].Ending, b[3].RepeatTo, b[4].Ending = 1, 1, 2, 2
		}},
	} {
		song := plainSong(t, c.bars)
		c.mark(song.Bars)
		require.NoError(t, song.Check(), c.name)
		played := []string{}
		for _, b := range song.PlayedBars() {
			played = append(played, string(rune('0'+b)))
		}
		assert.Equal(t, c.want, strings.Join(played, " "), c.name)
	}
}

// Whatever signs stand where, a chorus comes to its end: each bar is played at most as often as all repeats,
// endings and jumps together allow.
func TestEveryOrderOfSignsEnds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		bars := rapid.IntRange(1, 8).Draw(t, "bars")
		c := Chart{Meter: FourFour, Bars: EmptyBars(bars, FourFour)}
		for b := range c.Bars {
			bar := &c.Bars[b]
			bar.RepeatFrom = rapid.IntRange(0, 3).Draw(t, "from?") == 0
			bar.RepeatTo = rapid.SampledFrom([]int{0, 0, 2, 3}).Draw(t, "to")
			bar.Ending = rapid.SampledFrom([]int{0, 0, 0, 1, 1, 2, 2, 3}).Draw(t, "ending")
			bar.Signs = Signs{
				Segno: rapid.IntRange(0, 5).Draw(t, "segno?") == 0, Coda: rapid.IntRange(0, 3).Draw(t, "coda?") == 0,
				ToCoda: rapid.IntRange(0, 3).Draw(t, "to coda?") == 0, Fine: rapid.IntRange(0, 5).Draw(t, "fine?") == 0,
				Jump: rapid.SampledFrom(append([]Jump{NoJump, NoJump, DCAlCoda, DSAlCoda}, Jumps...)).Draw(t, "jump"),
			}
		}
		most := 3 * bars * 3 * MaxEndings
		if order, _ := c.play(most + 1); len(order) > most {
			t.Fatalf("%+v: goes on for ever: %v", c.Bars, order[:40])
		}
	})
}

func TestSignsThatCannotBePlayedOut(t *testing.T) {
	for want, mark := range map[string]func(b []Bar){
		"bars[3].jump: bar 4: D.S. needs a segno":                                      func(b []Bar) { b[3].Signs.Jump = DS },
		"bars[1].fine: bar 2: no jump of the chart leads to a fine":                    func(b []Bar) { b[1].Signs.Fine = true },
		"bars[2].jump: bar 3: a D.C. or D.S. stands in bar 1 already; a chart has one": func(b []Bar) { b[0].Signs.Jump, b[2].Signs.Jump = DC, DC },
		"bars[1].coda: bar 2: the coda begins after the D.C. al coda, from bar 5 on":   func(b []Bar) { b[3].Signs.Jump, b[0].Signs.ToCoda, b[1].Signs.Coda = DCAlCoda, true, true },
		"bars[1].jump: bar 2: the D.C. is never come to: it stands where the repeat always goes back": func(b []Bar) {
			b[1].Ending, b[1].RepeatTo, b[1].Signs.Jump = 1, 2, DC
		},
		"bars[2].ending: bar 3: a third ending follows a second one": func(b []Bar) { b[1].Ending, b[1].RepeatTo, b[2].Ending = 1, 2, 3 },
		"bars[2].ending: bar 3: an ending is 1 to 4, or 0 for none":  func(b []Bar) { b[2].Ending = 5 },
		"bars[0]: bar 1: what holds from the first bar on is the chart's own key, meter and feel": func(b []Bar) {
			b[0].Change.Meter = TwoFour
		},
	} {
		song := plainSong(t, 5)
		mark(song.Bars)
		assert.EqualError(t, song.Check(), want)
	}
}

// A bar of 2/4 among 4/4, a new key, a shuffle: where the bars lie and what holds.
func TestTheTimeLineOfASong(t *testing.T) {
	c := plainSong(t, 6)
	c, err := c.ChangedMeter(1, 1, TwoFour)
	require.NoError(t, err)
	c, err = c.ChangedKey(3, 0, key(t, "Eb", harmony.MajorMode), true)
	require.NoError(t, err)
	c, err = c.ChangedFeel(4, 1, Shuffle)
	require.NoError(t, err)
	require.NoError(t, c.Check())
	assert.Equal(t, "C D E Ab Bb C", symbols(c), "the chords of the new key move with it")
	assert.Equal(t, []string{"", "2/4", "4/4", "key Eb major", "shuffle", "straight"}, []string{
		c.Bars[0].Change.String(), c.Bars[1].Change.String(), c.Bars[2].Change.String(), c.Bars[3].Change.String(), c.Bars[4].Change.String(), c.Bars[5].Change.String(),
	})
	line := c.Timeline()
	assert.Equal(t, []int{0, 1920, 2880, 4800, 6720, 8640, 10560}, []int{line.Start(0), line.Start(1), line.Start(2), line.Start(3), line.Start(4), line.Start(5), line.Start(6)})
	assert.Equal(t, 10560, c.Ticks())
	assert.Equal(t, 11.0, c.Facts().Seconds, "22 beats at 120")
	assert.Equal(t, "beat 2 of bar 2", line.CountedInBar(2400))
	assert.Equal(t, "beat 1 of bar 3", line.CountedInBar(2880))
	assert.Equal(t, "beat 4 of the bar before bar 1", line.CountedInBar(-480), "the last bar of the chorus before")
	assert.Equal(t, 6720+320, line.Swung(6720+240), "only bar 5 is shuffled")
	assert.Equal(t, 8640+240, line.Swung(8640+240))
	assert.True(t, line.IsStrong(2880+960))
	assert.False(t, line.IsStrong(1920+480))
	assert.Equal(t, "Eb", line.KeyAt(3).Tonic.String())
	assert.Equal(t, "IV", c.ChordSpans()[3].Key.Roman(c.ChordSpans()[3].Chord))

	run, err := c.CountBack(2880, 5, Subdivision{"eighth", 2})
	require.NoError(t, err)
	assert.Equal(t, "beat 1 of bar 2", line.CountedInBar(run.Start), "counted back through the short bar")

	moved := c.Transposed(key(t, "G", harmony.MajorMode))
	assert.Equal(t, "G A B Eb F G", symbols(moved))
	assert.Equal(t, "key Bb major", moved.Bars[3].Change.String(), "keys keep their distance")
	back := moved.Transposed(c.Key)
	assert.Equal(t, c, back)

	cut := c.Excerpt(3, 2)
	assert.Equal(t, "Eb", cut.Key.Tonic.String())
	assert.Equal(t, "Ab Bb", symbols(cut))
	without, err := c.Remove(1, 1)
	require.NoError(t, err)
	assert.Equal(t, FourFour, without.SettingOf(1).Meter, "the others keep their meter")
	copied, err := c.Copy(1, 1, 6)
	require.NoError(t, err)
	assert.Equal(t, TwoFour, copied.SettingOf(6).Meter, "a copy brings its meter along")
	_, err = c.WithTurnaround(Turnarounds[0], 1, false)
	assert.EqualError(t, err, "bar: the meter changes between bar 2 and 3; a turnaround takes two bars of one meter")
}

func TestTheBarBeforeBarOne(t *testing.T) {
	c := plainSong(t, 4)
	c, err := c.WithPickup(2)
	require.NoError(t, err)
	c, err = c.WritePickup("N.C. G7")
	require.NoError(t, err)
	require.NoError(t, c.Check())
	assert.Equal(t, "N.C. G7", PickupText(c.Pickup))
	assert.Equal(t, "D7", c.Transposed(key(t, "G", harmony.MajorMode)).Pickup[1].Name())
	_, err = c.WritePickup("C D E")
	assert.EqualError(t, err, "3 chords; the bar before bar 1 has 2 beats, and a chord lasts at least one")
	_, err = c.WithPickup(4)
	assert.EqualError(t, err, "pickup: the bar before bar 1 is shorter than a bar of 4/4: 1 to 3 beats")
	shorter, err := c.WithMeter(TwoFour)
	require.NoError(t, err)
	assert.Equal(t, "G7", PickupText(shorter.Pickup), "what fills a bar is cut from the left")
	gone, err := c.WithPickup(0)
	require.NoError(t, err)
	assert.Empty(t, gone.Pickup)
}

// A chosen scale is kept for a chord or for a function, and what follows a dominant decides where
// nothing is chosen.
func TestChordsKnowWhereTheyStand(t *testing.T) {
	c := plainSong(t, 4)
	c, err := c.Write(0, "C | A7 | Dm7 | A7 D7")
	require.NoError(t, err)
	scales := func(c Chart) string {
		all := []string{}
		for _, m := range c.ChordSpans() {
			scale, _ := c.Key.ChordScale(m.Chord)
			all = append(all, m.Chord.Symbol()+" "+scale.Name)
		}
		return strings.Join(all, ", ")
	}
	assert.Equal(t, "C major, A7 Phrygian dominant, Dm7 Dorian, A7 Mixolydian, D7 Mixolydian", scales(c))
	assert.Len(t, c.Chords(), 5, "A7 leads to two places and is judged in two ways")
	a := c.ChordSpans()[1].Chord
	chosen, err := c.WithScale(a, nil, "altered")
	require.NoError(t, err)
	assert.Equal(t, "C major, A7 altered, Dm7 Dorian, A7 altered, D7 Mixolydian", scales(chosen))
	byFunction, err := c.WithScale(a, &c.Key, "half-whole diminished")
	require.NoError(t, err)
	assert.Equal(t, "VI7", byFunction.Scales[0].Name())
	assert.Contains(t, scales(byFunction.Transposed(key(t, "G", harmony.MajorMode))), "E7 half-whole diminished")
	assert.Contains(t, scales(chosen.Transposed(key(t, "G", harmony.MajorMode))), "E7 altered")
	gone, err := chosen.WithScale(a, nil, "")
	require.NoError(t, err)
	assert.Empty(t, gone.Scales)
	_, err = c.WithScale(c.ChordSpans()[2].Chord, nil, "altered")
	assert.EqualError(t, err, "scale: Dm7 is no dominant; only a dominant has scales to choose from")
}

// However settings are changed, the bars stay full, compressed changes say the same as the settings, and
// the time line fits the chords.
func TestSongsKeepTogether(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := Chart{Title: "A draw", Key: harmony.Key{Mode: harmony.MajorMode}, Meter: FourFour, Tempo: 100, Feel: Straight, Swing: 2, Bars: EmptyBars(rapid.IntRange(1, 12).Draw(t, "bars"), FourFour)}
		for range rapid.IntRange(1, 10).Draw(t, "edits") {
			at, count := rapid.IntRange(0, len(c.Bars)-1).Draw(t, "at"), rapid.IntRange(0, 4).Draw(t, "count")
			before := c.settings()
			edit := rapid.SampledFrom([]func() (Chart, error){
				func() (Chart, error) { return c.ChangedMeter(at, count, rapid.SampledFrom(Meters).Draw(t, "meter")) },
				func() (Chart, error) { return c.ChangedFeel(at, count, rapid.SampledFrom(Feels).Draw(t, "feel")) },
				func() (Chart, error) {
					k, err := harmony.ParseKey(rapid.SampledFrom(harmony.Tonics).Draw(t, "tonic"), rapid.SampledFrom(harmony.Modes).Draw(t, "mode"))
					require.NoError(t, err)
					return c.ChangedKey(at, count, k, rapid.Bool().Draw(t, "move"))
				},
				func() (Chart, error) { return c.Insert(at, max(count, 1)) },
				func() (Chart, error) {
					return c.Copy(at, min(max(count, 1), len(c.Bars)-at), rapid.IntRange(0, len(c.Bars)).Draw(t, "to"))
				},
				func() (Chart, error) { return c.Remove(at, max(count, 1)) },
			}).Draw(t, "edit")
			next, err := edit()
			if err != nil {
				continue
			}
			if len(next.Bars) == len(c.Bars) && count > 0 {
				for b, in := range next.settings() {
					if b < at || b >= at+count {
						require.Equal(t, before[b], in, "bar %d is none of those changed", b+1)
					}
				}
			}
			c = next
			require.NoError(t, c.Check())
		}
		line, spans := c.Timeline(), c.ChordSpans()
		tick := 0
		for _, m := range spans {
			require.Equal(t, tick, m.Tick)
			require.Equal(t, m.Bar, line.BarAt(m.Tick))
			require.Equal(t, line.At(m.Bar).Meter, m.Meter)
			tick += m.Ticks
		}
		require.Equal(t, line.Ticks(), tick)
	})
}
