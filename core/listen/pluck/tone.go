package pluck

import "math"

// Tone is the hand, the pickup and the amplifier that notes are played with.
type Tone struct {
	// PickAt and Pickup are where the string is struck and heard, as shares of its length from the bridge.
	PickAt, Pickup float64
	// Fingers strike with flesh: fewer high partials.
	Fingers bool
	// Stills is how long what strikes a string that sounds stills it before, in seconds.
	Stills float64
	// Drive is how far the amplifier is driven: 1 leaves the sound as it is, 4 crunches, 20 is a lead.
	Drive float64
}

// The tones: neck and bridge, clean, crunch and lead.
var (
	CleanNeck   = Tone{PickAt: 0.22, Pickup: 0.26, Stills: 0.012, Drive: 1}
	LightNeck   = Tone{PickAt: 0.18, Pickup: 0.26, Stills: 0.003, Drive: 1}
	CleanBridge = Tone{PickAt: 0.13, Pickup: 0.07, Stills: 0.012, Drive: 1}
	FingersNeck = Tone{PickAt: 0.3, Pickup: 0.26, Stills: 0.02, Fingers: true, Drive: 1}
	Crunch      = Tone{PickAt: 0.13, Pickup: 0.07, Stills: 0.012, Drive: 5}
	Lead        = Tone{PickAt: 0.15, Pickup: 0.26, Stills: 0.012, Drive: 25}
)

// cabinetHertz is where a guitar's loudspeaker ceases to sound (our choice, as such loudspeakers do).
const cabinetHertz = 5000

// Amplify plays samples through the amplifier of the tone: a valve's soft limits, a little uneven, and a
// loudspeaker that takes the highest partials away. A tone that drives nothing leaves them as they are.
func (t Tone) Amplify(samples []float32, rate int) {
	if t.Drive <= 1 {
		return
	}
	const uneven = 0.12
	smooth := 1 - math.Exp(-2*math.Pi*cabinetHertz/float64(rate))
	middle, first, second, last := 0.0, 0.0, 0.0, 0.0
	rest := math.Tanh(uneven)
	for n, s := range samples {
		// Driven twice a sample, so that fewer partials fold back.
		x := float64(s)
		between := (last + x) / 2
		last = x
		out := (math.Tanh(t.Drive*between+uneven) + math.Tanh(t.Drive*x+uneven)) / 2
		out -= rest
		middle += (out - middle) * 0.001 // what is left of a constant
		first += smooth * (out - middle - first)
		second += smooth * (first - second)
		samples[n] = float32(0.5 * second)
	}
}
