package exercise

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
	"undaris/core/phrase/phrasetest"
)

func sequence(t testing.TB, c chart.Chart, over, cell, order string) Sequence {
	t.Helper()
	p, err := neck.FindPosition(neck.Standard(), c.Key.Tonic.Class(), "E")
	require.NoError(t, err)
	eighth, err := c.Meter.Subdivision("")
	require.NoError(t, err)
	return Sequence{Chart: c, Instrument: neck.Standard(), Window: p.Window, Tones: over, Figure: cell, Order: order, Subdivision: eighth, Bars: len(c.Bars)}
}

// degreesOf writes a sequence as degrees, a bar line at each bar.
func degreesOf(t testing.TB, q Sequence) string {
	t.Helper()
	p, err := q.Write()
	require.NoError(t, err)
	require.NoError(t, p.Check(q.Instrument))
	text := strings.Builder{}
	for n, label := range p.Labels(q.Instrument, q.Chart.Key) {
		if p.Events[n].Tick%q.Chart.Meter.BarTicks() == 0 && n > 0 {
			text.WriteString(" |")
		}
		fmt.Fprintf(&text, " %s", label.Degree)
	}
	return text.String()[1:]
}

func TestSequencesOverABlues(t *testing.T) {
	c := phrasetest.Song(t, "C", harmony.DominantMode, "C7", "F7")
	for choice, want := range map[string]string{
		"chord tones/one after another/as written":       "R 3 5 b7 R 3 5 b7 | 5 b7 5 3 R b7 5 3",
		"chord tones/triads/as written":                  "R 3 5 3 5 b7 5 b7 | 3 5 b7 5 b7 R b7 R",
		"chord tones/sevenths/reversed":                  "b7 5 3 R R b7 5 3 | b7 5 3 R R b7 5 3",
		"chord tones/two up, one down/as written":        "R 5 3 b7 5 R b7 3 | 5 R b7 3 R 5 3 b7",
		"scale of the chord/thirds/as written":           "R 3 9 11 3 5 11 13 | 9 11 3 5 11 13 5 b7",
		"scale of the chord/thirds/alternating":          "R 3 11 9 3 5 13 11 | 9 11 5 3 11 13 b7 5",
		"scale of the chord/fourths/as written":          "R 11 9 5 3 13 11 b7 | 9 5 3 13 11 b7 5 R",
		"scale of the chord/two up, one down/as written": "R 9 3 9 3 11 3 11 | 9 3 11 3 11 5 11 5",
		"box/groups of four/as written":                  "R b3 11 5 b3 11 5 b7 | R 9 11 5 9 11 5 b7",
	} {
		part := strings.Split(choice, "/")
		assert.Equal(t, want, degreesOf(t, sequence(t, c, part[0], part[1], part[2])), choice)
	}
}

// Spread triads through the first bars of Paper Lanterns, place by place.
func TestSpreadTriadsOverASong(t *testing.T) {
	c := phrasetest.Song(t, "Ab", harmony.MajorMode, "Ab", "Fm7", "Dbmaj7 Eb7")
	for cell, want := range map[string]string{
		"spread triads":          "6:4 5:6 3:5 5:6 6:4 5:6 3:5 5:6 | 4:3 3:5 1:4 3:5 4:3 3:5 1:4 3:5 | 5:4 4:6 2:6 4:6 5:6 3:3 1:3 3:3",
		"spread triads with 4-3": "6:4 5:6 3:6 3:5 6:4 5:6 3:6 3:5 | 4:3 3:5 1:6 1:4 4:3 3:5 1:6 1:4 | 5:4 4:6 1:3 2:6 5:6 3:3 1:4 1:3",
	} {
		p, err := sequence(t, c, ChordTones, cell, "as written").Write()
		require.NoError(t, err)
		places := ""
		for n, e := range p.Events {
			if n > 0 && e.Tick%1920 == 0 {
				places += " |"
			}
			places += fmt.Sprintf(" %d:%d", e.String, e.Fret)
		}
		assert.Equal(t, want, places[1:], cell)
	}
	assert.Equal(t, "R 5 11 3 R 5 11 3 | R 5 11 b3 R 5 11 b3 | R 5 #11 3 R 5 11 3", degreesOf(t, sequence(t, c, ChordTones, "spread triads with 4-3", "as written")))
}

// Over any scheme, key, meter and figure a sequence fills its time without a hole,
// stays on the neck, plays only what it walks over, and strikes no note twice.
func TestSequencesHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		scheme := rapid.SampledFrom(chart.Schemes).Draw(t, "scheme")
		key, err := harmony.ParseKey(rapid.SampledFrom(scheme.In.Tonics()).Draw(t, "tonic"), scheme.In)
		require.NoError(t, err)
		meter := rapid.SampledFrom(chart.Meters).Draw(t, "meter")
		c := chart.Chart{Title: "any", Key: key, Meter: meter, Tempo: 100, Feel: chart.Straight, Swing: 2, Bars: scheme.Bars(key.Tonic, meter)}
		over := rapid.SampledFrom(SequenceTones).Draw(t, "over")
		q := Sequence{
			Chart: c, Instrument: neck.Standard(), Window: rapid.SampledFrom(neck.Positions(neck.Standard(), key.Tonic.Class())).Draw(t, "position").Window,
			Tones: over, Figure: rapid.SampledFrom(SequenceFigures(over)).Draw(t, "cell"), Order: rapid.SampledFrom(SequenceOrders).Draw(t, "order"),
			Subdivision: rapid.SampledFrom(meter.Subdivisions()).Draw(t, "subdivision"), Bars: min(len(c.Bars), 4),
		}
		p, err := q.Write()
		require.NoError(t, err)
		require.NoError(t, p.Check(q.Instrument))
		step := q.Subdivision.Ticks(meter)
		for n, e := range p.Events {
			assert.Equal(t, n*step, e.Tick)
			if over == ScaleOfChord {
				chord, _ := p.ChordAt(e.Tick)
				scale, _ := key.ChordScale(chord)
				found := false
				for _, tone := range scale.Tones {
					found = found || tone.Note.Class() == e.Sounding(q.Instrument).Class()
				}
				assert.True(t, found)
			}
			if n > 0 && q.Figure == "one after another" {
				assert.NotEqual(t, q.Instrument.Pitch(p.Events[n-1].Place), q.Instrument.Pitch(e.Place))
			}
		}
		assert.Equal(t, q.Bars*meter.BarTicks(), p.Events[len(p.Events)-1].End())
	})
}

func TestSequencesThatCannotBe(t *testing.T) {
	c := phrasetest.Song(t, "C", harmony.DominantMode, "C7", "F7")
	for want, change := range map[string]func(*Sequence){
		"choose chord tones, scale of the chord, box": func(q *Sequence) { q.Tones = "air" },
		"choose one after another; triads":            func(q *Sequence) { q.Figure = "fourths" },
		"choose as written, reversed":                 func(q *Sequence) { q.Order = "sideways" },
		"its bars are 1 to 2":                         func(q *Sequence) { q.From = 2 },
		"the chart ends with bar 2":                   func(q *Sequence) { q.From, q.Bars = 1, 2 },
	} {
		q := sequence(t, c, ChordTones, "triads", "as written")
		change(&q)
		_, err := q.Write()
		var field *chart.FieldError
		require.ErrorAs(t, err, &field)
		assert.Contains(t, field.Detail, want)
	}
	q := sequence(t, phrasetest.Song(t, "C", harmony.DominantMode, "C5"), ChordTones, "sevenths", "as written")
	q.Window = neck.Window{Core: 5, CoreEnd: 5, Low: 5, High: 5}
	_, err := q.Write()
	assert.ErrorContains(t, err, "too few for sevenths; one after another fits")
}
