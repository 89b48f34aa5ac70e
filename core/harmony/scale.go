package harmony

import (
	"strings"

	"undaris/core/choice"
	"undaris/core/pitch"
)

// BoxKind names the scale a player's box is made of.
type BoxKind string

// The boxes a player can stand in.
const (
	MinorPentatonic BoxKind = "minor pentatonic"
	MajorPentatonic BoxKind = "major pentatonic"
	MinorBlues      BoxKind = "minor blues"
	MajorBlues      BoxKind = "major blues"
)

// BoxKinds lists the boxes that can be chosen.
var BoxKinds = []BoxKind{MinorPentatonic, MajorPentatonic, MinorBlues, MajorBlues}

var boxDegrees = map[BoxKind]string{
	MinorPentatonic: "R b3 4 5 b7",
	MajorPentatonic: "R 2 3 5 6",
	MinorBlues:      "R b3 4 b5 5 b7",
	MajorBlues:      "R 2 b3 3 5 6",
}

// Box is the scale a player knows and stands in: the notes of one pentatonic
// or blues scale on the key's tonic, degrees counted from the tonic.
type Box struct {
	Kind  BoxKind
	Tonic pitch.Note
	Tones []Tone
}

// Name is the box as players call it: "C minor pentatonic".
func (b Box) Name() string { return b.Tonic.String() + " " + string(b.Kind) }

// Tone finds the note of the box that sounds as class.
func (b Box) Tone(class pitch.Class) (Tone, bool) {
	for _, t := range b.Tones {
		if t.Note.Class() == class {
			return t, true
		}
	}
	return Tone{}, false
}

// Box is the box of the given kind on the key's tonic. The empty kind asks for
// the key's own: the minor pentatonic for a blues or a minor key, the major
// pentatonic for a song in a major key (common practice). The error is a *choice.Error.
func (k Key) Box(kind BoxKind) (Box, error) {
	if kind == "" {
		kind = MinorPentatonic
		if k.Mode == MajorMode {
			kind = MajorPentatonic
		}
	}
	if _, err := choice.FindText("a box", BoxKinds, string(kind)); err != nil {
		return Box{}, err
	}
	degrees := boxDegrees[kind]
	box := Box{Kind: kind, Tonic: k.Tonic}
	for _, text := range strings.Fields(degrees) {
		d := pitch.MustDegree(text)
		box.Tones = append(box.Tones, Tone{Degree: d, Note: d.Over(k.Tonic)})
	}
	return box, nil
}
