package planner

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/pitch"
)

// The exact path over places equals the best of every line there is, on random small cases.
func TestTheCheapestLineEqualsExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		layers := make([][]placeChoice, rapid.IntRange(1, 5).Draw(rt, "layers"))
		for n := range layers {
			layers[n] = make([]placeChoice, rapid.IntRange(1, 4).Draw(rt, "choices"))
			for k := range layers[n] {
				layers[n][k] = placeChoice{cost: rapid.IntRange(0, 30).Draw(rt, "cost"), pitch: pitch.MIDI(rapid.IntRange(40, 52).Draw(rt, "pitch"))}
			}
		}
		salt := rapid.IntRange(1, 97).Draw(rt, "salt")
		move := func(n int, a, b *placeChoice) int { return (int(a.pitch)*7 + int(b.pitch)*salt + n) % 23 }
		turn := func(n int, a, b, c *placeChoice) int {
			return (int(a.pitch)*salt + int(b.pitch)*3 + int(c.pitch)*5 + n) % 19
		}
		line, cost := cheapestLine(layers, move, turn)
		priced := func(line []int) int {
			sum := 0
			for n, at := range line {
				sum += layers[n][at].cost
				if n > 0 {
					sum += move(n, &layers[n-1][line[n-1]], &layers[n][at])
				}
				if n > 1 {
					sum += turn(n, &layers[n-2][line[n-2]], &layers[n-1][line[n-1]], &layers[n][at])
				}
			}
			return sum
		}
		require.Equal(rt, cost, priced(line), "it costs what it says")
		best := priced(line)
		var search func(line []int)
		search = func(line []int) {
			if len(line) == len(layers) {
				best = min(best, priced(line))
				return
			}
			for at := range layers[len(line)] {
				search(append(slices.Clone(line), at))
			}
		}
		search(nil)
		require.Equal(rt, best, cost)
	})
}
