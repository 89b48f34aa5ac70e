package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// firstBox is C7 in the E form of C, as every player's book has it.
var firstBox = []string{"1:8 R", "2:11 ♭7", "2:8 5", "3:9 3", "4:10 R", "4:8 ♭7", "5:10 5", "5:7 3", "6:8 R"}

// A new player's first visit with the mouse, from the demo tune to a line that
// is kept and found again after the program was stopped and started.
func TestAPlayersFirstVisit(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	s := serve(t, "demo", data)
	p := openPage(t, s, "/")

	p.Sees("Play through the changes")
	p.Click("Tin Roof Ferry, C · quick change · shuffle · 112")
	p.Has("Bar 2, F7 IV")
	p.Click("2 Map")
	p.Sees("C7 in the E-form position makes the E form. From the bottom: R 3 5 ♭7 R 3 5 ♭7 R")
	assert.ElementsMatch(t, firstBox, p.Neck("tone"))
	assert.Equal(t, []string{"6:6 ♭7"}, p.Neck("ghost"), "what only a reach back would give is shown, but not in the shape")
	assert.Equal(t, []string{"1:11 ♭3", "3:10 11", "3:8 ♭3", "5:8 11", "6:11 ♭3"}, p.Neck("box"), "the box stands behind the tones")
	p.Click("Bar 2, F7, IV")
	p.Sees("F7 in the E-form position makes the A form")
	p.Click("B flat, 11 of F 7, string 4, fret 8, finger 2")
	p.Sees("B♭ is the 11 of F7: it suspends, and wants to move to A, the 3.")

	p.Choose("Key", "G♭")
	p.Has("Bar 2, C♭7, IV")
	p.Sees("saved", "G♭ minor pentatonic", "add E♭, the 3: one fret below its F♭")
	p.Choose("Key", "C")
	p.Click("1 Chart")
	p.Click("Tune")
	p.Choose("Scheme", "slow change")
	p.Has("Bar 2, C7 I")
	p.Choose("Scheme", "quick change")
	p.Has("Bar 2, F7 IV")
	p.Click("2 Map")
	p.Choose("Position", "D form, 10–13")
	p.Sees("F7 in the D-form position makes the G form")
	p.Click("E form, frets 7 to 10")
	p.Sees("F7 in the E-form position makes the A form")

	p.Click("3 Change")
	p.Click("Bar 4, C7, I")
	p.Sees("Bar 4 → 5", "Play A, the 3 of F7: neither C7 nor your box has it, so it alone says F7.")
	p.Sees("B♭, the ♭7 of C7, down a fret to A, the 3 of F7", "Into A, the 3 of F7")
	assert.Equal(t, []string{"1:8 R|5", "4:10 R|5", "6:8 R|5"}, p.Neck("held"))
	assert.Contains(t, p.Neck("leaving"), "4:8 ♭7")
	assert.Contains(t, p.Neck("arriving"), "4:7 3")

	p.Click("4 Licks")
	p.Click("Last boat Down from the top, with the 4 bent to the 5.")
	p.Click("Land on A, the 3, string 2 fret 10")
	p.Choose("Approach", "enclosure")
	p.Sees("Last boat into A, the 3 of F7", "The run into A has 3 notes in eighths", "lands on beat 1 of bar 5")
	tab := p.Tab()
	require.NotEmpty(t, tab)
	assert.Equal(t, "11 ♭3 blue", tab[0])
	assert.Equal(t, "10 3 chord", tab[len(tab)-1])
	assert.Contains(t, p.Neck("arriving"), "2:10 3")

	p.Press(" ")
	p.Until("the line to sound on tab and neck", "document.querySelector('.tab .note.lit') && document.querySelector('.neck .mark.lit')")
	p.Until("the bar to be lit", "document.querySelector('.strip .bar.playing')")
	p.Press(" ")
	p.Until("silence", "!document.querySelector('.tab .note.lit') && !document.querySelector('.strip .bar.playing')")

	p.Click("Keep the line")
	p.Sees("Kept as “Last boat into A”.", "Kept lines")
	p.Sees("Kept line Last boat into A")
	address := js[string](p, "location.pathname + location.search")

	p.Leave()
	s.stop()
	again := serve(t, "demo", data)
	p2 := openPage(t, again, "/")
	p2.Click("Tin Roof Ferry, C · quick change · shuffle · 112")
	p2.Click("4 Licks")
	p2.Click("Last boat into A in C: C7 to F7, bar 4 to 5")
	p2.Sees("Kept line Last boat into A")
	assert.Equal(t, tab, p2.Tab())
	p2.Go(address)
	p2.Sees("Kept line Last boat into A")

	p2.Click("Delete Last boat into A")
	p2.Sees("“Last boat into A” is deleted.")
	p2.Click("Restore it")
	p2.Has("Last boat into A in C: C7 to F7, bar 4 to 5")
}

// The same by keyboard alone.
func TestAPlayersFirstVisitByKeyboard(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	s := serve(t, "demo", data)
	p := openPage(t, s, "/")
	p.Has("Tin Roof Ferry, C · quick change · shuffle · 112")
	p.TabTo("Tin Roof Ferry, C · quick change · shuffle · 112")
	p.Press(kb.Enter)
	p.Has("Bar 2, F7 IV")
	p.Press("2")
	p.Sees("C7 in the E-form position")

	p.TabTo("Key")
	p.Press(kb.ArrowDown)
	p.Until("the list of keys", "document.querySelector('[role=listbox]')")
	p.Press(kb.ArrowDown, kb.ArrowDown, kb.Enter)
	p.Has("Bar 2, G♭7, IV")
	p.Press("\t")
	p.TabTo("Bar 1, D♭7, I")
	p.Hold("z")
	p.Has("Bar 2, F7, IV")

	p.Press("]")
	p.Sees("in the D-form position")
	p.Press("[", "[")
	p.Sees("in the G-form position")
	p.Press("]")
	p.Press("b")
	p.Until("the box to go", "!document.querySelector('.neck .box')")
	p.Press("b", "h")
	p.Until("roots alone", "document.querySelectorAll('.neck .tone').length === 3")
	p.Press("h", "l")
	p.Sees("Lost? Play the box: C minor pentatonic.")
	p.Press("l")

	// Into the neck, and about it with the arrows.
	p.TabTo("C, root of C 7, string 6, fret 8, finger 2, also in your box")
	p.Press(kb.ArrowUp)
	assert.Equal(t, "F, 11 of C 7, string 5, fret 8, finger 2", p.Focused())
	p.Press(kb.Enter)
	p.Sees("F is the 11 of C7: it suspends")
	p.Press("\t")

	p.Press("3")
	p.Sees("Bar 1 → 2")
	p.Press(kb.ArrowRight, kb.ArrowRight)
	p.Sees("Bar 4 → 5")
	p.Press(kb.ArrowDown)
	p.Until("the second way", "document.querySelectorAll('.moves button')[1].getAttribute('aria-pressed') === 'true'")

	p.Press("4")
	p.Sees("Ferry call into A, the 3 of F7")
	p.Press(kb.ArrowDown)
	p.Sees("Slack water into A")
	p.Press("a")
	p.Until("the second approach", named("Approach")+".innerText.trim() === 'half step above'")
	p.Press("s")
	p.Until("the next subdivision", named("triplets")+".getAttribute('aria-pressed') === 'true'")
	p.Press("t")
	p.Until("a target", "document.querySelector('.chip.target[aria-pressed=true]')")
	for n := 0; n < 12 && js[string](p, named("eighths")+".getAttribute('aria-pressed')") != "true"; n++ {
		p.Press("s") // round through all that there are
		p.Idle()
	}
	p.Until("eighths again", named("eighths")+".getAttribute('aria-pressed') === 'true'")
	p.Press("t", "t", "t", "t", "t", "t", "t", "t")
	p.Idle()
	p.Sees("lands on beat 1 of bar 5")
	p.Press(" ")
	p.Until("the bar to be lit", "document.querySelector('.strip .bar.playing')")
	p.Press(" ")
	p.Press("k")
	p.Sees("Kept as “Slack water into")
	p.Press("?")
	p.Sees("the change before", "keep what is shown", "headphones low")
	p.Press(kb.Escape)
	kept := p.Tab()

	p.Leave()
	s.stop()
	p2 := openPage(t, serve(t, "demo", data), "/")
	p2.Has("Tin Roof Ferry, C · quick change · shuffle · 112")
	p2.TabTo("Tin Roof Ferry, C · quick change · shuffle · 112")
	p2.Press(kb.Enter)
	p2.Has("Bar 2, F7 IV")
	p2.Press("4")
	p2.Sees("Kept lines")
	line := js[string](p2, "document.querySelector('.kept button').innerText.replace(/\\s+/g, ' ').trim()")
	p2.TabTo(line)
	p2.Press(kb.Enter)
	p2.Sees("Kept line Slack water into")
	assert.Equal(t, kept, p2.Tab())
}
