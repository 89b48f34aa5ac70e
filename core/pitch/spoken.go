package pitch

import "strings"

// Spoken writes a note or degree the way it is said aloud: "B flat", "flat 7",
// "root". Screen readers stumble over b and #.
func Spoken(text string) string {
	if text == "R" {
		return "root"
	}
	body := strings.TrimLeft(text, "b#")
	before := text[:len(text)-len(body)]
	letter := strings.TrimRight(body, "b#")
	words := []string{}
	for _, sign := range before {
		words = append(words, signWords[sign])
	}
	words = append(words, letter)
	for _, sign := range body[len(letter):] {
		words = append(words, signWords[sign])
	}
	return strings.Join(words, " ")
}

var signWords = map[rune]string{'b': "flat", '#': "sharp"}
