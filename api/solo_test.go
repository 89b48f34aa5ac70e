package api

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/neck"
	"undaris/format/document"
	"undaris/format/musicxml"
	"undaris/format/reading"
	"undaris/format/tabtext"
)

func ferryOn(c client) PlayContext { return PlayContext{Chart: ferry(c).Chart} }

// plannedSolo is the best of a plan over Tin Roof Ferry.
func plannedSolo(c client, seed uint64) ChorusView {
	return call[PlannedSolo](c, "POST", "/api/compute/solo", SoloRequest{PlayContext: ferryOn(c), Plan: document.ChorusPlan{Seed: seed}}, 200).Best[0]
}

func TestASoloIsPlannedAndTold(t *testing.T) {
	c := application(t, nil)
	planned := call[PlannedSolo](c, "POST", "/api/compute/solo", SoloRequest{PlayContext: ferryOn(c), Plan: document.ChorusPlan{Seed: 41}}, 200)
	require.Len(t, planned.Best, 3)
	assert.Empty(t, planned.Concessions)
	best := planned.Best[0]
	assert.Equal(t, 9, best.Figures.Changes+best.Figures.SilentChanges, "eight changes within the chorus and the one back to the top")
	assert.Equal(t, best.Figures.Changes, best.Figures.Landings)
	assert.Equal(t, [4]bool{true, true, true, true}, [4]bool{best.Figures.WithinSpan, best.Figures.EnoughStrongBeats, best.Figures.EnoughHeard, best.Figures.EnoughSpace})
	assert.Len(t, best.BlockOf, len(best.Tab.Events))
	assert.Len(t, best.Targets, 9)
	assert.Nil(t, best.Written, "nothing is imagined")
	assert.Equal(t, best, plannedSolo(c, 41), "the same seed, the same solo")
	assert.NotEqual(t, best.Tab, plannedSolo(c, 42).Tab)
	approached := 0
	for _, e := range best.Tab.Events {
		assert.NotEmpty(t, e.Why)
		assert.Equal(t, e.Role == "approach", strings.HasPrefix(e.Why, "Approach: "), e.Why)
		if e.Role == "approach" {
			approached++
			assert.Contains(t, e.Why, " into ")
		}
	}
	assert.Positive(t, approached)
}

func TestAChorusIsEdited(t *testing.T) {
	c := application(t, nil)
	current := document.Chorus{Plan: document.ChorusPlan{Seed: 3}, Blocks: plannedSolo(c, 3).Blocks}
	ask := func(edit *ChorusEdit, stage string) ChorusView {
		with := current
		with.Stage = stage
		return call[ChorusView](c, "POST", "/api/compute/solo/chorus", ChorusRequest{PlayContext: ferryOn(c), Chorus: with, Edit: edit}, 200)
	}
	read := ask(nil, "")
	assert.Equal(t, current.Blocks, read.Blocks)
	thin := ask(nil, "chord tones")
	assert.Less(t, len(thin.Tab.Events), len(read.Tab.Events))
	assert.Equal(t, current.Blocks, thin.Blocks, "the chorus itself stays")
	locked := ask(&ChorusEdit{Kind: "lock", Blocks: []int{0}}, "")
	assert.True(t, locked.Blocks[0].Locked)
	current.Blocks = locked.Blocks
	again := ask(&ChorusEdit{Kind: "reroll", Seed: 99}, "")
	assert.Contains(t, again.Blocks, locked.Blocks[0], "what is locked stays")
	assert.NotEqual(t, read.Tab, again.Tab)
	chosen := firstLick(c).Lick
	free := -1
	for n, b := range current.Blocks {
		if b.Kind == "free notes" && !b.Locked {
			free = n
		}
	}
	swapped := ask(&ChorusEdit{Kind: "swapLick", Blocks: []int{free}, Lick: &chosen}, "")
	names := []string{}
	for _, b := range swapped.Blocks {
		names = append(names, b.Name)
	}
	assert.Contains(t, names, chosen.Name)

	for location, edit := range map[string]ChorusEdit{
		"body.edit.blocks[0]": {Kind: "move", Blocks: []int{0}, Ticks: 480},
		"body.edit.lick":      {Kind: "addBlock", BlockKind: "lick"},
		"body.edit.approach":  {Kind: "addBlock", BlockKind: "approach", Approach: "leap of faith"},
		"body.edit.events[0].string": {Kind: "writeNotes", Blocks: []int{1}, Notes: []document.Event{
			{Ticks: 240, String: 9, Fret: 3},
		}},
	} {
		bad := call[Problem](c, "POST", "/api/compute/solo/chorus", ChorusRequest{PlayContext: ferryOn(c), Chorus: current, Edit: &edit}, 422)
		assert.Equal(t, location, bad.Errors[0].Field)
	}
}

func TestChorusesPlannedAsOne(t *testing.T) {
	c := application(t, nil)
	request := WholeRequest{PlayContext: ferryOn(c), Plan: document.ChorusPlan{Seed: 5}, Choruses: 3}
	whole := call[WholeSolo](c, "POST", "/api/compute/solo/whole", request, 200)
	require.Len(t, whole.Choruses, 3)
	for n, one := range whole.Choruses {
		assert.Equal(t, &document.ChorusPart{Chorus: n + 1, Of: 3}, one.Plan.Part)
		assert.NotEmpty(t, one.Blocks)
	}
	locked := whole.Choruses[1].Blocks[0]
	locked.Locked = true
	request.Kept, request.Plan.Seed = [][]document.Block{{}, {locked}}, 99
	again := call[WholeSolo](c, "POST", "/api/compute/solo/whole", request, 200)
	assert.Contains(t, again.Choruses[1].Blocks, locked, "what is locked stays")
	request.Choruses = 1
	call[Problem](c, "POST", "/api/compute/solo/whole", request, 422)
	bad := call[Problem](c, "POST", "/api/compute/solo", SoloRequest{PlayContext: ferryOn(c), Plan: document.ChorusPlan{Part: &document.ChorusPart{Chorus: 3, Of: 2}}}, 422)
	assert.Equal(t, "body.plan.part", bad.Errors[0].Field)
}

func TestPlansThatCannotBeMeant(t *testing.T) {
	c := application(t, nil)
	dense := 0.0
	for location, request := range map[string]SoloRequest{
		"body.plan.blend[0]":      {Plan: document.ChorusPlan{Blend: []float64{2}}},
		"body.plan.density":       {Plan: document.ChorusPlan{Density: &dense}},
		"body.plan.form":          {Plan: document.ChorusPlan{Form: "ABBA"}},
		"body.plan.strategy":      {Plan: document.ChorusPlan{Strategy: "sixths first"}},
		"body.plan.position":      {Plan: document.ChorusPlan{Position: "Z-3"}},
		"body.plan.approaches[0]": {Plan: document.ChorusPlan{Approaches: []string{"nearby"}}},
		"body.plan.subdivision":   {Plan: document.ChorusPlan{Subdivision: "ninth"}},
		"body.plan.shifts[0]":     {Plan: document.ChorusPlan{Shifts: []document.Shift{{Bar: 40, Position: "E"}}}},
		"body.kept.blocks[0]":     {Kept: []document.Block{{Kind: "rest", Start: 99999, Ticks: 480}}},
		"body.kept.blocks[1]":     {Kept: []document.Block{{Kind: "rest", Ticks: 960}, {Kind: "rest", Start: 480, Ticks: 480}}},
	} {
		request.PlayContext = ferryOn(c)
		bad := call[Problem](c, "POST", "/api/compute/solo", request, 422)
		require.NotEmpty(t, bad.Errors, location)
		assert.Equal(t, location, bad.Errors[0].Field, bad.Detail)
	}
}

// twoChoruses is a solo that can be kept.
func twoChoruses(c client) KeepSolo {
	solo := document.Solo{Name: "Two times round"}
	for _, seed := range []uint64{41, 42} {
		solo.Choruses = append(solo.Choruses, document.Chorus{Plan: document.ChorusPlan{Seed: seed}, Blocks: plannedSolo(c, seed).Blocks})
	}
	return KeepSolo{SoloDocument: document.SoloDocument{Solo: solo, Chart: ferry(c).Chart}, ChartID: ferry(c).ID}
}

func TestASoloIsKeptReplacedAndRestored(t *testing.T) {
	c := application(t, nil)
	keep := twoChoruses(c)
	kept := call[KeptSolo](c, "POST", "/api/solos", keep, 201)
	assert.Equal(t, keep.Solo, kept.Solo)
	entries := call[[]SoloEntry](c, "GET", "/api/solos", nil, 200)
	at := -1
	for n, e := range entries {
		if e.ID == kept.ID {
			at = n
		}
	}
	require.GreaterOrEqual(t, at, 0)
	assert.Equal(t, 2, entries[at].Choruses)
	path := "/api/solos/" + itoa(kept.ID)
	type save struct {
		document.SoloDocument
		Version    int  `json:"version"`
		KeepBefore bool `json:"keepBefore"`
	}
	changed := keep.SoloDocument
	changed.Solo.Name = "Once round"
	changed.Solo.Choruses = changed.Solo.Choruses[:1]
	again := call[KeptSolo](c, "PUT", path, save{changed, 1, true}, 200)
	assert.Equal(t, 2, again.Version)
	call[Problem](c, "PUT", path, save{keep.SoloDocument, 1, true}, 412)
	assert.Equal(t, changed.Solo, call[KeptSolo](c, "GET", path, nil, 200).Solo, "nothing was overwritten")
	versions := call[[]Revision](c, "GET", path+"/revisions", nil, 200)
	require.Len(t, versions, 2)
	assert.True(t, versions[0].Current)
	assert.Equal(t, keep.Solo.Name, versions[1].Name)
	assert.Equal(t, keep.Solo.Name+": 2 choruses, "+fmt.Sprint(soloNotes(keep.Solo))+" notes", versions[1].Text)
	restored := call[KeptSolo](c, "POST", path+"/revisions/1/restore", map[string]int{"version": 2}, 200)
	assert.Equal(t, keep.Solo, restored.Solo)
	copied := call[KeptSolo](c, "POST", path+"/duplicate", nil, 201)
	assert.Equal(t, "Two times round, copy", copied.Solo.Name)
	assert.Equal(t, 204, c.do("DELETE", path+"?version=3", nil).Code)
	call[Problem](c, "GET", path, nil, 404)
	assert.Equal(t, keep.Solo, call[KeptSolo](c, "POST", path+"/restore", nil, 200).Solo)

	bad := keep
	bad.Solo.Choruses = append([]document.Chorus{}, keep.Solo.Choruses...)
	bad.Solo.Choruses[1].Blocks = []document.Block{{Kind: "rest", Ticks: -1}}
	problem1 := call[Problem](c, "POST", "/api/solos", bad, 422)
	assert.Equal(t, "body.choruses[1].blocks[0]", problem1.Errors[0].Field)
	bad = keep
	bad.Solo.Name = " "
	assert.Equal(t, "body.solo.name", call[Problem](c, "POST", "/api/solos", bad, 422).Errors[0].Field)
	bad = keep
	bad.ChartID = 999
	assert.Equal(t, "body.chartId", call[Problem](c, "POST", "/api/solos", bad, 422).Errors[0].Field)
}

// What is taken away can be opened again: the notes of the tab and of the MusicXML are
// those of the solo, the MIDI has a track for each part, the PDF is one.
func TestASoloIsTakenAway(t *testing.T) {
	c := application(t, nil)
	keep := twoChoruses(c)
	kept := call[KeptSolo](c, "POST", "/api/solos", keep, 201)
	joined := call[JoinedChoruses](c, "POST", "/api/compute/solo/line", ChorusesRequest{PlayContext: ferryOn(c), Choruses: keep.Solo.Choruses}, 200)
	assert.Equal(t, 24, joined.Bars)
	path := "/api/solos/" + itoa(kept.ID) + "/export/"
	get := func(format string) []byte {
		r := c.do("GET", path+format, nil)
		require.Equal(t, 200, r.Code, format)
		return r.Body.Bytes()
	}
	for format, read := range map[string]func([]byte, reading.Terms) (*reading.Lick, error){"tab": tabtext.Read, "musicxml": musicxml.ReadLick} {
		l, err := read(get(format), reading.Terms{Instrument: neck.Standard()})
		require.NoError(t, err, format)
		again := document.LickOf(l.Lick)
		require.Len(t, again.Events, len(joined.Phrase.Events), format)
		for n, e := range again.Events {
			want := joined.Phrase.Events[n]
			assert.Equal(t, [3]int{want.Tick, want.String, want.Fret}, [3]int{e.Tick, e.String, e.Fret}, "%s, note %d", format, n+1)
		}
	}
	file, err := smf.ReadFrom(bytes.NewReader(get("midi")))
	require.NoError(t, err)
	assert.Len(t, file.Tracks, 6, "tempo and chords, line, chords, bass, drums, click")
	assert.True(t, bytes.HasPrefix(get("pdf"), []byte("%PDF")))
	assert.Equal(t, 404, c.do("GET", path+"wax", nil).Code)

	for n := range keep.Solo.Choruses {
		for k := range keep.Solo.Choruses[n].Blocks {
			keep.Solo.Choruses[n].Blocks[k].Muted = true
		}
	}
	silent := call[KeptSolo](c, "POST", "/api/solos", keep, 201)
	assert.Equal(t, 422, c.do("GET", "/api/solos/"+itoa(silent.ID)+"/export/tab", nil).Code, "a solo that is silent is not taken away")
}

func BenchmarkPlanOverHTTP(b *testing.B) {
	c := application(b, nil)
	on := ferryOn(c)
	for b.Loop() {
		body, _ := json.Marshal(SoloRequest{PlayContext: on, Plan: document.ChorusPlan{Seed: 41}})
		require.Equal(b, 200, c.do("POST", "/api/compute/solo", json.RawMessage(body)).Code)
	}
}

func soloNotes(s document.Solo) int {
	notes := 0
	for _, c := range s.Choruses {
		for _, b := range c.Blocks {
			notes += len(b.Notes)
		}
	}
	return notes
}
