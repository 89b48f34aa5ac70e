package e2e

import (
	"fmt"
	"net/http"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// chooseBar presses a bar of the chart, counted from 1.
func (p *Page) chooseBar(bar int) {
	p.t.Helper()
	p.ClickOn(fmt.Sprintf("bar %d", bar), fmt.Sprintf("document.querySelectorAll('.sheet .cell:not(.fresh) .bar')[%d]", bar-1))
}

// barIs waits until a bar of the chart, counted from 1, is drawn so.
func (p *Page) barIs(bar int, want string) {
	p.t.Helper()
	p.Until(fmt.Sprintf("bar %d to be %s", bar, want), fmt.Sprintf(
		"[...(document.querySelectorAll('.sheet .cell:not(.fresh)')[%d]?.querySelectorAll('.chord') ?? [])].map((c) => c.innerText.trim()).join(' ') === %s", bar-1, quoted(want)))
}

// What is typed while the program is away waits in the page, is said not to be saved, and is there when it is back.
func TestTypedWhileTheProgramIsAway(t *testing.T) {
	data := filepath.Join(t.TempDir(), "own.db")
	s := serve(t, "demo", data)
	p := openPage(t, s, "/tunes/1/chart")
	p.barIs(5, "F7")
	p.ServerMayFail()
	s.kill(t)
	p.chooseBar(5)
	p.Type("d7")
	p.Press(kb.Enter)
	p.Type("e7")
	p.Press(kb.Enter)
	p.Until("what is typed to be shown", "document.querySelector('.sheet').innerText.includes('d7')")
	p.Until("it to be said", "document.querySelector('.saved').innerText === 'not saved'")
	serveAt(t, "demo", data, s.addr())
	p.barIs(5, "D7")
	p.barIs(6, "E7")
	p.Saved()
	p.Go("/tunes/1/chart")
	p.barIs(5, "D7")
	p.barIs(6, "E7")
}

// While a bar is chosen, letters of either case and figures are its own; after Escape figures lead to the steps.
func TestABarTakesWhatIsTyped(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart")
	for _, c := range [][2]string{{"am7", "Am7"}, {"d9", "D9"}, {"4", ""}} {
		p.chooseBar(2)
		p.Type(c[0])
		if c[1] == "" {
			p.Until("the step to be the same", "location.pathname.endsWith('/chart')")
			p.Press(kb.Escape, kb.Escape)
			continue
		}
		p.Press(kb.Enter)
		p.barIs(2, c[1])
	}
	p.chooseBar(3)
	p.Type("h7")
	p.Press(kb.Enter)
	p.Until("B to be offered", "[...document.querySelectorAll('.chip, button')].some(b => b.innerText.trim() === 'B7')")
	p.Press(kb.Escape, kb.Escape)
	js[any](p, "document.activeElement.blur()")
	p.Press("2")
	p.Until("the map", "location.pathname.endsWith('/map')")
}

// Redo takes what was undone last, whichever document that was in, and says what it is.
func TestRedoTakesWhatWasUndoneLast(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart")
	p.chooseBar(2)
	p.Type("Bb7")
	p.Press(kb.Enter)
	p.barIs(2, "B♭7")
	p.Undo()
	p.barIs(2, "F7")
	// A lick is renamed, and that is undone last.
	js[any](p, "document.activeElement.blur()")
	p.Press("4")
	p.Click("Write")
	p.TypeInto("Name", "Tied up")
	p.Press("\t")
	p.Undo()
	p.Redo()
	p.Until("the lick to be renamed", "document.querySelector('.says .name').textContent === 'Tied up'")
	p.Sees("Redone: rename the lick")
	js[any](p, "document.activeElement.blur()")
	p.Press("1")
	p.barIs(2, "F7")
	p.Redo()
	p.barIs(2, "B♭7")
	p.Sees("Redone: write bar 2")
}

// Space stops the band after a slider was moved, and wherever the focus is but in a text.
func TestSpaceStopsWhereverTheFocusIs(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/play")
	p.Until("a level", "document.querySelector('input[type=range]')")
	p.Press(" ")
	p.Until("the band", playing)
	js[any](p, "document.querySelector('input[type=range]').focus()")
	p.Press(kb.ArrowLeft)
	p.Press(" ")
	p.Until("silence", "!("+playing+")")
}

// A take goes on while another step is on screen, is seen there, and is ended there; the band in it is looked for without
// a refusal.
func TestATakeGoesOnInAnotherStep(t *testing.T) {
	s := demo(t)
	p := openPageIn(t, browserThatHears(t, standInSound(t, s, 20), once), s, "/tunes/1/takes")
	p.Sees("First crossing, a week on")
	p.Click("Record a take")
	p.Until("three seconds", "document.querySelector('[role=timer]')?.innerText >= '0:03'")
	p.Press("2")
	p.Sees("Recording Tin Roof Ferry")
	assert.Contains(t, js[string](p, "document.title"), "recording")
	p.Until("a dot in the rail", "document.querySelector('nav .records')")
	p.Until("six seconds", "/0:0[6-9]/.test(document.querySelector('.recording').innerText)")
	p.Click("End the take")
	p.Until("it to be kept", "!document.querySelector('.recording')")
	p.Press("9")
	p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
	assert.False(t, js[bool](p, "Boolean(document.querySelector('span.now[aria-live=off]'))"), "nothing sounds any more")
	p.Until("the search for the band to be over", "!document.body.innerText.includes('Looking whether the band')")
	assert.Empty(t, js[string](p, "[...document.querySelectorAll('[role=alert]')].map(a => a.innerText).join('|')"))
	get, err := http.Get(s.base + "/api/takes?chart=1")
	if assert.NoError(t, err) {
		assert.NoError(t, get.Body.Close())
	}
}
