package e2e

import (
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/performance"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// repaint presses two keys in turn and measures, in milliseconds, from the key
// to the frame after the neck has changed. It gives the median and the longest of
// the presses.
const repaint = `(async (keys, presses) => {
	const took = []
	for (let n = 0; n < presses; n++) {
		const begun = performance.now()
		const painted = new Promise(done => {
			const seen = new MutationObserver(() => { seen.disconnect(); requestAnimationFrame(() => done(performance.now() - begun)) })
			seen.observe(document.querySelector('svg.neck'), { subtree: true, childList: true, attributes: true, characterData: true })
		})
		window.dispatchEvent(new KeyboardEvent("keydown", { key: keys[n % 2] }))
		took.push(await Promise.race([painted, new Promise((_, fail) => setTimeout(() => fail(new Error("nothing was painted after " + keys[n % 2] + " at press " + n)), 5000))]))
		await new Promise(done => setTimeout(done, 60))
	}
	took.sort((a, b) => a - b)
	return [took[Math.floor(presses / 2)], took[presses - 1]]
})`

// BenchmarkRepaint is how long a player waits for the neck: another position or
// another chord, the answer of the server included.
func BenchmarkRepaint(b *testing.B) {
	s := demo(b)
	for name, of := range map[string]struct{ path, keys string }{
		"map, another position":    {"/tunes/1/map", "['[', ']']"},
		"map, another chord":       {"/tunes/1/map", "['ArrowRight', 'ArrowLeft']"},
		"change, another change":   {"/tunes/1/change", "['ArrowRight', 'ArrowLeft']"},
		"change, another position": {"/tunes/1/change", "['[', ']']"},
		"licks, another position":  {"/tunes/1/licks?at=1920", "['[', ']']"},
	} {
		b.Run(name, func(b *testing.B) {
			p := openPage(b, s, of.path)
			p.Until("the neck", "document.querySelectorAll('.neck .mark').length > 5")
			for range b.N {
				before := p.processorTime(b)
				took, err := chromedp.Run(p.ctx, chromedp.Evaluate[[]float64](repaint+"("+of.keys+", 30)", chromedp.EvalAwaitPromise))
				require.NoError(b, err)
				after := p.processorTime(b)
				b.ReportMetric(took[0], "ms/median")
				b.ReportMetric(took[1], "ms/longest")
				for _, part := range []string{"Task", "Script", "Layout", "RecalcStyle"} {
					b.ReportMetric(1000*(after[part+"Duration"]-before[part+"Duration"])/30, "ms-"+part+"/key")
				}
			}
		})
	}
}

// processorTime is how many seconds the page has been busy since it was opened, in all and in parts; painting is in Task.
func (p *Page) processorTime(b *testing.B) map[string]float64 {
	b.Helper()
	_, err := chromedp.Call(p.ctx, performance.Enable, performance.EnableParams{})
	require.NoError(b, err)
	got, err := chromedp.Call(p.ctx, performance.GetMetrics, cdp.Empty{})
	require.NoError(b, err)
	all := map[string]float64{}
	for _, m := range got.Metrics {
		all[m.Name] = m.Value
	}
	return all
}

// BenchmarkRendering is how long it takes to render a tune as a file, in seconds for each minute
// of it: asking for the choruses, decoding the samples and writing the file included.
func BenchmarkRendering(b *testing.B) {
	p := openPage(b, demo(b), "/")
	p.Before(keeping)
	p.Go("/tunes/1/play?play.bench=export")
	p.Sees("Save as WAV")
	p.Click("8 choruses")
	for range b.N {
		took, err := chromedp.Run(p.ctx, chromedp.Evaluate[[]float64](`(async () => {
			const begun = performance.now()
			window.taken = undefined
			;[...document.querySelectorAll('.primary')].find(b => b.innerText === 'Save as WAV').click()
			while (!window.taken) await new Promise(done => setTimeout(done, 5))
			const seconds = (performance.now() - begun) / 1000
			return [seconds, (window.taken.size - 44) / 4 / 44100]
		})()`, chromedp.EvalAwaitPromise))
		require.NoError(b, err)
		b.ReportMetric(took[0]/took[1]*60, "s/minute-of-sound")
	}
}

// BenchmarkStage is how many frames of the stage are dropped while the band plays for ten
// seconds: those that come later than one and a half frames of a 60 Hz screen.
func BenchmarkStage(b *testing.B) {
	p := openPage(b, demo(b), "/tunes/1/play")
	p.Sees("land on")
	p.Press(" ")
	p.Until("it to play", barHeard)
	for range b.N {
		counted, err := chromedp.Run(p.ctx, chromedp.Evaluate[[]float64](`new Promise(done => {
			let frames = 0, late = 0, longest = 0, before = performance.now()
			const begun = before
			requestAnimationFrame(function frame() {
				const now = performance.now()
				frames++
				if (now - before > 25) late++
				longest = Math.max(longest, now - before)
				before = now
				if (now - begun < 10000) requestAnimationFrame(frame)
				else done([frames, late, longest])
			})
		})`, chromedp.EvalAwaitPromise))
		require.NoError(b, err)
		b.ReportMetric(counted[0]/10, "frames/s")
		b.ReportMetric(counted[1], "late")
		b.ReportMetric(counted[2], "ms/longest")
	}
}

// BenchmarkNoteToNeck is how long after its stroke a note of the simulated player lights on the neck, in ms: the pieces of
// 20 ms, the way to the server and back, and the painting included. The first piece is sent 20 ms after the sound begins.
func BenchmarkNoteToNeck(b *testing.B) {
	p := openPage(b, demo(b), "/tunes/1/takes")
	p.Sees("First crossing, a week on")
	p.Choose("Input", "the simulated player")
	for range b.N {
		js[any](p, `(() => {
			performance.clearResourceTimings()
			performance.setResourceTimingBufferSize(5000)
			window.lit = []
			let before = ''
			const look = () => {
				const now = document.querySelector('.neck .mark[aria-label^="you play"]')?.getAttribute('aria-label').match(/you play (\S+),/)[1] ?? ''
				if (now && now !== before) requestAnimationFrame(() => window.lit.push(performance.now()))
				before = now
			}
			window.watching?.disconnect()
			window.watching = new MutationObserver(look)
			window.watching.observe(document.querySelector('.neck'), { subtree: true, childList: true, attributes: true })
		})()`)
		p.Click("Record a take")
		p.Until("twenty notes", "window.lit.length >= 20")
		js[any](p, "window.watching.disconnect(), window.begun = performance.getEntriesByType('resource').find(e => e.name.includes('/sound?at=0')).startTime - 20")
		p.Click("End the take")
		p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
		took, err := chromedp.Run(p.ctx, chromedp.Evaluate[[]float64](`(async () => {
			const all = await (await fetch('/api/takes?chart=1')).json()
			const take = await (await fetch('/api/takes/' + Math.max(...all.map(t => t.id)))).json()
			const late = window.lit.map(at => (at - window.begun) / 1000).map(at => {
				const onset = take.notes.map(n => n.onset).filter(o => o <= at).at(-1)
				return onset === undefined ? NaN : 1000 * (at - onset)
			}).filter(ms => ms < 250).sort((a, b) => a - b)
			return [late[late.length >> 1], late.at(-1), late.length]
		})()`, chromedp.EvalAwaitPromise))
		require.NoError(b, err)
		b.ReportMetric(took[0], "ms/median")
		b.ReportMetric(took[1], "ms/longest")
		b.ReportMetric(took[2], "notes")
	}
}

// BenchmarkFirstView is how long after an address is opened, in ms, the neck and its sentence are painted: with an empty
// cache, over loopback and over a line of 10 Mbit/s with 20 ms to the server and back; and how many kB came over it.
func BenchmarkFirstView(b *testing.B) {
	s := demo(b)
	for name, lines := range map[string][]*network.Conditions{
		"loopback":             {},
		"10 Mbit per s, 20 ms": {{Latency: 20, DownloadThroughput: 10e6 / 8, UploadThroughput: 10e6 / 8}},
	} {
		b.Run(name, func(b *testing.B) {
			p := openPage(b, s, "/data")
			p.Idle()
			_, err := chromedp.Call(p.ctx, network.SetCacheDisabled, network.SetCacheDisabledParams{CacheDisabled: true})
			require.NoError(b, err)
			_, err = chromedp.Call(p.ctx, network.EmulateNetworkConditionsByRule, network.EmulateNetworkConditionsByRuleParams{MatchedNetworkConditions: lines})
			require.NoError(b, err)
			for range b.N {
				p.Before(`window.firstView = new Promise(done => { const look = () => document.querySelectorAll('.neck .mark').length > 5 && document.fonts.status === 'loaded'
					? requestAnimationFrame(() => setTimeout(() => done(performance.now()))) : requestAnimationFrame(look); look() })`)
				p.Go("/tunes/1/map")
				took, err := chromedp.Run(p.ctx, chromedp.Evaluate[float64]("window.firstView", chromedp.EvalAwaitPromise))
				require.NoError(b, err)
				b.ReportMetric(took, "ms")
				b.ReportMetric(js[float64](p, "performance.getEntriesByType('resource').concat(performance.getEntriesByType('navigation')).reduce((sum, e) => sum + e.transferSize, 0) / 1000"), "kB")
				p.Go("/data")
			}
		})
	}
}
