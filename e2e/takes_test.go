package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// standInSound is what the simulated player plays in the box over the first tune, as a WAV file with so many seconds of
// silence after it.
func standInSound(t *testing.T, s *server, silence int) string {
	get, err := http.Get(s.base + "/api/charts/1")
	require.NoError(t, err)
	defer func() { _ = get.Body.Close() }()
	var kept struct {
		Chart json.RawMessage `json:"chart"`
	}
	require.NoError(t, json.NewDecoder(get.Body).Decode(&kept))
	events := []map[string]int{}
	for n := range 12 {
		events = append(events, map[string]int{"tick": 480 * n, "ticks": 480, "string": 1 + n%3, "fret": 8 + n%2})
	}
	ask, err := json.Marshal(map[string]any{"chart": kept.Chart, "events": events, "start": 0.5})
	require.NoError(t, err)
	post, err := http.Post(s.base+"/api/compute/take/standin/sound", "application/json", bytes.NewReader(ask))
	require.NoError(t, err)
	defer func() { _ = post.Body.Close() }()
	require.Equal(t, 200, post.StatusCode)
	sound, err := io.ReadAll(post.Body)
	require.NoError(t, err)
	sound = append(sound, make([]byte, 2*22050*silence)...)
	for at, size := range map[int]int{4: len(sound) - 8, 40: len(sound) - 44} {
		for b := range 4 {
			sound[at+b] = byte(size >> (8 * b))
		}
	}
	file := filepath.Join(t.TempDir(), "guitar.wav")
	require.NoError(t, os.WriteFile(file, sound, 0o600))
	return file
}

// Whether the microphone hears its file once, or again and again.
const (
	once          = "%noloop"
	againAndAgain = ""
)

// browserThatHears is a browser whose microphone hears a file.
func browserThatHears(t *testing.T, file, howOften string) context.Context {
	return browserWith(t,
		chromedp.Flag("use-fake-ui-for-media-stream", true), chromedp.Flag("use-fake-device-for-media-stream", true),
		chromedp.Flag("use-file-for-fake-audio-capture", file+howOften),
	)
}

// browserWith is a browser of the test's own, started with more options.
func browserWith(t *testing.T, more ...chromedp.ExecAllocatorOption) context.Context {
	t.Helper()
	options := append(append([]chromedp.ExecAllocatorOption{}, browserOptions...), more...)
	allocator, cancel := chromedp.NewExecAllocator(t.Context(), options...)
	t.Cleanup(cancel)
	ctx, stop := chromedp.NewContext(allocator)
	t.Cleanup(stop)
	require.NoError(t, chromedp.Do(ctx))
	return ctx
}

// A player records through the microphone, reads the verdict, and keeps a phrase as a lick.
func TestATakeThroughTheMicrophone(t *testing.T) {
	s := demo(t)
	p := openPageIn(t, browserThatHears(t, standInSound(t, s, 20), once), s, "/tunes/1/takes")
	p.Sees("First crossing, a week on")
	p.Click("Record a take")
	p.Sees("End the take")
	p.Until("a note of the neck that is played", playedNote)
	p.recordsFor("0:06")
	p.Click("End the take")
	p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
	p.Click("Takes")
	rows := js[string](p, "[...document.querySelectorAll('tbody tr')].map(r => r.innerText).join('|')")
	assert.Equal(t, 3, strings.Count(rows, "MB"), rows)
	p.Click("Notes")
	p.Until("the tab", "document.querySelectorAll('.scroll svg [tabindex], .scroll svg [role=button]').length >= 10")
	js[any](p, "[...document.querySelectorAll('.scroll svg [role=button]')][1].dispatchEvent(new MouseEvent('click', {bubbles: true}))")
	js[any](p, "[...document.querySelectorAll('.scroll svg [role=button]')][4].dispatchEvent(new MouseEvent('click', {bubbles: true}))")
	p.Click("keep as a lick")
	p.Sees("Kept as the lick")
}

// recordsFor waits until so much is recorded, as the page counts it.
func (p *Page) recordsFor(clock string) {
	p.t.Helper()
	p.Until(clock+" of sound", "document.querySelector('[role=timer]')?.innerText >= '"+clock+"'")
}

// unfinished are the recordings that the program says were left.
func unfinished(t *testing.T, s *server) []any {
	t.Helper()
	got, err := http.Get(s.base + "/api/recordings")
	require.NoError(t, err)
	defer func() { _ = got.Body.Close() }()
	all := []any{}
	require.NoError(t, json.NewDecoder(got.Body).Decode(&all))
	return all
}

// The program is killed in the middle of a take and started again: the take goes on. One whose page is closed is
// there afterwards too.
func TestKilledWhileRecording(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	s := serve(t, "demo", data)
	addr := s.addr()
	p := openPageIn(t, browserThatHears(t, standInSound(t, s, 20), once), s, "/tunes/1/takes")
	p.ServerMayFail()
	// A piece that arrived while its answer was lost is sent again, and the server says how much it has.
	p.Expect(http.StatusConflict)
	p.Click("Record a take")
	p.Sees("End the take")
	p.Until("two seconds", "document.querySelector('[role=timer]')?.innerText >= '0:02'")
	s.kill(t)
	p.Until("what is wrong", "document.querySelector('[role=alert]')?.innerText.includes('does not answer')")
	serveAt(t, "demo", data, addr)
	p.Until("five seconds", "document.querySelector('[role=timer]')?.innerText >= '0:05'")
	p.Click("End the take")
	p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
	get, err := http.Get(s.base + "/api/takes?chart=1")
	require.NoError(t, err)
	defer func() { _ = get.Body.Close() }()
	var takes []struct{ Seconds float64 }
	require.NoError(t, json.NewDecoder(get.Body).Decode(&takes))
	require.Len(t, takes, 3)
	assert.Greater(t, takes[2].Seconds, 4.5, "what was played before the program was killed, and after")

	p.Click("Record a take")
	p.Until("three seconds", "document.querySelector('[role=timer]')?.innerText >= '0:03'")
	p.Answer(true) // the browser asks before it leaves a take
	p.Leave()
	// A page that sends nothing for three seconds has left its recording.
	for end := time.Now().Add(patience); len(unfinished(t, s)) == 0; time.Sleep(100 * time.Millisecond) {
		require.True(t, time.Now().Before(end), "the recording is never one that was left")
	}
	p.Go("/tunes/1/takes?takes.bench=takes")
	p.Sees("A recording was cut off")
	seconds := js[string](p, "document.querySelector('.list .warn').innerText.match(/(\\d+) s\\./)[1]")
	assert.GreaterOrEqual(t, seconds, "2", "at most the last second is lost")
	p.Click("keep what is there")
	p.Until("four takes", "document.querySelectorAll('tbody tr').length === 4")
}

// With no guitar and no interface: the simulated player plays a solo, which lights the neck and gets its verdict.
func TestATakeOfTheSimulatedPlayer(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/takes")
	p.Sees("First crossing, a week on")
	p.Choose("Input", "the simulated player")
	p.Click("Record a take")
	p.Until("a note of the neck that is played", playedNote)
	p.recordsFor("0:06")
	p.Press("r")
	p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
	p.Sees("of the plan", "leans")
}

// The simulated player plays as a MIDI instrument too; the take has its notes and no sound.
func TestATakeOfKeys(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/takes")
	p.Sees("First crossing, a week on")
	p.Choose("Input", "the simulated player, as MIDI")
	p.Click("Record a take")
	p.Until("a note of the neck that is played", playedNote)
	p.recordsFor("0:04")
	p.Click("End the take")
	p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
	p.Click("Takes")
	p.Sees("no sound")
}

// Where there is no input it is said why, and what to do.
func TestNoInput(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/takes?takes.bench=tuner")
	p.Click("Start the tuner")
	p.Until("what is wrong", "document.querySelector('[role=alert]')?.innerText.match(/input|microphone/)")
	p.Sees("Start the tuner")
}

// A take is heard with the band, from where the band is, and ends with it; its bars are practised again.
func TestATakeIsHeardWithTheBand(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/takes?takes.bench=notes")
	p.Until("the tab", "document.querySelectorAll('.scroll svg [role=button]').length >= 10")
	p.Click("with the band")
	p.Until("the take runs", "!document.querySelector('audio').paused && document.querySelector('audio').currentTime > 1.5")
	p.Press(" ")
	p.Until("it is silent", "document.querySelector('audio').paused")
	js[any](p, "[...document.querySelectorAll('.scroll svg [role=button]')][6].dispatchEvent(new MouseEvent('click', {bubbles: true}))")
	p.Click("again, these bars")
	p.Until("the loop", "location.search.includes('loop=')")
}

// A take is set beside the one before it, and the changes that it missed become cards.
func TestATakeBesideAnotherAndItsDrill(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/takes")
	p.Sees("First crossing, a week on", "before")
	figures := js[string](p, "document.querySelector('.verdict table').innerText")
	assert.Regexp(t, `landings\s+7 of 7\s+6 of 7`, figures)
	assert.Contains(t, figures, "↑", "it has grown better")
	p.Click("Takes")
	p.Until("a picture of the weeks", "document.querySelectorAll('.weeks .dot').length === 4")
	p.Click("First crossing, on Monday")
	p.Until("what was missed", "document.querySelector('.missed')")
	p.Press("d")
	p.Sees("nearest landing", "change from your take")
	p.Until("a card", "document.querySelector('.asked h2')")
}

// A file is opened as a take; where bar 1 lies is found, and can be set otherwise.
func TestAFileBecomesATake(t *testing.T) {
	s := demo(t)
	p := openPage(t, s, "/tunes/1/takes?takes.bench=file")
	p.Sees("bar 1 begins at second")
	sound, err := os.ReadFile(standInSound(t, s, 1))
	require.NoError(t, err)
	p.upload("guitar.wav", string(sound))
	p.Until("its verdict", "document.querySelector('.acts')?.innerText.includes('guitar.wav')")
	p.Click("File")
	p.Until("where bar 1 was found", "document.querySelector('.acts input')?.value")
	js[any](p, "(e => { e.value = '0.5'; e.dispatchEvent(new Event('input', { bubbles: true })) })(document.querySelector('.acts input'))")
	p.Click("set it")
	p.Sees("Bar 1 begins at 0.5 s.")
	p.Click("Notes")
	p.Until("the first note in bar 1", "document.querySelector('.scroll svg [role=button]')")
}

// Bars of a take are played in again through the microphone: the notes of those bars are the new ones.
func TestBarsArePlayedInAgain(t *testing.T) {
	s := demo(t)
	p := openPageIn(t, browserThatHears(t, standInSound(t, s, 0), againAndAgain), s, "/tunes/1/takes")
	p.Sees("First crossing, a week on")
	p.Click("Record a take")
	p.Until("five seconds", "document.querySelector('[role=timer]')?.innerText >= '0:07'")
	p.Click("End the take")
	p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
	p.Click("Notes")
	p.Until("the tab", "document.querySelectorAll('.scroll svg [role=button]').length >= 4")
	js[any](p, "[...document.querySelectorAll('.scroll svg [role=button]')][2].dispatchEvent(new MouseEvent('click', {bubbles: true}))")
	p.Press("p")
	p.Sees("again: it ends by itself")
	p.Until("the end", "!document.body.innerText.includes('it ends by itself')")
	get, err := http.Get(s.base + "/api/takes?chart=1")
	require.NoError(t, err)
	defer func() { _ = get.Body.Close() }()
	var takes []struct{ ID, Version int }
	require.NoError(t, json.NewDecoder(get.Body).Decode(&takes))
	require.Len(t, takes, 3)
	p.Until("the take with its new bars", "fetch('/api/takes').then(r => r.json()).then(all => window.versions = all.map(t => t.version)) && window.versions?.includes(2)")
	assert.Empty(t, js[string](p, "document.querySelector('.says')?.innerText ?? ''"))
}

// The device is pulled out in the middle: what was played is kept, and it is said.
func TestTheInputGoesAway(t *testing.T) {
	s := demo(t)
	p := openPageIn(t, browserThatHears(t, standInSound(t, s, 20), once), s, "/tunes/1/takes")
	js[any](p, `(get => navigator.mediaDevices.getUserMedia = async wanted => window.pulled = await get(wanted))(navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices))`)
	p.Click("Record a take")
	p.Until("three seconds", "document.querySelector('[role=timer]')?.innerText >= '0:03'")
	js[any](p, "window.pulled.getTracks()[0].dispatchEvent(new Event('ended'))")
	p.Sees("The input went away; what was played until then is kept")
	p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
}
