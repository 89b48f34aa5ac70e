package tabtext

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/format/formattest"
	"undaris/format/reading"
)

// six is a system with its frets on the second string alone.
func six(row string) []string {
	dashes := strings.Map(func(c rune) rune {
		if c == '|' {
			return '|'
		}
		return '-'
	}, row)
	return []string{dashes, row, dashes, dashes, dashes, dashes}
}

func ticks(l lick.Lick) string {
	all := []string{}
	for _, e := range l.Phrase.Events {
		all = append(all, fmt.Sprint(e.Tick))
	}
	return strings.Join(all, " ")
}

// Every way to count a beat, and where its words stand.
func TestCounting(t *testing.T) {
	for count, want := range map[string]string{
		"1 e & a 2": "0 120 240 360 480", "1 & 2 & 3": "0 240 480 720 960", "1 + 2 + 3": "0 240 480 720 960", "1 . . 2 .": "0 160 320 480 720",
		"1 & a 2 a": "0 240 360 480 840", "1 e a 2 &": "0 120 360 480 720", "1 2 3 4 .": "0 480 960 1440 1680", "1 t l 2 t": "0 160 320 480 720",
		"1 . . . 2": "0 120 240 360 480", "2 & 3 & 4": "480 720 960 1200 1440", "1 3 4 & a": "0 960 1440 1680 1800",
	} {
		r := read(t, append([]string{"key: A", "meter: 4/4", count}, six("5-6-7-8-9")...)...)
		assert.Equal(t, want, ticks(r.Lick), count)
	}
	for count, want := range map[string]string{"1 & a 2 &": "0 240 480 720 1080"} {
		r := read(t, append([]string{"key: A", "meter: 12/8", count}, six("5-6-7-8-9")...)...)
		assert.Equal(t, want, ticks(r.Lick), count)
	}
}

func TestCountsThatDoNotFit(t *testing.T) {
	long := read(t, append([]string{"key: A", "meter: 3/4", "1 2 3 4 5"}, six("5-6-7-8-9")...)...)
	assert.Equal(t, "0 480 960 1440 1920", ticks(long.Lick))
	assert.Contains(t, said(long), "the count goes up to 5 in a bar of 3/4")
	back := read(t, append([]string{"key: A", "meter: 4/4", "1 2 1 2 3"}, six("5-6-7-8-9")...)...)
	assert.Len(t, back.Lick.Phrase.Events, 5, "a count that goes back is not followed, and nothing is lost")
	crowd := read(t, append([]string{"key: A", "meter: 3/4", "3"}, six("5-6-7-8-9-5-6-7-8-9-5-6-7-8-9-5-6-7")...)...)
	assert.Len(t, crowd.Lick.Phrase.Events, 18)
	assert.Contains(t, said(crowd), "bar 1 holds more than a bar of 3/4")
	beside := read(t, append([]string{"key: A", "meter: 4/4", " 1   2   3"}, six("-5-6-7---8")...)...)
	assert.Contains(t, said(beside), "stands between two counts; it is read as the and of beat 1")
	assert.Equal(t, "0 240 480 960", ticks(beside.Lick))
	behind := read(t, append([]string{"key: A", "meter: 4/4", "1 2"}, six("5-6-----7")...)...)
	assert.Contains(t, said(behind), "column 9 stands behind the last count")
	half := read(t, append([]string{"key: A", "meter: 4/4", "1   2"}, six("5---6-|7-8-9-|")...)...)
	assert.Contains(t, said(half), "bar 2 has no count over it; its rhythm is taken from the spacing")
}

// Systems follow each other; a count below the strings does as well as one above.
func TestSystemsFollowEachOther(t *testing.T) {
	rows := append([]string{"key: A", "meter: 4/4", "1 2 3 4"}, six("5-6-7-8")...)
	rows = append(append(rows, ""), six("9-8-7-5")...)
	rows = append(rows, "1 2 3 4")
	r := read(t, rows...)
	assert.Equal(t, "0 480 960 1440 1920 2400 2880 3360", ticks(r.Lick))
	assert.NotContains(t, said(r), "spacing")
	words := read(t, append([]string{"play it twice", "key: A"}, six("--5--5--|")...)...)
	assert.Contains(t, said(words), "line 1: this line is not used")
}

// Spacing says the rhythm as far as it can: the coarsest grid that keeps notes apart.
func TestTheRhythmOfSpacing(t *testing.T) {
	for row, want := range map[string]string{
		"5-------7-------8-------7-------|": "0 480 960 1440",
		"-5---7---8---7---|":                "0 480 960 1440",
		"5-7-8-7-5-7-8-7-|":                 "0 240 480 720 960 1200 1440 1680",
		"5787578757875787|":                 "",
		"5---------7---------8---------|":   "0 720 1200",
	} {
		r := read(t, append([]string{"key: A", "meter: 4/4"}, six(strings.ReplaceAll(row, "5787", "5-7-8-7-"))...)...)
		if want == "" {
			want = "0 120 240 360 480 600 720 840 960 1080 1200 1320 1440 1560 1680 1800"
		}
		assert.Equal(t, want, ticks(r.Lick), row)
		assert.Contains(t, said(r), "the rhythm is taken from the spacing")
	}
	compound := read(t, append([]string{"key: A", "meter: 12/8"}, six("5-7-8-7-5-7-8-7-5-7-8-7-|")...)...)
	assert.Equal(t, "0 240 480 720 960 1200 1440 1680 1920 2160 2400 2640", ticks(compound.Lick))
}

// However notes are spaced in a bar: they come in their order, apart, and within it.
func TestSpacedNotesStayInTheirBar(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		meter := rapid.SampledFrom(chart.Meters).Draw(t, "meter")
		row := ""
		for range rapid.IntRange(1, 24).Draw(t, "notes") {
			row += rapid.SampledFrom([]string{"5", "7", "x"}).Draw(t, "fret") + strings.Repeat("-", rapid.IntRange(1, 5).Draw(t, "gap"))
		}
		rows := append([]string{"key: A", "meter: " + meter.String()}, six("---"+row+"|")...)
		r, err := Read([]byte(strings.Join(rows, "\n")), reading.Plain())
		require.NoError(t, err)
		events := r.Lick.Phrase.Events
		for n := 1; n < len(events); n++ {
			require.Greater(t, events[n].Tick, events[n-1].Tick, formattest.Shown(r.Lick))
		}
		require.GreaterOrEqual(t, events[0].Tick, 0)
		require.LessOrEqual(t, events[len(events)-1].End(), meter.BarTicks())
	})
}

// Signs that vary from hand to hand are read alike.
func TestSignsThatVary(t *testing.T) {
	for row, want := range map[string]string{
		"5-h-7----": "0+480 2:5, 480+1440 2:7 hammered on", "5h7-p5---": "0+240 2:5, 240+480 2:7 hammered on, 720+1200 2:5 pulled off",
		"5s7------": "0+480 2:5, 480+1440 2:7 slid from fret 5", "7b(9)----": "0+1920 2:7 bent a whole step", "7^9------": "0+1920 2:7 bent a whole step",
		"7b9r7----": "0+1920 2:7 bent a whole step released", "7v-------": "0+1920 2:7 with vibrato", "7==------": "0+1920 2:7 with vibrato",
		"7/-------": "0+1920 2:7 slid away upwards", "7\\-------": "0+1920 2:7 slid away downwards", "X--------": "0+1920 2:0 muted",
	} {
		r := read(t, append([]string{"key: A", "meter: 4/4"}, six(row+"|")...)...)
		shape := func(text string) string {
			// The rhythm of spacing is tried above; here only what is done to the notes counts.
			parts := []string{}
			for _, note := range strings.Split(text, ", ") {
				_, rest, _ := strings.Cut(note, " ")
				parts = append(parts, rest)
			}
			return strings.Join(parts, ", ")
		}
		assert.Equal(t, shape(want), shape(formattest.Shown(r.Lick)), row)
	}
	wide := read(t, append([]string{"key: A", "meter: 4/4"}, six("7b12--------|")...)...)
	assert.Contains(t, said(wide), "a bend to fret 12 is not one a hand makes; read as a whole step")
}
