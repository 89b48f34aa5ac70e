package neck

import "undaris/core/harmony"

// LayoutChoice is a layout that can be chosen for a chord, as it is begun with.
type LayoutChoice struct {
	Layout
	Text string
	// Unit says what Low and High count, "string" or "fret", and Least and Most what they
	// may be; they are empty for layouts without bounds.
	Unit        string
	Least, Most int
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
