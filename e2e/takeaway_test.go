package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// keeping keeps what the page gives the browser to download, as window.taken.
const keeping = `(() => { const make = URL.createObjectURL
	URL.createObjectURL = (blob) => { if (blob instanceof Blob) window.taken = blob; return make(blob) }
	HTMLAnchorElement.prototype.click = function () { window.takenAs = this.download } })()`

// takeWAV waits for a WAV file and reads it as anyone would: window.take are the samples of its
// first channel between -1 and 1.
func (p *Page) takeWAV() {
	p.t.Helper()
	p.Until("a WAV file", "window.taken?.type === 'audio/wav'")
	_, err := chromedp.Run(p.ctx, chromedp.Evaluate[float64](`window.taken.arrayBuffer().then(data => {
		const view = new DataView(data)
		const text = (at) => String.fromCharCode(...new Uint8Array(data, at, 4))
		if (text(0) !== 'RIFF' || text(8) !== 'WAVE' || text(36) !== 'data') throw new Error('no WAV file')
		const channels = view.getUint16(22, true), count = view.getUint32(40, true) / 2 / channels
		window.rate = view.getUint32(24, true)
		window.take = new Float32Array(count)
		window.peak = 0
		for (let n = 0; n < count; n++) for (let c = 0; c < channels; c++) {
			const value = view.getInt16(44 + (n * channels + c) * 2, true) / 32768
			window.peak = Math.max(window.peak, Math.abs(value))
			if (c === 0) window.take[n] = value
		}
		window.taken = undefined
		return count
	})`, chromedp.EvalAwaitPromise))
	require.NoError(p.t, err)
	js[any](p, "("+measures+")(window.rate)")
}

// begins is when a note begins, in seconds, near a time: where it first reaches a fiftieth of
// what it reaches in its first half second.
const begins = `((from, to, least) => {
	const at = (s) => Math.round(s * window.rate)
	let peak = 0
	for (let n = at(from); n < at(to); n++) peak = Math.max(peak, Math.abs(window.take[n] ?? 0))
	for (let n = at(from); n < at(to); n++) if (Math.abs(window.take[n] ?? 0) >= peak * least) return n / window.rate
})`

// Rendered, every sound begins within a millisecond of its time, across the pieces that a
// long rendering is made of, too; nothing is louder than -1 dBFS with every level at its most;
// and where nothing is to be heard there is nothing.
func TestWhatIsTakenAwayIsInTimeAndNeverTooLoud(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Intercept()
	p.Before(keeping)
	p.Go("/tunes/1/play?play.bench=export")
	p.Sees("Save as WAV", "land on")
	p.Idle()
	// One note of each sound, at a thousand ticks a second, a few ticks beside the second.
	sounds := []struct {
		part string
		midi int
		at   int
	}{
		{"click", 76, 1003}, {"click", 77, 3007}, {"drums", 36, 5011}, {"drums", 37, 7013}, {"drums", 38, 9017}, {"drums", 42, 11019},
		{"drums", 44, 13023}, {"drums", 43, 15029}, {"drums", 47, 18031}, {"drums", 50, 21037}, {"bass", 28, 24041}, {"bass", 45, 27043},
		{"chords", 60, 29999}, {"chords", 67, 33049}, {"line", 64, 36053}, {"line", 76, 39059}, {"drums", 46, 42061}, {"drums", 51, 48067}, {"drums", 49, 54071},
	}
	notes := ""
	for n, s := range sounds {
		if n > 0 {
			notes += ","
		}
		notes += fmt.Sprintf(`{part:%q,tick:%d,ticks:700,midi:%d,loudness:110}`, s.part, s.at, s.midi)
	}
	js[any](p, `(() => { let asked = 0
		window.intercept = (method, url, ask) => { if (!url.includes('/api/compute/band/pass')) return
			const performance = { tempo: 125, beatTicks: 480, countIn: 0, end: 58000, beats: [{ tick: 0, bar: 1, beat: 1, at: 0 }], chords: [], notes: [`+notes+`] }
			const finished = asked++ > 0
			return ask().then((answer) => answer.json()).then((pass) =>
				new Response(JSON.stringify({ ...pass, finished, performance }), { headers: { 'Content-Type': 'application/json' } })) } })()`)
	p.Click("1 chorus")
	p.Click("click")
	p.Click("with an ending")
	p.Click("Save as WAV")
	p.takeWAV()
	worst := 0.0
	for _, s := range sounds {
		want := float64(s.at) / 1000
		got := js[float64](p, fmt.Sprintf("%s(%f, %f, 0.02) ?? -1", begins, want-0.3, want+0.5))
		assert.InDelta(t, want, got, 0.001, "%s %d", s.part, s.midi)
		worst = max(worst, got-want, want-got)
	}
	t.Logf("the latest of %d sounds is %.2f ms off", len(sounds), worst*1000)

	// The band itself, as loud as it can be.
	js[any](p, "window.intercept = undefined")
	p.Click("Band")
	for _, part := range []string{"drums", "bass", "chords", "line", "click"} {
		js[any](p, fmt.Sprintf(`(e => { e.value = 100; e.dispatchEvent(new Event('input', { bubbles: true })) })(document.querySelector('[aria-label="Level of the %s"]'))`, part))
	}
	p.Saved()
	p.Click("Export")
	p.Click("3 choruses")
	p.Click("click")
	p.Click("Save as WAV")
	p.takeWAV()
	assert.LessOrEqual(t, js[float64](p, "window.peak"), 0.891, "-1 dBFS")
	assert.Greater(t, js[float64](p, "window.peak"), 0.5)
	const beat = 60.0 / 112
	assert.InDelta(t, (4+3*48+4)*beat, js[float64](p, "window.take.length / window.rate"), 5, "a bar counted in, three choruses, a bar that rings and what it takes to slow down and die away")
	assert.Greater(t, js[float64](p, fmt.Sprintf("loudness(%f, %f)", 4*beat, 8*beat)), 0.05)

	// Eighths of a click swing two to one in a shuffle.
	p.Click("Click")
	p.Click("eighths")
	p.Click("Export")
	for _, part := range []string{"drums", "bass", "chords", "line", "click"} {
		p.Click(part)
	}
	p.Click("1 chorus")
	p.Click("Save as WAV")
	p.takeWAV()
	for _, at := range []float64{4, 4 + 2.0/3, 5, 5 + 2.0/3} {
		got := js[float64](p, fmt.Sprintf("%s(%f, %f, 0.02) ?? -1", begins, at*beat-0.08, at*beat+0.1))
		assert.InDelta(t, at*beat, got, 0.0015, "a click at beat %.2f", at) // a tick is 1.1 ms
	}
	assert.Less(t, js[float64](p, fmt.Sprintf("loudness(%f, %f)", 4*beat+0.2, 4.6*beat)), 0.001, "between them it is silent")

	// A line that there is not: silence.
	p.Click("click")
	p.Click("line")
	p.Click("Save as WAV")
	p.takeWAV()
	assert.Zero(t, js[float64](p, "window.peak"))

	p.Click("drums")
	p.Click("Save as MIDI")
	p.Until("a MIDI file", "window.takenAs?.endsWith('.mid')")
	head, err := chromedp.Run(p.ctx, chromedp.Evaluate[string]("window.taken.slice(0, 4).text()", chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.Equal(t, "MThd", head)
}

// A long rendering shows how far it is, and can be stopped.
func TestALongRenderingCanBeStopped(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Intercept()
	p.Before(keeping)
	p.Go("/tunes/1/play?play.bench=export")
	p.Sees("Save as WAV", "land on")
	p.Click("8 choruses")
	js[any](p, `window.intercept = (method, url) => url.includes('/api/compute/band/pass') && window.asked++ > 5 ? new Promise(() => {}) : undefined; window.asked = 0`)
	p.Click("Save as WAV")
	p.Until("some of it", "document.querySelector('progress')?.value > 0")
	p.Click("Stop rendering")
	p.Sees("Save as WAV", "land on")
	assert.False(t, js[bool](p, "Boolean(window.taken)"), "nothing is saved of it")
}

// A solo of the tune is played over the band, and goes with it into the file.
func TestASoloIsPlayedOverTheBand(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Before(keeping)
	p.Go("/tunes/1/play?play.bench=export")
	p.Sees("Save as MIDI", "land on")
	taken := func() string {
		js[any](p, "window.taken = undefined")
		p.Click("Save as MIDI")
		p.Until("a MIDI file", "window.taken")
		text, err := chromedp.Run(p.ctx, chromedp.Evaluate[string]("window.taken.text()", chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		return text
	}
	assert.NotContains(t, taken(), "Guitar")
	p.Click("Band")
	p.Click("What is played over the band")
	p.ClickOn("the first solo", "document.querySelectorAll('[role=option]')[1]")
	p.Saved()
	p.Click("Export")
	assert.Contains(t, taken(), "Guitar", "the line has a track of its own")
}
