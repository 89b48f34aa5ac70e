package evaluation_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen"
	"undaris/core/listen/evaluation"
	"undaris/core/listen/pluck"
	"undaris/format/soundfile"
	"undaris/web"
)

func TestCompareCountsEachNoteOnce(t *testing.T) {
	played := []pluck.Played{{Onset: 1, Pitch: 60}, {Onset: 2, Pitch: 62}, {Onset: 3, Pitch: 64, Curve: []pluck.Point{{Cents: 200}}}}
	heard := []listen.Note{
		{Onset: 1.01, Pitch: 60.1}, {Onset: 1.04, Pitch: 60}, // one of them is invented
		{Onset: 2.06, Pitch: 62}, // too late
		{Onset: 3, Pitch: 64, Bend: &listen.Bend{Cents: 190, Pre: true}},
	}
	s := evaluation.Compare(played, heard)
	assert.Equal(t, []int{3, 4, 2}, []int{s.Played, s.Heard, s.Right})
	assert.InDelta(t, 4.0/7, s.F(), 1e-9)
	assert.Equal(t, []float64{2}, s.MissedNotes)
	assert.Equal(t, []float64{1.04, 2.06}, s.AddedNotes)
	assert.InDelta(t, -10, s.BendErrors[0], 1e-9)
}

// What judges is not what tuned: the recorded notes that ship, of which nothing was adjusted to. A part of the
// table of docs/takes.md is held here, so that it cannot get worse unseen.
func TestTheEarHearsRecordedNotes(t *testing.T) {
	sampler, err := soundfile.GuitarSamples(web.Samples())
	require.NoError(t, err)
	recorded := evaluation.Voice{Name: "recorded", Render: sampler.Render}
	lines := evaluation.Lines()
	of := func(names ...string) []evaluation.Line {
		some := []evaluation.Line{}
		for _, name := range names {
			for _, line := range lines {
				if line.Name == name {
					some = append(some, line)
				}
			}
		}
		require.Len(t, some, len(names))
		return some
	}
	row, err := evaluation.Hear(of("scales", "arpeggios", "staccato", "sextuplets at 90", "hammer-ons and pull-offs", "a blues line"), recorded, evaluation.Clean, 44100, listen.NotesOf)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, row.Score.F(), 0.99)
	assert.Less(t, evaluation.Median(row.Score.OnsetErrors), 0.006)
	disturbances := evaluation.Disturbances()
	for _, d := range disturbances {
		if d.Name != "hiss at −40 dBFS" && (testing.Short() || d.Name != "crunch" && d.Name != "very soft, −36 dBFS") {
			continue
		}
		row, err := evaluation.Hear(of("scales", "12/8 at 60"), recorded, d, 44100, listen.NotesOf)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, row.Score.F(), 0.97, d.Name)
	}
	// Among strings that ring, higher than anything was adjusted on too. A third of the strokes of 12/8 are soft unisons.
	letRing := disturbances[slices.IndexFunc(disturbances, func(d evaluation.Disturbance) bool { return d.Name == "let ring" })]
	ringing := of("arpeggios", "sextuplets at 90", "12/8 at 60", "repeated notes")
	row, err = evaluation.Hear(ringing, recorded, letRing, 44100, listen.NotesOf)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, row.Score.F(), 0.985)
	assert.Empty(t, row.Lines[2].MissedNotes, "12/8")
	if testing.Short() {
		return
	}
	row, err = evaluation.Hear(higher(ringing, 2), recorded, letRing, 44100, listen.NotesOf)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, row.Score.F(), 0.97)
}

// higher are lines so many semitones higher.
func higher(lines []evaluation.Line, semitones float64) []evaluation.Line {
	moved := []evaluation.Line{}
	for _, line := range lines {
		line.Notes = slices.Clone(line.Notes)
		for n := range line.Notes {
			line.Notes[n].Pitch += semitones
		}
		moved = append(moved, line)
	}
	return moved
}
