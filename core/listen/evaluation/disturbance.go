package evaluation

import (
	"math"
	"math/rand/v2"

	"undaris/core/listen/pluck"
)

// Disturbance is what a room, an amplifier or a hand does to a line: to its notes before they sound, and to
// the sound.
type Disturbance struct {
	Name  string
	Notes func([]pluck.Played) []pluck.Played
	Sound func(samples []float32, rate int)
}

// Clean is none.
var Clean = Disturbance{Name: "clean"}

// Disturbances are all that the ear is tried with, one at a time.
func Disturbances() []Disturbance {
	return []Disturbance{
		{Name: "hiss at −40 dBFS", Sound: hiss},
		{Name: "mains hum at −45 dBFS", Sound: hum},
		{Name: "crunch", Sound: func(s []float32, rate int) { pluck.Crunch.Amplify(s, rate) }},
		{Name: "lead", Sound: func(s []float32, rate int) { pluck.Lead.Amplify(s, rate) }},
		{Name: "fret noise", Sound: fretNoise},
		{Name: "very soft, −36 dBFS", Notes: soft},
		{Name: "loud and soft", Notes: uneven},
		{Name: "let ring", Notes: letRing},
		{Name: "room", Sound: room},
	}
}

func (d Disturbance) notes(played []pluck.Played) []pluck.Played {
	if d.Notes == nil {
		return played
	}
	return d.Notes(append([]pluck.Played(nil), played...))
}

func (d Disturbance) sound(samples []float32, rate int) {
	if d.Sound != nil {
		d.Sound(samples, rate)
	}
}

func decibels(db float64) float64 { return math.Pow(10, db/20) }

func hiss(samples []float32, _ int) {
	chance := rand.New(rand.NewPCG(40, 1))
	for n := range samples {
		samples[n] += float32(decibels(-40) * chance.NormFloat64())
	}
}

// hum is 50 Hz with what a rectifier adds.
func hum(samples []float32, rate int) {
	for n := range samples {
		t := float64(n) / float64(rate)
		wave := 0.0
		for k, share := range []float64{0.6, 1, 0.5, 0.3, 0.2} {
			wave += share * math.Sin(2*math.Pi*50*float64(k+1)*t+float64(k))
		}
		samples[n] += float32(decibels(-45) * wave)
	}
}

// fretNoise squeaks and brushes every third of a second.
func fretNoise(samples []float32, rate int) {
	chance := rand.New(rand.NewPCG(5, 6))
	for at := 0.45; at*float64(rate) < float64(len(samples)); at += 0.33 {
		low, band := 0.0, 0.0
		cut := 0.2 + 0.3*chance.Float64()
		length := int((0.03 + 0.03*chance.Float64()) * float64(rate))
		for n := range length {
			i := int(at*float64(rate)) + n
			if i >= len(samples) {
				return
			}
			white := chance.NormFloat64()
			low += cut * (white - low)
			band += 0.05 * (low - band)
			samples[i] += float32(0.025 * (low - band) * math.Sin(math.Pi*float64(n)/float64(length)))
		}
	}
}

func soft(notes []pluck.Played) []pluck.Played {
	for n := range notes {
		notes[n].Loudness *= decibels(-28)
	}
	return notes
}

// uneven strikes every third note 14 dB softer.
func uneven(notes []pluck.Played) []pluck.Played {
	for n := range notes {
		if n%3 == 1 {
			notes[n].Loudness *= decibels(-14)
		}
	}
	return notes
}

// letRing lays each note that is struck on the next of three strings, and lets it ring until its string is
// struck again; what is slurred or repeated stays on its string.
func letRing(notes []pluck.Played) []pluck.Played {
	on := 0
	for n := range notes {
		if notes[n].Attack == pluck.Picked && n > 0 && notes[n].Pitch != notes[n-1].Pitch {
			on++
		}
		notes[n].String = 1 + on%3
		notes[n].Rings = true
	}
	return notes
}

// room adds the echoes of a small room, 12 to 60 ms late.
func room(samples []float32, rate int) {
	dry := append([]float32(nil), samples...)
	for _, echo := range []struct{ late, share float64 }{{0.012, 0.2}, {0.019, 0.15}, {0.031, 0.12}, {0.043, 0.08}, {0.061, 0.05}} {
		delay := int(echo.late * float64(rate))
		for n := delay; n < len(samples); n++ {
			samples[n] += float32(echo.share) * dry[n-delay]
		}
	}
}
