package change

import (
	"fmt"
	"sort"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// NearbyTarget is a tone of the arriving chord as it lies from where the hand is.
type NearbyTarget struct {
	neck.Placed
	// Semitones is how far its pitch lies above (or, negative, below) the place,
	// Strings how many strings over: positive towards the higher sounding.
	Semitones, Strings int
	Text               string
}

// How far a landing may lie, in semitones, and how many are listed at least.
const (
	farTarget    = 7
	leastTargets = 3
)

// NearbyTargets lists the tones of the arriving chord nearest to a place of the neck:
// by distance in pitch, then fewest strings over, then what the strategy values
// more, then the lower (ours). Those within a fifth are listed, and never fewer
// than three where there are as many.
func NearbyTargets(strategy TargetStrategy, i neck.Instrument, here neck.Place, arriving harmony.Chord, to neck.Shape) []NearbyTarget {
	all := make([]NearbyTarget, 0, len(to.Tones))
	for _, tone := range to.Tones {
		l := NearbyTarget{Placed: tone, Semitones: int(tone.Pitch - i.Pitch(here)), Strings: here.String - tone.String}
		l.Text = l.text(here, arriving)
		all = append(all, l)
	}
	sort.SliceStable(all, func(x, y int) bool {
		a, b := all[x], all[y]
		switch {
		case abs(a.Semitones) != abs(b.Semitones):
			return abs(a.Semitones) < abs(b.Semitones)
		case abs(a.Strings) != abs(b.Strings):
			return abs(a.Strings) < abs(b.Strings)
		}
		return strategy.Weight(a.Degree) > strategy.Weight(b.Degree)
	})
	near := 0
	for near < len(all) && (near < leastTargets || abs(all[near].Semitones) <= farTarget) {
		near++
	}
	return all[:near]
}

// abs is how far a signed distance is, either way.
func abs(distance int) int { return max(distance, -distance) }

func (l NearbyTarget) text(here neck.Place, arriving harmony.Chord) string {
	name := toneOfChord(l.Tone, arriving)
	if l.Semitones == 0 {
		if l.Place == here {
			return "you are on it: " + name
		}
		return fmt.Sprintf("the same pitch on string %d: %s", l.String, name)
	}
	return fmt.Sprintf("%s: %s", l.directions(), name)
}

// directions says how to get there: in frets along the string, in steps over to another.
func (l NearbyTarget) directions() string {
	up := "up"
	if l.Semitones < 0 {
		up = "down"
	}
	steps := abs(l.Semitones)
	if l.Strings == 0 {
		return fmt.Sprintf("%s %s", up, anyFrets(steps))
	}
	return fmt.Sprintf("%s %s, over to string %d", up, interval(steps), l.String)
}

// intervals are the names of distances in semitones (common).
var intervals = [...]string{"", "a half step", "a whole step", "a minor third", "a major third", "a fourth", "a tritone", "a fifth"}

func interval(semitones int) string {
	if semitones < len(intervals) {
		return intervals[semitones]
	}
	return fmt.Sprintf("%d half steps", semitones)
}

func anyFrets(n int) string {
	if n <= widestMove {
		return frets(n)
	}
	return fmt.Sprintf("%d frets", n)
}

// Source is a note that a target can be come from: a tone of the leaving chord or
// of the box.
type Source struct {
	neck.Placed
	// OfChord says that it is a tone of the leaving chord; else it is the box's.
	OfChord bool
	// Semitones is how far the target lies above (or below) it, Strings how many
	// strings over.
	Semitones, Strings int
	Kind               MoveKind
	Text               string
}

// Sources lists where a target can be come from: tones of the leaving chord and
// of the box at most four semitones away, the strongest step first as in Moves,
// tones of the chord before those of the box, then the fewest strings over, then
// the lower. Each is named as what it is over the leaving chord.
func Sources(k harmony.Key, leaving, arriving harmony.Chord, target neck.Placed, from, box neck.Shape) []Source {
	found := []Source{}
	seen := map[neck.Place]bool{}
	add := func(tones []neck.Placed, ofChord bool) {
		for _, tone := range tones {
			steps := int(target.Pitch - tone.Pitch)
			if abs(steps) > widestMove || seen[tone.Place] {
				continue
			}
			seen[tone.Place] = true
			tone.Tone = k.ToneOver(leaving, tone.Pitch.Class())
			s := Source{Placed: tone, OfChord: ofChord, Semitones: steps, Strings: tone.String - target.String, Kind: byDistance[abs(steps)].kind}
			s.Text = s.text(leaving, arriving, target)
			found = append(found, s)
		}
	}
	add(from.Tones, true)
	add(box.Tones, false)
	sort.SliceStable(found, func(x, y int) bool {
		a, b := found[x], found[y]
		switch wa, wb := byDistance[abs(a.Semitones)].weight, byDistance[abs(b.Semitones)].weight; {
		case wa != wb:
			return wa > wb
		case a.OfChord != b.OfChord:
			return a.OfChord
		case abs(a.Strings) != abs(b.Strings):
			return abs(a.Strings) < abs(b.Strings)
		}
		return a.Pitch < b.Pitch
	})
	return found
}

func (s Source) text(leaving, arriving harmony.Chord, target neck.Placed) string {
	name := fmt.Sprintf("%s, the %s over %s", s.Note, s.Degree, leaving.Symbol())
	goal := toneOfChord(target.Tone, arriving)
	if s.OfChord {
		name = toneOfChord(s.Tone, leaving)
	}
	if s.Semitones == 0 {
		if s.Place == target.Place {
			return fmt.Sprintf("%s: stay, and it becomes %s", name, goal)
		}
		return fmt.Sprintf("%s, the same pitch on string %d: %s", name, s.String, goal)
	}
	l := NearbyTarget{Placed: target, Semitones: s.Semitones, Strings: s.Strings}
	return fmt.Sprintf("%s, %s: %s", name, l.directions(), goal)
}
