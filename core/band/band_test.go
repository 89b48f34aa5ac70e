package band

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/chart/charttest"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

func blues(t require.TestingT, tonic string, feel chart.Feel) chart.Chart {
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	c := chart.Chart{Title: "A test", Key: key, Meter: chart.FourFour, Tempo: 120, Feel: chart.Straight, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
	withFeel, err := c.WithFeel(feel)
	require.NoError(t, err)
	return withFeel
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

func style(name string) Style { return mustStyle(name) }

func TestTheCountInAndTheBeats(t *testing.T) {
	p := Perform(Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), From: 11, Bars: 2, CountIn: 1})
	assert.Equal(t, 1920, p.CountIn)
	assert.Equal(t, 3*1920, p.End)
	require.Len(t, p.Beats, 12)
	assert.Equal(t, BeatMark{Tick: 480, Bar: -1, Beat: 1}, p.Beats[1])
	assert.Equal(t, BeatMark{Tick: 1920, Bar: 11, Beat: 0, At: 11 * 1920}, p.Beats[4])
	assert.Equal(t, BeatMark{Tick: 4320, Bar: 0, Beat: 1, At: 480}, p.Beats[9])
	clicks := of(p, Click)
	require.Len(t, clicks, 12)
	assert.Equal(t, clickAccent, clicks[0].Pitch)
	assert.Equal(t, clickPlain, clicks[1].Pitch)
	for _, part := range []Part{Bass, Chords, Drums} {
		for _, note := range of(p, part) {
			assert.GreaterOrEqual(t, note.Tick, p.CountIn-12, "only the click counts in")
		}
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
	for _, one := range StylesFor(chart.FourFour) {
		p := Perform(Order{Chart: silent, Instrument: neck.Standard(), Bars: 4, Style: one, Chorus: 1})
		for _, note := range slices.Concat(of(p, Bass), of(p, Chords), of(p, Drums)) {
			bar, beat := (note.Tick+20)/1920, (note.Tick+20)%1920/480
			assert.True(t, bar%2 == 1 && beat < 2, "%s: %s at bar %d beat %d, which is silent", one, note.Part, bar+1, beat+1)
		}
		assert.NotEmpty(t, of(p, Bass))
		assert.Equal(t, []int{0, 1, 2, 3}, []int{p.Beats[0].Bar, p.Beats[4].Bar, p.Beats[8].Bar, p.Beats[12].Bar})
		assert.True(t, p.Chords[0].Silent)
		assert.Equal(t, "F7", p.Chords[1].Chord.Symbol())
	}
}

func TestPartsCanBeSilent(t *testing.T) {
	order := Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), Bars: 2}
	all := Perform(order)
	order.Silent = []Part{Bass, Chords}
	p := Perform(order)
	assert.Empty(t, of(p, Bass))
	assert.Empty(t, of(p, Chords))
	assert.Equal(t, of(all, Click), of(p, Click))
	assert.Equal(t, of(all, Drums), of(p, Drums), "what is silent changes nothing of the others")
}

func TestTheStyleOfAChart(t *testing.T) {
	minor := blues(t, "C", chart.Straight)
	minor.Key.Mode, minor.Tempo = harmony.MinorMode, 70
	fast := blues(t, "C", chart.Shuffle)
	fast.Tempo = 180
	waltz := blues(t, "C", chart.Straight)
	waltz.Meter = chart.ThreeFour
	for want, c := range map[string]chart.Chart{
		Shuffle: blues(t, "C", chart.Shuffle), SlowBlues: blues(t, "C", chart.Slow128), StraightRock: blues(t, "C", chart.Straight),
		MinorBallad: minor, Swing: fast,
	} {
		assert.Equal(t, want, StyleFor(c).Name)
	}
	assert.Equal(t, StraightRock, StyleFor(waltz).Name)
	_, err := FindStyle(Funk, waltz)
	assert.EqualError(t, err, `funk sixteenths is not played in 3/4: this is straight rock`)
	_, err = FindStyle("polka", waltz)
	assert.ErrorContains(t, err, `"polka" is not a style`)
}

func TestEveryMeterHasAStyle(t *testing.T) {
	for _, m := range chart.Meters {
		c := chart.Chart{Meter: m}
		assert.True(t, StyleFor(c).Fits(m), "%s in %s", StyleFor(c), m)
	}
	for _, s := range Styles {
		assert.GreaterOrEqual(t, len(s.comping), 3, s.Name)
		if s.Fits(chart.ThreeFour) {
			assert.NotEmpty(t, s.waltz[plain], s.Name)
		}
	}
}

func TestTheClick(t *testing.T) {
	c := blues(t, "C", chart.Straight)
	ticks := func(pattern ClickPattern, bars int) []int {
		all := []int{}
		for _, n := range of(Perform(Order{Chart: c, Instrument: neck.Standard(), Bars: bars, Click: pattern}), Click) {
			all = append(all, n.Tick)
		}
		return all
	}
	assert.Equal(t, []int{480, 1440}, ticks(ClickPattern{On: OnTwoAndFour}, 1))
	assert.Equal(t, []int{0, 1920}, ticks(ClickPattern{On: OnOne}, 2))
	assert.Equal(t, []int{0, 3840}, ticks(ClickPattern{On: EverySecondBar}, 4))
	assert.Equal(t, []int{0, 160, 320, 480, 640, 800, 960, 1120, 1280, 1440, 1600, 1760}, ticks(ClickPattern{PerBeat: 3}, 1))
	// A gap of one bar after each that is heard, then of two, then of three.
	assert.Equal(t, []int{0, 2 * 1920, 5 * 1920, 9 * 1920}, ticks(ClickPattern{On: OnOne, Heard: 1, Gap: 1, Growing: true}, 12))
	accents := []int{}
	for _, n := range of(Perform(Order{Chart: c, Instrument: neck.Standard(), Bars: 1, Click: ClickPattern{PerBeat: 2, AccentEvery: 3}}), Click) {
		if n.Pitch == clickAccent {
			accents = append(accents, n.Tick)
		}
	}
	assert.Equal(t, []int{0, 720, 1440}, accents)
	assert.ErrorContains(t, ClickPattern{PerBeat: 9}.Check(), "1 to 6 clicks, not 9")
	assert.ErrorContains(t, ClickPattern{On: "3"}.Check(), `"3" is not a place of the click`)
}

func TestTheShuffleDelaysTheOffBeat(t *testing.T) {
	line := phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{
		{Tick: 0, Ticks: 240, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 8}}},
		{Tick: 240, Ticks: 240, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 11}}},
	}}
	for feel, want := range map[chart.Feel][][2]int{chart.Shuffle: {{0, 320}, {320, 160}}, chart.Straight: {{0, 240}, {240, 240}}} {
		p := Perform(Order{Chart: blues(t, "C", feel), Instrument: neck.Standard(), Bars: 1, Line: line})
		got := [][2]int{}
		for _, note := range of(p, Line) {
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
	assert.Zero(t, shaken[len(shaken)-1].Cents, "it ends at its pitch")
	bentAndShaken := curve(phrase.Event{Ticks: 960, Fingered: at, Technique: phrase.Technique{Vibrato: true, Bend: 4}}, 960, 960)
	assert.Equal(t, []int{0, 200, 200, 200 - vibratoCents, 200}, cents(bentAndShaken[:5]), "a bent string is shaken from below")
	assert.Equal(t, 200, bentAndShaken[len(bentAndShaken)-1].Cents)
	assert.Equal(t, 0, shaken[2].Cents)
}

// A trill goes to and fro between its two frets, a ghost note is soft, and a rake is heard over
// thicker strings before the note.
func TestTrillsGhostsAndRakesAreHeard(t *testing.T) {
	at := neck.Fingered{Place: neck.Place{String: 3, Fret: 9}}
	line := phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{
		{Tick: 480, Ticks: 480, Fingered: at, Technique: phrase.Technique{Rake: true}},
		{Tick: 960, Ticks: 480, Fingered: at, Technique: phrase.Technique{Ghost: true}},
		{Tick: 1440, Ticks: 480, Fingered: at, Technique: phrase.Technique{Trill: 2}},
	}}
	notes := of(Perform(Order{Chart: blues(t, "C", chart.Straight), Instrument: neck.Standard(), Bars: 1, Line: line}), Line)
	require.Len(t, notes, 6, "three strings, and three notes")
	for n, pitch := range []pitch.MIDI{49, 54, 59} { // the ninth fret of strings 6, 5 and 4
		assert.Equal(t, -1, notes[n].Event)
		assert.Equal(t, pitch, notes[n].Pitch)
		assert.Less(t, notes[n].Tick, notes[3].Tick)
	}
	assert.Less(t, notes[4].Loudness, notes[3].Loudness/2+1)
	low, high := 0, 0
	for _, p := range notes[5].Curve {
		assert.Contains(t, []int{0, 200}, p.Cents, "nothing between")
		if p.Cents == 0 {
			low++
		} else {
			high++
		}
	}
	assert.Greater(t, low, 3)
	assert.Greater(t, high, 3)
}

// In stop-time the band strikes the first four bars and rests between; the drums keep still.
func TestStopTime(t *testing.T) {
	p := Perform(Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), Bars: 12, StopTime: true, Chorus: 2})
	for _, note := range slices.Concat(of(p, Bass), of(p, Chords), of(p, Drums)) {
		if bar := (note.Tick + 20) / 1920; bar < 4 {
			assert.InDelta(t, 0, note.Tick-bar*1920, 20, "%s at %d", note.Part, note.Tick)
		}
	}
	assert.Greater(t, len(of(p, Drums)), 60, "the rest of the chorus is played")
}

// An ending leads home, slows down, and holds the tonic in a bar of its own.
func TestTheEnding(t *testing.T) {
	order := Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), Bars: 12, Ending: true, Chorus: 1}
	p := Perform(order)
	final := p.Chords[len(p.Chords)-1]
	assert.Equal(t, pitch.Class(0), final.Chord.Root.Class())
	assert.Greater(t, p.End, 13*1920)
	assert.Len(t, p.Beats, 13*4)
	last := []Note{}
	for _, n := range p.Notes {
		if n.Tick >= final.Tick-20 {
			last = append(last, n)
		}
	}
	assert.NotEmpty(t, last)
	for _, n := range last {
		assert.InDelta(t, final.Tick, n.Tick, 25, "all end together")
	}
	// Its beats grow longer, one after the other.
	for n := 45; n < 48; n++ {
		assert.Greater(t, p.Beats[n+1].Tick-p.Beats[n].Tick, p.Beats[n].Tick-p.Beats[n-1].Tick)
	}
	// Until there it is the chorus as it would have gone on: the ending can be asked for while it sounds.
	order.Ending = false
	without := Perform(order)
	before := func(p Performance) []Note {
		kept := []Note{}
		for _, n := range p.Notes {
			if n.Tick < 10*1920-240 {
				kept = append(kept, n)
			}
		}
		return kept
	}
	assert.Equal(t, before(without), before(p))
}

func TestTheIntroIsTheTurnaround(t *testing.T) {
	p := Perform(Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), Bars: 12, Intro: true})
	assert.Equal(t, 2*1920, p.CountIn)
	assert.Equal(t, []string{"C7", "G7", "C7"}, []string{p.Chords[0].Chord.Symbol(), p.Chords[1].Chord.Symbol(), p.Chords[2].Chord.Symbol()})
	assert.Equal(t, -2, p.Beats[0].Bar)
	assert.Equal(t, 0, p.Beats[8].Bar)
	assert.NotEmpty(t, of(p, Drums))
}

// Where the band goes on to another key, the bass leads into it.
func TestTheBassLeadsIntoWhatComesNext(t *testing.T) {
	next, err := harmony.ParseChord("F#7")
	require.NoError(t, err)
	order := Order{Chart: blues(t, "C", chart.Shuffle), Instrument: neck.Standard(), Bars: 12, Next: &next}
	bass := of(Perform(order), Bass)
	last := bass[len(bass)-1].Pitch.Class()
	assert.Contains(t, []pitch.Class{5, 7}, last)
}

func TestNoTwoChorusesAreAlike(t *testing.T) {
	for _, one := range Styles {
		c := blues(t, "C", chart.Straight)
		c.Meter = one.Meters[0]
		if c.Meter.Compound() {
			c = blues(t, "C", chart.Slow128)
		}
		seen := map[string]int{}
		for chorus := range 12 {
			p := Perform(Order{Chart: c, Instrument: neck.Standard(), Bars: 12, Style: one, Chorus: chorus, Seed: 5})
			// What is played, without the small differences of time and loudness.
			text := ""
			for _, n := range p.Notes {
				if n.Part != Click {
					text += fmt.Sprintf("%d:%s:%d ", (n.Tick+30)/60, n.Part, n.Pitch)
				}
			}
			before, alike := seen[text]
			assert.False(t, alike, "%s: chorus %d is chorus %d again", one.Name, chorus+1, before+1)
			seen[text] = chorus
		}
	}
}

// A first chorus is light: fewer notes than the fullest one, and a softer bass.
func TestTheFirstChorusIsLight(t *testing.T) {
	for _, one := range StylesFor(chart.FourFour) {
		at := func(chorus int) (count int, loudness float64) {
			bass := 0
			for seed := range uint64(8) {
				p := Perform(Order{Chart: blues(t, "C", chart.Straight), Instrument: neck.Standard(), Bars: 12, Style: one, Chorus: chorus, Seed: seed})
				count += len(of(p, Drums)) + len(of(p, Bass))
				for _, n := range of(p, Bass) {
					bass++
					loudness += float64(n.Loudness)
				}
			}
			return count, loudness / float64(bass)
		}
		lightCount, lightLoudness := at(0)
		fullCount, fullLoudness := at(3)
		assert.Less(t, lightCount, fullCount, one.Name)
		assert.Less(t, lightLoudness+10, fullLoudness, one.Name)
	}
}

// arranged is an order drawn at random: style, scheme or chords, key, meter and seed.
func arranged(t *rapid.T) Order {
	c := charttest.Song(t, 14)
	if rapid.Bool().Draw(t, "scheme") {
		c.Bars, c.Scales, c.Pickup = rapid.SampledFrom(chart.Schemes).Draw(t, "which").Bars(c.Key.Tonic, c.Meter), nil, nil
	}
	meter := c.Meter
	require.NoError(t, c.Check())
	return Order{
		Chart: c, Instrument: neck.Standard(), Style: mustStyle(rapid.SampledFrom(styleNames(meter)).Draw(t, "style")),
		From: rapid.IntRange(0, len(c.PlayedBars())-1).Draw(t, "from"), Bars: rapid.IntRange(1, 26).Draw(t, "long"),
		Chorus: rapid.IntRange(0, 9).Draw(t, "chorus"), Seed: rapid.Uint64().Draw(t, "seed"), CountIn: rapid.IntRange(0, 2).Draw(t, "count-in"),
		Intro: rapid.Bool().Draw(t, "intro"), Ending: rapid.Bool().Draw(t, "ending"), StopTime: rapid.Bool().Draw(t, "stop-time"),
	}
}

// Over every style, scheme, key, meter and seed: the same order gives the same performance;
// all that sounds lies within it, within its instrument and its loudness; every chord that is
// written is heard by bass and chords, and no bar of drums is empty; the bass leaps a fifth
// at most, but for the octave.
func TestPerformanceProperties(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		order := arranged(t)
		p := Perform(order)
		assert.Equal(t, p, Perform(order))
		assert.True(t, sort.SliceIsSorted(p.Notes, func(a, b int) bool { return p.Notes[a].Tick < p.Notes[b].Tick }))
		assert.True(t, sort.SliceIsSorted(p.Beats, func(a, b int) bool { return p.Beats[a].Tick < p.Beats[b].Tick }))
		late := int(mostLateMS/1000*ticksPerSecond(order.Chart)*ritard) + 2
		heard := func(part Part, from, to int) bool {
			for _, n := range p.Notes {
				if n.Part == part && n.Tick >= from-late && n.Tick < to {
					return true
				}
			}
			return false
		}
		for _, n := range p.Notes {
			assert.GreaterOrEqual(t, n.Tick, 0)
			assert.Positive(t, n.Ticks)
			assert.Less(t, n.Tick, p.End)
			if n.Part != Click {
				assert.True(t, n.Loudness >= softest && n.Loudness <= loudest, "%s at %d", n.Part, n.Loudness)
			}
			if n.Part == Chords {
				assert.True(t, n.Pitch >= lowestBoogie && n.Pitch <= highestVoice, "a chord's note at %d", n.Pitch)
			}
		}
		bass := of(p, Bass)
		for n, note := range bass {
			assert.True(t, note.Pitch >= lowestBass && note.Pitch <= highestBass, "bass at %d", note.Pitch)
			if n > 0 {
				leap := max(note.Pitch-bass[n-1].Pitch, bass[n-1].Pitch-note.Pitch)
				assert.True(t, leap <= largestLeap || leap == 12, "the bass leaps %d semitones at tick %d", leap, note.Tick)
			}
		}
		for _, mark := range p.Chords {
			if mark.Silent {
				continue
			}
			assert.True(t, heard(Bass, mark.Tick, mark.Tick+mark.Ticks), "no bass under %s at %d", mark.Chord.Symbol(), mark.Tick)
			assert.True(t, heard(Chords, mark.Tick, mark.Tick+mark.Ticks), "%s is not struck at %d", mark.Chord.Symbol(), mark.Tick)
			assert.True(t, heard(Drums, mark.Tick, mark.Tick+mark.Ticks) || mark.Ticks < order.Chart.Meter.BarTicks(), "no drums at %d", mark.Tick)
		}
	})
}

// Every note of bass and chords is a chord tone, a colour, a step between two notes of its
// own line, or a half step into what comes next.
func TestEveryNoteBelongs(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		order := arranged(t)
		s := order.layOut()
		chordOf := func(n int, tick int) (span, harmony.Chord) {
			for k, sp := range s.bars[n].spans {
				if tick < sp.tick+sp.ticks {
					return sp, s.spanAfter(n, k).chord
				}
			}
			t.Fatalf("no chord at tick %d", tick)
			return span{}, harmony.Chord{}
		}
		belongs := func(n int, c harmony.Chord, class pitch.Class) bool {
			what := s.bars[n].key.Classify(c, class)
			return what == harmony.ChordTone || what == harmony.Colour || class == bassClass(c)
		}
		tones := []bassTone{}
		for n, b := range s.bars {
			tones = append(tones, s.bassOf(n, b)...)
		}
		pitches := chooseOctaves(tones)
		for n, tone := range tones {
			sp, next := chordOf(tone.bar, tone.tick)
			class := pitches[n].begin.Class()
			last := n+1 == len(tones) || tones[n+1].tick >= sp.tick+sp.ticks
			leads := last && (class.Above(bassClass(next)) == 1 || class.Above(bassClass(next)) == 11 || class == bassClass(next))
			assert.True(t, belongs(tone.bar, sp.chord, class) || leads, "the bass plays %s over %s before %s", pitchName(pitches[n].begin), sp.chord.Symbol(), next.Symbol())
			if tone.into && n+1 < len(tones) {
				apart := max(pitches[n+1].begin-pitches[n].end, pitches[n].end-pitches[n+1].begin)
				assert.Equal(t, pitch.MIDI(1), apart, "what leads into %s lies a half step from it", next.Symbol())
			}
		}
		chords := s.comping()
		late := int(mostLateMS/1000*ticksPerSecond(order.Chart)) + 2
		for _, note := range chords {
			n := sort.Search(len(s.bars), func(n int) bool { return s.bars[n].tick > note.Tick+late }) - 1
			sp, _ := chordOf(max(n, 0), note.Tick+late)
			if !belongs(max(n, 0), sp.chord, note.Pitch.Class()) {
				// The falling line of a turnaround steps through the flat sixth.
				above := note.Pitch.Class().Above(sp.chord.Root.Class())
				assert.True(t, s.bars[n].turnaround && s.descends(s.bars[n], sp) && (above == 8 || above == 9 || above == 10), "%s over %s", pitchName(note.Pitch), sp.chord.Symbol())
			}
		}
	})
}

// The band lies at most 12 ms beside its time; the click and the line lie on it.
func TestTheBandIsNearItsTime(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		order := arranged(t)
		s := order.layOut()
		perMS := ticksPerSecond(order.Chart) / 1000
		notes := s.bass()
		tones := []bassTone{}
		for n, b := range s.bars {
			tones = append(tones, s.bassOf(n, b)...)
		}
		at := []int{}
		for n, o := range chooseOctaves(tones) {
			at = append(at, s.withFeel(tones[n].tick))
			if o.begin != o.end {
				at = append(at, s.withFeel(tones[n].tick+tones[n].ticks/2))
			}
		}
		require.Len(t, notes, len(at))
		for n, note := range notes {
			require.LessOrEqual(t, math.Abs(float64(note.Tick-at[n])), 12*perMS)
		}
		for _, note := range s.clicks() {
			in, from := order.Chart.Timeline().MeterAt(order.From), 0
			for _, b := range s.bars {
				if b.tick <= note.Tick && !b.pickup {
					in, from = b.meter, b.tick
				}
			}
			require.Zero(t, (note.Tick-from)%in.BeatTicks())
		}
	})
}

// A note that two chords after one another share is held: at least half of them, whatever the
// chords; and in the schemes that are played every one.
func TestCommonTonesAreHeld(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		chords := []harmony.Chord{}
		for range rapid.IntRange(2, 10).Draw(t, "chords") {
			chord, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
			require.NoError(t, err)
			chords = append(chords, chord)
		}
		led := voiceLead(chords)
		shared, held := 0, 0
		for n := 1; n < len(led); n++ {
			for _, p := range led[n] {
				if slices.Contains(voiced(chords[n-1]), p.Class()) {
					shared++
					if slices.Contains(led[n-1], p) {
						held++
					}
				}
			}
		}
		assert.GreaterOrEqual(t, 2*held, shared, "%d of %d common tones are held", held, shared)
	})
	for _, scheme := range chart.Schemes {
		for _, tonic := range harmony.DominantMode.Tonics() {
			key, err := harmony.ParseKey(tonic, scheme.In)
			if err != nil {
				continue
			}
			c := chart.Chart{Key: key, Meter: chart.FourFour, Bars: scheme.Bars(key.Tonic, chart.FourFour)}
			chords := []harmony.Chord{}
			for _, m := range c.ChordSpans() {
				chords = append(chords, m.Chord)
			}
			led := voiceLead(chords)
			for n := 1; n < len(led); n++ {
				for _, p := range led[n] {
					if slices.Contains(voiced(chords[n-1]), p.Class()) {
						assert.Contains(t, led[n-1], p, "%s in %s: %s to %s", scheme, tonic, chords[n-1].Symbol(), chords[n].Symbol())
					}
				}
			}
		}
	}
}

// The octaves of a bass line, and the voicings of some chords, are the cheapest that there are.
func TestChoicesEqualExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tones := make([]bassTone, rapid.IntRange(1, 5).Draw(t, "tones"))
		for n := range tones {
			tones[n].class = pitch.Class(rapid.IntRange(0, 11).Draw(t, "class"))
			tones[n].into = rapid.IntRange(0, 4).Draw(t, "into") == 0
			tones[n].up, tones[n].down = rapid.Bool().Draw(t, "up"), rapid.Bool().Draw(t, "down")
		}
		cost := func(all []octaves) int {
			sum := 0
			for n, o := range all {
				sum += costOfPitch(o.end)
				if o.begin != o.end {
					sum += costOfTwo
				}
				if n > 0 {
					sum += costOfStep(tones[n-1], tones[n], all[n-1].end, o.begin)
				}
			}
			return sum
		}
		best := -1
		var try func(all []octaves)
		try = func(all []octaves) {
			if len(all) == len(tones) {
				if c := cost(all); best < 0 || c < best {
					best = c
				}
				return
			}
			tone := tones[len(all)]
			for p := lowestBass; p <= highestBass; p++ {
				above := p.Class().Above(tone.class)
				if tone.into && above != 1 && above != 11 || !tone.into && above != 0 {
					continue
				}
				for q := lowestBass; q <= highestBass; q++ {
					if q == p || !tone.into && (q == p+12 || q == p-12) {
						try(append(slices.Clone(all), octaves{p, q}))
					}
				}
			}
		}
		try(nil)
		assert.Equal(t, best, cost(chooseOctaves(tones)))
	})
}

// The voicings of some chords are the cheapest that there are, of all ways to play them.
func TestVoicingsEqualExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		chords := []harmony.Chord{}
		for range rapid.IntRange(1, 3).Draw(t, "chords") {
			chord, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
			require.NoError(t, err)
			chords = append(chords, chord)
		}
		cost := func(all [][]pitch.MIDI) int {
			sum := 0
			for n, one := range all {
				sum += costOfShape(one)
				if n > 0 {
					sum += costOfMoving(all[n-1], one)
				}
			}
			return sum
		}
		best := -1
		var try func(all [][]pitch.MIDI)
		try = func(all [][]pitch.MIDI) {
			if len(all) == len(chords) {
				if c := cost(all); best < 0 || c < best {
					best = c
				}
				return
			}
			for _, one := range voicings(voiced(chords[len(all)])) {
				try(append(slices.Clone(all), one))
			}
		}
		try(nil)
		assert.Equal(t, best, cost(voiceLead(chords)))
	})
}

func BenchmarkPerform(b *testing.B) {
	for _, s := range []Style{style(Shuffle), style(Swing), style(Funk)} {
		order := Order{Chart: blues(b, "C", chart.Shuffle), Instrument: neck.Standard(), Bars: 12, Style: s, Chorus: 1}
		b.Run(s.Name, func(b *testing.B) {
			b.ReportAllocs()
			for range b.N {
				Perform(order)
			}
		})
	}
}

func styleNames(m chart.Meter) []string {
	names := []string{}
	for _, s := range StylesFor(m) {
		names = append(names, s.Name)
	}
	return names
}

func cents(points []Point) []int {
	all := make([]int, len(points))
	for n, p := range points {
		all[n] = p.Cents
	}
	return all
}

// Of two chords in a bar each leads into the next by a half step: the last note of the bass before a chord lies a half step
// from the note that begins it.
func TestTheBassLeadsIntoHalfBars(t *testing.T) {
	c := blues(t, "C", chart.Straight)
	for n := range c.Bars {
		spans, err := chart.ReadBar([]string{"C7 F7", "G7 D7"}[n%2], c.Key, chart.FourFour, nil)
		require.NoError(t, err)
		c.Bars[n].Spans = spans
	}
	for _, name := range []string{"jazz swing", "shuffle", "straight rock"} {
		notes := of(Perform(Order{Chart: c, Instrument: neck.Standard(), Style: style(name), Bars: 12}), Bass)
		led, changes := 0, 0
		for n := 1; n < len(notes); n++ {
			beside := (notes[n].Tick+480)%960 - 480 // of the half of the bar, as players are early or late
			if beside < -30 || beside > 30 || notes[n].Tick < 480 {
				continue
			}
			changes++
			if apart := notes[n].Pitch - notes[n-1].Pitch; apart == 1 || apart == -1 {
				led++
			}
		}
		assert.Greater(t, changes, 18, name)
		assert.GreaterOrEqual(t, 10*led, 9*changes, "%s: %d of %d", name, led, changes)
	}
}
