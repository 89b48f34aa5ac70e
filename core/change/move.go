package change

import (
	"fmt"
	"math"
	"sort"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// MoveKind is how far a move goes.
type MoveKind string

// The kinds of move, by semitones: none, one, two, three or four.
const (
	Held      MoveKind = "held"
	HalfStep  MoveKind = "half step"
	WholeStep MoveKind = "whole step"
	Leap      MoveKind = "leap of a third"
)

// Move is a way from a placed tone of the leaving chord to a placed tone of the
// arriving one.
type Move struct {
	From, To neck.Placed
	// Semitones is how far the pitch moves, -4 to 4.
	Semitones int
	Kind      MoveKind
	// Score is 0 to 1, higher better.
	Score float64
	// Text says the move in words.
	Text string
}

// widestMove is the largest move in semitones.
const widestMove = 4

// byDistance gives each number of semitones its kind and weight: a half step
// says the change best, a held tone least but for a leap (common practice; the
// figures are our choice).
var byDistance = [widestMove + 1]struct {
	kind   MoveKind
	weight float64
}{{Held, 0.5}, {HalfStep, 1.0}, {WholeStep, 0.7}, {Leap, 0.35}, {Leap, 0.35}}

// reachWeight is what each string beyond the adjacent one costs.
const reachWeight = 0.8

// Moves lists every move from the tones of one shape to those of the next in
// the same window, best first: by score, then the shorter way, then along one
// string before over to the next, then from the lowest pitch. The order is the
// same every time.
func Moves(strategy TargetStrategy, leaving, arriving harmony.Chord, from, to neck.Shape) []Move {
	moves := []Move{}
	for _, b := range to.Tones {
		moves = append(moves, movesInto(strategy, leaving, arriving, from, b)...)
	}
	sort.SliceStable(moves, func(x, y int) bool { return moves[x].better(moves[y]) })
	for n := range moves {
		moves[n].Text = moveText(leaving, arriving, moves[n].From, moves[n].To)
	}
	return moves
}

// movesInto lists the moves into one tone, not yet in words.
func movesInto(strategy TargetStrategy, leaving, arriving harmony.Chord, from neck.Shape, b neck.Placed) []Move {
	moves := []Move{}
	for _, a := range from.Tones {
		semitones := int(b.Pitch - a.Pitch)
		distance := max(semitones, -semitones)
		if distance > widestMove || distance == 0 && leaving.Same(arriving) {
			continue // too far; or nothing moves, where the chord stays
		}
		step := byDistance[distance]
		move := Move{From: a, To: b, Semitones: semitones, Kind: step.kind}
		move.Score = strategy.Weight(b.Degree) * step.weight * math.Pow(reachWeight, float64(max(move.crosses()-1, 0)))
		moves = append(moves, move)
	}
	return moves
}

// better says whether a move comes before another: by score, then the shorter way,
// then along one string before over to the next, then from the lower pitch, and
// then to the lower.
func (m Move) better(other Move) bool {
	if math.Abs(m.Score-other.Score) > 1e-9 {
		return m.Score > other.Score
	}
	if near, far := max(m.Semitones, -m.Semitones), max(other.Semitones, -other.Semitones); near != far {
		return near < far
	}
	if m.crosses() != other.crosses() {
		return m.crosses() < other.crosses()
	}
	if m.From.Pitch != other.From.Pitch {
		return m.From.Pitch < other.From.Pitch
	}
	return m.To.Pitch < other.To.Pitch
}

// crosses is how many strings the move goes over.
func (m Move) crosses() int { return max(m.From.String-m.To.String, m.To.String-m.From.String) }

// moveText says a move as a player would: along one string in frets, across
// strings in steps.
func moveText(leaving, arriving harmony.Chord, a, b neck.Placed) string {
	if a.Pitch == b.Pitch {
		return fmt.Sprintf("%s, stays and becomes the %s of %s", toneOfChord(a.Tone, leaving), b.Degree, arriving.Symbol())
	}
	way := "up"
	if b.Pitch < a.Pitch {
		way = "down"
	}
	distance := int(max(a.Pitch-b.Pitch, b.Pitch-a.Pitch))
	if a.String == b.String {
		return fmt.Sprintf("%s, %s %s to %s", toneOfChord(a.Tone, leaving), way, frets(distance), toneOfChord(b.Tone, arriving))
	}
	steps := [...]string{"", "a half step", "a whole step", "a minor third", "a major third"}[distance]
	return fmt.Sprintf("%s, %s %s over to string %d: %s", toneOfChord(a.Tone, leaving), way, steps, b.String, toneOfChord(b.Tone, arriving))
}

func frets(n int) string {
	if n == 1 {
		return "a fret"
	}
	return [...]string{"", "", "two", "three", "four"}[n] + " frets"
}
