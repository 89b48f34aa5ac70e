package document

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/listen"
)

func oneBarChart(tonic string, tempo int) Chart {
	return Chart{Title: "t", Key: Key{Tonic: tonic, Mode: "major"}, Meter: "4/4", Tempo: tempo, Feel: "straight", Swing: 2, Bars: []Bar{{Chords: []Span{{Chord: tonic + "7", Beats: 4}}}}}
}

func onsets(d Take) []float64 {
	at := []float64{}
	for _, n := range d.Notes {
		at = append(at, n.Onset)
	}
	return at
}

func TestATakeOfARoutineIsSplitWhereKeyOrTempoChange(t *testing.T) {
	d := Take{Name: strings.Repeat("n", 60), Plan: &Phrase{}, Start: 1}
	for _, at := range []float64{0.9, 2, 4, 4.7, 6, 8, 9} {
		d.Notes = append(d.Notes, TakeNote{Onset: at, Length: 0.2, Pitch: 60, Attack: "picked", Confidence: 1})
	}
	// At 120 a bar of four beats lasts two seconds.
	c := oneBarChart("C", 120)
	f := oneBarChart("F", 120)
	takes, err := d.ByPasses([]PlayedPass{{1, c, 0}, {3.02, c, 0}, {5, f, 0}, {7, f, 0}})
	require.NoError(t, err)
	require.Len(t, takes, 2)
	assert.Equal(t, []float64{0.9, 2, 4}, onsets(takes[0]), "4.7 is a pickup into the chorus in F")
	assert.Equal(t, []float64{4.7, 6, 8, 9}, onsets(takes[1]))
	assert.Equal(t, []string{"C", "F"}, []string{takes[0].Chart.Key.Tonic, takes[1].Chart.Key.Tonic})
	assert.Equal(t, []float64{1, 5}, []float64{takes[0].Start, takes[1].Start})
	assert.NotNil(t, takes[0].Plan)
	assert.Nil(t, takes[1].Plan, "the plan is of the first chorus")
	assert.Len(t, takes[1].Name, 60)
	assert.True(t, strings.HasSuffix(takes[1].Name, ", 2 of 2"))
}

func TestATakeWithoutAChangeStaysWhole(t *testing.T) {
	d := Take{Name: "n", Start: 9}
	c := oneBarChart("C", 120)
	for name, passes := range map[string][]PlayedPass{
		"one pass": {{1, c, 0}}, "two at half the speed": {{1, c, 50}, {5, c, 50}},
	} {
		takes, err := d.ByPasses(passes)
		require.NoError(t, err, name)
		require.Len(t, takes, 1, name)
		assert.Equal(t, 1.0, takes[0].Start, name)
		assert.Equal(t, "n", takes[0].Name, name)
	}
	takes, err := d.ByPasses(nil)
	require.NoError(t, err)
	assert.Equal(t, []Take{d}, takes)
	takes, err = d.ByPasses([]PlayedPass{{1, c, 0}, {9, c, 0}})
	require.NoError(t, err)
	assert.Len(t, takes, 2, "the band was stopped in between")
	_, err = d.ByPasses(make([]PlayedPass, MaxPlayedPasses+1))
	assert.ErrorContains(t, err, "at most 200 passes")
}

// Whatever the ear makes of a sound, the take can be kept.
func TestNotesThatWereHeardCanAlwaysBeKept(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		number := rapid.Float64Range(-1e4, 1e4)
		notes := []listen.Note{}
		for range rapid.IntRange(0, 6).Draw(t, "notes") {
			n := listen.Note{Onset: number.Draw(t, "onset"), Length: number.Draw(t, "length"), Pitch: number.Draw(t, "pitch"), Attack: listen.Picked}
			if rapid.Bool().Draw(t, "bent") {
				n.Bend = &listen.Bend{Cents: number.Draw(t, "cents"), Reached: number.Draw(t, "reached")}
			}
			n.Curve = make([]float32, rapid.IntRange(0, 15000).Draw(t, "curve"))
			notes = append(notes, n)
		}
		d := Take{Name: "n", Source: "microphone", Chart: oneBarChart("C", 120), Notes: TakeNotesOf(notes)}
		if _, err := d.Checked(); err != nil {
			t.Fatal(err)
		}
	})
}
