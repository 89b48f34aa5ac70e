package listen

import "math"

// move is a quick change of pitch within what one stroke of the pick set off: a finger that hammers, pulls or slides.
type move struct {
	from, to int // frames: the last of the pitch before, the first of the pitch after
	attack   Attack
	// semitones from the pitch before to the pitch after.
	semitones float64
}

const (
	// moveSpan is how many frames on either side are compared.
	moveSpan = 3
	// moveLeast is how many semitones apart they lie at least.
	moveLeast = 0.65
	// slurFrames is how long a hammer-on or a pull-off takes at most, in frames: 20 ms.
	slurFrames = 4
	// levelSpan is how many frames the pitch is level on either side of a slur, within so many semitones together.
	levelSpan   = 6
	levelWithin = 0.4
	// slideFramesAFret is how long a slide takes over a fret at most, in frames of 5 ms: a bend is slower (our
	// choice).
	slideFramesAFret = 4.0
	// onTheWay is how many frames a fret that is slid over, or run over by hammers, sounds at most.
	onTheWay = 8
)

// moves finds the quick changes of a curve of pitches, a frame each, in semitones.
func moves(curve []float64) []move {
	found := []move{}
	for k := moveSpan; k+moveSpan < len(curve); {
		if !quick(curve, k) {
			k++
			continue
		}
		first := k
		up := curve[k+moveSpan] > curve[k-moveSpan]
		for k+moveSpan < len(curve) && quick(curve, k) && curve[k+moveSpan] > curve[k-moveSpan] == up {
			k++
		}
		last := k - 1
		m := move{from: first - moveSpan, to: last + moveSpan}
		// What is compared is as wide as the span on either side: take it off again.
		total := curve[m.to] - curve[m.from]
		near := math.Min(0.2*math.Abs(total), 0.3)
		for m.from+1 < m.to && math.Abs(curve[m.from+1]-curve[first-moveSpan]) < near {
			m.from++
		}
		for m.to-1 > m.from && math.Abs(curve[m.to-1]-curve[last+moveSpan]) < near {
			m.to--
		}
		m.semitones = total
		frames := m.to - m.from
		switch {
		case math.Abs(total) < moveLeast || frames <= slurFrames && drift(curve, m.from-levelSpan, m.from)+drift(curve, m.to, m.to+levelSpan) > levelWithin:
			continue // a bend or a vibrato: from fret to fret there is a level pitch on either side
		case frames <= slurFrames && total > 0:
			m.attack = Hammered
		case frames <= slurFrames:
			m.attack = Pulled
		case math.Abs(total) >= 1.5 && float64(frames) <= slideFramesAFret*math.Abs(total):
			m.attack = Slid
		default:
			continue // a bend
		}
		found = append(found, m)
	}
	return joined(found)
}

// joined makes one slide of moves in one direction that follow each other at once.
func joined(all []move) []move {
	out := []move{}
	for _, m := range all {
		if n := len(out) - 1; n >= 0 && m.from-out[n].to <= onTheWay && m.semitones > 0 == (out[n].semitones > 0) {
			out[n].to = m.to
			out[n].semitones += m.semitones
			out[n].attack = Slid
			continue
		}
		out = append(out, m)
	}
	return out
}

// drift is how many semitones the pitch changes over some frames.
func drift(curve []float64, from, to int) float64 {
	return math.Abs(curve[max(from, 0)] - curve[min(to, len(curve)-1)])
}

func quick(curve []float64, k int) bool {
	return math.Abs(curve[k+moveSpan]-curve[k-moveSpan]) >= moveLeast
}
