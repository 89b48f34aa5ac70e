package harmony

import "undaris/core/pitch"

// ChordPart is what a chord tone does in its chord.
type ChordPart int

const (
	RootPart ChordPart = iota
	ThirdPart
	FifthPart
	SeventhPart
	ExtensionPart
)

// PartOf sorts a chord tone by its degree. The 2 or 4 of a suspended chord
// stands where its third would; the 6 of a sixth chord where its seventh would.
func PartOf(d pitch.Degree) ChordPart {
	switch d.Number {
	case 1:
		return RootPart
	case 2, 3, 4:
		return ThirdPart
	case 5:
		return FifthPart
	case 6, 7:
		return SeventhPart
	}
	return ExtensionPart
}

// IsGuideTone says whether the degree is its chord's third or seventh, or stands
// where one would.
func IsGuideTone(d pitch.Degree) bool {
	p := PartOf(d)
	return p == ThirdPart || p == SeventhPart
}
