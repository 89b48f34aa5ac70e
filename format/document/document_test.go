package document

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
)

const tune = `{"title":"A","key":{"tonic":"Bb","mode":"dominant"},"meter":"4/4","tempo":90,"feel":"shuffle","swing":2,
	"bars":[{"chords":[{"chord":"Bb7","beats":2},{"chord":"Eb9","beats":2}]},{"chords":[{"chord":"F7","beats":4}]}]}`

const lickJSON = `{"name":"A","about":"","tonic":"C","tags":["box","call"],"meter":"4/4","events":[{"tick":0,"ticks":240,"string":3,"fret":8},
	{"tick":240,"ticks":240,"string":3,"fret":10,"hammerOn":true,"bend":0.5,"slideOut":"down"},
	{"tick":480,"ticks":60,"string":2,"fret":8,"grace":true},{"tick":540,"ticks":180,"string":2,"fret":9}],"chords":[{"tick":0,"chord":"C7"},{"tick":960,"chord":"F#m7b5/A"}]}`

func readChart(t *testing.T, text string) (Chart, chart.Chart) {
	t.Helper()
	var d Chart
	require.NoError(t, json.Unmarshal([]byte(text), &d))
	c, err := d.Core()
	require.NoError(t, err)
	return d, c
}

func TestAChartReadsAndWritesTheSame(t *testing.T) {
	d, c := readChart(t, tune)
	assert.Equal(t, d, ChartOf(c))
	assert.Equal(t, "Eb9", c.ChordAt(960).Symbol())
}

func TestALickReadsAndWritesTheSame(t *testing.T) {
	var d Lick
	require.NoError(t, json.Unmarshal([]byte(lickJSON), &d))
	l, err := d.Core()
	require.NoError(t, err)
	assert.Equal(t, d, LickOf(l))
	assert.Equal(t, 1, l.Phrase.Events[1].Bend, "half a semitone is one quarter tone")
}

func TestAPhraseSaysWhichFieldIsAtFault(t *testing.T) {
	for field, spoil := range map[string]func(*Lick){
		"chords[1].chord":    func(l *Lick) { l.Chords[1].Chord = "F?" },
		"chords":             func(l *Lick) { l.Chords[1].Tick = 0 },
		"events[1].slideOut": func(l *Lick) { l.Events[1].SlideOut = "sideways" },
		"events[2].string":   func(l *Lick) { l.Events[2].String = 7 },
		"events":             func(l *Lick) { l.Events = nil },
		"meter":              func(l *Lick) { l.Meter = "7/8" },
		"name":               func(l *Lick) { l.Name = " " },
	} {
		var d Lick
		require.NoError(t, json.Unmarshal([]byte(lickJSON), &d))
		spoil(&d)
		_, err := d.Core()
		var fault *chart.FieldError
		require.ErrorAs(t, err, &fault, field)
		assert.Equal(t, field, fault.Field)
	}
}

// Whatever JSON is given: an error, or something that reads and writes the same.
func FuzzDocuments(f *testing.F) {
	f.Add([]byte(tune))
	f.Add([]byte(lickJSON))
	f.Add([]byte(`{"bars":[{"chords":[{}]}]}`))
	f.Fuzz(func(t *testing.T, text []byte) {
		var d Chart
		if json.Unmarshal(text, &d) == nil {
			if c, err := d.Core(); err == nil {
				again, err := ChartOf(c).Core()
				require.NoError(t, err)
				require.Equal(t, ChartOf(c), ChartOf(again))
			}
		}
		var l Lick
		if json.Unmarshal(text, &l) == nil {
			if read, err := l.Core(); err == nil {
				require.Equal(t, LickOf(read).Phrase, l.Phrase)
			}
		}
	})
}

// Names that nobody can tell apart are kept as they are seen.
func TestNamesAreKeptAsTheyAreSeen(t *testing.T) {
	const hidden = "\u202eWarm\u200b up\u0007 "
	band, err := Band{Routines: []Routine{{Name: hidden, Segments: []Segment{{Choruses: 1}}}}}.Checked()
	require.NoError(t, err)
	assert.Equal(t, "Warm up", band.Routines[0].Name)
	instrument, err := Instrument{Name: hidden, Tuning: "E2 A2 D3 G3 B3 E4", Frets: 22, ScaleMM: 648}.Core()
	require.NoError(t, err)
	assert.Equal(t, "Warm up", instrument.Name)
	session, err := Session{Name: hidden, Minutes: 10, Blocks: []SessionBlock{{Kind: "warm-up", Minutes: 10, Title: "Warm up"}}}.Checked()
	require.NoError(t, err)
	assert.Equal(t, "Warm up", session.Name)
	_, err = Exercise{Name: "\u200b\u200d"}.Checked()
	assert.EqualError(t, err, "name: an exercise's name has 1 to 60 characters")
	_, err = Band{Routines: []Routine{{Name: "\u200b", Segments: []Segment{{Choruses: 1}}}}}.Checked()
	assert.EqualError(t, err, "routines[0].name: a routine's name has 1 to 60 characters")
}
