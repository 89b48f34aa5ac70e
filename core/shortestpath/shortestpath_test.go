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

// Of equal choices the first is chosen, in every layer; costs below zero are costs like any other, and one layer has no step.
func TestOfEqualChoicesTheFirst(t *testing.T) {
	same := func(int) int { return 3 }
	chosen, cost := Choose([][]int{{1, 2}, {3, 4, 5}, {6, 7}}, same, func(int, int, int) int { return 2 })
	assert.Equal(t, []int{0, 0, 0}, chosen)
	assert.Equal(t, 3*3+2*2, cost)
	chosen, cost = Choose([][]int{{9, -5, -5}}, func(one int) int { return one }, func(int, int, int) int { return 1 })
	assert.Equal(t, []int{1}, chosen)
	assert.Equal(t, -5, cost)
	chosen, cost = Choose([][]int{{0}, {4, 8}}, func(one int) int { return one }, func(_ int, from, to int) int { return -2 * (to - from) })
	assert.Equal(t, []int{0, 1}, chosen)
	assert.Equal(t, -8, cost)
	chosen, cost = Choose[int](nil, same, nil)
	assert.Nil(t, chosen)
	assert.Zero(t, cost)
}
