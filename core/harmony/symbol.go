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
	message := fmt.Sprintf("%q is not a chord Undaris can read (stopped at character %d)", e.Symbol, e.At)
	if len(e.Nearest) > 0 {
		message += "; nearest: " + strings.Join(e.Nearest, ", ")
	}
	return message
}

// ParseChord reads a chord symbol: root, quality by its canonical sign or a
// common alias, and an optional slash bass. An unknown symbol is a
// *SymbolError; it never becomes another chord.
func ParseChord(symbol string) (Chord, error) {
	text := strings.TrimSpace(symbol)
	root, rest, err := pitch.ReadNote(text)
	if err != nil {
		return Chord{}, &SymbolError{Symbol: symbol, At: 1, Nearest: nearestRoot(text)}
	}
	if q, ok := bySign[plainSign(rest)]; ok {
		return Chord{Root: root, Quality: q}, nil
	}
	// The last slash may be a bass (C/E) or part of the sign (C6/9, Cm/maj7).
	sign := rest
	if slash := strings.LastIndex(rest, "/"); slash >= 0 {
		bass, err := pitch.ParseNote(rest[slash+1:])
		q, ok := bySign[plainSign(rest[:slash])]
		if err == nil && ok {
			return Chord{Root: root, Quality: q, Bass: &bass}, nil
		}
		if err == nil {
			sign = rest[:slash]
		}
	}
	return Chord{}, &SymbolError{
		Symbol:  symbol,
		At:      len([]rune(text)) - len([]rune(rest)) + readableLength(sign) + 1,
		Nearest: nearest(root.String(), sign),
	}
}

// longestRead is how many characters of what is no sign are held against those there
// are; the longest of them, aliases included, is shorter.
const longestRead = 24

func begun(sign string) string {
	runes := []rune(sign)
	return string(runes[:min(len(runes), longestRead)])
}

// readableLength is how many characters of sign still begin some known sign.
func readableLength(sign string) int {
	runes := []rune(begun(sign))
	for n := len(runes); n > 0; n-- {
		for known := range bySign {
			if strings.HasPrefix(known, plainSign(string(runes[:n]))) {
				return n
			}
		}
	}
	return 0
}

// nearestRoot offers what a text without a root may have meant: the same with
// its letter as a capital where that can be read, else common chords.
func nearestRoot(text string) []string {
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
