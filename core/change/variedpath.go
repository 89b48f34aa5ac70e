package change

import (
	"math"
	"math/rand/v2"

	"undaris/core/harmony"
)

// Variation makes a path less alike to others: landings of several degrees, other ones for
// another seed.
type Variation struct {
	Seed uint64
	// Key says which chords are its IV and its V.
	Key harmony.Key
}

// The degrees of landings, as players vary them (our choice, counted from played solos of the
// idiom): how many of ten landings are on each part, by strategy. A strategy without shares
// takes them as they fall.
var degreeShares = map[TargetStrategy]map[harmony.ChordPart]float64{
	ThirdsFirst: {harmony.RootPart: 0.20, harmony.ThirdPart: 0.50, harmony.FifthPart: 0.08, harmony.SeventhPart: 0.22},
	GuideTones:  {harmony.RootPart: 0.08, harmony.ThirdPart: 0.5, harmony.FifthPart: 0.04, harmony.SeventhPart: 0.38},
	RootsFirst:  {harmony.RootPart: 0.46, harmony.ThirdPart: 0.26, harmony.FifthPart: 0.12, harmony.SeventhPart: 0.16},
}

const (
	// MostThirds is how many thirds may be landed on one after the other.
	MostThirds = 3
	// sharedLandings is how many landings the shares are kept over: of that many the search
	// over all counts stays exact and short. The next ones go on from the last place.
	sharedLandings = 8
	// costOfShare is what a landing more or less than its share costs, in thousandths, noise
	// the widest that a seed may change a cost by; liked is taken off where the idiom likes a
	// tone (all our choice).
	costOfShare = 700
	noise       = 450
	liked       = 250
)

// varied chooses one option a layer at the least sum of their perturbed costs, of the travel
// between neighbours, and of what the degrees lack to their shares, exactly over every
// sharedLandings layers; no more than MostThirds thirds follow each other where there is
// another tone.
func (o PathRequest) varied(layers [][]pathOption) []int {
	perturbed := o.perturbed(layers)
	path := make([]int, 0, len(layers))
	run := 0
	for from := 0; from < len(layers); from += sharedLandings {
		to := min(from+sharedLandings, len(layers))
		var before *pathOption
		if from > 0 {
			before = &perturbed[from-1][path[from-1]]
		}
		part := o.sharedPath(perturbed[from:to], before, run)
		for n, at := range part {
			if perturbed[from+n][at].part() == harmony.ThirdPart {
				run++
			} else {
				run = 0
			}
		}
		path = append(path, part...)
	}
	return path
}

func (one pathOption) part() harmony.ChordPart { return harmony.PartOf(one.tone.Degree) }

// perturbed are the layers with the costs that the seed gives them.
func (o PathRequest) perturbed(layers [][]pathOption) [][]pathOption {
	r := rand.New(rand.NewPCG(o.Variation.Seed, uint64(len(layers))))
	all := make([][]pathOption, len(layers))
	for n, layer := range layers {
		all[n] = make([]pathOption, len(layer))
		arriving := o.Changes[n].Arriving.Chord
		for k, one := range layer {
			one.cost += r.IntN(noise)
			if o.Variation.likes(arriving, one.part()) {
				one.cost -= liked
			}
			all[n][k] = one
		}
	}
	return all
}

// likes says whether the idiom likes to land on a part of a chord: over IV its b7, which is
// the blue third of the key, and its 5, which is the tonic; over V its root and 5.
func (v Variation) likes(c harmony.Chord, part harmony.ChordPart) bool {
	switch (12 + int(c.Root.Class()) - int(v.Key.Tonic.Class())) % 12 {
	case 5:
		return part == harmony.SeventhPart || part == harmony.FifthPart
	case 7:
		return part == harmony.RootPart || part == harmony.FifthPart
	}
	return false
}

// pathCount says how often each part has been landed on, and how many thirds come last.
type pathCount struct {
	thirds, sevenths, fifths, run int
}

// with is the count after one more landing, of length landings before.
func (c pathCount) with(part harmony.ChordPart) pathCount {
	c.run++
	switch part {
	case harmony.ThirdPart:
		c.thirds++
		return c
	case harmony.SeventhPart:
		c.sevenths++
	case harmony.FifthPart:
		c.fifths++
	}
	c.run = 0
	return c
}

// lacks is what the degrees of so many landings cost by what they differ from their shares.
func (c pathCount) lacks(of int, shares map[harmony.ChordPart]float64) int {
	if shares == nil {
		return 0
	}
	off := 0.0
	roots := of - c.thirds - c.sevenths - c.fifths
	for _, one := range []struct {
		count int
		part  harmony.ChordPart
	}{{c.thirds, harmony.ThirdPart}, {c.sevenths, harmony.SeventhPart}, {c.fifths, harmony.FifthPart}, {roots, harmony.RootPart}} {
		off += math.Abs(float64(one.count) - float64(of)*shares[one.part])
	}
	return int(math.Round(costOfShare * off))
}

// pathState is one way to have come to an option of a layer: the cheapest that has landed on
// the degrees so often.
type pathState struct {
	option int
	pathCount
	cost int
	// from is the state of the layer before, as an index.
	from int
}

// key numbers the states of a layer, so that states alike are found again.
func (s pathState) key() int {
	const most = sharedLandings + 1
	return (((s.option*(MostThirds+1)+s.run)*most+s.thirds)*most+s.sevenths)*most + s.fifths
}

// sharedPath is varied over a few layers, after a landing and a run of thirds where there
// was one before.
func (o PathRequest) sharedPath(layers [][]pathOption, before *pathOption, run int) []int {
	shares := degreeShares[o.Strategy]
	ways := make([][]pathState, len(layers))
	widest := 0
	for _, layer := range layers {
		widest = max(widest, len(layer))
	}
	// known is the index of a state, from 1, by its key.
	known := make([]int32, pathState{option: widest}.key())
	for n, layer := range layers {
		origins := []pathState{{pathCount: pathCount{run: run}}}
		if n > 0 {
			origins = ways[n-1]
		}
		must := !hasOther(layer)
		for k := range layer {
			to := &layer[k]
			part := to.part()
			for from, origin := range origins {
				state := pathState{option: k, pathCount: origin.with(part), cost: origin.cost + to.cost, from: from}
				if state.run > MostThirds {
					if !must {
						continue
					}
					state.run = MostThirds
				}
				last := before
				if n > 0 {
					last = &layers[n-1][origin.option]
				}
				if last != nil {
					state.cost += o.travel(last.tone.Place, to.tone.Place)
				}
				switch at := &known[state.key()]; {
				case *at == 0:
					ways[n] = append(ways[n], state)
					*at = int32(len(ways[n]))
				case state.cost < ways[n][*at-1].cost:
					ways[n][*at-1] = state
				}
			}
		}
		for _, state := range ways[n] {
			known[state.key()] = 0
		}
	}
	last := len(layers) - 1
	best, least := 0, math.MaxInt
	for at, state := range ways[last] {
		if cost := state.cost + state.lacks(len(layers), shares); cost < least {
			best, least = at, cost
		}
	}
	path := make([]int, len(layers))
	for n := last; n >= 0; n-- {
		path[n] = ways[n][best].option
		best = ways[n][best].from
	}
	return path
}

func hasOther(layer []pathOption) bool {
	for _, one := range layer {
		if one.part() != harmony.ThirdPart {
			return true
		}
	}
	return false
}
