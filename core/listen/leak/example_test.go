package leak_test

import (
	"fmt"
	"math/rand/v2"

	"undaris/core/listen"
	"undaris/core/listen/leak"
)

// A band of noise comes back 20 ms later at half its height, under another noise of the height of a tenth.
func Example() {
	chance := rand.New(rand.NewPCG(1, 1))
	band, recording := make([]float32, 10*listen.Rate), make([]float32, 10*listen.Rate)
	for n := range band {
		band[n] = float32(chance.NormFloat64())
	}
	for n := range recording {
		recording[n] = float32(0.1 * chance.NormFloat64())
		if from := n - listen.Rate/50; from >= 0 {
			recording[n] += band[from] / 2
		}
	}
	l := leak.Find(recording, band, 0)
	fmt.Printf("%v, %.0f ms late, %.0f dB\n", l.Found, 1000*l.Late, l.Decibels)
	// Output: true, 20 ms late, 14 dB
}
