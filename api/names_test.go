package api

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

// eachText calls look for every text of a JSON value that is not a name.
func eachText(value any, look func(text string)) {
	switch v := value.(type) {
	case string:
		look(v)
	case []any:
		for _, one := range v {
			eachText(one, look)
		}
	case map[string]any:
		for field, one := range v {
			if field != "name" && field != "title" {
				eachText(one, look)
			}
		}
	}
}

// A name that a player gave stands by itself or in quotes, so that the page never takes a
// part of it for a note.
func TestNamesStandInQuotes(t *testing.T) {
	const name = "Bb to b7 in F#"
	c := application(t, nil)
	entry := call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)[0]
	tune := call[KeptChart](c, "GET", "/api/charts/"+itoa(entry.ID), nil, 200).Chart
	on := PlayContext{Chart: tune}
	licks := []document.Lick{}
	for _, kept := range call[[]KeptLick](c, "GET", "/api/licks", nil, 200) {
		kept.Lick.Name = name
		licks = append(licks, kept.Lick)
	}
	read := call[ReadChart](c, "POST", "/api/compute/chart", EditChart{Chart: tune}, 200)
	named := 0
	ask := func(path string, in any) []byte {
		response := c.do("POST", path, in)
		require.Equal(t, 200, response.Code, "%s: %s", path, response.Body.String())
		var value any
		require.NoError(t, json.Unmarshal(response.Body.Bytes(), &value))
		eachText(value, func(text string) {
			if text == name || !strings.Contains(text, name) {
				return
			}
			named++
			assert.Contains(t, text, `"`+name, "%s", path)
		})
		return response.Body.Bytes()
	}
	for _, chosen := range licks[:8] {
		moves := MovesRequest{PlayContext: on, Lick: chosen}
		ask("/api/compute/line", LineRequest{PlayContext: on, Lick: chosen, LineChoice: LineChoice{Change: read.Changes[0].Tick}})
		ask("/api/compute/lick/moves", moves)
		ask("/api/compute/lick/verdict", VerdictRequest{MovesRequest: moves})
		ask("/api/compute/lick/variants", moves)
		ask("/api/compute/lick/join", JoinRequest{MovesRequest: moves, With: chosen, Notes: 2})
		ask("/api/compute/lick", LickRequest{Lick: chosen})
	}
	ask("/api/licks/find", FindLicks{PlayContext: on})
	for seed := range uint64(4) {
		plan := document.ChorusPlan{FromLicks: true, Seed: seed}
		best := decoded[PlannedSolo](t, ask("/api/compute/solo", SoloRequest{PlayContext: on, Plan: plan, Licks: licks})).Best[0]
		current := document.Chorus{Plan: plan, Blocks: best.Blocks}
		for block := range best.Blocks {
			ask("/api/compute/solo/chorus", ChorusRequest{PlayContext: on, Chorus: current, Edit: &ChorusEdit{Kind: "lock", Blocks: []int{block}}})
		}
		moved := tune
		moved.Capo = 5
		solo := document.Solo{Name: name, Choruses: []document.Chorus{current}}
		ask("/api/compute/solo/transposed", TransposeSolo{Solo: solo, From: on, To: PlayContext{Chart: moved}})
	}
	assert.Greater(t, named, 20, "names are said")
}
