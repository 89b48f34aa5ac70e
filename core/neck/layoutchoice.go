package neck

import (
	"fmt"

	"undaris/core/harmony"
)

// LayoutChoice is a layout that can be chosen for a chord, as it is begun with.
type LayoutChoice struct {
	Layout
	Text string
	// Unit says what Low and High count, "string" or "fret", and Least and Most what they
	// may be; they are empty for layouts without bounds.
	Unit        string
	Least, Most int
}

// LayoutTones are the tones of a chord that a layout takes: its own; in pairs with the 9 of its scale; the whole
// scale where three or four lie on a string (common practice).
func LayoutTones(k harmony.Key, c harmony.Chord, kind LayoutKind) []harmony.Tone {
	switch kind {
	case TwoAString:
		return k.WithNinth(c)
	case ThreeAString, FourAString:
		scale, _ := k.ChordScale(c)
		return scale.Tones
	}
	return c.Tones()
}

// Text says a layout in a few words.
func (l Layout) Text() string {
	switch l.Kind {
	case OneOctave:
		return "one octave from " + l.From
	case SomeStrings:
		return fmt.Sprintf("strings %d to %d", l.Low, l.High)
	case SomeFrets:
		return fmt.Sprintf("frets %d to %d", l.Low, l.High)
	case "":
		return string(AllTones)
	}
	return string(l.Kind)
}

// LayoutChoices lists the layouts of a chord of these tones in a window: some strings begin
// with the upper three, some frets with the core (our choice).
func LayoutChoices(i Instrument, w Window, tones []harmony.Tone) []LayoutChoice {
	choices := []LayoutChoice{{Layout: Layout{Kind: AllTones}, Text: "all tones"}}
	for _, tone := range tones {
		from := tone.Degree.String()
		choices = append(choices, LayoutChoice{Layout: Layout{Kind: OneOctave, From: from}, Text: "one octave from " + from})
	}
	strings := len(i.Open)
	return append(choices,
		LayoutChoice{Layout: Layout{Kind: TwoAString}, Text: "two a string, with the 9"},
		LayoutChoice{Layout: Layout{Kind: ThreeAString}, Text: "three a string"},
		LayoutChoice{Layout: Layout{Kind: FourAString}, Text: "four a string"},
		LayoutChoice{Layout: Layout{Kind: SomeStrings, Low: 1, High: min(3, strings)}, Text: "only some strings", Unit: "string", Least: 1, Most: strings},
		LayoutChoice{Layout: Layout{Kind: SomeFrets, Low: w.Core, High: w.CoreEnd}, Text: "only some frets", Unit: "fret", Least: w.Low, Most: w.High},
	)
}
