package harmony

import (
	"sort"

	"undaris/core/pitch"
)

// Superimposed is an arpeggio of another chord played over a chord.
type Superimposed struct {
	Arpeggio Chord
	// Tones are its tones as degrees of the chord below, from its root up.
	Tones []Judgement
	// Guides and Colours count what it carries of the chord's third and seventh,
	// and of colours.
	Guides, Colours int
	// Suspensions is the one tone that wants to move on, in those that have one.
	Suspensions *Judgement
}

// arpeggios are the triads and sevenths that players know as shapes.
var arpeggios = []string{"", "m", "dim", "aug", "7", "maj7", "m7", "m7b5", "dim7", "m(maj7)"}

// Superimposed lists every triad and seventh arpeggio whose tones are all chord tones
// or colour over the chord, best first by how many guide tones and colours it
// carries; then those with one tone that leans, marked. The chord's own arpeggio, and a part of
// it on the same root, are left out: they add nothing (our choice). One that lies inside the chord on
// another root is a shape of its own, and listed: E dim7 over C7b9.
func (k Key) Superimposed(c Chord) []Superimposed {
	clean, leaning := []Superimposed{}, []Superimposed{}
	var judged [12]Judgement // each note over the chord, judged once
	for class := range judged {
		judged[class] = k.Judge(c, pitch.Class(class))
	}
	for above := range 12 {
		for _, sign := range arpeggios {
			root := k.arpeggioRoot(c, judged[pitch.ClassOf(int(c.Root.Class())+above)].Tone)
			s, ok := over(&judged, Chord{Root: root, Quality: bySign[plainSign(sign)]})
			switch {
			case !ok || above == 0 && s.Colours == 0 && s.Suspensions == nil:
			case s.Suspensions == nil:
				clean = append(clean, s)
			default:
				leaning = append(leaning, s)
			}
		}
	}
	for _, list := range [][]Superimposed{clean, leaning} {
		sort.SliceStable(list, func(a, b int) bool { return list[a].worth() > list[b].worth() })
	}
	return append(clean, leaning...)
}

// arpeggioRoot is the name of a tone as the root of an arpeggio. Over an altered dominant players name those
// by flats, bV7 and bIIIm, though the tones are the #11 and the #9 (common).
func (k Key) arpeggioRoot(c Chord, t Tone) pitch.Note {
	row := k.family(c)
	other, ok := sameSound[t.Degree.String()]
	if !ok || t.Degree.Alter < 1 || row != alteredDominant && row != halfWholeDominant && !c.Quality.isAltered() && c.Quality.Sign != "7#5" {
		return t.Note
	}
	d := pitch.MustDegree(other)
	return simpler(Tone{Degree: d, Note: d.Over(c.Root)}, c.Root).Note
}

// worth counts a guide tone as two colours: it says the chord (our choice).
func (s Superimposed) worth() int { return 2*s.Guides + s.Colours }

func over(judged *[12]Judgement, arpeggio Chord) (Superimposed, bool) {
	s := Superimposed{Arpeggio: arpeggio}
	for _, tone := range arpeggio.Tones() {
		j := judged[tone.Note.Class()]
		s.Tones = append(s.Tones, j)
		switch j.Class {
		case ChordTone:
			if j.Degree.Number == 3 || j.Degree.Number == 7 {
				s.Guides++
			}
		case Colour:
			s.Colours++
		case Suspension:
			if s.Suspensions != nil {
				return s, false
			}
			suspension := j
			s.Suspensions = &suspension
		default:
			return s, false
		}
	}
	return s, true
}
