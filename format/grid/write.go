package grid

import (
	"fmt"
	"strconv"
	"strings"

	"undaris/core/chart"
)

// barsInARow is how many bars a written row has at most.
const barsInARow = 4

// Write writes the chart so that Read reads an equal one.
func Write(c chart.Chart) []byte {
	out := &strings.Builder{}
	line := func(name, value string) { fmt.Fprintf(out, "%s: %s\n", name, value) }
	line("title", c.Title)
	if len(c.Tags) > 0 {
		line("tags", strings.Join(c.Tags, ", "))
	}
	line("key", c.Key.Tonic.String()+" "+string(c.Key.Mode))
	if c.Box != "" {
		line("box", string(c.Box))
	}
	line("meter", c.Meter.String())
	line("tempo", strconv.Itoa(c.Tempo))
	line("feel", string(c.Feel))
	line("swing", strconv.FormatFloat(c.Swing, 'g', -1, 64))
	if c.Capo > 0 {
		line("capo", strconv.Itoa(c.Capo))
	}
	if c.Imagining {
		line("imagining", "yes")
	}
	for _, choice := range c.Scales {
		line("scale", choice.Name()+" "+choice.Scale)
	}
	if len(c.Pickup) > 0 {
		line("pickup", chart.PickupText(c.Pickup))
	}
	for from := 0; from < len(c.Bars); {
		until := from + 1
		for until < len(c.Bars) && until-from < barsInARow && c.Bars[until].Section == "" {
			until++
		}
		if from == 0 || c.Bars[from].Section != "" {
			out.WriteString("\n")
		}
		if label := c.Bars[from].Section; label != "" {
			fmt.Fprintf(out, "[%s]\n", label)
		}
		writeRow(out, c.Bars[from:until])
		from = until
	}
	return []byte(out.String())
}

func writeRow(out *strings.Builder, bars []chart.Bar) {
	layered := false
	for n, bar := range bars {
		sign := "|"
		if n > 0 && bars[n-1].RepeatTo > 0 {
			sign = "" // the repeat that closed before is the bar line
		}
		if bar.RepeatFrom {
			sign = "|:"
		}
		if bar.Ending > 0 {
			if sign == "" {
				sign = "|"
			}
			sign += strconv.Itoa(bar.Ending) + "."
		}
		out.WriteString(sign + " ")
		for _, mark := range (Marks{Change: bar.Change, Signs: bar.Signs}).Text() {
			out.WriteString("{" + mark + "} ")
		}
		if bar.Unread != "" {
			out.WriteString(bar.Unread + " ")
		} else {
			out.WriteString(chart.Text(bar.Spans) + " ")
		}
		if bar.RepeatTo > 0 {
			out.WriteString(":|")
			if bar.RepeatTo > 2 {
				fmt.Fprintf(out, "x%d", bar.RepeatTo)
			}
		}
		layered = layered || len(bar.Imagined) > 0
	}
	if bars[len(bars)-1].RepeatTo == 0 {
		out.WriteString("|")
	}
	out.WriteString("\n")
	if !layered {
		return
	}
	out.WriteString(imagined)
	for _, bar := range bars {
		out.WriteString(" | " + chart.ImaginedText(bar.Imagined))
	}
	out.WriteString(" |\n")
}
