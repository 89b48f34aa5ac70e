package api

import (
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

func edited(c client, chart document.Chart, edit EditChart) ReadChart {
	c.t.Helper()
	edit.Chart = chart
	return call[ReadChart](c, "POST", "/api/compute/chart", edit, 200)
}

func texts(r ReadChart) string {
	all := []string{}
	for _, bar := range r.Bars {
		all = append(all, bar.Text)
	}
	return strings.Join(all, " | ")
}

// Every edit by way of its field of the request; what the edits do is tested
// where they stand, in the core.
func TestEveryEditOfAChart(t *testing.T) {
	c := application(t, nil)
	chart := edited(c, ferry(c).Chart, EditChart{Write: &WriteEdit{Bar: 1, Text: "C7 | IV7"}}).Chart
	for _, e := range []struct {
		edit EditChart
		want string
	}{
		{EditChart{Write: &WriteEdit{Bar: 3, Text: "Dm7 V7"}}, "C7 | F7 | Dm7 G7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7"},
		{EditChart{Split: &SplitEdit{Bar: 1, Parts: 2}, Lengths: &LengthsEdit{Bar: 1, Beats: []int{3, 1}}}, "C7 . . C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7"},
		{EditChart{Insert: &BarsEdit{Bar: 13, Count: 1}}, "C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7 | N.C."},
		{EditChart{Remove: &BarsEdit{Bar: 5, Count: 8}}, "C7 | F7 | C7 | C7"},
		{EditChart{Copy: &CopyEdit{BarsEdit{Bar: 9, Count: 2}, 1}}, "G7 | F7 | C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7"},
		{EditChart{Turnaround: &TurnaroundEdit{Bar: 11, Name: "I VI7 ii7 V7"}}, "C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 A7 | Dm7 G7"},
		{EditChart{Reread: &document.Key{Tonic: "F", Mode: "dominant"}}, "C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7"},
		{EditChart{Meter: "3/4", Tonic: "Db"}, "Db7 | Gb7 | Db7 | Db7 | Gb7 | Gb7 | Db7 | Db7 | Ab7 | Gb7 | Db7 | Ab7"},
	} {
		assert.Equal(t, e.want, texts(edited(c, chart, e.edit)))
	}
	reread := edited(c, chart, EditChart{Reread: &document.Key{Tonic: "F", Mode: "dominant"}})
	assert.Equal(t, "V", reread.ChordSpans[0].Roman)
	marked := edited(c, chart, EditChart{
		Section: &SectionEdit{Bar: 1, Label: "A"}, Repeat: &RepeatEdit{BarsEdit{Bar: 1, Count: 4}, 2}, Ending: &EndingEdit{BarsEdit{Bar: 4, Count: 1}, 1},
	})
	assert.Equal(t, "A", marked.ChordSpans[0].Section)
	assert.Len(t, marked.ChordSpans, 15)
	assert.Equal(t, 1, marked.ChordSpans[4].Source, "the fifth bar played is the first one again")
	assert.Equal(t, 4, marked.Bars[3].RepeatTo+2)
	imagined := edited(c, chart, EditChart{Write: &WriteEdit{Bar: 12, Text: "_ Db7", Imagined: true}})
	last := imagined.ChordSpans[len(imagined.ChordSpans)-1]
	assert.Equal(t, []string{"Db7", "G7"}, []string{last.Chord, last.Written})
	assert.Equal(t, "_ Db7", imagined.Bars[11].ImaginedText)
}

func TestAnEditThatCannotBeDoneNamesItsField(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c).Chart
	for location, edit := range map[string]EditChart{
		"body.write.text":            {Write: &WriteEdit{Bar: 1, Text: "C7 Hm"}},
		"body.write.bar":             {Write: &WriteEdit{Bar: 99, Text: "C7"}},
		"body.split.parts":           {Split: &SplitEdit{Bar: 1, Parts: 7}},
		"body.lengths.beats":         {Lengths: &LengthsEdit{Bar: 1, Beats: []int{5}}},
		"body.insert.count":          {Insert: &BarsEdit{Bar: 1, Count: 512}},
		"body.remove.count":          {Remove: &BarsEdit{Bar: 1, Count: 12}},
		"body.copy.bar":              {Copy: &CopyEdit{BarsEdit{Bar: 12, Count: 2}, 1}},
		"body.repeat.times":          {Repeat: &RepeatEdit{BarsEdit{Bar: 1, Count: 1}, 10}},
		"body.turnaround.name":       {Turnaround: &TurnaroundEdit{Bar: 11, Name: "none"}},
		"body.turnaround.bar":        {Turnaround: &TurnaroundEdit{Bar: 12, Name: "I–V"}},
		"body.reread.key.tonic":      {Reread: &document.Key{Tonic: "H", Mode: "major"}},
		"body.meter":                 {Meter: "7/8"},
		"body.tonic":                 {Tonic: "H"},
		"body.ending.bars[0].ending": {Ending: &EndingEdit{BarsEdit{Bar: 1, Count: 1}, 2}},
	} {
		edit.Chart = chart
		got := call[Problem](c, "POST", "/api/compute/chart", edit, 422)
		require.Len(t, got.Errors, 1, location)
		assert.Equal(t, location, got.Errors[0].Field)
	}
	got := call[Problem](c, "POST", "/api/compute/chart", EditChart{Chart: chart, Write: &WriteEdit{Bar: 1, Text: "C7 h7"}}, 422)
	fault := got.Errors[0]
	fault.Message = ""
	assert.Equal(t, FieldProblem{Field: "body.write.text", Value: "h7", Column: 4, Nearest: []string{"B7"}}, fault)
}

func TestACapoShowsBothNames(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c).Chart
	chart.Key, chart.Capo = document.Key{Tonic: "C", Mode: "dominant"}, 3
	read := edited(c, chart, EditChart{})
	assert.Equal(t, "A dominant", read.Fretted)
	assert.Equal(t, BarChord{Chord: "F7", Roman: "IV", Fretted: "D7", Beat: 1, Beats: 4}, read.Bars[1].Chords[0])
}

func TestNewChartsFromSchemesAndEmpty(t *testing.T) {
	c := application(t, nil)
	for _, n := range []struct {
		fresh NewChart
		want  string
	}{
		{NewChart{Title: "A", Tonic: "F#", Scheme: "minor twelve-bar", Tempo: 90, Feel: "straight"}, "F# minor 4/4 12"},
		{NewChart{Title: "A", Tonic: "Ab", Mode: "major", Bars: 8, Tempo: 90, Feel: "straight", Meter: "3/4"}, "Ab major 3/4 8"},
		{NewChart{Title: "A", Tonic: "E", Scheme: "jazz blues", Tempo: 60, Feel: "slow 12/8"}, "E dominant 12/8 12"},
		{NewChart{Title: "A", Tonic: "E", Scheme: "quick change", Tempo: 60, Feel: "straight", Meter: "12/8"}, "E dominant 12/8 12"},
	} {
		read := call[ReadChart](c, "POST", "/api/compute/chart/scheme", n.fresh, 200)
		assert.Equal(t, n.want, fmt.Sprintf("%s %s %s %d", read.Chart.Key.Tonic, read.Chart.Key.Mode, read.Chart.Meter, len(read.Bars)))
	}
	for location, fresh := range map[string]NewChart{
		"body.bars":   {Title: "A", Tonic: "C", Mode: "major", Tempo: 90, Feel: "straight", Bars: 513},
		"body.tonic":  {Title: "A", Tonic: "C", Mode: "phrygian", Tempo: 90, Feel: "straight", Bars: 4},
		"body.scheme": {Title: "A", Tonic: "C", Scheme: "polka", Tempo: 90, Feel: "straight"},
		"body.tempo":  {Title: "A", Tonic: "C", Scheme: "minor twelve-bar", Tempo: 401, Feel: "straight"},
		"body.meter":  {Title: "A", Tonic: "C", Scheme: "minor twelve-bar", Tempo: 90, Feel: "straight", Meter: "7/8"},
	} {
		got := call[Problem](c, "POST", "/api/compute/chart/scheme", fresh, 422)
		assert.Equal(t, location, got.Errors[0].Field)
	}
}

func TestTurnaroundsInAKey(t *testing.T) {
	c := application(t, nil)
	all := call[[]Turnaround](c, "POST", "/api/compute/chart/turnarounds", TurnaroundsRequest{Key: document.Key{Tonic: "Bb", Mode: "dominant"}, Meter: "4/4"}, 200)
	require.Len(t, all, 11)
	assert.Equal(t, []string{"Dm7 G7", "Cm7 F7"}, all[3].Bars)
	waltz := call[[]Turnaround](c, "POST", "/api/compute/chart/turnarounds", TurnaroundsRequest{Key: document.Key{Tonic: "Bb", Mode: "dominant"}, Meter: "3/4"}, 200)
	assert.Equal(t, "I I/3 IV #IVdim7 I/5 V does not fit: 4 chords; a bar of 3/4 has 3 beats, and a chord lasts at least one", waltz[4].Refused)
	assert.Equal(t, []string{"Bb7 G7", "Cm7 F7"}, waltz[2].Bars)
}

func TestImports(t *testing.T) {
	c := application(t, nil)
	got := call[Imported](c, "POST", "/api/compute/chart/import", "title: A paste\n| C7 | F7 |\nand some words", 200)
	assert.Equal(t, "Bar grid", got.Format)
	assert.Equal(t, "C7 | F7", texts(got.ReadChart))
	assert.Equal(t, []Remark{{Line: 3, Source: "and some words", Text: "not a row of bars; not used"}, {Text: "no key is given; C dominant is taken from the first chord"}}, got.Remarks)
	before := len(call[[]ChartEntry](c, "GET", "/api/charts", nil, 200))
	bad := call[Problem](c, "POST", "/api/compute/chart/import?name=a.cho", "{title: A}\n[Hm]two\n[F7x]three", 422)
	assert.Equal(t, "read as ChordPro: 2 places cannot be read", bad.Detail)
	require.Len(t, bad.Errors, 2)
	assert.Equal(t, []int{2, 2}, []int{bad.Errors[0].Line, bad.Errors[0].Column})
	assert.NotEmpty(t, bad.Errors[1].Message)
	bad.Errors[1].Message = ""
	assert.Equal(t, FieldProblem{Field: "body", Line: 3, Column: 4, Value: "F7x", Nearest: []string{"F7", "F7#5", "F"}}, bad.Errors[1])
	assert.Len(t, call[[]ChartEntry](c, "GET", "/api/charts", nil, 200), before, "an import keeps nothing by itself")
	partly := call[Imported](c, "POST", "/api/compute/chart/import", "title: A paste\nkey: C\n| C7 | Hm | F7 |", 200)
	assert.Equal(t, []Unread{{Line: 3, Column: 8, Symbol: "Hm", Text: `"Hm" is not a chord Undaris can read (stopped at character 1); nearest: Bm`, Nearest: []string{"Bm"}}}, partly.Unread)
	assert.Equal(t, []string{"", "Hm", ""}, []string{partly.Bars[0].Unread, partly.Bars[1].Unread, partly.Bars[2].Unread})
	large := c.do("POST", "/api/compute/chart/import", strings.Repeat("| C7 |\n", 2<<20))
	assert.Equal(t, http.StatusRequestEntityTooLarge, large.Code)
	assert.Equal(t, 422, c.do("POST", "/api/compute/chart/import", strings.Repeat("| C7 |\n", 1<<20)).Code, "7 MiB are looked at")
	assert.Equal(t, 422, c.do("POST", "/api/compute/chart/import", "\xff\xfe").Code)
}

func TestExports(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c).Chart
	chart.Title = `A / "B": C♭?`
	kept := call[KeptChart](c, "POST", "/api/charts", chart, 201)
	for name, begins := range map[string]string{"grid": "title: A /", "chordpro": "{title: A /", "musicxml": "<?xml", "mxl": "PK", "midi": "MThd"} {
		response := c.do("GET", fmt.Sprintf("/api/charts/%d/export/%s", kept.ID, name), nil)
		require.Equal(t, 200, response.Code, response.Body.String())
		assert.True(t, strings.HasPrefix(response.Body.String(), begins), name)
		assert.Contains(t, response.Header().Get("Content-Disposition"), "attachment; filename")
		assert.NotContains(t, response.Header().Get("Content-Type"), "json")
		again := call[Imported](c, "POST", "/api/compute/chart/import", response.Body.String(), 200)
		assert.Equal(t, "quick change", again.Scheme, name)
	}
	assert.Equal(t, 404, c.do("GET", fmt.Sprintf("/api/charts/%d/export/pdf", kept.ID), nil).Code)
	assert.Equal(t, 404, c.do("GET", "/api/charts/999/export/grid", nil).Code)
}

func TestSheets(t *testing.T) {
	c := application(t, nil)
	path := fmt.Sprintf("/api/charts/%d/sheets/", ferry(c).ID)
	for query, begins := range map[string]string{
		"practice": "%PDF", "practice?as=svg": "<svg", "map?chord=F7&position=E-7": "%PDF", "map?chord=F7&as=svg&paper=Letter": "<svg", "blank?paper=Letter": "%PDF",
		"map?chord=F7&whole=true&as=svg": "<svg", "map?chord=F7&layout=four+a+string": "%PDF", "map?chord=F7&layout=some+strings&low=1&high=3&as=svg": "<svg",
	} {
		response := c.do("GET", path+query, nil)
		require.Equal(t, 200, response.Code, query)
		assert.True(t, strings.HasPrefix(response.Body.String(), begins), query)
	}
	for _, query := range []string{"map", "map?chord=H7", "map?chord=F7&position=Q", "poster", "practice?paper=B5", "practice?as=gif", "map?chord=F7&layout=spiral"} {
		assert.Equal(t, 422, c.do("GET", path+query, nil).Code, query)
	}
	assert.Equal(t, 404, c.do("GET", "/api/charts/999/sheets/practice", nil).Code)
}

func TestVersionsAreListedAndRestored(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c)
	path := "/api/charts/" + itoa(chart.ID)
	save := func(version int, doc document.Chart) KeptChart {
		return call[KeptChart](c, "PUT", path, map[string]any{"version": version, "chart": doc, "keepBefore": true}, 200)
	}
	doc := chart.Chart
	doc.Tempo = 120
	save(1, doc)
	save(2, edited(c, doc, EditChart{Tonic: "D"}).Chart)
	all := call[[]Revision](c, "GET", path+"/revisions", nil, 200)
	require.Len(t, all, 3)
	assert.Equal(t, "transposed from C to D", all[0].Text)
	assert.True(t, all[0].Current)
	assert.Equal(t, "tempo 112 → 120", all[1].Text)
	assert.Equal(t, "the chart as it was first kept", all[2].Text)

	stale := call[Problem](c, "POST", path+"/revisions/1/restore", map[string]int{"version": 2}, 412)
	assert.Contains(t, stale.Detail, "nothing was overwritten")
	back := call[KeptChart](c, "POST", path+"/revisions/1/restore", map[string]int{"version": 3}, 200)
	assert.Equal(t, 4, back.Version)
	assert.Equal(t, 112, back.Chart.Tempo)
	assert.Equal(t, "C", back.Chart.Key.Tonic)
	assert.Len(t, call[[]Revision](c, "GET", path+"/revisions", nil, 200), 4, "a restored version is one more, and loses none")
	assert.Equal(t, 404, c.do("POST", path+"/revisions/9/restore", `{"version":4}`).Code)
	assert.Equal(t, 404, c.do("GET", "/api/charts/999/revisions", nil).Code)
}

func TestTheLibrary(t *testing.T) {
	c := application(t, nil)
	list := call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)
	require.Len(t, list, 6)
	assert.Equal(t, []string{"house set", "shuffle"}, list[0].Tags)
	assert.Equal(t, 12, list[0].Bars)
	assert.Equal(t, "minor twelve-bar", list[2].Scheme)
	assert.Nil(t, list[0].Practised)
	path := "/api/charts/" + itoa(list[0].ID)
	assert.Equal(t, 204, c.do("POST", path+"/practised", nil).Code)
	assert.Equal(t, 404, c.do("POST", "/api/charts/999/practised", nil).Code)
	list = call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)
	assert.WithinDuration(t, time.Now(), *list[0].Practised, time.Minute)
	assert.Equal(t, 1, list[0].Version, "playing is no new version")

	copied := call[KeptChart](c, "POST", path+"/duplicate", nil, 201)
	assert.Equal(t, "Tin Roof Ferry, copy", copied.Chart.Title)
	assert.Equal(t, 204, c.do("DELETE", fmt.Sprintf("/api/charts/%d?version=1", copied.ID), nil).Code)
	assert.Len(t, call[[]ChartEntry](c, "GET", "/api/charts", nil, 200), 6)
	gone := call[[]ChartEntry](c, "GET", "/api/charts/deleted", nil, 200)
	require.Len(t, gone, 1)
	call[KeptChart](c, "POST", fmt.Sprintf("/api/charts/%d/restore", gone[0].ID), nil, 200)
	assert.Len(t, call[[]ChartEntry](c, "GET", "/api/charts", nil, 200), 7)
	assert.Equal(t, 404, c.do("POST", "/api/charts/999/duplicate", nil).Code)
}

// A line over an imagined chord says what its notes are over the written one.
func TestALineOverAnImaginedChord(t *testing.T) {
	c := application(t, nil)
	chart := edited(c, ferry(c).Chart, EditChart{Write: &WriteEdit{Bar: 4, Text: ". . Gb7 .", Imagined: true}})
	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	var change Change
	for _, ch := range chart.Changes {
		if ch.Arriving.Chord == "Gb7" {
			change = ch
		}
	}
	line := call[Line](c, "POST", "/api/compute/line", LineRequest{PlayContext: PlayContext{Chart: chart.Chart}, Lick: licks[0].Lick, LineChoice: LineChoice{Change: change.Tick, Position: "E"}}, 200)
	landing := line.Events[len(line.Events)-1]
	assert.Equal(t, "Gb7", landing.Chord)
	require.NotNil(t, landing.Written)
	assert.Equal(t, "C7", landing.Written.Chord)
	assert.Contains(t, landing.Why, "The band plays C7 there")
}
