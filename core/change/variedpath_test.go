package change

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// variedOver is a blues in a key whose path varies by a seed.
func variedOver(t testing.TB, tonic string, strategy TargetStrategy, seed uint64) PathRequest {
	o := twelve(t, tonic)
	o.Strategy = strategy
	o.Variation = &Variation{Seed: seed, Key: in(t, tonic).key}
	return o
}

// variedCost prices a whole choice of options: their perturbed costs, the travel, what the
// degrees lack to their shares; it is not allowed where too many thirds follow each other.
func variedCost(o PathRequest, layers [][]pathOption, path []int) (cost int, allowed bool) {
	counts := map[harmony.ChordPart]float64{}
	run := 0
	for n, at := range path {
		one := layers[n][at]
		cost += one.cost
		if n > 0 {
			cost += o.travel(layers[n-1][path[n-1]].tone.Place, one.tone.Place)
		}
		counts[one.part()]++
		if run++; one.part() != harmony.ThirdPart {
			run = 0
		}
		if run > MostThirds {
			return 0, false
		}
	}
	if shares := degreeShares[o.Strategy]; shares != nil {
		roots := float64(len(path)) - counts[harmony.ThirdPart] - counts[harmony.SeventhPart] - counts[harmony.FifthPart]
		counts[harmony.RootPart] = roots
		off := 0.0
		for part, share := range shares {
			off += math.Abs(counts[part] - share*float64(len(path)))
		}
		cost += int(math.Round(costOfShare * off))
	}
	return cost, true
}

// A varied path costs no more than any other choice of landings for the same perturbed costs:
// every choice tried.
func TestVariedPathsEqualExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		o := variedOver(t, "C", rapid.SampledFrom(TargetStrategies).Draw(rt, "strategy"), rapid.Uint64().Draw(rt, "seed"))
		from := rapid.IntRange(0, len(o.Changes)-4).Draw(rt, "from")
		o.Changes = o.Changes[from : from+rapid.IntRange(1, 4).Draw(rt, "changes")]
		layers := [][]pathOption{}
		for _, ch := range o.Changes {
			layers = append(layers, o.options(ch, neck.PlaceTones(guitar, o.windowAt(0), ch.Leaving.Chord.Tones()), neck.PlaceTones(guitar, o.windowAt(0), ch.Arriving.Chord.Tones())))
		}
		perturbed := o.perturbed(layers)
		least := math.MaxInt
		path := make([]int, len(layers))
		var try func(n int)
		try = func(n int) {
			if n == len(layers) {
				if cost, allowed := variedCost(o, perturbed, path); allowed {
					least = min(least, cost)
				}
				return
			}
			for k := range layers[n] {
				path[n] = k
				try(n + 1)
			}
		}
		try(0)
		found, allowed := variedCost(o, perturbed, o.varied(layers))
		require.True(rt, allowed)
		require.Equal(rt, least, found)
	})
}

// Over many seeds the degrees come near their shares, thirds do not follow each other for
// long, and the seeds differ.
func TestVariedPathsVary(t *testing.T) {
	counts, all := map[harmony.ChordPart]int{}, 0
	seen := map[string]bool{}
	for seed := range uint64(100) {
		o := variedOver(t, "A", ThirdsFirst, seed)
		p, err := o.Find()
		require.NoError(t, err)
		again, err := o.Find()
		require.NoError(t, err)
		assert.Equal(t, landed(p), landed(again), "the same seed is the same path")
		seen[landed(p)] = true
		run := 0
		for _, one := range p.Targets {
			part := harmony.PartOf(one.Degree)
			counts[part]++
			all++
			if run++; part != harmony.ThirdPart {
				run = 0
			}
			assert.LessOrEqual(t, run, MostThirds)
		}
	}
	share := func(part harmony.ChordPart) float64 { return 100 * float64(counts[part]) / float64(all) }
	t.Logf("thirds %.0f %%, sevenths %.0f %%, roots %.0f %%, fifths %.0f %%, %d paths", share(harmony.ThirdPart), share(harmony.SeventhPart), share(harmony.RootPart), share(harmony.FifthPart), len(seen))
	assert.InDelta(t, 52, share(harmony.ThirdPart), 8)
	assert.InDelta(t, 20, share(harmony.SeventhPart), 8)
	assert.InDelta(t, 15, share(harmony.RootPart), 8)
	assert.LessOrEqual(t, share(harmony.FifthPart), 10.0)
	assert.Greater(t, len(seen), 60)
}

// A tune of any length takes time in proportion to it, and goes on where it left off.
func TestALongVariedPath(t *testing.T) {
	o := variedOver(t, "C", ThirdsFirst, 3)
	once := o.Changes
	for range 60 {
		o.Changes = append(o.Changes, once...)
	}
	p, err := o.Find()
	require.NoError(t, err)
	assert.Len(t, p.Targets, len(o.Changes))
}

func BenchmarkVariedPath(b *testing.B) {
	o := variedOver(b, "C", ThirdsFirst, 3)
	b.ReportAllocs()
	for b.Loop() {
		if _, err := o.Find(); err != nil {
			b.Fatal(err)
		}
	}
}
