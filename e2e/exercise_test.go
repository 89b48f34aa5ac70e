package e2e

import (
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A newcomer finds thirds up the neck on the top two strings over the tune, changes them choice by choice,
// keeps them, loops them and takes them away.
func TestThirdsUpTheNeck(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map")
	p.Sees("makes the E form")
	p.Press("8")
	p.Sees("Arpeggios through the changes")
	p.TypeInto("Find exercises", "thirds top two")
	p.ClickOn("the only one found", "document.querySelector('[aria-label=\"Ready-made exercises\"] button')")
	p.Sees("thirds, along strings 1 to 2")
	assert.Equal(t, []string{"1 R 3", "0", "3 9 11", "1"}, p.exerciseNotes()[:4])
	p.Click("Choices")
	p.Click("one by one")
	p.Until("the thirds are broken", "document.querySelectorAll('.tab .note .degree')[0].textContent.trim() === 'R'")
	p.Undo()
	p.Until("they are together again", "document.querySelectorAll('.tab .note .degree')[0].textContent.trim() === 'R 3'")
	p.Expect(422)
	p.Choose("What", "sixths")
	p.Sees("sixths, along strings 1 to 2")
	p.Choose("Where", "so many notes a string")
	p.Sees("several strings at once", "Nearest")
	p.ClickOn("the nearest that can be played", "document.querySelector('.refused .chip')")
	p.Until("sixths that can be played", "document.querySelectorAll('.tab .note').length > 20")
	p.Press("k")
	p.Sees("Kept as")
	p.Click("Keep")
	p.TypeInto("Tags", "tuesday")
	p.Saved()
	p.Click("Begin with")
	p.Sees("Mine", "tuesday")
	p.Click("alone")
	p.Click("ramp")
	p.Click("Hear it")
	p.Until("a note that sounds", "document.querySelector('.tab .note.lit')")
	p.Sees("clean? now 67")
	p.Press("c")
	p.Sees("clean at 67")
	p.ClickOn("stop", "document.querySelector(`.acts .primary`)")
}

// exerciseNotes are the notes of the tab: the fret, and the degrees below it.
func (p *Page) exerciseNotes() []string {
	return js[[]string](p, `[...document.querySelectorAll('.tab .note')].map((n) =>
		(n.querySelector('.fret').textContent.trim() + ' ' + n.querySelector('.degree').textContent.trim()).trim())`)
}

// Six of the hardest, built from the screen choice by choice: the tab follows at once.
func TestHardExercisesFromTheScreen(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/exercise?exercise.side=choices")
	begins := func(want ...string) {
		t.Helper()
		p.Until("the tab "+strings.Join(want, ", "), "JSON.stringify([...document.querySelectorAll('.tab .note')].slice(0, "+strconv.Itoa(len(want))+").map((n) => (n.querySelector('.fret').textContent.trim() + ' ' + n.querySelector('.degree').textContent.trim()).trim())) === "+quoted(jsonOf(want)))
	}
	begins("8 R", "7 3", "10 5", "8 ♭7")

	// A scale on strings 5 to 2.
	p.Choose("What", "scale of the chord")
	p.Choose("First string", "2")
	p.Choose("Last string", "5")
	begins("10 R", "7 9", "9 3", "10 11", "8 5", "10 13", "11 ♭7")

	// In my own figure, seven played and one left out.
	p.Choose("Figure", "my own numbers")
	p.TypeInto("My numbers", "1 2 3 1")
	p.Press(kb.Enter)
	begins("10 R", "7 9", "9 3", "10 R", "7 9")
	p.Click("More choices")
	p.Choose("Rests", "play 7, leave out 1")
	p.Until("a bar has seven notes", "document.querySelectorAll('svg.tab')[0].querySelectorAll('.note').length === 14")

	// Up here, down the next position.
	p.Choose("Figure", "one after another")
	p.Choose("Rests", "none")
	p.Choose("First string", "1")
	p.Choose("Last string", "6")
	p.Choose("Where", "up here, down the next position")
	begins("8 R", "10 9", "7 3", "8 11")
	p.Until("the hand moves up", "[...document.querySelectorAll('.tab .fret')].some((n) => n.textContent.trim() === '13')")

	// Four notes a string.
	p.Choose("Where", "so many notes a string")
	p.Choose("Notes on a string", "4")
	p.Sees("4 a string")
	begins("8 R", "10 9", "12 3")

	// Roots enclosed, with slurs.
	p.Choose("What", "chord tones")
	p.Choose("Where", "in position")
	p.Choose("Before", "enclosure, chromatic")
	p.Click("Before the root")
	p.Click("Before the 5")
	begins("9 ♭9", "7 7", "8 R", "7 3")

	// Another key at once, kept, looped and printed.
	p.Choose("Key of the exercise", "E♭")
	p.Sees("E form, frets 10–13")
	begins("12 ♭9", "10 7", "11 R")
	p.Choose("Key of the exercise", "the tune’s key")
	begins("9 ♭9", "7 7", "8 R")
	p.Press("k")
	p.Sees("Kept as")
	p.Press("z")
	p.Click("Hear it")
	p.Until("a note that sounds", "document.querySelector('.tab .note.lit')")
	p.ClickOn("stop", "document.querySelector('.acts .primary')")
	p.Click("Keep")
	js[any](p, keeping)
	assert.Contains(t, p.took("PDF with the neck shapes"), "%PDF")
	assert.Contains(t, p.took("Plain-text tab"), "title: ")
	p.Click("Edit its notes as a lick")
	p.Until("the notes in the editor", "document.querySelectorAll('.editor .note').length === 16")
}

// From the Map an arpeggio that is laid over a chord is walked through the tune, and so are shells; from a change
// up the one chord's arpeggio and down the other's.
func TestExercisesFromMapAndChange(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map?map.bench=arpeggios")
	p.Sees("makes the E form")
	p.ClickOn("the half-diminished arpeggio on the 3", "[...document.querySelectorAll('.arpeggios .chip')].find((b) => b.textContent.includes('Em7♭5'))")
	p.Sees("Em7♭5 over C7 gives")
	p.Click("walk it")
	p.Sees("superimposed arpeggio on the 3")
	p.Go("/tunes/1/map?map.bench=smaller")
	p.Click("shells")
	p.Sees("shells, along the strings")
	p.Until("a shell a bar", "document.querySelectorAll('.tab .note').length === 36")
	p.Go("/tunes/1/change?at=1440")
	p.Click("walk it")
	p.Sees("seventh arpeggio, up one chord, down the next")
	p.Until("two bars", "document.querySelectorAll('svg.tab').length === 1")
}

// Etudes are made several at a time of what is taken, and one is kept as a solo.
func TestEtudesAreMade(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/exercise?exercise.side=etude")
	p.Click("Lamplighter")
	p.Click("Up the slipway")
	p.TypeInto("Find parts", "rope")
	p.Click("Rope and cleat")
	p.Choose("How it ends", "on the third")
	p.Click("Make etudes")
	p.Until("three etudes", "document.querySelectorAll('ol[aria-label=Etudes] li').length === 3")
	p.Click("Hear etude 2")
	p.Until("it sounds", "document.querySelector('.sound .play').getAttribute('aria-label') === 'Stop'")
	p.Click("Keep etude 2 as a solo")
	p.Sees("Time line", "chromatic r", "Plan again")
	assert.GreaterOrEqual(t, len(p.blocks()), 3)
}

// took is the text of the file that a button hands to the player.
func (p *Page) took(button string) string {
	p.t.Helper()
	p.Click(button)
	p.Until("a file of "+button, "window.taken")
	text, err := chromedp.Run(p.ctx, chromedp.Evaluate[string]("window.taken.text()", chromedp.EvalAwaitPromise))
	require.NoError(p.t, err)
	js[any](p, "window.taken = undefined")
	return text
}
