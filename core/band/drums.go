package band

import (
	"math/rand/v2"

	"undaris/core/pitch"
)

// The sounds of the kit, by their keys in the General MIDI percussion map.
const (
	kick      = pitch.MIDI(36)
	stick     = pitch.MIDI(37)
	snare     = pitch.MIDI(38)
	floorTom  = pitch.MIDI(43)
	closedHat = pitch.MIDI(42)
	pedalHat  = pitch.MIDI(44)
	openHat   = pitch.MIDI(46)
	midTom    = pitch.MIDI(47)
	crash     = pitch.MIDI(49)
	highTom   = pitch.MIDI(50)
	ride      = pitch.MIDI(51)
)

// groove is a bar of drums: a grid for each sound.
type groove map[pitch.MIDI]string

// grooves are the bars that a style plays, by intensity; each intensity has several.
type grooves [full + 1][]groove

// Loudness of a stroke by its letter in a grid: accented, plain, ghost.
var drumLoudness = map[string]int{"X": 104, "x": 82, "g": 38}

// drumPart is how many parts a beat has of which a stroke lasts one: a drum rings as long as
// it rings, so that its length only has to be over before it is struck again.
const drumPart = twelfths

// softer is how much softer cymbals and hats are struck than drums, as a factor.
var softer = map[pitch.MIDI]float64{closedHat: 0.72, pedalHat: 0.6, openHat: 0.72, ride: 0.74, stick: 0.9}

// drums plays the groove of each bar, a fill at the end of every fourth and of the
// chorus, and a crash at the top of a chorus.
func (s score) drums() []Note {
	notes := []Note{}
	for n, b := range s.bars {
		if b.pickup {
			continue
		}
		random := s.random(b, forDrums)
		groove := s.grooveOf(b, random)
		fillFrom := b.meter.Beats()
		fill, fillBeats := groove, 0
		if b.fill && !b.stop && !b.last {
			fill, fillBeats = s.fillOf(b)
			fillFrom -= fillBeats
		}
		for _, hit := range s.drumHits(b, groove, fill, fillFrom) {
			notes = append(notes, s.drumNote(b, hit, random))
		}
		if s.crashes(n) {
			notes = append(notes, s.drumNote(b, drumHit{crash, 0, drumLoudness["X"]}, random))
		}
	}
	return notes
}

// crashes says whether a bar begins with a crash: the top of a chorus that is not light,
// after an intro or a chorus before, and the last chord.
func (s score) crashes(n int) bool {
	b := s.bars[n]
	if b.last {
		return true
	}
	return b.top && !b.spans[0].silent && (b.chorus > 0 || n > 0 && b.intensity > light)
}

// drumHit is a stroke of one sound: at twelfths of a beat from the start of its bar.
type drumHit struct {
	sound    pitch.MIDI
	at       int
	loudness int
}

// drumHits are the strokes of a bar: its groove, from a beat on its fill, and in a
// stop-time bar or where the band rests what is left of them.
func (s score) drumHits(b bar, groove, fill groove, fillFrom int) []drumHit {
	hits := []drumHit{}
	if b.stop || b.last {
		for _, sp := range b.spans {
			if sp.silent {
				continue
			}
			hits = append(hits, drumHit{kick, sp.beat * twelfths, drumLoudness["X"]}, drumHit{snare, sp.beat * twelfths, drumLoudness["x"]})
			if b.last {
				break
			}
		}
		return hits
	}
	for _, sound := range kit {
		rows := over(readGrid(groove[sound], ""), max(gridBeats(groove[sound]), 1), fillFrom)
		if text, ok := fill[sound]; ok && fillFrom < b.meter.Beats() {
			for _, st := range readGrid(text, "") {
				st.at += fillFrom * twelfths
				rows = append(rows, st)
			}
		}
		for _, st := range rows {
			if !b.silentAt(st.at) {
				hits = append(hits, drumHit{sound, st.at, drumLoudness[st.text]})
			}
		}
	}
	return hits
}

// kit lists the sounds in a fixed order, so that random numbers are drawn alike every time.
var kit = []pitch.MIDI{kick, stick, snare, floorTom, closedHat, pedalHat, openHat, midTom, highTom, ride, crash}

// silentAt says whether the band rests at twelfths of a beat from the start of the bar.
func (b bar) silentAt(at int) bool {
	for _, sp := range b.spans {
		if at < (sp.beat+sp.beats)*twelfths {
			return sp.silent
		}
	}
	return false
}

func (s score) grooveOf(b bar, random *rand.Rand) groove {
	all := b.style.grooves
	if b.meter.Beats() == 3 && len(b.style.waltz[b.intensity]) > 0 {
		all = b.style.waltz
	}
	choices := all[b.intensity]
	// The first groove is the usual one; the others come in between.
	if len(choices) == 1 || b.inChorus%4 == 0 || random.Float64() < 0.55 {
		return choices[0]
	}
	return choices[1+random.IntN(len(choices)-1)]
}

func (s score) drumNote(b bar, hit drumHit, random *rand.Rand) Note {
	factor := 1.0
	if f, ok := softer[hit.sound]; ok {
		factor = f
	}
	beat := b.meter.BeatTicks()
	note := s.sound(Drums, b.tick+hit.at*beat/twelfths, beat/drumPart, hit.sound, int(float64(hit.loudness)*factor*b.loudnessFactor()))
	late := 0.0
	if hit.sound == snare {
		late = b.style.late
	}
	return s.humanised(note, random, late)
}
