package e2e

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Sheet lists the bars of the chart as they are drawn: chords, and the imagined
// ones behind a ~.
func (p *Page) Sheet() string {
	p.t.Helper()
	return js[string](p, `[...document.querySelectorAll('.sheet .cell:not(.fresh)')].map(c => {
		const texts = (s) => [...c.querySelectorAll(s)].map(e => e.innerText.trim()).filter(Boolean).join(' ')
		const imagined = [...c.querySelectorAll('.layer > span')].map(e => e.firstChild.textContent.trim()).filter(Boolean).join(' ')
		return texts('.chord') + (imagined ? ' ~ ' + imagined : '')
	}).join(' | ')`)
}

// SheetIs waits until the chart is drawn so.
func (p *Page) SheetIs(want string) {
	p.t.Helper()
	for end := time.Now().Add(patience); time.Now().Before(end); time.Sleep(20 * time.Millisecond) {
		if p.Sheet() == want {
			return
		}
	}
	require.Equal(p.t, want, p.Sheet())
}

// Type types a text, character by character.
func (p *Page) Type(text string) {
	p.t.Helper()
	for _, r := range text {
		p.Press(string(r))
	}
}

// A song progression from nothing, by keyboard alone: a name, eight empty bars
// in a flat key, chords and numerals typed bar by bar, a mistake mended.
func TestPaperLanternsFromNothingByKeyboard(t *testing.T) {
	p := openPage(t, serve(t, "serve", filepath.Join(t.TempDir(), "own.db")), "/")
	p.Sees("Start with a tune")
	p.TabTo("Title")
	p.Type("Paper Lanterns")
	p.TabTo("Form")
	p.Pick(kb.End)
	p.TabTo("Bars")
	p.Hold("a")
	p.Type("8")
	p.TabTo("Key")
	p.Pick(kb.ArrowUp) // from A, which is chosen, to the A♭ above it
	p.TabBackTo("Bars")
	p.TabTo("Feel")
	p.Pick(kb.Home)
	p.TabTo("Tempo")
	p.Hold("a")
	p.Type("84")
	p.TabTo("Start the tune")
	p.Press(kb.Enter)

	p.SheetIs("N.C. | N.C. | N.C. | N.C. | N.C. | N.C. | N.C. | N.C.")
	p.Until("the first bar to have the keyboard", "document.activeElement.classList.contains('bar')")
	for _, bar := range []string{"Ab", "vi7", "IVmaj7 V7", "I Eb/G", "Fm7", "ii7 V7", "Cm7 F7", "Bbm7 Eb7"} {
		p.Type(bar)
		p.Press(kb.Enter)
	}
	p.SheetIs("A♭ | Fm7 | D♭maj7 E♭7 | A♭ E♭/G | Fm7 | B♭m7 E♭7 | Cm7 F7 | B♭m7 E♭7")
	p.Saved()
	assert.Equal(t, "A new bar at the end", p.Focused())

	// A bar that cannot be read stays as it was typed, and says what is near.
	p.Press(kb.ArrowUp, kb.ArrowUp)
	p.Press(kb.Home)
	p.Type("Ab Hm7")
	p.Press(kb.Enter)
	p.Sees("\"Hm7\" is not a chord Undaris can read (stopped at character 1)")
	p.Press(kb.ArrowLeft)
	p.Press(kb.Enter)
	p.Until("the text as it was typed", "document.querySelector('.cell input')?.value === 'Ab Hm7'")
	p.Press(kb.Escape)
	p.SheetIs("A♭ | Fm7 | D♭maj7 E♭7 | A♭ E♭/G | Fm7 | B♭m7 E♭7 | Cm7 F7 | B♭m7 E♭7")

	p.Go(js[string](p, "location.pathname"))
	p.SheetIs("A♭ | Fm7 | D♭maj7 E♭7 | A♭ E♭/G | Fm7 | B♭m7 E♭7 | Cm7 F7 | B♭m7 E♭7")
	p.Click("2 Map")
	p.Has("Bar 2, Fm7, vi")
	p.Sees("A♭ major pentatonic")
}

// Pick opens the list that has the keyboard, moves in it by a key and takes what is
// there. A list that still fades away is another one: the keys wait until it is gone. It
// must not have been left a moment ago: a list forgets its place a tenth of a second later.
func (p *Page) Pick(key string) {
	p.t.Helper()
	p.Until("no other list", "!document.querySelector('[role=listbox]')")
	p.Press(kb.ArrowDown)
	p.Until("the list", "document.querySelector('[role=listbox] [role=option][data-p-focused=true]')")
	p.Press(key, kb.Enter)
	p.Until("the list to close", "!document.querySelector('[role=listbox]')")
}

// TabBackTo presses Shift and Tab until what is called so has the keyboard.
func (p *Page) TabBackTo(name string) {
	p.t.Helper()
	for range 120 {
		if p.Focused() == name {
			return
		}
		require.NoError(p.t, chromedp.Do(p.ctx, chromedp.KeyEvent("\t", chromedp.KeyModifiers(chromedp.ModifierShift))))
	}
	require.Fail(p.t, "cannot be reached by Shift and Tab", name)
}

// upload writes a file and gives it to the page's file field.
func (p *Page) upload(name, content string) {
	p.t.Helper()
	path := filepath.Join(p.t.TempDir(), name)
	require.NoError(p.t, os.WriteFile(path, []byte(content), 0o644))
	p.Until("a field for files", "document.querySelector('input[type=file]')")
	// The browser has been seen to leave the question for the field's node without an answer.
	give := func() error {
		ctx, cancel := context.WithTimeout(p.ctx, 10*time.Second)
		defer cancel()
		return chromedp.Do(ctx, chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), []string{path}))
	}
	err := give()
	if errors.Is(err, context.DeadlineExceeded) {
		err = give()
	}
	require.NoError(p.t, err)
}

func TestAChordProFileWithOneBadChordIsMended(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Click("Paste or open a file")
	p.upload("harbour.cho", "{title: Harbour Light}\n{key: G}\n{tempo: 92}\n[G]Light on the [Em7]harbour, [Cm7x]late and [D7]low\n")
	p.Sees("Harbour Light · ChordPro", "line 4, column 35", "\"Cm7x\" is not a chord Undaris can read")
	assert.Contains(t, js[string](p, "document.querySelector('textarea').value"), "[Cm7x]late", "what was read stays where it can be mended")
	p.Click("line 4, column 35")
	p.Click("Replace Cm7x by Cm7")
	p.Sees("Harbour Light · ChordPro · G major · 4/4 · 92", "words are not kept", "each chord is read as a bar of its own")
	p.Click("Keep as a tune")
	p.SheetIs("G | Em7 | Cm7 | D7")
	p.Saved()
}

// Other files, and files that are none.
func TestFilesThatCannotBeRead(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Click("Paste or open a file")
	for _, file := range []struct{ name, content, says string }{
		{"a.mid", "no MIDI", "the MIDI file cannot be read: it does not begin as a MIDI file does"},
		{"a.musicxml", "<!DOCTYPE x [<!ENTITY a SYSTEM \"file:///etc/passwd\">]><score-partwise>&a;</score-partwise>", "the file declares entities of its own"},
		{"a.mxl", "PK\x03\x04", "the archive cannot be unpacked"},
		{"a.txt", "| C7 | \xff |", "the text is not UTF-8 here"},
	} {
		p.upload(file.name, file.content)
		p.Sees(file.says)
	}
	p.upload("b.txt", "title: Found\nkey: A minor\n| Am7 | Dm7 | nothing\n")
	p.Sees("\"nothing\" is not a chord", "these bars are marked")
	p.upload("c.txt", "title: Found\nkey: A minor\n| Am7 | Dm7 |\nimagined: | | Bb7 |\n")
	p.Sees("Found · Bar grid · A minor")
	p.Click("Keep as a tune")
	p.SheetIs("Am7 | Dm7 ~ B♭7")
}

func TestTransposeReadAgainAndUndo(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/4/chart?chart.panel=tune")
	before := "A♭ | Fm7 | D♭maj7 E♭7 | A♭ E♭/G | Fm7 | B♭m7 E♭7 | Cm7 F7 | B♭m7 E♭7"
	p.SheetIs(before)
	p.Choose("Transpose to", "E")
	p.SheetIs("E | C♯m7 | Amaj7 B7 | E B/D♯ | C♯m7 | F♯m7 B7 | G♯m7 C♯7 | F♯m7 B7")
	p.Choose("Re-read in", "B major")
	p.Until("other numerals", "document.querySelector('.sheet .roman').innerText === 'IV'")
	p.SheetIs("E | C♯m7 | Amaj7 B7 | E B/D♯ | C♯m7 | F♯m7 B7 | G♯m7 C♯7 | F♯m7 B7")
	p.Hold("z")
	p.Until("the numerals as before", "document.querySelector('.sheet .roman').innerText === 'I'")
	p.Undo()
	p.SheetIs(before)
	p.Redo()
	p.SheetIs("E | C♯m7 | Amaj7 B7 | E B/D♯ | C♯m7 | F♯m7 B7 | G♯m7 C♯7 | F♯m7 B7")
	p.Undo()
	p.SheetIs(before)
	// Edits of one sitting are one version, but for one that has a name.
	p.Saved()
	p.Click("Versions")
	p.ClickOn("the version to be named", "document.querySelector('[aria-label^=\"Name version\"]')")
	p.Until("the field", "document.querySelector('[aria-label^=\"Name of version\"]')?.focus() ?? document.activeElement.getAttribute('aria-label')?.startsWith('Name of')")
	p.Type("as the singer knows it")
	p.Press(kb.Enter)
	p.Sees("as the singer knows it")
	p.Choose("Key", "E major")
	p.SheetIs("E | C♯m7 | Amaj7 B7 | E B/D♯ | C♯m7 | F♯m7 B7 | G♯m7 C♯7 | F♯m7 B7")
	p.Saved()
	p.Sees("transposed from A♭ to E")
	p.ClickOn("the named version", "document.querySelector('[aria-label^=\"Restore version\"]')")
	p.SheetIs(before)
	p.Hold("z")
	p.SheetIs("E | C♯m7 | Amaj7 B7 | E B/D♯ | C♯m7 | F♯m7 B7 | G♯m7 C♯7 | F♯m7 B7")
}

// An imagined turnaround on the last two bars is followed everywhere, by the
// soloist alone, and can be switched off.
func TestAnImaginedTurnaround(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart?chart.panel=turnarounds&at=19200")
	p.Sees("On bars 11 and 12", "Em7 A7 | Dm7 G7")
	p.Click("Imagine iii7 VI7 ii7 V7")
	p.SheetIs("C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 ~ Em7 A7 | G7 ~ Dm7 G7")
	p.Press("2")
	p.Has("Bar 11, Em7, imagined over C7, iii")
	p.Click("Bar 11, A7, imagined over C7, VI")
	p.Sees("A7 in the E-form position")
	p.Press("i")
	p.Has("Bar 11, C7, I")
	p.Press("i")
	p.Click("3 Change")
	p.Click("Bar 10, F7, IV")
	p.Sees("F7 gives way to Em7")
	p.Click("4 Licks")
	p.Until("the line", "document.querySelector('.tab .note.target')")
	p.Click("1 Chart")
	p.Click("Bar")
	p.Click("Bar 4, C7 I")
	p.TypeInto("Imagine", ". . . Gb7")
	p.Click("Put over")
	p.SheetIs("C7 | F7 | C7 | C7 ~ G♭7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 ~ Em7 A7 | G7 ~ Dm7 G7")
	p.Click("Turnarounds")
	p.Click("Write I–V")
	p.SheetIs("C7 | F7 | C7 | C7 ~ G♭7 | G7 | F7 | C7 | C7 | G7 | F7 | C7 ~ Em7 A7 | G7 ~ Dm7 G7")
	p.Click("Remove them")
	p.SheetIs("C7 | F7 | C7 | C7 | G7 | F7 | C7 | C7 | G7 | F7 | C7 | G7")
}

// TypeInto clicks a field, and types over what is in it.
func (p *Page) TypeInto(name, text string) {
	p.t.Helper()
	p.Click(name)
	p.Hold("a")
	p.Type(text)
}

// Sections, repeats, endings, split bars and lengths, with the mouse.
func TestShapingAForm(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/4/chart")
	p.Click("Bar 1, section A, A♭ I")
	p.Sees("A♭ I: home; its 3 is the 3 of the key.")
	p.Click("Split in 4")
	p.SheetIs("A♭ A♭ A♭ A♭ | Fm7 | D♭maj7 E♭7 | A♭ E♭/G | Fm7 | B♭m7 E♭7 | Cm7 F7 | B♭m7 E♭7")
	p.Click("Split in 2")
	p.Sees("bar 1 has 4 chords already; write over it to have fewer")
	p.Click("Bar 3, D♭maj7 IV 2 beats, E♭7 V 2 beats")
	p.Click("D♭maj7 a beat longer")
	p.Has("Bar 3, D♭maj7 IV 3 beats, E♭7 V 1 beat")
	p.Click("Bar 1, section A, A♭ I 1 beat, A♭ I 1 beat, A♭ I 1 beat, A♭ I 1 beat")
	p.Extend(3)
	p.Sees("Bars 1–4")
	p.Click("Play 2 times")
	p.Has("Bar 4, A♭ I 2 beats, E♭/G V 2 beats, played 2 times")
	p.Click("Bar 4, A♭ I 2 beats, E♭/G V 2 beats, played 2 times")
	p.Click("1st ending")
	p.Click("Bar 5, section B, Fm7 vi")
	p.Click("2nd ending")
	p.Has("Bar 5, section B, second ending, Fm7 vi")
	p.Click("Section Ending")
	p.Has("Bar 5, section Ending, second ending, Fm7 vi")
	p.Click("Facts")
	p.Sees("11 bars a chorus", "Fastest: 2 chords in bars")
	p.Click("2 Map")
	p.Has("Bar 11, E♭7, V")
	p.Click("1 Chart")
	p.Click("Bar")
	p.Click("Bar 6, B♭m7 ii 2 beats, E♭7 V 2 beats")
	p.Click("Copy")
	p.Click("Bar 8, B♭m7 ii 2 beats, E♭7 V 2 beats")
	p.Click("Paste before")
	p.Has("Bar 9, B♭m7 ii 2 beats, E♭7 V 2 beats")
	p.Click("Remove")
	p.Until("the bar to go", "!("+named("Bar 9, B♭m7 ii 2 beats, E♭7 V 2 beats")+")")
	p.Click("Tune")
	p.Choose("Meter", "3/4")
	p.Sees("bar 1 has more chords than 3/4 has beats (3); take some out first")
}

// Extend presses Shift and the right arrow so many times.
func (p *Page) Extend(bars int) {
	p.t.Helper()
	for range bars {
		require.NoError(p.t, chromedp.Do(p.ctx, chromedp.KeyEvent(kb.ArrowRight, chromedp.KeyModifiers(chromedp.ModifierShift))))
	}
}

func TestTempoFeelCapoAndName(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart?chart.panel=tune")
	p.Click("Faster")
	p.Until("113", "document.querySelector('[aria-label=\"Tempo of the tune\"]').value === '113'")
	p.Press("-")
	p.Until("112", "document.querySelector('[aria-label=\"Tempo of the tune\"]').value === '112'")
	js[any](p, `(() => { let now = 1000; performance.now = () => (now += 500) })()`)
	p.Press("t", "t", "t")
	p.Until("two taps a second", "document.querySelector('[aria-label=\"Tempo of the tune\"]').value === '120'")
	p.Choose("Feel of the tune", "slow 12/8")
	p.Sees("each beat counts three eighths")
	p.TypeInto("Capo", "3")
	p.Press("\t")
	p.Sees("played in A dominant")
	p.Until("the names above the capo", "[...document.querySelectorAll('.sheet .roman b')].map(e => e.innerText).slice(0, 2).join() === 'A7,D7'")
	p.TypeInto("Title", "Tin Roof Ferry at Night")
	p.Press("\t")
	p.Sees("Tin Roof Ferry at Night", "saved")
	p.TypeInto("Tags", "late, house set")
	p.Press("\t")
	p.Click("Versions")
	p.Saved()
	p.Sees("the chart as it was first kept")
	p.Has("Undo: change the tags")
}

func TestTheLibrary(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/2/chart")
	p.Has("Bar 2, B7 I")
	p.Press(" ")
	p.Until("the tune to sound", "document.querySelector('.sheet .cell.playing')")
	p.Press(" ")
	p.Click("undaris")
	names := "[...document.querySelectorAll('.tunes li strong')].map(e => e.innerText).join()"
	p.Until("the tune practised last to be first", names+".startsWith('Cold Kettle')")
	p.Choose("Order", "title")
	p.Until("order", names+" === 'Cold Kettle,Lock Keeper,Paper Lanterns,Salt Road at Dusk,Tin Roof Ferry,Weir Light'")
	p.TypeInto("Search tunes", "minor")
	p.Until("one tune", names+" === 'Salt Road at Dusk'")
	p.TypeInto("Search tunes", "polka")
	p.Sees("No tune is found by that.")
	p.TypeInto("Search tunes", " ")
	p.Click("slow")
	p.Until("one tune", names+" === 'Cold Kettle'")
	p.Click("slow")
	p.Click("Duplicate Paper Lanterns")
	p.Has("Delete Paper Lanterns, copy")
	p.Click("Delete Paper Lanterns, copy")
	p.Sees("“Paper Lanterns, copy” is deleted.")
	p.Click("Restore it")
	p.Has("Delete Paper Lanterns, copy")
	p.Click("Delete Paper Lanterns, copy")
	p.Click("Deleted tunes (1)")
	p.Click("Restore Paper Lanterns, copy")
	p.Has("Delete Paper Lanterns, copy")
}

// What is taken away is a file of its format, and the paper has the chart alone.
func TestTakingAChartAway(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/3/chart?chart.panel=file")
	p.Has("Bar grid")
	for name, begins := range map[string]string{"Bar grid": "title: Salt Road at Dusk", "ChordPro": "{title: Salt Road at Dusk}", "MusicXML": "<?xml", "MIDI": "MThd"} {
		text, err := chromedp.Run(p.ctx, chromedp.Evaluate[string]("fetch("+named(name)+".href).then(r => r.text())", chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(text, begins), "%s: %.40s", name, text)
	}
	js[any](p, "window.print = () => { document.title = 'printed' }")
	p.Click("Print the chart")
	p.Until("the print", "document.title === 'printed'")
	printed, err := chromedp.Call(p.ctx, page.PrintToPDF, page.PrintToPDFParams{})
	require.NoError(t, err)
	assert.Greater(t, len(printed.Data), 5000)
	p.Click("Duplicate")
	p.Sees("Salt Road at Dusk, copy")
	p.Click("File")
	p.Click("Delete")
	p.Sees("“Salt Road at Dusk, copy” is deleted.")
}

// Two windows on one chart: the second save is refused, and its window may show
// what was saved, or save its own over it; either way both stay.
func TestTwoWindowsOnOneChart(t *testing.T) {
	s := demo(t)
	one, two := openPage(t, s, "/tunes/4/chart"), openPage(t, s, "/tunes/4/chart")
	two.Expect(412)
	one.Has("Bar 2, Fm7 vi")
	two.Has("Bar 2, Fm7 vi")
	one.Click("Bar 2, Fm7 vi")
	one.Type("F7")
	one.Press(kb.Enter)
	one.Has("Bar 2, F7 VI")
	one.Saved()
	two.Click("Bar 2, Fm7 vi")
	two.Type("Abm7")
	two.Press(kb.Enter)
	two.Sees("nothing was overwritten", "not saved")
	two.Click("Keep mine as the newest version")
	two.Until("the refusal to go, and the page to close up", "!document.querySelector('[role=alert]')")
	two.Click("Versions")
	two.Saved()
	two.Sees("bar 2: F7 → A♭m7")
	one.Expect(412)
	one.Click("Bar 1, section A, A♭ I")
	one.Type("Db")
	one.Press(kb.Enter)
	one.Sees("nothing was overwritten")
	one.Click("Show what was saved")
	one.Has("Bar 2, A♭m7 i")
	one.Has("Bar 1, section A, A♭ I")
}
