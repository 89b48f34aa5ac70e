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

// The signs that players read come from fonts that ship, whatever fonts the
// machine has.
func TestSignsAreInTheFontsThatShip(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/2/licks?at=8640&licks.lick=11")
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
