package e2e

import (
	"encoding/json"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/accessibility"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Spoken waits until what a screen reader is given has something of a role whose name contains a
// text, and returns that name.
func (p *Page) Spoken(role, text string) string {
	p.t.Helper()
	for end := time.Now().Add(patience); time.Now().Before(end); time.Sleep(100 * time.Millisecond) {
		tree, err := chromedp.Call(p.ctx, accessibility.GetFullAXTree, accessibility.GetFullAXTreeParams{})
		require.NoError(p.t, err)
		for _, node := range tree.Nodes {
			if node.Ignored || node.Role == nil || node.Name == nil {
				continue
			}
			var is, name string
			_ = json.Unmarshal([]byte(node.Role.Value), &is)
			_ = json.Unmarshal([]byte(node.Name.Value), &name)
			if is == role && strings.Contains(name, text) {
				return name
			}
		}
	}
	require.Fail(p.t, "nothing is spoken so", "%s: %s", role, text)
	return ""
}

// Said waits until a polite live region says something.
func (p *Page) Said(text string) {
	p.t.Helper()
	p.Until("it to be said: "+text, `[...document.querySelectorAll('[aria-live=polite], [role=status]')].some(e => e.textContent.replace(/\s+/g, ' ').includes(`+quoted(text)+`))`)
}

// From the first visit on by roles and names alone: a player who sees nothing begins a blues, writes
// chords into it, reads a map as a list, hears a change, writes a lick and practises. Nothing is
// found by how it looks, and nothing is clicked.
func TestAPlayerWhoSeesNothing(t *testing.T) {
	p := openPage(t, serve(t, "serve", filepath.Join(t.TempDir(), "own.db")), "/")
	p.Spoken("button", "Begin with a blues in A")
	p.TabTo("Begin with a blues in A")
	p.Press(kb.Enter)
	p.Spoken("complementary", "What this step is for")
	p.Sees("The map shows where the tones of one chord lie under your hand.")

	// The chart: one stop, arrows within it; what is typed is read back.
	p.Press("1")
	p.Until("the first bar to have the keyboard", "(document.activeElement.getAttribute('aria-label') ?? '').startsWith('Bar 1, A7')")
	p.Press(kb.ArrowRight)
	assert.Equal(t, "Bar 2, D7 IV", p.Focused())
	p.Type("E7")
	p.Press(kb.Enter)
	p.Until("the next bar to have the keyboard", "(document.activeElement.getAttribute('aria-label') ?? '').startsWith('Bar 3, A7')")
	p.Spoken("button", "Bar 2, E7 V")
	p.Saved()
	// While a bar is chosen figures are its own; after Escape they lead to the steps again.
	p.Press(kb.Escape)

	// The map: the shape as a list from the lowest string up, and each note by itself.
	p.Press("2")
	p.Spoken("list", "on the neck, frets")
	p.Until("the notes in their order", `(() => { const all = [...document.querySelectorAll('main ol.spoken li')].map(li => Number(/string (\d)/.exec(li.textContent)?.[1])); return all.length > 5 && all.every((s, n) => n === 0 || all[n - 1] >= s) })()`)
	first := js[string](p, "document.querySelector('main ol.spoken li').textContent.trim()")
	assert.Regexp(t, `^A, root of A 7, string 6, fret 5`, first)
	p.Until("the place to be said", "document.querySelector('main > .spoken').textContent.includes('Bar 3, A7')")
	p.TabTo("Bar 3, A7, I")
	p.Press(kb.ArrowLeft, kb.Enter)
	p.Said("Bar 2, E7")

	// A change is announced, and heard.
	p.Press("3")
	p.Said("E7 gives way to A7")
	p.Spoken("tab", "Ways across")
	p.Spoken("list", "Moves, best first")
	p.TabTo("Hear it")
	p.Press(kb.Enter)
	p.Until("it sounds", "document.querySelector('.tab .note.lit')")
	p.Until("silence again", "!document.querySelector('.tab .note.lit')")

	// A lick is written; the place that is written at is said with each step.
	p.Press("4")
	p.TabTo("New")
	p.Press(kb.Enter)
	p.Until("the editor to have the keyboard", "document.activeElement.getAttribute('role') === 'application'")
	p.Said("string 1, bar 1 beat 1, empty")
	p.Press(kb.ArrowDown, "5")
	p.Said("string 2, bar 1 beat 1, E, ")
	p.Press(kb.ArrowRight)
	p.Said("string 2, bar 1 beat 1 and a half, empty")
	p.Press("7")
	p.Said("string 2, bar 1 beat 1 and a half, F")
	p.Saved()
	p.Press(kb.Escape)

	// Practice: a card, its choices and the answer.
	p.Press("7")
	p.Spoken("heading", "Today")
	p.TabTo("Any drill")
	p.Press(kb.Enter)
	p.TabTo("name the degree")
	p.Press(kb.Enter)
	p.Sees("card 1 of")
	p.Spoken("textbox", "Answer")
	p.TabTo("Answer")
	p.Type("R")
	p.Press(kb.Enter)
	p.Until("the answer to be said", "/Right\\.|Not that\\.|of \\d right/.test(document.querySelector('.answer[aria-live=polite]')?.textContent ?? '')")
}

// What is pressed by keys can be switched off, or put on other keys; two things never have one key.
func TestKeysOfOnesOwn(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map")
	p.Sees("makes the E form")
	p.Press("?")
	p.Click("change keys")
	p.Click("Key for: the full neck")
	p.Press("b")
	p.Said("b is the key for")
	p.Press("w")
	p.Until("another key", "!document.querySelector('.asked')")
	p.Press(kb.Escape)
	p.Until("the list of keys to close", "!document.querySelector('[role=dialog]')")
	p.Press("f")
	p.Idle()
	assert.Equal(t, "false", js[string](p, "[...document.querySelectorAll('button')].find(b => b.innerText === 'full neck').getAttribute('aria-pressed')"), "f is no key of it now")
	p.Press("w")
	p.Until("the full neck", "[...document.querySelectorAll('button')].find(b => b.innerText === 'full neck').getAttribute('aria-pressed') === 'true'")
	p.Press("?")
	p.Click("single characters off")
	p.Press(kb.Escape)
	p.Until("the list of keys to close", "!document.querySelector('[role=dialog]')")
	p.Press("w", "n")
	p.Idle()
	assert.False(t, js[bool](p, "document.documentElement.classList.contains('night')"))
	p.Press(kb.ArrowRight)
	p.Until("an arrow is a key still", "location.search.includes('at=')")
}

// Words are explained a key away: those of the view first; what is looked for is found.
func TestWordsOfTheScreen(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/change?at=5760")
	p.Sees("Bar 4 → 5")
	p.Press(kb.F1)
	p.Spoken("dialog", "What the words mean")
	p.Sees("On this screen", "the note of the arriving chord that a phrase reaches at a change")
	p.TabTo("Find a word")
	p.Type("vamp")
	p.Sees("one chord going round")
	p.Until("no other", "document.querySelectorAll('[role=dialog] dt').length === 1")
}

// A lesson sheet of chosen parts is one PDF, in large print too.
func TestALessonSheet(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart?chart.panel=file")
	p.Sees("Lesson sheet", "where to land, thirds first")
	p.Click("every chord in five positions")
	p.Click("large print")
	p.ClickOn("the licks", "[...document.querySelectorAll('summary')].find(e => e.innerText.includes('Licks'))")
	p.Click("Ferry call")
	p.Until("the lick in the address", "document.querySelector('a.go').href.includes('licks=')")
	address := js[string](p, "document.querySelector('a.go').getAttribute('href')")
	for _, part := range []string{"large=true", "chart=true", "strategy=thirds+first"} {
		assert.Contains(t, address, part)
	}
	assert.NotContains(t, address, "maps")
	assert.True(t, strings.HasPrefix(p.file(address), "%PDF"))
	drawn := p.file(strings.Replace(address, "paper=", "as=svg&paper=", 1))
	for _, text := range []string{">Ferry call<", ">Where to land: thirds first<", ">F7<"} {
		assert.Contains(t, drawn, text)
	}
}

// Two fingers spread the neck, which then is swiped, and everything can be set larger.
func TestFingersAndSize(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map")
	p.Resize(window{width: 390, height: 844, touch: true, text: 100})
	p.Until("the neck", "document.querySelectorAll('.neck .mark').length > 4")
	wide := func() float64 {
		return js[float64](p, "document.querySelector('svg.neck').getBoundingClientRect().width")
	}
	before := wide()
	js[bool](p, `(() => { const neck = document.querySelector('svg.neck'), r = neck.getBoundingClientRect()
		const at = (x, id) => new Touch({ identifier: id, target: neck, clientX: r.left + x, clientY: r.top + 60 })
		const send = (type, a, b) => neck.dispatchEvent(new TouchEvent(type, { bubbles: true, cancelable: true, touches: [at(a, 1), at(b, 2)] }))
		send('touchstart', 100, 160); send('touchmove', 70, 190); return true })()`)
	p.Until("the neck to be wider", expression("document.querySelector('svg.neck').getBoundingClientRect().width > %f", before*1.8))
	assert.LessOrEqual(t, js[int](p, "document.documentElement.scrollWidth"), 390, "only the neck is swiped")
	size := js[float64](p, "parseFloat(getComputedStyle(document.documentElement).fontSize)")
	p.Resize(window{width: 1280, height: 800, text: 100})
	js[bool](p, "(document.documentElement.style.removeProperty('--larger'), true)")
	p.Press(kb.F4)
	p.Until("larger letters", expression("parseFloat(getComputedStyle(document.documentElement).fontSize) > %f", size*1.25))
	p.Until("larger notes", "parseFloat(getComputedStyle(document.querySelector('.neck .tone .degree')).fontSize) * document.querySelector('svg.neck').getScreenCTM().d > 20")
	p.Press(kb.F4)
	p.Until("as before", expression("parseFloat(getComputedStyle(document.documentElement).fontSize) === %f", size))
}

// What a mouse is told by resting on an approach, a finger is told by holding it, and does not choose it by that.
func TestATitleIsShownToAFinger(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/4/change?at=1920")
	p.Resize(window{width: 820, height: 1180, touch: true, text: 100})
	const last = "[...document.querySelectorAll('[aria-label=Approaches] button')].at(-1)"
	p.Until("the approaches", last)
	p.Idle()
	at := js[[]float64](p, "(e => { e.scrollIntoView({ block: 'center' }); const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })("+last+")")
	touch := func(kind input.DispatchTouchEventType, points ...*input.TouchPoint) {
		_, err := chromedp.Call(p.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: points})
		require.NoError(t, err)
	}
	touch(input.DispatchTouchEventTypeTouchStart, &input.TouchPoint{X: at[0], Y: at[1]})
	p.Until("its title", "/: effort [\\d.]+, tension [\\d.]+/.test(document.querySelector('[role=tooltip]')?.innerText)")
	touch(input.DispatchTouchEventTypeTouchEnd)
	p.Idle()
	assert.Equal(t, "false", js[string](p, last+".getAttribute('aria-pressed')"))
	box := js[[]float64](p, "(r => [r.left, r.right, innerWidth])(document.querySelector('[role=tooltip]').getBoundingClientRect())")
	assert.True(t, box[0] >= 0 && box[1] <= box[2], "it lies within the window: %v", box)
	touch(input.DispatchTouchEventTypeTouchStart, &input.TouchPoint{X: at[0], Y: at[1]})
	touch(input.DispatchTouchEventTypeTouchEnd)
	p.Until("it is chosen", last+".getAttribute('aria-pressed') === 'true'")
	assert.False(t, js[bool](p, "Boolean(document.querySelector('[role=tooltip]'))"))
}

// In the player's own colours everything is there still: what is on is told by an outline, and axe finds nothing.
func TestForcedColours(t *testing.T) {
	p := openPage(t, demo(t), "/")
	_, err := chromedp.Call(p.ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{
		Features: []*emulation.MediaFeature{{Name: "forced-colors", Value: "active"}},
	})
	require.NoError(t, err)
	for _, path := range []string{"/", "/tunes/4/chart", "/tunes/1/map", "/tunes/1/change?at=5760", "/tunes/1/licks?at=5760", "/tunes/1/solo", "/tunes/1/play", "/tunes/1/practice", "/tunes/1/takes"} {
		p.Go(path)
		p.Until("the page", "document.querySelector('main h1')")
		p.Idle()
		// The colours are the player's, who has chosen what stands out from what.
		assert.Empty(t, slices.DeleteFunc(axe(t, p), func(found string) bool { return strings.HasPrefix(found, "color-contrast") }), path)
		plain := js[[]string](p, "[...document.querySelectorAll('main [aria-pressed=true], main [role=tab][aria-selected=true]')].filter(e => !e.ownerSVGElement && e.getClientRects().length && getComputedStyle(e).outlineStyle === 'none').map(e => e.outerHTML.slice(0, 90))")
		assert.Empty(t, plain, path)
	}
}

// Chords are put into bars from a pad, frets into tab from a strip, without a keyboard.
func TestWritingByTouch(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart")
	p.Resize(window{width: 820, height: 1180, touch: true, text: 100})
	p.Has("Bar 2, F7 IV")
	p.Click("Bar 2, F7 IV")
	p.Click("m7")
	p.Click("II")
	p.Has("Bar 2, Dm7 ii")
	p.Click("7")
	p.Click("V")
	p.Has("Bar 3, G7 V")
	p.Saved()
	p.Go("/tunes/1/licks?licks.fresh=yes&licks.panel=write")
	p.Has("Fret 8")
	p.Click("The string below")
	p.Click("Fret 8")
	p.Click("Fret 10")
	p.Until("two notes", "document.querySelectorAll('.editor .note').length === 2")
	assert.Equal(t, []string{"8", "10"}, js[[]string](p, "[...document.querySelectorAll('.editor .note .fret')].map(e => e.textContent.trim())"))
}
