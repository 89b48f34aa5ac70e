package planner

import "math"

// cheapestLine chooses one of each layer's choices at the least sum of their own costs,
// of the moves between neighbours and of the turns of three in a row, exactly: a shortest
// path over pairs. Of equals it takes the first. It returns the cost with the choice.
func cheapestLine(layers [][]placeChoice, move func(n int, a, b *placeChoice) int, turn func(n int, a, b, c *placeChoice) int) ([]int, int) {
	switch len(layers) {
	case 0:
		return nil, 0
	case 1:
		best := 0
		for b, c := range layers[0] {
			if c.cost < layers[0][best].cost {
				best = b
			}
		}
		return []int{best}, layers[0][best].cost
	}
	// costs[a*len(b)+b] is the least cost of a line that ends on a and b.
	costs := make([]int, 0, len(layers[0])*len(layers[1]))
	for a := range layers[0] {
		for b := range layers[1] {
			costs = append(costs, layers[0][a].cost+layers[1][b].cost+move(1, &layers[0][a], &layers[1][b]))
		}
	}
	origins := make([][]int, len(layers))
	for n := 2; n < len(layers); n++ {
		before, here, next := layers[n-2], layers[n-1], layers[n]
		both := make([]int, 2*len(here)*len(next))
		reached, from := both[:len(both)/2], both[len(both)/2:]
		for b := range here {
			for c := range next {
				best, at := math.MaxInt, 0
				for a := range before {
					if cost := costs[a*len(here)+b]; cost < best {
						if cost += turn(n, &before[a], &here[b], &next[c]); cost < best {
							best, at = cost, a
						}
					}
				}
				reached[b*len(next)+c] = best + next[c].cost + move(n, &here[b], &next[c])
				from[b*len(next)+c] = at
			}
		}
		costs, origins[n] = reached, from
	}
	last := len(layers) - 1
	best := 0
	for n, cost := range costs {
		if cost < costs[best] {
			best = n
		}
	}
	width := len(layers[last])
	line := make([]int, len(layers))
	line[last-1], line[last] = best/width, best%width
	for n := last; n >= 2; n-- {
		line[n-2] = origins[n][line[n-1]*len(layers[n])+line[n]]
	}
	return line, costs[best]
}
