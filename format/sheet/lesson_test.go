package sheet

import (
	"bytes"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// lesson is one of everything over a minor blues.
func lesson(t testing.TB) Lesson {
	t.Helper()
	o := order(t)
	from, err := harmony.ParseChord("F#m7")
	require.NoError(t, err)
	over, err := harmony.ParseChord("Bm7")
	require.NoError(t, err)
	note, err := pitch.ParseNote("D")
	require.NoError(t, err)
	line := phrase.Phrase{Meter: o.Chart.Meter}
	for n := range 16 {
		line.Events = append(line.Events, phrase.Event{Tick: n * 480, Ticks: 480, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 2 + n%4}}})
	}
	score := Score{Title: "Ferry rope", Chart: o.Chart, Instrument: o.Instrument, Line: line.WithChordsOf(o.Chart, 0)}
	return Lesson{
		Order: o, WithChart: true, WithMaps: true, Strategy: "thirds first",
		Landings: []Landing{{
			Bar: 5, Beat: 1, Leaving: from, Over: over, Text: "down a half step from E",
			Placed: neck.Placed{Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 3}}, Tone: harmony.Tone{Note: note, Degree: pitch.Degree{Number: 3, Alter: -1}}},
		}},
		Lines: []Score{score, score, score, score, score},
	}
}

func TestALessonHasItsParts(t *testing.T) {
	drawn := texts(t, lesson(t).Drawing().SVG())
	for _, text := range []string{"F♯m7", "12", "Where to land: thirds first", "bar 5", "F♯m7 → Bm7", "D, the ♭3", "string 2, fret 3", "down a half step from E", "Ferry rope"} {
		assert.Contains(t, drawn, text)
	}
	count := 0
	for _, text := range drawn {
		if text == "Ferry rope" {
			count++
		}
	}
	assert.Equal(t, 5, count, "each line has its title")
	only := lesson(t)
	only.WithMaps, only.Landings, only.Lines = false, nil, nil
	drawn = texts(t, only.Drawing().SVG())
	assert.NotContains(t, drawn, "Ferry rope")
	assert.NotContains(t, drawn, "Where to land: thirds first")
	assert.Contains(t, texts(t, Lesson{Order: order(t)}.Drawing().SVG()), "Nothing was chosen for this sheet.")
}

// In large print every letter is 1.4 times as large, on more pages of the same paper; nothing is
// lost, and nothing stands outside of the paper.
func TestLargePrint(t *testing.T) {
	for _, paper := range Papers {
		usual, large := lesson(t), lesson(t)
		usual.Paper, large.Paper, large.Large = paper, paper, true
		a, b := usual.Drawing().SVG(), large.Drawing().SVG()
		wordsOf := func(svg []byte) map[string]bool {
			all := map[string]bool{}
			for _, text := range texts(t, svg) {
				all[text] = true
			}
			return all
		}
		assert.Equal(t, wordsOf(a), wordsOf(b))
		assert.Greater(t, smallest(t, b), smallest(t, a)*1.3)
		assert.Contains(t, string(b), `width="`+strconv.FormatFloat(paper.Width, 'f', 2, 64)+`mm"`)
		for _, drawn := range [][]byte{a, b} {
			for _, x := range numbers(t, drawn, `<text x="([0-9.]+)"`) {
				assert.Less(t, x, paper.Width)
			}
			for _, x := range numbers(t, drawn, `x2="([0-9.]+)"`) {
				assert.LessOrEqual(t, x, paper.Width)
			}
		}
		pdf := large.Drawing().PDF()
		assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF")))
		assert.Equal(t, pdf, large.Drawing().PDF(), "the same lesson is the same file")
		assert.Greater(t, strings.Count(string(pdf), "/Type /Page\n"), strings.Count(string(usual.Drawing().PDF()), "/Type /Page\n"))
	}
}

func smallest(t *testing.T, svg []byte) float64 {
	t.Helper()
	least := 100.0
	for _, size := range numbers(t, svg, `font-size="([0-9.]+)"`) {
		least = min(least, size)
	}
	return least
}

func numbers(t *testing.T, svg []byte, pattern string) []float64 {
	t.Helper()
	all := []float64{}
	for _, found := range regexp.MustCompile(pattern).FindAllSubmatch(svg, -1) {
		n, err := strconv.ParseFloat(string(found[1]), 64)
		require.NoError(t, err)
		all = append(all, n)
	}
	return all
}
