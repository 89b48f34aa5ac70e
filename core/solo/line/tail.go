package line

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// tail is how much of a lick is kept and what is played after it. Ticks are
// the lick's own.
type tail struct {
	kept int
	// start is the tick of the first note after the kept ones; arrival that of
	// the target.
	start, arrival int
	// pitches are the notes between the kept part and the approach.
	pitches []pitch.MIDI
}

// The weights of a tail, all our choice: keep as much of the lick as can be
// kept, move by steps, and let the notes agree with the leaving chord.
const (
	// At least half of the lick stays, or it is not that lick any more.
	leastKept = 0.5
	// The most notes between the lick and the approach: a bar of sixteenths.
	longestTail = 16
	// The widest interval within the tail and out of the lick, in semitones.
	widestStep   = 5
	costDropped  = 6
	costAdded    = 1
	costFourth   = 3 // an interval of four or five semitones
	costTurnBack = 2 // a b a: a note repeats the one before last
	costGap      = 2 // each beat of silence that opens before the tail
)

// costClass is what a tail note costs by its class over the leaving chord.
var costClass = map[harmony.Class]int{harmony.ChordTone: 0, harmony.Colour: 1, harmony.Blue: 1, harmony.Suspension: 2, harmony.Outside: 6}

// tail chooses how many notes of the lick to keep and which notes lead from
// them to the approach, at the least cost over every cut and every length. The
// error says what stood in the way.
func (o Request) tail(written phrase.Phrase, approach []neck.NoteToPlace) (tail, error) {
	pool, err := o.pool()
	if err != nil {
		return tail{}, err
	}
	meter := o.leaving().Meter
	step := o.Subdivision.Ticks(meter)
	arrival := written.Bars() * written.Meter.BarTicks()
	least := int(float64(len(written.Events))*leastKept + 0.5)
	ways := o.pathsTo(pool, approach[0].Pitch, longestTail)
	best, bestCost := tail{}, -1
	for kept := len(written.Events); kept >= least; kept-- {
		last := written.Events[kept-1]
		for added := 0; added <= longestTail; added++ {
			start := chart.RunStart(arrival, added+len(approach), o.Subdivision, meter)
			if start < last.Tick+min(step, last.Ticks) {
				break // the last kept note would be cut too short
			}
			if kept < len(written.Events) && start > written.Events[kept].Tick {
				continue // a hole where the lick had a note
			}
			pitches, cost, ok := ways.from(last.Sounding(o.Instrument), added)
			if !ok {
				continue
			}
			cost += costDropped*(len(written.Events)-kept) + costAdded*added
			cost += costGap * max(start-last.End(), 0) / written.Meter.BeatTicks()
			if bestCost < 0 || cost < bestCost {
				best, bestCost = tail{kept: kept, start: start, arrival: arrival, pitches: pitches}, cost
			}
		}
	}
	if bestCost < 0 {
		return tail{}, fmt.Errorf("keeping at least %d of the %d notes of the lick leaves no way there in %ss by steps of a fourth or less",
			least, len(written.Events), o.Subdivision)
	}
	return best, nil
}

// tailPaths holds the cheapest ways from any note of a pool to one goal, for every
// number of notes in between.
type tailPaths struct {
	pitches []pitch.MIDI // the pool, and the goal last
	class   []int
	// layers[k] prices tails of k+1 notes by their first and second note: entry
	// first*len(pitches)+second. The second of a tail of one note is the goal.
	layers [][]tailPath
}

type tailPath struct {
	cost  int
	after int // the third note, to follow the way onwards
	ok    bool
}

// pathsTo prices every tail of up to longest notes from the pool to the goal, by
// a shortest path over pairs of neighbours: pairs, so that turning straight
// back to the note before last can be priced.
func (o Request) pathsTo(pool neck.Shape, goal pitch.MIDI, longest int) tailPaths {
	w := tailPaths{}
	for _, tone := range pool.Tones {
		w.pitches = append(w.pitches, tone.Pitch)
		w.class = append(w.class, costClass[o.leaving().Key.Classify(o.Change.Leaving.Chord, tone.Pitch.Class())])
	}
	end := len(w.pitches)
	w.pitches = append(w.pitches, goal)
	for layer := range longest {
		here := make([]tailPath, end*(end+1))
		for first := range end {
			if layer == 0 {
				if step, ok := stepCost(w.pitches[first], goal); ok {
					here[first*(end+1)+end] = tailPath{cost: step + w.class[first], ok: true}
				}
				continue
			}
			for second := range end {
				if step, ok := stepCost(w.pitches[first], w.pitches[second]); ok {
					here[first*(end+1)+second] = w.onwards(layer, first, second, step+w.class[first])
				}
			}
		}
		w.layers = append(w.layers, here)
	}
	return w
}

// onwards is the cheapest way on from two neighbours.
func (w tailPaths) onwards(layer, first, second, cost int) tailPath {
	size := len(w.pitches)
	best := tailPath{}
	for after, next := range w.layers[layer-1][second*size : (second+1)*size] {
		total := cost + next.cost
		if w.pitches[after] == w.pitches[first] {
			total += costTurnBack
		}
		if next.ok && (!best.ok || total < best.cost) {
			best = tailPath{cost: total, after: after, ok: true}
		}
	}
	return best
}

// from is the cheapest tail of count notes that leads from a pitch to the goal.
func (w tailPaths) from(start pitch.MIDI, count int) (pitches []pitch.MIDI, cost int, ok bool) {
	goal := len(w.pitches) - 1
	if count == 0 {
		cost, ok = stepCost(start, w.pitches[goal])
		return nil, cost, ok
	}
	size := len(w.pitches)
	bestFirst, bestSecond := 0, 0
	for first := range goal {
		step, near := stepCost(start, w.pitches[first])
		if !near {
			continue
		}
		for second := range size {
			on := w.layers[count-1][first*size+second]
			total := step + on.cost
			if w.pitches[second] == start {
				total += costTurnBack
			}
			if on.ok && (!ok || total < cost) {
				bestFirst, bestSecond, cost, ok = first, second, total, true
			}
		}
	}
	for layer := count - 1; ok && layer >= 0; layer-- {
		pitches = append(pitches, w.pitches[bestFirst])
		bestFirst, bestSecond = bestSecond, w.layers[layer][bestFirst*size+bestSecond].after
	}
	return pitches, cost, ok
}

// stepCost prices an interval between neighbours of a tail, and says whether it
// is narrow enough to be one.
func stepCost(a, b pitch.MIDI) (int, bool) {
	interval := max(a-b, b-a)
	switch {
	case interval == 0 || interval > widestStep:
		return 0, false
	case interval > 3:
		return costFourth, true
	}
	return 0, true
}
