package routine

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/harmony"
)

func blues(t require.TestingT, tonic string, tempo int) chart.Chart {
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	return chart.Chart{Title: "A test", Key: key, Meter: chart.FourFour, Tempo: tempo, Feel: chart.Shuffle, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
}

// walked is a routine pass by pass: at most so many, skipping after those that are named.
func walked(r Routine, c chart.Chart, most int, skips ...int) []Pass {
	passes := []Pass{r.First(c)}
	for len(passes) < most {
		next, ok := r.Next(c, passes[len(passes)-1].Place, slices.Contains(skips, len(passes)))
		if !ok {
			break
		}
		passes = append(passes, next)
	}
	return passes
}

func tempos(passes []Pass) []int {
	all := []int{}
	for _, p := range passes {
		all = append(all, p.Chart.Tempo)
	}
	return all
}

func tonics(passes []Pass) []string {
	all := []string{}
	for _, p := range passes {
		all = append(all, p.Chart.Key.Tonic.String())
	}
	return all
}

func TestFasterClimbsToItsGoalAndDownWhenAsked(t *testing.T) {
	c := blues(t, "C", 100)
	r := Routine{Name: "faster", Segments: []Segment{
		{Choruses: 2, Tempo: 90, End: End{TempoBy: 4, TempoTo: 100, Wait: true}},
		{Choruses: 1, End: End{TempoBy: -4, TempoTo: 90}},
	}}
	require.NoError(t, r.Check(c))
	assert.Equal(t, []int{90, 90, 94, 94, 98, 98, 100, 100, 100, 100, 100, 100}, tempos(walked(r, c, 12)), "it stays at its goal")
	assert.Equal(t, []int{90, 90, 94, 94, 94, 90}, tempos(walked(r, c, 99, 4)), "asked down, from where it has come to")
	assert.Equal(t, []int{90, 90, 94, 94, 98, 98, 100, 100, 100, 100, 96, 92, 90}, tempos(walked(r, c, 99, 9)))
}

func TestKeys(t *testing.T) {
	c := blues(t, "C", 100)
	through := func(by KeyStep) []string {
		return tonics(walked(Routine{Name: "keys", Seed: 3, Segments: []Segment{{Choruses: 1, End: End{KeyBy: by, Again: 11}}}}, c, 99))
	}
	assert.Equal(t, []string{"C", "F", "Bb", "Eb", "Ab", "Db", "F#", "B", "E", "A", "D", "G"}, through(Fourths))
	assert.Equal(t, []string{"C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"}, through(HalfSteps))
	random := through(RandomKeys)
	assert.Len(t, random, 12)
	assert.Equal(t, "C", random[0])
	slices.Sort(random)
	assert.Len(t, slices.Compact(random), 12, "every key once")
	assert.NotEqual(t, through(RandomKeys), through(Fourths))
}

func TestAChordGoesRound(t *testing.T) {
	c := blues(t, "C", 100)
	passes := walked(Routine{Name: "one", Segments: []Segment{{Chord: 2, Bars: 4, End: End{Wait: true}}, {Chord: 3, Bars: 4}}}, c, 99, 3)
	assert.Len(t, passes, 4)
	for n, want := range []string{"F7", "F7", "F7", "G7"} {
		chords := passes[n].Chart.Chords()
		assert.Len(t, chords, 1)
		assert.Equal(t, want, chords[0].Symbol())
		assert.Equal(t, 4, passes[n].Bars)
	}
}

func TestBarsRunOnFromTheTop(t *testing.T) {
	passes := walked(Routine{Name: "bars", Segments: []Segment{{From: 10, Bars: 16}}}, blues(t, "C", 100), 99)
	got := [][2]int{}
	for _, p := range passes {
		got = append(got, [2]int{p.From, p.Bars})
	}
	assert.Equal(t, [][2]int{{10, 2}, {0, 12}, {0, 2}}, got)
	assert.True(t, passes[0].First && !passes[0].Last && passes[2].Last)
}

// In a file nobody can ask: a segment that waits is played to the end of its last time, twice
// through at least, and then the next one.
func TestAFileGoesOnByItself(t *testing.T) {
	c := blues(t, "C", 100)
	for _, one := range []struct {
		segments []Segment
		want     []int
	}{
		{[]Segment{{}, {Choruses: 1}}, []int{100, 100, 100}},
		{[]Segment{{Choruses: 2, Tempo: 90, End: End{TempoBy: 4, TempoTo: 98, Wait: true}}, {Choruses: 1, Tempo: 60}}, []int{90, 90, 94, 94, 98, 98, 60}},
		{[]Segment{{Choruses: 1, End: End{Wait: true}}, {Choruses: 1, Tempo: 60}}, []int{100, 100, 60}},
		{[]Segment{{Choruses: 3, End: End{Wait: true}}}, []int{100, 100, 100}},
	} {
		r := Routine{Name: "file", Segments: one.segments}
		passes := []Pass{r.First(c)}
		for len(passes) < 50 {
			next, ok := r.NextInFile(c, passes[len(passes)-1].Place)
			if !ok {
				break
			}
			passes = append(passes, next)
		}
		assert.Equal(t, one.want, tempos(passes))
	}
}

func TestMinutesAreWholeChoruses(t *testing.T) {
	c := blues(t, "C", 120) // a chorus of 24 seconds
	assert.Len(t, walked(Routine{Name: "m", Segments: []Segment{{Minutes: 1}}}, c, 99), 3)
	o := Routine{Name: "m", Segments: []Segment{{Minutes: 1}, {Choruses: 2, Tempo: 240}}}.Outline(c)
	assert.InDelta(t, 72+24, o.Seconds, 1e-9)
	assert.Equal(t, []float64{72, 24}, o.Segments)
	assert.Equal(t, 240, o.Tempo)
	assert.False(t, o.Waits)
}

func TestWhatCannotBePlayedIsSaid(t *testing.T) {
	c := blues(t, "C", 100)
	for want, s := range map[string]Segment{
		"a tempo is 20 to 400":                         {Choruses: 1, Tempo: 500},
		"it would go to 420":                           {Choruses: 1, End: End{TempoBy: 4, TempoTo: 420}},
		"it would go to 480":                           {Choruses: 1, End: End{TempoBy: 20, Again: 19}},
		"by steps of -4 it never gets from 100 to 120": {Choruses: 1, End: End{TempoBy: -4, TempoTo: 120}},
		"given twice":                                  {Choruses: 1, Bars: 4},
		"bar 13 is not in the tune":                    {From: 12, Bars: 1},
		"say how many bars":                            {From: 3, Choruses: 1},
		"the tune has no chord 4":                      {Chord: 4},
		"up to 120 minutes, not 500":                   {Minutes: 500},
		"1, 3, 5 or 7":                                 {Aim: 4},
		"13 bars are longer":                           {TradeBars: 13},
		`"far" cannot be shown`:                        {View: "far"},
		`"up" is no order of keys`:                     {End: End{KeyBy: "up"}},
		`"H" is no key`:                                {Key: "H"},
		`"horns" is no part`:                           {Silent: []band.Part{"horns"}},
		"1 to 6 clicks, not 7":                         {Click: band.ClickPattern{PerBeat: 7}},
	} {
		err := Routine{Name: "r", Segments: []Segment{s}}.Check(c)
		require.Error(t, err, want)
		if want != `"H" is no key` {
			assert.ErrorContains(t, err, want)
		}
		var field *chart.FieldError
		require.ErrorAs(t, err, &field)
		assert.Regexp(t, `^segments\[0\]\.`, field.Field)
	}
	assert.ErrorContains(t, Routine{Segments: []Segment{{}}}.Check(c), "1 to 60 characters")
	assert.ErrorContains(t, Routine{Name: "r"}.Check(c), "1 to 64 segments")
}

// The ready-made routines can be played over every scheme in every key, and say how long they are.
func TestReadyMade(t *testing.T) {
	for _, scheme := range chart.Schemes {
		for _, tempo := range []int{chart.MinTempo, 112, chart.MaxTempo} {
			c := blues(t, "Eb", tempo)
			c.Bars = scheme.Bars(c.Key.Tonic, c.Meter)
			for _, r := range Ready(c) {
				require.NoError(t, r.Check(c), "%s over %s at %d", r.Name, scheme, tempo)
				o := r.Outline(c)
				assert.Positive(t, o.Seconds, r.Name)
				assert.Less(t, o.Seconds, 4*3600.0*float64(112)/float64(min(tempo, 112)), r.Name)
			}
		}
	}
}

// Whatever the segments: passes lie in the tune, tempos in their bounds, choruses count on,
// and walking with every wait skipped comes to an end.
func TestPassProperties(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := blues(t, rapid.SampledFrom(harmony.DominantMode.Tonics()).Draw(t, "tonic"), rapid.IntRange(chart.MinTempo, chart.MaxTempo).Draw(t, "tempo"))
		r := Routine{Name: "r", Seed: rapid.Uint64().Draw(t, "seed")}
		for range rapid.IntRange(1, 4).Draw(t, "segments") {
			s := Segment{Tempo: rapid.SampledFrom([]int{0, 60, 200}).Draw(t, "its tempo"), Chord: rapid.IntRange(0, 3).Draw(t, "chord")}
			switch rapid.IntRange(0, 3).Draw(t, "length") {
			case 0:
				s.Choruses = rapid.IntRange(1, 3).Draw(t, "choruses")
			case 1:
				s.Bars, s.From = rapid.IntRange(1, 30).Draw(t, "bars"), rapid.IntRange(0, 11).Draw(t, "from")
			case 2:
				s.Minutes = rapid.Float64Range(0.1, 2).Draw(t, "minutes")
			}
			s.End = End{
				KeyBy: rapid.SampledFrom([]KeyStep{SameKey, Fourths, HalfSteps, RandomKeys}).Draw(t, "keys"),
				Again: rapid.IntRange(0, 5).Draw(t, "again"), TempoBy: rapid.IntRange(-3, 3).Draw(t, "by"), Wait: rapid.Bool().Draw(t, "wait"),
			}
			r.Segments = append(r.Segments, s)
		}
		if err := r.Check(c); err != nil {
			t.Skip(err)
		}
		p := r.First(c)
		for count := 0; ; count++ {
			require.Less(t, count, mostPasses)
			require.NoError(t, p.Chart.Check())
			require.Equal(t, count, p.Chorus)
			require.Positive(t, p.Bars)
			require.LessOrEqual(t, p.From+p.Bars, p.Chart.Timeline().Bars())
			require.Equal(t, p, r.pass(c, p.Place), "a place says all")
			next, ok := r.Next(c, p.Place, p.Last && r.Segments[p.Place.Segment].Waits())
			if !ok {
				break
			}
			p = next
		}
	})
}

func TestSegmentsAndRoutinesSayWhatTheyAre(t *testing.T) {
	for want, s := range map[string]Segment{
		"until you go on":           {},
		"1 chorus":                  {Choruses: 1},
		"8 bars from bar 5":         {Bars: 8, From: 4},
		"1.5 minutes":               {Minutes: 1.5},
		"2 choruses · at 84 · in F": {Choruses: 2, Tempo: 84, Key: "F"},
		"4 choruses · 4 bars each":  {Choruses: 4, TradeBars: 4},
		"1 chorus · +8 each time to 112 · until you go on": {Choruses: 1, End: End{TempoBy: 8, TempoTo: 112, Wait: true}},
		"1 chorus · -4 each time, 3 times":                 {Choruses: 1, End: End{TempoBy: -4, Again: 2}},
		"1 chorus · up a half step each time, 12 keys":     {Choruses: 1, End: End{KeyBy: HalfSteps, Again: 11}},
		"1 chorus · another key each time, 12 keys":        {Choruses: 1, End: End{KeyBy: RandomKeys, Again: 11}},
		"2 choruses · 5 times":                             {Choruses: 2, End: End{Again: 4}},
	} {
		assert.Equal(t, want, s.Text())
	}
	assert.Equal(t, "45 seconds", Outline{Seconds: 45, Tempo: 100, Tonic: "C"}.Text(100, "C"))
	assert.Equal(t, "19 min · ends at 132, in F", Outline{Seconds: 1140, Tempo: 132, Tonic: "F"}.Text(112, "C"))
	assert.Equal(t, "until you stop or go on", Outline{Waits: true, Tempo: 132, Tonic: "F"}.Text(112, "C"))
}
