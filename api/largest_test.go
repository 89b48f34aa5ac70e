package api

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/demo"
	"undaris/format/document"
)

// largestChart is as long as a chart may be: its most bars, each with a chord on every beat, no two alike that follow.
func largestChart(t testing.TB) document.Chart {
	t.Helper()
	roots, signs := []string{"C", "F", "G", "Bb", "Eb", "Ab", "Db", "Gb", "B", "E", "A", "D"}, []string{"7", "m7", "maj7", "m7b5", "dim7", "13", "9", "7alt", "6", "m6", "sus4"}
	d := document.Chart{Title: "the largest", Key: document.Key{Tonic: "C", Mode: "dominant"}, Meter: "4/4", Tempo: 120, Feel: "straight", Swing: 1}
	for n := range chart.MaxBars {
		bar := document.Bar{}
		for beat := range 4 {
			at := 4*n + beat
			bar.Chords = append(bar.Chords, document.Span{Chord: roots[at%len(roots)] + signs[at%len(signs)], Beats: 1})
		}
		d.Bars = append(d.Bars, bar)
	}
	_, err := d.Core()
	require.NoError(t, err)
	return d
}

// largestRequests are requests to every computation over the largest chart, by their paths.
func largestRequests(t testing.TB) map[string]any {
	t.Helper()
	c := largestChart(t)
	lick := document.Lick{Name: "long", Tonic: "C", Phrase: document.Phrase{Meter: "4/4", Chords: []document.PhraseChord{{Tick: 0, Chord: "C7"}}}}
	for n := range 400 {
		lick.Events = append(lick.Events, document.Event{Tick: 120 * n, Ticks: 120, String: 1 + n%3, Fret: 7 + n%4})
	}
	with := func(more map[string]any) map[string]any {
		all := map[string]any{"chart": c}
		for name, value := range more {
			all[name] = value
		}
		return all
	}
	licks := make([]document.Lick, 64)
	for n := range licks {
		licks[n] = lick
		licks[n].Events = licks[n].Events[:12]
	}
	exercises, err := demo.Exercises()
	require.NoError(t, err)
	exercise := exercises[0]
	routine := document.Routine{Name: "r", Segments: []document.Segment{{Choruses: 4, TradeBars: 4, Licks: true}}}
	plan := map[string]any{"seed": 1}
	return map[string]any{
		"/api/compute/chart": with(nil), "/api/compute/chart/map": with(nil), "/api/compute/chart/position": with(map[string]any{"position": "E"}),
		"/api/compute/chord": with(map[string]any{"chord": "C7"}), "/api/compute/change": with(map[string]any{"change": 480}),
		"/api/compute/change/nearby": with(map[string]any{"change": 480, "here": map[string]any{"string": 3, "fret": 8}}),
		"/api/compute/change/path":   with(nil), "/api/compute/change/functions": with(map[string]any{"places": []any{map[string]any{"string": 3, "fret": 8}}}),
		"/api/compute/change/run": with(map[string]any{"arrival": 1920, "notes": 8}), "/api/compute/change/approaches": with(map[string]any{"change": 480, "target": map[string]any{"string": 4, "fret": 10}}),
		"/api/compute/line": with(map[string]any{"lick": lick, "change": 480}), "/api/compute/lick/moves": with(map[string]any{"lick": lick}),
		"/api/compute/lick/variants": with(map[string]any{"lick": lick}), "/api/compute/lick": map[string]any{"lick": lick}, "/api/compute/lick/verdict": with(map[string]any{"lick": lick}),
		"/api/compute/band/performance": with(map[string]any{"from": 1, "bars": 512, "countIn": 0}), "/api/compute/band/pass": with(map[string]any{"routine": routine, "licks": licks}),
		"/api/compute/band/routines": with(nil), "/api/compute/band/midi": with(map[string]any{"routine": routine}),
		"/api/compute/exercise": with(map[string]any{"exercise": exercise}), "/api/compute/solo": with(map[string]any{"plan": plan, "licks": licks}),
		"/api/compute/solo/whole": with(map[string]any{"plan": plan, "licks": licks, "choruses": 3}), "/api/compute/solo/etude": with(map[string]any{"parts": []any{map[string]any{"lick": lick}, map[string]any{"lick": licks[0]}}, "choruses": 8, "count": 6}),
		"/api/compute/practice/timed": with(map[string]any{"degree": 3, "notes": "chord tones"}), "/api/compute/practice/lesson": map[string]any{"lick": lick},
		"/api/compute/take/verdict": largestTake(c),
	}
}

func largestTake(c document.Chart) document.Take {
	take := document.Take{Name: "long", Chart: c, Source: "file"}
	for n := range 4000 {
		take.Notes = append(take.Notes, document.TakeNote{Onset: 0.25 * float64(n), Length: 0.2, Pitch: float64(60 + n%12), Confidence: 1, Attack: "picked"})
	}
	return take
}

// sortedPaths are the paths of requests in order.
func sortedPaths(requests map[string]any) []string { return slices.Sorted(maps.Keys(requests)) }

// The largest legal request to every computation is answered or refused in words; none meets a fault, and none answers
// more than can be sent.
func TestTheLargestRequests(t *testing.T) {
	c := application(t, nil)
	requests := largestRequests(t)
	refused := []string{}
	for _, path := range sortedPaths(requests) {
		got := c.do("POST", path, requests[path])
		require.Contains(t, []int{200, 422}, got.Code, "%s: %.300s", path, got.Body.String())
		assert.Less(t, got.Body.Len(), 16<<20, path)
		if got.Code == 422 {
			problem := Problem{}
			require.NoError(t, json.Unmarshal(got.Body.Bytes(), &problem))
			assert.Contains(t, problem.Detail, "at most", "%s", path)
			refused = append(refused, path)
		}
	}
	assert.Equal(t, []string{"/api/compute/lick/moves", "/api/compute/solo", "/api/compute/solo/etude", "/api/compute/solo/whole"}, refused)
}

// What is absurd is refused, quickly and in a few words, by every operation that has a body.
func TestAbsurdRequests(t *testing.T) {
	c := application(t, nil)
	manyNames := strings.Builder{}
	for n := range 8000 {
		fmt.Fprintf(&manyNames, `"x%d":0,`, n)
	}
	absurd := []string{
		"{" + manyNames.String() + `"y":0}`, strings.Repeat("[", 200_000), `{"chart":` + strings.Repeat(`{"chart":`, 20_000), "[]", "null", `"text"`, "1e999", "{}",
		`{"chart":{"bars":[` + strings.TrimSuffix(strings.Repeat(`{"chords":[{"chord":"C7","beats":-1}]},`, 15_000), ",") + "]}}",
	}
	for _, path := range append(sortedPaths(largestRequests(t)), "/api/charts", "/api/licks", "/api/recordings", "/api/practice/log", "/api/practice/reviews", "/api/sessions") {
		for n, body := range absurd {
			got := c.do("POST", path, body)
			require.Contains(t, []int{400, 413, 415, 422}, got.Code, "%s %d: %.200s", path, n, got.Body.String())
			require.Less(t, got.Body.Len(), 64<<10, "%s %d", path, n)
		}
	}
}

// BenchmarkLargestRequests says how much processor time the largest legal request to each computation takes.
func BenchmarkLargestRequests(b *testing.B) {
	c := application(b, nil)
	requests := largestRequests(b)
	for _, path := range sortedPaths(requests) {
		b.Run(strings.TrimPrefix(path, "/api/compute/"), func(b *testing.B) {
			for b.Loop() {
				c.do("POST", path, requests[path])
			}
		})
	}
}
