package e2e

import (
	"fmt"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A plan of five minutes, from the start page to the log, by keyboard alone.
func TestAPlanFromStartToLogByKeyboard(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Sees("due today")
	p.TabTo("Practise")
	p.Press(kb.Enter)
	p.Sees("Where you are weakest", "Warm up")
	p.TabTo("Minutes")
	p.Hold("a")
	p.Type("5")
	p.Press(kb.Tab)
	p.Sees("Today, 5 minutes")
	p.Until("a plan of five minutes", "[...document.querySelectorAll('.plan .minutes b')].reduce((sum, b) => sum + b.textContent * 1, 0) === 5")
	js[any](p, "document.activeElement.blur()")
	p.Press(" ")
	p.Sees("Go on", "Long notes, loose hands")
	p.Press(" ")
	p.Until("a card", "document.activeElement.getAttribute('aria-label') === 'Answer'")
	p.Press("h")
	p.Sees("Hint:")
	p.answerByKeyboard()
	p.Until("it is marked", "document.querySelector('.verdict')")
	p.Press("u")
	p.Until("the answer is taken back", "!document.querySelector('.verdict')")
	p.answerByKeyboard()
	p.Until("it is marked again", "document.querySelector('.verdict')")
	p.Press(kb.Enter)
	p.Sees("card 2 of", "of 1 right")
	p.Press("s")
	p.Sees("card 3 of")
	p.Press(" ")
	p.Sees("How did it go?")
	p.TabTo("clean")
	p.Press(kb.Enter)
	p.TabTo("A note on how it went")
	p.Type("the sevenths are slow")
	p.TabBackTo("Go on space")
	p.Press(kb.Enter)
	p.Sees("All of it is in the log")
	p.TabBackTo("Log")
	p.Press(kb.Enter)
	p.Sees("the sevenths are slow", "of 1 right")

	// What was begun and left is gone on with, also in another window.
	p.Go("/tunes/1/practice")
	p.Sees("This is the plan.", "Warm up")
	p.Press(" ")
	p.Sees("Long notes, loose hands")
	p.Idle()
	p.Go("/tunes/2/practice")
	p.Sees("Take it up again")
}

// answerByKeyboard answers the card that is asked, whatever its form, by typing.
func (p *Page) answerByKeyboard() {
	p.t.Helper()
	p.Until("the field", "document.activeElement.getAttribute('aria-label') === 'Answer'")
	if js[bool](p, "Boolean(document.querySelector('.choice'))") {
		p.Press("1", kb.Enter)
		return
	}
	for n := 0; n < 12 && !js[bool](p, "Boolean(document.querySelector('.verdict'))"); n++ {
		text := "4 8"
		if strings.Contains(p.Text(), "names of the notes") {
			text = "C"
		}
		before := js[int](p, "document.querySelectorAll('.slots .given, .neck .mark.tone').length")
		p.Type(text)
		p.Press(kb.Enter)
		if n == 0 && js[bool](p, "[...document.querySelectorAll('.foot button')].some(b => b.textContent.trim() === 'Check')") {
			p.Until("it is given", expression("document.querySelector('.verdict') || document.querySelectorAll('.slots .given, .neck .mark.tone').length !== %d", before))
			p.Press(kb.Enter)
			p.Until("it is marked", "document.querySelector('.verdict')")
			return
		}
	}
}

// A drill answered by taps on the neck, from the step that it belongs to.
func TestADrillAnsweredByTaps(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/practice?practice.page=drill&practice.kind=box+and+chord")
	p.Sees("box and chord", "what does the box lack?")
	p.Until("the places", "document.querySelectorAll('.neck .mark.empty').length > 20")
	js[any](p, "window.asked = document.querySelector('.asked').textContent")
	p.place("2:10")
	p.Until("it is given", "document.querySelector('[data-place=\"2:10\"]').classList.contains('tone')")
	p.place("2:10")
	p.Until("it is taken away", "document.querySelector('[data-place=\"2:10\"]').classList.contains('empty')")
	p.place("2:10")
	p.place("1:9")
	p.Click("Check")
	p.Until("it is marked", "document.querySelector('.verdict')")
	p.Sees("C minor pentatonic lacks", "Next card")
	p.Until("what was wrong is shown", "document.querySelector('[data-place=\"1:9\"]')?.classList.contains('leaving')")
	p.Click("Next card")
	p.Until("another card", "!document.querySelector('.verdict') && document.querySelector('.asked')")
}

// The log is taken away as CSV, and read again into another library, where it is the same.
func TestTheLogGoesOutAndIn(t *testing.T) {
	s := demo(t)
	p := openPage(t, s, "/tunes/1/practice?practice.page=log")
	p.Sees("It writes itself", "Rope and cleat")
	p.Click("Add an entry")
	p.TypeInto("name", "Scales on the quay")
	p.Click("Add")
	p.Sees("Scales on the quay")
	table := p.file("/api/practice/log/csv")
	rows := strings.Count(table, "\n") - 1
	require.Greater(t, rows, 50)

	other := openPage(t, serve(t, "serve", filepath.Join(t.TempDir(), "own.db")), "/")
	other.Sees("Start with a tune")
	other.TypeInto("Title", "Quayside")
	other.Click("Start the tune")
	other.Until("the tune", "location.pathname.endsWith('/chart')")
	other.Saved()
	other.Press("7")
	other.Click("Log")
	other.Sees("Nothing is noted yet")
	other.upload("log.csv", table+"x,never,1,lick,,,,,,,,,\n")
	other.Sees(fmt.Sprintf("%d entries were added, 0 there already, one line could not be read", rows), "line")
	other.Sees("Scales on the quay")
	other.upload("log.csv", table)
	other.Sees(fmt.Sprintf("0 entries were added, %d there already", rows))
	assert.Equal(t, table, other.file("/api/practice/log/csv"))
}

// A lick is learned in parts: each at half speed, the whole faster step by step; the clean tempo is
// noted in the log. What is done in another view goes on counting.
func TestALickLearnedInParts(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/practice?practice.minutes=20")
	p.Sees("This is the plan.", "in parts")
	p.Press(" ")
	p.Sees("Long notes, loose hands")
	p.Press(" ")
	p.Until("a card", "document.activeElement.getAttribute('aria-label') === 'Answer'")
	p.Press(" ")
	p.Sees("Play it round", "part 1 of")
	tempo := func() int { return js[int](p, "document.querySelector('.work .tempo').textContent * 1") }
	slow := tempo()
	p.Press("p")
	p.Sees("Stop (p)")
	for range 6 {
		if js[bool](p, "document.querySelector('.steps [aria-pressed=true]').textContent.trim() === 'the whole'") {
			break
		}
		p.Press("c")
		p.Idle()
	}
	p.Until("the whole", "document.querySelector('.steps [aria-pressed=true]').textContent.trim() === 'the whole'")
	assert.Equal(t, slow, tempo(), "the parts are learned at half speed")
	p.Press("c")
	p.Until("faster", expression("document.querySelector('.work .tempo').textContent * 1 > %d", slow))
	p.Sees(fmt.Sprintf("clean at %d", slow))
	p.Press("x")
	p.Until("slower again", expression("document.querySelector('.work .tempo').textContent * 1 === %d", slow))
	p.Press(" ")
	p.Sees("Play it round") // space stops what sounds, and ends no block while it does
	name := js[string](p, "document.querySelector('.work h2').textContent")
	p.Press(" ")
	p.Sees("Open it in Exercises", "round and round")
	p.Click("Open it in Exercises")
	p.Until("the exercise of the block", "document.querySelectorAll('.tab .note').length > 20")
	p.Click("Back to Practice")
	p.Sees("Open it in Exercises")
	p.Press(" ")
	p.Sees("Open it in Play")
	p.Click("Open it in Play")
	p.Sees("Back to Practice", "left")
	p.Click("Back to Practice")
	p.Sees("Open it in Play")
	p.Click("Log")
	p.Sees(name, fmt.Sprintf("%d of", slow), "clean")
}

// The row of pages stays where it is when another page is chosen and when the figures come.
func TestThePagesOfPracticeStay(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/practice?practice.page=goal")
	p.Has("Log")
	left := func() float64 {
		return js[float64](p, "[...document.querySelectorAll('.pages button')].at(-1).getBoundingClientRect().left")
	}
	first := left()
	p.Until("the figures", "document.querySelector('.head .quiet').textContent.includes('of the last 7')")
	for _, page := range []string{"Today", "Any drill", "Pictures", "Goal", "Log"} {
		p.Click(page)
		p.Until(page, "document.querySelector('.pages [aria-pressed=true]').textContent.trim() === "+quoted(page))
		assert.InDelta(t, first, left(), 0.5, page)
	}
}

// A card is answered from the simulated instrument, which sends each string on a channel of its own.
func TestADrillAnsweredOverMIDI(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/practice?practice.page=drill&practice.kind=box+and+chord")
	p.Sees("what does the box lack?")
	p.Click("answer over MIDI")
	p.Until("the instruments", "document.querySelector('[aria-label=\"The MIDI instrument\"]')")
	choose := func(label, value string) {
		js[any](p, expression(`(e => { e.value = %s; e.dispatchEvent(new Event('change', { bubbles: true })) })(document.querySelector('[aria-label="%s"]'))`, quoted(value), label))
	}
	choose("The MIDI instrument", "simulated")
	p.Until("its strings", "document.querySelector('[aria-label=\"The string\"]')")
	choose("The string", "2")
	p.TypeInto("The fret", "10")
	p.Click("strike it")
	p.Until("it is given", "document.querySelector('[data-place=\"2:10\"]').classList.contains('tone')")
	p.Click("Check")
	p.Until("it is marked", "document.querySelector('.verdict')")
	p.Click("Next card")
	p.Until("another card, answered from the same instrument", "!document.querySelector('.verdict') && document.querySelector('[aria-label=\"The string\"]')")
}

// Over the band, a tone is struck on the neck where the chord changes: it is marked how near it came,
// and logged.
func TestOneToneInTime(t *testing.T) {
	p := openPage(t, demo(t), "/")
	id := p.quick("C7", "F7")
	p.Go(fmt.Sprintf("/tunes/%d/practice?practice.page=drill&practice.kind=one+tone+in+time", id))
	p.Sees("Play a chorus", "E, the 3")
	at := js[string](p, "(m => m)(document.querySelector('.asked p').textContent)")
	var s, fret int
	_, err := fmt.Sscanf(at[strings.Index(at, "string"):], "string %d, fret %d", &s, &fret)
	require.NoError(t, err)
	p.Press("p")
	p.Sees("Stop (p)")
	// Struck as soon as the page shows that the first bar sounds.
	mark := fmt.Sprintf("[data-place=\"%d:%d\"]", s, fret)
	p.Until("a note that counts", expression("document.querySelector('.sum') || (document.querySelector('%s').dispatchEvent(new MouseEvent('click', { bubbles: true })), false)", mark))
	p.Sees("changes were met on time", "notes were asked for")
	p.Until("the marks", "document.querySelector('.changes .on, .changes .early, .changes .late')")
	p.Click("Log")
	p.Sees("one tone in time: the 3")
}

// By ear the band plays some bars of the form, and which they were is chosen.
func TestWhichBarIsPlayed(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/practice?practice.page=drill&practice.kind=which+bar,+by+ear")
	p.Sees("where in the form was it?", "hear it again")
	asked := p.asked()
	p.Click("hear it again (r)")
	p.Until("the band to be asked", "performance.getEntriesByName(location.origin + '/api/compute/band/performance').length > 0")
	require.Greater(t, p.asked(), asked)
	assert.Equal(t, 10, js[int](p, "document.querySelectorAll('.choice').length"), "a bar that three can begin with")
	p.ClickOn("a choice", "document.querySelector('.choice')")
	p.Sees("They were", "Next card")
}
