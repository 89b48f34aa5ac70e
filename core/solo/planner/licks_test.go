package planner_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/core/solo/solotest"
)

// Whatever licks there are, with pickups and long tails, the blocks of a plan do not overlap
// and can be kept.
func TestPlansFromAnyLicksCanBeKept(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		o := solotest.Request(t, rapid.SampledFrom([]string{"quick change", "jazz blues", "minor twelve-bar", "one-chord vamp"}).Draw(rt, "scheme"), "C", "E", rapid.Uint64().Draw(rt, "seed"))
		o.FromLicks = true
		for n := range rapid.IntRange(1, 4).Draw(rt, "licks") {
			l := solotest.Lick(t)
			l.Name = string(rune('a' + n))
			l.Phrase.Events = append([]phrase.Event{}, l.Phrase.Events...)
			shift := rapid.IntRange(-4, 3).Draw(rt, "shift") * chart.TicksPerQuarter / 2
			stretch := rapid.SampledFrom([]int{1, 2, 3}).Draw(rt, "stretch")
			for k := range l.Phrase.Events {
				l.Phrase.Events[k].Tick = stretch*l.Phrase.Events[k].Tick + shift
				l.Phrase.Events[k].Ticks *= stretch
			}
			o.Licks = append(o.Licks, l)
		}
		for _, best := range solotest.Planned(t, o).Best {
			require.NoError(rt, best.Check(o.Chart.Timeline()))
			require.NoError(rt, best.Line.Check(o.Instrument))
		}
	})
}
