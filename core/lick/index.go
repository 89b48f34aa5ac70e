package lick

import (
	"fmt"
	"slices"
	"sort"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Query is what is asked of a lick; what is left empty is not asked.
type Query struct {
	// Text is looked for in name, line and tags, whatever its case; moves that it describes, as in
	// "slide from b7 to R", among those of the notes (see ReadMoves).
	Text, Tag, Technique, Scale string
	// FitsChord is a chord it may be played over as it sounds.
	FitsChord *harmony.Chord
	// Starts, Ends, Lands and Leans are degrees as they are written: "b7".
	Starts, Ends, Lands, Leans string
	// MostBars and MostPerSecond are how long and how fast it may be; 0 for any.
	MostBars      int
	MostPerSecond float64
	// In is where every fretted note must lie; nil for anywhere.
	In *neck.Window
	// Near is a place that it must end near: at most four half steps away.
	Near *neck.Place
}

// nearEnough is how many half steps from a landing a lick may end: what can be moved
// on from in one move of section "A change" of the rules.
const nearEnough = 4

// Match is a lick that is as wanted.
type Match struct {
	// Index is its place in the list that was searched.
	Index int
	Lick  Lick
	Facts Facts
	// Away is how far its last note is from Near, in half steps upwards.
	Away int
	// Text is why it was found where a landing was asked for.
	Text string
}

// Index are licks that lie in a key on an instrument, with what is computed of each.
type Index struct {
	instrument neck.Instrument
	key        harmony.Key
	Licks      []Lick
	Facts      []Facts
}

// NewIndex computes the facts of licks at a tempo, once for everything that is asked of them.
func NewIndex(i neck.Instrument, k harmony.Key, tempo int, licks []Lick) Index {
	known := Index{instrument: i, key: k, Licks: licks, Facts: make([]Facts, len(licks))}
	for n, l := range licks {
		known.Facts[n] = l.Facts(i, tempo)
	}
	return known
}

// Find lists those that are as wanted, in their order; where a landing is asked for, those
// that end nearest to it first.
func (known Index) Find(w Query) []Match {
	i, k := known.instrument, known.key
	found := []Match{}
	for n, l := range known.Licks {
		f := Match{Index: n, Lick: l, Facts: known.Facts[n]}
		if !w.matches(l, f.Facts) || w.FitsChord != nil && !l.Fits(i, k, *w.FitsChord) {
			continue
		}
		if w.Near != nil {
			last := l.Phrase.Events[len(l.Phrase.Events)-1]
			f.Away = int(i.Pitch(*w.Near) - last.Sounding(i))
			if max(f.Away, -f.Away) > nearEnough {
				continue
			}
			f.Text = fmt.Sprintf("ends %s, string %d fret %d", distanceText(f.Away), last.String, last.Fret)
		}
		found = append(found, f)
	}
	if w.Near != nil {
		distance := func(f Match) int {
			return 10*max(f.Away, -f.Away) + max(f.Facts.Last.String-w.Near.String, w.Near.String-f.Facts.Last.String)
		}
		sort.SliceStable(found, func(a, b int) bool { return distance(found[a]) < distance(found[b]) })
	}
	return found
}

// distanceText says how far below or above the landing a lick ends.
func distanceText(away int) string {
	way := "below it"
	if away < 0 {
		way = "above it"
	}
	switch far := max(away, -away); far {
	case 0:
		return "on it"
	case 1:
		return "a half step " + way
	case 2:
		return "a whole step " + way
	default:
		return fmt.Sprintf("%d half steps %s", far, way)
	}
}

// matches holds all but the chord and the landing against a lick.
func (w Query) matches(l Lick, f Facts) bool {
	text := strings.ToLower(strings.Join(append([]string{l.Name, l.About}, l.Tags...), "\n"))
	has := func(all []pitch.Degree, wanted string) bool {
		return wanted == "" || slices.ContainsFunc(all, func(d pitch.Degree) bool { return d.String() == wanted })
	}
	one := func(all []string, wanted string) bool { return wanted == "" || slices.Contains(all, wanted) }
	moves, words := ReadMoves(w.Text)
	for _, move := range moves {
		if !hasMove(f.Moves, move) {
			return false
		}
	}
	for _, word := range strings.Fields(strings.ToLower(words)) {
		if !strings.Contains(text, word) {
			return false
		}
	}
	return one(l.Tags, w.Tag) && one(f.Techniques, w.Technique) && one(f.Scales, w.Scale) &&
		has([]pitch.Degree{f.Starts}, w.Starts) && has([]pitch.Degree{f.Ends}, w.Ends) && has(f.Lands, w.Lands) && has(f.Leans, w.Leans) &&
		(w.MostBars == 0 || f.Bars <= w.MostBars) && (w.MostPerSecond == 0 || f.PerSecond <= w.MostPerSecond) &&
		(w.In == nil || l.liesWithin(*w.In))
}

// liesWithin says whether every fretted note lies within a window.
func (l Lick) liesWithin(w neck.Window) bool {
	low, high := l.Phrase.Frets()
	return high == 0 || low >= w.Low && high <= w.High
}
