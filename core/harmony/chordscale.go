package harmony

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/pitch"
)

// Scale is the notes of a scale from its root up.
type Scale struct {
	Name  string
	Root  pitch.Note
	Tones []Tone
}

// scales are the scales that join chord tones, by their degrees (common theory).
var scales = map[string]string{
	"major": "R 2 3 4 5 6 7", "Dorian": "R 2 b3 4 5 6 b7", "Phrygian": "R b2 b3 4 5 b6 b7", "Lydian": "R 2 3 #4 5 6 7",
	"Mixolydian": "R 2 3 4 5 6 b7", "natural minor": "R 2 b3 4 5 b6 b7", "Locrian": "R b2 b3 4 b5 b6 b7",
	"harmonic minor": "R 2 b3 4 5 b6 7", "melodic minor": "R 2 b3 4 5 6 7", "Phrygian dominant": "R b2 3 4 5 b6 b7",
	"altered": "R b9 #9 3 #11 b13 b7", "Lydian dominant": "R 2 3 #4 5 6 b7", "Lydian augmented": "R 2 3 #4 #5 6 7",
	"half-whole diminished": "R b9 #9 3 #11 5 13 b7", "whole-half diminished": "R 2 b3 4 b5 b6 bb7 7",
	"Mixolydian with b13": "R 2 3 4 5 b13 b7", "whole-tone": "R 2 3 #4 #5 b7", "Phrygian dominant with 4": "R b9 3 4 5 13 b7", "Phrygian dominant with #9": "R b9 #9 3 4 5 b13 b7",
	"minor blues": "R b3 4 b5 5 b7", "Locrian with 6": "R b2 b3 4 b5 6 b7", "Ionian with #5": "R 2 3 4 #5 6 7", "Dorian with #4": "R 2 b3 #4 5 6 b7",
	"Lydian with #9": "R #9 3 #4 5 6 7", "altered with bb7": "R b2 b3 b4 b5 b6 bb7",
}

// scaleDegrees are the degrees of each scale.
var scaleDegrees = func() map[string][]pitch.Degree {
	all := map[string][]pitch.Degree{}
	for name, texts := range scales {
		for _, text := range strings.Fields(texts) {
			all[name] = append(all[name], pitch.MustDegree(text))
		}
	}
	return all
}()

// modes are the modes of the major scale by the degree they begin on, and those
// of the harmonic minor that have a name of their own here.
var modes = [7]string{"major", "Dorian", "Phrygian", "Lydian", "Mixolydian", "natural minor", "Locrian"}

func scaleOn(root pitch.Note, name string) Scale {
	s := Scale{Name: name, Root: root}
	for _, d := range scaleDegrees[name] {
		s.Tones = append(s.Tones, Tone{Degree: d, Note: d.Over(root)})
	}
	return s
}

// has says whether every tone of the chord is in the scale.
func (s Scale) has(c Chord) bool {
	for _, tone := range c.Tones() {
		if _, ok := s.tone(tone.Note.Class()); !ok {
			return false
		}
	}
	return true
}

func (s Scale) tone(class pitch.Class) (Tone, bool) {
	for _, t := range s.Tones {
		if t.Note.Class() == class {
			return t, true
		}
	}
	return Tone{}, false
}

// ChordScale is the scale that joins a chord's tones in the key, and the rule that
// chose it. A dominant that leads to a minor chord joins by that chord's harmonic minor,
// one on bII, bVI or bVII as Lydian dominant, any other of a blues as Mixolydian; a chord that the key has
// joins as its mode in the key (the IV of a major key is Lydian), in a minor key
// also by the harmonic minor; any other by its quality's usual scale (common
// theory). Its tones are spelled and named as the chord has them, and where
// that takes two signs as the other degree of the same sound.
func (k Key) ChordScale(c Chord) (Scale, string) {
	k = k.of(c)
	name, rule := k.chordScale(c)
	s := scaleOn(c.Root, name)
	for n, t := range s.Tones {
		if tone, ok := c.Tone(t.Note.Class()); ok {
			s.Tones[n] = tone
		} else {
			s.Tones[n] = simpler(t, c.Root)
		}
	}
	if name == "minor blues" {
		return s.withBoth(c), k.scaleReason(c, rule)
	}
	return s.withTonesOf(c), k.scaleReason(c, rule)
}

// withTonesOf is the scale with the tones of a chord that it lacks, each in the place of the scale's tone of
// the same number: a minor ninth with a flat five joins by Locrian with its own 9.
func (s Scale) withTonesOf(c Chord) Scale {
	for _, tone := range c.Tones() {
		if _, ok := s.tone(tone.Note.Class()); ok {
			continue
		}
		s.Tones = slices.DeleteFunc(s.Tones, func(t Tone) bool {
			_, own := c.Tone(t.Note.Class())
			return !own && (t.Degree.Number-1)%7 == (tone.Degree.Number-1)%7
		})
		at := slices.IndexFunc(s.Tones, func(t Tone) bool { return t.Degree.Semitones() > tone.Degree.Semitones() })
		if at < 0 {
			at = len(s.Tones)
		}
		s.Tones = slices.Insert(s.Tones, at, tone)
	}
	return s
}

// withBoth is the scale with the tones of a chord beside its own of the same number: over a dominant
// the blues has both thirds.
func (s Scale) withBoth(c Chord) Scale {
	for _, tone := range c.Tones() {
		if _, ok := s.tone(tone.Note.Class()); !ok {
			s.Tones = append(s.Tones, tone)
		}
	}
	slices.SortStableFunc(s.Tones, func(a, b Tone) int { return a.Degree.Semitones() - b.Degree.Semitones() })
	return s
}

// scaleRule is why a chord has its scale.
type scaleRule int

const (
	leadsToMinorRule scaleRule = iota
	besideTheKeyRule
	dominantOfBluesRule
	modeOfKeyRule
	dominantOfMinorKeyRule
	usualRule
	usualOutsideKeyRule
	// contextRule is that the chord's context gives the scale.
	contextRule
)

// chordScale is the name of the scale that joins the chord's tones in the key, and why.
func (k Key) chordScale(c Chord) (name string, rule scaleRule) {
	k = k.of(c)
	if scale, _ := c.contextScale(); scale != "" {
		return scale, contextRule
	}
	switch k.family(c) {
	case dominantOfMinor:
		if c.Quality.has("#9") {
			return "Phrygian dominant with #9", leadsToMinorRule
		}
		return "Phrygian dominant", leadsToMinorRule
	case lydianDominant:
		return "Lydian dominant", besideTheKeyRule
	}
	usual := usualScale(c)
	if k.Mode == DominantMode {
		if c.Quality.family == dominant && usual == "Mixolydian" {
			return usual, dominantOfBluesRule
		}
		return usual, usualRule
	}
	home := k.Scale()
	at := slices.IndexFunc(home.Tones, func(t Tone) bool { return t.Note.Class() == c.Root.Class() })
	switch {
	case at >= 0 && home.has(c):
		if k.Mode == MinorMode {
			at = (at + 5) % 7 // the natural minor is the major scale from its sixth
		}
		return modes[at], modeOfKeyRule
	case k.Mode == MinorMode && c.Root.Class().Above(k.Tonic.Class()) == 7 && usual != "altered" && scaleOn(k.Tonic, "harmonic minor").has(c):
		return "Phrygian dominant", dominantOfMinorKeyRule
	}
	return usual, usualOutsideKeyRule
}

// scaleReason says the rule in a sentence.
func (k Key) scaleReason(c Chord, rule scaleRule) string {
	if rule == contextRule {
		return c.contextReason()
	}
	switch rule {
	case leadsToMinorRule:
		return fmt.Sprintf("%s leads to a minor chord, so it joins by the harmonic minor of that", c.Symbol())
	case besideTheKeyRule:
		return fmt.Sprintf("%s is the %s of the key, so it joins as Lydian dominant: its #11 is a note of the key", c.Symbol(), k.Roman(c))
	case dominantOfBluesRule:
		return "a dominant of a blues joins as Mixolydian"
	case modeOfKeyRule:
		return fmt.Sprintf("the key has this chord, so it joins as its mode in %s %s", k.Tonic, k.Mode)
	case dominantOfMinorKeyRule:
		return fmt.Sprintf("the V of %s minor joins by its harmonic minor", k.Tonic)
	case usualRule:
		return fmt.Sprintf("the usual scale of %s chord", article(c.Quality.Name))
	}
	return fmt.Sprintf("the key does not have this chord, so it joins by the usual scale of %s chord", article(c.Quality.Name))
}

// contextReason says why the context gives the chord its scale.
func (c Chord) contextReason() string {
	next := "the next chord"
	if c.context.Next != nil {
		next = c.context.Next.Symbol()
	}
	switch c.context.Why {
	case PlayerChose:
		return "your choice for " + c.Symbol()
	case LeadsToMinor:
		return fmt.Sprintf("%s leads to %s, a minor chord, so it joins by the harmonic minor of that", c.Symbol(), next)
	case LeadsToMajor:
		return fmt.Sprintf("%s leads to %s, which is not minor, so it joins by the usual scale of %s chord", c.Symbol(), next, article(c.Quality.Name))
	case SlidesDown:
		return fmt.Sprintf("%s stands a half step above %s and slides down into it, so it joins as Lydian dominant", c.Symbol(), next)
	}
	return ""
}

func article(name string) string {
	if strings.ContainsRune("aeiou", rune(name[0])) {
		return "an " + name
	}
	return "a " + name
}

// usualScale is what a quality joins as outside a key (common practice).
func usualScale(c Chord) string {
	q := c.Quality
	switch {
	case q.isAltered(), q.Sign == "7#5":
		return "altered"
	case q.family == dominant && q.has("#5"):
		return "whole-tone"
	case q.family == dominant && (q.has("b9") || q.has("#9")) && q.has("b13"):
		if q.has("#9") {
			return "Phrygian dominant with #9"
		}
		return "Phrygian dominant"
	case q.family == dominant && (q.has("b9") || q.has("#9")):
		return "half-whole diminished"
	case q.family == dominant && (q.has("#11") || q.has("b5")):
		return "Lydian dominant"
	case q.family == dominant && q.has("b13"):
		return "Mixolydian with b13"
	case q.family == suspended && q.has("b9"):
		return "Phrygian dominant with 4"
	case q.family == minor && q.has("7"):
		return "melodic minor"
	case q.family == minor && q.has("#5"):
		return "natural minor"
	case (q.family == majorSeventh || q.family == major) && (q.has("#11") || q.has("b5")):
		return "Lydian"
	}
	return map[family]string{
		dominant: "Mixolydian", major: "major", majorSeventh: "major", minor: "Dorian", halfDiminished: "Locrian",
		diminished: "whole-half diminished", suspended: "Mixolydian", suspendedSecond: "Mixolydian", augmented: "Lydian augmented", power: "Mixolydian",
	}[c.Quality.family]
}

// Extensions are the 9, 11 and 13 of the chord as its scale of the chord has them,
// each with what it is over the chord; those that the chord itself has are left
// out.
func (k Key) Extensions(c Chord) []Judgement {
	scale, _ := k.ChordScale(c)
	found := []Judgement{}
	for _, number := range []int{2, 4, 6} {
		for _, t := range scale.Tones {
			if t.Degree.Number != number && t.Degree.Number != number+7 {
				continue
			}
			if _, ok := c.Tone(t.Note.Class()); ok {
				continue
			}
			j := k.Judge(c, t.Note.Class())
			j.Degree = pitch.Degree{Number: number + 7, Alter: t.Degree.Alter}
			j.Note = t.Note
			found = append(found, j)
		}
	}
	return found
}

// WithNinth is the chord's tones with the 9 that its scale of the chord has, where the
// chord has fewer than five, so that they run in pairs over the strings.
func (k Key) WithNinth(c Chord) []Tone {
	tones := c.Tones()
	if len(tones) > 4 {
		return tones
	}
	for _, j := range k.Extensions(c) {
		if j.Degree.Number == 9 {
			return append(tones, j.Tone)
		}
	}
	return tones
}
