package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// place clicks a place of the neck, whatever is there.
func (p *Page) place(at string) {
	p.t.Helper()
	mark := `document.querySelector('.neck .mark[data-place="` + at + `"]')`
	p.Until("the place "+at, mark)
	where := js[[]float64](p, "(r => [r.x + r.width/2, r.y + r.height/2])("+mark+".getBoundingClientRect())")
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.MouseClickXY(where[0], where[1])))
}

// The changes are walked in order, by kind, and by the bars; each kind says how
// often it comes and where.
func TestWalkingTheChanges(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/change?at=0")
	p.Sees("Bar 1 → 2", "C7 → F7 · 2 times, bars 2 5")
	p.Press(".")
	p.Sees("Bar 8 → 9", "C7 → G7 · 2 times, bars 9 12")
	p.Press(",", ",")
	p.Sees("Bar 2 → 3", "F7 → C7 · 3 times, bars 3 7 11")
	p.Choose("Distinct changes", "C7 → F7 · 2 times, bars 2 5")
	p.Sees("Bar 1 → 2")
	p.Choose("Distinct changes", "C7 → F7 · 2 times, bars 2 5")
	p.Sees("Bar 4 → 5")    // chosen again, it goes on to where the change comes next
	p.Press(kb.ArrowRight) // the list has let go of the keyboard
	p.Sees("Bar 6 → 7")
	p.Click("Bar 9, G7, V")
	p.Sees("Bar 9 → 10", "Play A, the 3 of F7")
	p.Choose("What to aim at", "roots first")
	p.Sees("Into F, the R of F7")
}

// "I am here": any place of the neck is clicked and the nearest landings are listed;
// a tone of the arriving chord says where it can be come from.
func TestIAmHere(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/change?at=5760")
	p.Sees("Best first", "Into A, the 3 of F7")
	p.place("3:7")
	p.Sees("I am here", "3:7 · D: the 9 over C7, the 13 over F7 (colour)", "Nearest landings", "up a fret: E♭, the ♭7 of F7")
	p.Click("R F up three frets: F, the R of F7 3:10 · ↑3 · same string")
	p.Sees("Into F, the R of F7")
	p.place("4:7")
	p.Sees("Where you can come from", "B♭, the ♭7 of C7, down a fret: A, the 3 of F7", "Into A, the 3 of F7")
	p.Click("♭7 B♭ B♭, the ♭7 of C7, down a fret: A, the 3 of F7 4:8 · ↓1 · same string")
	p.Sees("4:8 · B♭: the ♭7 over C7")
	p.Press("u")
	p.Sees("Best first")

	// The same by keyboard: into the neck, to a place where nothing is drawn.
	p.Go("/tunes/1/change?at=5760")
	p.Sees("Best first")
	p.TabTo("C, root of C 7, string 6, fret 8, finger 2; and C, 5 of F 7, string 6, fret 8, finger 2")
	p.Press(kb.ArrowRight)
	assert.Equal(t, "string 6, fret 9", p.Focused())
	p.Press(kb.Enter)
	p.Sees("I am here", "6:9 ·")
}

// Every approach into a target as tab that lands on the beat; those that do not
// fit say why; connectors run on from the change.
func TestApproaches(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/change?at=5760&target=3:10")
	p.Sees("Into F, the R of F7", "lands on beat 1 of bar 5")
	p.Click("bend a whole step")
	p.Sees("a bend of a whole step up to it: it starts on the and of beat 4 of bar 4")
	assert.Equal(t, []string{"8 ♭3 blue", "8 R chord"}, p.Tab())
	assert.Contains(t, js[string](p, "document.querySelector('.tab .technique').textContent"), "full")
	p.Choose("Subdivision", "triplet")
	p.Click("enclosure")
	p.Sees("an enclosure, above and below: it starts on the second triplet of beat 4 of bar 4")
	assert.Equal(t, []string{"7 ♭5 blue", "9 3 chord", "10 R chord"}, p.Tab())
	p.Choose("Sort approaches by", "by length")
	lengths := js[[]string](p, "[...document.querySelectorAll('[aria-label=Approaches] .chip')].slice(0,3).map(e => e.title.match(/(\\d) notes? before/)[1])")
	assert.Equal(t, []string{"1", "1", "1"}, lengths)
	p.Choose("Sort approaches by", "by tension")
	tension := js[[]float64](p, "[...document.querySelectorAll('[aria-label=Approaches] .chip')].map(e => Number(e.title.match(/tension (\\d+)/)[1]))")
	for n := 1; n < len(tension); n++ {
		assert.GreaterOrEqual(t, tension[n-1], tension[n], "the strongest pull first")
	}
	p.Click("3 do not fit")
	p.Until("the reasons", "document.querySelector('.refused')")
	p.Click("3 do not fit")
	p.Choose("Beats of a connector", "over 1 beat")
	p.Click("root up to 3")
	p.Sees("R up to the 3 of F7, one note after the first left out: it starts on beat 1 of bar 5")
	assert.Equal(t, []string{"10 R chord", "8 9 colour", "9 ♭3 blue", "10 3 chord"}, p.Tab())
	p.Press("a")
	p.Until("the next of them", named("3 up to 5")+".getAttribute('aria-pressed') === 'true'")
	p.Click("Hear it")
	p.Until("it sounds on tab and neck", "document.querySelector('.tab .note.lit') && document.querySelector('.neck .mark.lit')")
	p.Click("Stop")
}

// The path of targets runs along the form; a landing is pinned on the neck, the rest
// is planned anew around it, and the pin survives a reload.
func TestThePathOfTargets(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/change?at=5760&change.bench=path")
	p.Sees("4 frets, 7 strings", "9 frets, 0 strings", "A, the 3 of F7, string 4 fret 7")
	thread := "[...document.querySelectorAll('.strip .landing')].map(e => e.textContent.trim()).join(', ')"
	assert.Equal(t, "3 E, 3 A, 3 E, 3 A, 3 E, 3 B, ♭7 E♭, 3 E, 3 B", js[string](p, thread))
	p.place("2:10")
	p.Sees("A, the 3 of F7, string 2 fret 10", "5 frets, 7 strings", "Remove the pin")
	p.Until("the pin on the form", "document.querySelector('.strip .landing.pinned')?.textContent.trim() === '3 A'")
	p.Go(js[string](p, "location.pathname + location.search"))
	p.Sees("Remove the pin", "5 frets, 7 strings")
	p.Click("guide tones")
	p.Until("the other thread", thread+".startsWith('3 E, ')")
	p.Click("Go to bar 9")
	p.Sees("Bar 8 → 9")
	p.Click("Remove the only pin")
	p.Sees("9 frets, 0 strings")
	p.Click("Ways across")
	p.Until("the thread is gone with the bench", "document.querySelector('.moves') && !document.querySelector('.strip .landing')")
	p.Click("Target path")
	p.Until("and comes back with it", "document.querySelectorAll('.strip .landing').length === 9")
	p.Press("2")
	p.Sees("in the E-form position")
	p.Until("it is gone with the step", "!document.querySelector('.strip .landing')")
}

// Three fretted notes follow three chords by their bends.
func TestBends(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/change?change.bench=bends")
	p.Sees("B♭ 4:8", "F 3:10", "shake", "bend ½")
	assert.Equal(t, "8 ♭7 chord", p.Tab()[0])
	p.place("4:8")
	p.Until("one note less", "document.querySelectorAll('.bends tbody tr').length === 3")
	p.place("2:8")
	p.Sees("G 2:8")
	assert.Contains(t, p.Neck("tone"), "2:8 5")
	p.Click("Hear it over the band")
	p.Until("a sounding note", "document.querySelector('.tab .note.lit')")
	p.Click("Stop")
	p.Click("Back to the small box")
	p.Sees("B♭ 4:8")
}

// The calculator counts back, says how fast that is, and makes a run fit.
func TestCountingBack(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/change?at=5760&change.bench=count&target=2:10&change.here=4:10")
	p.Sees("Start on the and of beat 1 of bar 4")
	p.Choose("Subdivision", "sixteenths")
	p.Sees("Start on the second sixteenth of beat 3 of bar 4", "7.5 notes a second", "triplets at 149.3")
	p.Sees("5 notes lie there and there is time for 8: put in 3")
	p.Click("Start earlier")
	p.Sees("Start on beat 3 of bar 4", "put in 4")
	assert.Len(t, p.Tab(), 9)
	p.Choose("Beat to land on", "beat 2")
	p.Sees("Start on beat 4 of bar 4")
	p.TypeInto("Tempo to work up to", "120")
	p.Press("\t")
	p.Sees("112 · 118 · 120")
	p.TypeInto("Notes of the run", "200")
	p.Press("\t")
	p.Sees("is longer than the chart, or has none: 1 to")
}

// A tune that stays on one chord offers that chord's own tones, bar by bar.
func TestChangesOfAVamp(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/chart?chart.panel=tune")
	p.Choose("Scheme", "one-chord vamp")
	p.Click("3 Change")
	p.Sees("The tune stays on C7: aim at one of its own tones on the downbeat.", "Into B♭, the ♭7 of C7")
	p.Click("Target path")
	p.Sees("travel")
}

// What is heard of a bend into the change, rendered at once and taken away as a
// file: it begins on beat 4 at the fret below, and on the tick of the change it has
// reached the pitch that it is bent to.
func TestABendIsRenderedInTime(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/change?at=5760&target=2:10&approach=bend+a+half+step&sub=quarter")
	p.Sees("it starts on beat 4 of bar 4")
	js[any](p, `(() => { const make = URL.createObjectURL
		URL.createObjectURL = (blob) => { window.taken = blob; return make.call(URL, blob) }
		HTMLAnchorElement.prototype.click = function () { window.named = this.download } })()`)
	p.Click("WAV")
	p.Until("the file", "window.named")
	assert.Equal(t, "Tin Roof Ferry, bar 5, bend a half step.wav", js[string](p, "window.named"))
	_, err := chromedp.Run(p.ctx, chromedp.Evaluate[any](`taken.arrayBuffer().then(bytes => new OfflineAudioContext(1, 1, 44100).decodeAudioData(bytes))
		.then(sound => { window.take = sound.getChannelData(0); window.rate = sound.sampleRate; window.seconds = sound.duration })`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	js[any](p, "("+measures+")(window.rate)")

	const beat = 60.0 / 112
	const gSharp, a = 415.30, 440.0
	tone := func(hertz, from, to float64) float64 {
		return js[float64](p, expression("tone(%f, %f, %f)", hertz, from, to))
	}
	assert.InDelta(t, 12*beat+2.5, js[float64](p, "seconds"), 0.01, "a bar counted in, two bars, and what it takes to die away")
	change := 8 * beat
	begins := change - beat
	assert.Greater(t, tone(gSharp, begins+0.02, begins+0.25), 4*tone(gSharp, begins-0.25, begins-0.02), "G sharp begins on beat 4")
	assert.Greater(t, tone(gSharp, begins+0.05, begins+0.3), 3*tone(a, begins+0.05, begins+0.3), "and is not bent yet")
	assert.Greater(t, tone(a, change, change+0.25), 3*tone(gSharp, change, change+0.25), "A from the change on")
	t.Logf("before the change G sharp %.4f, A %.4f; after it %.4f, %.4f", tone(gSharp, begins+0.05, begins+0.3), tone(a, begins+0.05, begins+0.3), tone(gSharp, change, change+0.25), tone(a, change, change+0.25))
}
