package band

import (
	"fmt"
	"strings"
)

// twelfths is what a beat is divided into: eighths, triplets and sixteenths all fall on a
// twelfth of it.
const twelfths = 12

// stroke is one thing to be played in a bar.
type stroke struct {
	// at and long are in twelfths of a beat from the start of the bar.
	at, long int
	// text is what the grid has there.
	text string
}

// readGrid reads a bar of strokes. Beats are set apart by spaces; the slots of a beat
// divide it evenly: they are its letters, or with a separator what it stands between. A
// dot is a rest, a dash holds what was struck before:
//
//	"x. .x X- .."   four beats of two slots
//	"R ^5,L 8 -"    separated by commas: beats of one, two, one and one slot
func readGrid(text, separator string) []stroke {
	strokes := []stroke{}
	holding := false
	for beat, slots := range strings.Fields(text) {
		all := strings.Split(slots, separator)
		if twelfths%len(all) != 0 {
			panic(fmt.Sprintf("beat %d of %q has %d slots, which do not divide it", beat+1, text, len(all)))
		}
		long := twelfths / len(all)
		for n, slot := range all {
			switch slot {
			case ".":
				holding = false
			case "-":
				if holding {
					strokes[len(strokes)-1].long += long
				}
			default:
				strokes = append(strokes, stroke{at: beat*twelfths + n*long, long: long, text: slot})
				holding = true
			}
		}
	}
	return strokes
}

// cut is the strokes of a stretch of beats, counted from its start; what rings past its
// end ends there.
func cut(strokes []stroke, beat, beats int) []stroke {
	kept := []stroke{}
	for _, st := range strokes {
		st.at -= beat * twelfths
		if st.at < 0 || st.at >= beats*twelfths {
			continue
		}
		st.long = min(st.long, beats*twelfths-st.at)
		kept = append(kept, st)
	}
	return kept
}

// over lays a grid over a bar of so many beats: cut where it is longer, begun again where
// it is shorter.
func over(strokes []stroke, gridBeats, beats int) []stroke {
	laid := []stroke{}
	for from := 0; from < beats; from += gridBeats {
		for _, st := range cut(strokes, 0, min(gridBeats, beats-from)) {
			st.at += from * twelfths
			laid = append(laid, st)
		}
	}
	return laid
}

func gridBeats(text string) int { return len(strings.Fields(text)) }
