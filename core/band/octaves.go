package band

import (
	"undaris/core/pitch"
	"undaris/core/shortestpath"
)

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

// octaves is the pitch that a tone of the bass begins and the one it ends on: an octave apart
// where it is played in two.
type octaves struct{ begin, end pitch.MIDI }

// chooseOctaves finds the pitch of every tone: the shortest path over all octaves within
// the instrument, and for a note that leads over both sides of what it leads into.
func chooseOctaves(tones []bassTone) []octaves {
	layers := make([][]octaves, len(tones))
	for n, tone := range tones {
		layers[n] = octavesOf(tone)
	}
	cheapest, _ := shortestpath.Choose(layers, octaves.cost, func(n int, from, to octaves) int {
		return costOfStep(tones[n-1], tones[n], from.end, to.begin)
	})
	chosen := make([]octaves, len(tones))
	for n, k := range cheapest {
		chosen[n] = layers[n][k]
	}
	return chosen
}

// octavesOf are all ways to play a tone.
func octavesOf(tone bassTone) []octaves {
	options := []octaves{}
	for p := lowestBass; p <= highestBass; p++ {
		above := p.Class().Above(tone.class)
		switch {
		case tone.into && (above == 1 || above == 11):
			options = append(options, octaves{p, p})
		case !tone.into && above == 0:
			options = append(options, octaves{p, p})
			for _, other := range []pitch.MIDI{p - 12, p + 12} {
				if other >= lowestBass && other <= highestBass {
					options = append(options, octaves{p, other})
				}
			}
		}
	}
	return options
}

// cost is what the octaves cost by themselves.
func (o octaves) cost() int {
	cost := costOfPitch(o.end)
	if o.begin != o.end {
		cost += costOfTwo
	}
	return cost
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
