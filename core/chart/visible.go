package chart

import (
	"fmt"
	"strings"
	"unicode"
)

// Visible is the text without characters that nobody sees: controls (C0 and C1), marks that turn the direction
// of writing, blanks without width, fillers, and what no font may draw. The joiners that some scripts and
// pictures need stay, unless nothing else is there. Titles with such characters look alike and are not, or
// overwrite what stands beside them (Unicode Technical Report 36).
func Visible(text string) string {
	seen := strings.Map(func(r rune) rune {
		if isUnseen(r) {
			return -1
		}
		return r
	}, text)
	if !strings.ContainsFunc(seen, func(r rune) bool { return unicode.IsGraphic(r) && !unicode.IsSpace(r) && !unicode.IsMark(r) }) {
		return ""
	}
	return seen
}

func isUnseen(r rune) bool {
	switch r {
	case '\u200c', '\u200d': // the joiners
		return false
	case '\u2800', '\u3164', '\u115f', '\u1160', '\uffa0', '\ufffd', '\u2028', '\u2029':
		return true
	}
	return unicode.Is(unicode.C, r)
}

// CheckVisible returns an error that names the first character of a text that nobody sees.
func CheckVisible(text string) error {
	place := 0
	for _, r := range text {
		place++
		if isUnseen(r) {
			return fmt.Errorf("character %d cannot be seen (U+%04X); take it out", place, r)
		}
	}
	return nil
}
