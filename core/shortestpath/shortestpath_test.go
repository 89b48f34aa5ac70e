package shortestpath

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// The choice costs what exhaustive search costs, and what is returned is what it costs.
func TestTheChoiceEqualsExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		layers := rapid.SliceOfN(rapid.SliceOfN(rapid.IntRange(0, 20), 1, 5), 0, 6).Draw(t, "layers")
		own := func(one int) int { return one % 3 }
		step := func(layer, from, to int) int { return max(from-to, to-from) * (1 + layer%2) }
		price := func(chosen []int) int {
			total := 0
			for n, at := range chosen {
				total += own(layers[n][at])
				if n > 0 {
					total += step(n, layers[n-1][chosen[n-1]], layers[n][at])
				}
			}
			return total
		}
		least := -1
		var try func(so []int)
		try = func(so []int) {
			if len(so) == len(layers) {
				if cost := price(so); least < 0 || cost < least {
					least = cost
				}
				return
			}
			for at := range layers[len(so)] {
				try(append(so, at))
			}
		}
		try(nil)
		chosen, cost := Choose(layers, own, step)
		assert.Equal(t, least, cost)
		assert.Equal(t, cost, price(chosen))
	})
}
