package listen

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// slowDifference is the definition: the squares of the differences of samples a lag apart, beside their mean so far.
func slowDifference(frame []float32, window, lags int) []float64 {
	function := make([]float64, lags)
	function[0] = 1
	sum := 0.0
	for lag := 1; lag < lags; lag++ {
		value := 0.0
		for n := range window {
			apart := float64(frame[n]) - float64(frame[n+lag])
			value += apart * apart
		}
		sum += value
		function[lag] = value * float64(lag) / sum
	}
	return function
}

// A frame that follows another gives what it gives alone, and what the definition says.
func TestTheDifferenceOfFramesThatFollow(t *testing.T) {
	chance := rand.New(rand.NewPCG(3, 4))
	sound := make([]float32, 3000)
	for n := range sound {
		sound[n] = float32(math.Sin(2*math.Pi*float64(n)/97.3) + 0.1*chance.NormFloat64())
	}
	for _, kind := range []struct{ window, lags, hop, block int }{{shortWindow, shortLags, Hop, shortBlock}, {longWindow, longLags, Hop / longEvery, longBlock}} {
		following, single := newDifference(kind.window, kind.lags, kind.hop, kind.block), newDifference(kind.window, kind.lags, kind.hop, kind.block)
		for _, number := range []int{0, 1, 2, 3, 7, 8, 9, 10} { // silence between 3 and 7
			frame := sound[number*kind.hop:][:following.length()]
			got := following.of(frame, number)
			assert.InDeltaSlice(t, slowDifference(frame, kind.window, kind.lags), got, 1e-9)
			assert.InDeltaSlice(t, single.of(frame, alone), got, 1e-12)
		}
	}
}
