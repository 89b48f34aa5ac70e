package harmony

import (
	"sort"

	"undaris/core/pitch"
)

// Named is a chord that sounding notes may be, and how well it fits them.
type Named struct {
	Chord Chord
	// Missing are tones of the chord that did not sound, Foreign how many
	// sounding classes it does not have.
	Missing []Tone
	Foreign int
	cost    float64
}

// Exact says that the chord's tones are those that sounded and no others.
func (n Named) Exact() bool { return len(n.Missing) == 0 && n.Foreign == 0 }

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
	uncommonChord = 0.3
)

// uncommon qualities are named only where nothing plainer fits as well.
var uncommon = map[string]bool{"7alt": true, "11": true, "m11": true, "m13": true, "7b5": true, "sus2": true, "9sus4": true, "m(maj7)": true}

// Name says which chords the weights of the twelve classes may be, best first.
// A weight is how long the class sounded, in any unit; bass is the lowest, or nil.
// Roots are spelled as the key has them. Nothing that sounds is no chord.
func (k Key) Name(weights [12]float64, bass *pitch.Class) []Named {
	total := 0.0
	for _, w := range weights {
		total += w
	}
	if total == 0 {
		return nil
	}
	all := []Named{}
	for class := range pitch.Class(12) {
		if weights[class] == 0 {
			continue
		}
		for _, q := range qualities {
			all = append(all, k.fit(Chord{Root: k.Spell(class), Quality: q}, weights, total, bass))
		}
	}
	sort.SliceStable(all, func(a, b int) bool { return all[a].cost < all[b].cost })
	return all[:min(len(all), 4)]
}

func (k Key) fit(c Chord, weights [12]float64, total float64, bass *pitch.Class) Named {
	n := Named{Chord: c}
	for _, tone := range c.Tones() {
		n.cost += perDegree
		if weights[tone.Note.Class()] > 0 {
			continue
		}
		n.Missing = append(n.Missing, tone)
		switch {
		case tone.Degree.Number == 1:
			n.cost += missingRoot
		case tone.Degree.Number == 5 && tone.Degree.Alter == 0:
			n.cost += missingFifth
		default:
			n.cost += missingTone
		}
	}
	for class := range pitch.Class(12) {
		if _, ok := c.Tone(class); !ok && weights[class] > 0 {
			n.Foreign++
			n.cost += foreignCost * weights[class] / total
		}
	}
	if bass != nil && *bass != c.Root.Class() {
		n.cost += notInTheBass
	}
	if uncommon[c.Quality.Sign] {
		n.cost += uncommonChord
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
