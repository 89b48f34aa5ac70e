package e2e

import (
	"math"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// luminance is the relative luminance of a colour "#rrggbb" (WCAG 2.2).
func luminance(t *testing.T, colour string) float64 {
	t.Helper()
	require.Regexp(t, "^#[0-9a-fA-F]{6}$", colour)
	value, err := strconv.ParseUint(colour[1:], 16, 32)
	require.NoError(t, err)
	channel := func(shift int) float64 {
		c := float64(value>>shift&0xff) / 255
		if c <= 0.04045 {
			return c / 12.92
		}
		return math.Pow((c+0.055)/1.055, 2.4)
	}
	return 0.2126*channel(16) + 0.7152*channel(8) + 0.0722*channel(0)
}

func contrast(t *testing.T, a, b string) float64 {
	t.Helper()
	la, lb := luminance(t, a), luminance(t, b)
	return (math.Max(la, lb) + 0.05) / (math.Min(la, lb) + 0.05)
}

func TestLuminanceByTheBook(t *testing.T) {
	assert.InDelta(t, 21, contrast(t, "#000000", "#ffffff"), 0.01)
	assert.InDelta(t, 4.54, contrast(t, "#767676", "#ffffff"), 0.01)
}

// Every colour that carries text meets WCAG AA for small text on every ground
// it stands on, by day and by night.
func TestContrastMeetsAA(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Sees("Your tunes")
	for _, look := range []string{"day", "night"} {
		token := func(name string) string {
			return strings.TrimSpace(js[string](p, "getComputedStyle(document.documentElement).getPropertyValue('--p-undaris-"+name+"')"))
		}
		for _, pair := range []struct{ text, grounds string }{
			{"ink", "paper card shade now-tint next-tint"}, {"stone", "paper card shade now-tint"}, {"now", "paper card now-tint"},
			{"next", "paper card next-tint"}, {"on-fill", "now next-fill"},
		} {
			for _, ground := range strings.Fields(pair.grounds) {
				assert.GreaterOrEqual(t, contrast(t, token(pair.text), token(ground)), 4.5, "%s on %s by %s", pair.text, ground, look)
			}
		}
		p.Press("n")
	}
}

// Whatever can be used on a view has a name to be called by, every note of the
// neck says where it is, and at 1280 by 800 nothing has to be scrolled for.
func TestEverythingHasANameAndFits(t *testing.T) {
	s := demo(t)
	for _, path := range []string{"/", "/tunes/3/chart", "/tunes/4/chart?chart.panel=tune", "/tunes/2/chart?chart.panel=turnarounds", "/tunes/4/chart?chart.panel=facts", "/tunes/1/chart?chart.panel=versions", "/tunes/1/chart?chart.panel=file",
		"/tunes/3/map?at=21120", "/tunes/4/map?map.bench=arpeggios", "/tunes/4/map?map.bench=chords", "/tunes/1/map?map.full=yes&map.label=note", "/tunes/4/change?at=1920", "/tunes/4/change?change.bench=path", "/tunes/2/change?change.bench=bends", "/tunes/3/change?change.bench=count", "/tunes/4/change?change.bench=box", "/tunes/1/change?at=5760&change.here=3:8&target=3:10&approach=enclosure", "/tunes/4/licks?at=1920", "/tunes/1/licks?licks.panel=verdict&licks.lick=8", "/tunes/1/licks?licks.panel=write&licks.lick=22", "/tunes/4/licks?licks.panel=write&licks.lick=14&licks.staff=yes", "/tunes/3/licks?licks.panel=elsewhere&licks.lick=9", "/tunes/1/licks?licks.panel=join&licks.lick=30&licks.behind=24&licks.between=2", "/tunes/4/licks?licks.panel=move&licks.lick=7&licks.move=Fm7|1", "/tunes/2/licks?licks.panel=move&licks.lick=9&licks.move=E7|2", "/tunes/1/map", "/tunes/2/map?pos=A", "/tunes/1/change?at=5760", "/tunes/1/licks?at=5760", "/tunes/2/licks?at=8640&licks.lick=9&sub=sixteenth"} {
		t.Run(path, func(t *testing.T) {
			p := openPage(t, s, path)
			p.Until("the page", "document.querySelector('main h1')")
			if strings.Contains(path, "/chart") {
				p.Has("Bar 2, " + map[byte]string{'1': "F7", '2': "B7", '3': "F♯m7", '4': "Fm7"}[path[len("/tunes/")]])
				p.Until("the panel", "document.querySelector('[role=tabpanel]').innerText.length > 20")
			} else if path != "/" {
				p.Until("the neck", "document.querySelectorAll('.neck .mark').length > 4")
			}
			nameless := js[[]string](p, `[...document.querySelectorAll('button,a,input,[role=button],[role=combobox]')].filter(e =>
				e.getClientRects().length && !e.closest('[aria-hidden=true]') && !(e.getAttribute('aria-label') || e.getAttribute('aria-labelledby') || e.innerText?.trim() || e.labels?.length))
				.map(e => e.outerHTML.slice(0, 120))`)
			assert.Empty(t, nameless, path)
			unplaced := js[[]string](p, `[...document.querySelectorAll('.neck .mark')].map(e => e.getAttribute('aria-label')).filter(l => !/string \d, (fret \d+|open)/.test(l))`)
			assert.Empty(t, unplaced, path)
			assert.LessOrEqual(t, js[int](p, "document.documentElement.scrollWidth"), 1280, "%s is not wider than the window", path)
			assert.LessOrEqual(t, js[int](p, "document.documentElement.scrollHeight"), 800, "%s is not higher than the window", path)
		})
	}
}

// The signs that players read come from fonts that ship, whatever fonts the
// machine has.
func TestSignsAreInTheFontsThatShip(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/2/licks?at=8640&licks.lick=9")
	p.Sees("G♯", "♭7")
	p.Until("the fonts", "document.fonts.status === 'loaded'")
	for _, weight := range []string{"400", "700"} {
		loaded := js[int](p, "[...document.fonts].filter(f => f.family.includes('Undaris Signs') && f.status === 'loaded').length")
		assert.Positive(t, loaded)
		for _, sign := range []string{"♭", "♯", "→", "↑", "↓", "∿", "◐", "●"} {
			// A font that lacks the sign would leave the width of the fallback.
			widths := js[[]float64](p, `(() => { const c = document.createElement('canvas').getContext('2d'); const w = (f) => { c.font = '`+weight+` 40px ' + f; return c.measureText('`+sign+`').width };
				return [w("'Undaris Signs', monospace"), w("'Undaris Signs', serif")] })()`)
			assert.Equal(t, widths[0], widths[1], "%s at weight %s", sign, weight)
		}
	}
}
