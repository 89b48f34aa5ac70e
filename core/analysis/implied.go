package analysis

import (
	"fmt"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Recognition is what a listener makes of the line alone over one chord: the band has
// dropped out.
type Recognition string

// What is made of it.
const (
	// Recognized: the chord is the one that fits best, by a margin.
	Recognized Recognition = "heard"
	// Unclear: it fits best, but another nearly as well.
	Unclear Recognition = "unclear"
	// AnotherChord: another chord fits better.
	AnotherChord Recognition = "another chord"
	// NothingPlayed: nothing is played over it.
	NothingPlayed Recognition = "nothing"
)

// ImpliedHarmony is what is heard of one chord when the band drops out.
type ImpliedHarmony struct {
	// From and To are the phrase's ticks between which the chord holds.
	From, To    int
	Chord       harmony.Chord
	Recognition Recognition
	// Rival is the chord that fits best beside the true one.
	Rival harmony.Chord
	// Margin is how much better the true chord fits than its rival, below 0 where it fits
	// worse.
	Margin float64
	// SettlingTone is the tone that would make it clear, played for a beat on a strong one; nil
	// where it is clear.
	SettlingTone *harmony.Tone
	// Notes sound over it, as indices of events.
	Notes []int
	Text  string
}

// How well a note fits a chord, by what it is over it (ours: what tells a chord counts
// most, what no chord of the kind has counts against it), and how much better the true
// chord must fit to be heard.
const (
	fitsGuide      = 1.5
	fitsRoot       = 1.0
	fitsChordTone  = 0.6
	fitsColour     = 0.3
	fitsSuspension = -0.4
	fitsOutside    = -1.2
	clearMargin    = 0.12
	// rootlessLoss is what a rival loses whose root is not played: the true chord's is in the
	// ear, since the form goes on; another's must be given.
	rootlessLoss = 0.6
	// foreignLoss is what a rival loses that is not in the tune: the ear expects what it knows.
	foreignLoss = 0.4
	// newToneWeight is how much more a tone of the chord weighs that the chord before it did
	// not have: the ear hears what has changed.
	newToneWeight = 1.5
)

// How much a note weighs beside its length (ours): on a strong beat, on another beat,
// off the beat.
const (
	weighsStrong = 2.0
	weighsBeat   = 1.5
	weighsOff    = 1.0
)

// ImpliedHarmonies says of each chord under the phrase whether a listener would still know it
// if the band stopped. The notes of its span are weighed by length and by where they
// begin; the true chord is held against the chords of the tune and the common ones of the
// key. Where one would not know it, the single tone that would settle it is named.
func ImpliedHarmonies(p phrase.Phrase, i neck.Instrument, k harmony.Key, tune []harmony.Chord) []ImpliedHarmony {
	return NewChordRecognizer(k, tune).All(p, i)
}

// ChordRecognizer knows the chords that a span of a tune may be taken for, and how well each note fits each of them. It
// is worked out once for a tune, and for each key of it when that comes first.
type ChordRecognizer struct {
	key    harmony.Key
	tune   []harmony.Chord
	rivals map[harmony.Key][]rivalChord
}

// NewChordRecognizer is the recognizer of the chords of a tune in a key.
func NewChordRecognizer(k harmony.Key, tune []harmony.Chord) *ChordRecognizer {
	return &ChordRecognizer{key: k, tune: tune, rivals: map[harmony.Key][]rivalChord{}}
}

// All is ImpliedHarmonies by the recognizer's tune.
func (r *ChordRecognizer) All(p phrase.Phrase, i neck.Instrument) []ImpliedHarmony {
	all := make([]ImpliedHarmony, len(p.Chords))
	weights := make([][12]float64, len(p.Chords))
	for n := range p.Chords {
		all[n] = spanOf(p, n)
	}
	for m, e := range p.Events {
		// A push belongs to the chord that arrives; what is held weighs on every chord it
		// sounds over.
		for n := max(p.ChordIndexOf(e), 0); n < len(all) && (all[n].From < e.End() || n == 0); n++ {
			if w := weightOf(p, e, all[n].From, all[n].To); w > 0 {
				weights[n][e.Sounding(i).Class()] += w
				all[n].Notes = append(all[n].Notes, m)
			}
		}
	}
	for n := range all {
		r.finish(p, n, &all[n], weights[n])
	}
	return all
}

// At is All of one chord of the phrase, by its index.
func (r *ChordRecognizer) At(p phrase.Phrase, i neck.Instrument, index int) ImpliedHarmony {
	one, weights := spanOf(p, index), [12]float64{}
	for m, e := range p.Events {
		if e.Tick >= one.To || e.End() <= one.From && index > 0 || max(p.ChordIndexOf(e), 0) > index {
			continue
		}
		if w := weightOf(p, e, one.From, one.To); w > 0 {
			weights[e.Sounding(i).Class()] += w
			one.Notes = append(one.Notes, m)
		}
	}
	r.finish(p, index, &one, weights)
	return one
}

// spanOf is the span of a chord of the phrase, nothing said of it yet.
func spanOf(p phrase.Phrase, index int) ImpliedHarmony {
	d := ImpliedHarmony{From: p.Chords[index].Tick, To: p.End(), Chord: p.Chords[index].Chord}
	if index == 0 && len(p.Events) > 0 {
		d.From = min(d.From, p.Events[0].Tick)
	}
	if index+1 < len(p.Chords) {
		d.To = p.Chords[index+1].Tick
	}
	return d
}

// finish says of a span what its weights are recognized as.
func (r *ChordRecognizer) finish(p phrase.Phrase, index int, d *ImpliedHarmony, weights [12]float64) {
	if index > 0 {
		weighNewTones(&weights, p.Chords[index-1].Chord, d.Chord)
	}
	in := d.Chord.Context(r.key).Key
	if _, known := r.rivals[in]; !known {
		r.rivals[in] = candidateChords(in, r.tune)
	}
	d.recognize(in, weights, r.rivals[in], float64(p.BarLines().BeatTicksAt(d.From)))
}

// weighNewTones gives the tones of a chord more weight that the chord before it did not have.
func weighNewTones(weights *[12]float64, before, chord harmony.Chord) {
	for _, tone := range chord.Tones() {
		if _, old := before.Tone(tone.Note.Class()); !old {
			weights[tone.Note.Class()] *= newToneWeight
		}
	}
}

// weightOf is how much a note weighs within a span: its ticks there, more on a beat, most
// on a strong one. A note that leads over a change weighs on both sides of it.
func weightOf(p phrase.Phrase, e phrase.Event, from, to int) float64 {
	ticks := min(e.End(), to) - max(e.Tick, from)
	if ticks <= 0 {
		return 0
	}
	switch at := max(e.Tick, from); {
	case p.BarLines().IsStrong(at):
		return weighsStrong * float64(ticks)
	case p.BarLines().IntoBeat(at) == 0:
		return weighsBeat * float64(ticks)
	}
	return weighsOff * float64(ticks)
}

// commonChords are the chords that a span may be taken for in a key beside those of the tune:
// what the music of its mode goes to (common).
var commonChords = map[harmony.Mode][]string{
	harmony.DominantMode: {"I", "IV", "V", "im7", "bVII"},
	harmony.MajorMode:    {"I", "IV", "V", "ii7", "iii7", "vi7"},
	harmony.MinorMode:    {"i", "iv", "v", "V7", "bVI", "bVII", "bIII"},
}

// rivalChord is a chord that a span may be taken for; foreign says that it is not in the tune.
type rivalChord struct {
	harmony.Chord
	foreign bool
	// fits is what each class of note says for it.
	fits [12]float64
}

// candidateChords are the chords of the tune and the common ones of its key.
func candidateChords(k harmony.Key, tune []harmony.Chord) []rivalChord {
	all := []rivalChord{}
	for _, c := range tune {
		all = append(all, rivalChord{Chord: c, fits: fitsOf(k, c)})
	}
	for _, numeral := range commonChords[k.Mode] {
		c, err := k.ParseRoman(numeral)
		if err == nil && !slices.ContainsFunc(tune, c.Same) {
			all = append(all, rivalChord{Chord: c, foreign: true, fits: fitsOf(k, c)})
		}
	}
	return all
}

// fitOf is how well weights fit a chord, a weighted mean of what each class is over it.
func fitOf(fits, weights [12]float64) float64 {
	sum, total := 0.0, 0.0
	for class, w := range weights {
		total += w
		sum += w * fits[class]
	}
	if total == 0 {
		return 0
	}
	return sum / total
}

// fitsOf is what each class of note says for a chord.
func fitsOf(k harmony.Key, c harmony.Chord) [12]float64 {
	fits := [12]float64{}
	for class := range fits {
		fits[class] = fitOfNote(k, c, pitch.Class(class))
	}
	return fits
}

func fitOfNote(k harmony.Key, c harmony.Chord, class pitch.Class) float64 {
	switch k.Classify(c, class) {
	case harmony.ChordTone:
		tone := k.ToneOver(c, class)
		switch {
		case harmony.IsGuideTone(tone.Degree):
			return fitsGuide
		case tone.Degree.Number == 1:
			return fitsRoot
		}
		return fitsChordTone
	case harmony.Colour:
		return fitsColour
	case harmony.Suspension:
		return fitsSuspension
	case harmony.Outside:
		return fitsOutside
	}
	return 0 // a blue note says nothing either way
}

// recognize holds the true chord against its rivals.
func (d *ImpliedHarmony) recognize(k harmony.Key, weights [12]float64, rivals []rivalChord, beat float64) {
	others, own := othersThan(d.Chord, rivals), fitsOf(k, d.Chord)
	d.Rival, d.Margin = bestRival(own, weights, others)
	switch {
	case len(d.Notes) == 0:
		d.Recognition, d.Margin = NothingPlayed, 0
	case d.Margin >= clearMargin:
		d.Recognition = Recognized
	case d.Margin > -clearMargin:
		d.Recognition = Unclear
	default:
		d.Recognition = AnotherChord
	}
	if d.Recognition != Recognized {
		best := d.Margin
		for _, tone := range d.Chord.Tones() {
			more := weights
			more[tone.Note.Class()] += weighsStrong * beat
			if _, margin := bestRival(own, more, others); d.SettlingTone == nil || margin > best {
				best, d.SettlingTone = margin, &tone
			}
		}
	}
	d.Text = d.text()
}

// othersThan are the rivals that are another chord than one.
func othersThan(c harmony.Chord, rivals []rivalChord) []rivalChord {
	others := make([]rivalChord, 0, len(rivals))
	for _, one := range rivals {
		if !sameTones(one.Chord, c) {
			others = append(others, one)
		}
	}
	return others
}

// bestRival is the chord that fits best beside the true one, which notes fit as own says, and how much better that one
// fits.
func bestRival(own, weights [12]float64, rivals []rivalChord) (rival harmony.Chord, margin float64) {
	best, found := 0.0, false
	for n := range rivals {
		fit := fitOf(rivals[n].fits, weights)
		if rivals[n].foreign {
			fit -= foreignLoss
		}
		if weights[rivals[n].Root.Class()] == 0 {
			fit -= rootlessLoss
		}
		if !found || fit > best {
			rival, best, found = rivals[n].Chord, fit, true
		}
	}
	return rival, fitOf(own, weights) - best
}

// sameTones says whether two chords have the root and guide tones in common: a 9 is its 7.
func sameTones(a, b harmony.Chord) bool {
	if a.Root.Class() != b.Root.Class() {
		return false
	}
	for _, tone := range b.Tones() {
		if _, ok := a.Tone(tone.Note.Class()); harmony.IsGuideTone(tone.Degree) && !ok {
			return false
		}
	}
	return true
}

func (d ImpliedHarmony) text() string {
	settle := ""
	if d.SettlingTone != nil {
		settle = fmt.Sprintf("; %s, the %s, would settle it", d.SettlingTone.Note, d.SettlingTone.Degree)
	}
	switch d.Recognition {
	case Recognized:
		return fmt.Sprintf("%s is heard", d.Chord.Symbol())
	case Unclear:
		return fmt.Sprintf("%s might be %s%s", d.Chord.Symbol(), d.Rival.Symbol(), settle)
	case AnotherChord:
		return fmt.Sprintf("%s is heard as %s%s", d.Chord.Symbol(), d.Rival.Symbol(), settle)
	}
	return fmt.Sprintf("nothing is played over %s%s", d.Chord.Symbol(), settle)
}
