package api

import (
	"net/http"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

func firstLick(c client) KeptLick { return call[[]KeptLick](c, "GET", "/api/licks", nil, 200)[0] }

func TestALickIsWritten(t *testing.T) {
	c := application(t, nil)
	blank := document.Lick{Name: "New", Tonic: "C", Phrase: document.Phrase{Meter: "4/4", Events: []document.Event{}, Chords: []document.PhraseChord{{Chord: "C7"}}}}
	written := call[WrittenLick](c, "POST", "/api/compute/lick", LickRequest{Lick: blank}, 200)
	assert.Empty(t, written.Tab.Events)
	assert.Equal(t, 1, written.Tab.Bars)
	put := LickEdit{Kind: "put", From: 0, String: 3, Fret: 8, Ticks: 240}
	written = call[WrittenLick](c, "POST", "/api/compute/lick", LickRequest{Lick: written.Lick, Edit: &put, Tempo: 60, Feel: "shuffle"}, 200)
	require.Len(t, written.Tab.Events, 1)
	assert.Equal(t, []string{"b3", "blue", "C7"}, []string{written.Tab.Events[0].Degree, written.Tab.Events[0].Class, written.Tab.Events[0].Chord})
	assert.Equal(t, 60, written.Chart.Tempo)
	assert.Equal(t, "shuffle", written.Chart.Feel)
	assert.Equal(t, []string{"E", "B", "G", "D", "A", "E"}, written.Neck.Strings)
	require.Len(t, written.Staff, 1)
	assert.Equal(t, StaffItem{Ticks: 240, Kind: "eighth", Notes: []StaffNote{{Note: "Eb", Octave: 4}}, Graces: []StaffNote{}}, written.Staff[0].Voices[0][0])
	for location, edit := range map[string]LickEdit{
		"body.edit.fret":      {Kind: "put", String: 9, Fret: 3, Ticks: 240},
		"body.edit.from":      {Kind: "transpose", From: 5000, To: 5001, By: 1},
		"body.edit.chord":     {Kind: "setChord", Chord: "H7"},
		"body.edit.technique": {Kind: "setTechnique", To: 1, Technique: "whistle"},
		"body.edit":           {Kind: "put", From: 64 * 1920, String: 3, Fret: 8, Ticks: 240},
	} {
		bad := call[Problem](c, "POST", "/api/compute/lick", LickRequest{Lick: written.Lick, Edit: &edit}, 422)
		assert.Equal(t, location, bad.Errors[0].Field, "%+v", edit)
	}
	bad := call[Problem](c, "POST", "/api/compute/lick", LickRequest{Lick: document.Lick{Name: "x", Tonic: "C", Phrase: document.Phrase{Meter: "7/4", Events: []document.Event{}}}}, 422)
	assert.Equal(t, "body.lick.meter", bad.Errors[0].Field)
	assert.Equal(t, 422, c.do("POST", "/api/licks", blank).Code, "a lick without a note is not kept")
}

func TestALickIsReplacedAndItsVersionsKept(t *testing.T) {
	c := application(t, nil)
	kept := firstLick(c)
	changed := kept.Lick
	changed.Name, changed.Tags = "Ferry call, louder", []string{"loud"}
	type save struct {
		Version    int           `json:"version"`
		Lick       document.Lick `json:"lick"`
		KeepBefore bool          `json:"keepBefore"`
	}
	path := "/api/licks/1"
	got := call[KeptLick](c, "PUT", path, save{kept.Version, changed, true}, 200)
	assert.Equal(t, 2, got.Version)
	assert.Equal(t, changed, got.Lick)
	stale := call[Problem](c, "PUT", path, save{kept.Version, kept.Lick, true}, 412)
	assert.Contains(t, stale.Detail, "this lick was saved elsewhere in the meantime")
	changed.Events = changed.Events[:0]
	assert.Equal(t, 422, c.do("PUT", path, save{2, changed, true}).Code, "never half a lick")
	versions := call[[]Revision](c, "GET", path+"/revisions", nil, 200)
	require.Len(t, versions, 2)
	assert.Equal(t, []string{"Ferry call, louder", "Ferry call"}, []string{versions[0].Name, versions[1].Name})
	assert.True(t, versions[0].Current)
	back := call[KeptLick](c, "POST", path+"/revisions/1/restore", map[string]int{"version": 2}, 200)
	assert.Equal(t, kept.Lick, back.Lick)
	assert.Equal(t, 3, back.Version)
	assert.Equal(t, 404, c.do("GET", "/api/licks/999/revisions", nil).Code)
	assert.Equal(t, 404, c.do("POST", path+"/revisions/99/restore", map[string]int{"version": 3}).Code)
	assert.Equal(t, 404, c.do("PUT", "/api/licks/999", save{1, kept.Lick, true}).Code)
}

func TestLicksLeaveAndComeBack(t *testing.T) {
	c := application(t, nil)
	chosen := firstLick(c).Lick
	for name, want := range map[string]struct{ kind, begins string }{
		"tab": {"text/plain; charset=utf-8", "title: Ferry call"}, "musicxml": {"application/vnd.recordare.musicxml+xml", "<?xml"},
		"midi": {"audio/midi", "MThd"}, "json": {"application/json", "{"},
	} {
		response := c.do("GET", "/api/licks/1/export/"+name, nil)
		require.Equal(t, http.StatusOK, response.Code)
		assert.Equal(t, want.kind, response.Header().Get("Content-Type"))
		assert.True(t, strings.HasPrefix(response.Body.String(), want.begins), name)
		assert.Contains(t, response.Header().Get("Content-Disposition"), "Ferry call")
		in := c.do("POST", "/api/compute/lick/import?name=ferry&tonic=C&fret=7", response.Body.String(), "Content-Type", "application/octet-stream")
		require.Equal(t, http.StatusOK, in.Code, in.Body.String())
		for _, e := range chosen.Events {
			assert.Contains(t, in.Body.String(), `"string":`+string(rune('0'+e.String)))
		}
	}
	assert.Equal(t, 404, c.do("GET", "/api/licks/1/export/wav", nil).Code)
	for path, want := range map[string]string{
		"/api/compute/lick/import?tonic=H":   "H",
		"/api/compute/lick/import?meter=9/7": "9/7",
	} {
		bad := c.do("POST", path, "E|-3-|", "Content-Type", "application/octet-stream")
		assert.Equal(t, 422, bad.Code)
		assert.Contains(t, bad.Body.String(), want)
	}
	seven := c.do("POST", "/api/compute/lick/import", strings.Repeat("-1-3-5-\n", 7), "Content-Type", "application/octet-stream")
	assert.Equal(t, 422, seven.Code)
	assert.Contains(t, seven.Body.String(), "7 lines of tab stand together here")
	assert.Contains(t, seven.Body.String(), `"line":1`)
}

func TestLicksAreFoundByWhatTheyAre(t *testing.T) {
	c := application(t, nil)
	on := PlayContext{Chart: ferry(c).Chart}
	find := func(f FindLicks) []string {
		f.PlayContext, f.Position = on, "E-7"
		names := []string{}
		for _, found := range call[FoundLicks](c, "POST", "/api/licks/find", f, 200).Found {
			names = append(names, call[KeptLick](c, "GET", "/api/licks/"+strconv.Itoa(int(found.ID)), nil, 200).Lick.Name)
		}
		return names
	}
	assert.Equal(t, []string{"Night bus", "Half past closing"}, find(FindLicks{Text: "pickup"}))
	assert.Equal(t, []string{"Pier lights"}, find(FindLicks{Tag: "octaves"}))
	assert.Equal(t, []string{"Undertow", "Skipping stones"}, find(FindLicks{Leans: "9", Tag: "arpeggio"}))
	assert.Equal(t, []string{"Mooring post", "Slack tide stops"}, find(FindLicks{Lands: "3", Technique: "double stop"}))
	assert.Empty(t, find(FindLicks{Lands: "3", Technique: "release"}))
	all := call[FoundLicks](c, "POST", "/api/licks/find", FindLicks{PlayContext: on}, 200)
	assert.Equal(t, 64, all.Of)
	assert.Len(t, all.Found, 64)
	assert.Equal(t, []string{"C7", "F7", "G7"}, all.Facets.Chords)
	assert.Equal(t, []int{1, 2, 3}, all.Facets.Bars)
	near := call[FoundLicks](c, "POST", "/api/licks/find", FindLicks{PlayContext: on, Position: "E-7", Near: &Place{String: 2, Fret: 10}}, 200)
	require.NotEmpty(t, near.Found)
	assert.Contains(t, near.Found[0].Text, "ends ")
	bad := call[Problem](c, "POST", "/api/licks/find", FindLicks{PlayContext: on, Near: &Place{String: 8, Fret: 1}}, 422)
	assert.Equal(t, "body.near", bad.Errors[0].Field)
	assert.Equal(t, "body.fits", call[Problem](c, "POST", "/api/licks/find", FindLicks{PlayContext: on, Fits: "H7"}, 422).Errors[0].Field)
}

func TestALickElsewhereAndJoined(t *testing.T) {
	c := application(t, nil)
	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	request := MovesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Lick: licks[0].Lick, Position: "E-7"}
	places := call[[]LickVariant](c, "POST", "/api/compute/lick/variants", request, 200)
	groups := map[string]int{}
	for _, p := range places {
		groups[p.Group]++
		if p.Refused == "" {
			require.NotNil(t, p.Tab, p.Name)
			require.NotNil(t, p.OwnChart, p.Name)
			assert.Equal(t, 201, c.do("POST", "/api/licks", p.Lick).Code, p.Name)
		}
	}
	assert.Equal(t, map[string]int{"octaves": 3, "keys": 13, "positions": 9}, groups)
	joined := call[JoinedLicks](c, "POST", "/api/compute/lick/join", JoinRequest{MovesRequest: request, With: licks[1].Lick, Notes: 1}, 200)
	assert.Equal(t, "Ferry call, then Slack water", joined.Lick.Name)
	assert.Len(t, joined.Tab.Events, 12, "one note leads over")
	bad := call[Problem](c, "POST", "/api/compute/lick/join", JoinRequest{MovesRequest: request, With: licks[1].Lick, Subdivision: "septuplet"}, 422)
	assert.Equal(t, "body.subdivision", bad.Errors[0].Field)
	parts := call[[]document.Lick](c, "POST", "/api/compute/lick/split", SplitRequest{Lick: licks[22].Lick}, 200)
	require.Len(t, parts, 3)
	assert.Equal(t, "Gangplank, part 3: C7", parts[2].Name)
}

// What is played slower is the same notes at a slower tempo.
func TestHeardAtAnySpeed(t *testing.T) {
	c := application(t, nil)
	request := PerformanceRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, From: 1, Bars: 2}
	full := call[Performance](c, "POST", "/api/compute/band/performance", request, 200)
	request.Speed = 50
	half := call[Performance](c, "POST", "/api/compute/band/performance", request, 200)
	assert.Equal(t, []int{112, 56}, []int{full.Tempo, half.Tempo})
	assert.Equal(t, partsOf(full), partsOf(half))
	request.Speed = 1
	assert.Equal(t, 28, call[Performance](c, "POST", "/api/compute/band/performance", request, 200).Tempo, "a quarter at the slowest")
}
