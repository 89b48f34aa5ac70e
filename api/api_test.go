package api

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"sort"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/demo"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
)

type client struct {
	t    testing.TB
	http http.Handler
	host string
}

// application is the whole handler over a new data file with the demo set.
func application(t testing.TB, with func(*Config)) client {
	t.Helper()
	file := filepath.Join(t.TempDir(), "test.db")
	require.NoError(t, os.WriteFile(file, demoData(t), 0o600))
	data, err := store.Open(file)
	require.NoError(t, err)
	t.Cleanup(func() { _ = data.Close() })
	c := Config{
		Store: data, Sounds: store.SoundsBeside(file), Version: "test", Demo: true, Loopback: true, Log: slog.New(slog.NewTextHandler(io.Discard, nil)),
		Web: fstest.MapFS{"index.html": {Data: []byte("<title>page</title>")}, "assets/a-1.js": {Data: []byte("1")}},
	}
	if with != nil {
		with(&c)
	}
	return client{t: t, http: New(c), host: "127.0.0.1:8380"}
}

// demoData is a data file with the licks and the tunes of the demo set, written once.
func demoData(t testing.TB) []byte {
	t.Helper()
	body, err := writtenOnce()
	require.NoError(t, err)
	return body
}

var writtenOnce = sync.OnceValues(func() ([]byte, error) {
	folder, err := os.MkdirTemp("", "undaris-api")
	if err != nil {
		return nil, err
	}
	defer func() { _ = os.RemoveAll(folder) }()
	file := filepath.Join(folder, "demo.db")
	data, err := store.Open(file)
	if err != nil {
		return nil, err
	}
	l := documents.New(data, slog.New(slog.DiscardHandler))
	licks, err := demo.Licks()
	if err != nil {
		return nil, err
	}
	for _, chosen := range licks {
		if _, err := documents.Licks.Create(context.Background(), l, chosen, 0); err != nil {
			return nil, err
		}
	}
	tunes, err := demo.Charts()
	if err != nil {
		return nil, err
	}
	for _, tune := range tunes {
		if _, err := documents.Charts.Create(context.Background(), l, tune, 0); err != nil {
			return nil, err
		}
	}
	// Closed, all of it is in the one file.
	if err := data.Close(); err != nil {
		return nil, err
	}
	return os.ReadFile(file)
})

func (c client) do(method, path string, in any, header ...string) *httptest.ResponseRecorder {
	var body io.Reader
	if text, ok := in.(string); ok {
		body = strings.NewReader(text)
	} else if in != nil {
		content, err := json.Marshal(in)
		require.NoError(c.t, err)
		body = bytes.NewReader(content)
	}
	request := httptest.NewRequest(method, path, body)
	request.Host = c.host
	request.Header.Set("Content-Type", "application/json")
	for n := 0; n+1 < len(header); n += 2 {
		request.Header.Set(header[n], header[n+1])
	}
	response := httptest.NewRecorder()
	c.http.ServeHTTP(response, request)
	return response
}

func call[T any](c client, method, path string, in any, status int) T {
	c.t.Helper()
	response := c.do(method, path, in)
	require.Equal(c.t, status, response.Code, response.Body.String())
	var out T
	if response.Body.Len() > 0 {
		require.NoError(c.t, json.Unmarshal(response.Body.Bytes(), &out))
	}
	return out
}

func ferry(c client) KeptChart {
	list := call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)
	return call[KeptChart](c, "GET", "/api/charts/"+itoa(list[0].ID), nil, 200)
}

func itoa(n uint) string { return string(mustJSON(n)) }

func TestTheChartSaysItsNumeralsAndChanges(t *testing.T) {
	chart := ferry(application(t, nil))
	assert.Equal(t, "Tin Roof Ferry", chart.Chart.Title)
	assert.Equal(t, "quick change", chart.Scheme)
	assert.Equal(t, "C minor pentatonic", chart.BoxName)
	require.Len(t, chart.ChordSpans, 12)
	assert.Equal(t, "IV", chart.ChordSpans[1].Roman)
	assert.Equal(t, 4*1920, *chart.ChordSpans[2].Next, "bar 3 is left at the change from 4 to 5")
	require.Len(t, chart.Changes, 9)
	assert.True(t, chart.Changes[8].Wraps)
}

func TestEditsOfAChart(t *testing.T) {
	c := application(t, nil)
	edit := EditChart{Chart: ferry(c).Chart, Tonic: "Db", Scheme: "slow change", Feel: "slow 12/8"}
	read := call[ReadChart](c, "POST", "/api/compute/chart", edit, 200)
	assert.Equal(t, "slow change", read.Scheme)
	assert.Equal(t, "Gb7", read.ChordSpans[4].Chord)
	assert.Equal(t, "12/8", read.Chart.Meter)
	assert.Equal(t, 2880, read.BarTicks)
	made := call[ReadChart](c, "POST", "/api/compute/chart/scheme", NewChart{Title: "New", Tonic: "F#", Scheme: "slow change", Tempo: 90, Feel: "straight"}, 200)
	assert.Equal(t, "B7", made.ChordSpans[4].Chord)
}

func TestTheMapHoldsEveryPosition(t *testing.T) {
	c := application(t, nil)
	m := call[Map](c, "POST", "/api/compute/chart/map", MapRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}}, 200)
	require.Len(t, m.Positions, 9)
	assert.Equal(t, []string{"E", "B", "G", "D", "A", "E"}, m.Instrument.Strings)
	assert.Equal(t, "E-7", m.DefaultPosition)
	first := m.Positions[3]
	assert.Equal(t, "E-7", first.ID)
	assert.Equal(t, "A", first.Shapes[1].Form)
	assert.Equal(t, PlacedTone{
		Tone: Tone{Degree: "b7", Note: "Bb"}, InKey: "b7", Place: Place{String: 2, Fret: 11}, MIDI: 70, Finger: 4, Reach: true, Class: "chordTone",
		Alternatives: []Place{{String: 1, Fret: 6}}, Spoken: "B flat, flat 7 of C 7, string 2, fret 11, finger 4",
	}, first.Shapes[0].Tones[7])
	assert.Equal(t, "over C7 your box lacks E, the 3: one fret above its Eb", m.Chords[0].Box.Text)
	assert.Empty(t, first.Shapes[1].Caution)
	assert.Contains(t, m.Positions[1].Shapes[0].Caution, "warm up first")
}

func TestTheChangeFromFourToFive(t *testing.T) {
	c := application(t, nil)
	view := call[ChangeView](c, "POST", "/api/compute/change", ChangeRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Change: 7680}, 200)
	assert.Equal(t, "E-7", view.Position.ID)
	assert.Equal(t, "Bb, the b7 of C7, down a fret to A, the 3 of F7", view.Moves[0].Text)
	assert.Equal(t, []Tone{{Degree: "3", Note: "A"}}, view.DefiningTones)
	assert.Equal(t, "Play A, the 3 of F7: neither C7 nor your box has it, so it alone says F7.", view.Headline)
}

// lineRequest is a good request for a line, which the tests spoil.
func lineRequest(c client) LineRequest {
	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	return LineRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Lick: licks[0].Lick, LineChoice: LineChoice{
		Position: "E-7", Change: 7680, Target: &Place{String: 2, Fret: 10}, Approach: "enclosure", Subdivision: "eighth",
	}}
}

func TestALineLandsOnItsTarget(t *testing.T) {
	c := application(t, nil)
	line := call[Line](c, "POST", "/api/compute/line", lineRequest(c), 200)
	last := line.Events[len(line.Events)-1]
	assert.Equal(t, 7680, line.Arrival)
	assert.Equal(t, line.Arrival, line.Start+last.Tick)
	assert.Equal(t, []string{"A", "3", "chordTone", "target", "F7"}, []string{last.Note, last.Degree, last.Class, last.Role, last.Chord})
	assert.Equal(t, "A, 3 of F 7, string 2, fret 10, finger 3, with vibrato", last.Spoken)
}

func TestThePerformance(t *testing.T) {
	c := application(t, nil)
	line := call[Line](c, "POST", "/api/compute/line", lineRequest(c), 200)
	request := PerformanceRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, From: 4, Bars: 2, CountIn: 1, Line: &PlayedLine{Start: line.Start}}
	request.Line.Meter = line.Meter
	for _, e := range line.Events {
		request.Line.Events = append(request.Line.Events, e.Event)
	}
	p := call[Performance](c, "POST", "/api/compute/band/performance", request, 200)
	assert.Equal(t, BeatMark{Tick: 1920, Bar: 4, Beat: 1, At: 5760}, p.Beats[4])
	assert.Equal(t, BeatMark{Tick: 3840 + 480, Bar: 5, Beat: 2, At: 8160}, p.Beats[9])
	assert.Equal(t, ChordMark{Tick: 3840, Ticks: 1920, Chord: "F7", Roman: "IV", At: 7680}, p.Chords[1])
	played := []Note{}
	for _, note := range p.Notes {
		if note.Part == "line" {
			played = append(played, note)
		}
	}
	require.Len(t, played, len(line.Events))
	assert.Equal(t, 1920+320, played[1].Tick, "the shuffle delays the off-beat")
	assert.Equal(t, 3840, played[len(played)-1].Tick, "the target sounds on the downbeat")
}

func TestBadInputNamesTheFieldAndWhatIsAllowed(t *testing.T) {
	c := application(t, nil)
	spoil := func(f func(*LineRequest)) LineRequest {
		request := lineRequest(c)
		f(&request)
		return request
	}
	chart := ferry(c).Chart
	for _, bad := range []struct {
		path     string
		in       any
		location string
		says     string
	}{
		{"line", spoil(func(r *LineRequest) { r.Chart.Key.Tonic = "H" }), "body.chart.key.tonic", "a tonic from C to B"},
		{"line", spoil(func(r *LineRequest) { r.Chart.Key.Mode = "odd" }), "body.chart.key.mode", "dominant, major or minor"},
		{"line", spoil(func(r *LineRequest) { r.Chart.Bars[3].Chords[0].Chord = "C7x" }), "body.chart.bars[3].chords[0].chord", "bar 4: \"C7x\" is not a chord Undaris can read (stopped at character 3); nearest: C7"},
		{"line", spoil(func(r *LineRequest) { r.Chart.Tempo = 999 }), "body.chart.tempo", "20 to 400"},
		{"line", spoil(func(r *LineRequest) { r.Position = "Q-7" }), "body.position", "C-0, A-3, G-5, E-7, D-10"},
		{"line", spoil(func(r *LineRequest) { r.Change = 1 }), "body.change", "7680 (bar 4 to 5)"},
		{"line", spoil(func(r *LineRequest) { r.Strategy = "old" }), "body.strategy", "thirds first"},
		{"line", spoil(func(r *LineRequest) { r.Approach = "jump" }), "body.approach", "half step below"},
		{"line", spoil(func(r *LineRequest) { r.Subdivision = "64th" }), "body.subdivision", "quarter, eighth, triplet, sixteenth"},
		{"line", spoil(func(r *LineRequest) { r.Target = &Place{String: 5, Fret: 7} }), "body.target", "is not a placed tone of F7"},
		{"line", spoil(func(r *LineRequest) { r.Lick.Events[0].Fret = 99 }), "body.lick.events[0].fret", "its frets are 0 to 27"},
		{"line", spoil(func(r *LineRequest) { r.Lick.Events[0].Bend = 0.3 }), "body.lick.events[0].bend", "quarter tone"},
		{"line", spoil(func(r *LineRequest) { r.Lick.Tonic = "x" }), "body.lick.tonic", "a letter A to G"},
		{"chart", EditChart{Chart: chart, Scheme: "polka"}, "body.scheme", "quick change, slow change"},
		{"chart", EditChart{Chart: chart, Tonic: "Cbb"}, "body.tonic", "a tonic from C to B"},
		{"chart", EditChart{Chart: chart, Feel: "bossa"}, "body.feel", "straight, shuffle, slow 12/8"},
		{"chart/scheme", NewChart{Title: strings.Repeat("x", 121), Tonic: "C", Scheme: "slow change", Tempo: 90, Feel: "straight"}, "body.title", "1 to 120 characters"},
		{"band/performance", PerformanceRequest{PlayContext: PlayContext{Chart: chart}, From: 13, Bars: 1}, "body.from", "its bars are 1 to 12"},
		{"chart/map", map[string]any{"chart": map[string]any{"title": "x"}}, "body.chart", "required property"},
	} {
		p := call[Problem](c, "POST", "/api/compute/"+bad.path, bad.in, 422)
		require.NotEmpty(t, p.Errors, bad.location)
		assert.Equal(t, bad.location, p.Errors[0].Field)
		assert.Contains(t, p.Errors[0].Message, bad.says)
	}
}

func TestATargetOutOfReachOffersTheNearest(t *testing.T) {
	c := application(t, nil)
	request := lineRequest(c)
	request.Approach, request.Subdivision, request.Target = "half step below", "quarter", &Place{String: 6, Fret: 8}
	p := call[Problem](c, "POST", "/api/compute/line", request, 422)
	assert.Contains(t, p.Detail, "cannot be reached in time")
	nearest := p.Errors[0].NearestTargets
	require.NotEmpty(t, nearest)
	request.Target = &Place{String: nearest[0].String, Fret: nearest[0].Fret}
	call[Line](c, "POST", "/api/compute/line", request, 200)
}

func TestAChartIsKeptReplacedDeletedAndRestored(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c).Chart
	chart.Title, chart.Bars[0].Chords[0].Chord = "  Mine ", "Cdom7"
	kept := call[KeptChart](c, "POST", "/api/charts", chart, 201)
	assert.Equal(t, "Mine", kept.Chart.Title)
	assert.Equal(t, "C7", kept.Chart.Bars[0].Chords[0].Chord, "one canonical symbol is stored")
	path := "/api/charts/" + itoa(kept.ID)
	chart.Tempo = 99
	replaced := call[KeptChart](c, "PUT", path, map[string]any{"version": 1, "chart": chart}, 200)
	assert.Equal(t, 2, replaced.Version)
	chart.Tempo = 98
	stale := call[Problem](c, "PUT", path, map[string]any{"version": 1, "chart": chart}, 412)
	assert.Contains(t, stale.Detail, "nothing was overwritten")
	chart.Tempo = 1
	call[Problem](c, "PUT", path, map[string]any{"version": 2, "chart": chart}, 422)
	assert.Equal(t, 99, call[KeptChart](c, "GET", path, nil, 200).Chart.Tempo, "nothing is half saved")
	call[Problem](c, "DELETE", path+"?version=1", nil, 412)
	call[any](c, "DELETE", path+"?version=2", nil, 204)
	missing := call[Problem](c, "GET", path, nil, 404)
	assert.Contains(t, missing.Detail, "there is no chart with the id")
	assert.Equal(t, 99, call[KeptChart](c, "POST", path+"/restore", nil, 200).Chart.Tempo)
}

func TestALineIsKeptAsItWas(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c)
	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	ask := KeepLine{ChartID: chart.ID, LickID: licks[0].ID, LineChoice: lineRequest(c).LineChoice}
	kept := call[KeptLine](c, "POST", "/api/lines", ask, 201)
	assert.Equal(t, "Ferry call into A", kept.Name)
	transposed := call[ReadChart](c, "POST", "/api/compute/chart", EditChart{Chart: chart.Chart, Tonic: "D"}, 200)
	call[KeptChart](c, "PUT", "/api/charts/"+itoa(chart.ID), map[string]any{"version": 1, "chart": transposed.Chart}, 200)
	again := call[KeptLine](c, "GET", "/api/lines/"+itoa(kept.ID), nil, 200)
	assert.Equal(t, "D", again.Chart.Chart.Key.Tonic, "a line goes with its tune")
	assert.Equal(t, "C", again.KeptIn)
	assert.Empty(t, again.Moved)
	for n, e := range again.Line.Events {
		before := kept.Line.Events[n]
		assert.Equal(t, []any{before.Fret + 2, before.String, before.Degree, before.Role}, []any{e.Fret, e.String, e.Degree, e.Role})
	}
	assert.Equal(t, "B", again.Line.Target.Note)
	call[KeptChart](c, "PUT", "/api/charts/"+itoa(chart.ID), map[string]any{"version": 2, "chart": chart.Chart}, 200)
	home := call[KeptLine](c, "GET", "/api/lines/"+itoa(kept.ID), nil, 200)
	assert.Equal(t, kept.Line, home.Line, "and lies there again when the tune comes back")
	assert.Empty(t, home.KeptIn)
	list := call[[]LineEntry](c, "GET", "/api/lines?chart="+itoa(chart.ID), nil, 200)
	require.Len(t, list, 1)
	assert.Equal(t, "C7 to F7, bar 4 to 5", list[0].Change)
	call[any](c, "DELETE", "/api/lines/"+itoa(kept.ID)+"?version=1", nil, 204)
	assert.Empty(t, call[[]LineEntry](c, "GET", "/api/lines", nil, 200))
	call[KeptLine](c, "POST", "/api/lines/"+itoa(kept.ID)+"/restore", nil, 200)
}

func TestNothingIsHalfKept(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c)
	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	good := KeepLine{ChartID: chart.ID, LickID: licks[0].ID, LineChoice: lineRequest(c).LineChoice}
	for location, spoil := range map[string]func(*KeepLine){
		"body.lickId":   func(k *KeepLine) { k.LickID = 999 },
		"body.chartId":  func(k *KeepLine) { k.ChartID = 999 },
		"body.name":     func(k *KeepLine) { k.Name = strings.Repeat("x", 61) },
		"body.target":   func(k *KeepLine) { k.Target = &Place{String: 1, Fret: 1} },
		"body.approach": func(k *KeepLine) { k.Approach = "jump" },
	} {
		ask := good
		spoil(&ask)
		p := call[Problem](c, "POST", "/api/lines", ask, 422)
		assert.Equal(t, location, p.Errors[0].Field)
	}
	assert.Contains(t, call[Problem](c, "POST", "/api/lines", KeepLine{ChartID: chart.ID, LickID: 999}, 422).Detail, "1 (Ferry call)")
	assert.Empty(t, call[[]LineEntry](c, "GET", "/api/lines", nil, 200))
	bad := licks[0].Lick
	bad.Events = append([]document.Event{}, bad.Events...)
	bad.Events[1].String = 9
	call[Problem](c, "POST", "/api/licks", bad, 422)
	assert.Len(t, call[[]KeptLick](c, "GET", "/api/licks", nil, 200), 64)
	mine := licks[0].Lick
	mine.Name = "Mine"
	added := call[KeptLick](c, "POST", "/api/licks", mine, 201)
	assert.Equal(t, "Mine", call[KeptLick](c, "GET", "/api/licks/"+itoa(added.ID), nil, 200).Lick.Name)
}

func TestStrangersAreKeptOut(t *testing.T) {
	c := application(t, nil)
	assert.Equal(t, 200, c.do("GET", "/api/about", nil, "Origin", "http://127.0.0.1:8380").Code)
	assert.Equal(t, 403, c.do("GET", "/api/about", nil, "Origin", "http://example.com").Code)
	assert.Equal(t, 403, c.do("GET", "/api/about", nil, "Origin", "null").Code)
	// A request of another site's page without an Origin: a picture, a form, a link.
	for _, from := range []string{"cross-site", "same-site"} {
		assert.Equal(t, 403, c.do("GET", "/api/about", nil, "Sec-Fetch-Site", from, "Sec-Fetch-Mode", "no-cors", "Sec-Fetch-Dest", "image").Code)
		assert.Equal(t, 403, c.do("POST", "/api/backups", nil, "Sec-Fetch-Site", from).Code)
		assert.Equal(t, 403, c.do("GET", "/api/bundle", nil, "Sec-Fetch-Site", from, "Sec-Fetch-Mode", "navigate", "Sec-Fetch-Dest", "document").Code)
		assert.Equal(t, 403, c.do("GET", "/", nil, "Sec-Fetch-Site", from, "Sec-Fetch-Mode", "navigate", "Sec-Fetch-Dest", "iframe").Code)
		assert.Equal(t, 200, c.do("GET", "/", nil, "Sec-Fetch-Site", from, "Sec-Fetch-Mode", "navigate", "Sec-Fetch-Dest", "document").Code, "a link leads here")
	}
	assert.Equal(t, 200, c.do("GET", "/api/about", nil, "Sec-Fetch-Site", "same-origin").Code)
	for host, want := range map[string]int{"localhost:1": 200, "[::1]:8380": 200, "127.0.0.1": 200, "example.com": 403, "127.0.0.1.example.com": 403, "192.168.0.2:8380": 403} {
		c.host = host
		assert.Equal(t, want, c.do("GET", "/api/about", nil).Code, host)
	}
}

func TestPagesAndHeaders(t *testing.T) {
	c := application(t, nil)
	for path, want := range map[string]int{"/": 200, "/tunes/7/map": 200, "/assets/a-1.js": 200, "/api/nothing": 404, "/openapi.json": 200} {
		response := c.do("GET", path, nil)
		assert.Equal(t, want, response.Code, path)
		assert.Contains(t, response.Header().Get("Content-Security-Policy"), "script-src 'self';")
	}
	assert.Contains(t, c.do("GET", "/tunes/7/map", nil).Body.String(), "<title>page</title>")
	assert.Contains(t, c.do("GET", "/assets/a-1.js", nil).Header().Get("Cache-Control"), "immutable")
	assert.Equal(t, "no-cache", c.do("GET", "/tunes/7", nil).Header().Get("Cache-Control"))
	assert.Equal(t, 405, c.do("POST", "/tunes/7", nil).Code)
}

func TestLargeAndBrokenBodies(t *testing.T) {
	c := application(t, nil)
	large := c.do("POST", "/api/charts", `{"title":"`+strings.Repeat("x", 2<<20)+`"}`)
	assert.Contains(t, []int{413, 400, 422}, large.Code)
	broken := c.do("POST", "/api/charts", `{"title":`)
	assert.Equal(t, 400, broken.Code)
	assert.Equal(t, "application/problem+json", broken.Header().Get("Content-Type"))
}

func TestChoices(t *testing.T) {
	choices := call[Choices](application(t, nil), "GET", "/api/choices", nil, 200)
	assert.Len(t, choices.Tonics["dominant"], 14)
	assert.Contains(t, choices.Tonics["minor"], "G#")
	assert.Equal(t, SchemeChoice{"quick change", "dominant"}, choices.Schemes[0])
	assert.Len(t, choices.Schemes, 9)
	assert.Len(t, choices.Formats, 5)
	assert.Equal(t, []string{"quarter", "eighth", "triplet", "sixteenth", "quintuplet", "sextuplet", "thirty-second"}, choices.Subdivisions["4/4"])
	for meter, subdivisions := range choices.Subdivisions {
		assert.Contains(t, subdivisions, choices.Subdivision, meter)
	}
}

// Each compute call over HTTP on loopback, with the time that 99 in 100 keep to.
func BenchmarkComputeOverHTTP(b *testing.B) {
	c := application(b, nil)
	server := httptest.NewServer(c.http)
	defer server.Close()
	for name, in := range map[string]any{
		"map": MapRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}}, "change": ChangeRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Change: 7680}, "line": lineRequest(c),
		"performance": PerformanceRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, From: 1, Bars: 12, CountIn: 1},
		"chart":       EditChart{Chart: ferry(c).Chart, Write: &WriteEdit{Bar: 4, Text: "C7 VI7"}},
		"landings":    NearbyTargetsRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Change: 7680, Here: Place{String: 3, Fret: 8}},
		"approaches":  ApproachesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Change: 7680, Target: Place{String: 3, Fret: 10}},
		"path":        PathRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}},
		"functions":   FunctionsRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}},
		"moves":       MovesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Lick: lineRequest(c).Lick},
		"lick":        LickRequest{Lick: lineRequest(c).Lick, Edit: &LickEdit{Kind: "put", From: 1920, String: 4, Fret: 10, Ticks: 480}},
		"verdict":     VerdictRequest{MovesRequest: MovesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Lick: lineRequest(c).Lick}},
		"elsewhere":   MovesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Lick: lineRequest(c).Lick},
		"find":        FindLicks{PlayContext: PlayContext{Chart: ferry(c).Chart}, Near: &Place{String: 2, Fret: 10}},
		"run":         RunRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Arrival: 7680, Notes: 8, From: &Place{String: 4, Fret: 10}, To: &Place{String: 2, Fret: 10}},
		"chord":       ChordRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Chord: "C7", Next: "F7", Position: "E-7"},
	} {
		content, path := mustJSON(in), "/api/compute/"+name
		if name == "find" {
			path = "/api/licks/find"
		}
		b.Run(name, func(b *testing.B) {
			took := []float64{}
			for b.Loop() {
				start := time.Now()
				response, err := http.Post(server.URL+path, "application/json", bytes.NewReader(content))
				if err != nil {
					b.Fatal(err)
				}
				if _, err := io.Copy(io.Discard, response.Body); err != nil || response.StatusCode != 200 {
					b.Fatal(err, response.StatusCode)
				}
				_ = response.Body.Close()
				took = append(took, float64(time.Since(start).Microseconds()))
			}
			sort.Float64s(took)
			b.ReportMetric(took[len(took)*99/100], "p99-µs")
		})
	}
}

func decoded[T any](t testing.TB, body []byte) T {
	t.Helper()
	var out T
	require.NoError(t, json.Unmarshal(body, &out))
	return out
}

// What goes out is packed where the browser takes it, and is the same for all that.
func TestAnswersArePacked(t *testing.T) {
	c := application(t, nil)
	ask := func(method, path, encoding string) *httptest.ResponseRecorder {
		request := httptest.NewRequest(method, "http://127.0.0.1"+path, nil)
		request.Header.Set("Accept-Encoding", encoding)
		answer := httptest.NewRecorder()
		c.http.ServeHTTP(answer, request)
		return answer
	}
	plain, packed := ask("GET", "/api/licks", ""), ask("GET", "/api/licks", "gzip")
	assert.Empty(t, plain.Header().Get("Content-Encoding"))
	assert.Equal(t, "gzip", packed.Header().Get("Content-Encoding"))
	assert.Less(t, packed.Body.Len(), plain.Body.Len()/3)
	unpacked, err := gzip.NewReader(packed.Body)
	require.NoError(t, err)
	text, err := io.ReadAll(unpacked)
	require.NoError(t, err)
	assert.Equal(t, plain.Body.String(), string(text))
	refused := ask("GET", "/api/charts/999", "gzip")
	assert.Equal(t, 404, refused.Code)
	chosen := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)[0]
	gone := ask("DELETE", "/api/licks/"+itoa(chosen.ID)+"?version=1", "gzip")
	assert.Equal(t, 204, gone.Code)
	assert.Zero(t, gone.Body.Len(), "nothing is nothing, packed or not")
}

func mustJSON(value any) []byte {
	text, err := json.Marshal(value)
	if err != nil {
		panic(err)
	}
	return text
}
