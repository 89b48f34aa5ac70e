package change

import (
	"fmt"
	"math"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// PathRequest asks for a landing at every change of a chorus.
type PathRequest struct {
	Strategy   TargetStrategy
	Instrument neck.Instrument
	// Hand is where the hand stands, the first at tick 0 (see HandPlaces).
	Hand  []HandPlace
	Swaps []neck.Swap
	// Changes are the changes in order; of a tune that stays on one chord, the
	// downbeats that may be aimed at.
	Changes []chart.Change
	// Pins hold a landing to a place, by the index of its change.
	Pins map[int]neck.Place
	// OnlyDegree is the number of the degree that every change lands on, where the arriving chord
	// has it: 1, 3 (or what stands for it), 5, 7 (or 6); 0 for the strategy's choice.
	OnlyDegree int
	// Variation makes the path vary by a seed; nil is the best path.
	Variation *Variation
}

// PathTarget is one landing of a path.
type PathTarget struct {
	Change chart.Change
	neck.Placed
	// Score is that of the best move into it, 0 where none is within four
	// semitones; Move is that move.
	Score float64
	Move  *Move
	// Frets and Strings are how far the hand goes from the landing before.
	Frets, Strings int
	Pinned         bool
}

// Path is a landing at every change, the best of all together.
type Path struct {
	Targets []PathTarget
	// Frets and Strings are the whole travel of the hand.
	Frets, Strings int
	// Cost is what the path was chosen by, in thousandths.
	Cost int
}

// The cost of a path, in thousandths (ours): a landing costs what its score
// lacks to one; the hand's travel is small beside it, so that it decides between
// landings of like worth and keeps the line from leaping.
const (
	costOfTarget = 1000
	costOfFret   = 25
	costOfString = 60
)

// PinError says which pinned landing is not a tone that is placed there.
type PinError struct {
	// Index is that of the change.
	Index   int
	Detail  string
	Nearest []neck.Placed
}

func (e *PinError) Error() string { return e.Detail }

// pathOption is a tone that may be landed on at one change.
type pathOption struct {
	tone neck.Placed
	move *Move
	cost int
}

// Find finds the path: an exact shortest path over all tones of all changes, by the costs
// as they are or as a Variation changes them.
// Equal paths go to the lower tone of the first landing in which they differ. Its
// error is a *PinError.
func (o PathRequest) Find() (Path, error) {
	layers := make([][]pathOption, len(o.Changes))
	known := map[string][]pathOption{}
	type placedChord struct {
		symbol string
		window neck.Window
	}
	shapes := map[placedChord]neck.Shape{}
	shape := func(span chart.ChordSpan) neck.Shape {
		at := placedChord{span.Chord.Symbol(), o.windowAt(span.Tick)}
		laid, ok := shapes[at]
		if !ok {
			laid = neck.PlaceChord(o.Instrument, at.window, span.Chord, o.Swaps)
			shapes[at] = laid
		}
		return laid
	}
	for n, ch := range o.Changes {
		name := fmt.Sprint(ch.Leaving.Chord.Symbol(), o.windowAt(ch.Leaving.Tick), ch.Arriving.Chord.Symbol(), o.windowAt(ch.Arriving.Tick))
		if _, ok := known[name]; !ok {
			known[name] = o.options(ch, shape(ch.Leaving), shape(ch.Arriving))
		}
		layers[n] = o.onlyDegree(known[name])
		if at, pinned := o.Pins[n]; pinned {
			only, err := o.pinned(n, at, layers[n])
			if err != nil {
				return Path{}, err
			}
			layers[n] = only
		}
	}
	path := Path{}
	chosenOptions := cheapestPath(layers, o.travel)
	if o.Variation != nil {
		chosenOptions = o.varied(layers)
	}
	for n, at := range chosenOptions {
		chosen := layers[n][at]
		_, pinned := o.Pins[n]
		l := PathTarget{Change: o.Changes[n], Placed: chosen.tone, Pinned: pinned}
		if chosen.move != nil {
			move := *chosen.move
			move.Text = moveText(l.Change.Leaving.Chord, l.Change.Arriving.Chord, move.From, move.To)
			l.Move, l.Score = &move, move.Score
		}
		path.Cost += chosen.cost
		if n > 0 {
			before := path.Targets[n-1].Place
			l.Frets, l.Strings = abs(l.Fret-before.Fret), abs(l.String-before.String)
			path.Cost += o.travel(before, l.Place)
			path.Frets += l.Frets
			path.Strings += l.Strings
		}
		path.Targets = append(path.Targets, l)
	}
	return path, nil
}

// windowAt is the window of the hand at a tick of the chorus.
func (o PathRequest) windowAt(tick int) neck.Window { return PositionAt(o.Hand, tick).Window }

// IndexAt is the index of the change at a tick.
func (o PathRequest) IndexAt(tick int) (int, error) {
	allowed := make([]string, len(o.Changes))
	for n, ch := range o.Changes {
		if ch.Tick == tick {
			return n, nil
		}
		allowed[n] = fmt.Sprint(ch.Tick)
	}
	return 0, fmt.Errorf("no landing is planned at tick %d; they are at %s", tick, strings.Join(allowed, ", "))
}

// options are the tones of the arriving chord, each with the best move into it.
func (o PathRequest) options(ch chart.Change, from, to neck.Shape) []pathOption {
	all := make([]pathOption, len(to.Tones))
	for n, tone := range to.Tones {
		all[n] = pathOption{tone: tone, cost: costOfTarget}
		for _, m := range movesInto(o.Strategy, ch.Leaving.Chord, ch.Arriving.Chord, from, tone) {
			if all[n].move == nil || m.better(*all[n].move) {
				all[n].move = &m
			}
		}
		if best := all[n].move; best != nil {
			all[n].cost = int(math.Round(costOfTarget * (1 - best.Score)))
		}
	}
	return all
}

// onlyDegree leaves the tones that are asked for, or all where the chord has none of them.
func (o PathRequest) onlyDegree(all []pathOption) []pathOption {
	wanted, ok := map[int]harmony.ChordPart{1: harmony.RootPart, 3: harmony.ThirdPart, 5: harmony.FifthPart, 7: harmony.SeventhPart}[o.OnlyDegree]
	if !ok {
		return all
	}
	left := []pathOption{}
	for _, one := range all {
		if harmony.PartOf(one.tone.Degree) == wanted {
			left = append(left, one)
		}
	}
	if len(left) == 0 {
		return all
	}
	return left
}

func (o PathRequest) pinned(n int, at neck.Place, all []pathOption) ([]pathOption, error) {
	for _, one := range all {
		if one.tone.Place == at {
			return []pathOption{one}, nil
		}
	}
	arriving := o.Changes[n].Arriving
	window := o.windowAt(arriving.Tick)
	fault := &PinError{Index: n}
	if !o.Instrument.Has(at) {
		fault.Detail = fmt.Sprintf("bar %d: string %d fret %d is not on the neck", arriving.Bar+1, at.String, at.Fret)
		return nil, fault
	}
	names := []string{}
	for _, l := range NearbyTargets(o.Strategy, o.Instrument, at, arriving.Chord, neck.PlaceChord(o.Instrument, window, arriving.Chord, o.Swaps)) {
		fault.Nearest = append(fault.Nearest, l.Placed)
		names = append(names, fmt.Sprintf("string %d fret %d", l.String, l.Fret))
	}
	fault.Detail = fmt.Sprintf("bar %d: string %d fret %d is not a placed tone of %s on frets %d to %d; the nearest are %s",
		arriving.Bar+1, at.String, at.Fret, arriving.Chord.Symbol(), window.Low, window.High, strings.Join(names, ", "))
	return nil, fault
}

func (o PathRequest) travel(a, b neck.Place) int {
	return costOfFret*abs(b.Fret-a.Fret) + costOfString*abs(b.String-a.String)
}

// cheapestPath is the choice of one option a layer at the least sum of their costs
// and of the travel between neighbours, exactly; the lower index where equal,
// from the first layer on.
func cheapestPath(layers [][]pathOption, travel func(a, b neck.Place) int) []int {
	if len(layers) == 0 {
		return nil
	}
	last := len(layers) - 1
	// onwards[n][a] is the cost from option a of layer n to the end, next its way.
	onwards, next := make([][]int, len(layers)), make([][]int, len(layers))
	for n := last; n >= 0; n-- {
		onwards[n], next[n] = make([]int, len(layers[n])), make([]int, len(layers[n]))
		for a, from := range layers[n] {
			onwards[n][a] = from.cost
			if n == last {
				continue
			}
			best := -1
			for b, to := range layers[n+1] {
				if cost := travel(from.tone.Place, to.tone.Place) + onwards[n+1][b]; best < 0 || cost < best {
					best, next[n][a] = cost, b
				}
			}
			onwards[n][a] += best
		}
	}
	path := make([]int, len(layers))
	for a := range layers[0] {
		if onwards[0][a] < onwards[0][path[0]] {
			path[0] = a
		}
	}
	for n := range last {
		path[n+1] = next[n][path[n]]
	}
	return path
}
