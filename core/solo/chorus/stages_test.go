package chorus_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/solotest"
)

// Each stage is the same chorus with more notes between: those of one stage are all in the
// next, at their times and places.
func TestAChorusGrowsWithoutLosingItsThread(t *testing.T) {
	for seed := range uint64(12) {
		o := solotest.Request(t, chart.Schemes[seed%7].Name, "C", "E", seed)
		c := solotest.Planned(t, o).Best[0].Chorus
		before := []phrase.Event{}
		for _, stage := range chorus.Stages {
			grown, err := o.Grown(c, stage)
			require.NoError(t, err)
			p := grown.Phrase(o.Chart)
			require.NoError(t, p.Check(o.Instrument))
			for _, e := range before {
				assert.True(t, slices.ContainsFunc(p.Events, func(other phrase.Event) bool { return other.Tick == e.Tick && other.Place == e.Place }), "%s keeps every note", stage)
			}
			labels := p.Labels(o.Instrument, o.Chart.Key)
			for n := range p.Events {
				if stage == chorus.ChordToneStage {
					assert.Equal(t, harmony.ChordTone, labels[n].Class)
				}
			}
			assert.GreaterOrEqual(t, len(p.Events), len(before))
			before = p.Events
		}
		assert.Equal(t, c.Phrase(o.Chart).Events, before, "the last stage is the chorus")
	}
	o := solotest.Request(t, "quick change", "C", "E", 3)
	c := solotest.Planned(t, o).Best[0].Chorus
	thin, err := o.Grown(c, chorus.ChordToneStage)
	require.NoError(t, err)
	for n, e := range thin.Phrase(o.Chart).Events {
		at, err := o.NoteInWhole(c, chorus.ChordToneStage, n)
		require.NoError(t, err)
		assert.Equal(t, e.Place, c.Phrase(o.Chart).Events[at].Place, "a note of a stage is one of the chorus")
	}
	_, err = o.NoteInWhole(c, chorus.ChordToneStage, 400)
	assert.ErrorContains(t, err, "there is no note 401")
	at, err := o.NoteInWhole(c, chorus.ChordToneStage, -1)
	require.NoError(t, err)
	assert.Equal(t, -1, at)
	_, err = chorus.ParseStage("half")
	assert.ErrorContains(t, err, "is not a stage")
}

// Which notes each stage has, by hand, over C7 in C: chord tones that land, lie on a strong beat or last a beat; then every
// tone of the chord and its scale; then the box; then all.
func TestWhichNotesAStageHas(t *testing.T) {
	o := solotest.Request(t, "quick change", "C", "E", 1)
	note := func(tick, ticks, str, fret int) phrase.Event {
		return phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: str, Fret: fret}}}
	}
	c := chorus.Chorus{Blocks: []chorus.Block{{Kind: chorus.FreeBlock, Name: "by hand", Start: 0, Ticks: 1920, Notes: []phrase.Event{
		note(0, 240, 3, 9),     // E on beat 1: strong
		note(240, 239, 2, 8),   // G off the beat, short
		note(480, 240, 2, 8),   // G on beat 2, half a beat: weak and short
		note(720, 240, 2, 10),  // A: of the scale
		note(960, 240, 1, 8),   // C on beat 3: strong
		note(1200, 120, 1, 11), // Eb: of the box alone
		note(1320, 120, 1, 9),  // Db: neither
		note(1440, 480, 2, 8),  // G on beat 4, a beat long
	}}}}
	ticks := func(stage chorus.Stage) []int {
		grown, err := o.Grown(c, stage)
		require.NoError(t, err)
		all := []int{}
		for _, e := range grown.Blocks[0].Notes {
			all = append(all, e.Tick)
		}
		return all
	}
	assert.Equal(t, []int{0, 960, 1440}, ticks(chorus.ChordToneStage))
	assert.Equal(t, []int{0, 240, 480, 720, 960, 1440}, ticks(chorus.ScaleStage))
	assert.Equal(t, []int{0, 240, 480, 720, 960, 1200, 1440}, ticks(chorus.BoxStage))
	assert.Len(t, ticks(chorus.FullStage), 8)
}
