package harmony

import "undaris/core/pitch"

// degreeNames names the semitones that neither the chord nor its scale names.
var degreeNames = [12]string{"R", "b9", "9", "b3", "3", "11", "b5", "5", "b13", "13", "b7", "7"}

// ToneOver spells any pitch class as a degree over the chord, the same wherever it is asked: the
// chord's own tones as it has them, then those of its scale in the key (the 9, 11 and 13 of it, not
// 2, 4 and 6), the rest as players name them. Where that takes two sharps or flats, the other degree of
// the same sound is taken: G over Db7 is the #11, not Abb. Six semitones are #11 where the key makes
// them a colour, else b5.
func (k Key) ToneOver(c Chord, class pitch.Class) Tone {
	if tone, ok := c.Tone(class); ok {
		return tone
	}
	k = k.of(c)
	above := class.Above(c.Root.Class())
	if above == 3 && k.leadsToMinor(c) {
		// It is heard as the #9, and written as the key has it: G over E7 in A minor.
		return Tone{Degree: pitch.MustDegree("#9"), Note: pitch.MustDegree("b3").Over(c.Root)}
	}
	d := pitch.MustDegree(degreeNames[above])
	if of, ok := k.scaleDegree(c, above); ok {
		d = of
	} else if above == 6 {
		if kind, _ := k.classify(c, above); kind == Colour {
			d = pitch.MustDegree("#11")
		}
	}
	return simpler(Tone{Degree: d, Note: d.Over(c.Root)}, c.Root)
}

// scaleDegree is what the chord's scale calls so many semitones above the root, as a tension.
func (k Key) scaleDegree(c Chord, above int) (pitch.Degree, bool) {
	name, _ := k.chordScale(c)
	for _, d := range scaleDegrees[name] {
		if d.Semitones() == above {
			if d.Number == 2 || d.Number == 4 || d.Number == 6 {
				d.Number += 7
			}
			return d, true
		}
	}
	return pitch.Degree{}, false
}

// sameSound are pairs of degrees that sound alike.
var sameSound = map[string]string{
	"b5": "#11", "#11": "b5", "#4": "b5", "b3": "#9", "#9": "b3", "b13": "#5", "b6": "#5", "#5": "b13", "bb7": "13",
}

// simpler is the tone as its other degree where its own takes two signs and the other takes fewer
// (our choice, because two signs are slow to read).
func simpler(t Tone, root pitch.Note) Tone {
	other, ok := sameSound[t.Degree.String()]
	if !ok || max(t.Note.Accidental, -t.Note.Accidental) < 2 {
		return t
	}
	d := pitch.MustDegree(other)
	note := d.Over(root)
	if max(note.Accidental, -note.Accidental) >= max(t.Note.Accidental, -t.Note.Accidental) {
		return t
	}
	return Tone{Degree: d, Note: note}
}
