package planner_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/phrase"
	"undaris/core/pitch"
	"undaris/core/solo/planner"
	"undaris/core/solo/solotest"
)

// Three choruses planned as one rise: the later are busier and higher, the highest note comes
// once, in the last, which ends on the tonic; and the first begins as the last does.
func TestSeveralChorusesArePlannedAsOne(t *testing.T) {
	busier, higher, tonics, alike, takenUp, of := 0, 0, 0, 0, 0, 0
	for _, scheme := range []string{"quick change", "slow change", "minor twelve-bar"} {
		for seed := range uint64(8) {
			o := solotest.Request(t, scheme, "A", "E", seed)
			all, err := planner.PlanWhole(context.Background(), o, 3, nil)
			require.NoError(t, err)
			require.Len(t, all, 3)
			tops, means, notes := []pitch.MIDI{}, []float64{}, []int{}
			for _, p := range all {
				line := p.Best[0].Line
				require.NoError(t, line.Check(o.Instrument))
				top, sum := pitch.MIDI(0), 0.0
				for _, e := range line.Events {
					top, sum = max(top, e.Sounding(o.Instrument)), sum+float64(e.Sounding(o.Instrument))
				}
				tops, means, notes = append(tops, top), append(means, sum/float64(len(line.Events))), append(notes, len(line.Events))
			}
			assert.Less(t, max(tops[0], tops[1]), tops[2], "%s, seed %d: one climax over all", scheme, seed)
			of++
			if notes[2] > notes[0] {
				busier++
			}
			if means[2] > means[0] {
				higher++
			}
			line := all[2].Best[0].Line
			if last := line.Events[len(line.Events)-1]; last.Sounding(o.Instrument).Class() == o.Chart.Key.Tonic.Class() {
				tonics++
			}
			if sameRhythm(all[0].Best[0].Line.Events, line.Events, 3) {
				alike++
			}
			if before := all[0].Best[0].Line.Events; beginsWithTheEndOf(before, all[1].Best[0].Line.Events, o.Chart.Meter.BarTicks()) {
				takenUp++
			}
		}
	}
	t.Logf("of %d: %d busier, %d higher, %d end on the tonic, %d begin alike, %d take up the end of the first", of, busier, higher, tonics, alike, takenUp)
	assert.GreaterOrEqual(t, 10*busier, 9*of)
	assert.GreaterOrEqual(t, 10*higher, 8*of)
	assert.GreaterOrEqual(t, 10*tonics, 9*of)
	assert.GreaterOrEqual(t, 4*takenUp, of)
	assert.LessOrEqual(t, 4*takenUp, 3*of)
	assert.GreaterOrEqual(t, 10*alike, 6*of, "unless the first phrase is of another length")
}

// sameRhythm says whether two lines begin with so many notes at the same times.
func sameRhythm(a, b []phrase.Event, notes int) bool {
	for n := range notes {
		if a[n].Tick != b[n].Tick {
			return false
		}
	}
	return true
}

// beginsWithTheEndOf says whether a line begins with three notes that lie in their bars as three
// notes of the last five bars of another do, one after the other.
func beginsWithTheEndOf(before, line []phrase.Event, bar int) bool {
	for n := range len(before) - 2 {
		if before[n].Tick < 7*bar {
			continue
		}
		by := before[n].Tick - line[0].Tick
		if by%bar == 0 && before[n+1].Tick-line[1].Tick == by && before[n+2].Tick-line[2].Tick == by {
			return true
		}
	}
	return false
}
