package chordpro

import (
	"fmt"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/grid"
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
	if len(c.Pickup) > 0 {
		directive("x_undaris_pickup", chart.PickupText(c.Pickup))
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
		for row := from; row < until; {
			end := row + 1
			for end < until && end-row < barsInARow && !breaksBefore(c.Bars[end]) && !breaksAfter(c.Bars[end-1]) {
				end++
			}
			writeChange(directive, c.Bars[row].Change)
			writeSigns(directive, chart.Signs{Segno: c.Bars[row].Signs.Segno, Coda: c.Bars[row].Signs.Coda})
			writeRow(out, c.Bars[row:end])
			last := c.Bars[end-1].Signs
			writeSigns(directive, chart.Signs{ToCoda: last.ToCoda, Fine: last.Fine, Jump: last.Jump})
			row = end
		}
		out.WriteString("{end_of_grid}\n")
		from = until
	}
	return []byte(out.String())
}

// breaksBefore and breaksAfter say whether directives stand between a bar and the one before or after it.
func breaksBefore(bar chart.Bar) bool {
	return bar.Change != (chart.SettingChange{}) || bar.Signs.Segno || bar.Signs.Coda
}

func breaksAfter(bar chart.Bar) bool {
	return bar.Signs.ToCoda || bar.Signs.Fine || bar.Signs.Jump != chart.NoJump
}

// writeChange writes what changes in a bar above its row; a blues has its own directive, as at the top.
func writeChange(directive func(name, value string), ch chart.SettingChange) {
	switch ch.Key.Mode {
	case "":
	case harmony.MinorMode:
		directive("key", ch.Key.Tonic.String()+"m")
	case harmony.DominantMode:
		directive("key", ch.Key.Tonic.String())
		directive("x_undaris_key", ch.Key.Tonic.String()+" "+string(ch.Key.Mode))
	default:
		directive("key", ch.Key.Tonic.String())
	}
	if ch.Meter != (chart.Meter{}) {
		directive("time", ch.Meter.String())
	}
}

// writeSigns writes signs in the words that the grid has for them.
func writeSigns(directive func(name, value string), signs chart.Signs) {
	for _, text := range (grid.Marks{Signs: signs}).Text() {
		directive("x_undaris_sign", text)
	}
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
		if bar.Unread != "" {
			out.WriteString(" " + bar.Unread)
		}
		for _, span := range bar.Spans {
			if bar.Unread != "" {
				break
			}
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
