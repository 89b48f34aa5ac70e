package harmony

import (
	"sort"

	"undaris/core/pitch"
)

// NamedChord is a chord that sounding notes may be, and how well it fits them.
type NamedChord struct {
	Chord Chord
	// Missing are tones of the chord that did not sound, Foreign how many
	// sounding classes it does not have.
	Missing []Tone
	Foreign int
	// Cost is how badly it fits: about 0.4 for a chord that has all its notes and
	// no others, several for one that is a guess.
	Cost float64
}

// Exact says that the chord's tones are those that sounded and no others.
func (n NamedChord) Exact() bool { return len(n.Missing) == 0 && n.Foreign == 0 }

// The costs of naming (our choice, so that plain chords win over rich ones
// where both fit, and a missing fifth hardly counts): a foreign note costs its
// share of the sound, a missing tone by what it says.
const (
	foreignCost   = 8.0
	missingFifth  = 0.35
	missingTone   = 1.6
	missingRoot   = 2.5
	notInTheBass  = 0.9
	perDegree     = 0.12
	uncommonChord = 0.4
)

// uncommon qualities are named only where nothing plainer fits as well.
var uncommon = map[string]bool{
	"7alt": true, "11": true, "m11": true, "m13": true, "7b5": true, "sus2": true, "9sus4": true, "m(maj7)": true,
	"7b9": true, "7#9": true, "7b13": true, "7#11": true,
}

// NameChord says which chords the weights of the twelve classes may be, best first.
// A weight is how long the class sounded, in any unit; bass is the lowest, or nil.
// Roots are spelled as the key has them. Nothing that sounds is no chord.
func (k Key) NameChord(weights [12]float64, bass *pitch.Class) []NamedChord {
	total := 0.0
	for _, w := range weights {
		total += w
	}
	if total == 0 {
		return nil
	}
	all := []NamedChord{}
	for class := range pitch.Class(12) {
		if weights[class] == 0 {
			continue
		}
		root := k.Spell(class)
		for _, q := range qualities {
			all = append(all, fit(Chord{Root: root, Quality: q}, weights, total, bass))
		}
	}
	sort.SliceStable(all, func(a, b int) bool { return all[a].Cost < all[b].Cost })
	best := all[:min(len(all), 4)]
	for n := range best {
		best[n].Missing = missing(best[n].Chord, weights)
	}
	return best
}

func missing(c Chord, weights [12]float64) []Tone {
	var tones []Tone
	for _, tone := range c.Tones() {
		if weights[tone.Note.Class()] == 0 {
			tones = append(tones, tone)
		}
	}
	return tones
}

func fit(c Chord, weights [12]float64, total float64, bass *pitch.Class) NamedChord {
	n := NamedChord{Chord: c}
	root := int(c.Root.Class())
	own := [12]bool{}
	for _, d := range c.Quality.degrees {
		n.Cost += perDegree
		class := pitch.ClassOf(root + d.Semitones())
		own[class] = true
		if weights[class] > 0 {
			continue
		}
		switch {
		case d.Number == 1:
			n.Cost += missingRoot
		case d.Number == 5 && d.Alter == 0:
			n.Cost += missingFifth
		default:
			n.Cost += missingTone
		}
	}
	for class, weight := range weights {
		if !own[class] && weight > 0 {
			n.Foreign++
			n.Cost += foreignCost * weight / total
		}
	}
	if bass != nil && int(*bass) != root {
		n.Cost += notInTheBass
	}
	if uncommon[c.Quality.Sign] {
		n.Cost += uncommonChord
	}
	return n
}

// rootDegrees spells the twelve classes above a tonic the way chord roots are
// met there (common practice): flats for the borrowed ones, the raised fourth
// for the passing chord.
var rootDegrees = [12]string{"R", "b2", "2", "b3", "3", "4", "#4", "5", "b6", "6", "b7", "7"}

// Spell is how the key writes a chord's root that sounds as class; where that
// would take two signs, the plain name is taken.
func (k Key) Spell(class pitch.Class) pitch.Note {
	note := pitch.MustDegree(rootDegrees[class.Above(k.Tonic.Class())]).Over(k.Tonic)
	if note.Accidental > 1 || note.Accidental < -1 {
		note = Key{Tonic: note, Mode: MajorMode}.Plain().Tonic
	}
	return note
}
