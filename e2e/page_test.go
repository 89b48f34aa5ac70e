package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// patience is how long a page may take to show what is waited for: a chorus, on a busy machine.
const patience = time.Minute

// Page is one tab, used the way a player uses it: things are found by what they
// are called, clicked with the mouse and typed on the keyboard. Whatever goes
// wrong in the browser meanwhile fails the test, and leaves a picture and the
// page's HTML behind.
type Page struct {
	t    testing.TB
	ctx  context.Context
	base string

	mutex    sync.Mutex
	problems []string
	expected map[int64]bool
	inFlight map[network.RequestID]asked
	requests int
	// questions are the requests to the API, mayFail whether requests may fail, answer what
	// is answered when the browser asks.
	questions int
	mayFail   bool
	answer    *bool
	number    int
}

// opened counts the pages of a run, so that the pictures of two windows of one
// test do not overwrite each other.
var opened atomic.Int32

// openPage opens a tab of 1280 by 800 at a path of the server.
func openPage(t testing.TB, s *server, path string) *Page {
	t.Helper()
	return openPageIn(t, browser, s, path)
}

// openPageIn is openPage in a browser of the test's own.
func openPageIn(t testing.TB, browser context.Context, s *server, path string) *Page {
	t.Helper()
	ctx, cancel := chromedp.NewContext(browser, chromedp.WithNewBrowserContext())
	p := &Page{t: t, ctx: ctx, base: s.base, expected: map[int64]bool{}, inFlight: map[network.RequestID]asked{}, number: int(opened.Add(1))}
	t.Cleanup(func() {
		p.report()
		cancel()
	})
	require.NoError(t, chromedp.Listen(ctx, p.listen))
	require.NoError(t, chromedp.Do(ctx, chromedp.EmulateViewport(1280, 800)))
	// Each of several windows behaves as the one in front.
	_, err := chromedp.Call(ctx, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true})
	require.NoError(t, err)
	p.Go(path)
	return p
}

// asked is a request to the API that is not answered yet, and the document that asks.
type asked struct {
	url string
	by  cdp.LoaderID
}

// Before runs a script before every page that the tab loads from now on.
func (p *Page) Before(script string) {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: script})
	require.NoError(p.t, err)
}

// Go opens a path, once all that was done is saved: the browser would ask before it leaves.
func (p *Page) Go(path string) {
	p.t.Helper()
	p.Until("all to be saved", "(document.querySelector('.saved')?.textContent.trim() ?? 'saved') === 'saved'")
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.Navigate(p.base+path)))
}

// Leave lets go of the server, so that it may be stopped without a request of
// the page being refused.
func (p *Page) Leave() {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.Navigate("about:blank")))
}

func (p *Page) listen(event any) {
	switch e := event.(type) {
	case *runtime.EventExceptionThrown:
		p.note("exception: %s", e.ExceptionDetails.Text)
	case *runtime.EventConsoleAPICalled:
		if e.Type == runtime.ConsoleAPICalledTypeError || e.Type == runtime.ConsoleAPICalledTypeWarning {
			text := ""
			for _, arg := range e.Args {
				text += " " + string(arg.Value)
			}
			p.note("console %s:%s", e.Type, text)
		}
	case *network.EventRequestWillBeSent:
		p.mutex.Lock()
		p.requests++
		if strings.Contains(e.Request.URL, "/api/") {
			p.questions++
			p.inFlight[e.RequestID] = asked{e.Request.URL, e.LoaderID}
		}
		p.mutex.Unlock()
		if u, err := url.Parse(e.Request.URL); err == nil && u.Scheme != "data" && u.Scheme != "blob" && u.Scheme != "about" && u.Scheme+"://"+u.Host != p.base {
			p.note("a request to another host: %s", e.Request.URL)
		}
	case *page.EventFrameNavigated:
		// What the page before has asked is answered no more.
		p.mutex.Lock()
		maps.DeleteFunc(p.inFlight, func(_ network.RequestID, one asked) bool { return one.by != e.Frame.LoaderID })
		p.mutex.Unlock()
	case *network.EventResponseReceived:
		// Nothing more is told of a response without a body.
		p.landed(e.RequestID)
		if e.Response.Status >= 400 && !p.expects(e.Response.Status) {
			p.note("status %d for %s", e.Response.Status, e.Response.URL)
		}
	case *page.EventJavascriptDialogOpening:
		p.mutex.Lock()
		answer := p.answer
		p.mutex.Unlock()
		if answer == nil {
			p.note("the browser asks: %s %s", e.Type, e.Message)
		}
		go func() {
			_, _ = chromedp.Call(p.ctx, page.HandleJavaScriptDialog, page.HandleJavaScriptDialogParams{Accept: answer == nil || *answer})
		}()
	case *network.EventLoadingFailed:
		p.landed(e.RequestID)
		p.mutex.Lock()
		mayFail := p.mayFail
		p.mutex.Unlock()
		if !e.Canceled && !mayFail {
			p.note("a request failed: %s", e.ErrorText)
		}
	}
}

func (p *Page) landed(id network.RequestID) {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	delete(p.inFlight, id)
}

// ServerMayFail lets requests fail, for as long as the program is away.
func (p *Page) ServerMayFail() {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	p.mayFail = true
}

// asked is how many questions the page has asked of the server.
func (p *Page) asked() int {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	return p.questions
}

// Intercept puts the page's requests under the test's control, in every page from now on:
// window.intercept, where it is set, is given the method and the URL of each, and what it
// returns is the answer.
func (p *Page) Intercept() {
	p.t.Helper()
	p.Before(`(() => { const ask = fetch; window.fetch = async (input, init) => {
		const own = window.intercept?.(input.method ?? init?.method ?? 'GET', input.url ?? String(input), () => ask(input, init))
		return own ?? ask(input, init) } })()`)
}

// Answer answers what the browser asks from now on, such as whether to leave the page.
func (p *Page) Answer(yes bool) {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	p.answer = &yes
}

// leave goes away from the page, whatever is not saved.
func (p *Page) leave() error {
	return chromedp.Do(p.ctx, chromedp.Navigate("about:blank"))
}

// Expect lets a status pass that the test provokes.
func (p *Page) Expect(status int64) {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	p.expected[status] = true
}

func (p *Page) expects(status int64) bool {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	return p.expected[status]
}

func (p *Page) note(format string, args ...any) {
	text := fmt.Sprintf(format, args...)
	p.mutex.Lock()
	defer p.mutex.Unlock()
	// The browser itself logs a failed status that a test provokes.
	if strings.Contains(text, "Failed to load resource") && (len(p.expected) > 0 || p.mayFail) {
		return
	}
	p.problems = append(p.problems, text)
}

// report fails the test for what went wrong in the browser, and keeps a picture
// of a page that failed.
func (p *Page) report() {
	p.mutex.Lock()
	problems := p.problems
	p.mutex.Unlock()
	assert.Empty(p.t, problems, "what the browser complained of")
	if !p.t.Failed() {
		return
	}
	require.NoError(p.t, os.MkdirAll("failures", 0o755))
	name := filepath.Join("failures", fmt.Sprintf("%s-%d", strings.ReplaceAll(p.t.Name(), "/", "-"), p.number))
	if picture, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot()); err == nil {
		_ = os.WriteFile(name+".png", picture, 0o644)
	}
	if html, err := chromedp.Run(p.ctx, chromedp.Evaluate[string]("document.documentElement.outerHTML")); err == nil {
		_ = os.WriteFile(name+".html", []byte(html), 0o644)
	}
	p.t.Logf("kept e2e/%s.png and .html", name)
}

// js evaluates an expression in the page.
func js[T any](p *Page, expression string) T {
	p.t.Helper()
	value, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](expression))
	require.NoError(p.t, err, expression)
	return value
}

// Until waits for an expression to become true.
func (p *Page) Until(what, expression string) {
	p.t.Helper()
	// Asked often at first, then less: a page that is looked at all the time is slowed down by it.
	pause := 10 * time.Millisecond
	for end := time.Now().Add(patience); ; time.Sleep(pause) {
		pause = min(pause*5/4, 120*time.Millisecond)
		value, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool]("Boolean("+expression+")"))
		if err == nil && value {
			return
		}
		if time.Now().After(end) {
			require.Fail(p.t, "waited in vain", "for %s: %s\n%v\nthe page says:\n%s", what, expression, err, p.Text())
		}
	}
}

// Text is all that can be read on the page.
func (p *Page) Text() string {
	text, err := chromedp.Run(p.ctx, chromedp.Evaluate[string]("document.body.innerText"))
	if err != nil {
		return err.Error()
	}
	return text
}

func quoted(text string) string {
	out := &strings.Builder{}
	written := json.NewEncoder(out)
	written.SetEscapeHTML(false) // as the page writes it
	if err := written.Encode(text); err != nil {
		panic(err)
	}
	return strings.TrimSpace(out.String())
}

// Sees waits until every text can be read on the page.
func (p *Page) Sees(texts ...string) {
	p.t.Helper()
	for _, text := range texts {
		p.Until("the text "+text, "document.body.innerText.replace(/\\s+/g,' ').includes("+quoted(text)+")")
	}
}

// Saved waits until all that was done is saved.
func (p *Page) Saved() {
	p.t.Helper()
	p.Until("all to be saved", "document.querySelector('header .saved')?.textContent.trim() === 'saved'")
}

// Undo takes back what was done last, by the button that says what that is.
func (p *Page) Undo() { p.t.Helper(); p.back("Undo") }

// Redo does again what was taken back last.
func (p *Page) Redo() { p.t.Helper(); p.back("Redo") }

func (p *Page) back(which string) {
	p.t.Helper()
	p.Saved() // what is undone is what was asked for before
	p.ClickOn(which, "document.querySelector('header [aria-label^=\""+which+": \"]:not(:disabled)')")
}

// Idle waits until the page waits for no answer of the server.
func (p *Page) Idle() {
	p.t.Helper()
	for end := time.Now().Add(patience); ; time.Sleep(20 * time.Millisecond) {
		p.mutex.Lock()
		waiting := len(p.inFlight)
		p.mutex.Unlock()
		// A task of the page may be about to ask.
		if waiting == 0 && js[bool](p, "true") {
			p.mutex.Lock()
			waiting = len(p.inFlight)
			p.mutex.Unlock()
			if waiting == 0 {
				return
			}
		}
		if time.Now().After(end) {
			p.mutex.Lock()
			defer p.mutex.Unlock()
			require.Fail(p.t, "the page never came to rest", "waiting for %v", p.inFlight)
		}
	}
}

// named finds what can be used on the page by what it is called: its label, or
// else its text. Only what can be seen counts.
func named(name string) string {
	return `[...document.querySelectorAll('button,a,input,textarea,summary,[role=button],[role=combobox],[role=option],[role=spinbutton]')].find(e =>
		(e.getAttribute('aria-label') ?? (e.labels?.length ? e.labels[0].innerText : e.innerText) ?? '').replace(/\s+/g,' ').trim() === ` + quoted(name) + ` && e.getClientRects().length)`
}

// Has waits until there is something of that name.
func (p *Page) Has(name string) {
	p.t.Helper()
	p.Until("something called "+name, named(name))
}

// Click clicks, with the mouse, what is called so, once it stands still.
func (p *Page) Click(name string) {
	p.t.Helper()
	p.ClickOn("something called "+name, named(name))
}

// ClickOn clicks, with the mouse, what an expression finds, once it is there and stands still.
// Where an answer that came just then moved it away, the player aims again: a press on
// something else is kept from the page.
func (p *Page) ClickOn(what, element string) {
	p.t.Helper()
	const attempts = 8
	for attempt := range attempts {
		p.Until(what, element)
		where := p.standing(element)
		// What never stands still is clicked where it was last.
		if !js[bool](p, expression(watchPress, element, where[0], where[1])) && attempt < attempts-1 {
			continue
		}
		require.NoError(p.t, chromedp.Do(p.ctx, chromedp.MouseClickXY(where[0], where[1])))
		// A click may take the page away, and what it was asked with it.
		beside, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool]("Boolean(window.endPress?.())"))
		if err != nil || !beside {
			return
		}
	}
	require.Fail(p.t, "every click went beside "+what, p.Text())
}

// watchPress keeps a press from the page unless it is on the element, or on what lies over it
// now; it is false where the element is not in its place any more. window.endPress ends that, and says
// whether the press was beside.
const watchPress = `(() => {
	const meant = %s, x = %v, y = %v
	if (!meant) return false
	const r = meant.getBoundingClientRect()
	if (Math.abs(r.x + r.width / 2 - x) > 2 || Math.abs(r.y + r.height / 2 - y) > 2) return false
	const over = document.elementFromPoint(x, y)
	let beside = false
	const look = (event) => {
		if (event.type === 'pointerdown') beside = event.target !== over && !meant.contains(event.target)
		if (!beside) return
		event.preventDefault()
		event.stopImmediatePropagation()
	}
	const kinds = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click']
	for (const kind of kinds) window.addEventListener(kind, look, true)
	window.endPress = () => {
		for (const kind of kinds) window.removeEventListener(kind, look, true)
		window.endPress = undefined
		return beside
	}
	return true })()`

// standing waits until what an expression finds stands still, and returns its middle.
// A list that is just opening would be hit beside the option that is meant.
func (p *Page) standing(element string) []float64 {
	p.t.Helper()
	at := func() []float64 {
		return js[[]float64](p, `(() => { const e = `+element+`; if (!e) return [-1, -1]; e.scrollIntoView({block:'nearest'});
			const r = e.getBoundingClientRect(); return [r.x + r.width/2, r.y + r.height/2] })()`)
	}
	before := at()
	for range 100 {
		time.Sleep(25 * time.Millisecond)
		now := at()
		if now[0] == before[0] && now[1] == before[1] && now[0] >= 0 {
			break
		}
		before = now
	}
	return before
}

// Choose opens a list by its name and clicks one of its options.
func (p *Page) Choose(list, option string) {
	p.t.Helper()
	p.Click(list)
	p.Click(option)
	closed := "!document.querySelector('[role=listbox]') && document.activeElement.getAttribute('role') !== 'combobox'"
	// On a busy machine a list may open just as it is clicked on, and the click is lost: the player clicks again.
	for range 3 {
		for end := time.Now().Add(5 * time.Second); time.Now().Before(end); time.Sleep(50 * time.Millisecond) {
			if js[bool](p, closed) {
				return
			}
		}
		if js[bool](p, "Boolean("+named(option)+")") {
			p.Click(option)
		}
	}
	p.Until("the list to close", closed)
}

// Press types keys, one after the other.
func (p *Page) Press(keys ...string) {
	p.t.Helper()
	for _, key := range keys {
		require.NoError(p.t, chromedp.Do(p.ctx, chromedp.KeyEvent(key)))
	}
}

// Hold types a key with Ctrl held.
func (p *Page) Hold(key string) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.KeyEvent(key, chromedp.KeyModifiers(chromedp.ModifierCtrl))))
}

// Focused is the name of what has the keyboard.
func (p *Page) Focused() string {
	p.t.Helper()
	return js[string](p, "((e) => e.getAttribute('aria-label') ?? (e.labels?.length ? e.labels[0].innerText : e.innerText) ?? '')(document.activeElement).replace(/\\s+/g,' ').trim()")
}

// TabTo presses Tab until what is called so has the keyboard.
func (p *Page) TabTo(name string) {
	p.t.Helper()
	for range 160 {
		if p.Focused() == name {
			return
		}
		p.Press("\t")
	}
	require.Fail(p.t, "cannot be reached by Tab", name)
}

// Neck lists the notes of the neck by their forms, as "place text".
func (p *Page) Neck(form string) []string {
	p.t.Helper()
	return js[[]string](p, `[...document.querySelectorAll('.neck .mark.`+form+`')].map(e =>
		e.dataset.place + ' ' + [...e.querySelectorAll('.degree,.tiny')].map(t => t.textContent.trim()).join('|')).sort()`)
}

// Tab lists the notes of the tab in order, as "fret degree class".
func (p *Page) Tab() []string {
	p.t.Helper()
	return js[[]string](p, `[...document.querySelectorAll('.tab .note')].map(e =>
		['.fret','.degree','.class'].map(c => e.querySelector(c).textContent.trim()).join(' '))`)
}

// expression writes numbers into an expression of the page.
func expression(format string, args ...any) string { return fmt.Sprintf(format, args...) }
