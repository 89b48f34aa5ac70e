package e2e

import (
	"flag"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// window is a size a view is laid out for: px of width and height, whether it is touched, and the
// size of the player's text in per cent of the usual.
type window struct {
	width, height int64
	touch         bool
	text          int
}

var everyWindow = flag.Bool("every-window", false, "lay out every view in all windows, with the usual text and with twice that")

// windowsOf are the windows that a view is laid out in. Where all are asked for (make windows): seven widths, from a small
// phone to a large screen, and a phone that lies, each with the usual size of text and with twice that. Else those that are
// hardest, and of a panel, which stands in its view's frame, two of them.
func windowsOf(path string) []window {
	small, phone := window{width: 320, height: 640, touch: true}, window{width: 390, height: 844, touch: true}
	tablet, laptop := window{width: 820, height: 1180, touch: true}, window{width: 1280, height: 800}
	of := func(text int, all ...window) []window {
		for n := range all {
			all[n].text = text
		}
		return all
	}
	switch {
	case *everyWindow:
	case strings.Contains(path, "?"):
		return append(of(100, tablet), of(200, phone)...)
	default:
		return append(of(100, small, tablet, window{width: 1024, height: 768}), of(200, phone)...)
	}
	every := []window{small, phone, {width: 844, height: 390, touch: true}, tablet, {width: 1024, height: 768}, laptop, {width: 1920, height: 1080}, {width: 2560, height: 1440}}
	return append(of(100, every...), of(200, slices.Clone(every)...)...)
}

// Resize makes the tab another window, as a player's device would.
func (p *Page) Resize(w window) {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: w.touch})
	require.NoError(p.t, err)
	_, err = chromedp.Call(p.ctx, emulation.SetDeviceMetricsOverride, emulation.SetDeviceMetricsOverrideParams{Width: w.width, Height: w.height, DeviceScaleFactor: 1})
	require.NoError(p.t, err)
	// Twice laid out: what was measured is drawn for its new width.
	_, err = chromedp.Run(p.ctx, chromedp.Evaluate[any](fmt.Sprintf(`new Promise(done => {
		document.documentElement.style.setProperty('--larger', '%g')
		const frame = () => new Promise(requestAnimationFrame)
		frame().then(frame).then(frame).then(() => done(null))
	})`, float64(w.text)/100), chromedp.EvalAwaitPromise))
	require.NoError(p.t, err)
}

// assertLaidOut holds in every window that nothing of the view that is shown scrolls sideways, is
// too small to be read or pressed, is cut off, or lies over something else that is pressed.
func assertLaidOut(t *testing.T, p *Page, path string) {
	t.Helper()
	for _, w := range windowsOf(path) {
		p.Resize(w)
		least := 24
		if w.touch {
			least = 44
		}
		assert.Empty(t, js[[]string](p, fmt.Sprintf(badLayout, least)), "at %d by %d with text of %d %%", w.width, w.height, w.text)
	}
	p.Resize(window{width: 1280, height: 800, text: 100})
}

// badLayout finds what is wrong with a layout, given how large what is pressed has to be at least.
// Left out are: the small names of the box's dots; notes, which stand as close as the frets and the
// time do, but under the hand, and necks that are only read; chords that share a bar; links in sentences (WCAG 2.2, 2.5.8); and what is cut but has its
// whole text as a title.
const badLayout = `(() => {
	const least = %d, wide = document.documentElement.clientWidth, found = new Set()
	const say = (what, e, more = '') => found.add(what + ': ' + e.tagName.toLowerCase() + '.' + [...e.classList].join('.') + ' "' + (e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 24) + '" ' + more)
	const seen = (e) => e.getClientRects().length > 0 && e.checkVisibility() && getComputedStyle(e).visibility === 'visible' && !e.closest('[aria-hidden=true]')
	const within = (e, test) => { for (; e; e = e.parentElement) if (test(e)) return true; return false }
	const scrolls = (e) => { const o = getComputedStyle(e).overflowX; return o === 'auto' || o === 'scroll' || o === 'hidden' || o === 'clip' }

	if (document.documentElement.scrollWidth > wide + 1)
		for (const e of document.querySelectorAll('#app *')) {
			const r = e.getBoundingClientRect()
			if (r.right > wide + 1 && r.width && !e.ownerSVGElement && !within(e.parentElement, scrolls)) { say('sideways', e, Math.round(r.right)); if (found.size > 2) break }
		}

	const walker = document.createTreeWalker(document.querySelector('#app'), NodeFilter.SHOW_TEXT)
	while (walker.nextNode()) {
		const e = walker.currentNode.parentElement
		if (!walker.currentNode.textContent.trim() || !e.getClientRects().length || e.closest('script, style, title, .tiny')) continue
		const scale = e.ownerSVGElement ? Math.abs(e.getScreenCTM()?.d ?? 1) : 1
		const size = parseFloat(getComputedStyle(e).fontSize) * scale
		if (size < 11.9) say('small text', e, size.toFixed(1))
	}

	for (const e of document.querySelectorAll('#app *')) {
		const style = getComputedStyle(e)
		if (e.ownerSVGElement || !seen(e) || !['hidden', 'clip'].includes(style.overflowX) || !e.textContent.trim()) continue
		if (e.closest('[title], .p-hidden-accessible, .sr-only') || e.clientWidth < 2) continue
		if (e.scrollWidth > e.clientWidth + 1) say('cut off', e, e.scrollWidth + ' in ' + e.clientWidth)
	}

	const inSentence = (e) => e.tagName === 'A' && getComputedStyle(e).display === 'inline'
	const controls = [...document.querySelectorAll('#app :is(button, a, input, select, textarea, summary, [role=button], [role=tab], [role=slider], [role=combobox], [role=option])')]
		.filter(e => seen(e) && !e.closest('.p-hidden-accessible') && !inSentence(e))
	const underHand = (e) => { const reach = e.ownerSVGElement.querySelector('.reach').getBoundingClientRect(), r = e.getBoundingClientRect()
		return r.left + r.width / 2 > reach.left && r.left + r.width / 2 < reach.right }
	for (const e of controls) {
		if (e.ownerSVGElement && !(e.closest('.neck') && !e.closest('.reading') && !e.matches('.box, .ghost') && underHand(e))) continue
		const label = e.getAttribute('role') !== 'slider' && e.closest('label, .p-checkbox, .p-inputnumber, .p-select')
		const r = (label || e).getBoundingClientRect()
		if (e.ownerSVGElement) { if (r.height < least - 0.5 || r.width < Math.min(least, 40) - 0.5) say('small target', e, Math.round(r.width) + '×' + Math.round(r.height)) }
		else if (e.getAttribute('role') === 'slider' ? r.height < 23.5 : r.height < least - 0.5 || r.width < (e.closest('.split') ? 32 : least) - 0.5) say('small target', e, Math.round(r.width) + '×' + Math.round(r.height))
	}
	// What of a control is seen: not what is scrolled out of its list.
	const shown = (e) => { const r = e.getBoundingClientRect(), box = { left: r.left, right: r.right, top: r.top, bottom: r.bottom }
		for (let up = e.parentElement; up; up = up.parentElement) if (scrolls(up)) { const o = up.getBoundingClientRect()
			box.left = Math.max(box.left, o.left); box.right = Math.min(box.right, o.right); box.top = Math.max(box.top, o.top); box.bottom = Math.min(box.bottom, o.bottom) }
		return box }
	const flat = controls.filter(e => !e.ownerSVGElement && !e.closest('nav, .thumb, .p-inputnumber, .p-select') )
		.map(e => ({ e, r: shown(e) }))
	for (let i = 0; i < flat.length; i++) for (let j = i + 1; j < flat.length; j++) {
		const a = flat[i], b = flat[j]
		if (a.e.contains(b.e) || b.e.contains(a.e)) continue
		const x = Math.min(a.r.right, b.r.right) - Math.max(a.r.left, b.r.left), y = Math.min(a.r.bottom, b.r.bottom) - Math.max(a.r.top, b.r.top)
		if (x > 3 && y > 3) say('overlap', a.e, 'with ' + (b.e.getAttribute('aria-label') ?? b.e.textContent).trim().slice(0, 20))
	}
	return [...found].slice(0, 10)
})()`
