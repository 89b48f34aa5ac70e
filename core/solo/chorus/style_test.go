package chorus_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/core/solo/solotest"
)

// A line is looked at for what makes it dull, each on a few notes of its own.
func TestEnergy(t *testing.T) {
	o := solotest.Request(t, "minor vamp", "C", "E", 1)
	cases := map[string]struct {
		line string
		name string
		good bool
		said string
	}{
		"a long run of breathless notes": {strings.Repeat("3.8:1 3.10:1 ", 14), analysis.FindingPhrases, false, "it never rests"},
		"air":                            {"3.8:4 -:4 3.8:4 -:4", analysis.FindingPhrases, true, "2 phrases with air between"},
		"all on one":                     {"3.8:4 -:4 3.8:4 -:4", analysis.FindingStarts, false, "every phrase begins on beat 1"},
		"not all on one":                 {"3.8:4 -:3 3.8:5 -:4", analysis.FindingStarts, true, "1 of 2 phrases begin on beat 1"},
		"nine eighths":                   {"3.8:1 3.10:1 3.8:1 3.10:1 3.8:1 3.10:1 3.8:1 3.10:1 3.8:1", analysis.FindingRhythm, false, "more than 8 notes of the same length"},
		"a hold among them":              {"3.8:1 3.10:1 3.8:1 3.10:1 3.8:2 3.10:1 3.8:1 3.10:1 3.8:1", analysis.FindingRhythm, true, "lengths change"},
		"a run":                          {"5.8:1 5.10:1 4.8:1 4.10:1 3.8:1 3.10:1 2.8:1", analysis.FindingDirection, false, "more than 5 steps"},
		"turned in time":                 {"5.8:1 5.10:1 4.8:1 4.10:1 3.8:1 3.10:1 3.8:1", analysis.FindingDirection, true, "turns"},
		"a wide leap onwards":            {"4.10:1 4.8:1 4.10:1 1.8:1 1.11:1", analysis.FindingLeaps, false, "a leap past a fifth"},
		"a wide leap that turns":         {"4.10:1 4.8:1 4.10:1 1.8:1 2.11:1 2.10:1", analysis.FindingLeaps, true, "4 steps, one leap"},
		"nothing comes back":             {"3.8:1 3.10:1 2.8:1 2.11:5 3.8:2 3.10:1 2.8:2 2.11:1", analysis.FindingMotif, false, "nothing comes back"},
		"a motif":                        {"3.8:1 3.10:1 2.8:1 3.10:2 -:3 3.10:1 2.8:1 2.11:1 2.8:2 -:3", analysis.FindingMotif, true, "the motif of bar 1 comes back in bar 2"},
		"the top twice":                  {"4.8:2 1.8:2 2.8:2 1.8:2", analysis.FindingHighNote, false, "the highest note comes 2 times"},
		"within a fifth":                 {"3.8:2 3.10:2 2.8:2", analysis.FindingHighNote, false, "less than a sixth"},
		"too soon":                       {"1.8:2 4.8:8", analysis.FindingHighNote, false, "before the middle"},
	}
	for name, c := range cases {
		p := byHand(t, c.line).Phrase(o.Chart)
		findings := analysis.StyleCheck(o.Instrument, p, 4*1920)
		at := slices.IndexFunc(findings, func(f analysis.Finding) bool { return f.Name == c.name })
		require.GreaterOrEqual(t, at, 0, name)
		assert.Equal(t, c.good, findings[at].Good, "%s: %s", name, findings[at].Text)
		assert.Contains(t, findings[at].Text, c.said, name)
		for _, n := range findings[at].Notes {
			assert.Less(t, n, len(p.Events), name)
		}
	}
	assert.Empty(t, analysis.StyleCheck(o.Instrument, phrase.Phrase{Meter: chart.FourFour}, 1920))
	assert.Len(t, analysis.FindingNames, 9)
}
