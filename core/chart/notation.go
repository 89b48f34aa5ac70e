package chart

import (
	"fmt"
	"slices"
	"strings"
	"unicode"

	"undaris/core/harmony"
)

// The signs of the bar notation beside chord symbols and numerals.
const (
	// NoChord is the silence of the band.
	NoChord = "N.C."
	// AsWritten leaves the written chord in the imagined layer.
	AsWritten = "_"
	// HoldSign is one more beat of what came before; "/" is read as the same.
	HoldSign = "."
	// RepeatSign is the bar before once more.
	RepeatSign = "%"
)

// TextError says what in a bar's text cannot be read, and where.
type TextError struct {
	// At is the place of the first character at fault, counted in characters
	// from 1.
	At int
	// Symbol is the word at fault, empty where the bar as a whole is.
	Symbol string
	Detail string
	// Nearest lists readable symbols like it.
	Nearest []string
}

func (e *TextError) Error() string { return e.Detail }

// word is one word of a bar's text, at a character counted from 1.
type word struct {
	text string
	at   int
}

// words cuts a text at its blanks.
func words(text string) []word {
	all := []word{}
	begin, at, count := 0, 0, 0
	end := func(to int) {
		if begin < to {
			all = append(all, word{text: text[begin:to], at: at})
		}
	}
	for n, r := range text {
		count++
		if unicode.IsSpace(r) {
			end(n)
			begin = n + len(string(r))
			at = count + 1
		} else if at == 0 {
			at = 1
		}
	}
	end(len(text))
	return all
}

// ReadBar reads one bar as a player types it: chords (or numerals of the key)
// apart by blanks. Without held beats they share the bar evenly, the earlier
// ones longer where it does not divide: "Dm7 G7". With held beats each word is a
// beat: "C7 . . G7". "%" is the bar before, with or without held beats, N.C. is silence. The error is a
// *TextError.
func ReadBar(text string, key harmony.Key, meter Meter, before []Span) ([]Span, error) {
	return readBeats(text, key, meter.Beats(), before, "a bar of "+meter.String())
}

// readBeats is ReadBar for a bar of so many beats, which errors call by a name.
func readBeats(text string, key harmony.Key, beats int, before []Span, name string) ([]Span, error) {
	all := words(text)
	if isRepeat(all) {
		switch {
		case len(before) == 0:
			return nil, &TextError{At: all[0].at, Symbol: RepeatSign, Detail: "there is no bar before that % could repeat"}
		case beatsOf(before) == beats:
			return append([]Span(nil), before...), nil
		case len(before) > beats:
			return nil, &TextError{At: all[0].at, Symbol: RepeatSign, Detail: fmt.Sprintf("the bar before has %d chords; %s has %d beats", len(before), name, beats)}
		}
		return respread(before, beats), nil
	}
	if len(all) == 0 {
		return []Span{{Beats: beats}}, nil
	}
	return readSpans(all, beats, name, func(w word) (Span, error) {
		switch {
		case isNoChord(w.text):
			return Span{}, nil
		case isHeld(w.text):
			return Span{}, &TextError{At: w.at, Symbol: w.text, Detail: "a held beat needs a chord before it in its bar"}
		}
		return readChord(w, key)
	})
}

// ReadImagined reads the imagined layer of one bar in the same notation; "_", or
// held beats at the start, leave the written chord. An empty text, or one that
// leaves all as it is, is no layer.
func ReadImagined(text string, key harmony.Key, meter Meter) ([]Span, error) {
	all := words(text)
	if len(all) == 0 {
		return nil, nil
	}
	spans, err := readSpans(all, meter.Beats(), "a bar of "+meter.String(), func(w word) (Span, error) {
		if w.text == AsWritten || isHeld(w.text) {
			return Span{}, nil
		}
		return readChord(w, key)
	})
	if err != nil {
		return nil, err
	}
	for _, span := range spans {
		if !span.Empty() {
			return spans, nil
		}
	}
	return nil, nil
}

// isRepeat says whether the words are the sign of the bar before, perhaps with a held beat for
// each of its beats: "% . . .".
func isRepeat(all []word) bool {
	return len(all) > 0 && all[0].text == RepeatSign && !slices.ContainsFunc(all[1:], func(w word) bool { return !isHeld(w.text) })
}

func isHeld(text string) bool { return text == HoldSign || text == "/" }

func isNoChord(text string) bool {
	switch strings.ToUpper(text) {
	case "N.C.", "NC", "N.C", "-":
		return true
	}
	return false
}

func readChord(w word, key harmony.Key) (Span, error) {
	read := harmony.ParseChord
	if harmony.LooksRoman(w.text) {
		read = key.ParseRoman
	}
	chord, err := read(w.text)
	if err != nil && !harmony.LooksRoman(w.text) && w.text[0] >= 'a' && w.text[0] <= 'g' {
		// Who types in a hurry leaves the capital out; a small letter at the beginning means nothing else.
		if meant, smallErr := read(strings.ToUpper(w.text[:1]) + w.text[1:]); smallErr == nil {
			chord, err = meant, nil
		}
	}
	if err == nil {
		return Span{Chord: chord}, nil
	}
	symbol := err.(*harmony.SymbolError)
	return Span{}, &TextError{At: w.at + symbol.At - 1, Symbol: harmony.Shortened(w.text), Detail: err.Error(), Nearest: symbol.Nearest}
}

func readSpans(all []word, beats int, name string, read func(word) (Span, error)) ([]Span, error) {
	held := false
	for _, w := range all {
		held = held || isHeld(w.text)
	}
	if !held && len(all) > beats {
		return nil, &TextError{At: all[beats].at, Symbol: all[beats].text, Detail: fmt.Sprintf("%d chords; %s has %d beats, and a chord lasts at least one", len(all), name, beats)}
	}
	spans := []Span{}
	for n, w := range all {
		if n > 0 && isHeld(w.text) {
			spans[len(spans)-1].Beats++
			continue
		}
		span, err := read(w)
		if err != nil {
			return nil, err
		}
		span.Beats = 1
		spans = append(spans, span)
	}
	switch {
	case held && len(all) != beats:
		return nil, &TextError{At: 1, Detail: fmt.Sprintf("%d beats; %s has %d", len(all), name, beats)}
	case held:
		return spans, nil
	}
	for n, share := range spread(len(spans), beats) {
		spans[n].Beats = share
	}
	return spans, nil
}

// spread divides beats among chords evenly, the earlier ones longer.
func spread(chords, beats int) []int {
	shares := make([]int, chords)
	for n := range shares {
		shares[n] = beats / chords
		if n < beats%chords {
			shares[n]++
		}
	}
	return shares
}

// ReadPickup reads the bar before bar 1, in which every word is a beat: "N.C. . G7".
func ReadPickup(text string, key harmony.Key) ([]Span, error) {
	return readBeats(text, key, len(words(text)), nil, "the bar before bar 1")
}

// PickupText writes the bar before bar 1 so that ReadPickup reads the same.
func PickupText(spans []Span) string {
	written := []string{}
	for _, span := range spans {
		written = append(written, span.Name()+strings.Repeat(" "+HoldSign, span.Beats-1))
	}
	return strings.Join(written, " ")
}

// Text writes a bar's chords so that ReadBar reads the same.
func Text(spans []Span) string { return writeSpans(spans, NoChord) }

// ImaginedText writes an imagined layer so that ReadImagined reads the same;
// nothing where there is none.
func ImaginedText(spans []Span) string { return writeSpans(spans, AsWritten) }

func writeSpans(spans []Span, empty string) string {
	beats := 0
	for _, span := range spans {
		beats += span.Beats
	}
	even := true
	if len(spans) > 0 && len(spans) <= beats {
		for n, share := range spread(len(spans), beats) {
			even = even && spans[n].Beats == share
		}
	}
	written := []string{}
	for _, span := range spans {
		name := empty
		if !span.Empty() {
			name = span.Chord.Symbol()
		}
		written = append(written, name)
		for held := 1; held < span.Beats && !even; held++ {
			written = append(written, HoldSign)
		}
	}
	return strings.Join(written, " ")
}
