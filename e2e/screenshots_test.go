package e2e

import (
	"encoding/base64"
	"flag"
	"net/url"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"
)

var screenshots = flag.String("screenshots", "", "the folder to write the pictures of the main views to")

// TestScreenshots takes the pictures that the README shows, from a fresh demo
// set, the same each time.
func TestScreenshots(t *testing.T) {
	if *screenshots == "" {
		t.Skip("only make screenshots takes them")
	}
	require.NoError(t, os.MkdirAll(*screenshots, 0o755))
	p := openPage(t, demo(t), "/")
	shoot := func(name string) {
		t.Helper()
		p.Until("the fonts", "document.fonts.status === 'loaded'")
		// Painted afresh and whole: what was painted piece by piece, as answers
		// came in, differs by a few pixels from one time to the next.
		_, err := chromedp.Run(p.ctx, chromedp.Evaluate[any](`new Promise(done => {
			const frame = () => new Promise(requestAnimationFrame)
			document.body.style.display = 'none'
			frame().then(frame).then(() => { document.body.style.display = ''; return frame() }).then(frame).then(() => done(null))
		})`, chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		picture, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(*screenshots, name+".png"), picture, 0o644))
	}
	_, err := chromedp.Call(p.ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{
		Features: []*emulation.MediaFeature{{Name: "prefers-reduced-motion", Value: "reduce"}},
	})
	require.NoError(t, err)
	p.Sees("Your tunes")
	shoot("start")
	p.Go("/tunes/6/chart?at=29760&chart.panel=form")
	p.Sees("Back to the segno at")
	shoot("chart")
	p.Go("/tunes/1/map?at=1920")
	p.Sees("F7 in the E-form position")
	shoot("map")
	p.Go("/tunes/1/exercise?exercise.side=choices&exercise.of=" + url.QueryEscape(`{"tones":"scale of the chord","order":{"figure":"in thirds"}}`))
	p.Until("the exercise", "document.querySelectorAll('.tab .note').length > 20")
	shoot("exercise")
	p.openHands()
	p.Click("open G D G D G B D")
	p.Click("left-handed")
	p.Until("the mirrored neck", "document.querySelector('.neck .nut').x1.baseVal.value > 900")
	p.Go("/tunes/1/map?pos=fret-9")
	p.Sees("C7 on frets 9 to 12")
	shoot("map-open-g")
	p.openHands()
	p.Click("standard E A D G B E")
	p.Click("left-handed")
	p.Until("the neck as it was", "document.querySelector('.neck .nut').x1.baseVal.value < 200")
	p.Go("/tunes/1/change?at=5760&approach=enclosure&sub=triplet")
	p.Sees("Bar 4 → 5", "an enclosure, above and below")
	shoot("change")
	p.Go("/tunes/3/change?at=15360&change.bench=path")
	p.Sees("This landing", "travel")
	shoot("change-path")
	p.Go("/tunes/1/licks?at=5760&licks.lick=9&approach=enclosure&target=2:10")
	p.Sees("Last boat into A", "lands on beat 1")
	p.Click("Keep the line")
	p.Sees("Kept as")
	p.Go("/tunes/1/licks?at=5760&licks.lick=9&approach=enclosure&target=2:10")
	p.Sees("Kept lines", "lands on beat 1")
	shoot("licks")
	p.Go("/tunes/1/licks?at=1920&licks.lick=10&licks.panel=verdict")
	p.Sees("rests on", "notes a second")
	shoot("licks-verdict")
	p.Go("/tunes/1/licks?licks.lick=22&licks.panel=write&licks.staff=yes")
	p.Until("the staff is engraved", "document.querySelectorAll('.staff svg .vf-stavenote').length >= 10")
	shoot("licks-write")
	p.Go("/tunes/1/solo?at=15360")
	p.Until("the chorus", "document.querySelectorAll('.line .event').length > 5")
	p.Press(".", ".", ".")
	shoot("solo")
	p.Go("/tunes/1/solo?solo.bench=plan")
	p.Sees("the box, made up")
	p.Click("the box, made up")
	p.Saved()
	p.TabTo("Blend of all bars")
	p.Press(kb.Home)
	p.Until("the box alone", "document.querySelector('.strip .dropped.unclear, .strip .dropped.another-chord')")
	p.Press("n", "v")
	p.Sees("would settle it")
	shoot("solo-verdict")
	p.Press("n")
	p.Go("/tunes/1/play?at=5760")
	p.Sees("land on")
	p.Click("drop the band")
	p.Sees("click only", "3 min")
	p.Saved()
	shoot("play")
	p.Go("/tunes/4/play?at=5760&play.bench=band")
	p.Sees("land on", "electric piano")
	p.Press("n")
	shoot("play-night")
	p.Go("/tunes/2/map?pos=C")
	p.Sees("in the C-form position")
	shoot("map-night")
	p.Press("n")
	js[any](p, "Math.random = () => 0.4")
	p.Go("/tunes/1/takes")
	p.Until("the verdict", "document.querySelectorAll('.verdict .row').length > 5")
	shoot("takes")
	p.Before(`(() => { const ask = fetch; window.fetch = async (input, init) => {
		const url = input.url ?? String(input)
		if (url.endsWith('/api/backups')) return Response.json({dataFile: '~/.local/share/undaris/undaris.db', folder: '~/.local/share/undaris/undaris.db.backups', backups: [
			['20260612-190000.db', '2026-06-12T19:00:00Z', 'daily', 540672, 2], ['20260611-184500.db', '2026-06-11T18:45:00Z', 'before an import', 532480, 1],
			['20260611-080000.db', '2026-06-11T08:00:00Z', 'daily', 528384, 1]].map(([name, made, reason, bytes, sounds]) => ({name, made, reason, bytes, sounds}))})
		return ask(input, init) } })()`)
	p.Go("/data")
	p.Sees("before an import")
	shoot("data")
	p.Go("/tunes/1/practice")
	p.Sees("Where you are weakest", "Warm up")
	p.Press(" ")
	p.Sees("Long notes, loose hands")
	p.Press(" ")
	p.Sees("card 1 of")
	shoot("practice")
	// On the stand: three phones beside a tablet, as one picture.
	take := func(w window, path, sees string) []byte {
		p.Resize(w)
		p.Go(path)
		p.Sees(sees)
		p.Idle()
		picture, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		return picture
	}
	phone, tablet := window{width: 390, height: 844, touch: true, text: 100}, window{width: 820, height: 1180, touch: true, text: 100}
	pictures := [][]byte{
		take(phone, "/tunes/1/map?at=1920", "F7 in the E-form position"), take(phone, "/tunes/1/change?at=5760", "gives way to"),
		take(phone, "/tunes/1/play?at=5760", "in 4 beats"), take(tablet, "/tunes/1/solo?at=15360", "still say their name"),
	}
	p.Leave()
	p.Resize(window{width: 1800, height: 876, text: 100})
	html := `<body style="margin:16px;display:flex;gap:16px;background:#888">`
	for _, picture := range pictures {
		html += `<img style="height:844px" src="data:image/png;base64,` + base64.StdEncoding.EncodeToString(picture) + `">`
	}
	js[any](p, "document.body.outerHTML = "+quoted(html))
	shoot("stand")
}
