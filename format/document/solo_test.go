package document

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
	"undaris/format/formattest"
)

func vamp(t testing.TB) chart.Chart {
	t.Helper()
	s, err := chart.FindScheme("slow change")
	require.NoError(t, err)
	key, err := harmony.ParseKey("C", s.In)
	require.NoError(t, err)
	return chart.Chart{Title: "vamp", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 2, Bars: s.Bars(key.Tonic, chart.FourFour)}
}

// Blocks go to the document and back without a loss.
func TestBlocksGoThereAndBack(t *testing.T) {
	c := vamp(t)
	rapid.Check(t, func(rt *rapid.T) {
		order, err := ChorusPlan{Seed: uint64(rapid.Uint32().Draw(rt, "seed"))}.Request(c, neck.Standard(), neck.ComfortableSpanMM, nil, nil)
		require.NoError(rt, err)
		planned, err := planner.Plan(context.Background(), order)
		require.NoError(rt, err)
		blocks := planned.Best[0].Blocks
		for n := range blocks {
			blocks[n].Locked = rapid.Bool().Draw(rt, "locked")
			blocks[n].Muted = rapid.Bool().Draw(rt, "muted")
		}
		read, err := Blocks(BlocksOf(blocks), c, neck.Standard())
		require.NoError(rt, err)
		require.Equal(rt, BlocksOf(blocks), BlocksOf(read))
		require.Equal(rt, chorus.Chorus{Blocks: blocks}.Phrase(c), chorus.Chorus{Blocks: read}.Phrase(c))
	})
}

// What cannot be read is refused with its place.
func TestBlocksThatCannotBeRead(t *testing.T) {
	c := vamp(t)
	for field, blocks := range map[string][]Block{
		"blocks[0]":                  {{Kind: "riff", Ticks: 480}},
		"blocks[1]":                  {{Kind: "rest", Ticks: 960}, {Kind: "rest", Start: 480, Ticks: 960}},
		"blocks[0].name":             {{Kind: "rest", Ticks: 480, Name: string(make([]rune, 61))}},
		"blocks[0].notes[0].fret":    {{Kind: "lick", Ticks: 480, Notes: []Event{{Ticks: 240, String: 1, Fret: 40}}}},
		"blocks[0].notes[1].string":  {{Kind: "lick", Ticks: 480, Notes: []Event{{Ticks: 240, String: 1, Fret: 4}, {Tick: 240, Ticks: 240, String: 7, Fret: 4}}}},
		"blocks[0].notes[0].bend":    {{Kind: "lick", Ticks: 480, Notes: []Event{{Ticks: 240, String: 1, Fret: 4, Bend: 0.3}}}},
		"blocks[0].notes[0].vibrato": {{Kind: "lick", Ticks: 480, Notes: []Event{{Ticks: 240, String: 1, Fret: 0, Vibrato: true}}}},
	} {
		_, err := Blocks(blocks, c, neck.Standard())
		fault := &chart.FieldError{}
		require.ErrorAs(t, err, &fault, field)
		assert.Equal(t, field, fault.Field)
		assert.NotEmpty(t, fault.Detail)
	}
	slurred := []Block{{Kind: "lick", Ticks: 480, Notes: []Event{{Ticks: 240, String: 1, Fret: 4, HammerOn: true}}}}
	read, err := Blocks(slurred, c, neck.Standard())
	require.NoError(t, err, "a slur may come from the block before")
	heard := chorus.Chorus{Blocks: read}.Phrase(c)
	assert.False(t, heard.Events[0].HammerOn, "and is mended where nothing does")
}

func TestAPlanIsRead(t *testing.T) {
	c := vamp(t)
	space, density := 0.4, 2.0
	plan := ChorusPlan{Position: "A", Shifts: []Shift{{Bar: 5, Position: "E"}}, Strategy: "guide tones", Approaches: []string{"enclosure"}, Box: "major pentatonic",
		Subdivision: "triplet", Density: &density, Space: &space, Blend: []float64{0.3}, Form: "a b a", Seed: 9}
	order, err := plan.Request(c, neck.Standard(), 90, nil, nil)
	require.NoError(t, err)
	assert.Equal(t, neck.Form("A"), order.Position.Form)
	assert.Equal(t, 4, order.Shifts[0].Bar)
	assert.Equal(t, neck.Form("E"), order.Shifts[0].Position.Form)
	assert.Equal(t, []any{2.0, 0.4, chorus.Form("A B A"), uint64(9), 90.0, "triplet", "enclosure"},
		[]any{order.Density, order.Space, order.Form, order.Seed, order.SpanMM, order.Subdivision.Name, order.Approaches[0].Name})
	least, err := ChorusPlan{}.Request(c, neck.Standard(), 100, nil, nil)
	require.NoError(t, err)
	assert.Equal(t, []any{float64(chorus.DefaultDensity), chorus.DefaultSpace, chorus.AAB}, []any{least.Density, least.Space, least.Form})
}

// Whatever chart a player has, with repeats, silence, imagined chords, any meter and tuning,
// a chorus over it can be planned or the reason said, goes to the document and back, and
// bears any edit.
func TestAnyChartCanHaveASolo(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		c := formattest.Chart(rt)
		if len(c.PlayedBars()) > 16 {
			return
		}
		i := rapid.SampledFrom(neck.Presets()).Draw(rt, "instrument")
		if rapid.Bool().Draw(rt, "four strings") {
			i.Open = i.Open[:4]
		}
		position := rapid.SampledFrom(neck.Positions(i, c.Key.Tonic.Class())).Draw(rt, "position")
		plan := ChorusPlan{Position: position.ID(), Blend: []float64{rapid.SampledFrom([]float64{0, 0.3, 1}).Draw(rt, "blend")}, Seed: uint64(rapid.Uint32().Draw(rt, "seed"))}
		order, err := plan.Request(c, i, rapid.Float64Range(60, 160).Draw(rt, "span"), nil, nil)
		if err != nil {
			require.ErrorContains(rt, err, "no chord yet")
			return
		}
		planned, err := planner.Plan(context.Background(), order)
		require.NoError(rt, err)
		best := planned.Best[0]
		read, err := Blocks(BlocksOf(best.Blocks), c, i)
		require.NoError(rt, err)
		require.Equal(rt, BlocksOf(best.Blocks), BlocksOf(read))
		edit := chorus.Edit{
			Kind: rapid.SampledFrom(chorus.EditKinds).Draw(rt, "do"), Blocks: []int{rapid.IntRange(0, len(read)-1).Draw(rt, "block")},
			Ticks: rapid.IntRange(-4000, 4000).Draw(rt, "ticks"), Tick: rapid.IntRange(0, c.Ticks()-1).Draw(rt, "tick"), BlockKind: rapid.SampledFrom(chorus.Kinds).Draw(rt, "kind"),
		}
		edited, err := order.Apply(chorus.Chorus{Blocks: read}, edit)
		if err != nil {
			require.ErrorAs(rt, err, new(*chart.FieldError), "what cannot be done says where")
			return
		}
		require.NoError(rt, edited.Check(c.Timeline()))
		if line := edited.Phrase(c); len(line.Events) > 0 {
			require.NoError(rt, line.Check(i))
		}
	})
}

// A plan uses the licks with one of its tags, or all where it names none.
func TestAPlanUsesTheLicksWithItsTags(t *testing.T) {
	all := []lick.Lick{{Name: "a", Tags: []string{"box"}}, {Name: "b"}, {Name: "c", Tags: []string{"slow", "box"}}}
	for _, c := range []struct {
		fromLicks bool
		tags      []string
		want      string
	}{{true, nil, "a b c"}, {true, []string{"box"}, "a c"}, {true, []string{"slow", "loud"}, "c"}, {true, []string{"loud"}, ""}} {
		request, err := ChorusPlan{FromLicks: c.fromLicks, Tags: c.tags}.Request(vamp(t), neck.Standard(), 100, nil, all)
		require.NoError(t, err)
		names := []string{}
		for _, l := range request.Licks {
			names = append(names, l.Name)
		}
		assert.Equal(t, c.want, strings.Join(names, " "))
	}
	assert.Len(t, all, 3, "the list itself is left alone")
}
