package api

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/format/document"
)

// necks are instruments of every number of strings there may be, among them one whose
// strings do not rise one after the other.
var necks = []document.Instrument{
	{Name: "bass", Tuning: "E1 A1 D2 G2", Frets: 20, ScaleMM: 860},
	{Name: "four high", Tuning: "G4 C4 E4 A4", Frets: 15, ScaleMM: 345},
	{Name: "five low", Tuning: "B0 E1 A1 D2 G2", Frets: 24, ScaleMM: 860},
	{Name: "five open", Tuning: "G2 D3 G3 B3 D4", Frets: 22, ScaleMM: 648},
	{Name: "standard", Tuning: "E2 A2 D3 G3 B3 E4", Frets: 22, ScaleMM: 648},
	{Name: "DADGAD, short", Tuning: "D2 A2 D3 G3 A3 D4", Frets: 12, ScaleMM: 560},
	{Name: "seven", Tuning: "B1 E2 A2 D3 G3 B3 E4", Frets: 24, ScaleMM: 648},
	{Name: "eight", Tuning: "F#1 B1 E2 A2 D3 G3 B3 E4", Frets: 27, ScaleMM: 700},
}

// Every computation answers for every instrument, with a capo and without, or says what
// is in the way: none of them ends in a fault of the server. In short each instrument has a quarter of
// the licks and exercises, and every other one the capo.
func TestEveryComputationOnEveryInstrument(t *testing.T) {
	c := application(t, nil)
	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	charts := []document.Chart{}
	for _, entry := range call[[]ChartEntry](c, "GET", "/api/charts", nil, 200) {
		charts = append(charts, call[KeptChart](c, "GET", "/api/charts/"+itoa(entry.ID), nil, 200).Chart)
	}
	answered := map[string]int{}
	ask := func(what, path string, in any) *httpAnswer {
		response := c.do("POST", path, in)
		assert.Contains(t, []int{http.StatusOK, http.StatusUnprocessableEntity}, response.Code, "%s of %s: %s", path, what, response.Body.String())
		if response.Code == http.StatusOK {
			answered[path]++
		}
		return &httpAnswer{response.Code, response.Body.Bytes()}
	}
	for n, neck := range necks {
		for _, capo := range []int{0, 3} {
			if testing.Short() && (capo > 0) != (n%2 > 0) {
				continue
			}
			chart := charts[n%len(charts)]
			chart.Capo = capo
			on := PlayContext{Chart: chart, Hands: &document.Hands{Instrument: &neck}}
			what := fmt.Sprintf("%s, capo %d", neck.Name, capo)
			ask(what, "/api/compute/chart", EditChart{Chart: chart})
			made := ask(what, "/api/compute/chart/map", MapRequest{PlayContext: on})
			read := call[ReadChart](c, "POST", "/api/compute/chart", EditChart{Chart: chart}, 200)
			change := read.Changes[0]
			positions := []string{""}
			if made.status == http.StatusOK {
				all := decoded[Map](t, made.body).Positions
				positions = append(positions, all[0].ID, all[len(all)/2].ID, all[len(all)-1].ID)
			}
			for _, at := range positions {
				ask(what, "/api/compute/chord", ChordRequest{PlayContext: on, Chord: change.Leaving.Chord, Next: change.Arriving.Chord, Position: at})
				ask(what, "/api/compute/change", ChangeRequest{PlayContext: on, Change: change.Tick, Position: at})
				ask(what, "/api/compute/change/nearby", NearbyTargetsRequest{PlayContext: on, Change: change.Tick, Position: at, Here: Place{String: 1, Fret: 5}})
				for s := 1; s <= 4; s++ {
					ask(what, "/api/compute/change/approaches", ApproachesRequest{PlayContext: on, Change: change.Tick, Position: at, Target: Place{String: s, Fret: 3 + s}})
				}
				ask(what, "/api/compute/change/path", PathRequest{PlayContext: on, Position: at})
				ask(what, "/api/compute/band/pass", PassRequest{PlayContext: on, Position: at, Routine: everySort})
				ask(what, "/api/compute/change/functions", FunctionsRequest{PlayContext: on, Position: at})
				ask(what, "/api/compute/change/run", RunRequest{PlayContext: on, Position: at, Arrival: change.Tick, Notes: 8, From: &Place{String: 4, Fret: 3}, To: &Place{String: 1, Fret: 5}})
				for k, ready := range exerciseChoices().ReadyMade {
					if testing.Short() && (k+n)%4 != 0 {
						continue
					}
					ask(what, "/api/compute/exercise", ExerciseRequest{PlayContext: on, Position: at, Exercise: ready})
				}
			}
			for k, l := range licks {
				if testing.Short() && (k+n)%4 != 0 {
					continue
				}
				one := MovesRequest{PlayContext: on, Lick: l.Lick}
				ask(what, "/api/compute/line", LineRequest{PlayContext: on, Lick: l.Lick, LineChoice: LineChoice{Change: change.Tick}})
				ask(what, "/api/compute/band/performance", PerformanceRequest{PlayContext: on, From: 1, Bars: 2, Line: &PlayedLine{Phrase: l.Lick.Phrase}})
				for _, asWritten := range []bool{false, true} {
					one.AsWritten = asWritten
					ask(what, "/api/compute/lick/moves", one)
					ask(what, "/api/compute/lick/verdict", VerdictRequest{MovesRequest: one})
					ask(what, "/api/compute/lick/variants", one)
					ask(what, "/api/compute/lick/join", JoinRequest{MovesRequest: one, With: licks[3].Lick, Notes: 2})
				}
			}
			ask(what, "/api/licks/find", FindLicks{PlayContext: on})
			for _, fromLicks := range []bool{false, true} {
				plan := SoloRequest{PlayContext: on, Plan: document.ChorusPlan{FromLicks: fromLicks, Seed: uint64(n)}}
				if fromLicks {
					for _, l := range licks {
						plan.Licks = append(plan.Licks, l.Lick)
					}
				}
				planned := ask(what, "/api/compute/solo", plan)
				if planned.status != http.StatusOK {
					continue
				}
				current := document.Chorus{Plan: plan.Plan, Blocks: decoded[PlannedSolo](t, planned.body).Best[0].Blocks}
				ask(what, "/api/compute/solo/chorus", ChorusRequest{PlayContext: on, Chorus: current})
				ask(what, "/api/compute/solo/line", ChorusesRequest{PlayContext: on, Choruses: []document.Chorus{current}})
			}
		}
	}
	for path, count := range answered {
		assert.Positive(t, count, "%s answers", path)
	}
	for _, neck := range []document.Instrument{necks[0], necks[7]} {
		tuned := licks[0].Lick
		tuned.Tuning = neck.Tuning
		for n := range tuned.Events {
			tuned.Events[n].String = 1 + n%4
		}
		ask(neck.Name, "/api/compute/lick", LickRequest{Lick: tuned})
	}
}

type httpAnswer struct {
	status int
	body   []byte
}

// Every sheet is drawn for every instrument, or what is in the way is said.
func TestEverySheetOnEveryInstrument(t *testing.T) {
	c := application(t, nil)
	tune := call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)[0]
	version := 0
	for n, neck := range necks {
		saved := call[KeptPlayer](c, "PUT", "/api/player", SavePlayer{Version: version, Player: Player{Hands: document.Hands{Instrument: &neck}, LeftHanded: n%2 == 1, LowOnTop: n%3 == 1}}, 200)
		version = saved.Version
		for _, sheet := range []string{"practice", "blank", "map?chord=C7", "practice?as=svg", "blank?as=svg", "map?chord=C7&as=svg"} {
			response := c.do("GET", "/api/charts/"+itoa(tune.ID)+"/sheets/"+sheet, nil)
			assert.Equal(t, http.StatusOK, response.Code, "%s for %s: %s", sheet, neck.Name, response.Body.String())
			assert.Greater(t, response.Body.Len(), 2000, "%s for %s", sheet, neck.Name)
		}
	}
}

// everySort is a routine that asks for all that depends on the neck: another key, a degree to aim
// at, and licks to trade.
var everySort = document.Routine{Name: "every sort", Segments: []document.Segment{{Choruses: 1, Key: "Eb", Aim: 3, TradeBars: 2, Licks: true}}}
