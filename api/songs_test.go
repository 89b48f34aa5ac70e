package api

import (
	"flag"
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/chart/charttest"
	"undaris/format/document"
)

var songs = flag.Int("songs", 6, "how many drawn songs the heaviest computations are asked about")

// The heaviest computations answer for songs of any keys, meters, signs and scales, or say what is in the
// way: none of them ends in a fault of the server.
func TestHeavyComputationsOverDrawnSongs(t *testing.T) {
	c := application(t, nil)
	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	drawn := rapid.Custom(func(t *rapid.T) chart.Chart { return charttest.Song(t, 16) })
	answered, refused := map[string]int{}, map[string]int{}
	for n := range *songs {
		song := document.ChartOf(drawn.Example(n))
		ask := func(path string, in any) (*httpAnswer, bool) {
			response := c.do("POST", path, in)
			assert.Contains(t, []int{http.StatusOK, http.StatusUnprocessableEntity}, response.Code, "%s over song %d: %s", path, n, response.Body.String())
			if response.Code != http.StatusOK {
				refused[path]++
				return nil, false
			}
			answered[path]++
			return &httpAnswer{response.Code, response.Body.Bytes()}, true
		}
		on := PlayContext{Chart: song}
		read, ok := ask("/api/compute/chart", EditChart{Chart: song})
		if !ok {
			continue
		}
		for _, bar := range decoded[ReadChart](t, read.body).Played {
			at := bar.Tick
			there := PlayContext{Chart: song, At: &at}
			ask("/api/compute/chart/map", MapRequest{PlayContext: there})
			if bar.Number > 3 {
				break
			}
		}
		ask("/api/compute/change/path", PathRequest{PlayContext: on})
		ask("/api/compute/band/pass", PassRequest{PlayContext: on, Routine: everySort})
		ready := exerciseChoices().ReadyMade
		ask("/api/compute/exercise", ExerciseRequest{PlayContext: on, Exercise: ready[n%len(ready)]})
		changes := decoded[ReadChart](t, read.body).Changes
		for m, one := range changes {
			l := licks[(n+m)%len(licks)].Lick
			ask("/api/compute/line", LineRequest{PlayContext: on, Lick: l, LineChoice: LineChoice{Change: one.Tick}})
			if m == 3 {
				break
			}
		}
		ask("/api/compute/lick/verdict", VerdictRequest{MovesRequest: MovesRequest{PlayContext: on, Lick: licks[n%len(licks)].Lick}})
		ask("/api/compute/lick/variants", MovesRequest{PlayContext: on, Lick: licks[n%len(licks)].Lick})
		plan := SoloRequest{PlayContext: on, Plan: document.ChorusPlan{Seed: uint64(n), FromLicks: n%2 == 1}}
		if plan.Plan.FromLicks {
			for _, l := range licks {
				plan.Licks = append(plan.Licks, l.Lick)
			}
			plan.Hands = &document.Hands{Instrument: &necks[n%len(necks)]}
		}
		if planned, ok := ask("/api/compute/solo", plan); ok {
			current := document.Chorus{Plan: plan.Plan, Blocks: decoded[PlannedSolo](t, planned.body).Best[0].Blocks}
			ask("/api/compute/solo/chorus", ChorusRequest{PlayContext: plan.PlayContext, Chorus: current})
		}
	}
	for path, count := range answered {
		assert.Positive(t, count, "%s answers", path)
	}
	t.Log(fmt.Sprint("answered ", answered, ", refused ", refused))
}
