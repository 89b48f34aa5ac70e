package routine

import "undaris/core/chart"

// Outline is how long a routine is and where it ends.
type Outline struct {
	// Seconds of the routine, and of each segment; of one that waits, those of its first time.
	Seconds  float64
	Segments []float64
	// Waits says that it goes on until the player asks: no length is known.
	Waits bool
	// Tempo and Tonic are those it ends with.
	Tempo int
	Tonic string
	// Passes is how many passes it has.
	Passes int
}

// mostPasses bounds the walk through a routine.
const mostPasses = 20_000

// Outline walks the routine from end to end.
func (r Routine) Outline(c chart.Chart) Outline {
	o := Outline{Segments: make([]float64, len(r.Segments))}
	p := r.First(c)
	for o.Passes < mostPasses {
		s := r.Segments[p.Place.Segment]
		o.Seconds += p.Seconds()
		o.Segments[p.Place.Segment] += p.Seconds()
		o.Tempo, o.Tonic = p.Chart.Tempo, p.Chart.Key.Tonic.String()
		o.Passes++
		skip := p.Last && s.Waits() && p.Time >= s.times(p.Tempo)-1
		o.Waits = o.Waits || skip
		next, ok := r.Next(c, p.Place, skip)
		if !ok {
			break
		}
		p = next
	}
	return o
}
