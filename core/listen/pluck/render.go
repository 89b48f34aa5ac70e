package pluck

import (
	"maps"
	"math"
	"math/rand/v2"
	"slices"
)

// MinRate and MaxRate bound the samples a second that can be rendered.
const (
	MinRate = 8000
	MaxRate = 96000
)

// lowest is the deepest pitch a string has here, as a MIDI number (A0).
const lowest = 21

// Render sounds the notes, so many samples a second, for so many seconds. It is the same for the same
// notes, tone and seed.
func Render(notes []Played, tone Tone, rate int, seconds float64, seed uint64) []float32 {
	out := make([]float32, int(seconds*float64(rate)))
	strings := map[int][]Played{}
	for _, n := range notes {
		strings[n.String] = append(strings[n.String], n)
	}
	for _, name := range slices.Sorted(maps.Keys(strings)) {
		on := strings[name]
		slices.SortStableFunc(on, func(a, b Played) int { return int(math.Copysign(1, a.Onset-b.Onset)) })
		s := newString(tone, rate, rand.New(rand.NewPCG(seed, uint64(name))))
		s.play(on, out)
	}
	tone.Amplify(out, rate)
	return out
}

// oneString is a string that sounds: its delay line and the filters beside it.
type oneString struct {
	tone  Tone
	rate  float64
	noise *rand.Rand
	line  []float64 // a ring
	at    int
	loss  float64 // the sample before, for the filter of losses
	// strike is what the pick still puts into the string.
	strike []float64
	last   loop
}

func newString(tone Tone, rate int, noise *rand.Rand) *oneString {
	size := 1
	for size < int(float64(rate)/hertz(lowest))+64 {
		size *= 2
	}
	return &oneString{tone: tone, rate: float64(rate), noise: noise, line: make([]float64, size)}
}

func hertz(midi float64) float64 { return 440 * math.Exp2((midi-69)/12) }

// brightness is the share of the sample before in the filter of losses: the more, the sooner high partials
// die away.
const brightness = 0.18

// silentAfter is how long after a hand has begun to still a string nothing of it is heard any more, in seconds.
const silentAfter = 0.25

// damping is how long a hand takes to still a string, in seconds.
const damping = 0.012

// play sounds the notes of the string into out.
func (s *oneString) play(notes []Played, out []float32) {
	for n, note := range notes {
		begin, end := int(note.Onset*s.rate), len(out)
		stop := note.Onset + note.Length
		if note.Rings {
			stop = math.Inf(1)
		}
		struckNext := false
		if n+1 < len(notes) {
			next := notes[n+1]
			end = min(end, int(next.Onset*s.rate))
			struckNext = next.Attack == Picked
			if !struckNext {
				stop = math.Max(stop, next.Onset) // the string sounds on under the fretting hand
			} else {
				stop = math.Min(stop, next.Onset-s.tone.Stills) // the pick touches the string before it strikes
			}
		}
		switch note.Attack {
		case Picked:
			clear(s.line)
			s.loss = 0
			s.pick(note)
		case Hammered:
			s.tap(note, 0.12)
		case Pulled:
			s.tap(note, 0.2)
		}
		for i := max(begin, 0); i < end; i++ {
			t := float64(i)/s.rate - note.Onset
			pitch := note.Pitch + note.Cents(t)/100
			stilled := 0.0
			if now := float64(i) / s.rate; now >= stop+silentAfter {
				break // nothing of it is left to hear
			} else if now >= stop {
				stilled = 1
			}
			out[i] += float32(s.step(pitch, stilled))
		}
	}
}

// noiseShare is how much of a stroke is the noise of the pick.
const noiseShare = 0.25

// pick fills the string's excitation: a blow as wide as what strikes it, with the noise of the pick, as long
// as a period, and a node where it is struck.
func (s *oneString) pick(note Played) {
	period := s.rate / hertz(note.Pitch+note.Cents(0)/100)
	length := int(math.Round(period))
	burst := make([]float64, length)
	width, smooth := 0.0004, 0.35 // seconds of the blow
	if s.tone.Fingers {
		width, smooth = 0.001, 0.75
	}
	wide := max(2, min(int(width*s.rate), length/2))
	last := 0.0
	for n := range burst {
		last = (1-smooth)*(s.noise.Float64()*2-1) + smooth*last
		burst[n] = noiseShare * last
		if n < wide {
			burst[n] += math.Sin(math.Pi * (float64(n) + 0.5) / float64(wide))
		}
	}
	comb := max(1, int(s.tone.PickAt*period))
	shaped, most := make([]float64, length), 1e-9
	for n := range burst {
		shaped[n] = burst[n] - burst[(n-comb+length)%length]
		most = math.Max(most, math.Abs(shaped[n]))
	}
	for n := range shaped {
		shaped[n] *= note.Loudness / most
	}
	s.strike = shaped
}

// tap adds the small knock of a finger that hammers on or pulls off.
func (s *oneString) tap(note Played, share float64) {
	length := int(0.004 * s.rate)
	knock := make([]float64, length)
	last := 0.0
	for n := range knock {
		last = 0.5*last + 0.5*(s.noise.Float64()*2-1)
		knock[n] = share * note.Loudness * last * (1 - float64(n)/float64(length))
	}
	s.strike = knock
}

// loop is what a pitch makes of the string: its period, the length of its line, and what it loses each time round.
type loop struct {
	pitch                       float64
	period, length, gain, still float64
}

// loopOf is the loop of a pitch, worked out anew only where the pitch moves.
func (s *oneString) loopOf(pitch float64) loop {
	if pitch == s.last.pitch && s.last.period > 0 {
		return s.last
	}
	f := hertz(pitch)
	w := 2 * math.Pi * f / s.rate
	// What the filter of losses delays, so that the whole loop is a period.
	delayed := math.Atan2(brightness*math.Sin(w), 1-brightness+brightness*math.Cos(w)) / w
	period := s.rate / f
	seconds := 6 * math.Pow(2, -(pitch-40)/24) // until it is a thousandth: thick strings ring longer
	s.last = loop{pitch: pitch, period: period, length: period - delayed, gain: math.Pow(10, -3/(f*seconds)), still: math.Exp(-2.5 / (f * damping))}
	return s.last
}

// step moves the string on by a sample and returns what the pickup hears.
func (s *oneString) step(pitch, stilled float64) float64 {
	now := s.loopOf(pitch)
	back := s.read(now.length)
	gain := now.gain
	if stilled > 0 {
		gain *= now.still
	}
	in := gain * ((1-brightness)*back + brightness*s.loss)
	s.loss = back
	if len(s.strike) > 0 {
		in += s.strike[0]
		s.strike = s.strike[1:]
	}
	s.line[s.at] = in
	s.at = (s.at + 1) & (len(s.line) - 1)
	return in - s.read(math.Max(1.5, s.tone.Pickup*now.period))
}

// read is the line so many samples back, between samples by a cubic through four (Lagrange).
func (s *oneString) read(back float64) float64 {
	whole := math.Floor(back)
	d := back - whole
	at := func(n int) float64 { return s.line[(s.at-int(whole)-n)&(len(s.line)-1)] }
	y0, y1, y2, y3 := at(-1), at(0), at(1), at(2)
	c0 := -d * (d - 1) * (d - 2) / 6
	c1 := (d + 1) * (d - 1) * (d - 2) / 2
	c2 := -(d + 1) * d * (d - 2) / 2
	c3 := (d + 1) * d * (d - 1) / 6
	return c0*y0 + c1*y1 + c2*y2 + c3*y3
}
