package e2e

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// frets are those of the time line, in order of time.
func (p *Page) frets() []string {
	return js[[]string](p, `[...document.querySelectorAll('.line .event')].map(e => e.dataset.event + ':' + e.querySelector('.fret').textContent)`)
}

// blocks are the labels of the blocks on the time line.
func (p *Page) blocks() []string {
	return js[[]string](p, `[...document.querySelectorAll('[data-block]')].map(b => b.getAttribute('aria-label'))`)
}

// planned opens the Solo step of Salt Road at Dusk, which has no solo yet, and plans one
// with a seed.
func (p *Page) planned(seed int) {
	p.t.Helper()
	p.Sees("No solo over this tune yet")
	p.Click("Plan a chorus")
	p.Sees("Drop the band", "Plan again")
	p.Press("w")
	p.TabTo("Seed")
	p.Hold("a")
	p.Type(fmt.Sprint(seed))
	p.Press(kb.Tab)
	p.Until("it is planned again", "!document.querySelector('header [aria-label^=Undo]').disabled && document.querySelector('.saved').textContent === 'saved'")
	p.Click("Time line")
	p.Until("the chorus", "document.querySelectorAll('.line .event').length > 5")
	p.Saved()
}

// pressBlock gives a block the keyboard.
func (p *Page) focusBlock(index int) {
	p.t.Helper()
	p.Until("the block", expression("document.querySelector('[data-block=\"%d\"]')", index))
	js[any](p, expression("document.querySelector('[data-block=\"%d\"]').focus()", index))
}

// A player plans a chorus, locks a lick of it, and rolls the rest anew: the lick stays.
func TestASoloIsPlannedLockedAndRolledAgain(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/3/solo")
	p.planned(7)
	before := p.frets()
	index := js[int](p, `[...document.querySelectorAll('[data-block]')].find(b => b.classList.contains('lick')).dataset.block * 1`)
	p.focusBlock(index)
	name := p.Focused()
	p.Press("x")
	p.Until("it is locked", "document.querySelector('.block.locked')")
	require.Contains(t, strings.Join(p.blocks(), "\n"), name[strings.Index(name, ":")+2:strings.Index(name, ",")])
	p.Press("p")
	p.Until("another chorus", expression("[...document.querySelectorAll('.line .event')].map(e => e.dataset.event + ':' + e.querySelector('.fret').textContent).join() !== %s", quoted(strings.Join(before, ","))))
	kept := name[strings.Index(name, ":")+2 : strings.Index(name, ",")]
	labels := strings.Join(p.blocks(), "\n")
	assert.Contains(t, labels, kept+", lick, locked", "the locked lick stays")

	// What was done can be undone, as often as it was done.
	p.Press("x")
	p.Undo()
	p.Undo()
	p.Until("the chorus before", expression("[...document.querySelectorAll('.line .event')].map(e => e.dataset.event + ':' + e.querySelector('.fret').textContent).join() === %s", quoted(strings.Join(before, ","))))

	// The same seed gives the same chorus, once nothing is locked.
	if js[bool](p, "Boolean(document.querySelector('.block.locked'))") {
		p.Undo()
	}
	p.Press("w")
	p.TabTo("Seed")
	p.Hold("a")
	p.Type("8")
	p.Press(kb.Tab)
	p.Saved()
	p.TabBackTo("Seed")
	p.Hold("a")
	p.Type("7")
	p.Press(kb.Tab)
	p.Saved()
	p.Click("Time line")
	p.Until("the chorus of the seed", expression("[...document.querySelectorAll('.line .event')].map(e => e.dataset.event + ':' + e.querySelector('.fret').textContent).join() === %s", quoted(strings.Join(before, ","))))
}

// A block is moved, stretched and silenced by keyboard, and dragged with the mouse.
func TestBlocksAreMovedByKeyboardAndMouse(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/3/solo")
	p.planned(3)
	at := func(index int) float64 {
		return js[float64](p, expression("document.querySelector('[data-block=\"%d\"] .body').getBoundingClientRect().left", index))
	}
	last := js[int](p, `[...document.querySelectorAll('[data-block]')].filter(b => !b.classList.contains('rest') && b.querySelector('.body').getBoundingClientRect().left < 850).at(-1).dataset.block * 1`)
	p.focusBlock(last)
	p.Until("its tools", "document.querySelector('.tools .name')")
	was := at(last)
	p.Press(kb.ArrowRight)
	p.Until("it has moved", expression("[...document.querySelectorAll('.block.selected .body')].some(b => Math.abs(b.getBoundingClientRect().left - %f) > 5)", was))
	p.Undo()
	p.Until("it is back", expression("Math.abs(document.querySelector('[data-block=\"%d\"] .body').getBoundingClientRect().left - %f) < 2", last, was))
	p.focusBlock(last)
	p.Press("m")
	p.Until("it is muted", "document.querySelector('.block.muted')")
	p.Press("m")
	p.Until("it is heard", "!document.querySelector('.block.muted')")
	// Dragged with the mouse a beat to the left, and its end a beat to the right.
	was = at(last)
	beat := js[float64](p, "[...document.querySelectorAll('.line line.beat')].slice(0, 2).reduce((a, l) => l.getBoundingClientRect().left - a, 0) * 1")
	require.Greater(t, beat, 20.0)
	y := js[float64](p, expression("(b => b.top + b.height / 2)(document.querySelector('[data-block=\"%d\"] .body').getBoundingClientRect())", last))
	p.Drag(was+20, y, was+20-beat, y)
	p.Until("it has been dragged", expression("Math.abs(document.querySelector('.block.selected .body').getBoundingClientRect().left - %f) < 4", was-beat))
	p.Undo()
	p.Until("it is back", expression("Math.abs(document.querySelector('[data-block=\"%d\"] .body').getBoundingClientRect().left - %f) < 2", last, was))

	// Its notes are written in the tab editor, and stand in the chorus at once.
	as := strings.Join(p.frets(), ",")
	require.NotRegexp(t, ":1(,|$)", as, "no first fret is played yet")
	p.focusBlock(last)
	p.Press("e")
	p.Until("the editor", "document.activeElement.classList.contains('editor')")
	p.Press("1")
	p.Press(kb.Escape)
	p.Click("Done")
	p.Until("it stands in the chorus", expression("[...document.querySelectorAll('.line .event .fret')].some(f => f.textContent === '1')"))
	p.Undo()
	p.Until("it is as it was", expression("[...document.querySelectorAll('.line .event')].map(e => e.dataset.event + ':' + e.querySelector('.fret').textContent).join() === %s", quoted(as)))

	p.focusBlock(last)
	p.Until("it is chosen", expression("document.querySelector('[data-block=\"%d\"].selected')", last))
	notes := len(p.frets())
	p.Press(kb.Delete)
	p.Until("it is silent", expression("document.querySelectorAll('.line .event').length < %d", notes))
	p.Saved()
}

// Three choruses are planned as one solo; undo takes them back to the one there was.
func TestThreeChorusesArePlannedAsOne(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/3/solo")
	p.planned(3)
	p.Click("plan three as one")
	p.Until("three choruses", "document.querySelectorAll('.choruses [aria-label^=\"Chorus \"][aria-pressed]').length === 3")
	p.Saved()
	first := strings.Join(p.frets(), ",")
	p.Click("Chorus 3")
	p.Until("the last chorus", expression("[...document.querySelectorAll('.line .event')].map(e => e.dataset.event + ':' + e.querySelector('.fret').textContent).join() !== %s", quoted(first)))
	p.Undo()
	p.Until("one chorus again", "document.querySelectorAll('.choruses [aria-label^=\"Chorus \"][aria-pressed]').length === 1")
}

// Drag presses the mouse at one place and lets go at another.
func (p *Page) Drag(x, y, toX, toY float64) {
	p.t.Helper()
	for _, one := range []struct {
		kind input.DispatchMouseEventType
		x, y float64
	}{{input.DispatchMouseEventTypeMousePressed, x, y}, {input.DispatchMouseEventTypeMouseMoved, (x + toX) / 2, (y + toY) / 2}, {input.DispatchMouseEventTypeMouseMoved, toX, toY}, {input.DispatchMouseEventTypeMouseReleased, toX, toY}} {
		_, err := chromedp.Call(p.ctx, input.DispatchMouseEvent, input.DispatchMouseEventParams{
			Type: one.kind, X: one.x, Y: one.y, Button: input.MouseButtonLeft, Buttons: 1, ClickCount: 1,
		})
		require.NoError(p.t, err)
	}
}

// A chorus of the box alone loses changes where there are two in a bar: the strip says where, a repair settles one.
func TestAChordIsHeardAgainAfterARepair(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/4/solo")
	p.planned(5)
	p.Press("w")
	p.Click("the box, made up")
	p.Saved()
	p.TabTo("Blend of all bars")
	p.Press(kb.Home)
	p.Until("the last plan", "document.querySelector('header [aria-label^=\"Undo: draw the blend\"]')")
	p.Saved()
	p.Until("two chords in a bar, and the box alone", "document.querySelector('.strip .dropped.unclear, .strip .dropped.another-chord')")
	p.Press("v")
	p.Until("the places that could be better", "document.querySelector('.verdict summary')")
	js[any](p, "document.querySelector('.verdict summary').click()")
	p.Sees("would settle it")
	heard := js[string](p, "document.querySelector('.says strong').textContent")
	p.Until("a repair", "document.querySelector('[aria-label^=\"Repair: \"]')")
	js[any](p, `[...document.querySelectorAll('section[aria-label="What could be better"] li')].find(l => /might be|heard as/.test(l.textContent) && l.querySelector('.chip')).querySelector('.chip').click()`)
	p.Sees("issues, heard alone")
	assert.Equal(t, heard, js[string](p, "document.querySelector('.says strong').textContent"), "it is only looked at")
	p.Click("Apply")
	p.Until("what was looked at is done", "!document.querySelector('.looked')")
	p.Saved()
}

// The band drops out: chords and bass fall silent, the line and the click go on. The whole
// solo can be heard, and a bar of it.
func TestTheBandDropsOut(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Before(`
		const asked = window.fetch
		window.performances = []
		window.fetch = async (...args) => {
			const request = args[0] instanceof Request ? args[0].clone() : undefined
			if (request && request.url.endsWith('/api/compute/band/performance')) window.performances.push(await request.json())
			return asked(...args)
		}`)
	p.Go("/tunes/1/solo")
	p.Sees("Drop the band")
	p.Press("d")
	p.Until("it is to drop out", "[...document.querySelectorAll('.chip[aria-pressed=true]')].some(b => b.textContent.trim() === 'drop the band')")
	p.Press(" ")
	p.Until("a performance", "window.performances.length === 1")
	asked := js[map[string]any](p, "window.performances[0]")
	assert.Equal(t, []any{"drums", "bass", "chords"}, asked["silent"])
	assert.EqualValues(t, 12, asked["bars"])
	assert.NotEmpty(t, asked["line"].(map[string]any)["events"])
	p.Until("a note of the line is lit", "document.querySelector('.event.lit')")
	p.Press(" ")
	p.Press("d")
	p.Choose("What is heard", "all choruses")
	p.Idle()
	p.Press(" ")
	p.Until("the whole solo", "window.performances.length === 2")
	asked = js[map[string]any](p, "window.performances[1]")
	assert.Empty(t, asked["silent"])
	assert.EqualValues(t, 24, asked["bars"], "two choruses")
	p.Press(" ")
}

// A solo is grown and thinned, compared, kept under a name, copied, taken away, and opened
// again as it was.
func TestASoloIsKeptTakenAwayAndOpenedAgain(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/solo")
	p.Sees("Drop the band")
	p.Until("the chorus", "document.querySelectorAll('.line .event').length > 5")
	full := p.frets()
	for range 3 {
		p.Press("<")
		p.Idle()
	}
	p.Sees("chord tones")
	p.Until("it is thin", expression("document.querySelectorAll('.line .event').length < %d", len(full)))
	for range 3 {
		p.Press(">")
		p.Idle()
	}
	p.Until("it has grown again", expression("document.querySelectorAll('.line .event').length === %d", len(full)))
	assert.Equal(t, full, p.frets(), "nothing was lost")
	p.Press("c")
	p.Until("two choruses side by side", "document.querySelectorAll('.columns article').length === 2")
	p.Press("k")
	p.Sees("Export", "Versions", "Plain-text tab")
	p.Until("its version", "document.querySelectorAll('section[aria-label=\"Versions of the solo\"] li').length === 1")
	p.Click("Duplicate")
	p.Sees(", copy")
	p.Saved()
	// The exported file read back has the notes of the solo.
	p.Until("the copy in the address", "location.search.includes('solo.id=')")
	same := js[string](p, "location.search")
	id := strings.Split(strings.Split(same, "solo.id=")[1], "&")[0]
	for _, format := range []string{"musicxml", "tab"} {
		counts := readBack(p, id, format)
		require.Len(t, counts, 2, format)
		assert.Equal(t, counts[0], counts[1], "%s has every note", format)
	}
	p.Go("/tunes/1/solo?solo.id=" + id)
	p.Until("the chorus", "document.querySelectorAll('.line .event').length > 5")
	assert.Equal(t, full, p.frets(), "it is opened as it was kept")
	p.Press("k")
	p.Click("Delete")
	p.Sees("is deleted")
	p.Click("Restore it")
	p.Sees(", copy")
}

// readBack takes a solo away and reads the file as a lick: how many notes the solo has, and
// how many the file.
func readBack(p *Page, id, format string) []int {
	p.t.Helper()
	js[any](p, expression(`(async () => {
		window.counts = undefined
		const solo = await (await fetch('/api/solos/%s')).json()
		const chart = await (await fetch('/api/charts/' + solo.chartId)).json()
		const joined = await (await fetch('/api/compute/solo/line', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ chart: chart.chart, choruses: solo.solo.choruses }) })).json()
		const file = await (await fetch('/api/solos/%s/export/%s')).text()
		const read = await (await fetch('/api/compute/lick/import', { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body: file })).json()
		window.counts = [joined.phrase.events.length, read.lick.events.length]
	})() && null`, id, id, format))
	p.Until("the file read", "window.counts")
	return js[[]int](p, "window.counts")
}

// A refusal names the place and keeps what was there.
func TestAnOwnPhrasePlanThatCannotBeReadIsSaid(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/solo?solo.bench=plan")
	p.Sees("Drop the band")
	p.Choose("Phrase plan", "own letters")
	p.TabTo("Own phrase plan")
	p.Hold("a")
	p.Type("ABBA")
	p.Press(kb.Enter)
	p.Sees("is not a phrase plan", "question-answer")
	p.Sees("Drop the band", "saved")
}

// A note that is still being worked out when Done is clicked, and another chorus is gone to,
// comes into its block of its chorus all the same.
func TestANoteOnItsWayIsNotLost(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Before(`(() => { const ask = fetch; window.fetch = async (input, init) => {
		if ((input.url ?? String(input)).includes('/api/compute/lick')) await window.held
		return ask(input, init) } })()`)
	p.Go("/tunes/1/solo")
	p.Until("the chorus", "document.querySelectorAll('.line .event').length > 5")
	var listed []struct{ ID int }
	require.NoError(t, json.Unmarshal([]byte(p.file("/api/solos?chart=1")), &listed))
	require.NotEmpty(t, listed)
	solo := fmt.Sprintf("/api/solos/%d", listed[0].ID)
	before := p.file(solo)
	p.focusBlock(js[int](p, "[...document.querySelectorAll('[data-block]')].find(b => !b.classList.contains('rest')).dataset.block * 1"))
	p.Press("e")
	p.Until("the editor", "document.activeElement.classList.contains('editor')")
	js[any](p, "window.held = new Promise((go) => { window.release = go }), 1")
	p.Press("1", "9")
	p.Press(kb.Escape)
	p.Click("Done")
	p.Click("Chorus 2")
	p.Until("the second chorus", "new URLSearchParams(location.search).get('solo.chorus') === '2'")
	js[any](p, "window.release(), 1")
	p.Has("Undo: write a note")
	p.Saved()
	after := p.file(solo)
	choruses := func(text string) []string {
		var kept struct {
			Solo struct{ Choruses []json.RawMessage }
		}
		require.NoError(t, json.Unmarshal([]byte(text), &kept))
		require.Len(t, kept.Solo.Choruses, 2)
		return []string{string(kept.Solo.Choruses[0]), string(kept.Solo.Choruses[1])}
	}
	assert.Contains(t, choruses(after)[0], `"fret":19`)
	assert.NotContains(t, choruses(before)[0], `"fret":19`)
	assert.JSONEq(t, choruses(before)[1], choruses(after)[1], "the other chorus is as it was")
}
