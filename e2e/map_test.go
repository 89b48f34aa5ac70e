package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What lies over a chord, how it is laid out and how it is labelled.
func TestTheMapOfAChord(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map")
	p.Sees("C7 in the E-form position makes the E form", "This shape is also C7 19–22, F7 0–3, F7 12–15, G7 2–5, G7 14–17.")
	assert.ElementsMatch(t, firstBox, p.Neck("tone"))

	p.Click("blend")
	p.Sees("C minor and major pentatonic: shared notes filled")
	assert.Contains(t, p.Neck("box"), "4:7 13", "the major box's own 6")
	p.Click("scale")
	p.Sees("C Mixolydian: a dominant of a blues joins as Mixolydian.")
	assert.Contains(t, p.Neck("box"), "5:8 11")
	p.Click("extensions")
	p.Sees("D, the 9, is colour; F, the 11, is a suspension; A, the 13, is colour")
	p.Click("next chord")
	p.Sees("Ghosts are F7, the chord that comes next")
	assert.Contains(t, p.Neck("ghost"), "4:7 3", "the 3 of F7")
	p.Click("nothing")
	p.Until("nothing else", "!document.querySelector('.neck .box')")

	p.Choose("Labels", "note")
	p.Until("notes", "document.querySelector('.neck .tone .degree').textContent.trim().match(/^[A-G]/)")
	assert.Contains(t, p.Neck("tone"), "3:9 E")
	p.Choose("Labels", "degree of the key")
	p.Click("Bar 2, F7, IV")
	p.Sees("F7 in the E-form")
	p.Until("the root of F7 as the 4 of the key", "document.querySelector('.neck [data-place=\"5:8\"] .degree')?.textContent.trim() === '4'")
	p.Choose("Labels", "interval")
	p.Click("Show the 5")
	p.Until("no fifths", "![...document.querySelectorAll('.neck .tone .degree')].some(e => e.textContent.trim() === '5')")
	p.Click("Show the 5")
	p.Click("Bar 1, C7, I")

	p.Choose("Layout", "one octave from 3")
	p.Sees("From the bottom: 3 5 ♭7 R 3")
	p.Choose("Layout", "three a string")
	p.Sees("From the bottom: R 9 3 11 5 13 ♭7 R 9 3 11 5 13 ♭7 R 9 3 11")
	p.Choose("Layout", "only some strings")
	p.Sees("From the bottom: 3 5 ♭7 R")
	p.Choose("Last string", "5")
	p.Sees("From the bottom: 3 5 ♭7 R 3 5 ♭7 R")
	p.Choose("First string", "4")
	p.Sees("From the bottom: 3 5 ♭7 R")
	p.Choose("Layout", "only some frets")
	p.Choose("Last fret", "8")
	p.Sees("From the bottom: R 3 ♭7 5 R")
	p.Choose("Layout", "all tones")

	p.Click("slide")
	p.Click("Bar 2, F7, IV")
	p.Sees("F7 in the E-form position makes the E form. From the bottom: R 3 5 ♭7 R")
	p.Click("slide")
	p.Click("full neck")
	p.Until("the whole neck", "document.querySelectorAll('.neck .tone').length > 30")
	p.Press("f")

	p.Click("Arpeggios over it")
	p.Click("Am7♭5 3 5 ♭7 9")
	p.Sees("Am7♭5 over F7 gives 3 5 ♭7 9.")
	assert.NotEmpty(t, p.Neck("arriving"), "the 9, which the chord has not")
	p.Click("Smaller")
	p.Click("triad, second inversion strings 4 3 2")
	p.Sees("triad, second inversion on strings 4 3 2: 5 R 3.")
	p.Until("three notes", "document.querySelectorAll('.neck .tone').length === 3")
	p.Click("triad, second inversion strings 4 3 2")
	p.Click("All chords")
	p.Click("G7, D form, frets 10 to 13")
	p.Sees("G7 in the D-form position")
}

// Notes and shapes are heard alone, without the band.
func TestHearingAShape(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map")
	p.Sees("C7 in the E-form")
	p.Press("p")
	p.Until("the sound", "document.querySelector('header .play').getAttribute('aria-label') === 'Stop'")
	p.Until("the end of it", "document.querySelector('header .play').getAttribute('aria-label') === 'Play'")
}

// Maps are taken away as files: vectors from the server, a picture by the browser.
func TestMapsOnPaper(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/3/map?map.bench=paper&pos=E")
	p.Has("PDF of the whole tune")
	for name, begins := range map[string]string{"PDF of the whole tune": "%PDF-", "SVG of F♯m7 here": "<svg", "PDF of blank necks": "%PDF-"} {
		text, err := chromedp.Run(p.ctx, chromedp.Evaluate[string]("fetch("+named(name)+".href).then(r => r.text())", chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(text, begins), name)
	}
	p.Click("Letter")
	p.Until("the other paper", named("PDF of the whole tune")+".href.includes('paper=Letter')")
	js[any](p, "HTMLAnchorElement.prototype.click = function () { window.taken = [this.download, this.href.slice(0, 22), this.href.length] }")
	p.Click("PNG of F♯m7 here")
	p.Until("the picture", "window.taken")
	assert.Equal(t, "Salt Road at Dusk, map.png", js[string](p, "window.taken[0]"))
	assert.Equal(t, "data:image/png;base64,", js[string](p, "window.taken[1]"))
	assert.Greater(t, js[int](p, "window.taken[2]"), 20000)
}

// A layout that has nothing in it says so, and the way back is a click away.
func TestALayoutWithNothingInIt(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map")
	p.Sees("C7 in the E-form")
	p.Click("Layout")
	p.Click("one octave from ♭7")
	p.Sees("From the bottom: ♭7 R 3 5 ♭7")
	p.Click("Bar 2, F7, IV")
	p.Click("G form, frets 5 to 8")
	p.Go("/tunes/1/map?map.layout=some+frets:1-2")
	p.Sees("no tone lies on frets 1 to 2 in this position")
	p.Click("All tones")
	p.Sees("From the bottom: R 3 5 ♭7 R 3 5 ♭7 R")
}

// openHands opens the neck and hands, and waits until they have the keyboard.
func (p *Page) openHands() {
	p.t.Helper()
	p.Press("g")
	p.Until("the dialog has the keyboard", "document.activeElement.closest('[role=dialog]')")
}

// Another tuning, a capo and the left hand: what is drawn follows, and stays for
// the next visit.
func TestNeckAndHands(t *testing.T) {
	s := demo(t)
	p := openPage(t, s, "/tunes/1/map")
	p.Sees("C7 in the E-form")
	nut := "document.querySelector('.neck .nut').x1.baseVal.value"
	assert.Less(t, js[float64](p, nut), 200.0)
	p.openHands()
	p.Click("open G D G D G B D")
	p.Click("left-handed")
	p.Until("the mirrored neck", nut+" > 900")
	p.Press("\x1b")
	p.Until("the dialog closed", "!document.querySelector('[role=dialog]')")
	p.Sees("C7 on frets 9 to 12. From the bottom: R 3 5 R 3 5 ♭7 R", "This shape is also F7 2–5")
	assert.Contains(t, p.Neck("tone"), "6:10 R")
	p.Press("]")
	p.Sees("on frets 12 to 15")
	p.Press("3")
	p.Sees("Ways across")
	p.Go("/tunes/1/map")
	p.Sees("C7 on frets 9 to 12")

	// Notes keep their order under the arrow keys, whichever way they lie.
	p.TabTo("C, root of C 7, string 6, fret 10, finger 2, also in your box")
	p.Press(kb.ArrowLeft)
	assert.Contains(t, p.Focused(), "string 6, fret 13", "to the left is up the neck")

	p.openHands()
	p.Has("Strings, lowest first")
	p.TypeInto("Name", "banjo of sorts")
	p.TypeInto("Strings, lowest first", "E H")
	p.Click("Keep as mine")
	p.Sees(`column 3: "H" is not the note of a string`)
	p.TypeInto("Strings, lowest first", "A D G")
	p.Click("Keep as mine")
	p.Sees("3 strings are on no instrument here: 4 to 8")
	p.Click("Use the nearest: E2 A2 D3 G3, 22 frets")
	p.Has("Forget banjo of sorts")
	p.Press("\x1b")
	p.Until("the dialog closed", "!document.querySelector('[role=dialog]')")
	p.Until("four strings", "document.querySelectorAll('.neck .string').length === 4")
	p.openHands()
	p.Click("Forget banjo of sorts")
	p.Click("left-handed")
	p.Click("standard E A D G B E")
	p.Press("\x1b")
	p.Until("the dialog closed", "!document.querySelector('[role=dialog]')")
	p.Sees("C7 in the E-form")
}

// A tone moved to its other place lies there wherever the shape comes back, and
// can be put back.
func TestMovingATone(t *testing.T) {
	s := demo(t)
	p := openPage(t, s, "/tunes/1/map?pos=A-3&at=1920")
	p.Sees("F7 in the A-form position makes the D form")
	p.Click("A, 3 of F 7, string 4, fret 7, finger 4")
	p.Click("move the A to string 3, fret 2")
	p.Sees("Moved for every D form of its kind.")
	assert.Contains(t, p.Neck("tone"), "3:2 3")
	p.Go("/tunes/1/map?pos=G-5&at=15360")
	p.Sees("G7 in the G-form position makes the D form", "Moved for every D form of its kind.")
	assert.Contains(t, p.Neck("tone"), "3:4 3")
	p.Click("Put back")
	p.Until("the tone at its place", "document.querySelector('.neck .tone[data-place=\"4:9\"]')")
}

// A shape past the player's span is marked with its length and what is easier.
func TestAStretchPastTheSpan(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map?pos=A-3&at=0")
	p.Sees("C7 in the A-form", "112 mm from end to end, past your 100: warm up first")
	p.Click("easier")
	p.Sees("Within 100 mm: leave out the 3 on string 5")
	assert.Contains(t, p.Neck("ghost"), "5:7 3")
	p.Until("no caution about a stretch that is gone", "!document.querySelector('main').innerText.includes('past your')")
	p.Click("easier")
	p.Sees("past your 100")
	p.openHands()
	p.TypeInto("Your span", "130 mm")
	p.Press("\t", "\x1b")
	p.Until("the dialog closed", "!document.querySelector('[role=dialog]')")
	p.Sees("112 mm from end to end")
	p.Until("no caution", "!document.body.innerText.includes('past your')")
}
