package chart

// Length is a note value: how long a note is written to last, in ticks.
type Length struct {
	Name string
	// Plain, Dotted and Triplet are its length as it is, with a dot, and as one of
	// three in the time of two; triplets of sixteenths are sextuplets.
	Plain, Dotted, Triplet int
}

// Lengths lists the note values, longest first (common).
var Lengths = func() []Length {
	all := []Length{}
	ticks := 4 * TicksPerQuarter
	for _, name := range []string{"whole", "half", "quarter", "eighth", "sixteenth", "thirty-second"} {
		all = append(all, Length{Name: name, Plain: ticks, Dotted: ticks * 3 / 2, Triplet: ticks * 2 / 3})
		ticks /= 2
	}
	return all
}()
