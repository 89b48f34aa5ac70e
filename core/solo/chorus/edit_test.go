package chorus_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/solotest"
)

// edited makes an edit that must succeed.
func edited(t testing.TB, o chorus.Request, c chorus.Chorus, e chorus.Edit) (chorus.Chorus, []string) {
	t.Helper()
	done, remarks, err := solotest.Edit(o, c, e)
	require.NoError(t, err)
	require.NoError(t, done.Check(o.Chart.Timeline()))
	return done, remarks
}

// shortSolo is two notes in bar 1, a rest, and three in bar 2, over the minor vamp.
func shortSolo(t testing.TB) (chorus.Request, chorus.Chorus) {
	t.Helper()
	o := solotest.Request(t, "minor vamp", "C", "E", 1)
	note := func(tick, ticks, s, fret int) phrase.Event {
		return phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: fret}, Finger: 1}}
	}
	c := chorus.Chorus{Blocks: chorus.WithRests([]chorus.Block{
		{Kind: chorus.FreeBlock, Name: "call", Start: 0, Ticks: 960, Notes: []phrase.Event{note(0, 480, 3, 8), note(480, 480, 3, 10)}},
		{Kind: chorus.FreeBlock, Name: "answer", Start: 1920, Ticks: 1440, Notes: []phrase.Event{note(1920, 480, 2, 8), note(2400, 480, 2, 11), note(2880, 480, 1, 8)}},
	}, o.Chart)}
	require.Len(t, c.Blocks, 4, "call, rest, answer, rest")
	return o, c
}

func TestLockingAndMuting(t *testing.T) {
	o, c := shortSolo(t)
	c, _ = edited(t, o, c, chorus.Edit{Kind: chorus.Mute, Blocks: []int{2}})
	assert.Len(t, c.Phrase(o.Chart).Events, 2, "what is muted is not heard")
	c, _ = edited(t, o, c, chorus.Edit{Kind: chorus.Unmute, Blocks: []int{2}})
	assert.Len(t, c.Phrase(o.Chart).Events, 5, "and not lost")
	c, _ = edited(t, o, c, chorus.Edit{Kind: chorus.Lock, Blocks: []int{0}})
	for _, do := range []chorus.EditKind{chorus.Move, chorus.Stretch, chorus.MakeRest, chorus.SwapLick, chorus.WriteNotes} {
		_, _, err := solotest.Edit(o, c, chorus.Edit{Kind: do, Blocks: []int{0}, Ticks: 480})
		assert.ErrorContains(t, err, "\"call\" is locked", do)
	}
	_, _, err := solotest.Edit(o, c, chorus.Edit{Kind: chorus.Reroll, Blocks: []int{0}})
	assert.ErrorContains(t, err, "is locked")
	_, _, err = solotest.Edit(o, c, chorus.Edit{Kind: chorus.Move, Blocks: []int{2}, Ticks: -1440})
	assert.ErrorContains(t, err, "would lie over \"call\", which is locked")
	c, _ = edited(t, o, c, chorus.Edit{Kind: chorus.Unlock, Blocks: []int{0}})
	assert.False(t, c.Blocks[0].Locked)
}

func TestMovingAndStretching(t *testing.T) {
	o, c := shortSolo(t)
	moved, remarks := edited(t, o, c, chorus.Edit{Kind: chorus.Move, Blocks: []int{0}, Ticks: 500})
	assert.Empty(t, remarks)
	assert.Equal(t, 480, moved.Blocks[1].Start, "snapped to the eighth, a rest before it")
	assert.Equal(t, 480, moved.Blocks[1].Notes[0].Tick)
	over, remarks := edited(t, o, c, chorus.Edit{Kind: chorus.Move, Blocks: []int{0}, Ticks: 1440})
	assert.Equal(t, []string{"one note of \"answer\" gave way"}, remarks)
	assert.Len(t, over.Phrase(o.Chart).Events, 4)
	back, _ := edited(t, o, c, chorus.Edit{Kind: chorus.Move, Blocks: []int{0}, Ticks: -100000})
	assert.Equal(t, -chorus.MaxPickupBeats*480, back.Blocks[0].Start, "as far as a pickup goes")

	longer, _ := edited(t, o, c, chorus.Edit{Kind: chorus.Stretch, Blocks: []int{0}, Ticks: 480})
	assert.Equal(t, 960, longer.Blocks[0].Notes[1].Ticks, "the last note rings")
	shorter, _ := edited(t, o, c, chorus.Edit{Kind: chorus.Stretch, Blocks: []int{2}, Ticks: -720})
	require.Len(t, shorter.Blocks[2].Notes, 2)
	assert.Equal(t, 240, shorter.Blocks[2].Notes[1].Ticks, "what lies behind is cut")
	least, _ := edited(t, o, c, chorus.Edit{Kind: chorus.Stretch, Blocks: []int{0}, Ticks: -4800})
	assert.Equal(t, 240, least.Blocks[0].Ticks, "never to nothing")
}

func TestSwappingLayingAndSilence(t *testing.T) {
	o, c := shortSolo(t)
	kept := solotest.Lick(t)
	swapped, _ := edited(t, o, c, chorus.Edit{Kind: chorus.SwapLick, Blocks: []int{0}, Lick: &kept})
	assert.Equal(t, chorus.LickBlock, swapped.Blocks[0].Kind)
	assert.Equal(t, "Jetty steps", swapped.Blocks[0].Name)
	assert.LessOrEqual(t, swapped.Blocks[0].End(), 1920, "up to the next block")
	silent, _ := edited(t, o, c, chorus.Edit{Kind: chorus.MakeRest, Blocks: []int{2}})
	assert.Len(t, silent.Blocks, 2, "rests join")

	laid, _ := edited(t, o, c, chorus.Edit{Kind: chorus.AddBlock, BlockKind: chorus.LickBlock, Tick: 2 * 1920, Lick: &kept})
	assert.Equal(t, "Jetty steps", laid.Blocks[4].Name)
	free, _ := edited(t, o, c, chorus.Edit{Kind: chorus.AddBlock, BlockKind: chorus.FreeBlock, Tick: 2 * 1920})
	assert.Len(t, free.Phrase(o.Chart).Events, 6)
	rest, remarks := edited(t, o, c, chorus.Edit{Kind: chorus.AddBlock, BlockKind: chorus.RestBlock, Tick: 1920, Ticks: 480})
	assert.Equal(t, []string{"one note of \"answer\" gave way"}, remarks)
	assert.Len(t, rest.Phrase(o.Chart).Events, 4)
	run, _ := edited(t, o, c, chorus.Edit{Kind: chorus.AddBlock, BlockKind: chorus.ConnectorBlock, Tick: 3 * 1920})
	assert.Equal(t, chorus.ConnectorBlock, run.Blocks[len(run.Blocks)-2].Kind)

	blues := solotest.Request(t, "quick change", "C", "E", 4)
	rolled := solotest.Planned(t, blues).Best[0].Chorus
	half, err := change.FindApproachKind("half step above")
	require.NoError(t, err)
	led, _ := edited(t, blues, rolled, chorus.Edit{Kind: chorus.AddBlock, BlockKind: chorus.ApproachBlock, Tick: 5 * 1920, Approach: &half})
	explained, err := blues.Explain(led)
	require.NoError(t, err)
	found := false
	for n, why := range explained.Why {
		if strings.HasPrefix(why, "Approach: ") && led.Phrase(blues.Chart).Events[n].Tick >= 5*1920 {
			assert.Regexp(t, "^Approach: .*above.* into", why)
			found = true
			break
		}
	}
	assert.True(t, found, "it leads into a landing after bar 6")
}

func TestWritingNotes(t *testing.T) {
	o, c := shortSolo(t)
	note := phrase.Event{Tick: 960, Ticks: 960, Fingered: neck.Fingered{Place: neck.Place{String: 1, Fret: 8}}}
	written, remarks := edited(t, o, c, chorus.Edit{Kind: chorus.WriteNotes, Blocks: []int{1}, Notes: []phrase.Event{note}})
	assert.Empty(t, remarks)
	assert.Equal(t, chorus.FreeBlock, written.Blocks[1].Kind, "a rest that is written into is free notes")
	gone, _ := edited(t, o, c, chorus.Edit{Kind: chorus.WriteNotes, Blocks: []int{0}})
	assert.Equal(t, chorus.RestBlock, gone.Blocks[0].Kind, "without notes it is a rest")
	off := note
	off.Fret = 30
	before := c
	_, _, err := solotest.Edit(o, c, chorus.Edit{Kind: chorus.WriteNotes, Blocks: []int{1}, Notes: []phrase.Event{off}})
	assert.ErrorContains(t, err, "fret 30 is not on the neck")
	assert.Equal(t, before, c, "nothing has changed")
}

func TestEditsThatCannotBeMeant(t *testing.T) {
	o, c := shortSolo(t)
	cases := map[string]struct {
		e     chorus.Edit
		field string
	}{
		"no such block":   {chorus.Edit{Kind: chorus.Lock, Blocks: []int{9}}, "edit.blocks[0]"},
		"no block chosen": {chorus.Edit{Kind: chorus.Mute}, "edit.blocks"},
		"no such edit":    {chorus.Edit{Kind: "polish"}, "edit.kind"},
		"a rest moved":    {chorus.Edit{Kind: chorus.Move, Blocks: []int{1}, Ticks: 480}, "edit.blocks[0]"},
		"no lick":         {chorus.Edit{Kind: chorus.SwapLick, Blocks: []int{0}}, "edit.lick"},
		"no lick to lay":  {chorus.Edit{Kind: chorus.AddBlock, BlockKind: chorus.LickBlock}, "edit.lick"},
		"no kind":         {chorus.Edit{Kind: chorus.AddBlock, BlockKind: "riff"}, "edit.blockKind"},
		"no note":         {chorus.Edit{Kind: chorus.AlterNote, Note: 0}, "edit.notes"},
		"a far note":      {chorus.Edit{Kind: chorus.AlterNote, Note: 40, Notes: make([]phrase.Event, 1)}, "edit.note"},
		"bars too far":    {chorus.Edit{Kind: chorus.Reroll, Bar: 3, Bars: 2}, "edit.bars"},
	}
	for name, one := range cases {
		_, _, err := solotest.Edit(o, c, one.e)
		fault := &chart.FieldError{}
		require.ErrorAs(t, err, &fault, name)
		assert.Equal(t, one.field, fault.Field, name)
	}
}

// Choruses follow one another: the second begins where the first ends, its pickup in the
// last bar of it.
func TestChorusesJoin(t *testing.T) {
	o := solotest.Request(t, "quick change", "C", "E", 11)
	first, second := solotest.Planned(t, o).Best[0].Chorus, solotest.Planned(t, o).Best[1].Chorus
	line := chorus.JoinLines([]chorus.Chorus{first, second}, o.Chart)
	require.NoError(t, line.Check(o.Instrument))
	assert.GreaterOrEqual(t, len(line.Events), len(first.Phrase(o.Chart).Events)+len(second.Phrase(o.Chart).Events)-1)
	assert.Greater(t, line.Events[len(line.Events)-1].Tick, o.Chart.Ticks())
}
