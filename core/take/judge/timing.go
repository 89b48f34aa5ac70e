package judge

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/chart"
	"undaris/core/take/transcribe"
)

// Timing is how a take lies in time. Seconds are late above 0, early below.
type Timing struct {
	// Lean is the middle of how late the notes are: ahead of the band, or behind it. It is a style, and no
	// fault where Spread is small.
	Lean float64
	// Spread is how far from Lean a note usually lies: the middle of the distances.
	Spread float64
	// Drift is how much later the notes come from bar to bar, in seconds: above 0 dragging, below rushing.
	Drift float64
	// Bars are the bars that have notes, in order.
	Bars []BarTiming
	// SwingPlayed is the ratio of the eighths as played, 0 where too few beats have both; SwingOf counts
	// them.
	SwingPlayed float64
	SwingOf     int
	// Stray are the notes, by their index in what was heard, that lie furthest from Lean: more than
	// StraySeconds.
	Stray []int
}

// BarTiming is how late the notes of a bar are beside Lean, in the middle.
type BarTiming struct {
	// Bar counts the bars as played from 0, on through the choruses.
	Bar   int
	Late  float64
	Notes int
}

// Our choices: what listeners notice begins at about 20 ms (Friberg and Sundberg, "Time discrimination in a
// monotonic, isochronous sequence", JASA 98(5), 1995, find about 6 ms in clicks; notes of a guitar are less
// sharp).
const (
	StraySeconds = 0.045
	// SteadySpread is the spread up to which a take is steady.
	SteadySpread = 0.018
	// LeanSeconds is from where a take is ahead or behind.
	LeanSeconds = 0.015
	// DriftSeconds is from where it rushes or drags, a bar.
	DriftSeconds = 0.004
	leastSwing   = 4
	leastDrift   = 4 // bars
)

// TimingOf measures the places of what was written over a chart.
func TimingOf(places []transcribe.Place, c chart.Chart) Timing {
	t := Timing{}
	if len(places) == 0 {
		return t
	}
	late := make([]float64, len(places))
	for n, p := range places {
		late[n] = p.Late
	}
	t.Lean = middle(late)
	away := make([]float64, len(late))
	for n, l := range late {
		away[n] = math.Abs(l - t.Lean)
		if away[n] > StraySeconds {
			t.Stray = append(t.Stray, places[n].Note)
		}
	}
	t.Spread = middle(away)
	slices.SortFunc(t.Stray, func(a, b int) int { return cmp.Compare(a, b) })
	t.Bars = barsOf(places, c, t.Lean)
	t.Drift = driftOf(t.Bars)
	t.SwingPlayed, t.SwingOf = swingOf(places, c)
	return t
}

func barsOf(places []transcribe.Place, c chart.Chart, lean float64) []BarTiming {
	line := c.Timeline()
	byBar := map[int][]float64{}
	for _, p := range places {
		bar := line.BarAt(p.Tick)
		if bar < 0 { // within the count-in
			continue
		}
		byBar[bar] = append(byBar[bar], p.Late-lean)
	}
	bars := []BarTiming{}
	for bar, late := range byBar {
		bars = append(bars, BarTiming{Bar: bar, Late: middle(late), Notes: len(late)})
	}
	slices.SortFunc(bars, func(a, b BarTiming) int { return a.Bar - b.Bar })
	return bars
}

// driftOf is the slope of the line through the bars that lies nearest to them, by their notes (least squares).
func driftOf(bars []BarTiming) float64 {
	if len(bars) < leastDrift {
		return 0
	}
	sum, x, y, xx, xy := 0.0, 0.0, 0.0, 0.0, 0.0
	for _, b := range bars {
		w := math.Min(float64(b.Notes), 8)
		bar := float64(b.Bar)
		sum += w
		x += w * bar
		y += w * b.Late
		xx += w * bar * bar
		xy += w * bar * b.Late
	}
	below := sum*xx - x*x
	if below == 0 {
		return 0
	}
	return (sum*xy - x*y) / below
}

// swingOf is the middle of the ratios of the two eighths of a beat, as played: an off-beat against the beats
// before and after, played or, where nobody plays them, where they lie with the take's lean.
func swingOf(places []transcribe.Place, c chart.Chart) (ratio float64, of int) {
	if c.Meter.Compound() {
		return 0, 0
	}
	line := c.Timeline()
	played := map[int]float64{}
	for _, p := range places {
		played[p.Tick] = p.LateTicks
	}
	ratios := []float64{}
	late := make([]float64, len(places))
	for n, p := range places {
		late[n] = p.LateTicks
	}
	lean := middle(late)
	for _, p := range places {
		beat := line.BeatTicksAt(p.Tick)
		into := (p.Tick - line.BarStart(p.Tick)) % beat
		on := p.Tick - into
		// The off-beat is written straight, or as the last of three.
		if into != beat/2 && (into != beat*2/3 || c.Feel != chart.Shuffle) {
			continue
		}
		at := func(tick int) float64 {
			if late, ok := played[tick]; ok {
				return float64(tick) + late
			}
			return float64(tick) + lean
		}
		off := float64(line.Swung(p.Tick)) + p.LateTicks
		first, second := off-at(on), at(on+beat)-off
		if first > 0 && second > 0 {
			ratios = append(ratios, first/second)
		}
	}
	if len(ratios) < leastSwing {
		return 0, len(ratios)
	}
	return middle(ratios), len(ratios)
}

// middle is the median; 0 of none.
func middle(values []float64) float64 {
	if len(values) == 0 {
		return 0
	}
	sorted := slices.Clone(values)
	slices.Sort(sorted)
	n := len(sorted)
	if n%2 == 1 {
		return sorted[n/2]
	}
	return (sorted[n/2-1] + sorted[n/2]) / 2
}
