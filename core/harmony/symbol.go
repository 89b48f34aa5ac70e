package harmony

import (
	"fmt"
	"sort"
	"strings"

	"undaris/core/pitch"
)

// SymbolError says which chord symbol could not be read, where in it the
// reading stopped, and what readable symbols are nearest.
type SymbolError struct {
	Symbol string
	// At is the place of the first character not understood, counted in
	// characters from 1.
	At      int
	Nearest []string
}

func (e *SymbolError) Error() string {
	message := fmt.Sprintf("%q is not a chord Undaris can read (stopped at character %d)", Shortened(e.Symbol), e.At)
	if len(e.Nearest) > 0 {
		message += "; nearest: " + strings.Join(e.Nearest, ", ")
	}
	return message
}

// maxShown is how many characters of a text that is no chord are said back.
const maxShown = 60

// Shortened is a text that could not be read as an error says it: its beginning, where it is
// too long to be read.
func Shortened(text string) string {
	characters := 0
	for n := range text {
		if characters == maxShown {
			return text[:n] + "…"
		}
		characters++
	}
	return text
}

// ParseChord reads a chord symbol: root, quality by its canonical sign or a
// common alias, and an optional slash bass. An unknown symbol is a
// *SymbolError; it never becomes another chord.
func ParseChord(symbol string) (Chord, error) {
	text, before := inBrackets(symbol)
	root, rest, err := pitch.ReadNote(text)
	if err != nil {
		return Chord{}, &SymbolError{Symbol: symbol, At: 1, Nearest: nearestRoot(text)}
	}
	q, at, meant := readSign(rest)
	if q != nil {
		return Chord{Root: root, Quality: q}, nil
	}
	// The last slash may be a bass (C/E) or part of the sign (C6/9, Cm/maj7).
	sign := rest
	if slash := strings.LastIndex(rest, "/"); slash >= 0 {
		bass, err := pitch.ParseNote(rest[slash+1:])
		over, atBefore, _ := readSign(rest[:slash])
		if err == nil && over != nil {
			return Chord{Root: root, Quality: over, Bass: &bass}, nil
		}
		if err == nil {
			sign, at = rest[:slash], atBefore
		} else if lower, ok := polychord(rest[slash+1:]); ok && over != nil {
			return Chord{}, &SymbolError{Symbol: symbol, At: before + len([]rune(text)) - len([]rune(rest)) + slash + 2, Nearest: []string{root.String() + over.Sign + "/" + lower.Root.String(), root.String() + over.Sign, lower.Symbol()}}
		}
	}
	fault := &SymbolError{
		Symbol:  symbol,
		At:      before + len([]rune(text)) - len([]rune(rest)) + at + 1,
		Nearest: nearest(root.String(), sign),
	}
	if meant != nil {
		fault.Nearest = nil
		for _, one := range meant {
			fault.Nearest = append(fault.Nearest, root.String()+one)
		}
	}
	return Chord{}, fault
}

// inBrackets is a symbol without blanks and brackets around the whole of it, and how many characters
// were before it.
func inBrackets(symbol string) (text string, before int) {
	text = strings.TrimSpace(symbol)
	if inner, ok := strings.CutPrefix(text, "("); ok {
		if inner, ok = strings.CutSuffix(inner, ")"); ok {
			return strings.TrimSpace(inner), 1
		}
	}
	return text, 0
}

// polychord is the lower chord of one that is written above another, as in C/D7: two chords at once, which
// no chord here is.
func polychord(below string) (Chord, bool) {
	root, rest, err := pitch.ReadNote(below)
	if err != nil || rest == "" {
		return Chord{}, false
	}
	q, _, _ := readSign(rest)
	return Chord{Root: root, Quality: q}, q != nil
}

// longestRead is how many characters of what is no sign are held against those there
// are; the longest of them, aliases included, is shorter.
const longestRead = 24

func begun(sign string) string {
	runes := []rune(sign)
	return string(runes[:min(len(runes), longestRead)])
}

// nearestRoot offers what a text without a root may have meant: the same with
// its letter as a capital, or with B for the H that some countries call it, where that can be read, else
// common chords.
func nearestRoot(text string) []string {
	if text != "" && (text[0] == 'H' || text[0] == 'h') {
		if c, err := ParseChord("B" + text[1:]); err == nil {
			return []string{c.Symbol()}
		}
	}
	if text != "" && text[0] >= 'a' && text[0] <= 'g' {
		if c, err := ParseChord(strings.ToUpper(text[:1]) + text[1:]); err == nil {
			return []string{c.Symbol()}
		}
	}
	return []string{"C7", "F7", "G7"}
}

// nearest lists up to three symbols on root, a note or a numeral, whose sign, or whose alias, takes
// the fewest typed changes to reach from sign.
func nearest(root, sign string) []string {
	type candidate struct {
		symbol   string
		distance int
	}
	sign = begun(sign)
	candidates := make([]candidate, len(qualities))
	for i, q := range qualities {
		candidates[i] = candidate{root + q.Sign, typedChanges(plainSign(sign), plainSign(q.Sign))}
		for _, alias := range q.aliases {
			candidates[i].distance = min(candidates[i].distance, typedChanges(plainSign(sign), plainSign(alias)))
		}
	}
	sort.SliceStable(candidates, func(a, b int) bool { return candidates[a].distance < candidates[b].distance })
	symbols := []string{}
	for _, c := range candidates[:3] {
		symbols = append(symbols, c.symbol)
	}
	return symbols
}

// typedChanges is the Levenshtein distance between two short texts.
func typedChanges(a, b string) int {
	from, to := []rune(a), []rune(b)
	row := make([]int, len(to)+1)
	for j := range row {
		row[j] = j
	}
	for i, x := range from {
		diagonal := row[0]
		row[0] = i + 1
		for j, y := range to {
			cost := diagonal
			if x != y {
				cost++
			}
			diagonal = row[j+1]
			row[j+1] = min(cost, row[j]+1, row[j+1]+1)
		}
	}
	return row[len(to)]
}
