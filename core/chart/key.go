package chart

import (
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Transposed is the chart moved to another tonic: the chords move with it, the
// numerals stay.
func (c Chart) Transposed(to harmony.Key) Chart {
	moved := c
	moved.Key.Tonic = to.Tonic
	move := func(spans []Span) []Span {
		there := append([]Span(nil), spans...)
		for n, span := range there {
			if !span.Empty() {
				there[n].Chord = span.Chord.Transposed(c.Key.Tonic, to.Tonic)
			}
		}
		return there
	}
	moved.Bars = append([]Bar(nil), c.Bars...)
	for b, bar := range c.Bars {
		moved.Bars[b].Spans, moved.Bars[b].Imagined = move(bar.Spans), move(bar.Imagined)
	}
	return moved
}

// Rekeyed is the same chords heard in another key: the numerals change, the
// chords stay.
func (c Chart) Rekeyed(key harmony.Key) Chart {
	c.Key = key
	return c
}

// AsFretted is the chart as the hand sees it above the capo: every chord lower by
// the capo's frets, in the plainest spelling of that key.
func (c Chart) AsFretted() Chart {
	class := pitch.ClassOf(int(c.Key.Tonic.Class()) - c.Capo)
	if class == c.Key.Tonic.Class() {
		return c
	}
	key := harmony.Key{Tonic: harmony.TonicOf(0, harmony.MajorMode).Up(0, int(class)), Mode: c.Key.Mode}
	return c.Transposed(key.Plain())
}

// GuessKey is the key that bars without one are most likely in: the tonic chord is the first
// chord, and its quality says whether it is a blues, a major or a minor tune
// (our choice; a player changes it with one click).
func GuessKey(bars []Bar) harmony.Key {
	first := Chart{Key: harmony.Key{Mode: harmony.DominantMode}, Bars: bars}.firstChord()
	key := harmony.Key{Tonic: first.Root, Mode: first.TonicMode()}
	if key.Tonic.Accidental > 1 || key.Tonic.Accidental < -1 {
		key = key.Plain()
	}
	return key
}

// IsBluesKey says whether a key that a file calls major is that of a blues: its home chord is a
// dominant seventh, and files of other programs have no third mode for that (our choice).
func IsBluesKey(key harmony.Key, bars []Bar) bool {
	likely := GuessKey(bars)
	return key.Mode == harmony.MajorMode && likely.Mode == harmony.DominantMode && likely.Tonic == key.Tonic
}
