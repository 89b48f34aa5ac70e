package change

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// twelve is the quick-change blues in a key, in its E form.
func twelve(t testing.TB, tonic string) PathRequest {
	t.Helper()
	s := in(t, tonic)
	c := chart.Chart{Key: s.key, Meter: chart.FourFour, Tempo: 100, Bars: chart.Schemes[0].Bars(s.key.Tonic, chart.FourFour)}
	return PathRequest{Instrument: guitar, Hand: standing(s.window), Changes: c.TargetChanges()}
}

// standing is a hand that stays in a window.
func standing(w neck.Window) []HandPlace {
	return []HandPlace{{Position: neck.Position{Window: w}}}
}

func landed(p Path) string {
	places := make([]string, len(p.Targets))
	for n, l := range p.Targets {
		places[n] = fmt.Sprintf("%d:%d %s", l.String, l.Fret, l.Degree)
	}
	return fmt.Sprintf("%s (%d frets, %d strings)", strings.Join(places, ", "), p.Frets, p.Strings)
}

// The whole chorus by every school, in two keys: the same path, moved.
func TestTargetPaths(t *testing.T) {
	for tonic, want := range map[string]map[TargetStrategy]string{
		"C": {
			ThirdsFirst: "4:7 3, 5:7 3, 4:7 3, 5:7 3, 4:9 3, 3:8 b7, 3:9 3, 4:9 3, 3:9 3 (4 frets, 7 strings)",
			GuideTones:  "3:8 b7, 3:9 3, 3:8 b7, 3:9 3, 3:10 b7, 3:8 b7, 3:9 3, 3:10 b7, 3:9 3 (9 frets, 0 strings)",
			RootsFirst:  "5:8 R, 5:7 3, 5:8 R, 5:7 3, 6:7 3, 5:8 R, 5:7 3, 6:7 3, 6:8 R (6 frets, 3 strings)",
			NearestTone: "4:7 3, 4:8 b7, 4:7 3, 4:8 b7, 4:9 3, 4:10 5, 4:8 b7, 4:9 3, 4:8 b7 (9 frets, 0 strings)",
		},
		"A": {
			ThirdsFirst: "4:4 3, 5:4 3, 4:4 3, 5:4 3, 4:6 3, 3:5 b7, 3:6 3, 4:6 3, 3:6 3 (4 frets, 7 strings)",
			GuideTones:  "3:5 b7, 3:6 3, 3:5 b7, 3:6 3, 3:7 b7, 3:5 b7, 3:6 3, 3:7 b7, 3:6 3 (9 frets, 0 strings)",
		},
	} {
		for strategy, path := range want {
			o := twelve(t, tonic)
			o.Strategy = strategy
			p, err := o.Find()
			require.NoError(t, err)
			assert.Equal(t, path, landed(p), "%s in %s", strategy, tonic)
		}
	}
}

func TestAPinnedLandingAndTheRest(t *testing.T) {
	o := twelve(t, "C")
	o.Strategy = ThirdsFirst
	o.Pins = map[int]neck.Place{2: {String: 2, Fret: 10}}
	p, err := o.Find()
	require.NoError(t, err)
	assert.Equal(t, "2:10 3, 3:9 3, 2:10 3, 3:9 3, 4:9 3, 3:8 b7, 3:9 3, 4:9 3, 3:9 3 (5 frets, 7 strings)", landed(p))
	assert.True(t, p.Targets[2].Pinned)
	assert.False(t, p.Targets[1].Pinned)
	assert.Equal(t, "Bb, the b7 of C7, down a fret to A, the 3 of F7", p.Targets[2].Move.Text)

	var pin *PinError
	o.Pins = map[int]neck.Place{2: {String: 2, Fret: 9}}
	_, err = o.Find()
	require.ErrorAs(t, err, &pin)
	assert.EqualError(t, err, "bar 5: string 2 fret 9 is not a placed tone of F7 on frets 6 to 11; the nearest are string 2 fret 10, string 3 fret 10, string 1 fret 8, string 3 fret 8, string 1 fret 11")
	assert.Len(t, pin.Nearest, 5)
	o.Pins = map[int]neck.Place{2: {String: 2, Fret: 23}}
	_, err = o.Find()
	assert.EqualError(t, err, "bar 5: string 2 fret 23 is not on the neck")
}

// A path costs no more than any other choice of landings: ten thousand small cases,
// every choice tried.
func TestPathsEqualExhaustiveSearch(t *testing.T) {
	cases, each := 0, 100
	if testing.Short() {
		each = 500 // a fifth of the draws, and as many cases
	}
	rapid.Check(t, func(t *rapid.T) {
		for range each {
			cases++
			key, err := harmony.ParseKey(rapid.SampledFrom(harmony.Tonics).Draw(t, "tonic"), harmony.DominantMode)
			require.NoError(t, err)
			o := PathRequest{
				Strategy: rapid.SampledFrom(TargetStrategies).Draw(t, "school"), Instrument: guitar,
				Hand: []HandPlace{{Position: rapid.SampledFrom(neck.Positions(guitar, key.Tonic.Class())).Draw(t, "position")}},
			}
			window := o.Hand[0].Position.Window
			chords := []harmony.Chord{}
			for range rapid.IntRange(2, 4).Draw(t, "chords") {
				c, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom([]string{"", "m", "7", "m7", "5"}).Draw(t, "sign"))
				require.NoError(t, err)
				chords = append(chords, c)
			}
			for n := 1; n < len(chords); n++ {
				o.Changes = append(o.Changes, chart.Change{Leaving: chart.ChordSpan{Chord: chords[n-1]}, Arriving: chart.ChordSpan{Chord: chords[n]}})
			}
			p, err := o.Find()
			require.NoError(t, err)
			layers := [][]pathOption{}
			for _, ch := range o.Changes {
				layers = append(layers, o.options(ch, neck.PlaceTones(guitar, window, ch.Leaving.Chord.Tones()), neck.PlaceTones(guitar, window, ch.Arriving.Chord.Tones())))
			}
			assert.Equal(t, cheapestByTrying(layers, nil), p.Cost)
		}
	})
	assert.GreaterOrEqual(t, cases, 10_000)
}

// cheapestByTrying prices every way on from a landing, straight from the scores of
// the moves.
func cheapestByTrying(layers [][]pathOption, before *neck.Place) int {
	if len(layers) == 0 {
		return 0
	}
	best := -1
	for _, one := range layers[0] {
		cost := one.cost + cheapestByTrying(layers[1:], &one.tone.Place)
		if before != nil {
			cost += 25*abs(one.tone.Fret-before.Fret) + 60*abs(one.tone.String-before.String)
		}
		if best < 0 || cost < best {
			best = cost
		}
	}
	return best
}

func TestAPathOfNothing(t *testing.T) {
	p, err := PathRequest{Strategy: ThirdsFirst, Instrument: guitar, Hand: standing(neck.Window{})}.Find()
	require.NoError(t, err)
	assert.Empty(t, p.Targets)
}

func TestNearestLandings(t *testing.T) {
	s := in(t, "C")
	f7 := chord(t, "F7")
	to := neck.PlaceTones(guitar, s.window, f7.Tones())
	said := []string{}
	for _, l := range NearbyTargets(ThirdsFirst, guitar, neck.Place{String: 3, Fret: 8}, f7, to) {
		said = append(said, l.Text)
	}
	assert.Equal(t, []string{
		"you are on it: Eb, the b7 of F7", "up two frets: F, the R of F7", "down a minor third, over to string 4: C, the 5 of F7",
		"down a tritone, over to string 4: A, the 3 of F7", "up a tritone, over to string 2: A, the 3 of F7",
	}, said)
	low := NearbyTargets(RootsFirst, guitar, neck.Place{String: 6, Fret: 0}, f7, to)
	require.Len(t, low, 3, "none within a fifth, so the three nearest")
	assert.Equal(t, "up 8 frets: C, the 5 of F7", low[0].Text)
}

func TestWhereATargetIsComeFrom(t *testing.T) {
	s := in(t, "C")
	c7, f7 := chord(t, "C7"), chord(t, "F7")
	lay := func(tones []harmony.Tone) neck.Shape { return neck.PlaceTones(guitar, s.window, tones) }
	target, ok := lay(f7.Tones()).Tone(neck.Place{String: 4, Fret: 7})
	require.True(t, ok)
	said := []string{}
	for _, from := range Sources(s.key, c7, f7, target, lay(c7.Tones()), lay(s.box.Tones)) {
		said = append(said, from.Text)
	}
	assert.Equal(t, []string{
		"Bb, the b7 of C7, down a fret: A, the 3 of F7", "G, the 5 of C7, up a whole step, over to string 4: A, the 3 of F7",
		"C, the R of C7, down three frets: A, the 3 of F7", "F, the 11 over C7, up a major third, over to string 4: A, the 3 of F7",
	}, said)
	held, ok := lay(f7.Tones()).Tone(neck.Place{String: 1, Fret: 8})
	require.True(t, ok)
	froms := Sources(s.key, c7, f7, held, lay(c7.Tones()), lay(s.box.Tones))
	sentences := []string{}
	for _, f := range froms {
		sentences = append(sentences, f.Text)
	}
	assert.Contains(t, sentences, "C, the R of C7: stay, and it becomes C, the 5 of F7")
}

// NearbyTargets and sources tell the truth about how far they are, and come in order.
func TestLandingsAndSourcesHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g := drawnGoal(t)
		here := neck.Place{String: rapid.IntRange(1, 6).Draw(t, "string"), Fret: rapid.IntRange(0, 22).Draw(t, "fret")}
		to := neck.PlaceTones(guitar, g.Window, g.Arriving.Tones())
		last := 0
		for n, l := range NearbyTargets(ThirdsFirst, guitar, here, g.Arriving, to) {
			assert.Equal(t, int(guitar.Pitch(l.Place)-guitar.Pitch(here)), l.Semitones)
			assert.Equal(t, here.String-l.String, l.Strings)
			assert.GreaterOrEqual(t, abs(l.Semitones), last)
			assert.True(t, n < leastTargets || abs(l.Semitones) <= farTarget)
			last = abs(l.Semitones)
		}
		target, _ := to.Tone(g.Target)
		for _, f := range Sources(g.Key, g.Leaving, g.Arriving, target, neck.PlaceTones(guitar, g.Window, g.Leaving.Tones()), neck.PlaceTones(guitar, g.Window, g.Box.Tones)) {
			assert.Equal(t, int(guitar.Pitch(g.Target)-guitar.Pitch(f.Place)), f.Semitones)
			assert.LessOrEqual(t, abs(f.Semitones), 4)
			_, ofChord := g.Leaving.Tone(guitar.Pitch(f.Place).Class())
			_, ofBox := g.Box.Tone(guitar.Pitch(f.Place).Class())
			assert.True(t, f.OfChord && ofChord || !f.OfChord && ofBox)
		}
	})
}

// The small box of C over its three chords, note by note: bent as it must be.
func TestFunctionTable(t *testing.T) {
	s := in(t, "C")
	small := SmallBox(guitar, s.window, s.box)
	places := []neck.Place{}
	for _, tone := range small {
		places = append(places, tone.Place)
	}
	assert.Equal(t, []neck.Place{{String: 4, Fret: 8}, {String: 4, Fret: 10}, {String: 3, Fret: 8}, {String: 3, Fret: 10}}, places)
	chords := []harmony.Chord{chord(t, "C7"), chord(t, "F7"), chord(t, "G7")}
	rows, err := FunctionTable(s.key, guitar, places, chords)
	require.NoError(t, err)
	table := []string{}
	for _, row := range rows {
		for n, f := range row.Functions {
			cells := []string{}
			for _, j := range f.Bent {
				cells = append(cells, fmt.Sprintf("%s %s", j.Degree, j.Class))
			}
			table = append(table, fmt.Sprintf("%d:%d %s: %s: %s", row.String, row.Fret, chords[n].Symbol(), strings.Join(cells, ", "), f.Text))
		}
	}
	assert.Equal(t, []string{
		"4:8 C7: b7 chordTone, 7 outside, R chordTone: no bend, and vibrato: it is Bb, the b7 of C7",
		"4:8 F7: 11 suspension, b5 blue, 5 chordTone: bend it a whole step to C, the 5 of F7",
		"4:8 G7: b3 blue, 3 chordTone, 11 suspension: bend it a half step to B, the 3 of G7",
		"4:10 C7: R chordTone, b9 outside, 9 colour: no bend, and vibrato: it is C, the R of C7",
		"4:10 F7: 5 chordTone, b13 outside, 13 colour: no bend, and vibrato: it is C, the 5 of F7",
		"4:10 G7: 11 suspension, b5 blue, 5 chordTone: bend it a whole step to D, the 5 of G7",
		"3:8 C7: b3 blue, 3 chordTone, 11 suspension, b5 blue: bend it a half step to E, the 3 of C7",
		"3:8 F7: b7 chordTone, 7 outside, R chordTone, b9 outside: no bend, and vibrato: it is Eb, the b7 of F7",
		"3:8 G7: b13 outside, 13 colour, b7 chordTone, 7 outside: bend it a whole step to F, the b7 of G7",
		"3:10 C7: 11 suspension, b5 blue, 5 chordTone, b13 outside: bend it a whole step to G, the 5 of C7",
		"3:10 F7: R chordTone, b9 outside, 9 colour, b3 blue: no bend, and vibrato: it is F, the R of F7",
		"3:10 G7: b7 chordTone, 7 outside, R chordTone, b9 outside: no bend, and vibrato: it is F, the b7 of G7",
	}, table)
}

func TestFunctionTablesThatCannotBe(t *testing.T) {
	key, chords := in(t, "C").key, []harmony.Chord{chord(t, "C7")}
	for want, places := range map[string][]neck.Place{
		"0 notes: a table is of 1 to 6; three or four are best": {},
		"string 9 fret 3 is not on the neck":                    {{String: 9, Fret: 3}},
		"string 3 fret 5 is there twice":                        {{String: 3, Fret: 5}, {String: 3, Fret: 5}},
	} {
		_, err := FunctionTable(key, guitar, places, chords)
		assert.EqualError(t, err, want)
	}
	rows, err := FunctionTable(key, guitar, []neck.Place{{String: 1, Fret: 0}, {String: 6, Fret: 2}, {String: 5, Fret: 2}}, []harmony.Chord{chord(t, "C7"), chord(t, "Cmaj7")})
	require.NoError(t, err)
	assert.Len(t, rows[0].Functions[0].Bent, 1, "an open string is not bent")
	assert.Len(t, rows[1].Functions[0].Bent, 2, "string 6 is bent a half step at most")
	assert.Equal(t, "bend it a half step to G, the 5 of C7", rows[1].Functions[0].Text)
	assert.Equal(t, "no bend, and vibrato: it is B, the 7 of Cmaj7", rows[2].Functions[1].Text)
	suspended, err := FunctionTable(key, guitar, []neck.Place{{String: 6, Fret: 4}, {String: 6, Fret: 9}}, []harmony.Chord{chord(t, "C")})
	require.NoError(t, err)
	assert.Equal(t, "no bend makes it a chord tone; a half step makes it A, the 13 of C, a colour", suspended[0].Functions[0].Text)
	assert.Equal(t, "no bend makes it a chord tone; a half step makes it D, the 9 of C, a colour", suspended[1].Functions[0].Text)
}

// A chorus planned by one school.
func BenchmarkTargetPath(b *testing.B) {
	o := twelve(b, "C")
	o.Strategy = ThirdsFirst
	b.ReportAllocs()
	for b.Loop() {
		if _, err := o.Find(); err != nil {
			b.Fatal(err)
		}
	}
}

// Every approach into one target, tried and fingered.
func BenchmarkWays(b *testing.B) {
	g := in(b, "C").goal(b, "C7", "F7", neck.Place{String: 3, Fret: 10})
	b.ReportAllocs()
	for b.Loop() {
		ApproachOptions(g, 8)
	}
}
