package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A list opens below what it belongs to, the first time too, by the mouse and by keys; chosen from by keys it keeps the
// keyboard.
func TestAListOpensBelowWhatItIsOf(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map")
	p.Until("the neck", "document.querySelectorAll('.neck .mark').length > 5")
	below := func(list string) {
		p.Until("the list", "document.querySelector('[role=listbox]')")
		off := js[[]float64](p, `(() => { const l = document.querySelector('[role=listbox]').closest('.p-select-overlay').getBoundingClientRect(),
			f = document.querySelector('[role=combobox][aria-label="`+list+`"]').closest('.p-select').getBoundingClientRect(); return [l.left - f.left, l.top - f.bottom] })()`)
		assert.InDelta(t, 0, off[0], 12, "%s: its left side", list)
		assert.InDelta(t, 0, off[1], 12, "%s: below", list)
	}
	p.Click("Position")
	below("Position")
	p.Press(kb.Escape)
	p.Until("it to close", "!document.querySelector('[role=listbox]')")
	p.Click("Position")
	below("Position")
	p.Press(kb.Escape)
	p.Until("it to close", "!document.querySelector('[role=listbox]')")
	chosen := func() string { return js[string](p, "document.querySelector('[aria-label=Box]').textContent") }
	before := chosen()
	js[any](p, "document.querySelector('[role=combobox][aria-label=Box]').focus()")
	p.Press(kb.ArrowDown)
	below("Box")
	p.Press(kb.ArrowDown, kb.Enter)
	p.Until("another box", "document.querySelector('[aria-label=Box]').textContent !== '"+before+"'")
	assert.Equal(t, "Box", js[string](p, "document.activeElement.getAttribute('aria-label')"))
}

// While the program is away a list that was never opened cannot be fetched: what is chosen stays in sight, and it opens once
// the program is back.
func TestAListThatCannotBeFetched(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	s := serve(t, "demo", data)
	addr := s.addr()
	p := openPage(t, s, "/tunes/1/map")
	p.ServerMayFail()
	p.Until("the neck", "document.querySelectorAll('.neck .mark').length > 5")
	s.kill(t)
	p.Click("Box")
	p.Until("what is wrong", "document.querySelector('[role=alert]')?.innerText.includes('does not answer')")
	p.Has("Box")
	assert.Contains(t, js[string](p, "document.querySelector('[aria-label=Box]').textContent"), "pentatonic")
	serveAt(t, "demo", data, addr)
	p.Click("Box")
	p.Until("the list", "document.querySelector('[role=listbox]')")
}
