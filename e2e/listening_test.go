package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// playedNote is a note of the neck that lights because it is played.
const playedNote = `document.querySelector('.neck .mark[aria-label^="you play"]')`

// Drills and Play listen: notes of a guitar answer a card, are marked in time over the band, and are judged where
// bars are traded.
func TestDrillsAndPlayListen(t *testing.T) {
	s := demo(t)
	p := openPageIn(t, browserThatHears(t, standInSound(t, s, 0), againAndAgain), s, "/tunes/1/practice?practice.page=drill&practice.kind=box+and+chord")
	p.Sees("what does the box lack?")
	p.Click("listen")
	p.Until("three places that were played", "document.querySelectorAll('.slots .given').length >= 3")
	given := js[string](p, "[...document.querySelectorAll('.slots .given')].map(s => s.innerText).join(' ')")
	assert.Contains(t, given, ":8", "the places lie in the position of the card")
	p.Click("listening")
	p.Sees("listen")

	p.Go("/tunes/1/practice?practice.page=drill&practice.kind=one+tone+in+time")
	p.Sees("Play a chorus")
	p.Click("listen")
	p.Press("p")
	p.Until("the second bar", "document.querySelector('.asked p')?.textContent.includes('bar 3')")
	p.Press("p")
	p.Sees("changes were met on time", "notes were asked for")
	p.Until("marks of notes that were heard", "document.querySelector('.changes .on, .changes .early, .changes .late, .changes .other-note')")

	p.Go("/tunes/1/play")
	p.Sees("Headphones low")
	p.Click("trade fours")
	p.Click("listen")
	p.Sees("listening")
	p.Choose("Speed", "120 %")
	p.Press(" ")
	p.Until("a played note lights", playedNote)
	p.Until("the traded bars are judged", "document.querySelector('.traded')?.innerText.match(/your bars 5–8/)")
	p.Until("with figures", "document.querySelector('.traded')?.innerText.match(/landings \\d of \\d/)")
}
