package phrase

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

func keyOfC(t testing.TB) harmony.Key {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	return key
}

// overTwo is a lick that leads over a change: the box over C7, and the 3 of F7.
func overTwo(t testing.TB) Lick {
	return Lick{Name: "Over two", About: "From the box into A.", Tags: []string{"change", "box"}, Tonic: keyOfC(t).Tonic, Phrase: Phrase{
		Meter: chart.FourFour, Chords: []PhraseChord{{Chord: chordOf(t, "C7")}, {Tick: 1920, Chord: chordOf(t, "F7")}},
		Events: []Event{
			at(-1, 3, 8), at(0, 3, 10, hammer), at(2, 2, 8), at(3, 2, 11, bent), at(6, 2, 8), at(7, 2, 9), at(8, 2, 10, slide(9)), at(12, 2, 8, lasting(960)),
		},
	}}
}

func lasting(ticks int) func(*Event) { return func(e *Event) { e.Ticks = ticks } }

func degrees(all []pitch.Degree) string {
	names := []string{}
	for _, d := range all {
		names = append(names, d.String())
	}
	return strings.Join(names, " ")
}

func TestFacts(t *testing.T) {
	two, one := overTwo(t).Facts(guitar, 120), overC7(t).Facts(guitar, 120)
	assert.Empty(t, two.Scales, "no scale of the list holds its passing Ab")
	assert.Equal(t, []string{"both pentatonics"}, one.Scales)
	assert.Equal(t, "b3 9, b3 R", two.Starts.String()+" "+two.Ends.String()+", "+one.Starts.String()+" "+one.Ends.String())
	assert.Equal(t, "3", degrees(two.Lands))
	assert.Equal(t, "9", degrees(two.Leans))
	assert.Empty(t, one.Lands)
	assert.Equal(t, []int{2, 1}, []int{two.Bars, one.Bars})
	assert.Equal(t, [2]int{8, 11}, [2]int{two.Low, two.High})
	assert.Equal(t, []string{"slide", "hammer-on", "bend"}, two.Techniques)
	assert.Equal(t, []string{"pull-off", "bend"}, one.Techniques)
	assert.InDelta(t, 4, one.PerSecond, 0.001, "eighths at 120")
	assert.Equal(t, neck.Place{String: 2, Fret: 8}, two.Last)
}

func TestLicksAreFound(t *testing.T) {
	licks := []Lick{overC7(t), overTwo(t)}
	f7, fsharp := chordOf(t, "F7"), chordOf(t, "F#7")
	e := keyWindow(t, "E")
	low := guitar.WindowFrom(1)
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
			for _, f := range NewIndex(guitar, keyOfC(t), 120, licks).Find(w) {
				found = append(found, string(rune('0'+f.Index)))
			}
			assert.Equal(t, want, strings.Join(found, " "), "%+v", w)
		}
	}
}

func keyWindow(t testing.TB, form string) neck.Window {
	t.Helper()
	p, err := neck.FindPosition(guitar, 0, form)
	require.NoError(t, err)
	return p.Window
}

func TestLicksThatEndNearALandingComeNearestFirst(t *testing.T) {
	licks := []Lick{overC7(t), overTwo(t), overC7(t)}
	licks[2].Phrase.Events = licks[2].Phrase.Events[:2]
	found := NewIndex(guitar, keyOfC(t), 120, licks).Find(Query{Near: &neck.Place{String: 1, Fret: 5}})
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
		c := chordOfRapid(t)
		found := map[int]bool{}
		for _, f := range NewIndex(guitar, harmony.Key{Mode: harmony.DominantMode}, 100, licks).Find(Query{Near: &near, FitsChord: &c}) {
			found[f.Index] = true
		}
		for n, l := range licks {
			last := l.Phrase.Events[len(l.Phrase.Events)-1].Sounding(guitar)
			away := int(guitar.Pitch(near) - last)
			assert.Equal(t, max(away, -away) <= 4 && l.Fits(guitar, harmony.Key{Mode: harmony.DominantMode}, c), found[n])
		}
	})
}

func chordOfRapid(t *rapid.T) harmony.Chord {
	c, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.Signs()).Draw(t, "sign"))
	require.NoError(t, err)
	return c
}

func TestALickIsSplitIntoItsChords(t *testing.T) {
	parts := overTwo(t).SplitByChord()
	require.Len(t, parts, 2)
	assert.Equal(t, "Over two, part 1: C7", parts[0].Name)
	assert.Equal(t, "-240+240 3:8, 0+240 3:10 hammered on, 480+240 2:8, 720+240 2:11 bent a whole step, 1440+240 2:8, 1680+240 2:9", shown(parts[0].Phrase))
	assert.Equal(t, "Over two, part 2: F7", parts[1].Name)
	assert.Equal(t, "0+240 2:10 slid from fret 9, 960+960 2:8", shown(parts[1].Phrase))
	assert.Equal(t, "F7", parts[1].Phrase.Chords[0].Chord.Symbol())
	assert.Equal(t, []string{"change", "box"}, parts[1].Tags)
	for _, part := range parts {
		assert.NoError(t, part.Check())
	}
	assert.Equal(t, []Lick{overC7(t)}, overC7(t).SplitByChord())
}

func TestLicksAreJoinedWithARunBetween(t *testing.T) {
	eighths := chart.FourFour.Subdivisions()[1]
	second := overC7(t)
	second.Name, second.Tags = "Answer", []string{"answer", "box"}
	j, err := overC7(t).Join(guitar, second, 0, eighths)
	require.NoError(t, err)
	assert.Equal(t, 1920, j.From)
	assert.Len(t, j.Lick.Phrase.Events, 14)
	assert.Equal(t, "Over C7, then Answer", j.Lick.Name)
	assert.Equal(t, []string{"answer", "box"}, j.Lick.Tags)
	j, err = overC7(t).Join(guitar, second, 1, eighths)
	require.NoError(t, err)
	assert.Equal(t, "1440+240 4:10, 1680+240 3:7, 1920+240 3:8", lastOf(shown(j.Lick.Phrase), 6, 9))
	assert.Equal(t, [2]int{7, 8}, j.Run)
	assert.Equal(t, "one note after the first left out", j.Remark)
	j, err = overC7(t).Join(guitar, second, 5, eighths)
	require.NoError(t, err)
	assert.Equal(t, "there is room for 1 of 5 notes", j.Remark)
	pickup := overTwo(t)
	j, err = overTwo(t).Join(guitar, pickup, 0, eighths)
	require.NoError(t, err)
	assert.Equal(t, 3*1920, j.From, "the last note leaves no room for the pickup: a bar later")
	other := overC7(t)
	other.Tonic = pitch.Note{Letter: 1}
	for want, bad := range map[string]func() error{
		"with: it is in D, and does not lie in C here": func() error { _, err := overC7(t).Join(guitar, other, 0, eighths); return err },
		"with: a lick in 4/4 and one in 12/8 cannot be joined": func() error {
			o := overC7(t)
			o.Phrase.Meter = chart.TwelveEight
			_, err := overC7(t).Join(guitar, o, 0, eighths)
			return err
		},
		"notes: a connector has 0 to 12 notes": func() error { _, err := overC7(t).Join(guitar, overC7(t), 13, eighths); return err },
	} {
		assert.EqualError(t, bad(), want)
	}
}

func lastOf(text string, from, to int) string {
	return strings.Join(strings.Split(text, ", ")[from:to], ", ")
}

// Split and joined again, a lick has every note it had.
func TestSplitAndJoinedAgain(t *testing.T) {
	parts := overTwo(t).SplitByChord()
	j, err := parts[0].Join(guitar, parts[1], 0, chart.FourFour.Subdivisions()[1])
	require.NoError(t, err)
	was := overTwo(t).Phrase
	assert.Equal(t, shown(was), shown(j.Lick.Phrase))
	assert.Equal(t, was.Chords, j.Lick.Phrase.Chords)
}

func TestALickElsewhere(t *testing.T) {
	p, err := neck.FindPosition(guitar, 0, "E")
	require.NoError(t, err)
	all := overC7(t).Variants(guitar, keyOfC(t), p)
	by := map[string][]Variant{}
	for _, e := range all {
		by[e.Group] = append(by[e.Group], e)
		if e.Refused == "" {
			require.NoError(t, e.Phrase.Check(guitar), e.Name)
			assert.NotEmpty(t, e.Phrase.Chords)
		}
	}
	up, down, pairs := by["octaves"][0], by["octaves"][1], by["octaves"][2]
	assert.Empty(t, up.Refused, "fret 23 is off this neck, but other strings have it")
	assert.Equal(t, 12, up.Shift)
	assert.Equal(t, -12, down.Shift)
	assert.Equal(t, "5:6 3:8 5:10 3:12 4:5 2:8", places(Phrase{Events: pairs.Phrase.Events[:6]}), "the octave lies below, two strings over, and the line on top")
	assert.Equal(t, []string{"the bend at note 2 cannot be had on two strings", "the pull-off at note 5 cannot be had on two strings"}, pairs.Lost)
	require.Len(t, by["keys"], 13, "every tonic but its own")
	assert.Equal(t, "Ab", by["keys"][9].Name)
	assert.Equal(t, "Ab7", by["keys"][9].Phrase.Chords[0].Chord.Symbol())
	assert.Equal(t, "3:4 3:6 2:4 2:7 2:4 3:5 4:6", places(by["keys"][9].Phrase))
	assert.Len(t, by["positions"], len(neck.Positions(guitar, 0)))
}

// As octaves, every pair sounds twelve half steps apart, at once; in every key and
// position the intervals over the tonic stay.
func TestElsewhereHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := drawnLick(t)
		key, err := harmony.ParseKey(l.Tonic.String(), harmony.DominantMode)
		require.NoError(t, err)
		at := rapid.SampledFrom(neck.Positions(guitar, key.Tonic.Class())).Draw(t, "position")
		for _, e := range l.Variants(guitar, key, at) {
			if e.Refused != "" {
				continue
			}
			require.NoError(t, e.Phrase.Check(guitar))
			if e.Name == "as octaves" {
				require.Len(t, e.Phrase.Events, 2*len(l.Phrase.Events))
				for n := 0; n < len(e.Phrase.Events); n += 2 {
					a, b := e.Phrase.Events[n], e.Phrase.Events[n+1]
					assert.Equal(t, a.Tick, b.Tick)
					assert.Equal(t, 12, int(b.Sounding(guitar)-a.Sounding(guitar)))
				}
				continue
			}
			for n, note := range e.Phrase.Events {
				was := l.Phrase.Events[n].Sounding(guitar).Class().Above(l.Tonic.Class())
				assert.Equal(t, was, note.Sounding(guitar).Class().Above(e.Tonic.Class()), e.Name)
			}
		}
	})
}

func TestALicksOwnChart(t *testing.T) {
	c, start := overTwo(t).ToChart(96, chart.Shuffle, 2)
	require.NoError(t, c.Check())
	assert.Equal(t, 1920, start, "a bar for the pickup")
	symbols := []string{}
	for _, bar := range c.Bars {
		symbols = append(symbols, chart.Text(bar.Spans))
	}
	assert.Equal(t, "C7 | C7 | F7", strings.Join(symbols, " | "))
	plain := overC7(t)
	plain.Phrase.Chords = nil
	c, start = plain.ToChart(96, chart.Straight, 2)
	assert.Equal(t, "C7", chart.Text(c.Bars[0].Spans))
	assert.Zero(t, start)
	halves := overC7(t)
	halves.Phrase.Chords = append(halves.Phrase.Chords, PhraseChord{Tick: 960, Chord: chordOf(t, "A7")})
	c, _ = halves.ToChart(96, chart.Straight, 2)
	assert.Equal(t, "C7 A7", chart.Text(c.Bars[0].Spans))
	minor := overC7(t)
	minor.Phrase.Chords[0].Chord = chordOf(t, "Cm7")
	assert.Equal(t, harmony.MinorMode, minor.Key().Mode)
	minor.Phrase.Chords[0].Chord = chordOf(t, "Cmaj7")
	assert.Equal(t, harmony.MajorMode, minor.Key().Mode)
}

func TestLimitsOfALick(t *testing.T) {
	for want, spoil := range map[string]func(*Lick){
		"name: a lick's name has 1 to 60 characters":                         func(l *Lick) { l.Name = "" },
		"about: what a lick is about has at most 200 characters":             func(l *Lick) { l.About = strings.Repeat("x", 201) },
		"tags[0]: a tag has 1 to 24 characters in one line, without a comma": func(l *Lick) { l.Tags = []string{"a,b"} },
		"tags: a lick has at most 12 tags":                                   func(l *Lick) { l.Tags = make([]string, 13) },
		"tonic: Fbb is not a tonic; a tonic has at most one b or #":          func(l *Lick) { l.Tonic = pitch.Note{Letter: 3, Accidental: -2} },
		"note 1: it begins more than 4 bars before bar 1":                    func(l *Lick) { l.Phrase.Events[0].Tick = -4*1920 - 1 },
		"note 7: it goes on past bar 64, where a lick ends at the latest":    func(l *Lick) { l.Phrase.Events[6].Tick = 64*1920 - 239 },
		"a phrase has 1 to 4096 notes; this has 0":                           func(l *Lick) { l.Phrase.Events = nil },
		"chord 1 is outside the 64 bars a lick may have":                     func(l *Lick) { l.Phrase.Chords[0].Tick = 1 << 20 },
	} {
		l := overC7(t)
		require.NoError(t, l.Check())
		spoil(&l)
		err := l.Check()
		if e, ok := err.(*EventError); ok && (e.Field == "events" || e.Field == "over") {
			assert.Equal(t, want, e.Detail)
			continue
		}
		assert.EqualError(t, err, want)
	}
	empty := overC7(t)
	empty.Phrase.Events = nil
	assert.NoError(t, empty.CheckSoFar(), "it may be written from nothing")
}
