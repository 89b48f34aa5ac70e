package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
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
