package exercise

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

// anyExercise draws an exercise; its choices may contradict each other.
func anyExercise(t *rapid.T, s Setting) Exercise {
	name := func(all []Choice, label string) string { return rapid.SampledFrom(all).Draw(t, label).Name }
	sometimes := func(label string) bool { return rapid.IntRange(0, 3).Draw(t, label) == 0 }
	e := Exercise{Tones: Tones(name(Choices.Tones, "tones")), Broken: rapid.Bool().Draw(t, "broken")}
	e.Where.Kind = WhereKind(name(Choices.Where, "where"))
	most := len(s.Instrument.Open)
	if e.Where.Kind == CellOnStrings || sometimes("some strings") {
		e.Where.LowString = rapid.IntRange(1, most-1).Draw(t, "low string")
		e.Where.HighString = rapid.IntRange(e.Where.LowString, most).Draw(t, "high string")
		if e.Where.Kind == CellOnStrings {
			e.Where.HighString = e.Where.LowString + 1
		}
	}
	e.Where.LowFret = rapid.IntRange(0, 6).Draw(t, "low fret")
	e.Where.HighFret = e.Where.LowFret + rapid.IntRange(3, 6).Draw(t, "frets")
	if e.Where.Kind == NotesPerString {
		e.Where.PerString = rapid.IntRange(2, 4).Draw(t, "per string")
	}
	e.Order.Direction = Direction(name(Choices.Directions, "direction"))
	e.Order.Start = Start(name(Choices.Starts, "start"))
	e.Order.Turn = FigureTurn(name(Choices.Turns, "turn"))
	if rapid.Bool().Draw(t, "figure?") {
		e.Order.Figure = Figure(name(Choices.Figures, "figure"))
		e.Order.Numbers = rapid.SliceOfN(rapid.IntRange(1, 4), 1, 5).Draw(t, "numbers")
	}
	switch rapid.IntRange(0, 3).Draw(t, "ornament") {
	case 0:
		e.Into = Into(name(Choices.Into, "into"))
	case 1:
		e.Ornaments.Before = Approach(name(Choices.Approaches, "before"))
		e.Ornaments.To = []int{rapid.SampledFrom([]int{1, 3, 5, 7}).Draw(t, "to")}
	case 2:
		e.Ornaments.Tail = Tail(name(Choices.Tails, "tail"))
	}
	e.Ornaments.Slurs, e.Ornaments.Slides = rapid.Bool().Draw(t, "slurs"), rapid.Bool().Draw(t, "slides")
	e.Ornaments.Trill = sometimes("trill")
	e.Time.Subdivision = rapid.SampledFrom(append([]string{OncePerChord}, names(s.Tune.Meter.Subdivisions())...)).Draw(t, "subdivision")
	if sometimes("pattern") {
		e.Time.Pattern = Pattern(name(Choices.Patterns, "pattern"))
	}
	if sometimes("rests") {
		e.Time.Play, e.Time.Rest = rapid.IntRange(1, 8).Draw(t, "play"), rapid.IntRange(0, 3).Draw(t, "rest")
	}
	e.Time.Accent = rapid.IntRange(0, 4).Draw(t, "accent")
	e.Time.NoEnding = sometimes("no ending")
	return e
}

func names(all []chart.Subdivision) []string {
	found := []string{}
	for _, s := range all {
		found = append(found, s.Name)
	}
	return found
}

// anySetting draws a tune and a neck: any scheme, key, meter and position, 4 to 8 strings.
func anySetting(t *rapid.T) Setting {
	scheme := rapid.SampledFrom(chart.Schemes).Draw(t, "scheme")
	key, err := harmony.ParseKey(rapid.SampledFrom(scheme.In.Tonics()).Draw(t, "tonic"), scheme.In)
	require.NoError(t, err)
	meter := rapid.SampledFrom(chart.Meters).Draw(t, "meter")
	c := chart.Chart{Title: "any", Key: key, Meter: meter, Tempo: 100, Feel: chart.Straight, Swing: 2, Bars: scheme.Bars(key.Tonic, meter)}
	i := rapid.SampledFrom(necks).Draw(t, "neck")
	return Setting{Tune: c, Instrument: i, Position: rapid.SampledFrom(neck.Positions(i, key.Tonic.Class())).Draw(t, "position"), SpanMM: neck.ComfortableSpanMM}
}

// necks are a guitar in standard and in two other tunings, a bass, and seven and eight strings.
var necks = func() []neck.Instrument {
	all := []neck.Instrument{neck.Standard()}
	for _, tuning := range []string{"D2 A2 D3 G3 B3 E4", "D2 G2 D3 G3 B3 D4", "E1 A1 D2 G2", "B0 E1 A1 D2 G2", "B1 E2 A2 D3 G3 B3 E4", "F#1 B1 E2 A2 D3 G3 B3 E4"} {
		open, err := neck.ReadTuning(tuning)
		if err != nil {
			panic(err)
		}
		i := neck.Standard()
		i.Name, i.Open = tuning, open
		all = append(all, i)
	}
	return all
}()

// Over any tune, neck and choices an exercise is refused with a field and a nearest one that can be had,
// or else it is playable, lies where it must, plays only what belongs, fills its time, and ends on
// a chord tone.
func TestExercisesHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := anySetting(t)
		e := anyExercise(t, s)
		w, err := e.Write(s)
		if err != nil {
			var field *chart.FieldError
			require.ErrorAs(t, err, &field)
			assert.False(t, strings.HasPrefix(field.Detail, "note "), "a written exercise can be played: %v", err)
			return
		}
		i := s.Instrument
		require.NoError(t, w.Phrase.Check(i))
		bar := w.Chart.Meter.BarTicks()
		spans := w.Chart.ChordSpans()
		for n, event := range w.Phrase.Events {
			assert.True(t, event.Tick >= 0 && event.End() <= w.Bars*bar, "within the bars")
			low, high := e.Where.strings(i)
			assert.True(t, event.String >= low && event.String <= high, "string %d of %d to %d", event.String, low, high)
			switch e.Where.Kind {
			case SomeFrets:
				assert.True(t, event.Fret >= e.Where.LowFret && event.Fret <= e.Where.HighFret)
			case InPosition, "":
				assert.True(t, event.Fret >= s.Position.Low && event.Fret <= s.Position.High, "fret %d in %d to %d", event.Fret, s.Position.Low, s.Position.High)
			}
			chord := chordAt(spans, event.Tick+w.Start)
			assert.True(t, belongs(e, w.Chart, chord, i.Pitch(event.Place).Class()) || isLead(e, w, i, n), "note %d over %s", n, chord.Symbol())
		}
		if last := w.Phrase.Events[len(w.Phrase.Events)-1]; !e.Time.NoEnding && e.Time.Subdivision != OncePerChord && e.Time.Pattern != CountedBack {
			assert.Equal(t, w.Bars*bar, last.End(), "the last note is held to the end")
		}
		if e.Time.Pattern == FigureAndFill && e.Time.Rest == 0 && e.Where.Kind != CellOnStrings {
			for _, m := range spans {
				at := slices.IndexFunc(w.Phrase.Events, func(event phrase.Event) bool { return event.Tick+w.Start == m.Tick })
				if at >= 0 && hasRoot(e, w, i, m.Chord) {
					assert.Equal(t, m.Chord.Root.Class(), i.Pitch(w.Phrase.Events[at].Place).Class(), "each fill comes out on a root: %s", m.Chord.Symbol())
				}
			}
		}
		if e.Time.Pattern == CountedBack {
			for _, event := range w.Phrase.Events {
				tick := event.Tick + w.Start
				if at := slices.IndexFunc(spans, func(m chart.ChordSpan) bool { return m.Tick == tick }); at > 0 && !spans[at-1].Chord.Same(spans[at].Chord) {
					assert.True(t, belongs(e, w.Chart, spans[at].Chord, i.Pitch(event.Place).Class()), "it lands on what is walked")
				}
			}
		}
	})
}

// hasRoot says whether a chord's root can be played where the exercise lies, and is among what it walks.
func hasRoot(e Exercise, w Written, i neck.Instrument, chord harmony.Chord) bool {
	return belongs(e, w.Chart, chord, chord.Root.Class()) && e.Tones != SuperimposedOver && e.Where.Kind == AlongStrings
}

func chordAt(spans []chart.ChordSpan, tick int) harmony.Chord {
	chord := spans[0].Chord
	for _, m := range spans {
		if m.Tick <= tick {
			chord = m.Chord
		}
	}
	return chord
}

// belongs says whether a note is one of those that the exercise walks over a chord: worked out
// from the chord and its scale alone.
func belongs(e Exercise, c chart.Chart, chord harmony.Chord, class pitch.Class) bool {
	scale, _ := c.Key.ChordScale(chord)
	tones := append(chord.Tones(), scale.Tones...)
	switch e.Tones {
	case ChordTones, "", Triad, Shells, GuideTones, RootAndThird, SpreadTriads:
		tones = chord.Tones()
	case Seventh:
		tones = chord.Tones()
		for _, tone := range scale.Tones {
			if tone.Degree.Number == 7 {
				tones = append(tones, tone)
			}
		}
	case BoxTones:
		box, _ := c.Key.Box(c.Box)
		tones = box.Tones
	case SuperimposedOver: // chord tones, colour, or one that leans
		judged := c.Key.Classify(chord, class)
		return judged != harmony.Outside && judged != harmony.Blue || hasClass(tones, class)
	}
	if e.Ornaments.Tail != "" || e.Time.Pattern == FigureAndFill {
		tones = append(slices.Clone(tones), scale.Tones...)
	}
	return hasClass(tones, class)
}

// isLead says whether a note is one that leads on: a note of half a step or a scale step to one of the
// three after it.
func isLead(e Exercise, w Written, i neck.Instrument, n int) bool {
	if e.Ornaments.Before == "" && (e.Into == "" || e.Into == Directly) {
		return false
	}
	p := i.Pitch(w.Phrase.Events[n].Place)
	for _, next := range w.Phrase.Events[n+1 : min(n+4, len(w.Phrase.Events))] {
		if away := int(max(i.Pitch(next.Place)-p, p-i.Pitch(next.Place))); away >= 1 && away <= 3 {
			return true
		}
	}
	return false
}

// What is refused names the choice in the way, and something near that can be had.
func TestExercisesThatCannotBe(t *testing.T) {
	s := bluesInC(t, "C7", "F7")
	for _, c := range []struct {
		name     string
		exercise Exercise
		field    string
		detail   string
		nearest  string
	}{
		{"unknown", Exercise{Tones: "wind"}, "tones", "choose one of: chord tones; triad", "chord tones"},
		{"thirds of an arpeggio", Exercise{Order: Order{Figure: InThirds}}, "order.figure", "needs a scale or a box", "chord tones, two up, one down"},
		{"a box has no inversions", Exercise{Tones: BoxTones, Order: Order{Figure: Inversions}}, "order.figure", "only chords have inversions", "box, two up, one down"},
		{"a figure without numbers", Exercise{Order: Order{Figure: OwnFigure}}, "order.numbers", "1 to 24 numbers", "chord tones, two up, one down"},
		{"a number that is not there", Exercise{Order: Order{Figure: OwnFigure, Numbers: []int{1, 0}}}, "order.numbers[1]", "0 is not a step", "chord tones, 1 1"},
		{"a figure that is too wide", Exercise{Order: Order{Figure: OwnFigure, Numbers: []int{1, 15}}}, "order.figure", "needs 15 tones; over C7 there are 9 here", "chord tones, two up, one down"},
		{"a number outside the shape", Exercise{Tones: Shells, Broken: true, Order: Order{Figure: OwnFigure, Numbers: []int{1, 4}}}, "order.numbers[1]", "the shape has 3 notes", "shells, 1 3"},
		{"strings that are not there", Exercise{Where: Where{LowString: 5, HighString: 7}}, "where.strings", "strings are 1 to 6", "chord tones, strings 5 to 6"},
		{"frets that are not there", Exercise{Where: Where{Kind: SomeFrets, LowFret: 20, HighFret: 30}}, "where.frets", "frets are 0 to 22", "chord tones, frets 20 to 22"},
		{"one fret", Exercise{Tones: Triad, Where: Where{Kind: SomeFrets, LowFret: 6, HighFret: 6, LowString: 1, HighString: 1}}, "where.frets", "over C7 none of it lies on strings 1 to 1, frets 6 to 6", "triad, frets 4 to 8, strings 1 to 1"},
		{"a cell on three strings", Exercise{Where: Where{Kind: CellOnStrings, LowString: 1, HighString: 3}}, "where.strings", "two strings beside each other", "chord tones, a cell on two strings, moved, strings 1 to 2"},
		{"sixths three a string", Exercise{Tones: Sixths, Where: Where{Kind: NotesPerString}}, "where.kind", "sixths lie on several strings at once", "sixths"},
		{"thirds on one string", Exercise{Tones: Thirds, Where: Where{LowString: 2, HighString: 2}}, "where.strings", "more than one string", "thirds, strings 1 to 2"},
		{"a tail and a run", Exercise{Into: ChromaticInto, Ornaments: Ornaments{Tail: FourToThree}}, "into", "a tail already ends each chord", "chord tones, 4–3"},
		{"a tail of a structure", Exercise{Tones: Octaves, Ornaments: Ornaments{Tail: FourToThree}}, "ornaments.tail", "does not fit structures", "octaves"},
		{"extensions of a scale", Exercise{Tones: ScaleOfChord, Extensions: []int{9}}, "extensions", "added to the arpeggio", "scale of the chord"},
		{"an extension that is none", Exercise{Extensions: []int{10}}, "extensions[0]", "9, 11 and 13", "chord tones"},
		{"broken once a chord", Exercise{Tones: Shells, Broken: true, Time: Time{Subdivision: OncePerChord}}, "time.subdivision", "need more time", "shells"},
		{"no such subdivision", Exercise{Time: Time{Subdivision: "seventh"}}, "time.subdivision", "quarter, eighth", "chord tones"},
		{"all rests", Exercise{Time: Time{Rest: 3}}, "time.rest", "make no pattern", "chord tones"},
		{"a bar that is not there", Exercise{Over: Over{From: 2}}, "over.from", "its bars are 1 to 2", "chord tones"},
		{"too many bars", Exercise{Over: Over{From: 1, Bars: 2}}, "over.bars", "the tune ends with bar 2", "chord tones"},
		{"nothing typed", Exercise{Over: Over{Kind: TypedInChords, Text: " | "}}, "over.text", "write the chords between bar lines", "chord tones, over one chord"},
		{"a chord that cannot be read", Exercise{Over: Over{Kind: TypedInChords, Text: "C7 | Hm"}}, "over.text", "bar 2", "chord tones, over one chord"},
	} {
		_, err := c.exercise.Write(s)
		var fault *chart.FieldError
		require.ErrorAs(t, err, &fault, c.name)
		assert.Equal(t, c.field, fault.Field, c.name)
		assert.Contains(t, fault.Detail, c.detail, c.name)
		nearest, ok := c.exercise.Nearest(s)
		require.True(t, ok, c.name)
		assert.Equal(t, c.nearest, nearest.Title(), c.name)
	}
	empty := s
	empty.Tune.Bars = chart.EmptyBars(2, chart.FourFour)
	_, err := Exercise{}.Write(empty)
	assert.ErrorContains(t, err, "the tune has no chord yet")
	nearest, ok := Exercise{}.Nearest(empty)
	require.True(t, ok)
	assert.Equal(t, OneChord, nearest.Over.Kind)
}

// Each placing costs what the cheapest of all placings costs, tried one by one.
func TestPlacingsEqualExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a := area{setting: Setting{Instrument: neck.Standard()}, where: Where{Kind: AlongStrings}}
		steps := []step{}
		for range rapid.IntRange(1, 4).Draw(t, "steps") {
			lowest := pitch.MIDI(rapid.IntRange(42, 66).Draw(t, "lowest"))
			r := rung{pitches: []pitch.MIDI{lowest, lowest + pitch.MIDI(rapid.IntRange(3, 12).Draw(t, "above"))}}
			if r.placings = a.placings(r.pitches); len(r.placings) > 0 {
				steps = append(steps, step{rung: r})
			}
		}
		cost := func(places [][]neck.Place) int {
			total := 0
			for n := range places {
				g := grip{places: places[n]}
				total += g.cost()
				if n > 0 {
					total += grip{places: places[n-1]}.moveCost(g)
				}
			}
			return total
		}
		least := -1
		var try func(so [][]neck.Place)
		try = func(so [][]neck.Place) {
			if len(so) == len(steps) {
				if c := cost(so); least < 0 || c < least {
					least = c
				}
				return
			}
			for _, places := range steps[len(so)].rung.placings {
				try(append(so, places))
			}
		}
		try(nil)
		if len(steps) > 0 {
			assert.Equal(t, least, cost(chooseGrips(steps)))
		}
	})
}

// A hand too small for an exercise is told, and an easier placing is within its span.
func TestAnEasierPlacingIsWithinTheSpan(t *testing.T) {
	s := settingOver(t, phrasetest.Song(t, "F", harmony.DominantMode, "F7", "Bb7"), "E")
	e := Exercise{Tones: ScaleOfChord, Where: Where{Kind: NotesPerString, PerString: 3}}
	w, err := e.Write(s)
	require.NoError(t, err)
	assert.Contains(t, w.Caution, "past your 100")
	easier, ok := e.Easier(s)
	require.True(t, ok)
	assert.LessOrEqual(t, easier.Written.StretchMM, s.SpanMM)
	assert.NotEmpty(t, easier.Text)
	s.SpanMM = neck.MaxSpanMM
	_, ok = e.Easier(s)
	assert.False(t, ok, "a hand that is large enough needs none")
}

// Every ready-made exercise can be written over a blues, a song and a minor tune, in every position, and
// has a name of its own.
func TestReadyMadesAreThere(t *testing.T) {
	seen := map[string]bool{}
	for _, r := range ReadyMades {
		assert.False(t, seen[r.Name], r.Name)
		seen[r.Name] = true
		assert.LessOrEqual(t, len([]rune(r.Name)), 60)
		for _, c := range []chart.Chart{
			phrasetest.Song(t, "B", harmony.DominantMode, "B7", "E7", "F#7"),
			phrasetest.Song(t, "Ab", harmony.MajorMode, "Ab", "Fm7", "Dbmaj7 Eb7"),
			phrasetest.Song(t, "F#", harmony.MinorMode, "F#m7", "Bm7", "D7", "C#7"),
		} {
			positions := neck.Positions(neck.Standard(), c.Key.Tonic.Class())
			for n, p := range positions {
				_, err := r.Exercise.Write(Setting{Tune: c, Instrument: neck.Standard(), Position: p, SpanMM: 100})
				if r.Exercise.Where.Kind == TwoPositions && n == len(positions)-1 {
					assert.ErrorContains(t, err, "no position lies above this one")
					continue
				}
				assert.NoError(t, err, "%s in %s at %s", r.Name, c.Key.Tonic, p.ID())
			}
		}
	}
	assert.GreaterOrEqual(t, len(ReadyMades), 12)
}

// A chord can be begun on any of the tones that are walked, counted over the chord; on one that is not among them it
// is refused.
func TestAnyToneToBeginOn(t *testing.T) {
	s := bluesInC(t, "C7", "F7")
	for _, c := range []struct {
		exercise Exercise
		want     string
	}{
		{Exercise{Tones: ScaleOfChord, Order: Order{Start: FromNinth, Direction: Up}}, "6:10 9"},
		{Exercise{Tones: ScaleOfChord, Order: Order{Start: FromSixth, Direction: Up}}, "4:7 13"},
		{Exercise{Tones: BoxTones, Order: Order{Start: FromFourth, Direction: Up}}, "5:8 11"},
		{Exercise{Extensions: []int{9}, Order: Order{Start: FromNinth, Direction: Up}}, "6:10 9"},
	} {
		w, err := c.exercise.Write(s)
		require.NoError(t, err)
		assert.Equal(t, c.want, tabOf(w, s)[:len(c.want)])
	}
	_, err := Exercise{Order: Order{Start: FromNinth}}.Write(s)
	assert.ErrorContains(t, err, "over C7 there is no 9 here to begin on")
}
