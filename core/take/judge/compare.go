package judge

import (
	"math"

	"undaris/core/harmony"
	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
	"undaris/core/take/transcribe"
)

// Kind says how a note of a plan and one that was heard belong together.
type Kind string

// The kinds: as it was meant, another pitch, left out, and one that was not in the plan.
const (
	AsMeant Kind = "as meant"
	Changed Kind = "changed"
	LeftOut Kind = "left out"
	Added   Kind = "added"
)

// Kinds lists them.
var Kinds = []Kind{AsMeant, Changed, LeftOut, Added}

// Pair is a note of the plan, one that was heard, or both.
type Pair struct {
	Kind Kind
	// Planned is the index of the event of the plan, Heard that of the note that was heard; -1 for none.
	Planned, Heard int
	// Fits says of a note that is not in the plan that it belongs over its chord all the same: what is musical
	// and different is not wrong.
	Fits bool
}

// What it costs to set a note of the plan beside one that was heard (our choice): a time that differs by a beat as much as a
// wrong pitch, a note left out or added a little more than half of each.
const (
	pitchCost = 1.0
	beatCost  = 1.0
	aloneCost = 0.85
	// furthest is how many beats apart two notes are the same at most.
	furthest = 1.0
)

// Align sets a plan beside what was heard, at the least cost, in order (the alignment of Needleman and Wunsch,
// Journal of Molecular Biology 48, 1970). The plan's ticks are those of the chart.
func Align(plan phrase.Phrase, i neck.Instrument, notes []listen.Note, clock transcribe.Clock, sounds func(tick int) int, beat int) []Pair {
	events := []int{}
	for n, e := range plan.Events {
		if !e.Tied && !e.Grace && !e.Mute {
			events = append(events, n)
		}
	}
	rows, columns := len(events)+1, len(notes)+1
	costs := make([][]float64, rows)
	for r := range costs {
		costs[r] = make([]float64, columns)
	}
	apart := func(r, c int) float64 {
		e := plan.Events[events[r]]
		off := math.Abs(clock.At(notes[c].Onset)-float64(sounds(e.Tick))) / float64(beat)
		if off > furthest {
			return math.Inf(1)
		}
		cost := beatCost * off
		if !samePitch(e, i, notes[c]) {
			cost += pitchCost
		}
		return cost
	}
	for r := 0; r < rows; r++ {
		for c := 0; c < columns; c++ {
			switch {
			case r == 0:
				costs[r][c] = float64(c) * aloneCost
			case c == 0:
				costs[r][c] = float64(r) * aloneCost
			default:
				costs[r][c] = min(costs[r-1][c-1]+apart(r-1, c-1), costs[r-1][c]+aloneCost, costs[r][c-1]+aloneCost)
			}
		}
	}
	pairs := []Pair{}
	for r, c := rows-1, columns-1; r > 0 || c > 0; {
		switch {
		case r > 0 && c > 0 && costs[r][c] == costs[r-1][c-1]+apart(r-1, c-1):
			r, c = r-1, c-1
			kind := Changed
			if samePitch(plan.Events[events[r]], i, notes[c]) {
				kind = AsMeant
			}
			pairs = append(pairs, Pair{Kind: kind, Planned: events[r], Heard: c})
		case r > 0 && (c == 0 || costs[r][c] == costs[r-1][c]+aloneCost):
			r--
			pairs = append(pairs, Pair{Kind: LeftOut, Planned: events[r], Heard: -1})
		default:
			c--
			pairs = append(pairs, Pair{Kind: Added, Planned: -1, Heard: c})
		}
	}
	for a, b := 0, len(pairs)-1; a < b; a, b = a+1, b-1 {
		pairs[a], pairs[b] = pairs[b], pairs[a]
	}
	return pairs
}

// samePitch says whether a note that was heard is that of an event: what its bend reaches counts, and the
// octave does not.
func samePitch(e phrase.Event, i neck.Instrument, n listen.Note) bool {
	wanted := i.Pitch(e.Place)
	heard := pitch.MIDI(n.MIDI())
	if e.Bend > 0 {
		reached := n.Pitch
		if n.Bend != nil {
			reached += n.Bend.Cents / 100
		}
		return math.Abs(reached-float64(wanted)-float64(e.Bend)/2) < 0.7 || heard == wanted && n.Bend != nil
	}
	return heard == wanted
}

// meant are the ticks of the plan that notes stand for.
func meant(pairs []Pair, plan phrase.Phrase) map[int]int {
	ticks := map[int]int{}
	for _, p := range pairs {
		if p.Kind == AsMeant || p.Kind == Changed {
			ticks[p.Heard] = plan.Events[p.Planned].Tick
		}
	}
	return ticks
}

// judgeFits says of notes that are not in the plan whether they belong over their chords.
func judgeFits(pairs []Pair, written transcribe.Written, i neck.Instrument, k harmony.Key) {
	labels := written.Phrase.Labels(i, k)
	eventOf := map[int]int{}
	for _, p := range written.Places {
		eventOf[p.Note] = p.Event
	}
	for n := range pairs {
		if event, ok := eventOf[pairs[n].Heard]; ok && event >= 0 && event < len(labels) && pairs[n].Kind != AsMeant {
			pairs[n].Fits = labels[event].Class == harmony.ChordTone || labels[event].Class == harmony.Colour
		}
	}
}
