package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Marks lists what stands over and at the end of the bars of the sheet that have any, by their numbers.
func (p *Page) Marks() string {
	p.t.Helper()
	return js[string](p, `[...document.querySelectorAll('.sheet .cell:not(.fresh)')].map((c, n) => {
		const texts = [...c.querySelectorAll('.marks, .leads')].map(e =>
			(e.querySelector('svg') ? 'sign ' : '') + e.innerText.trim()).map(t => t.trim()).join(' … ')
		return texts && (n + 1) + ': ' + texts
	}).filter(Boolean).join('; ')`)
}

// A player makes a song of a twelve-bar: another key for the last line, a bar of two beats, a way back, a
// pickup; and takes them back.
func TestASongOfSeveralKeysAndMeters(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart?chart.panel=form")
	p.ClickOn("bar 9", "document.querySelector('[aria-label^=\"Bar 9,\"]')")
	p.Sees("From bar 9")
	p.ClickOn("move the chords", "document.querySelector('.check input')")
	p.Choose("Key from this bar", "D dominant")
	p.SheetIs("C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | A7 | G7 | D7 | A7")
	p.ClickOn("bar 8", "document.querySelector('[aria-label^=\"Bar 8,\"]')")
	p.Sees("From bar 8")
	p.Click("this bar alone")
	p.Choose("Meter from this bar", "2/4")
	p.Until("both to stand on the sheet", "document.querySelectorAll('.marks').length === 2")
	p.ClickOn("bar 12", "document.querySelector('[aria-label^=\"Bar 12,\"]')")
	p.Choose("Jump", "D.S. al fine")
	p.Choose("Back to the segno at", "bar 5")
	p.Choose("The end is after", "bar 8")
	p.Click("Put the signs")
	p.Until("the jump to stand there", "document.querySelectorAll('.leads').length === 2")
	assert.Equal(t, "5: sign; 8: 2/4 … Fine; 9: key D dominant, 4/4; 12: D.S. al fine", p.Marks())
	p.Click("A pickup of 2 beats")
	p.TypeInto("Chords", "G7")
	p.Click("Write")
	p.Saved()
	assert.Contains(t, p.file("/api/charts/1"), `"pickup"`)
	for range 3 { // the pickup's chord, the pickup, the signs
		p.Undo()
	}
	p.Until("the signs to be gone", "document.querySelectorAll('.leads').length === 0")
	for range 3 {
		p.Redo()
	}
	p.Until("the signs to be back", "document.querySelectorAll('.leads').length === 2")
	p.Saved()

	// The form is played out, the box of the section is followed and said beforehand.
	p.Go("/tunes/1/play")
	p.Until("the way back to be played out", "document.querySelectorAll('.strip .bar').length === 16")
	p.Sees("from bar 9 D minor pentatonic")
	p.Go("/tunes/1/map")
	p.ClickOn("bar 9 in the form", "document.querySelector('.strip [aria-label^=\"Bar 9,\"]')")
	p.Sees("Your box, D minor pentatonic")
}

// The scale of a dominant is chosen for its function, holds wherever that function comes, and is taken back.
func TestTheScaleOfADominant(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/map?map.bench=scales")
	p.Sees("Lydian dominant")
	p.ClickOn("every I7", "[...document.querySelectorAll('button')].find(b => b.innerText.startsWith('every '))")
	scale := func(name string) string {
		return "[...document.querySelectorAll('.scales button')].find(b => b.innerText.startsWith(" + quoted(name) + "))"
	}
	p.ClickOn("Lydian dominant", scale("Lydian dominant"))
	p.Until("it to be followed", scale("Lydian dominant")+"?.getAttribute('aria-pressed') === 'true'")
	p.Click("scale")
	p.Sees("C Lydian dominant")
	p.ClickOn("Lydian dominant", scale("Lydian dominant"))
	p.Until("it to be taken back", scale("Lydian dominant")+"?.getAttribute('aria-pressed') === 'false'")
	p.Saved()
}

// A file with a symbol that cannot be read is kept: its bar is marked, and mended by typing.
func TestAnUnreadBarIsMendedInPlace(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Click("Paste or open a file")
	p.upload("found.txt", "title: Found\nkey: A minor\n| Am7 | Dq9 | E7 |\n")
	p.Sees("\"Dq9\" is not a chord", "these bars are marked")
	p.Click("Keep as a tune")
	p.Sees("Not read: bar 2.")
	p.SheetIs("Am7 | Dq9 | E7")
	p.ClickOn("the unread bar", "document.querySelector('.unread .bar')")
	p.Type("Dm9")
	p.Press("\r")
	p.SheetIs("Am7 | Dm9 | E7")
	p.Until("nothing to be unread", "!document.querySelector('.unread')")
	p.Saved()
}

// A long form opens with the bar under work in sight.
func TestTheFormOpensAtTheBarUnderWork(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/6/play?at=29760")
	p.Until("bar 17 to stand in the strip", `(() => { const all = document.querySelector('.strip'), bar = all?.querySelector('.bar:has(.now)'); if (!bar) return false
		const a = all.getBoundingClientRect(), b = bar.getBoundingClientRect(); return bar.dataset.bar === '17' && b.top >= a.top && b.bottom <= a.bottom })()`)
}
