package harmony

// BlendTone is a tone of the blend, and which of its two boxes has it.
type BlendTone struct {
	Tone
	// Of is OfBoth, OfMinor or OfMajor.
	Of string
}

// Which box a tone of the blend is of.
const (
	OfBoth  = "both"
	OfMinor = "minor"
	OfMajor = "major"
)

// Blend is the minor and the major pentatonic on the tonic taken together: what
// blues players mix over dominant chords (common). The root and 5 are shared.
func (k Key) Blend() []BlendTone {
	minor, _ := k.Box(MinorPentatonic)
	major, _ := k.Box(MajorPentatonic)
	all := []BlendTone{}
	for _, t := range minor.Tones {
		of := OfMinor
		if _, both := major.Tone(t.Note.Class()); both {
			of = OfBoth
		}
		all = append(all, BlendTone{t, of})
	}
	for _, t := range major.Tones {
		if _, both := minor.Tone(t.Note.Class()); !both {
			all = append(all, BlendTone{t, OfMajor})
		}
	}
	return all
}
