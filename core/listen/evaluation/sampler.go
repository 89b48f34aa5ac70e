package evaluation

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"undaris/core/listen/pluck"
)

// Sample is one recorded note.
type Sample struct {
	// MIDI is the pitch it was recorded at; a share of one is cents.
	MIDI float64
	// Samples are its sound at so many a second.
	Samples []float32
	Rate    int
	// LoopFrom and LoopTo are the seconds between which it goes round; both 0 where it does not.
	LoopFrom, LoopTo float64
}

// Sampler sounds notes from recorded ones, each from the one nearest in pitch.
type Sampler []Sample

const (
	// sampleFade is how long a note takes to fade when it is let go, in seconds.
	sampleFade = 0.04
	// strokeFade is how long it takes when its string is struck again: the pick stills it.
	strokeFade = 0.008
)

// Render sounds the notes, so many samples a second, for so many seconds.
func (s Sampler) Render(notes []pluck.Played, rate int, seconds float64) []float32 {
	out := make([]float32, int(seconds*float64(rate)))
	strings := map[int][]pluck.Played{}
	for _, n := range notes {
		strings[n.String] = append(strings[n.String], n)
	}
	for _, name := range slices.Sorted(maps.Keys(strings)) {
		on := strings[name]
		slices.SortStableFunc(on, func(a, b pluck.Played) int { return cmp.Compare(a.Onset, b.Onset) })
		for n := 0; n < len(on); {
			// A stroke and what is slurred from it is one sample whose pitch moves.
			last := n + 1
			for last < len(on) && on[last].Attack != pluck.Picked {
				last++
			}
			var next *pluck.Played
			if last < len(on) {
				next = &on[last]
			}
			s.stroke(on[n:last], next, out, rate)
			n = last
		}
	}
	return out
}

// stroke adds the sound of a note and what is slurred from it, until the next stroke on the string.
func (s Sampler) stroke(notes []pluck.Played, next *pluck.Played, out []float32, rate int) {
	first, final := notes[0], notes[len(notes)-1]
	sample := s.nearest(first.Pitch)
	end, fade := final.Onset+final.Length, sampleFade
	if final.Rings {
		end = math.Inf(1)
	}
	if next != nil && next.Onset-strokeFade < end {
		end, fade = next.Onset-strokeFade, strokeFade
	}
	at, on := sample.lead(), 0
	fading, looped := sample.fading(), 0.0 // seconds spent in the loop
	for i := int(first.Onset * float64(rate)); i < len(out); i++ {
		t := float64(i) / float64(rate)
		for on+1 < len(notes) && t >= notes[on+1].Onset {
			on++
		}
		level := 1.0
		if t > end {
			level = 1 - (t-end)/fade
			if level <= 0 {
				return
			}
		}
		now := notes[on]
		pitch := now.Pitch + now.Cents(t-now.Onset)/100
		if looped > 0 {
			level *= math.Pow(10, fading*looped/20)
		}
		out[i] += float32(level * first.Loudness * sample.at(at))
		at += math.Exp2((pitch-sample.MIDI)/12) * float64(sample.Rate) / float64(rate)
		if to := sample.LoopTo * float64(sample.Rate); to > 0 && at >= to {
			at -= (sample.LoopTo - sample.LoopFrom) * float64(sample.Rate)
			looped += sample.LoopTo - sample.LoopFrom
		}
	}
}

func (s Sampler) nearest(pitch float64) Sample {
	return slices.MinFunc(s, func(a, b Sample) int { return cmp.Compare(math.Abs(a.MIDI-pitch), math.Abs(b.MIDI-pitch)) })
}

// leadShare is the share of its height from which on a recorded note is heard to begin.
const leadShare = 0.02

// lead is how many samples there are before the note begins.
func (s Sample) lead() float64 {
	within := s.Samples[:min(len(s.Samples), s.Rate/2)]
	most := float32(0)
	for _, x := range within {
		most = max(most, x, -x)
	}
	for n, x := range within {
		if max(x, -x) >= leadShare*most {
			return float64(n)
		}
	}
	return 0
}

// fading is how fast a sample fades in the second half of what comes before its loop, in dB a second (0 or
// less). A string goes on fading like that; a loop alone does not.
func (s Sample) fading() float64 {
	const span = 0.1 // seconds
	if s.LoopFrom <= 4*span {
		return 0
	}
	level := func(from float64) float64 {
		piece := s.Samples[int(from*float64(s.Rate)):int((from+span)*float64(s.Rate))]
		sum := 0.0
		for _, x := range piece {
			sum += float64(x * x)
		}
		return 10 * math.Log10(sum/float64(len(piece))+1e-12)
	}
	early, late := s.LoopFrom/2, s.LoopFrom-span
	return math.Min(0, (level(late)-level(early))/(late-early))
}

// at is the sample between its samples, by a cubic through four.
func (s Sample) at(place float64) float64 {
	whole := int(math.Floor(place))
	d := place - float64(whole)
	get := func(n int) float64 {
		if n = whole + n; n >= 0 && n < len(s.Samples) {
			return float64(s.Samples[n])
		}
		return 0
	}
	y0, y1, y2, y3 := get(-1), get(0), get(1), get(2)
	return y1 + 0.5*d*(y2-y0+d*(2*y0-5*y1+4*y2-y3+d*(3*(y1-y2)+y3-y0)))
}
