package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// quick keeps a tune of some bars at 400 beats a minute, so that a chorus is over in no time,
// and returns its id.
func (p *Page) quick(bars ...string) int {
	p.t.Helper()
	all := []string{}
	for _, bar := range bars {
		chords := strings.Fields(bar)
		spans := []string{}
		for _, chord := range chords {
			spans = append(spans, fmt.Sprintf(`{"chord":%q,"beats":%d}`, chord, 4/len(chords)))
		}
		all = append(all, fmt.Sprintf(`{"chords":[%s]}`, strings.Join(spans, ",")))
	}
	body := fmt.Sprintf(`{"title":"Quick one","key":{"tonic":"C","mode":"dominant"},"meter":"4/4","tempo":400,"feel":"straight","swing":2,"bars":[%s]}`, strings.Join(all, ","))
	id, err := chromedp.Run(p.ctx, chromedp.Evaluate[int](fmt.Sprintf(
		`fetch('/api/charts', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: %s }).then(r => r.json()).then(k => k.id)`, quoted(body)), chromedp.EvalAwaitPromise))
	require.NoError(p.t, err)
	require.Positive(p.t, id)
	return id
}

// noted keeps every value that an expression takes, as long as the page is there.
func (p *Page) noted(name, expression string) {
	p.t.Helper()
	js[bool](p, fmt.Sprintf(`(window.%[1]s = [], (function note() {
		const now = %[2]s
		if (now !== undefined && now !== window.%[1]s.at(-1)) window.%[1]s.push(now)
		requestAnimationFrame(note)
	})(), true)`, name, expression))
}

const (
	playing   = "document.querySelector('header .play')?.getAttribute('aria-label') === 'Stop'"
	nowChord  = "document.querySelector('.stage .now')?.textContent.trim()"
	nextChord = "document.querySelector('.stage .next')?.textContent.trim()"
	barHeard  = "document.querySelector('.strip .bar.playing')?.dataset.bar"
)

// While the tune sounds Map shows the chord that is heard; a chord picked by hand stays until
// it is asked to follow again; another step goes along too, and the sound goes on.
func TestEveryStepFollowsTheMusic(t *testing.T) {
	p := openPage(t, demo(t), "/")
	id := p.quick("C7", "F7", "C7", "G7")
	p.Go(fmt.Sprintf("/tunes/%d/map", id))
	p.Sees("makes the E form")
	p.noted("chords", "document.querySelector('.says .chord')?.textContent.trim()")
	p.Press(" ")
	p.Until("Map to have followed a chorus", "window.chords.join(' ').includes('C7 F7 C7 G7 C7 F7')")

	p.Click("Bar 4, G7, V")
	p.Has("follow")
	p.Sees("G7")
	js[bool](p, "(window.chords.length = 0, true)")
	p.Until("two bars to go by", barHeard+" === '1'")
	p.Until("two bars to go by", barHeard+" === '3'")
	assert.Equal(t, []string{"G7"}, js[[]string](p, "window.chords"), "what was picked stays")
	p.Press(kb.Home)
	p.Until("Map to follow again", "window.chords.length > 4")

	p.Click("3 Change")
	p.noted("changes", "document.querySelector('.says .leaving')?.textContent.trim()")
	p.Until("Change to follow", "['C7', 'F7', 'G7'].every(c => window.changes.includes(c))")
	p.Click("6 Play")
	p.noted("stage", nowChord)
	p.Until("the stage to follow", "['C7', 'F7', 'G7'].every(c => window.stage.includes(c))")
	assert.True(t, js[bool](p, playing), "the sound went on all the while")
	p.Press(" ")
	p.Until("silence", "!("+playing+")")
}

// Half bars announce themselves: within a bar the chord changes, and the next one was said
// with the beats that were left.
func TestHalfBarsAnnounceThemselves(t *testing.T) {
	p := openPage(t, demo(t), "/")
	id := p.quick("C7 A7", "Dm7 G7")
	p.Go(fmt.Sprintf("/tunes/%d/play", id))
	p.Sees("then", "land on")
	p.noted("seen", nowChord+" + ' in bar ' + ("+barHeard+" ?? 0) + ', then ' + "+nextChord+" + ' ' + document.querySelector('.stage .left')?.textContent.trim()")
	p.Press(" ")
	for _, moment := range []string{
		"C7 in bar 1, then A7 in 2 beats", "C7 in bar 1, then A7 in 1 beat", "A7 in bar 1, then Dm7 in 2 beats",
		"Dm7 in bar 2, then G7 in 1 beat", "G7 in bar 2, then C7 in 2 beats",
	} {
		p.Until(moment, "window.seen.includes("+quoted(moment)+")")
	}
}

// Bars drawn over on the form go round; the speed changes while they sound; taken away the
// tune goes on.
func TestTwoBarsAreLoopedAndPlayedFaster(t *testing.T) {
	p := openPage(t, demo(t), "/")
	id := p.quick("C7", "F7", "C7", "G7", "C7", "F7")
	p.Go(fmt.Sprintf("/tunes/%d/play", id))
	p.Sees("land on")
	at := func(bar int) (x, y float64) {
		box := js[[]float64](p, fmt.Sprintf("(r => [r.x + r.width / 2, r.y + r.height / 2])(document.querySelector('.strip [data-bar=\"%d\"]').getBoundingClientRect())", bar))
		return box[0], box[1]
	}
	x, y := at(2)
	toX, toY := at(3)
	p.Drag(x, y, toX, toY)
	p.Has("loop 2–3")
	p.Until("bars 2 and 3 to be marked", "[...document.querySelectorAll('.strip .looped')].map(b => b.dataset.bar).join() === '2,3'")
	p.noted("bars", barHeard)
	p.Press(" ")
	p.Until("three rounds", "window.bars.length >= 6")
	assert.Equal(t, []string{"2", "3", "2", "3", "2", "3"}, js[[]string](p, "window.bars.slice(0, 6)"))
	p.Click("Speed")
	p.Click("50 %")
	for range 3 {
		p.Press("+")
	}
	p.Until("a little faster than half", "document.querySelector('[aria-label=Speed]')?.textContent.includes('52')")
	js[bool](p, "(window.bars.length = 0, true)")
	p.Until("it to go on", "window.bars.length >= 3")
	assert.Subset(t, []string{"2", "3"}, js[[]string](p, "window.bars"))
	p.Click("No looped bars")
	p.Until("the bars after them", "window.bars.includes('4')")
	// From the keyboard: this bar, then a bar more, then a bar less.
	p.Press(" ")
	p.Click("Bar 1, C7, I")
	p.with(chromedp.ModifierShift, kb.ArrowRight, kb.ArrowRight)
	p.Has("loop 1–2")
	p.with(chromedp.ModifierShift, kb.ArrowLeft, kb.ArrowLeft)
	p.Until("nothing looped", "!document.querySelector('.strip .looped')")
}

// The routine drops the chords on the third chorus and says so, by a key goes on with the
// next segment, and ends when it is over.
func TestTheBandIsDroppedOnTheThirdChorus(t *testing.T) {
	p := openPage(t, demo(t), "/")
	id := p.quick("C7", "F7")
	p.Go(fmt.Sprintf("/tunes/%d/play", id))
	p.Click("drop the band")
	p.Has("chords drop 1 chorus")
	p.noted("segments", "document.querySelector('.card.sounds strong')?.textContent.trim()")
	p.Click("Play")
	p.Until("it to be over", "window.segments.includes('and back') && !("+playing+")")
	assert.Equal(t, []string{"with the band", "chords drop", "click only", "silence", "and back"}, js[[]string](p, "window.segments"))

	p.Click("ladder of subdivisions")
	p.Sees("triplets at 108", "6 min")
	js[bool](p, "(window.segments.length = 0, true)")
	p.Click("Play")
	p.Until("the ladder to begin", "window.segments.length === 1")
	p.Press(".")
	p.Until("the next rung", "window.segments.at(-1) === 'eighths at 120'")
	p.Press(kb.PageDown)
	p.Until("a pedal to go on, too", "window.segments.at(-1) === 'triplets at 108'")
	p.Press(kb.PageUp)
	p.Until("a pedal to stop", "!("+playing+")")
}

// A routine of one's own: begun from a ready-made one, a segment changed, taken back, renamed,
// found again after the page was loaded anew, deleted.
func TestARoutineOfOnesOwn(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/play")
	p.Click("faster")
	p.Click("faster 2 choruses · at 78 · +4 each time to 120 · until you go on")
	p.TypeInto("The tempo it goes to", "130")
	p.Press(kb.Tab)
	p.Has("my faster")
	p.Sees("+4 each time to 130")
	p.Undo()
	p.Until("the ready-made one", "!document.body.innerText.includes('my faster')")
	p.Redo()
	p.Has("my faster")
	p.TypeInto("name of the routine", "up to the ferry")
	p.Press(kb.Tab)
	p.Has("up to the ferry")
	p.Saved()
	p.Go("/tunes/1/play")
	p.Has("up to the ferry")
	p.Sees("+4 each time to 130")
	p.Click("faster 2 choruses · at 78 · +4 each time to 130 · until you go on")
	p.TypeInto("The tempo it goes to", "999")
	p.Press(kb.Tab)
	p.Sees("it would go to 999; a tempo is 20 to 400 beats a minute")
	p.Undo()
	p.Click("Delete the routine")
	p.Until("it to be gone", "!document.body.innerText.includes('up to the ferry')")
}

// Keys with full hands: parts, tempo, what a pedal sends; space presses the button that the
// keyboard has gone to, and otherwise plays.
func TestKeysWithFullHands(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/play")
	p.Sees("land on")
	p.with(chromedp.ModifierShift, "3")
	p.Until("the chords to be silent", "[...document.querySelectorAll('.mixer .part.off .name')].map(b => b.innerText).join() === 'chords'")
	p.Press("h")
	p.Until("less on the stage", "document.querySelector('.views [aria-pressed=true]').innerText === 'scale'")
	p.Press("l")
	p.Until("the tones again", "document.querySelector('.views [aria-pressed=true]').innerText === 'tones'")
	p.Click("Pedal")
	p.Choose("What ↓ does", "chords heard or silent")
	p.Press(kb.ArrowDown)
	p.Click("Routine")
	p.Until("a pedal to bring the chords back", "!document.querySelector('.mixer .part.off')")
	p.TabTo("all keys")
	p.Press(" ")
	p.Has("through all keys 2 choruses · up a fourth each time, 12 keys")
	assert.False(t, js[bool](p, playing), "space pressed the button")
	js[bool](p, "(document.activeElement.blur(), true)")
	p.Press(" ")
	p.Until("it to play", playing)
}

// The longest symbols stay as high as the others and are drawn narrower; nothing lies over
// anything else.
func TestLongChordsOnTheStage(t *testing.T) {
	s := demo(t)
	for _, size := range []struct{ width, height int64 }{{1280, 800}, {390, 844}} {
		t.Run(fmt.Sprint(size.width), func(t *testing.T) {
			t.Parallel()
			p := openPage(t, s, "/")
			id := p.quick("Ebm(maj7) Ab13", "F#m7b5 B7b9")
			p.Go(fmt.Sprintf("/tunes/%d/play", id))
			require.NoError(t, chromedp.Do(p.ctx, chromedp.EmulateViewport(size.width, size.height)))
			p.Sees("then")
			for _, at := range []string{"0", "1920"} {
				p.Go(fmt.Sprintf("/tunes/%d/play?at=%s", id, at))
				p.Sees("then")
				p.Idle()
				p.Until("the chord within the page", "document.querySelector('.stage .now').getBoundingClientRect().right <= innerWidth")
				boxes := js[[][]float64](p, `[...document.querySelectorAll('.stage > .now, .stage > .where, .stage > .then')].map(e => (r => [r.left, r.top, r.right, r.bottom])(e.getBoundingClientRect()))`)
				for n, a := range boxes {
					for _, b := range boxes[n+1:] {
						over := min(a[2], b[2])-max(a[0], b[0]) > 1 && min(a[3], b[3])-max(a[1], b[1]) > 1
						assert.False(t, over, "at %s: %v lies over %v", at, a, b)
					}
				}
			}
		})
	}
}

// What fails is named, and the rest plays.
func TestASampleThatCannotBeLoaded(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Intercept()
	p.Before(`window.intercept = (method, url) => /kick/.test(url) ? Promise.resolve(new Response('', { status: 404 })) : undefined`)
	p.Go("/tunes/1/play")
	p.Sees("land on")
	p.Press(" ")
	p.Sees("Not loaded: drums. The rest plays.")
	p.Until("the rest to play", barHeard+" === '1'")
}

// Play can be read from two metres and is whole on a tablet and a phone; so is the shell of
// the other steps.
func TestPlayFitsAnyStand(t *testing.T) {
	s := demo(t)
	for _, size := range []struct{ width, height, chord int64 }{{1280, 800, 140}, {820, 1180, 140}, {390, 844, 96}} {
		t.Run(fmt.Sprint(size.width), func(t *testing.T) {
			t.Parallel()
			p := openPage(t, s, "/tunes/4/play")
			require.NoError(t, chromedp.Do(p.ctx, chromedp.EmulateViewport(size.width, size.height)))
			p.Sees("then")
			assert.GreaterOrEqual(t, js[float64](p, "parseFloat(getComputedStyle(document.querySelector('.stage .now')).fontSize)"), float64(size.chord))
			p.Until("notes of 14 px on the neck", "14 <= Math.min(...[...document.querySelectorAll('.neck .degree')].map(e => parseFloat(getComputedStyle(e).fontSize) * e.ownerSVGElement.getBoundingClientRect().width / e.ownerSVGElement.viewBox.baseVal.width))")
			if size.width < 900 {
				p.Until("the big button", "document.querySelector('.thumb .big')")
				button := js[[]float64](p, "(r => [r.top, r.bottom, r.height])(document.querySelector('.thumb .big').getBoundingClientRect())")
				assert.LessOrEqual(t, button[1], float64(size.height), "the big button is under the thumb")
				assert.GreaterOrEqual(t, button[2], 44.0)
			}
			for _, step := range []string{"play", "map", "chart"} {
				p.Go("/tunes/4/" + step)
				p.Until("the step", "document.querySelector('main h1') && document.querySelector('main section, main .stage')")
				p.Idle()
				assert.LessOrEqual(t, js[int64](p, "document.querySelector('header').scrollWidth"), size.width, step)
				assert.LessOrEqual(t, js[int64](p, "Math.round(document.querySelector('nav').getBoundingClientRect().right)"), size.width, step)
				title := js[float64](p, "document.querySelector('h1').getBoundingClientRect().width")
				assert.Greater(t, title, 100.0, "the title can be read in %s", step)
				if step == "play" {
					assert.LessOrEqual(t, js[int64](p, "document.documentElement.scrollWidth"), size.width, "nothing scrolls sideways")
				}
			}
		})
	}
}

// The tune goes on for ever, so it never sounds where it cannot be stopped: on the page of all
// tunes, or in another tune.
func TestTheTuneStopsWhereItCannotBeStopped(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Before(`(() => { const start = AudioScheduledSourceNode.prototype.start; window.sounding = new Set()
		AudioScheduledSourceNode.prototype.start = function (...a) { if (this.buffer) { window.sounding.add(this); this.addEventListener('ended', () => window.sounding.delete(this)) } return start.apply(this, a) } })()`)
	p.Go("/tunes/1/map")
	p.Sees("makes the E form")
	p.Press(" ")
	p.Until("it to play", barHeard)
	p.Click("Tin Roof Ferry: all tunes")
	p.Sees("Your tunes")
	p.Until("silence", "window.sounding.size === 0")
	p.Click("Cold Kettle, B · slow change · slow 12/8 · 54")
	p.Has("Bar 2, B7 I")
	p.Until("nothing to sound", "document.querySelector('header .play').getAttribute('aria-label') === 'Play'")
}

// A sound device that holds the clock up is picked up again, and the tune goes on; its key
// changes while it sounds, and what is shown goes along.
func TestTheSoundIsPickedUpAgain(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Before(`(() => { const Own = AudioContext; window.AudioContext = class extends Own { constructor(...a) { super(...a); window.device = this } } })()`)
	id := p.quick("C7", "F7", "C7", "G7")
	p.Go(fmt.Sprintf("/tunes/%d/play", id))
	p.Sees("land on")
	p.noted("bars", barHeard)
	p.Press(" ")
	p.Until("it to play", "window.bars.length > 3")
	_, err := chromedp.Run(p.ctx, chromedp.Evaluate[any]("window.device.suspend()", chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	js[bool](p, "(window.bars.length = 0, true)")
	p.Until("it to go on", "window.bars.length > 3")

	p.noted("stage", nowChord)
	p.Choose("Key", "D")
	p.Until("the tune in D", "['D7', 'G7', 'A7'].every(c => window.stage.includes(c))")
	assert.True(t, js[bool](p, playing))
	p.Press(kb.End)
	p.Until("it to end well", "!("+playing+")")
}

// A tune without a chord is played as what it is.
func TestATuneWithoutAChord(t *testing.T) {
	p := openPage(t, demo(t), "/")
	id, err := chromedp.Run(p.ctx, chromedp.Evaluate[int](`fetch('/api/charts', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(
		{ title: 'Nothing yet', key: { tonic: 'C', mode: 'dominant' }, meter: '4/4', tempo: 300, feel: 'straight', swing: 2, bars: [{ chords: [{ chord: '', beats: 4 }] }, { chords: [{ chord: '', beats: 4 }] }] }) }).then(r => r.json()).then(k => k.id)`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	p.Go(fmt.Sprintf("/tunes/%d/play", id))
	p.Sees("N.C.")
	p.noted("bars", barHeard)
	p.Press(" ")
	p.Until("the click to go round", "window.bars.length > 3")
}
