package e2e

import (
	"fmt"
	"os"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// axe finds what of the page that is shown breaks WCAG 2.2 up to level AA, as far as a program can
// tell: each rule with the first elements that break it.
//
// That names contain what is written (2.5.3) it asks letter by letter; here each word of two letters and more that is
// written has to be in the name, in any order. In drawings the letters are symbols (R, ♭7), which
// the name says in words. Contrast is left to faint, which measures every text by day and by night, and the size of what is
// pressed to badLayout, which asks for no less, in a fifth of the time; with every window axe looks at them too.
func axe(t *testing.T, p *Page) []string {
	t.Helper()
	if js[bool](p, "window.axe === undefined") {
		source, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
		require.NoError(t, err, "npm ci in web brings it")
		js[any](p, string(source)+";0")
	}
	found, err := chromedp.Run(p.ctx, chromedp.Evaluate[[]string](fmt.Sprintf(`axe.run(document, {
			runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations'],
			rules: { 'color-contrast': { enabled: %[1]t }, 'target-size': { enabled: %[1]t } } })
		.then(({ violations }) => violations.flatMap(({ id, help, nodes }) => {
			const wordsOf = (text) => text.toLowerCase().split(/[^\p{L}\p{N}♭♯#+°ø/]+/u).filter(word => /\p{L}{2}/u.test(word))
			const differs = ({ target }) => { const e = document.querySelector(target[0])
				if (!e) return false // it was drawn anew meanwhile
				const name = wordsOf(e.getAttribute('aria-label') ?? '')
				return !e.ownerSVGElement && wordsOf(e.innerText).some(word => !name.includes(word)) }
			const broken = id === 'label-content-name-mismatch' ? nodes.filter(differs) : nodes
			return broken.slice(0, 3).map(n => id + ': ' + help + ': ' + n.html.slice(0, 140))
		}))`, *everyWindow), chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	return found
}
