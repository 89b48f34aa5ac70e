package api

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
	"undaris/store"
)

// send posts bytes as they are.
func (c client) send(path string, piece []byte) *httptest.ResponseRecorder {
	request := httptest.NewRequest("POST", "http://"+c.host+path, bytes.NewReader(piece))
	request.Header.Set("Content-Type", "application/octet-stream")
	response := httptest.NewRecorder()
	c.http.ServeHTTP(response, request)
	return response
}

// boxLine is a line of eighths in the box, over the first bars of the first tune.
func boxLine(bars int) []document.Event {
	events := []document.Event{}
	for bar := range bars {
		for n, at := range [][2]int{{3, 9}, {2, 8}, {2, 11}, {1, 8}} {
			events = append(events, document.Event{Tick: bar*1920 + n*480, Ticks: 480, String: at[0], Fret: at[1]})
		}
	}
	return events
}

func firstTune(c client) (uint, document.Chart) {
	tunes := call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)
	kept := call[KeptChart](c, "GET", fmt.Sprintf("/api/charts/%d", tunes[0].ID), nil, 200)
	return kept.ID, kept.Chart
}

func draft(c document.Chart) document.Take {
	return document.Take{Name: "First try", Began: time.Date(2026, 11, 1, 20, 0, 0, 0, time.UTC), Chart: c, Source: "stand-in", Start: 0.5, Notes: []document.TakeNote{}}
}

// A take is recorded piece by piece, lit while it comes, kept, judged, and heard again.
func TestATakeIsRecordedAndJudged(t *testing.T) {
	folder := t.TempDir()
	c := application(t, func(c *Config) { c.Sounds = store.SoundsBeside(filepath.Join(folder, "a.db")) })
	id, tune := firstTune(c)
	line := boxLine(4)
	played := c.do("POST", "/api/compute/take/standin/sound", StandInRequest{PlayContext: PlayContext{Chart: tune}, Events: line, Start: 0.5, Faults: StandInFaults{Late: 25}})
	require.Equal(t, 200, played.Code, played.Body.String())
	sound := played.Body.Bytes()[44:]
	take := draft(tune)
	take.Plan = &document.Phrase{Meter: tune.Meter, Events: line}
	begun := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "sound", Rate: 22050, ChartID: id, Take: take}, 201)
	lit := map[int]bool{}
	for at := 0; at < len(sound); at += 882 {
		response := c.send(fmt.Sprintf("/api/recordings/%s/sound?at=%d&start=0.5&started=true", begun.ID, at), sound[at:min(len(sound), at+882)])
		require.Equal(t, 200, response.Code, response.Body.String())
		if heard := decoded[HeardSoFar](t, response.Body.Bytes()); heard.Sounding != nil {
			lit[heard.Sounding.MIDI] = true
		}
	}
	for _, midi := range []int{64, 67, 70, 72} {
		assert.True(t, lit[midi], midi)
	}
	gap := c.send("/api/recordings/"+begun.ID+"/sound?at=17", []byte{0, 0})
	assert.Equal(t, http.StatusConflict, gap.Code)
	assert.Contains(t, gap.Body.String(), fmt.Sprintf("%d have come", len(sound)))
	kept := call[KeptTake](c, "POST", "/api/recordings/"+begun.ID+"/take", map[string]any{"chartId": id, "take": take}, 201)
	assert.Len(t, kept.Notes, len(line))
	assert.Empty(t, call[[]RecordingBegun](c, "GET", "/api/recordings", nil, 200))
	verdict := call[TakeVerdict](c, "GET", fmt.Sprintf("/api/takes/%d/verdict", kept.ID), nil, 200)
	assert.InDelta(t, 25, verdict.Timing.Lean, 5)
	require.Len(t, verdict.Tab.Events, len(line))
	for n, e := range verdict.Tab.Events {
		assert.Equal(t, []int{line[n].Tick, line[n].String, line[n].Fret}, []int{e.Tick, e.String, e.Fret})
	}
	for _, p := range verdict.Pairs {
		assert.Equal(t, "as meant", p.Kind)
	}
	made := call[TakeLick](c, "GET", fmt.Sprintf("/api/takes/%d/lick?from=4&to=7", kept.ID), nil, 200)
	assert.Equal(t, "First try, bar 2", made.Lick.Name)
	assert.Len(t, made.Lick.Events, 4)
	assert.Equal(t, 0, made.Lick.Events[0].Tick)
	assert.NotEmpty(t, made.Lick.Chords)
	call[KeptLick](c, "POST", "/api/licks", made.Lick, 201)
	assert.Equal(t, 422, c.do("GET", fmt.Sprintf("/api/takes/%d/lick?from=4&to=99", kept.ID), nil).Code)
	again := c.do("GET", fmt.Sprintf("/api/takes/%d/sound", kept.ID), nil)
	assert.Equal(t, "audio/wav", again.Header().Get("Content-Type"))
	assert.Equal(t, sound, again.Body.Bytes()[44:])
	request := httptest.NewRequest("GET", fmt.Sprintf("http://%s/api/takes/%d/sound", c.host, kept.ID), nil)
	request.Header.Set("Range", "bytes=144-243")
	request.Header.Set("Accept-Encoding", "gzip")
	part := httptest.NewRecorder()
	c.http.ServeHTTP(part, request)
	assert.Equal(t, http.StatusPartialContent, part.Code, "a player goes to any place of it")
	assert.Equal(t, sound[100:200], part.Body.Bytes())
	list := call[[]TakeEntry](c, "GET", fmt.Sprintf("/api/takes?chart=%d", id), nil, 200)
	require.Len(t, list, 1)
	assert.Equal(t, int64(len(sound)+44), list[0].Bytes)
	call[struct{}](c, "DELETE", fmt.Sprintf("/api/takes/%d?version=1", kept.ID), nil, 204)
	assert.Equal(t, 200, c.do("POST", fmt.Sprintf("/api/takes/%d/restore", kept.ID), nil).Code)
	assert.Equal(t, 200, c.do("GET", fmt.Sprintf("/api/takes/%d/sound", kept.ID), nil).Code, "the sound comes back with its take")
}

// What has come is there after the program was ended in the middle.
func TestARecordingOutlivesTheProgram(t *testing.T) {
	folder := t.TempDir()
	beside := func(c *Config) { c.Sounds = store.SoundsBeside(filepath.Join(folder, "a.db")) }
	first := application(t, beside)
	id, tune := firstTune(first)
	sound := first.do("POST", "/api/compute/take/standin/sound", StandInRequest{PlayContext: PlayContext{Chart: tune}, Events: boxLine(2), Start: 0.5}).Body.Bytes()[44:]
	begun := call[RecordingBegun](first, "POST", "/api/recordings", BeginRecording{Kind: "sound", Rate: 22050, ChartID: id, Take: draft(tune)}, 201)
	half := len(sound) / 2
	half -= half % 2
	require.Equal(t, 200, first.send("/api/recordings/"+begun.ID+"/sound?at=0", sound[:half]).Code)

	second := application(t, beside)
	left := call[[]RecordingBegun](second, "GET", "/api/recordings", nil, 200)
	require.Len(t, left, 1)
	assert.Equal(t, "First try", left[0].Name)
	assert.InDelta(t, float64(half)/2/22050, left[0].Seconds, 0.001)
	third := application(t, beside) // which goes on with it, for the player plays on
	require.Equal(t, 200, third.send(fmt.Sprintf("/api/recordings/%s/sound?at=%d", begun.ID, half), sound[half:]).Code)
	assert.Equal(t, 409, third.send(fmt.Sprintf("/api/recordings/%s/sound?at=%d", begun.ID, half), sound[half:]).Code)
	fourth := application(t, beside)
	other := draft(tune)
	other.Start, other.Chart.Tempo = 7, 60
	kept := call[KeptTake](fourth, "POST", "/api/recordings/"+begun.ID+"/take?asBegun=true", map[string]any{"chartId": id, "take": other}, 201)
	assert.InDelta(t, 0.5, kept.Start, 1e-9, "it is kept over what it was begun over")
	assert.Equal(t, tune.Tempo, kept.Chart.Tempo)
	assert.Len(t, kept.Notes, 8)
	assert.Equal(t, []string{"the recording was cut off; what had come is here"}, kept.Remarks)
	entries, err := os.ReadDir(filepath.Join(folder, "a.db.sounds", "parts"))
	require.NoError(t, err)
	assert.Empty(t, entries)
}

// Keys come as they are pressed, and files as they are.
func TestTakesOfKeysAndFiles(t *testing.T) {
	c := application(t, nil)
	id, tune := firstTune(c)
	line := boxLine(2)
	line[1].Bend = 1
	keys := call[[]KeyEvent](c, "POST", "/api/compute/take/standin/keys", StandInRequest{PlayContext: PlayContext{Chart: tune}, Events: line, Start: 0.5}, 200)
	begun := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "keys", ChartID: id, Take: draft(tune)}, 201)
	at, lit := int64(0), map[int]bool{}
	for n := range keys {
		heard := call[HeardSoFar](c, "POST", fmt.Sprintf("/api/recordings/%s/keys?at=%d", begun.ID, at), keys[n:n+1], 200)
		at = heard.Have
		if heard.Sounding != nil {
			lit[heard.Sounding.MIDI] = true
		}
	}
	assert.True(t, lit[64] && lit[72], lit)
	kept := call[KeptTake](c, "POST", "/api/recordings/"+begun.ID+"/take", map[string]any{"chartId": id, "take": draft(tune)}, 201)
	require.Len(t, kept.Notes, len(line))
	if assert.NotNil(t, kept.Notes[1].Bend) {
		assert.InDelta(t, 100, kept.Notes[1].Bend.Cents, 3)
	}
	assert.Nil(t, kept.Sound)

	wav := c.do("POST", "/api/compute/take/standin/sound", StandInRequest{PlayContext: PlayContext{Chart: tune}, Events: boxLine(2), Start: 0.5}).Body.Bytes()
	binary.LittleEndian.PutUint32(wav[40:], 0xFFFFFFFF) // a length that lies
	begun = call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "file", ChartID: id, Take: draft(tune)}, 201)
	require.Equal(t, 200, c.send("/api/recordings/"+begun.ID+"/sound?at=0", wav).Code)
	kept = call[KeptTake](c, "POST", "/api/recordings/"+begun.ID+"/take", map[string]any{"chartId": id, "take": draft(tune)}, 201)
	assert.Len(t, kept.Notes, 8)
	assert.Equal(t, []string{"the file does not say how long its sound is; it was read to the end"}, kept.Remarks)
}

func TestRecordingsThatCannotBe(t *testing.T) {
	now := time.Now()
	c := application(t, func(c *Config) { c.Now = func() time.Time { return now } })
	id, tune := firstTune(c)
	for want, ask := range map[string]BeginRecording{
		"400 samples a second cannot be listened to; 8000 to 96000 can": {Kind: "sound", Rate: 400, ChartID: id, Take: draft(tune)},
	} {
		response := c.do("POST", "/api/recordings", ask)
		assert.Equal(t, 422, response.Code)
		assert.Contains(t, response.Body.String(), want)
	}
	assert.Equal(t, 404, c.send("/api/recordings/nobody/sound?at=0", []byte{0, 0}).Code)
	assert.Equal(t, 404, c.do("POST", "/api/recordings/nobody/take", map[string]any{"chartId": id, "take": draft(tune)}).Code)
	assert.Equal(t, 404, c.do("GET", "/api/takes/99/sound", nil).Code)
	begun := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "file", ChartID: id, Take: draft(tune)}, 201)
	require.Equal(t, 200, c.send("/api/recordings/"+begun.ID+"/sound?at=0", []byte("no sound at all")).Code)
	refused := c.do("POST", "/api/recordings/"+begun.ID+"/take", map[string]any{"chartId": id, "take": draft(tune)})
	assert.Equal(t, 422, refused.Code)
	assert.Contains(t, refused.Body.String(), "neither a WAV nor a FLAC file")
	assert.Empty(t, call[[]RecordingBegun](c, "GET", "/api/recordings", nil, 200), "it is still coming")
	now = now.Add(5 * time.Second)
	assert.Len(t, call[[]RecordingBegun](c, "GET", "/api/recordings", nil, 200), 1, "what has come is still there")
	assert.Equal(t, 204, c.do("DELETE", "/api/recordings/"+begun.ID, nil).Code)
	assert.Empty(t, call[[]RecordingBegun](c, "GET", "/api/recordings", nil, 200))
	odd := call[RecordingBegun](c, "POST", "/api/recordings", BeginRecording{Kind: "sound", Rate: 44100, ChartID: id, Take: draft(tune)}, 201)
	assert.Equal(t, 422, c.send("/api/recordings/"+odd.ID+"/sound?at=0", []byte{1}).Code)
	faults := c.do("POST", "/api/compute/take/standin/keys", StandInRequest{PlayContext: PlayContext{Chart: tune}, Events: boxLine(1), Faults: StandInFaults{Swing: 9}})
	assert.Equal(t, 422, faults.Code)
	assert.Contains(t, faults.Body.String(), "body.faults.swing")
}
