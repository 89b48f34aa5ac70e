package chordpro

import (
	"fmt"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
)

const barsInARow = 4

// Write writes the chart as ChordPro with its bars in grid environments, a cell
// for each beat, one environment for each section. Imagined chords, feel, swing
// and box have no place in the format and are left out.
func Write(c chart.Chart) []byte {
	out := &strings.Builder{}
	directive := func(name, value string) { fmt.Fprintf(out, "{%s: %s}\n", name, value) }
	directive("title", strings.NewReplacer("{", "(", "}", ")").Replace(c.Title))
	key := c.Key.Tonic.String()
	if c.Key.Mode == harmony.MinorMode {
		key += "m"
	}
	directive("key", key)
	// Without it a major key whose home chord is a dominant seventh is read as that of a blues.
	if c.Key.Mode == harmony.DominantMode || chart.IsBluesKey(c.Key, c.Bars) {
		directive("x_undaris_key", c.Key.Tonic.String()+" "+string(c.Key.Mode))
	}
	directive("time", c.Meter.String())
	directive("tempo", strconv.Itoa(c.Tempo))
	if c.Capo > 0 {
		directive("capo", strconv.Itoa(c.Capo))
	}
	for _, tag := range c.Tags {
		directive("tag", strings.NewReplacer("{", "(", "}", ")").Replace(tag))
	}
	for from := 0; from < len(c.Bars); {
		until := from + 1
		for until < len(c.Bars) && c.Bars[until].Section == "" {
			until++
		}
		out.WriteString("\n{start_of_grid")
		if label := c.Bars[from].Section; label != "" {
			fmt.Fprintf(out, ": label=%q", strings.NewReplacer("{", "(", "}", ")", `"`, "'", `\`, "/").Replace(label))
		}
		out.WriteString("}\n")
		for row := from; row < until; row += barsInARow {
			writeRow(out, c.Bars[row:min(row+barsInARow, until)])
		}
		out.WriteString("{end_of_grid}\n")
		from = until
	}
	return []byte(out.String())
}

func writeRow(out *strings.Builder, bars []chart.Bar) {
	times := 0
	for n, bar := range bars {
		sign := "|"
		if n > 0 && bars[n-1].RepeatTo > 0 {
			sign = ""
		}
		if bar.RepeatFrom {
			sign = "|:"
		}
		if bar.Ending > 0 {
			if sign == "" {
				sign = "|"
			}
			sign += strconv.Itoa(bar.Ending)
		}
		out.WriteString(sign)
		for _, span := range bar.Spans {
			out.WriteString(" " + span.Name() + strings.Repeat(" "+chart.HoldSign, span.Beats-1))
		}
		out.WriteString(" ")
		if bar.RepeatTo > 0 {
			out.WriteString(":|")
			if bar.RepeatTo > 2 && n == len(bars)-1 {
				times = bar.RepeatTo
			} else if bar.RepeatTo > 2 {
				fmt.Fprintf(out, "x%d", bar.RepeatTo)
			}
		}
	}
	if bars[len(bars)-1].RepeatTo == 0 {
		out.WriteString("|")
	}
	if times > 0 {
		fmt.Fprintf(out, " x%d", times)
	}
	out.WriteString("\n")
}
