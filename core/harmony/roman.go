package harmony

import (
	"strings"

	"undaris/core/pitch"
)

var numerals = [7]string{"I", "II", "III", "IV", "V", "VI", "VII"}

// Roman is the chord's numeral in the key, counted on the major scale of the
// tonic whatever the mode (so the minor key's sixth is bVI); lower case where
// the third is minor, with ° for diminished, ø for half diminished, + for
// augmented. The quality's own sign is left to the symbol beside it.
func (k Key) Roman(c Chord) string {
	letters := (int(c.Root.Letter) - int(k.Tonic.Letter) + 7) % 7
	numeral := numerals[letters]
	if c.Quality.Minor() {
		numeral = strings.ToLower(numeral)
	}
	switch {
	case c.Quality.Sign == "m7b5":
		numeral += "ø"
	case c.Quality.family == halfDiminished || c.Quality.family == diminished:
		numeral += "°"
	case c.Quality.family == augmented:
		numeral += "+"
	}
	inKey := k.Tonic.Up(letters, pitch.Degree{Number: letters + 1}.Semitones())
	shift := c.Root.Class().Above(inKey.Class())
	if shift > 6 {
		return strings.Repeat("b", 12-shift) + numeral
	}
	return strings.Repeat("#", shift) + numeral
}

// LooksRoman says whether the text begins as a numeral does. No chord symbol
// begins so: its root is a letter from A to G.
func LooksRoman(text string) bool {
	rest := strings.TrimLeft(plainSign(text), "b#")
	return rest != "" && strings.ContainsRune("IViv", rune(rest[0]))
}

var numeralSpelling = strings.NewReplacer("♭", "b", "♯", "#")

// ParseRoman reads a numeral in the key: "IV7", "bVI7", "ii7", "#IVdim7", "I/3".
// Capitals are major and lower case minor, before the sign is read. A bare
// numeral is what the key's music has there: a seventh chord in a blues
// (dominant or minor key), a triad in a major key; "Imaj" and "im" ask for the
// triad anywhere. A number after a slash is the degree over the chord's own root
// that lies in the bass. The error is a *SymbolError.
func (k Key) ParseRoman(text string) (Chord, error) {
	plain := numeralSpelling.Replace(strings.TrimSpace(text))
	rest := strings.TrimLeft(plain, "b#")
	signs := plain[:len(plain)-len(rest)]
	number, small := 0, false
	length := 0
	for n, numeral := range numerals {
		for _, written := range []string{numeral, strings.ToLower(numeral)} {
			if strings.HasPrefix(rest, written) && len(written) > length {
				number, small, length = n+1, written != numeral, len(written)
			}
		}
	}
	if number == 0 || len(signs) > 2 {
		return Chord{}, &SymbolError{Symbol: text, At: len(signs) + 1, Nearest: []string{"I", "IV", "V"}}
	}
	head, sign := plain[:len(signs)+length], rest[length:]
	degree := pitch.Degree{Number: number, Alter: strings.Count(signs, "#") - strings.Count(signs, "b")}
	chord := Chord{Root: degree.Over(k.Tonic)}
	base, bass := sign, ""
	if slash := strings.LastIndex(sign, "/"); slash >= 0 && sign[slash:] != "/9" {
		base, bass = sign[:slash], sign[slash+1:]
	}
	quality, ok := k.romanQuality(base, small)
	if !ok {
		return Chord{}, &SymbolError{Symbol: text, At: len([]rune(head)) + readableLength(base) + 1, Nearest: nearest(head, base)}
	}
	chord.Quality = quality
	if bass == "" {
		return chord, nil
	}
	note, err := bassNote(bass, chord.Root)
	if err != nil {
		return Chord{}, &SymbolError{Symbol: text, At: len([]rune(plain)) - len([]rune(bass)) + 1, Nearest: []string{head + base + "/3", head + base + "/5", head + base + "/b7"}}
	}
	chord.Bass = &note
	return chord, nil
}

func (k Key) romanQuality(sign string, small bool) (*Quality, bool) {
	blues := k.Mode != MajorMode
	switch {
	case sign == "" && blues && !small:
		sign = "7"
	case sign == "" && blues:
		sign = "m7"
	case small:
		// ii7 is a minor seventh, ii° is not "m°".
		if q, ok := bySign["m"+plainSign(sign)]; ok {
			return q, true
		}
	}
	q, ok := bySign[plainSign(sign)]
	return q, ok
}

// bassNote reads what follows a numeral's slash: a degree over the chord's root
// ("3", "b7") or a note ("E").
func bassNote(text string, root pitch.Note) (pitch.Note, error) {
	if note, err := pitch.ParseNote(text); err == nil {
		return note, nil
	}
	degree, err := pitch.ParseDegree(text)
	if err != nil {
		return pitch.Note{}, err
	}
	return degree.Over(root), nil
}
