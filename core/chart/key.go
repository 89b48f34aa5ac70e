package chart

import (
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Transposed is the chart moved so that its first key has another tonic: the chords and the keys of
// later bars move with it and keep their distance, the numerals stay.
func (c Chart) Transposed(to harmony.Key) Chart {
	from := c.Key.Tonic
	moved := c
	moved.Key.Tonic = to.Tonic
	move := func(spans []Span, from, to pitch.Note) []Span {
		there := append([]Span(nil), spans...)
		for n, span := range there {
			if !span.Empty() {
				there[n].Chord = span.Chord.Transposed(from, to)
			}
		}
		return there
	}
	moved.Scales = append([]ScaleFor(nil), c.Scales...)
	for n, choice := range moved.Scales {
		if choice.Function == "" {
			moved.Scales[n].Chord = choice.Chord.Transposed(from, to.Tonic)
		}
	}
	moved.Pickup = move(c.Pickup, from, to.Tonic)
	moved.Bars = append([]Bar(nil), c.Bars...)
	here, there := from, to.Tonic
	for b, bar := range c.Bars {
		if bar.Change.Key.Mode != "" {
			here = bar.Change.Key.Tonic
			there = bar.Change.Key.Transposed(from, to.Tonic).Tonic
			moved.Bars[b].Change.Key.Tonic = there
		}
		moved.Bars[b].Spans, moved.Bars[b].Imagined = move(bar.Spans, here, there), move(bar.Imagined, here, there)
	}
	return moved
}

// Rekeyed is the same chords with bar 1 heard in another key: the numerals change until the next
// change of key, the chords stay.
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
