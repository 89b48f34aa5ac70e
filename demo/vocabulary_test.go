package demo

import (
	"context"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/change"
	"undaris/core/neck"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
)

// Every lick of the library is played in some chorus, and most of each that is played stands
// as it is written.
func TestEveryLickIsPlayedInSomeChorus(t *testing.T) {
	vocabulary := licks(t)
	missing := map[string]int{}
	for _, l := range vocabulary {
		missing[l.Name] = len(l.Phrase.Events)
	}
	for seed := range uint64(12) {
		for _, c := range tunes(t) {
			subdivision, err := c.Meter.Subdivision("")
			require.NoError(t, err)
			for _, position := range neck.Positions(guitar, c.Key.Tonic.Class()) {
				if len(missing) == 0 {
					return
				}
				o := chorus.Request{
					Chart: c, Instrument: guitar, Position: position, SpanMM: neck.ComfortableSpanMM, Strategy: change.ThirdsFirst, Subdivision: subdivision,
					Density: chorus.DefaultDensity, Blend: []float64{chorus.DefaultBlend}, Space: chorus.DefaultSpace, Seed: seed, Licks: vocabulary, FromLicks: true,
				}
				planned, err := planner.Plan(context.Background(), o)
				require.NoError(t, err)
				for _, p := range planned.Best {
					for _, b := range p.Blocks {
						if b.Kind == chorus.LickBlock {
							delete(missing, b.Name)
						}
					}
				}
			}
		}
	}
	assert.Empty(t, slices.Sorted(maps.Keys(missing)))
}
