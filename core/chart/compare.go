package chart

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// mostDifferences is how many bars a comparison names one by one.
const mostDifferences = 4

// Differences says in short phrases what was changed between two versions of a
// chart, the earlier one first; nothing where they are equal.
func Differences(before, after Chart) []string {
	said := []string{}
	fields := func(name, was, is string) {
		if was != is {
			said = append(said, fmt.Sprintf("%s %s → %s", name, orNone(was), orNone(is)))
		}
	}
	fields("title", before.Title, after.Title)
	fields("tags", strings.Join(before.Tags, ", "), strings.Join(after.Tags, ", "))
	if moved := before.keyed(after); moved != "" {
		said = append(said, moved)
		before = before.Transposed(after.Key)
	} else {
		fields("key", keyName(before), keyName(after))
	}
	fields("meter", before.Meter.String(), after.Meter.String())
	fields("tempo", strconv.Itoa(before.Tempo), strconv.Itoa(after.Tempo))
	fields("feel", string(before.Feel), string(after.Feel))
	fields("swing", number(before.Swing), number(after.Swing))
	fields("box", string(before.Box), string(after.Box))
	fields("capo", strconv.Itoa(before.Capo), strconv.Itoa(after.Capo))
	fields("scales", scalesSaid(before.Scales), scalesSaid(after.Scales))
	fields("the bar before bar 1", pickupSaid(before.Pickup), pickupSaid(after.Pickup))
	if before.Imagining != after.Imagining {
		said = append(said, map[bool]string{true: "imagined chords on", false: "imagined chords off"}[after.Imagining])
	}
	return append(said, barDifferences(before.Bars, after.Bars)...)
}

// keyed says that the chords moved with the key, where they did.
func (c Chart) keyed(after Chart) string {
	if c.Key.Mode != after.Key.Mode || c.Key.Tonic == after.Key.Tonic {
		return ""
	}
	moved := c.Transposed(after.Key)
	same := func(a, b Bar) bool { return Text(a.Spans) == Text(b.Spans) && a.Change == b.Change }
	if !slices.EqualFunc(moved.Bars, after.Bars, same) {
		return ""
	}
	return fmt.Sprintf("transposed from %s to %s", c.Key.Tonic, after.Key.Tonic)
}

func keyName(c Chart) string { return c.Key.Tonic.String() + " " + string(c.Key.Mode) }

func pickupSaid(spans []Span) string {
	if len(spans) == 0 {
		return ""
	}
	return fmt.Sprintf("%s (%d beats)", Text(spans), beatsOf(spans))
}

func scalesSaid(choices []ScaleFor) string {
	said := []string{}
	for _, choice := range choices {
		said = append(said, choice.Name()+" "+choice.Scale)
	}
	return strings.Join(said, ", ")
}

func number(f float64) string { return strconv.FormatFloat(f, 'g', -1, 64) }

func orNone(text string) string {
	if text == "" {
		return "none"
	}
	return text
}

// barDifferences says which bars came, went or changed: what is alike at both
// ends stands, and what lies between was changed.
func barDifferences(before, after []Bar) []string {
	head := 0
	for head < len(before) && head < len(after) && sameBar(before[head], after[head]) {
		head++
	}
	tail := 0
	for tail < len(before)-head && tail < len(after)-head && sameBar(before[len(before)-1-tail], after[len(after)-1-tail]) {
		tail++
	}
	was, is := before[head:len(before)-tail], after[head:len(after)-tail]
	switch {
	case len(was) == 0 && len(is) == 0:
		return nil
	case len(was) == 0:
		return []string{barRange(head, len(is)) + " put in"}
	case len(is) == 0:
		return []string{barRange(head, len(was)) + " taken out"}
	case len(was) != len(is):
		return []string{fmt.Sprintf("%s replaced by %d", barRange(head, len(was)), len(is))}
	}
	said := []string{}
	more := 0
	for n := range was {
		if sameBar(was[n], is[n]) {
			continue
		}
		if len(said) == mostDifferences {
			more++
			continue
		}
		said = append(said, fmt.Sprintf("bar %d: %s", head+n+1, barDifference(was[n], is[n])))
	}
	if more > 0 {
		said = append(said, fmt.Sprintf("and %d more bars", more))
	}
	return said
}

func barRange(from, count int) string {
	if count == 1 {
		return fmt.Sprintf("bar %d", from+1)
	}
	return fmt.Sprintf("bars %d–%d", from+1, from+count)
}

func barDifference(was, is Bar) string {
	parts := []string{}
	if a, b := Text(was.Spans), Text(is.Spans); a != b {
		parts = append(parts, a+" → "+b)
	}
	if a, b := ImaginedText(was.Imagined), ImaginedText(is.Imagined); a != b {
		parts = append(parts, "imagined "+orNone(a)+" → "+orNone(b))
	}
	if was.Section != is.Section {
		parts = append(parts, "section "+orNone(was.Section)+" → "+orNone(is.Section))
	}
	if was.Change != is.Change {
		parts = append(parts, "from here on "+orNone(was.Change.String())+" → "+orNone(is.Change.String()))
	}
	if was.RepeatFrom != is.RepeatFrom || was.RepeatTo != is.RepeatTo {
		parts = append(parts, "repeat signs")
	}
	if was.Ending != is.Ending {
		parts = append(parts, "ending")
	}
	if was.Unread != is.Unread {
		parts = append(parts, "unread "+orNone(was.Unread)+" → "+orNone(is.Unread))
	}
	if was.Signs != is.Signs {
		parts = append(parts, "signs")
	}
	return strings.Join(parts, ", ")
}

func sameBar(a, b Bar) bool {
	return Text(a.Spans) == Text(b.Spans) && ImaginedText(a.Imagined) == ImaginedText(b.Imagined) &&
		a.Section == b.Section && a.RepeatFrom == b.RepeatFrom && a.RepeatTo == b.RepeatTo && a.Ending == b.Ending &&
		a.Change == b.Change && a.Signs == b.Signs && a.Unread == b.Unread
}
