package change

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// DefiningTones lists the tones of the arriving chord that are neither in the leaving
// chord nor in the box: the notes that by themselves announce the change.
func DefiningTones(leaving, arriving harmony.Chord, box harmony.Box) []harmony.Tone {
	telling := []harmony.Tone{}
	for _, tone := range arriving.Tones() {
		_, inLeaving := leaving.Tone(tone.Note.Class())
		_, inBox := box.Tone(tone.Note.Class())
		if !inLeaving && !inBox {
			telling = append(telling, tone)
		}
	}
	return telling
}

// MissingTone is a chord tone that the box has not, and where it lies beside one it has.
type MissingTone struct {
	harmony.Tone
	// Beside is the box's nearest note, Frets how far the lacking tone lies
	// above (or, negative, below) it.
	Beside pitch.Note
	Frets  int
	// Needed is true for the tones that are enough to say the chord: its third
	// and seventh.
	Needed bool
	// Where says where it lies beside that note: "one fret above its Eb".
	Where string
	// Text says it in words.
	Text string
}

// BoxCoverage is what a box already has of a chord, and what it has not.
type BoxCoverage struct {
	Has     []harmony.Tone
	Missing []MissingTone
	// Text sums it up.
	Text string
}

// CoverageOf sets the box against a chord: the chord tones it holds, those it
// lacks, and the fewest to add. The third and seventh alone say which chord is
// on, so only those that lack need to be added (common practice).
func CoverageOf(chord harmony.Chord, box harmony.Box) BoxCoverage {
	h := BoxCoverage{Has: []harmony.Tone{}, Missing: []MissingTone{}}
	for _, tone := range chord.Tones() {
		if _, ok := box.Tone(tone.Note.Class()); ok {
			h.Has = append(h.Has, tone)
			continue
		}
		lack := MissingTone{Tone: tone, Needed: harmony.IsGuideTone(tone.Degree)}
		lack.Beside, lack.Frets = nearestInBox(box, tone.Note.Class())
		lack.Where = fmt.Sprintf("%s its %s", fretsAway(lack.Frets), lack.Beside)
		lack.Text = fmt.Sprintf("%s, the %s: %s", tone.Note, tone.Degree, lack.Where)
		h.Missing = append(h.Missing, lack)
	}
	h.Text = h.summary(chord)
	return h
}

func (h BoxCoverage) summary(chord harmony.Chord) string {
	add := ""
	for _, lack := range h.Missing {
		if !lack.Needed {
			continue
		}
		if add != "" {
			add += "; and "
		}
		add += lack.Text
	}
	if add == "" {
		return fmt.Sprintf("over %s your box has all it needs to say the chord", chord.Symbol())
	}
	return fmt.Sprintf("over %s your box lacks %s", chord.Symbol(), add)
}

// nearestInBox finds the box note nearest to class and the signed frets from it;
// of two equally near, the one below.
func nearestInBox(box harmony.Box, class pitch.Class) (pitch.Note, int) {
	for distance := 1; distance <= 6; distance++ {
		if t, ok := box.Tone(pitch.ClassOf(int(class) - distance)); ok {
			return t.Note, distance
		}
		if t, ok := box.Tone(pitch.ClassOf(int(class) + distance)); ok {
			return t.Note, -distance
		}
	}
	panic("a box has a note within six semitones of any other")
}

func fretsAway(frets int) string {
	side, n := "above", frets
	if frets < 0 {
		side, n = "below", -frets
	}
	count := [...]string{"", "one fret", "two frets", "three frets", "four frets", "five frets", "six frets"}[n]
	return count + " " + side
}

// Headline says the one thing to know about a change: the note that tells the
// arriving chord, the third or seventh first.
func Headline(leaving, arriving harmony.Chord, telling []harmony.Tone) string {
	best := -1
	for n, tone := range telling {
		if best < 0 || (harmony.IsGuideTone(tone.Degree) && !harmony.IsGuideTone(telling[best].Degree)) {
			best = n
		}
	}
	if best < 0 {
		return fmt.Sprintf("Every tone of %s is in %s or in your box already: let its third or seventh fall on the change.", arriving.Symbol(), leaving.Symbol())
	}
	return fmt.Sprintf("Play %s: neither %s nor your box has it, so it alone says %s.", toneOfChord(telling[best], arriving), leaving.Symbol(), arriving.Symbol())
}
