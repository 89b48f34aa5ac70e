package band

import (
	"fmt"
	"sort"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

func blues(t testing.TB, tonic string, feel chart.Feel) chart.Chart {
	t.Helper()
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	c := chart.Chart{Title: "A test", Key: key, Meter: chart.FourFour, Tempo: 120, Feel: chart.Straight, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
	felt, err := c.Felt(feel)
	require.NoError(t, err)
	return felt
}

func of(p Performance, part Part) []Note {
	notes := []Note{}
	for _, n := range p.Notes {
		if n.Part == part {
			notes = append(notes, n)
		}
	}
	return notes
}

func ticksAndPitches(notes []Note) []string {
	all := make([]string, len(notes))
	for n, note := range notes {
		all[n] = fmt.Sprintf("%d:%d", note.Tick, note.Pitch)
	}
	return all
}

func TestTheCountInAndTheBars(t *testing.T) {
	p := Perform(Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), From: 11, Bars: 2, CountIn: 1})
	assert.Equal(t, 1920, p.CountIn)
	assert.Equal(t, 3*1920, p.End)
	assert.Equal(t, []BarMark{{1920, 11}, {3840, 0}}, p.Bars)
	clicks := of(p, Click)
	require.Len(t, clicks, 12)
	assert.Equal(t, clickAccent, clicks[0].Pitch)
	assert.Equal(t, clickPlain, clicks[1].Pitch)
	for _, note := range append(of(p, Bass), of(p, Chords)...) {
		assert.GreaterOrEqual(t, note.Tick, p.CountIn, "only the click counts in")
	}
}

// Over an imagined chord the band plays on what is written, and where the chart
// is silent it rests; repeats are played out.
func TestTheBandPlaysWhatIsWritten(t *testing.T) {
	c := blues(t, "C", chart.Straight)
	imagined, err := c.Imagine(1, "Db7")
	require.NoError(t, err)
	order := Order{Chart: c, Instrument: neck.Standard(), Bars: 12}
	with := order
	with.Chart = imagined
	assert.Equal(t, Perform(order), Perform(with))

	silent, err := c.Write(0, "N.C. | F7 N.C.")
	require.NoError(t, err)
	silent, err = silent.Repeat(0, 2, 2)
	require.NoError(t, err)
	p := Perform(Order{Chart: silent, Instrument: neck.Standard(), Bars: 4})
	for _, note := range append(of(p, Bass), of(p, Chords)...) {
		bar, beat := note.Tick/1920, note.Tick%1920/480
		assert.True(t, bar%2 == 1 && beat < 2, "bar %d beat %d is not silent", bar+1, beat+1)
	}
	assert.NotEmpty(t, of(p, Bass))
	assert.Equal(t, []BarMark{{0, 0}, {1920, 1}, {3840, 2}, {5760, 3}}, p.Bars)
}

func TestPartsCanBeSilent(t *testing.T) {
	order := Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), Bars: 2}
	all := Perform(order)
	order.Silent = []Part{Bass, Chords}
	p := Perform(order)
	assert.Empty(t, of(p, Bass))
	assert.Empty(t, of(p, Chords))
	assert.Equal(t, of(all, Click), of(p, Click))
}

func TestTheBassWalksAndLeads(t *testing.T) {
	p := Perform(Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), Bars: 4})
	assert.Equal(t, []string{
		"0:36", "480:40", "960:43", "1440:30", // C E G, Gb leads to F
		"1920:29", "2400:33", "2880:36", "3360:35", // F A C, B leads to C
		"3840:36", "4320:40", "4800:43", "5280:45", // C E G A
		"5760:48", "6240:46", "6720:43", "7200:30", // C Bb G, Gb leads to F
	}, ticksAndPitches(of(p, Bass)))
}

func TestSlowTwelveEightHoldsAndLeadsWithAnEighth(t *testing.T) {
	p := Perform(Order{Chart: blues(t, "C", chart.Slow128), Instrument: neck.Standard(), Bars: 1})
	assert.Equal(t, []string{"0:36", "720:43", "1440:36", "2160:43", "2640:30"}, ticksAndPitches(of(p, Bass)))
	assert.Equal(t, 720, p.BeatTicks)
}

func TestTheShuffleDelaysTheOffBeat(t *testing.T) {
	line := phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{
		{Tick: 0, Ticks: 240, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 8}}},
		{Tick: 240, Ticks: 240, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 11}}},
	}}
	for feel, want := range map[chart.Feel][][2]int{chart.Shuffle: {{0, 320}, {320, 160}}, chart.Straight: {{0, 240}, {240, 240}}} {
		p := Perform(Order{Chart: blues(t, "C", feel), Instrument: neck.Standard(), Bars: 1, Line: line})
		got := [][2]int{}
		for _, note := range of(p, Lead) {
			got = append(got, [2]int{note.Tick, note.Ticks})
		}
		assert.Equal(t, want, got)
	}
}

func TestCurves(t *testing.T) {
	at := neck.Fingered{Place: neck.Place{String: 3, Fret: 10}}
	for name, c := range map[string]struct {
		technique phrase.Technique
		want      []Point
	}{
		"plain":    {phrase.Technique{}, []Point{}},
		"bend":     {phrase.Technique{Bend: 4}, []Point{{0, 0}, {153, 200}}},
		"release":  {phrase.Technique{Bend: 2, Release: true}, []Point{{0, 0}, {153, 100}, {640, 100}, {960, 0}}},
		"pre-bend": {phrase.Technique{Bend: 1, PreBend: true}, []Point{{0, 50}}},
		"slid out": {phrase.Technique{SlideOut: -1}, []Point{{816, 0}, {960, -400}}},
		"slide":    {phrase.Technique{SlideFrom: 9}, []Point{{0, -100}, {86, 0}}},
	} {
		assert.Equal(t, c.want, curve(phrase.Event{Ticks: 960, Fingered: at, Technique: c.technique}, 960, 960), name)
	}
	shaken := curve(phrase.Event{Ticks: 960, Fingered: at, Technique: phrase.Technique{Vibrato: true}}, 960, 960)
	assert.Equal(t, Point{336, 0}, shaken[0])
	assert.Equal(t, vibratoCents, shaken[1].Cents)
	assert.Equal(t, 0, shaken[2].Cents)
}

// In every key and feel: notes are in order and within the performance, bass
// and chords keep their range, each chord is struck with its own tones, and the
// same order gives the same performance.
func TestPerformanceProperties(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tonic := rapid.SampledFrom(harmony.Tonics).Draw(t, "tonic")
		key, err := harmony.ParseKey(tonic, harmony.DominantMode)
		require.NoError(t, err)
		c := chart.Chart{Title: "A", Key: key, Meter: chart.FourFour, Tempo: 100, Swing: 2}
		for range rapid.IntRange(1, 6).Draw(t, "bars") {
			bar := chart.Bar{}
			for _, beats := range rapid.SampledFrom([][]int{{4}, {2, 2}, {1, 3}, {1, 1, 2}}).Draw(t, "split") {
				chord, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.Signs()).Draw(t, "sign"))
				require.NoError(t, err)
				bar.Spans = append(bar.Spans, chart.Span{Chord: chord, Beats: beats})
			}
			c.Bars = append(c.Bars, bar)
		}
		c, err = c.Felt(rapid.SampledFrom(chart.Feels).Draw(t, "feel"))
		require.NoError(t, err)
		order := Order{Chart: c, Instrument: neck.Standard(), From: rapid.IntRange(0, len(c.Bars)-1).Draw(t, "from"), Bars: rapid.IntRange(1, 20).Draw(t, "long"), CountIn: 1}
		p := Perform(order)
		assert.Equal(t, p, Perform(order))
		assert.True(t, sort.SliceIsSorted(p.Notes, func(a, b int) bool { return p.Notes[a].Tick < p.Notes[b].Tick }))
		struck := map[int]map[pitch.Class]bool{}
		for _, note := range p.Notes {
			assert.GreaterOrEqual(t, note.Tick, 0)
			assert.Positive(t, note.Ticks)
			assert.LessOrEqual(t, note.Tick+note.Ticks, p.End)
			switch note.Part {
			case Bass:
				assert.True(t, note.Pitch >= lowestBass && note.Pitch <= highestBass+12, "bass at %d", note.Pitch)
			case Chords:
				assert.True(t, note.Pitch >= lowestVoice && note.Pitch <= highestVoice)
				chord := c.ChordAt(note.Tick - p.CountIn + order.From*c.Meter.BarTicks())
				_, ok := chord.Tone(note.Pitch.Class())
				assert.True(t, ok, "%d over %s", note.Pitch, chord.Symbol())
				if struck[note.Tick] == nil {
					struck[note.Tick] = map[pitch.Class]bool{}
				}
				struck[note.Tick][note.Pitch.Class()] = true
			}
		}
		assert.NotEmpty(t, struck)
	})
}
