package e2e

import (
	"math"
	"testing"

	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// listening keeps every sample that a page sends to its loudspeaker, taken on
// the audio thread itself, so that a busy machine loses nothing.
const listening = `(() => {
	const tap = URL.createObjectURL(new Blob(["registerProcessor('tap', class extends AudioWorkletProcessor {" +
		"process(inputs) { this.port.postMessage(inputs[0][0]?.slice() ?? new Float32Array(128)); return true } })"],
		{ type: 'text/javascript' }))
	const connect = AudioNode.prototype.connect
	window.heard = { taps: [], rate: 0 }
	AudioNode.prototype.connect = function (to, ...rest) {
		if (to instanceof AudioDestinationNode && !(this.context instanceof OfflineAudioContext)) {
			this.context.audioWorklet.addModule(tap).then(() => {
				const blocks = []
				window.heard.taps.push(blocks)
				window.heard.rate = this.context.sampleRate
				const node = new AudioWorkletNode(this.context, 'tap')
				node.port.onmessage = (e) => blocks.push(e.data)
				connect.call(this, node)
				connect.call(node, to)
			})
		}
		return connect.call(this, to, ...rest)
	}
})()`

// measures offers the loudness of a stretch of the take, and of one frequency in
// it, from and to in seconds.
const measures = `(rate) => {
	window.loudness = (from, to) => {
		const part = window.take.subarray(Math.round(from * rate), Math.round(to * rate))
		return Math.sqrt(part.reduce((sum, v) => sum + v * v, 0) / part.length)
	}
	window.tone = (hertz, from, to) => {
		const part = window.take.subarray(Math.round(from * rate), Math.round(to * rate))
		let re = 0, im = 0
		part.forEach((v, n) => {
			const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * n) / part.length)
			re += v * window * Math.cos((2 * Math.PI * hertz * n) / rate)
			im += v * window * Math.sin((2 * Math.PI * hertz * n) / rate)
		})
		return Math.hypot(re, im) / part.length
	}
}`

// analysis joins what was heard, at the tap that heard anything, into one take
// that begins at the first sound, and offers the loudness of a moment and of
// one frequency within it.
const analysis = `(() => {
	const { taps, rate } = window.heard
	const blocks = taps.find((tap) => tap.some((data) => data.some((v) => Math.abs(v) > 0.02)))
	if (!blocks) return 0
	const all = new Float32Array(blocks.length * 128)
	blocks.forEach((data, n) => all.set(data, n * 128))
	const begin = all.findIndex((v) => Math.abs(v) > 0.02)
	window.take = begin < 0 ? new Float32Array(0) : all.subarray(begin)
	window.seconds = window.take.length / rate
	;` + "(" + measures + ")(rate)" + `
	return window.take.length
})()`

// What is heard of a line: four clicks alone, a beat apart; then the band; and
// the approach a half step below the target, at the time that the shuffle gives
// it and at the pitch that the tab says.
func TestTheLineIsHeardInTime(t *testing.T) {
	s := demo(t)
	p := openPage(t, s, "/")
	p.Before(listening)
	// The tap itself is no part of the page, and its policy would refuse it.
	_, err := chromedp.Call(p.ctx, page.SetBypassCSP, page.SetBypassCSPParams{Enabled: true})
	require.NoError(t, err)
	p.Go("/tunes/1/licks?at=5760&licks.lick=7&target=2:10&approach=half+step+below")
	p.Sees("Ferry call into A, the 3 of F7")
	assert.Equal(t, "9 ♭13 outside", p.Tab()[6], "the approach is G sharp")
	p.Press(" ")
	p.Until("the line to begin", "document.querySelector('.tab .note.lit')")
	p.Until("the line to end", "document.querySelector('.play[aria-label=Play]')")

	require.Positive(t, js[int](p, analysis), "nothing was heard")
	const beat = 60.0 / 112
	for n := range 4 {
		at := float64(n) * beat
		clicked := js[float64](p, expression("loudness(%f, %f)", at, at+0.03))
		between := js[float64](p, expression("loudness(%f, %f)", at+0.4*beat, at+0.9*beat))
		assert.Greater(t, clicked, 8*between, "click %d of the count-in", n+1)
	}
	assert.Greater(t, js[float64](p, expression("loudness(%f, %f)", 4*beat, 8*beat)), 0.02, "the band is heard")

	const gSharp = 415.30
	approach := 4*beat + 3*beat + beat*2/3
	there := js[float64](p, expression("tone(%f, %f, %f)", gSharp, approach+0.02, approach+0.17))
	before := js[float64](p, expression("tone(%f, %f, %f)", gSharp, approach-0.17, approach-0.02))
	assert.Greater(t, there, 4*before, "G sharp begins on the swung and of four")
	// A half step above, where nothing else sounds; a half step below, the
	// comping's G is still dying away.
	above := js[float64](p, expression("tone(%f, %f, %f)", gSharp*math.Exp2(1.0/12), approach+0.02, approach+0.17))
	assert.Greater(t, there, 2*above, "and is not a half step too high")
	t.Logf("G sharp at %.4f, a moment before %.4f; %.2f s heard", there, before, js[float64](p, "seconds"))
}
