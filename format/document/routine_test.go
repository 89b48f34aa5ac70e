package document

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/routine"
)

func routineTune(t testing.TB) chart.Chart {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	return chart.Chart{Title: "A", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
}

// The ready-made routines are written as documents and read back as they were.
func TestRoutinesAreReadAsTheyAreWritten(t *testing.T) {
	c := routineTune(t)
	for _, r := range routine.Ready(c) {
		text, err := json.Marshal(RoutineOf(r))
		require.NoError(t, err)
		var d Routine
		require.NoError(t, json.Unmarshal(text, &d))
		again, err := d.Core(c)
		require.NoError(t, err, r.Name)
		assert.Equal(t, r, again)
	}
}

func TestWhatOfABandIsKept(t *testing.T) {
	assert.NoError(t, Band{}.check())
	assert.NoError(t, Band{Style: "funk sixteenths", Sound: "organ", Intro: "turnaround", Levels: map[string]int{"bass": 0}, Muted: []string{"line"}, View: "names"}.check())
	for says, b := range map[string]Band{
		`"polka" is not a style`:                 {Style: "polka"},
		`"flute" is not a sound of the chords`:   {Sound: "flute"},
		`"drum roll" is not an intro`:            {Intro: "drum roll"},
		`"all of it" is not a view of the stage`: {View: "all of it"},
		`"horns" is no part of the band`:         {Levels: map[string]int{"horns": 3}},
		"a level is 0 to 100, not -1":            {Levels: map[string]int{"bass": -1}},
		`"strings" is no part of the band`:       {Muted: []string{"strings"}},
		"a routine's name has 1 to 60":           {Routines: []Routine{{Segments: []Segment{{}}}}},
		"a routine has 1 to 64 segments":         {Routines: []Routine{{Name: "r"}}},
		"1 to 6 clicks, not 12":                  {Click: &Click{PerBeat: 12}},
		`there are two routines called "r"`:      {Routines: []Routine{{Name: "r", Segments: []Segment{{}}}, {Name: "r", Segments: []Segment{{}}}}},
	} {
		assert.ErrorContains(t, b.check(), says)
	}
}

// Whatever a document says, it is refused with the field at fault, or can be walked.
func FuzzRoutine(f *testing.F) {
	c := routineTune(f)
	for _, r := range routine.Ready(c) {
		text, err := json.Marshal(RoutineOf(r))
		require.NoError(f, err)
		f.Add(text)
	}
	f.Add([]byte(`{"name":"r","segments":[{"minutes":1e308,"end":{"again":99,"tempoBy":-400}}]}`))
	f.Fuzz(func(t *testing.T, text []byte) {
		var d Routine
		if json.Unmarshal(text, &d) != nil {
			return
		}
		r, err := d.Core(c)
		if err != nil {
			var field *chart.FieldError
			require.ErrorAs(t, err, &field)
			return
		}
		p, ok := r.First(c), true
		for n := 0; ok && n < 50; n++ {
			require.NoError(t, p.Chart.Check())
			require.LessOrEqual(t, p.From+p.Bars, p.Chart.Timeline().Bars())
			p, ok = r.Next(c, p.Place, n%3 == 2)
		}
	})
}
