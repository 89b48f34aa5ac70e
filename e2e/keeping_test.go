package e2e

import (
	"database/sql"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite"
)

// theFrets is every fret on the time line, in order, as an expression of the page.
const theFrets = "[...document.querySelectorAll('.line .event')].map(e => e.dataset.event + ':' + e.querySelector('.fret').textContent).join()"

// kill ends the program outright, as a crash or a power cut does.
func (s *server) kill(t *testing.T) {
	t.Helper()
	require.NoError(t, s.command.Process.Kill())
	_ = s.command.Wait()
}

// Notes that were written by hand stay when the player looks elsewhere on the neck, and go
// along when the tune is transposed or a capo is put on; undo brings all of it back.
func TestASoloGoesWithItsTune(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/2/solo")
	p.planned(3)
	last := js[int](p, `[...document.querySelectorAll('[data-block]:not(.rest)')].at(-1).dataset.block * 1`)
	p.focusBlock(last)
	p.Press("e")
	p.Until("the editor", "document.activeElement.classList.contains('editor')")
	p.Press("1", "2")
	p.Press(kb.Escape)
	p.Click("Done")
	p.Saved()
	p.Until("what was written", "[...document.querySelectorAll('.line .event .fret')].some(f => f.textContent === '12')")
	written := js[string](p, theFrets)

	p.Choose("Position", "A form, 2–5")
	p.Sees("Plan it in the A form")
	p.Idle()
	assert.Equal(t, written, js[string](p, theFrets), "the position only looks")
	p.Click("Back to the plan’s")

	p.Choose("Key", "A")
	p.Until("the tune in A", "document.querySelector('.strip .chord').textContent === 'A7'")
	p.Until("the notes to go along", theFrets+" !== "+quoted(written)+" && document.querySelectorAll('.line .event').length > 5")
	assert.NotContains(t, p.Text(), "is not a position of this key")
	moved := js[string](p, theFrets)
	assert.Contains(t, moved, ":10", "the 12 lies two frets lower")
	p.Press("1")
	p.Click("Tune")
	p.TypeInto("Capo", "3")
	p.Press("\t")
	p.Sees("played in F♯ dominant")
	p.Click("5 Solo")
	p.Until("three frets lower yet", theFrets+" !== "+quoted(moved)+" && document.querySelectorAll('.line .event').length > 5")
	p.Undo() // the capo
	p.Until("as it was in A", theFrets+" === "+quoted(moved))
	p.Has("Undo: transpose to A")
	p.Undo()
	p.Until("as it was written, to the note", theFrets+" === "+quoted(written))
	p.Saved()
	p.Go("/tunes/2/solo")
	p.Until("and as it is kept", theFrets+" === "+quoted(written))
}

// A lick that is written in open strings stays so in every panel, unless it is wanted
// under the hand.
func TestALickIsShownAsWritten(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?licks.fresh=yes&licks.panel=write")
	p.Sees("Type a fret, or press the neck")
	p.Press(kb.ArrowDown, kb.ArrowDown, "0", kb.ArrowRight, "2", kb.ArrowRight, kb.ArrowUp, "0")
	p.writes("0 5", "2 13", "0 7")
	p.TypeInto("Name", "Abe's blues")
	p.Press(kb.Enter)
	p.Saved()
	for _, panel := range []string{"Understand", "Every chord", "Variants", "Cut and join"} {
		p.Click(panel)
		p.Sees("As written, in C Abe's blues")
		p.Idle()
	}
	p.Click("Understand")
	p.Until("its own frets", "document.querySelectorAll('.tab .note').length === 3")
	assert.Equal(t, "0 5 chord|2 13 colour|0 7 outside", strings.Join(p.Tab(), "|"))
	p.Click("under the hand")
	p.Sees("In C, under the hand Abe's blues")
	p.Until("fretted", "document.querySelectorAll('.tab .note').length === 3 && document.querySelector('.tab .note .fret').textContent !== '0'")
	p.Click("as written")
	p.Until("open again", "document.querySelector('.tab .note .fret')?.textContent === '0'")
	assert.NotContains(t, p.Text(), "A♭e", "a name is not re-spelled")
}

// One undo for what is being edited, which says what it takes back, and outlives leaving
// the step.
func TestOneUndoOutlivesLeavingTheStep(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?licks.lick=7&licks.panel=write")
	p.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3")
	assert.Equal(t, 1, js[int](p, "[...document.querySelectorAll('button')].filter(b => (b.getAttribute('aria-label') ?? '').startsWith('Undo')).length"))
	p.Press(kb.End, "8")
	p.Has("Undo: write a note")
	p.Choose("Key", "D")
	p.Has("Undo: transpose to D")
	p.Undo()
	p.Has("Undo: write a note")
	p.Click("Slack water Few notes and much air; the root held in the middle.")
	p.writes("11 ♭7", "∿ 8 R", "11 ♭7", "p 8 5")
	p.Press(kb.Escape, "2")
	p.Sees("C7 in the E-form position")
	p.Press("4")
	p.Click("Ferry call A call in eighths: up to the ♭7 and back to the ♭3.")
	p.Undo()
	p.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3")
}

// Sound goes on when the step is changed, and stops when it is told to: while it loads,
// after a request that was refused, and in the middle.
func TestSoundAlwaysStops(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?at=5760")
	p.Intercept()
	p.Before(`(() => { const start = AudioScheduledSourceNode.prototype.start; window.sounding = new Set(); window.contexts = 0
		AudioScheduledSourceNode.prototype.start = function (...a) { if (this.buffer) { window.sounding.add(this); this.addEventListener('ended', () => window.sounding.delete(this)) } return start.apply(this, a) }
		const Own = AudioContext; window.AudioContext = class extends Own { constructor(...a) { super(...a); window.contexts++ } } })()`)
	p.Go("/tunes/1/licks?at=5760")
	p.Has("Hear it")
	p.Idle()
	// Stopped while it loads, it never plays.
	p.Press(" ", " ")
	p.Until("silence", "document.querySelector('header .play').getAttribute('aria-label') === 'Play'")
	p.Idle()
	assert.Equal(t, 0, js[int](p, "window.sounding.size"))
	// It goes on in every step.
	p.Press(" ")
	p.Until("sound", "document.querySelector('.strip .bar.playing')")
	for _, step := range []string{"2", "3", "1", "4"} {
		p.Press(step)
		p.Until("the step", "document.querySelector('header .play').getAttribute('aria-label') === 'Stop'")
	}
	p.Until("it is told on the strip", "document.querySelector('.strip .bar.playing')")
	p.Press(" ")
	p.Until("nothing to sound any more", "window.sounding.size === 0 && document.querySelector('header .play').getAttribute('aria-label') === 'Play'")
	// A request that is refused leaves nothing behind, however often.
	js[any](p, `window.intercept = (method, url) => url.includes('/api/compute/band/performance') ? new Response(JSON.stringify({ status: 422, detail: 'no such bar' }),
		{ headers: { 'Content-Type': 'application/problem+json', 'Preference-Applied': 'refusal-as-answer' } }) : undefined`)
	for range 3 {
		p.Press(" ")
		p.Sees("no such bar")
		p.Until("silence", "document.querySelector('header .play').getAttribute('aria-label') === 'Play'")
		p.Click("Close")
	}
	js[any](p, "window.intercept = undefined")
	p.Press(" ")
	p.Until("sound again", "document.querySelector('.strip .bar.playing')")
	p.Press(" ")
	p.Until("and silence", "window.sounding.size === 0")
	assert.Equal(t, 1, js[int](p, "window.contexts"), "one engine for the page's life")
}

// The program is killed while the player types, and started again: nothing that was typed
// is lost, and the page says how it stands.
func TestKilledWhileTyping(t *testing.T) {
	data := filepath.Join(t.TempDir(), "own.db")
	s := serve(t, "demo", data)
	p := openPage(t, s, "/tunes/1/licks?licks.lick=7&licks.panel=write")
	p.ServerMayFail()
	p.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3")
	p.Press(kb.End, "8")
	p.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3", "8 R")
	s.kill(t)
	p.Sees("Not saved: Undaris does not answer", "It is kept in this browser meanwhile")
	p.Until("the word", "document.querySelector('header .saved').textContent.trim() === 'not saved'")
	again := serveAt(t, "demo", data, s.addr())
	p.Saved()
	assert.Contains(t, p.file("/api/licks/7"), `"tick":1920`, "what was typed is kept")
	again.kill(t)
}

// A step that cannot be loaded while the program is away is said, and opens once it is back.
func TestAStepThatCannotBeLoaded(t *testing.T) {
	data := filepath.Join(t.TempDir(), "own.db")
	s := serve(t, "demo", data)
	p := openPage(t, s, "/tunes/1/map")
	p.Has("Bar 2, F7, IV")
	p.Idle()
	p.ServerMayFail()
	s.kill(t)
	p.Click("5 Solo")
	p.Sees("This part of the page could not be loaded", "Nothing is lost")
	again := serveAt(t, "demo", data, s.addr())
	p.Click("Close")
	p.Click("5 Solo")
	p.Sees("Drop the band")
	again.kill(t)
}

// Edits that could not be saved are offered when the page comes back.
func TestEditsOfALostPageAreOffered(t *testing.T) {
	data := filepath.Join(t.TempDir(), "own.db")
	s := serve(t, "demo", data)
	p := openPage(t, s, "/")
	p.ServerMayFail()
	p.Intercept()
	p.Go("/tunes/1/chart?chart.panel=tune")
	p.Has("Title")
	s.kill(t)
	// The edit is computed by the server, so the last one that can be lost is one that was
	// made and not saved yet.
	s = serveAt(t, "demo", data, s.addr())
	js[any](p, `window.intercept = (method) => method === 'PUT' ? Promise.reject(new TypeError('away')) : undefined`)
	p.TypeInto("Title", "Tin Roof Ferry, late")
	p.Press("\t")
	p.Sees("Not saved")
	p.Answer(true) // leave all the same
	require.NoError(t, p.leave())
	p.Go("/tunes/1/chart?chart.panel=tune")
	p.Sees("has edits of", "that were never saved")
	p.Click("Take them up")
	p.Until("the title", "document.querySelector('header .title').textContent.includes('late')")
	p.Saved()
	assert.Contains(t, p.file("/api/charts/1"), "Tin Roof Ferry, late")
	p.Until("nothing more is offered", "!document.body.innerText.includes('never saved')")
	_ = s
}

// Two windows on one solo: the second is told, and both stay.
func TestTwoWindowsOnOneSolo(t *testing.T) {
	s := demo(t)
	one, two := openPage(t, s, "/tunes/1/solo"), openPage(t, s, "/tunes/1/solo")
	two.Expect(412)
	one.Until("the chorus", "document.querySelectorAll('.line .event').length > 5")
	two.Until("the chorus", "document.querySelectorAll('.line .event').length > 5")
	one.Press("<")
	one.Has("Undo: thin it")
	one.Saved()
	two.Press("k")
	two.TypeInto("Name", "Mine")
	two.Press("\t")
	two.Sees("This solo was saved elsewhere in the meantime; nothing was overwritten")
	js[any](two, "document.activeElement.blur()")
	two.Press("2")
	two.Sees("The solo “Mine” was saved elsewhere in the meantime; nothing was overwritten") // on every step, by its name
	two.Press("5")
	two.Sees("This solo was saved elsewhere in the meantime; nothing was overwritten")
	two.Click("Keep mine as a new solo")
	two.Until("both are listed", "document.querySelectorAll('section[aria-label=\"Solos of the tune\"] li').length === 2")
	two.Until("mine is open", "document.querySelector('.entry[aria-current]')?.textContent.trim() === 'Mine'")
}

// A tune that is deleted in one window while it is played in another stays on screen there,
// and can be brought back.
func TestATuneDeletedElsewhere(t *testing.T) {
	s := demo(t)
	one, two := openPage(t, s, "/tunes/3/map"), openPage(t, s, "/")
	one.Expect(404)
	one.Has("Bar 2, F♯m7, i")
	one.Press(" ")
	one.Until("it plays", "document.querySelector('.strip .bar.playing')")
	two.Click("Delete Salt Road at Dusk")
	two.Sees("“Salt Road at Dusk” is deleted")
	one.Choose("Key", "A minor")
	one.Has("Bar 2, Am7, i")
	one.Sees("This tune was deleted elsewhere in the meantime")
	one.Press(" ")
	one.Until("it stops", "document.querySelector('header .play').getAttribute('aria-label') === 'Play'")
	one.Click("Restore it and keep mine")
	one.Saved()
	two.Go("/")
	two.Until("it is there again, in A minor", "[...document.querySelectorAll('.tunes a')].some(a => a.innerText.includes('Salt Road at Dusk') && a.innerText.includes('A minor'))")
}

// One row that cannot be read is listed with what is wrong, and hides nothing but itself.
func TestADamagedTuneIsListed(t *testing.T) {
	data := filepath.Join(t.TempDir(), "own.db")
	s := serve(t, "demo", data)
	db, err := sql.Open("sqlite", "file:"+data+"?_pragma=busy_timeout(5000)")
	require.NoError(t, err)
	_, err = db.Exec(`update documents set body='oops' where id=2`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	p := openPage(t, s, "/")
	p.Sees("Cold Kettle cannot be read", "Tin Roof Ferry", "Salt Road at Dusk", "Paper Lanterns")
	p.Click("Earlier versions")
	p.Sees("cannot be read: what is kept cannot be read")
	assert.Equal(t, "oops", p.file("/api/charts/2/text"))
	p.Click("Delete Cold Kettle")
	p.Sees("“Cold Kettle” is deleted")
	p.Until("it is gone from the list", "!document.querySelector('.broken')")
	p.Go("/tunes/2/map")
	p.Expect(404)
}

// Whatever the address holds, every step opens.
func TestNonsenseInTheAddress(t *testing.T) {
	p := openPage(t, demo(t), "/")
	for _, path := range []string{
		"/tunes/1/map?at=banana&pos=Q-99&map.over=%00&map.layout=some+strings:9-1&map.label=odd&map.bench=9&map.hide=%F0%9F%8E%B8",
		"/tunes/1/change?at=-5&change.bench=x&change.here=9:99&change.notes=1e9&change.beats=-1&change.pins=1@2:3+x@y&change.places=1:1+1:1+0:0&target=x&sub=64th&strategy=none",
		"/tunes/1/licks?licks.lick=999999&licks.panel=odd&licks.behind=-1&licks.between=99&licks.fix=a+b+99999&licks.find=%26%3D&licks.move=|9&approach=jump",
		"/tunes/1/licks?licks.panel=verdict&licks.fix=&at=99999999999", "/tunes/1/licks?licks.line=77",
		"/tunes/1/solo?solo.id=999&solo.chorus=0&solo.bench=odd&solo.hear=nothing&at=NaN", "/tunes/1/chart?chart.panel=odd&at=1.5",
	} {
		if strings.Contains(path, "licks.line=77") {
			p.Expect(404)
		}
		p.Go(path)
		p.Until("the tune", "document.querySelector('header h1')")
		p.Idle()
		p.Until("the step", "document.querySelector('main section')")
	}
}

// How many requests the page makes for one gesture of the player.
func TestFewRequestsForOneGesture(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart?chart.panel=tune")
	count := func(what string, most int, act func()) {
		p.Saved()
		p.Idle()
		time.Sleep(200 * time.Millisecond) // what a page asks once it is shown
		p.Idle()
		before := p.asked()
		act()
		p.Saved()
		p.Idle()
		made := p.asked() - before
		t.Logf("%s: %d requests", what, made)
		assert.LessOrEqual(t, made, most, what)
	}
	count("typing a title", 2, func() {
		p.TypeInto("Title", "A rather long new title")
		p.Press("\t")
		p.Until("it", "document.querySelector('header .title').textContent.includes('rather')")
	})
	p.Go("/tunes/1/solo")
	p.Until("the chorus", "document.querySelectorAll('.line .event').length > 5")
	count("six presses on the blend", 2, func() {
		js[any](p, "document.querySelector('[aria-label=\"Blend of bar 1\"]').focus()")
		p.Press(kb.ArrowUp, kb.ArrowUp, kb.ArrowUp, kb.ArrowUp, kb.ArrowUp, kb.ArrowUp)
		p.Has("Undo: draw the blend")
	})
	p.Undo()
	p.Until("one gesture is one step", "document.querySelector('header [aria-label=Undo]')")
	count("changing the key in Solo", 8, func() {
		p.Choose("Key", "D")
		p.Has("Undo: transpose to D")
	})
}

// Two windows on one lick: the second is told, and both stay.
func TestTwoWindowsOnOneLick(t *testing.T) {
	s := demo(t)
	path := "/tunes/1/licks?licks.panel=write&licks.lick=10"
	one, two := openPage(t, s, path), openPage(t, s, path)
	two.Expect(412)
	two.Sees("Written in C") // both have read it before it is changed
	two.Idle()
	one.TypeInto("Name", "Tied up")
	one.Press("\t")
	one.Has("Undo: rename the lick")
	one.Saved()
	two.TypeInto("Name", "Cast off")
	two.Press("\t")
	two.Sees("This lick was saved elsewhere in the meantime; nothing was overwritten")
	two.Click("Keep mine as a new lick")
	two.Until("it is listed", "[...document.querySelectorAll('aside li, .shelf li, li')].some(l => l.textContent.includes('Cast off'))")
	two.Go("/tunes/1/licks")
	two.Sees("Cast off", "Tied up")
}

// A version of a lick is named, and brought back after the lick was changed; that is undone, too.
func TestALickGoesBackToANamedVersion(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?licks.panel=versions&licks.lick=10")
	p.Sees("Rope and cleat: 8 notes, in C")
	p.Click("Name version 1")
	p.TypeInto("Name of version 1", "as it came")
	p.Press(kb.Enter)
	p.Sees("as it came")
	p.Click("Write")
	p.TypeInto("Name", "Tied up")
	p.Press("\t")
	p.Saved()
	p.Click("Versions")
	p.Sees("Tied up: 8 notes, in C", "as it came")
	p.Click("Restore version 1")
	p.Until("it is as it came", "document.querySelector('.says .name').textContent === 'Rope and cleat'")
	p.Undo()
	p.Until("that is undone", "document.querySelector('.says .name').textContent === 'Tied up'")
}
