package harmony

import (
	"slices"
	"strings"

	"undaris/core/pitch"
)

// thirdKind is what stands where a chord has its third.
type thirdKind int

const (
	majorThird thirdKind = iota
	minorThird
	secondForThird
	fourthForThird
	noThird
)

// seventhKind is which seventh a chord has.
type seventhKind int

const (
	noSeventh seventhKind = iota
	minorSeventh
	majorSeventhAbove
	diminishedSeventh
)

// spec is what a quality is built of: a base and the alterations of its 5, 9, 11 and 13 (common
// theory). Two specs are equal where they mean the same quality.
type spec struct {
	third   thirdKind
	fifth   int // -1 lowered, 1 raised
	seventh seventhKind
	sixth   bool
	// The tensions; without a seventh a 9 or an 11 is an added one.
	flatNinth, ninth, sharpNinth        bool
	eleventh, sharpEleventh             bool
	flatThirteenth, thirteenth, altered bool
}

// isValid says whether the parts make sense together: no degree both plain and altered, no two
// names for one sound, tensions only over a seventh (common practice; where lead sheets differ, ours).
func (s spec) isValid() bool {
	tensions := s.flatNinth || s.sharpNinth || s.sharpEleventh || s.flatThirteenth || s.thirteenth
	if s == (spec{sixth: true, ninth: true, sharpEleventh: true}) {
		return true // the one chord without a seventh that lead sheets alter
	}
	suspended := s.third == secondForThird || s.third == fourthForThird
	switch {
	case s.altered:
		return s == spec{seventh: minorSeventh, altered: true}
	case s.third == noThird:
		return s == spec{third: noThird}
	case s.seventh == noSeventh && tensions,
		s.ninth && (s.flatNinth || s.sharpNinth), s.eleventh && s.sharpEleventh, s.thirteenth && s.flatThirteenth,
		s.fifth < 0 && s.sharpEleventh, s.fifth > 0 && s.flatThirteenth,
		s.third == minorThird && (s.sharpNinth || s.fifth > 0 && s.seventh != minorSeventh),
		suspended && (s.fifth != 0 || s.sixth || s.sharpNinth || s.eleventh || s.sharpEleventh || s.seventh == majorSeventhAbove),
		s.third == secondForThird && (s.ninth || s.flatNinth || s.seventh != noSeventh),
		s.sixth && (s.seventh != noSeventh || s.fifth != 0 || s.eleventh),
		s.seventh == diminishedSeventh && (s != spec{third: minorThird, fifth: -1, seventh: diminishedSeventh}),
		s.seventh == majorSeventhAbove && (s.flatNinth || s.sharpNinth || s.flatThirteenth || s.eleventh && s.third == majorThird),
		s.third == minorThird && s.seventh == majorSeventhAbove && (s.sharpEleventh || s.fifth > 0),
		s.seventh == noSeventh && s.fifth != 0 && (s.ninth || s.eleventh),
		s.seventh == noSeventh && suspended && s.ninth,
		s.seventh == noSeventh && s.ninth && s.eleventh && !s.sixth,
		s.fifth < 0 && s.third == majorThird && s.seventh == noSeventh:
		return false
	}
	return true
}

// sign is the one canonical way the quality is written.
func (s spec) sign() string {
	switch {
	case s.altered:
		return "7alt"
	case s.third == noThird:
		return "5"
	case s.seventh == diminishedSeventh:
		return "dim7"
	case s.seventh == noSeventh && s.fifth < 0:
		return "dim"
	case s.seventh == noSeventh && s.fifth > 0:
		return "aug"
	}
	text := ""
	if s.third == minorThird {
		text = "m"
	}
	number := "7"
	switch {
	case s.thirteenth:
		number = "13"
	case s.eleventh:
		number = "11"
	case s.ninth:
		number = "9"
	}
	switch s.seventh {
	case noSeventh:
		text += s.signWithoutSeventh()
	case majorSeventhAbove:
		if s.third == minorThird {
			text += "(maj" + number + ")"
		} else {
			text += "maj" + number
		}
	default:
		text += number
	}
	text += map[thirdKind]string{secondForThird: "sus2", fourthForThird: "sus4"}[s.third]
	for _, part := range []struct {
		has  bool
		text string
	}{
		{s.fifth < 0, "b5"}, {s.fifth > 0, "#5"}, {s.flatNinth, "b9"}, {s.sharpNinth, "#9"}, {s.sharpEleventh, "#11"}, {s.flatThirteenth, "b13"},
	} {
		if part.has {
			text += part.text
		}
	}
	return text
}

func (s spec) signWithoutSeventh() string {
	added := ""
	switch {
	case s.sixth && s.ninth:
		return "6/9"
	case s.sixth:
		return "6"
	case s.ninth:
		added = "add9"
	case s.eleventh:
		added = "add11"
	}
	if added != "" && s.third == minorThird {
		return "(" + added + ")"
	}
	return added
}

// degrees are the quality's from the root up, as chords are built: root, third, fifth, sixth or
// seventh, then the tensions.
func (s spec) degrees() []pitch.Degree {
	texts := []string{"R"}
	add := func(has bool, text string) {
		if has {
			texts = append(texts, text)
		}
	}
	texts = append(texts, map[thirdKind][]string{majorThird: {"3"}, minorThird: {"b3"}, secondForThird: {"2"}, fourthForThird: {"4"}}[s.third]...)
	add(!s.altered && s.fifth == 0, "5")
	add(s.fifth < 0, "b5")
	add(s.fifth > 0, "#5")
	add(s.sixth, "6")
	texts = append(texts, map[seventhKind][]string{minorSeventh: {"b7"}, majorSeventhAbove: {"7"}, diminishedSeventh: {"bb7"}}[s.seventh]...)
	add(s.flatNinth || s.altered, "b9")
	add(s.ninth, "9")
	add(s.sharpNinth || s.altered, "#9")
	add(s.eleventh, "11")
	add(s.sharpEleventh || s.altered, "#11")
	add(s.flatThirteenth || s.altered, "b13")
	add(s.thirteenth, "13")
	degrees := make([]pitch.Degree, len(texts))
	for n, text := range texts {
		degrees[n] = pitch.MustDegree(text)
	}
	return degrees
}

// family is the row on which the quality's other notes are read.
func (s spec) family() family {
	switch {
	case s.third == noThird:
		return power
	case s.third == fourthForThird:
		return suspended
	case s.third == secondForThird:
		return suspendedSecond
	case s.seventh == diminishedSeventh:
		return diminished
	case s.third == minorThird && s.fifth < 0:
		return halfDiminished
	case s.third == minorThird:
		return minor
	case s.fifth > 0 && s.seventh != minorSeventh:
		return augmented
	case s.seventh == minorSeventh:
		return dominant
	case s.seventh == majorSeventhAbove:
		return majorSeventh
	}
	return major
}

// name says the quality in words.
func (s spec) name() string {
	words := []string{}
	add := func(has bool, text string) {
		if has {
			words = append(words, text)
		}
	}
	number := "seventh"
	switch {
	case s.thirteenth:
		number = "thirteenth"
	case s.eleventh:
		number = "eleventh"
	case s.ninth:
		number = "ninth"
	}
	add(s.third == minorThird, "minor")
	switch s.seventh {
	case noSeventh:
		add(s.sixth && s.ninth, "six nine")
		add(s.sixth && !s.ninth, "sixth")
		add(!s.sixth && s.ninth, "added ninth")
		add(!s.sixth && s.eleventh, "added eleventh")
	case majorSeventhAbove:
		add(true, "major "+number)
	default:
		add(true, number)
	}
	add(s.third == fourthForThird, "suspended")
	add(s.third == secondForThird, "suspended second")
	add(s.fifth < 0, "flat five")
	add(s.fifth > 0, "sharp five")
	add(s.flatNinth, "flat nine")
	add(s.sharpNinth, "sharp nine")
	add(s.sharpEleventh, "sharp eleven")
	add(s.flatThirteenth, "flat thirteen")
	return strings.Join(words, " ")
}

// canonical is the spec with what its sign implies: a 9 below an 11 or 13 that is not altered, and in a
// minor thirteenth the 11 too.
func (s spec) canonical() spec {
	if s.seventh != noSeventh && (s.eleventh || s.thirteenth) && !s.flatNinth && !s.sharpNinth && s.third != secondForThird {
		s.ninth = true
	}
	if s.third == minorThird && s.seventh == minorSeventh && s.thirteenth && !s.sharpEleventh {
		s.eleventh = true
	}
	if s.thirteenth && (s.third != minorThird || s.seventh != minorSeventh) {
		s.eleventh = false // it clashes with the third, or is there already
	}
	return s
}

// has says whether the quality holds a degree.
func (q *Quality) has(text string) bool { return slices.Contains(q.degrees, pitch.MustDegree(text)) }

// isDominantWith says whether the quality is a dominant seventh with a plain fifth and no tensions but
// those listed.
func (q *Quality) isDominantWith(tensions ...string) bool {
	if q.family != dominant || !q.has("5") {
		return false
	}
	for _, d := range q.degrees {
		if d.Number > 7 && !slices.Contains(tensions, d.String()) {
			return false
		}
	}
	return true
}

// isAltered says whether the quality is a dominant with an altered fifth and an altered ninth, or one that
// is called so: the rest of the altered scale belongs to it.
func (q *Quality) isAltered() bool {
	altersFifth := q.has("b5") || q.has("#5") || q.Sign == "7alt"
	return q.family == dominant && altersFifth && (q.has("b9") || q.has("#9"))
}
