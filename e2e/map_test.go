package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What lies over a chord, how it is laid out and how it is labelled.
func TestTheMapOfAChord(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/7/map")
	p.Sees("C7 in the E-form position makes the E form", "This shape is also C7 19–22, F7 0–3, F7 12–15, G7 2–5, G7 14–17.")
	assert.ElementsMatch(t, firstBox, p.Neck("tone"))

	p.Click("blend")
	p.Sees("C minor and major pentatonic: shared notes filled")
	assert.Contains(t, p.Neck("box"), "4:7 13", "the major box's own 6")
	p.Click("scale")
	p.Sees("C Mixolydian: a dominant of a blues joins as Mixolydian.")
	assert.Contains(t, p.Neck("box"), "5:8 11")
	p.Click("extensions")
	p.Sees("D, the 9, is colour; F, the 11, is lean; A, the 13, is colour")
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
	p.Choose("Layout", "strings 1–3")
	p.Sees("From the bottom: 3 5 ♭7 R")
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
	p := openPage(t, demo(t), "/tunes/7/map")
	p.Sees("C7 in the E-form")
	p.Press("p")
	p.Until("the sound", "document.querySelector('header .play').getAttribute('aria-label') === 'Stop'")
	p.Until("the end of it", "document.querySelector('header .play').getAttribute('aria-label') === 'Play'")
}

// Maps are taken away as files: vectors from the server, a picture by the browser.
func TestMapsOnPaper(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/9/map?bench=paper&pos=E")
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
	p := openPage(t, demo(t), "/tunes/7/map")
	p.Sees("C7 in the E-form")
	p.Expect(422)
	p.Click("Layout")
	p.Click("one octave from ♭7")
	p.Sees("From the bottom: ♭7 R 3 5 ♭7")
	p.Click("Bar 2, F7, IV")
	p.Click("G form, frets 5 to 8")
	p.Go("/tunes/7/map?layout=some+frets:1-2")
	p.Sees("no tone lies on frets 1 to 2 in this position")
	p.Click("All tones")
	p.Sees("From the bottom: R 3 5 ♭7 R 3 5 ♭7 R")
}
