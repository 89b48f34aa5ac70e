package band

import "undaris/core/pitch"

// largestLeap is how far a bass may leap, in semitones, but for the octave.
const largestLeap = 7

// The cost of an octave, ours by ear: a leap that is too large or a lead that does not lead
// is never taken where there is another way; then the figure goes the way it is written,
// low rather than high, and moves little. A note that would leave no way on is played in
// two octaves, half its length in each.
const (
	costOfLargeLeap = 10_000
	costOfFalseLead = 5_000
	costOfTwo       = 150
	costOfWrongWay  = 40
)

// octaveOption is a pitch that a tone of the bass may begin and end on, an octave apart
// where it is played in two.
type octaveOption struct {
	begin, end pitch.MIDI
	cost       int
	from       int
}

// octaves is what a tone of the bass begins and ends on.
type octaves struct{ begin, end pitch.MIDI }

// chooseOctaves finds the pitch of every tone: the shortest path over all octaves within
// the instrument, and for a note that leads over both sides of what it leads into.
func chooseOctaves(tones []bassTone) []octaves {
	if len(tones) == 0 {
		return nil
	}
	layers := make([][]octaveOption, len(tones))
	for n, tone := range tones {
		layers[n] = octaveOptions(tone)
		for k := range layers[n] {
			option := &layers[n][k]
			if n == 0 {
				continue
			}
			own := option.cost
			for j, before := range layers[n-1] {
				cost := before.cost + own + costOfStep(tones[n-1], tone, before.end, option.begin)
				if j == 0 || cost < option.cost {
					option.cost, option.from = cost, j
				}
			}
		}
	}
	best := 0
	last := layers[len(layers)-1]
	for k := range last {
		if last[k].cost < last[best].cost {
			best = k
		}
	}
	chosen := make([]octaves, len(tones))
	for n := len(tones) - 1; n >= 0; n-- {
		chosen[n] = octaves{layers[n][best].begin, layers[n][best].end}
		best = layers[n][best].from
	}
	return chosen
}

// octaveOptions are all ways to play a tone, with what each costs by itself.
func octaveOptions(tone bassTone) []octaveOption {
	options := []octaveOption{}
	for p := lowestBass; p <= highestBass; p++ {
		above := p.Class().Above(tone.class)
		switch {
		case tone.into && (above == 1 || above == 11):
			options = append(options, octaveOption{begin: p, end: p, cost: costOfPitch(p)})
		case !tone.into && above == 0:
			options = append(options, octaveOption{begin: p, end: p, cost: costOfPitch(p)})
			for _, other := range []pitch.MIDI{p - 12, p + 12} {
				if other >= lowestBass && other <= highestBass {
					options = append(options, octaveOption{begin: p, end: other, cost: costOfPitch(other) + costOfTwo})
				}
			}
		}
	}
	return options
}

func costOfPitch(p pitch.MIDI) int { return int(max(p-middleBass, middleBass-p)) }

// costOfStep is what it costs to go from one pitch to the next.
func costOfStep(before, tone bassTone, from, to pitch.MIDI) int {
	apart := int(max(to-from, from-to))
	cost := apart
	if apart > largestLeap && apart != 12 {
		cost += costOfLargeLeap
	}
	if before.into && apart != 1 {
		cost += costOfFalseLead
	}
	if tone.up && to <= from || tone.down && to >= from {
		cost += costOfWrongWay
	}
	return cost
}
