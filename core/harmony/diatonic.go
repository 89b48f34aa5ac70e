package harmony

import (
	"slices"

	"undaris/core/pitch"
)

// Scale is the scale of the key: major, natural minor, or Mixolydian for a blues (common
// theory).
func (k Key) Scale() Scale {
	return scaleOn(k.Tonic, map[Mode]string{MajorMode: "major", MinorMode: "natural minor", DominantMode: "Mixolydian"}[k.Mode])
}

// SeventhChords are the seventh chords on the seven degrees of the key, in thirds of its
// scale, from the tonic up (common theory).
func (k Key) SeventhChords() []Chord {
	home := k.Scale()
	chords := make([]Chord, len(home.Tones))
	for n, root := range home.Tones {
		degrees := []int{}
		for _, step := range []int{0, 2, 4, 6} {
			degrees = append(degrees, home.Tones[(n+step)%len(home.Tones)].Note.Class().Above(root.Note.Class()))
		}
		at := slices.IndexFunc(qualities, func(q *Quality) bool {
			return slices.EqualFunc(q.degrees, degrees, func(d pitch.Degree, above int) bool { return d.Semitones() == above })
		})
		chords[n] = Chord{Root: root.Note, Quality: qualities[at]}
	}
	return chords
}
