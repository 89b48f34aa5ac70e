package harmony

import (
	"slices"
	"strconv"
	"strings"
)

// signReader reads what follows a root in a chord symbol: a quality as lead sheets write it, from left
// to right. It never goes back, so that reading takes time in proportion to the text.
type signReader struct {
	rest string
	// read is how many characters have been understood.
	read int
	spec spec
	// number is the figure that was read, 0 before; isMajor says that a seventh is a major one.
	number  int
	isMajor bool
	// open is how many brackets are open.
	open int
	// stated are the tensions that were read plain, on their own.
	stated map[string]bool
}

// signCleaning writes the signs of accidentals and triangles in one way, and takes away what only
// separates.
var signCleaning = strings.NewReplacer("♭", "b", "♯", "#", "Δ", "^", "∆", "^", "△", "^", "Ø", "ø", "º", "°", "–", "-", "−", "-", " ", "", ",", "")

// words are the ways to write the kinds of triad, the longest first (common practice).
var (
	majorWords = []string{"major", "Major", "MAJOR", "maj", "Maj", "MAJ", "ma", "Ma", "MA", "M", "j", "^"}
	minorWords = []string{"minor", "Minor", "min", "Min", "MIN", "mi", "Mi", "m", "-"}
)

// maxSign is how many characters of a sign are read; the longest that makes sense is shorter.
const maxSign = 40

// readSign reads the sign of a quality. Where it cannot be read it says after how many characters, and
// what could be meant where that is known.
func readSign(text string) (q *Quality, at int, meant []string) {
	runes := []rune(text)
	tooLong := len(runes) > maxSign
	if tooLong {
		text = string(runes[:maxSign])
	}
	r := &signReader{rest: signCleaning.Replace(text), stated: map[string]bool{}}
	if bare := strings.Trim(r.rest, "()"); r.rest == "("+bare+")" && slices.Contains([]string{"9", "11", "13"}, bare) {
		return nil, 0, []string{bare, "add" + bare}
	}
	r.triad()
	r.figure()
	for r.rest != "" {
		before := *r
		if !r.modifier() {
			*r = before // what makes no sense there stays unread
			break
		}
		if r.rest == before.rest {
			break
		}
	}
	if r.rest != "" || tooLong || r.open != 0 {
		return nil, min(r.read, len([]rune(text))), nil
	}
	s := r.spec.canonical()
	if q, ok := bySpec[s]; ok && s.isValid() {
		return q, 0, nil
	}
	return nil, r.read, nil
}

// take takes one of some words off the text.
func (r *signReader) take(words ...string) (string, bool) {
	for _, word := range words {
		if rest, ok := strings.CutPrefix(r.rest, word); ok {
			r.rest = rest
			r.read += len([]rune(word))
			return word, true
		}
	}
	return "", false
}

// triad reads the kind of triad that a sign begins with.
func (r *signReader) triad() {
	if _, ok := r.take("ø", "halfdim", "half-dim"); ok {
		r.spec.third, r.spec.fifth, r.spec.seventh = minorThird, -1, minorSeventh
		r.take("7")
		r.number = 7
		return
	}
	if _, ok := r.take("dim", "Dim", "o", "°"); ok {
		r.spec.third, r.spec.fifth = minorThird, -1
		if _, ok := r.take("7"); ok {
			r.spec.seventh, r.number = diminishedSeventh, 7
		}
		return
	}
	if strings.HasPrefix(r.rest, "+5") || strings.HasPrefix(r.rest, "-5") {
		return // an altered fifth
	}
	if _, ok := r.take("aug", "Aug", "+"); ok {
		r.spec.fifth = 1
		r.major()
		return
	}
	if _, ok := r.take("dom"); ok {
		if r.rest == "" {
			r.spec.seventh, r.number = minorSeventh, 7
		}
		return
	}
	if r.major() {
		return
	}
	if _, ok := r.take(minorWords...); ok {
		r.spec.third = minorThird
		if separator, _ := r.take("/", "("); separator == "(" {
			r.open++
		}
		r.major()
	}
}

// major reads a word for a major seventh; a triangle alone is one.
func (r *signReader) major() bool {
	if strings.HasPrefix(r.rest, "madd") {
		return false // a minor triad with something added
	}
	word, ok := r.take(majorWords...)
	r.isMajor = r.isMajor || ok
	if word == "^" && !strings.HasPrefix(r.rest, "7") && !strings.HasPrefix(r.rest, "9") && !strings.HasPrefix(r.rest, "1") {
		r.spec.seventh, r.number = majorSeventhAbove, 7
	}
	return ok
}

// figure reads the number after the triad.
func (r *signReader) figure() {
	if r.number != 0 || r.spec.third == minorThird && r.spec.fifth < 0 {
		return // what a diminished chord has above its seventh is not agreed on
	}
	figure, ok := r.take("6/9", "6add9", "69", "13", "11", "9", "7", "6", "5", "4", "2")
	if !ok {
		return
	}
	switch figure {
	case "6/9", "6add9", "69":
		r.spec.sixth, r.spec.ninth, r.number = true, true, 6
	case "6":
		r.spec.sixth, r.number = true, 6
	case "5":
		if r.spec == (spec{}) && !r.isMajor {
			r.spec, r.number = spec{third: noThird}, 5
			return
		}
		r.backUp(figure)
	case "4", "2":
		if r.spec != (spec{}) || r.isMajor {
			r.backUp(figure)
			return
		}
		r.spec.third, r.number = map[string]thirdKind{"4": fourthForThird, "2": secondForThird}[figure], 2
	default:
		r.seventhWith(figure)
	}
}

func (r *signReader) backUp(figure string) {
	r.rest = figure + r.rest
	r.read -= len(figure)
}

// seventhWith gives the chord its seventh and the tensions that a figure implies.
func (r *signReader) seventhWith(figure string) {
	r.spec.seventh = minorSeventh
	if r.isMajor {
		r.spec.seventh = majorSeventhAbove
	}
	r.number = map[string]int{"7": 7, "9": 9, "11": 11, "13": 13}[figure]
	r.spec.ninth = r.number >= 9
	r.spec.eleventh = r.number == 11
	r.spec.thirteenth = r.number == 13
}

// modifier reads one of what may follow: a suspension, an added tone, an altered one.
func (r *signReader) modifier() bool {
	if _, ok := r.take("("); ok {
		r.open++
		return true
	}
	if r.open > 0 {
		if _, ok := r.take(")"); ok {
			r.open--
			return true
		}
	}
	if r.number == 0 && r.spec.fifth >= 0 && (strings.HasPrefix(r.rest, "7") || strings.HasPrefix(r.rest, "9") || strings.HasPrefix(r.rest, "13") || strings.HasPrefix(r.rest, "11")) {
		figure, _ := r.take("13", "11", "9", "7")
		r.seventhWith(figure)
		return true
	}
	if word, ok := r.take("sus2", "sus4", "sus", "Sus4", "Sus"); ok {
		if r.spec.third != majorThird {
			return false
		}
		r.spec.third = fourthForThird
		if word == "sus2" {
			r.spec.third = secondForThird
		}
		return true
	}
	if _, ok := r.take("altered", "alt"); ok {
		if r.spec != (spec{seventh: minorSeventh}) && r.spec != (spec{}) {
			return false
		}
		r.spec = spec{seventh: minorSeventh, altered: true}
		return true
	}
	if word, ok := r.take("add9", "add2", "add11", "add4", "add6", "add13"); ok {
		return r.added(word)
	}
	if _, ok := r.take("no3", "omit3"); ok {
		if r.spec != (spec{}) {
			return false
		}
		r.spec.third = noThird
		return true
	}
	if r.spec.seventh == noSeventh && !r.spec.sixth && r.major() {
		if r.spec.seventh == noSeventh {
			figure, ok := r.take("13", "9", "7")
			if !ok {
				return false
			}
			r.seventhWith(figure)
		}
		return true
	}
	return r.alteration()
}

func (r *signReader) added(word string) bool {
	r.stated[map[string]string{"add9": "9", "add2": "9", "add11": "11", "add4": "11", "add13": "13"}[word]] = true
	switch word {
	case "add9", "add2":
		r.spec.ninth = true
	case "add11", "add4":
		r.spec.eleventh = true
	case "add6":
		r.spec.sixth = true
	case "add13":
		r.spec.thirteenth = true
	}
	return true
}

// alteration reads an altered degree, or a plain tension over a seventh.
func (r *signReader) alteration() bool {
	before := *r
	signed, hasSign := r.take("b", "#", "+", "-")
	figure, ok := r.take("13", "11", "9", "6", "5")
	if !ok {
		*r = before
		if _, ok := r.take("+", "aug"); ok && r.spec.fifth == 0 { // C7+ is C7#5
			r.spec.fifth = 1
			return true
		}
		*r = before
		return false
	}
	raised := signed == "#" || signed == "+"
	s := &r.spec
	switch {
	case hasSign && figure != "5" && (figure == strconv.Itoa(r.number) || r.stated[figure]):
		*r = before // C9b9 and C7(9)(b9) ask for both
		return false
	case figure == "5" && hasSign && s.fifth == 0:
		s.fifth = map[bool]int{true: 1, false: -1}[raised]
	case figure == "9" && hasSign:
		s.ninth = false
		s.sharpNinth, s.flatNinth = s.sharpNinth || raised, s.flatNinth || !raised
	case figure == "9" && !hasSign && (s.seventh != noSeventh || s.sixth):
		s.ninth = true
		r.stated["9"] = true
	case figure == "11" && raised:
		s.eleventh, s.sharpEleventh = false, true
	case figure == "11" && !hasSign && s.seventh != noSeventh:
		s.eleventh = true
		r.stated["11"] = true
	case figure == "13" && hasSign && !raised:
		s.thirteenth, s.flatThirteenth = false, true
	case figure == "13" && !hasSign && s.seventh != noSeventh:
		s.thirteenth = true
		r.stated["13"] = true
	default:
		*r = before
		return false
	}
	return true
}
