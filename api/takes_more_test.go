package api

import (
	"encoding/binary"
	"fmt"
	"math"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

// recorded records what the simulated player plays of a line, as far as it is sent.
func recorded(t *testing.T, c client, kind string, id uint, take document.Take, line []document.Event, from int, faults StandInFaults) string {
	t.Helper()
	sound := c.do("POST", "/api/compute/take/standin/sound", StandInRequest{PlayContext: PlayContext{Chart: take.Chart}, Events: line, Start: 0.5, From: from, Faults: faults}).Body.Bytes()[44:]
	begun := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: kind, Rate: 22050, ChartID: id, Take: take}, 201)
	require.Equal(t, 200, c.send("/api/recordings/"+begun.ID+"/sound?at=0", sound).Code)
	return begun.ID
}

// A bar of a take is played again: its notes and its sound are the new ones, all others as they were.
func TestABarIsPlayedAgain(t *testing.T) {
	c := application(t, nil)
	id, tune := firstTune(c)
	take := draft(tune)
	line := boxLine(4)
	recording := recorded(t, c, "sound", id, take, line, 0, StandInFaults{})
	kept := call[KeptTake](c, "POST", "/api/recordings/"+recording+"/take", map[string]any{"chartId": id, "take": take}, 201)
	require.Len(t, kept.Notes, 16)

	other := boxLine(4)
	for n := range other {
		other[n].Fret++
	}
	take.From = 2
	recording = recorded(t, c, "sound", id, take, other, 2, StandInFaults{})
	punch := map[string]any{"takeId": kept.ID, "version": kept.Version, "from": 2, "to": 2, "take": take}
	punched := call[KeptTake](c, "POST", "/api/recordings/"+recording+"/punch", punch, 200)
	require.Len(t, punched.Notes, 16)
	for n := range kept.Notes {
		up := 0.0
		if n >= 4 && n < 8 {
			up = 1
		}
		assert.InDelta(t, kept.Notes[n].Pitch+up, punched.Notes[n].Pitch, 0.2, n)
		assert.InDelta(t, kept.Notes[n].Onset, punched.Notes[n].Onset, 0.02, n)
	}
	assert.NotEqual(t, kept.Sound.Hash, punched.Sound.Hash)
	assert.Equal(t, 200, c.do("GET", fmt.Sprintf("/api/takes/%d/sound", kept.ID), nil).Code)
	revisions := call[[]Revision](c, "GET", fmt.Sprintf("/api/takes/%d/revisions", kept.ID), nil, 200)
	require.NotEmpty(t, revisions, "the take before is among the versions")

	recording = recorded(t, c, "sound", id, take, other, 2, StandInFaults{})
	punch["from"], punch["to"], punch["version"] = 0, 2, punched.Version
	assert.Equal(t, 422, c.do("POST", "/api/recordings/"+recording+"/punch", punch).Code)
	punch["from"], punch["version"] = 2, kept.Version
	assert.Equal(t, 412, c.do("POST", "/api/recordings/"+recording+"/punch", punch).Code, "a stale version overwrites nothing")
}

// Two takes side by side, and the changes that one missed as cards that can be asked for.
func TestTakesBesideEachOtherAndTheirCards(t *testing.T) {
	c := application(t, nil)
	id, tune := firstTune(c)
	line := boxLine(6)
	kept := func(faults StandInFaults) uint {
		recording := recorded(t, c, "sound", id, draft(tune), line, 0, faults)
		return call[KeptTake](c, "POST", "/api/recordings/"+recording+"/take", map[string]any{"chartId": id, "take": draft(tune)}, 201).ID
	}
	loose, steady := kept(StandInFaults{Uneven: 30, Seed: 4}), kept(StandInFaults{})
	rows := call[[]FigureBeside](c, "GET", fmt.Sprintf("/api/takes/%d/beside/%d", steady, loose), nil, 200)
	differences := map[string]string{}
	for _, row := range rows {
		differences[row.ID] = row.Difference
		assert.NotEmpty(t, row.Before, row.ID)
	}
	assert.Equal(t, "better", differences["spread"])
	assert.Equal(t, "same", differences["landings"])
	assert.Equal(t, 404, c.do("GET", fmt.Sprintf("/api/takes/%d/beside/99", steady), nil).Code)

	// The line takes E, the 3 of C7, as F7 arrives.
	verdict := call[TakeVerdict](c, "GET", fmt.Sprintf("/api/takes/%d/verdict", steady), nil, 200)
	require.NotEmpty(t, verdict.Missed)
	missed := verdict.Missed[0]
	assert.Equal(t, "C7 to F7", missed.Change)
	assert.Contains(t, missed.Text, "E")
	query := url.Values{"cards": []string{missed.Card, missed.Card}}
	deck := call[Deck](c, "GET", "/api/practice/deck?"+query.Encode(), nil, 200)
	require.Len(t, deck.Cards, 1, "each once")
	assert.Equal(t, missed.Card, deck.Cards[0].ID)
	call[Question](c, "POST", "/api/compute/practice/question", map[string]any{"card": missed.Card, "seed": 1}, 200)
	assert.Equal(t, 422, c.do("GET", "/api/practice/deck?cards=nonsense", nil).Code)
}

// What is only heard gives its notes so far, and they are judged without being kept.
func TestWhatIsHeardIsJudgedAndNotKept(t *testing.T) {
	c := application(t, nil)
	id, tune := firstTune(c)
	take := draft(tune)
	recording := recorded(t, c, "listen", id, take, boxLine(4), 0, StandInFaults{Late: 20})
	notes := call[[]HeardTakeNote](c, "GET", "/api/recordings/"+recording+"/notes", nil, 200)
	require.Len(t, notes, 16)
	assert.Equal(t, []int{64, 67, 70, 72}, []int{notes[0].Arrives.MIDI, notes[1].Arrives.MIDI, notes[2].Arrives.MIDI, notes[3].Arrives.MIDI})
	some := call[[]HeardTakeNote](c, "GET", fmt.Sprintf("/api/recordings/%s/notes?from=%g&to=%g", recording, notes[4].Note.Onset-0.1, notes[8].Note.Onset-0.1), nil, 200)
	assert.Equal(t, notes[4:8], some)
	for _, n := range notes {
		take.Notes = append(take.Notes, n.Note)
	}
	verdict := call[TakeVerdict](c, "POST", "/api/compute/take/verdict", take, 200)
	assert.InDelta(t, 20, verdict.Timing.Lean, 5)
	call[struct{}](c, "DELETE", "/api/recordings/"+recording, nil, 204)
	assert.Equal(t, 404, c.do("GET", "/api/recordings/"+recording+"/notes", nil).Code)

	keys := call[[]KeyEvent](c, "POST", "/api/compute/take/standin/keys", StandInRequest{PlayContext: PlayContext{Chart: tune}, Events: boxLine(1), Start: 0.5}, 200)
	begun := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "listen-keys", ChartID: id, Take: draft(tune)}, 201)
	heard := call[HeardSoFar](c, "POST", "/api/recordings/"+begun.ID+"/keys?at=0", keys, 200)
	require.Len(t, heard.Strokes, 4)
	assert.Equal(t, 64, heard.Strokes[0].MIDI)
	assert.Len(t, call[[]HeardTakeNote](c, "GET", "/api/recordings/"+begun.ID+"/notes", nil, 200), 4)
	assert.Empty(t, call[[]RecordingBegun](c, "GET", "/api/recordings", nil, 200), "nothing of it is kept")
}

// A routine in two keys becomes two takes of one sound; a file's bar 1 is looked for.
func TestARoutineAndAFile(t *testing.T) {
	c := application(t, nil)
	id, tune := firstTune(c)
	line := boxLine(4)
	recording := recorded(t, c, "sound", id, draft(tune), line, 0, StandInFaults{})
	inF := tune
	inF.Key.Tonic = "F"
	secondsABar := 240 / float64(tune.Tempo)
	passes := []document.PlayedPass{{Start: 0.5, Chart: tune}, {Start: 0.5 + 2*secondsABar, Chart: inF}}
	first := call[KeptTake](c, "POST", "/api/recordings/"+recording+"/take", map[string]any{"chartId": id, "take": draft(tune), "passes": passes}, 201)
	list := call[[]TakeEntry](c, "GET", fmt.Sprintf("/api/takes?chart=%d", id), nil, 200)
	require.Len(t, list, 2)
	assert.Equal(t, []int{8, 8}, []int{list[0].Notes, list[1].Notes})
	assert.Equal(t, list[0].Sound, list[1].Sound)
	assert.Equal(t, "First try, 1 of 2", first.Name)

	wav := c.do("POST", "/api/compute/take/standin/sound", StandInRequest{PlayContext: PlayContext{Chart: tune}, Events: line, Start: 3.25}).Body.Bytes()
	begun := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "file", ChartID: id, Take: draft(tune)}, 201)
	require.Equal(t, 200, c.send("/api/recordings/"+begun.ID+"/sound?at=0", wav).Code)
	kept := call[KeptTake](c, "POST", "/api/recordings/"+begun.ID+"/take", map[string]any{"chartId": id, "take": draft(tune), "findStart": true}, 201)
	require.Len(t, kept.Remarks, 1)
	assert.Contains(t, kept.Remarks[0], "bar 1 was")
	beat := secondsABar / 4
	phase := (kept.Start - 3.25) / beat
	assert.InDelta(t, float64(int(phase+100.5)-100), phase, 0.05, "on a beat, at %g", kept.Start)
}

// The band that comes through the microphone is found, said, and taken out of the notes.
func TestTheBandInATake(t *testing.T) {
	c := application(t, nil)
	id, tune := firstTune(c)
	line := boxLine(8)
	sounds := func(events []document.Event, late float64) []byte {
		return c.do("POST", "/api/compute/take/standin/sound", StandInRequest{PlayContext: PlayContext{Chart: tune}, Events: events, Start: 0.5 + late}).Body.Bytes()
	}
	bass := []document.Event{}
	for tick := 0; tick < 8*1920; tick += 480 {
		bass = append(bass, document.Event{Tick: tick + 240, Ticks: 240, String: 5 + tick/480%2, Fret: 3 + tick/480%5})
	}
	player, band, leaked := sounds(line, 0)[44:], sounds(bass, 0), sounds(bass, 0.03)[44:]
	mixed := make([]byte, len(player))
	for n := 0; n+1 < len(mixed); n += 2 {
		value := int(int16(binary.LittleEndian.Uint16(player[n:]))) / 2
		if n+1 < len(leaked) {
			value += int(int16(binary.LittleEndian.Uint16(leaked[n:]))) / 3
		}
		binary.LittleEndian.PutUint16(mixed[n:], uint16(int16(value)))
	}
	begun := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "sound", Rate: 22050, ChartID: id, Take: draft(tune)}, 201)
	require.Equal(t, 200, c.send("/api/recordings/"+begun.ID+"/sound?at=0", mixed).Code)
	kept := call[KeptTake](c, "POST", "/api/recordings/"+begun.ID+"/take", map[string]any{"chartId": id, "take": draft(tune)}, 201)
	right := func(notes []document.TakeNote) int {
		found := 0
		for _, e := range line {
			at := 0.5 + float64(e.Tick)*60/480/float64(tune.Tempo)
			for _, n := range notes {
				if math.Abs(n.Onset-at) < 0.05 {
					found++
					break
				}
			}
		}
		return found - max(0, len(notes)-found)
	}
	look := func(data []byte, version int) BandLeak {
		file := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "file", ChartID: id, Take: draft(tune)}, 201)
		require.Equal(t, 200, c.send("/api/recordings/"+file.ID+"/sound?at=0", data).Code)
		return call[BandLeak](c, "POST", "/api/recordings/"+file.ID+"/leak", map[string]any{"takeId": kept.ID, "version": version, "start": 0}, 200)
	}
	answer := look(band, kept.Version)
	require.True(t, answer.Found)
	assert.Contains(t, answer.Text, "taken out")
	again := call[KeptTake](c, "GET", fmt.Sprintf("/api/takes/%d", kept.ID), nil, 200)
	assert.Greater(t, right(again.Notes), right(kept.Notes))
	assert.Equal(t, kept.Sound, again.Sound, "the sound stays as it was")
	assert.NotEmpty(t, call[[]Revision](c, "GET", fmt.Sprintf("/api/takes/%d/revisions", kept.ID), nil, 200), "the notes as they were heard before are among the versions")
	verdict := call[TakeVerdict](c, "GET", fmt.Sprintf("/api/takes/%d/verdict", kept.ID), nil, 200)
	assert.Equal(t, []string{answer.Text}, verdict.Remarks)
	assert.False(t, look(sounds(boxLine(1), 3), again.Version).Found, "another sound is no leak")
	assert.Empty(t, call[[]RecordingBegun](c, "GET", "/api/recordings", nil, 200))
}
