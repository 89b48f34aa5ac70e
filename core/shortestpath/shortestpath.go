package shortestpath

// Choose chooses one option of each layer so that the sum of what they cost by themselves and
// of the steps between neighbours is the least there is; of equal choices the first. It returns the
// index of the option chosen in each layer, and their cost; no layer may be empty.
func Choose[T any](layers [][]T, own func(T) int, step func(layer int, from, to T) int) ([]int, int) {
	if len(layers) == 0 {
		return nil, 0
	}
	costs := make([][]int, len(layers))
	from := make([][]int, len(layers))
	for n, options := range layers {
		costs[n], from[n] = make([]int, len(options)), make([]int, len(options))
		for k, option := range options {
			if n > 0 {
				best := 0
				for j, before := range layers[n-1] {
					if cost := costs[n-1][j] + step(n, before, option); j == 0 || cost < best {
						best, from[n][k] = cost, j
					}
				}
				costs[n][k] = best
			}
			costs[n][k] += own(option)
		}
	}
	last := len(layers) - 1
	chosen := make([]int, len(layers))
	for k, cost := range costs[last] {
		if cost < costs[last][chosen[last]] {
			chosen[last] = k
		}
	}
	total := costs[last][chosen[last]]
	for n := last; n > 0; n-- {
		chosen[n-1] = from[n][chosen[n]]
	}
	return chosen, total
}
