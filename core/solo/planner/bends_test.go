package planner_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/lick"
	"undaris/core/phrase"
	"undaris/core/solo/solotest"
)

// Where nothing is to be bent, nothing is, whatever the licks have.
func TestNoBendsWhereNoneAreWanted(t *testing.T) {
	bent := solotest.Lick(t)
	bent.Phrase.Events = append([]phrase.Event{}, bent.Phrase.Events...)
	bent.Phrase.Events[1].Bend = 2
	for seed := range uint64(20) {
		o := solotest.Request(t, "quick change", "A", "E", seed)
		o.NoBends, o.FromLicks, o.Licks = true, seed%2 == 0, []lick.Lick{bent, solotest.Lick(t)}
		for _, p := range solotest.Planned(t, o).Best {
			for _, e := range p.Line.Events {
				assert.Zero(t, e.Bend, "seed %d, tick %d", seed, e.Tick)
			}
		}
	}
}
