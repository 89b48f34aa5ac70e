package sheet

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/format/formattest"
)

func order(t testing.TB) Order {
	t.Helper()
	key, err := harmony.ParseKey("F#", harmony.MinorMode)
	require.NoError(t, err)
	s, err := chart.FindScheme("minor twelve-bar")
	require.NoError(t, err)
	return Order{
		Chart:      chart.Chart{Title: "Salt <Road> & Dusk", Key: key, Meter: chart.FourFour, Tempo: 96, Feel: chart.Straight, Swing: 2, Bars: s.Bars(key.Tonic, chart.FourFour)},
		Instrument: neck.Standard(), Paper: Papers[0],
	}
}

// texts are the texts of an SVG in their order; a drawing that is not
// well-formed fails the test.
func texts(t *testing.T, data []byte) []string {
	t.Helper()
	all := []string{}
	decoder := xml.NewDecoder(bytes.NewReader(data))
	inside := false
	for {
		token, err := decoder.Token()
		if errors.Is(err, io.EOF) {
			return all
		}
		require.NoError(t, err)
		switch e := token.(type) {
		case xml.StartElement:
			inside = e.Name.Local == "text"
		case xml.EndElement:
			inside = false
		case xml.CharData:
			if inside {
				all = append(all, string(e))
			}
		}
	}
}

func TestOneMap(t *testing.T) {
	o := order(t)
	chord, err := harmony.ParseChord("C#7")
	require.NoError(t, err)
	p, err := neck.FindPosition(o.Instrument, o.Chart.Key.Tonic.Class(), "E")
	require.NoError(t, err)
	data := o.OneMap(chord, p).SVG()
	said := texts(t, data)
	assert.Equal(t, []string{"C♯7", "E-form position, frets 1–4: makes the C form", "Salt <Road> & Dusk"}, said[:3])
	shape := neck.PlaceTones(o.Instrument, p.Window, chord.Tones())
	assert.Equal(t, len(shape.Tones), strings.Count(string(data), `stroke-width="0.30"/>`+"\n<text"), "a pebble for every tone, with its degree")
	assert.Contains(t, said, "E♯")
	assert.Contains(t, said, "finger 4")
	assert.Contains(t, string(data), "stroke-dasharray", "the box in rings")
	assert.NotContains(t, string(data), "href", "nothing is fetched")
}

func TestThePracticeSheet(t *testing.T) {
	o := order(t)
	said := strings.Join(texts(t, o.Practice().SVG()), "|")
	for _, want := range []string{"Salt <Road> & Dusk", "F♯ minor · 4/4 · straight · 96", "F♯m7|i|", "D7|♭VI|", "position E, E form", "position G, ", "F♯ minor pentatonic"} {
		assert.Contains(t, said, want)
	}
	assert.Equal(t, 4*5, strings.Count(said, "position "), "four chords in five positions")
}

func TestPDFs(t *testing.T) {
	o := order(t)
	chord := o.Chart.Chords()[0]
	p, err := neck.FindPosition(o.Instrument, o.Chart.Key.Tonic.Class(), "D")
	require.NoError(t, err)
	for _, d := range []Drawing{o.OneMap(chord, p), o.Practice(), o.Blank()} {
		data := d.PDF()
		assert.True(t, bytes.HasPrefix(data, []byte("%PDF-")))
		assert.True(t, bytes.HasSuffix(bytes.TrimSpace(data), []byte("%%EOF")))
		assert.Equal(t, data, d.PDF(), "the same sheet is the same file")
	}
	letter, err := FindPaper("Letter")
	require.NoError(t, err)
	o.Paper = letter
	assert.Contains(t, string(o.Blank().PDF()), "612.00 792.00", "Letter, in points")
	_, err = FindPaper("B5")
	assert.EqualError(t, err, `paper: "B5" is not a size of paper; choose one of: A4, Letter`)
}

// Any chart can be drawn, on as many pages as its chords take.
func TestAnyChartIsDrawn(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		o := Order{Chart: formattest.Chart(r), Instrument: neck.Standard(), Paper: rapid.SampledFrom(Papers).Draw(r, "paper")}
		svg := o.Practice().SVG()
		assert.Equal(t, 5*len(o.Chart.Chords()), strings.Count(strings.Join(texts(t, svg), "|"), "position "))
	})
}

func TestSigns(t *testing.T) {
	for text, want := range map[string]string{
		"Bb7": "B♭7", "F#m7b5": "F♯m7♭5", "b7": "♭7", "#11": "♯11", "bb7": "♭♭7", "Ebbmaj7": "E♭♭maj7", "bVI": "♭VI", "#iv°": "♯iv°", "Cdim7": "Cdim7",
		"C/Bb": "C/B♭", "Csus4": "Csus4", "G7b9": "G7♭9", "Absus2": "A♭sus2",
	} {
		assert.Equal(t, want, Signs(text), text)
	}
}

// A score has every fret and degree of the line, its chords and its bar numbers; the same
// score is the same file; signs in the key's signature are not said again.
func TestAScoreHasEveryNote(t *testing.T) {
	key, err := harmony.ParseKey("G", harmony.MajorMode)
	require.NoError(t, err)
	c := chart.Chart{Title: "Any", Key: key, Meter: chart.FourFour, Tempo: 90, Feel: chart.Straight, Swing: 2}
	for _, symbol := range []string{"G", "C", "D7", "G", "Em7"} {
		chord, err := harmony.ParseChord(symbol)
		require.NoError(t, err)
		c.Bars = append(c.Bars, chart.Bar{Spans: []chart.Span{{Chord: chord, Beats: 4}}})
	}
	note := func(tick, ticks, str, fret int) phrase.Event {
		return phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: str, Fret: fret}}}
	}
	line := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{
		note(0, 240, 3, 4), note(240, 240, 3, 5), note(480, 160, 2, 3), note(640, 160, 2, 5), note(800, 160, 2, 7), note(960, 960, 1, 3),
		note(1920, 720, 2, 5), note(2880, 1920, 1, 2), note(4*1920, 480, 4, 17), note(4*1920+480, 240, 6, 0),
	}}
	line.Events[1].HammerOn, line.Events[5].Vibrato, line.Events[6].Bend = true, true, 4
	line = line.WithChordsOf(c, 0)
	score := Score{Title: "A line", Chart: c, Instrument: neck.Standard(), Line: line}
	pdf := score.PDF()
	assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF")))
	assert.Equal(t, pdf, score.PDF())
	drawn := string(score.drawing().SVG())
	for _, text := range []string{">17<", ">full<", ">H<", ">~~<", ">Em7<", ">5<", ">3<", ">♯<", ">A line<"} {
		assert.Contains(t, drawn, text)
	}
	assert.Equal(t, 2, strings.Count(drawn, ">♯<"), "the F sharp of the signature, once in each row, and never before a note")
	empty := Score{Title: "Nothing", Chart: c, Instrument: neck.Standard(), Line: phrase.Phrase{Meter: c.Meter}}
	assert.True(t, bytes.HasPrefix(empty.PDF(), []byte("%PDF")))
}

// A chord is drawn as it is laid out on the screen: on its strings, over the whole neck, in any tuning; what lies
// nowhere so is refused.
func TestMapsInEveryLayout(t *testing.T) {
	for _, tuning := range []string{"E2 A2 D3 G3 B3 E4", "D2 G2 D3 G3 B3 D4", "E1 A1 D2 G2", "B1 E2 A2 D3 G3 B3 E4"} {
		o := order(t)
		open, err := neck.ReadTuning(tuning)
		require.NoError(t, err)
		o.Instrument.Open = open
		chord, err := harmony.ParseChord("C#7")
		require.NoError(t, err)
		p := neck.Positions(o.Instrument, o.Chart.Key.Tonic.Class())[1]
		for _, choice := range neck.LayoutChoices(o.Instrument, p.Window, chord.Tones()) {
			drawing, err := o.MapInLayout(chord, p, choice.Layout)
			if err != nil {
				var refused *neck.LayoutError
				assert.ErrorAs(t, err, &refused)
				continue
			}
			said := strings.Join(texts(t, drawing.SVG()), "|")
			assert.Contains(t, said, choice.Layout.Text(), tuning)
			assert.True(t, bytes.HasPrefix(drawing.PDF(), []byte("%PDF")))
		}
		said := texts(t, o.WholeNeck(chord).SVG())
		assert.Contains(t, said, "the whole neck")
		roots := 0
		for s := range o.Instrument.Open {
			for fret := 0; fret <= o.Instrument.Frets; fret++ {
				if o.Instrument.Pitch(neck.Place{String: s + 1, Fret: fret}).Class() == chord.Root.Class() {
					roots++
				}
			}
		}
		drawn := 0
		for _, text := range said {
			if text == "R" {
				drawn++
			}
		}
		assert.Equal(t, roots, drawn, "every root")
	}
}
