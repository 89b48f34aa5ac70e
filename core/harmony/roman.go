package harmony

import (
	"errors"
	"strings"

	"undaris/core/pitch"
)

var numerals = [7]string{"I", "II", "III", "IV", "V", "VI", "VII"}

// Roman is the chord's numeral in the key, counted on the major scale of the
// tonic whatever the mode (so the minor key's sixth is bVI); lower case where
// the third is minor, with ° for diminished, ø for half diminished, + for
// augmented. The quality's own sign is left to the symbol beside it. A chord whose context says that
// it leads to another is named by that: "V7/ii".
func (k Key) Roman(c Chord) string {
	k = k.of(c)
	if c.context != nil && c.context.Numeral != "" {
		return c.context.Numeral
	}
	return k.ownNumeral(c)
}

// FunctionNumeral is the chord's own numeral in the key with its quality's sign: "VI7".
func (k Key) FunctionNumeral(c Chord) string { return k.ownNumeral(c) + c.Quality.Sign }

// ownNumeral is Roman whatever the chord leads to.
func (k Key) ownNumeral(c Chord) string {
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
// that lies in the bass; a numeral after it is the home for the moment: "V7/V", "ii7/IV",
// "viio7/ii". The error is a *SymbolError.
func (k Key) ParseRoman(text string) (Chord, error) {
	plain := numeralSpelling.Replace(strings.TrimSpace(text))
	if slash := strings.LastIndex(plain, "/"); slash >= 0 && LooksRoman(plain[slash+1:]) {
		return k.parseSecondary(text, plain[:slash], plain[slash+1:])
	}
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
		return Chord{}, &SymbolError{Symbol: text, At: len([]rune(head)) + readUntil(base) + 1, Nearest: nearest(head, base)}
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

// parseSecondary reads a numeral in the key of the chord that another numeral names.
func (k Key) parseSecondary(text, numeral, goal string) (Chord, error) {
	fault := func(err error, before int) error {
		var symbol *SymbolError
		if !errors.As(err, &symbol) {
			return err
		}
		return &SymbolError{Symbol: text, At: before + symbol.At, Nearest: []string{"V7/V", "ii7/IV", "viio7/ii"}}
	}
	if strings.Contains(goal, "/") || strings.Contains(strings.ReplaceAll(numeral, "6/9", ""), "/") {
		return Chord{}, fault(&SymbolError{At: 1}, len([]rune(numeral)))
	}
	home, err := k.ParseRoman(goal)
	if err != nil {
		return Chord{}, fault(err, len([]rune(numeral))+1)
	}
	chord, err := Key{Tonic: home.Root, Mode: k.Mode}.ParseRoman(numeral)
	if err != nil {
		return Chord{}, fault(err, 0)
	}
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
		if q, _, _ := readSign("m" + sign); q != nil {
			return q, true
		}
	}
	q, _, _ := readSign(sign)
	return q, q != nil
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

// readUntil is how many characters of a sign that cannot be read were understood.
func readUntil(sign string) int {
	_, at, _ := readSign(sign)
	return at
}
