package e2e

import (
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// writes waits until the editor holds these notes.
func (p *Page) writes(want ...string) {
	p.t.Helper()
	p.Until("the notes "+strings.Join(want, ", "),
		"JSON.stringify("+writtenNotes+") === "+quoted(jsonOf(want)))
}

const writtenNotes = "[...document.querySelectorAll('.editor .note')].map((n) => ['.technique', '.fret', '.degree'].map((s) => n.querySelector(s)?.textContent.trim()).filter(Boolean).join(' '))"

func jsonOf(all []string) string {
	quotedAll := make([]string, len(all))
	for n, one := range all {
		quotedAll[n] = quoted(one)
	}
	return "[" + strings.Join(quotedAll, ",") + "]"
}

// file is what the server gives to be kept.
func (p *Page) file(path string) string {
	p.t.Helper()
	response, err := http.Get(p.base + path)
	require.NoError(p.t, err)
	defer func() { _ = response.Body.Close() }()
	content, err := io.ReadAll(response.Body)
	require.NoError(p.t, err)
	require.Equal(p.t, http.StatusOK, response.StatusCode)
	return string(content)
}

// with types a key with a modifier held.
func (p *Page) with(modifier chromedp.Modifier, keys ...string) {
	p.t.Helper()
	for _, key := range keys {
		require.NoError(p.t, chromedp.Do(p.ctx, chromedp.KeyEvent(key, chromedp.KeyModifiers(modifier))))
	}
}

// A lick is written with the keyboard alone, from nothing: frets, lengths, techniques,
// a pickup, a copy, an undo; it is heard, named, and kept.
func TestWritingALickWithTheKeyboardAlone(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?at=5760")
	p.Sees("Ferry call into A, the 3 of F7")
	p.Press("q")
	p.Sees("Type a fret, or press the neck", "kept with its first note")
	p.Press(kb.ArrowDown, kb.ArrowDown, "8")
	p.writes("8 ♭3")
	p.Press(kb.ArrowRight, "9", "h")
	p.writes("8 ♭3", "h 9 3")
	p.Press(kb.ArrowRight, kb.ArrowUp, "1", "1")
	p.writes("8 ♭3", "h 9 3", "11 ♭7")
	p.Press("-", kb.ArrowRight, kb.ArrowUp, "8", "+", "+", "v")
	p.Sees("C is the root of C7")
	p.writes("8 ♭3", "h 9 3", "11 ♭7", "∿ 8 R")
	p.Until("the saved word", "document.body.innerText.includes('saved')")
	// A bend of a whole step, a quarter tone more, and back by undo.
	p.Press("b", "b")
	p.writes("8 ♭3", "h 9 3", "11 ♭7", "↑full ∿ 8 9")
	p.Press("q")
	p.writes("8 ♭3", "h 9 3", "11 ♭7", "↑1¼ ∿ 8 9")
	p.with(chromedp.ModifierCtrl, "z")
	p.with(chromedp.ModifierCtrl, "z")
	p.with(chromedp.ModifierCtrl, "z")
	p.writes("8 ♭3", "h 9 3", "11 ♭7", "∿ 8 R")
	// A letter that writes nothing does nothing else either.
	p.Press("m", "n", "w")
	p.writes("8 ♭3", "h 9 3", "11 ♭7", "∿ 8 R")
	// What no hand can do is said, and nothing is changed.
	p.Press(kb.Home, kb.ArrowDown, kb.ArrowDown, "h")
	p.Sees("note 1: a hammer-on or pull-off needs a note before it on its string")
	// The first two again, behind themselves.
	p.with(chromedp.ModifierShift, kb.ArrowRight, kb.ArrowRight)
	p.Sees("Hear the selection")
	p.with(chromedp.ModifierCtrl, "d")
	p.writes("8 ♭3", "h 9 3", "8 ♭3", "h 9 3", "11 ♭7", "∿ 8 R")
	// A half step up, and a string over.
	p.with(chromedp.ModifierCtrl, kb.ArrowUp)
	p.writes("8 ♭3", "h 9 3", "9 3", "h 10 11", "11 ♭7", "∿ 8 R")
	p.with(chromedp.ModifierCtrl, "z")
	// A pickup before bar 1.
	p.Press(kb.Home, kb.ArrowLeft, "1", "0")
	p.Sees("pickup")
	p.Press(" ")
	p.Until("it sounds on tab and neck", "document.querySelector('.editor .note.lit') && document.querySelector('.neck .mark.lit')")
	p.Press(" ")
	p.TypeInto("Name", "Written by hand")
	p.Press(kb.Enter)
	p.Sees("Written in C Written by hand")
	p.Saved()
	p.Has("Written by hand")
	p.Go("/tunes/1/licks")
	p.Has("Written by hand")
	p.Click("Written by hand")
	p.Sees("Written by hand into")
}

// The neck writes at the cursor, buttons play techniques, the staff is engraved over the
// tab from fonts of our own, and the files say what was written.
func TestWritingWithTheNeckAndTheStaff(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?licks.fresh=yes&licks.panel=write")
	p.Sees("Type a fret, or press the neck")
	p.place("3:8")
	p.writes("8 ♭3")
	p.Press(kb.ArrowRight)
	p.place("2:8")
	p.writes("8 ♭3", "8 5")
	p.Click("accent")
	p.Click("vibrato")
	p.writes("8 ♭3", "∿ > 8 5")
	p.Click("trill")
	p.Click("ghost")
	p.writes("8 ♭3", "∿ tr10 (8) 5")
	p.Click("trill")
	p.Click("accent") // which a ghost note cannot have
	p.writes("8 ♭3", "∿ > 8 5")
	p.Click("staff")
	p.Until("the staff is engraved", "document.querySelectorAll('.staff svg .vf-stavenote').length >= 3")
	assert.True(t, js[bool](p, "[...document.fonts].some((f) => f.family === 'Bravura' && f.status === 'loaded')"))
	p.Click("keys")
	p.Sees("hammer-on, pull-off", "bend a half step farther; a quarter tone")
	p.Click("keys")
	p.Saved()
	id := js[string](p, "new URLSearchParams(location.search).get('licks.lick')")
	text := p.file("/api/licks/" + id + "/export/tab")
	assert.Contains(t, text, "B|---8~")
	assert.Contains(t, text, "; note 2 is accented")
	assert.Contains(t, p.file("/api/licks/"+id+"/export/musicxml"), "<accent>")
	// Deleted and brought back.
	p.Click("Delete")
	p.Sees("Bring New lick back")
	p.Click("Bring New lick back")
	p.Until("it is there again", "document.querySelector('.shelf .chosen')?.innerText.includes('New lick')")
}

// A loop goes round without a gap or a count, faster or slower as is asked.
func TestALickGoesRound(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?licks.lick=7&licks.panel=write")
	p.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3")
	p.Click("loop")
	p.Choose("Speed", "120 %")
	p.Press(kb.Escape)
	p.Click("Hear it")
	lit := "[...document.querySelectorAll('.editor .note')].findIndex((n) => n.classList.contains('lit'))"
	p.Until("the last note", lit+" === 6")
	p.Until("the first again", lit+" === 0")
	p.Until("and the last again", lit+" === 6")
	p.Click("loop")
	p.Until("it ends", "document.querySelector('.write .primary').innerText === 'Hear it'")
}

// What is selected is heard alone, and lights up where it stands.
func TestASelectionIsHeard(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?licks.lick=7&licks.panel=write")
	p.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3")
	p.Press(kb.ArrowRight, kb.ArrowRight)
	p.with(chromedp.ModifierShift, kb.ArrowRight, kb.ArrowRight, kb.ArrowRight)
	p.Sees("Hear the selection")
	js[bool](p, `(() => { window.heard = new Set(); new MutationObserver(() => { [...document.querySelectorAll('.editor .note')].forEach((n, i) => n.classList.contains('lit') && window.heard.add(i)) }).observe(document.querySelector('.editor'), { subtree: true, attributes: true, attributeFilter: ['class'] }); return true })()`)
	p.Press(" ")
	p.Until("it sounds", "document.querySelector('.editor .note.lit')")
	p.Until("it ends", "document.querySelector('.write .primary').innerText === 'Hear the selection'")
	assert.Equal(t, "2,3", js[string](p, "[...window.heard].sort().join()"), "the third and fourth note")
}

// A lick that is left while it is still being saved is saved as itself, and the one that
// is opened then is left alone.
func TestLeavingALickWhileItIsSaved(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?licks.lick=7&licks.panel=write")
	p.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3")
	p.Press(kb.End, kb.ArrowDown, kb.ArrowDown, kb.ArrowDown, "8", kb.ArrowRight, "1", "0")
	js[bool](p, "(() => { [...document.querySelectorAll('.shelf li button')].find((b) => b.innerText.startsWith('Slack water')).click(); return true })()")
	p.writes("11 ♭7", "∿ 8 R", "11 ♭7", "p 8 5")
	p.Saved()
	p.Click("Ferry call A call in eighths: up to the ♭7 and back to the ♭3.")
	p.Until("the first has its new notes", writtenNotes+".length === 9")
	assert.Contains(t, p.file("/api/licks/8"), `"name":"Slack water"`)
	assert.NotContains(t, p.file("/api/licks/8"), "Ferry")
}

// A note is put right with one key; what was repaired can be kept.
func TestRepairingWithOneKey(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?at=5760&licks.lick=7&licks.panel=verdict")
	p.Sees("1 of 2 chord tones or colour")
	p.Press("r")
	p.Sees("2 of 2 chord tones")
	p.Press("r", "k")
	p.Sees("Kept as Ferry call, repaired.")
}

// Tab is pasted, read with its doubts, and its rhythm is put right in the editor.
func TestBringingInTab(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks")
	p.Sees("into A, the 3")
	p.Click("Import")
	p.TypeInto("The lick as tab", strings.Join([]string{"|-----------|", "|-8-----11--|", "|---8-9-----|", "|-----------|", "|-----------|"}, "\n"))
	p.Click("Read it")
	p.Sees("5 lines of tab stand together here; the instrument has 6 strings")
	p.TypeInto("The lick as tab", strings.Join([]string{"E|-----------|", "B|-8-----11--|", "G|---8-9-----|", "D|-----------|", "A|-----------|", "E|-----------|"}, "\n"))
	p.Click("Read it")
	p.Sees("4 notes in C, 4/4", "the rhythm is taken from the spacing", "tab has no lengths")
	p.Click("Keep and write on")
	p.writes("8 5", "8 ♭3", "9 3", "11 ♭7")
	// The second note is an eighth late: it goes earlier, and its length is set.
	p.Press(kb.ArrowRight, kb.ArrowRight, kb.ArrowDown, kb.ArrowDown)
	before := js[string](p, "document.querySelectorAll('.editor .note')[1].getAttribute('transform')")
	p.Press("<")
	p.Until("it stands earlier", "document.querySelectorAll('.editor .note')[1].getAttribute('transform') !== "+quoted(before))
}

// Licks are found by what they are: by words, by what they fit over, by a landing.
func TestFindingLicks(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?at=5760")
	p.Sees("Ferry call into A, the 3 of F7")
	p.Press("f")
	assert.Equal(t, "Find licks by their words", p.Focused())
	p.TypeInto("Find licks by their words", "pickup")
	p.Sees("2 of 64")
	p.Until("both pickups", "[...document.querySelectorAll('.shelf li b')].map((b) => b.innerText).join() === 'Night bus,Half past closing'")
	p.Press(kb.Backspace, kb.Backspace, kb.Backspace, kb.Backspace, kb.Backspace, kb.Backspace, kb.Escape)
	p.Click("Find by what they are")
	p.Choose("Licks that: leans on", "9")
	p.Choose("Licks that: with", "slide")
	p.Click("Done")
	p.Until("one slides and leans on the 9", "[...document.querySelectorAll('.shelf li b')].map((b) => b.innerText).join() === 'Up the mast'")
	p.Click("Not leans on 9")
	p.Click("Not with slide")
	p.Until("all again", "document.querySelectorAll('.shelf li b').length === 64")
	p.Click("Licks that end near it")
	p.Until("nearest first", "document.querySelector('.shelf li .quiet').innerText.startsWith('ends ')")
	says := js[[]string](p, "[...document.querySelectorAll('.shelf li .quiet')].map((s) => s.innerText)")
	require.NotEmpty(t, says)
	for _, one := range says {
		assert.True(t, strings.HasPrefix(one, "ends "), one)
	}
	p.Click("Find by what they are")
	p.Choose("Licks that: lands on", "R")
	p.Choose("Licks that: tagged", "octaves")
	p.Sees("No lick matches here. Remove one of the filters.")
}

// The same lick in another key, cut into its chords, and joined with another.
func TestALickElsewhereCutAndJoined(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?at=5760&licks.lick=29")
	p.Sees("Gangplank into")
	p.Press("w")
	p.Click("A♭")
	p.Until("in A flat", "document.querySelector('.says').innerText.includes('A♭')")
	assert.Equal(t, "4 R chord", p.Tab()[0])
	p.Click("as octaves")
	p.Until("two at once", "document.querySelectorAll('.tab .note').length === 24")
	p.Press("j")
	p.Sees("G7 · F7 · C7")
	p.Click("Keep the 3 parts")
	p.Sees("Kept 3 parts.")
	p.Has("Gangplank, part 2: F7 Down the last line of a blues: V, IV and home, the 3 of each.")
	p.Choose("The lick behind it", "Voice from below")
	p.Click("2 notes between")
	p.Until("both are there", "document.querySelectorAll('.tab .note').length === 18")
	p.Press("k")
	p.Sees("Kept as Gangplank, then Voice from below.")
}

// Two windows write one lick: the second to save is told, and nothing is overwritten.
func TestALickWrittenInTwoWindows(t *testing.T) {
	s := demo(t)
	one, two := openPage(t, s, "/tunes/1/licks?licks.lick=7&licks.panel=write"), openPage(t, s, "/tunes/1/licks?licks.lick=7&licks.panel=write")
	one.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3")
	two.writes("8 ♭3", "h 10 11", "8 5", "11 ♭7", "p 8 5", "10 11", "p 8 ♭3")
	one.Press(kb.End, "8")
	one.Saved()
	two.Expect(412)
	two.Press(kb.End, kb.ArrowDown, "8")
	two.Sees("saved elsewhere in the meantime")
	two.Click("Keep mine as a new lick")
	two.Saved()
}
