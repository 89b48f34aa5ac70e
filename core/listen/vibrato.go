package listen

import (
	"math"
	"slices"
)

// What a bend and a vibrato must be to be called so (our choice: a quarter step is 50 cents; players shake
// at 4 to 8 Hz).
const (
	bendLeast  = 32.0 // cents
	bendFrames = 8    // 40 ms away from where it began
	// bendMost is further than a string is bent: four half steps and a half. What moves further is none.
	bendMost     = 450.0
	vibratoLeast = 6.0 // cents on either side
	slowest      = 3.3 // Hz
	fastest      = 9.5
)

// shaped finds the bend and the vibrato of a curve of cents above where the note began, a frame each.
func shaped(curve []float32) (*Bend, *Vibrato) {
	if len(curve) < bendFrames {
		return nil, nil
	}
	cents := make([]float64, len(curve))
	for n, c := range curve {
		cents[n] = float64(c)
	}
	smooth := middles(cents, 5)
	slow := averages(smooth, 40)
	bend := bendOf(smooth, slow)
	return bend, vibratoOf(smooth)
}

func bendOf(smooth, slow []float64) *Bend {
	// A vibrato goes to and fro around one pitch; what it does to the average is no bend.
	away := func(n int) float64 { return smooth[n] }
	high, low := 0.0, 0.0
	for n := range slow {
		high, low = math.Max(high, slow[n]), math.Min(low, slow[n])
	}
	up := high >= -low
	side := 1.0
	if !up {
		side = -1
	}
	// How far it goes and stays: the value that it is at or beyond for bendFrames.
	sorted := make([]float64, len(smooth))
	for n := range sorted {
		sorted[n] = side * smooth[n]
	}
	slices.Sort(sorted)
	if len(sorted) < bendFrames || sorted[len(sorted)-bendFrames] < bendLeast || math.Max(high, -low) < 0.6*bendLeast {
		return nil
	}
	reach := sorted[len(sorted)-bendFrames]
	first, last := -1, -1
	for n := range smooth {
		if side*away(n) >= 0.85*reach {
			if first < 0 {
				first = n
			}
			last = n
		}
	}
	size := levelOf(smooth[first:last+1], side)
	if size < bendLeast || size > bendMost {
		return nil
	}
	b := &Bend{Cents: size, Reached: float64(first) * hopSeconds}
	if !up {
		// It fell: the string was up there when it was struck.
		b.Pre, b.Reached, b.Released = true, 0, float64(first)*hopSeconds
		return b
	}
	for n := last; n < len(smooth); n++ {
		if smooth[n] < math.Max(0.25*size, 15) && len(smooth)-n >= 3 {
			b.Released = float64(n) * hopSeconds
			break
		}
	}
	return b
}

// levelOf is the pitch that the top of a bend stays at: the middle of a level top, the average of a shaken
// one, and the end of one that is still on its way.
func levelOf(top []float64, side float64) float64 {
	sorted := make([]float64, len(top))
	for n := range top {
		sorted[n] = side * top[n]
	}
	slices.Sort(sorted)
	high, middle := sorted[len(sorted)-1-len(sorted)/10], sorted[len(sorted)/2]
	if high-middle < 8 {
		return middle
	}
	if v := vibratoOf(top); v != nil {
		return side * average(top)
	}
	return sorted[len(sorted)*3/4]
}

// vibratoOf finds a pitch that goes to and fro at least twice.
func vibratoOf(smooth []float64) *Vibrato {
	if len(smooth) < 50 {
		return nil
	}
	slow := averages(smooth, 44)
	around := make([]float64, len(smooth))
	for n := range smooth {
		around[n] = smooth[n] - slow[n]
	}
	around = averages(around, 5)
	// Crossings upwards, between frames, and the swing of each turn.
	crossings, swings := []float64{}, []float64{}
	high, low := 0.0, 0.0
	for n := 1; n < len(around); n++ {
		high, low = math.Max(high, around[n]), math.Min(low, around[n])
		if around[n-1] < 0 && around[n] >= 0 {
			if len(crossings) > 0 {
				swings = append(swings, (high-low)/2)
			}
			crossings = append(crossings, float64(n-1)+around[n-1]/(around[n-1]-around[n]))
			high, low = 0, 0
		}
	}
	// The longest run of turns that are alike.
	best, from := 0, 0
	for n := 0; n < len(swings); {
		m := n
		for m < len(swings) && swings[m] >= vibratoLeast && turnHertz(crossings, m) >= slowest && turnHertz(crossings, m) <= fastest &&
			(m == n || math.Abs(math.Log(turnHertz(crossings, m)/turnHertz(crossings, m-1))) < 0.45) {
			m++
		}
		if m-n > best {
			best, from = m-n, n
		}
		n = max(m, n+1)
	}
	if best < 2 {
		return nil
	}
	frames := crossings[from+best] - crossings[from]
	return &Vibrato{
		Hertz: float64(best) / (frames * hopSeconds),
		Cents: average(swings[from : from+best]),
		Delay: math.Max(0, crossings[from]*hopSeconds),
	}
}

func turnHertz(crossings []float64, turn int) float64 {
	return 1 / ((crossings[turn+1] - crossings[turn]) * hopSeconds)
}

func average(values []float64) float64 {
	sum := 0.0
	for _, v := range values {
		sum += v
	}
	return sum / float64(len(values))
}

// averages is the running average over so many values around each.
func averages(values []float64, over int) []float64 {
	sums := make([]float64, len(values)+1)
	for n, v := range values {
		sums[n+1] = sums[n] + v
	}
	out := make([]float64, len(values))
	for n := range values {
		from, to := max(0, n-over/2), min(len(values), n+over/2+1)
		// As far on one side as on the other, so that an edge does not lean.
		reach := min(n-from, to-1-n)
		from, to = n-reach, n+reach+1
		out[n] = (sums[to] - sums[from]) / float64(to-from)
	}
	return out
}

// middles is the running median over so many values around each.
func middles(values []float64, over int) []float64 {
	out := make([]float64, len(values))
	sorted := make([]float64, 0, over)
	for n := range values {
		reach := min(over/2, n, len(values)-1-n)
		sorted = append(sorted[:0], values[n-reach:n+reach+1]...)
		slices.Sort(sorted)
		out[n] = sorted[len(sorted)/2]
	}
	return out
}
