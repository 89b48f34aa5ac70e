package harmony

import (
	"slices"
	"strings"

	"undaris/core/pitch"
)

// Quality is a chord's kind: its canonical sign, the degrees it is built of,
// and the family that decides what the other notes are over it.
type Quality struct {
	// Sign follows the root in the canonical symbol: "" for major, "m7", "7#9".
	Sign string
	// Name is the quality in words, for messages and spoken labels.
	Name    string
	degrees []pitch.Degree
	family  family
	aliases []string
}

// Minor says whether the third is minor, which is what turns a roman numeral
// to lower case.
func (q *Quality) Minor() bool {
	for _, d := range q.degrees {
		if d.Number == 3 {
			return d.Alter == -1
		}
	}
	return false
}

// qualities are every quality that Undaris knows, spelled as common theory has
// them. Two choices are ours: a 13 leaves out the 11, which clashes with its
// 3, and 7alt carries b9 #9 #11 b13 and no plain 5.
var qualities = []*Quality{
	quality("", "major", "R 3 5", major, "maj", "M", "major", "Δ", "ma"),
	quality("m", "minor", "R b3 5", minor, "min", "-", "mi", "minor"),
	quality("7", "dominant seventh", "R 3 5 b7", dominant, "dom7", "dom"),
	quality("maj7", "major seventh", "R 3 5 7", majorSeventh, "M7", "Δ7", "ma7", "Maj7", "major7", "j7"),
	quality("m7", "minor seventh", "R b3 5 b7", minor, "min7", "-7", "mi7", "minor7"),
	quality("m(maj7)", "minor with major seventh", "R b3 5 7", minor, "mM7", "minmaj7", "m/maj7", "mΔ7", "mΔ", "-Δ7", "-Δ", "-maj7", "-M7"),
	quality("m7b5", "half diminished", "R b3 b5 b7", halfDiminished, "ø", "ø7", "m7-5", "min7b5", "-7b5", "halfdim"),
	quality("dim", "diminished", "R b3 b5", halfDiminished, "o", "°", "mb5"),
	quality("dim7", "diminished seventh", "R b3 b5 bb7", diminished, "o7", "°7"),
	quality("aug", "augmented", "R 3 #5", augmented, "+", "#5", "+5"),
	quality("6", "sixth", "R 3 5 6", major, "maj6", "M6", "add6"),
	quality("m6", "minor sixth", "R b3 5 6", minor, "min6", "-6"),
	quality("6/9", "six nine", "R 3 5 6 9", major, "69", "6add9"),
	quality("9", "dominant ninth", "R 3 5 b7 9", dominant, "dom9"),
	quality("m9", "minor ninth", "R b3 5 b7 9", minor, "min9", "-9"),
	quality("maj9", "major ninth", "R 3 5 7 9", majorSeventh, "M9", "Δ9", "ma9", "Maj9"),
	quality("11", "dominant eleventh", "R 3 5 b7 9 11", dominant),
	quality("m11", "minor eleventh", "R b3 5 b7 9 11", minor, "min11", "-11"),
	quality("13", "dominant thirteenth", "R 3 5 b7 9 13", dominant, "dom13"),
	quality("m13", "minor thirteenth", "R b3 5 b7 9 11 13", minor, "min13", "-13"),
	quality("add9", "added ninth", "R 3 5 9", major, "add2"),
	quality("sus2", "suspended second", "R 2 5", suspendedSecond),
	quality("sus4", "suspended fourth", "R 4 5", suspended, "sus"),
	quality("7sus4", "seventh suspended", "R 4 5 b7", suspended, "7sus", "sus7"),
	quality("9sus4", "ninth suspended", "R 4 5 b7 9", suspended, "9sus", "sus9"),
	quality("7b9", "seventh flat nine", "R 3 5 b7 b9", dominant, "7-9"),
	quality("7#9", "seventh sharp nine", "R 3 5 b7 #9", dominant, "7+9"),
	quality("7#5", "augmented seventh", "R 3 #5 b7", augmented, "7+5", "+7", "aug7", "7+", "7aug"),
	quality("7b5", "seventh flat five", "R 3 b5 b7", dominant, "7-5"),
	quality("7b13", "seventh flat thirteen", "R 3 5 b7 b13", dominant, "7-13"),
	quality("7#11", "seventh sharp eleven", "R 3 5 b7 #11", dominant, "7+11"),
	quality("7alt", "altered", "R 3 b7 b9 #9 #11 b13", dominant, "alt", "altered", "7altered"),
	quality("5", "power chord", "R 5", power),
}

func quality(sign, name, degrees string, f family, aliases ...string) *Quality {
	q := &Quality{Sign: sign, Name: name, family: f, aliases: aliases}
	for _, text := range strings.Fields(degrees) {
		q.degrees = append(q.degrees, pitch.MustDegree(text))
	}
	return q
}

// bySign finds a common quality by its sign or an alias, brackets and spaces taken out.
var bySign = func() map[string]*Quality {
	table := map[string]*Quality{}
	for _, q := range qualities {
		for _, sign := range append([]string{q.Sign}, q.aliases...) {
			table[plainSign(sign)] = q
		}
	}
	return table
}()

var signSpelling = strings.NewReplacer("(", "", ")", "", " ", "", "♭", "b", "♯", "#")

func plainSign(sign string) string {
	return signSpelling.Replace(sign)
}

// EverySign lists the canonical signs of all qualities that can be read, those of the table first, then
// by the alphabet.
func EverySign() []string {
	signs := Signs()
	known := map[string]bool{}
	for _, sign := range signs {
		known[sign] = true
	}
	others := []string{}
	for _, q := range bySpec {
		if !known[q.Sign] {
			known[q.Sign] = true
			others = append(others, q.Sign)
		}
	}
	slices.Sort(others)
	return append(signs, others...)
}

// Signs lists the canonical signs of the common qualities, in the table's order.
func Signs() []string {
	signs := make([]string, len(qualities))
	for i, q := range qualities {
		signs[i] = q.Sign
	}
	return signs
}
