package evaluation

import (
	"math"
	"math/rand/v2"

	"undaris/core/listen/pluck"
)

// Line is notes of one kind, with how long their sound is.
type Line struct {
	Name    string
	Notes   []pluck.Played
	Seconds float64
}

// lineWriter writes notes one after the other.
type lineWriter struct {
	notes []pluck.Played
	now   float64
}

func newLine() *lineWriter { return &lineWriter{now: 0.3} }

// pick strikes a note that takes so many seconds, and sounds for a share of them.
func (w *lineWriter) pick(pitch, seconds, share float64) *pluck.Played {
	return w.add(pluck.Played{Pitch: pitch, Length: seconds * share, Attack: pluck.Picked, Loudness: 0.4, String: 1}, seconds)
}

func (w *lineWriter) add(n pluck.Played, seconds float64) *pluck.Played {
	n.Onset = w.now
	w.now += seconds
	w.notes = append(w.notes, n)
	return &w.notes[len(w.notes)-1]
}

func (w *lineWriter) line(name string) Line {
	return Line{Name: name, Notes: w.notes, Seconds: w.now + 0.5}
}

// eighth is an eighth at 120 beats a minute, in seconds.
const eighth = 0.25

var major = []float64{0, 2, 4, 5, 7, 9, 11}

// Lines is everything that is asked of the ear.
func Lines() []Line {
	return []Line{
		scales(), arpeggios(), range_(), repeated(), staccato(), sextuplets(), twelveEight(), slurs(), slides(), bends(), vibrato(), blues(),
	}
}

func scales() Line {
	w := newLine()
	for _, root := range []float64{40, 52, 64} {
		for n := range 15 {
			step := n
			if n > 7 {
				step = 14 - n
			}
			w.pick(root+12*float64(step/7)+major[step%7], eighth, 0.95)
		}
	}
	return w.line("scales")
}

func arpeggios() Line {
	w := newLine()
	for _, root := range []float64{40, 45, 50, 57, 62} {
		for _, degree := range []float64{0, 4, 7, 10, 12, 16, 19, 16, 12, 10, 7, 4} {
			w.pick(root+degree, eighth, 0.95)
		}
	}
	return w.line("arpeggios")
}

// range_ is every third semitone from B0 to A♯6.
func range_() Line {
	w := newLine()
	for pitch := 23.0; pitch <= 94; pitch += 3 {
		w.pick(pitch, 2*eighth, 0.95)
	}
	w.pick(94, 2*eighth, 0.95)
	return w.line("full range")
}

func repeated() Line {
	w := newLine()
	for _, pitch := range []float64{40, 48, 57, 67, 76} {
		for range 4 {
			w.pick(pitch, eighth, 0.95)
		}
		for range 8 {
			w.pick(pitch, eighth/2, 0.95)
		}
	}
	return w.line("repeated notes")
}

func staccato() Line {
	w := newLine()
	for n := range 24 {
		w.pick(45+float64(n%8)*3, eighth, 0.35)
	}
	return w.line("staccato")
}

// sextuplets are six notes a beat at 90 beats a minute.
func sextuplets() Line {
	w := newLine()
	blues := []float64{0, 3, 5, 6, 7, 10}
	for n := range 72 {
		step := n % 12
		if step > 6 {
			step = 12 - step
		}
		w.pick(45+float64(n/24)*7+12*float64(step/6)+blues[step%6], 60.0/90/6, 0.95)
	}
	return w.line("sextuplets at 90")
}

func twelveEight() Line {
	w := newLine()
	third := 60.0 / 60 / 3
	for _, root := range []float64{47, 52, 59} {
		for _, degree := range []float64{0, 4, 7, 9, 10, 9, 7, 4} {
			w.pick(root+degree, third, 0.95)
			w.pick(root+degree+12, third/2, 0.9)
			w.pick(root+degree, third/2, 0.9)
		}
	}
	return w.line("12/8 at 60")
}

func slurs() Line {
	w := newLine()
	for _, root := range []float64{45, 52, 60, 69} {
		for _, up := range []float64{1, 2, 3, 4} {
			w.pick(root, eighth, 1)
			h := w.pick(root+up, eighth, 1)
			h.Attack = pluck.Hammered
			p := w.pick(root, eighth, 0.95)
			p.Attack = pluck.Pulled
		}
	}
	return w.line("hammer-ons and pull-offs")
}

func slides() Line {
	w := newLine()
	for _, root := range []float64{50, 57, 64, 71} {
		for _, frets := range []int{2, 3, 5, -2, -4} {
			w.pick(root, 2*eighth, 1)
			s := w.pick(root+float64(frets), 2*eighth, 0.95)
			s.Attack = pluck.Slid
			s.Curve = pluck.SlideFrom(-frets)
			// The finger leaves so early that it arrives in time.
			early := s.Curve[len(s.Curve)-1].Seconds
			s.Onset -= early
			s.Length += early
		}
	}
	return w.line("slides")
}

// bent is the curve of a bend: so long at the fret, so long on the way, to so many cents.
func bent(stay, rise, cents float64) []pluck.Point {
	points := []pluck.Point{{}, {Seconds: stay}}
	const steps = 8
	for n := 1; n <= steps; n++ {
		x := float64(n) / steps
		points = append(points, pluck.Point{Seconds: stay + x*rise, Cents: cents * (0.5 - 0.5*math.Cos(math.Pi*x))})
	}
	return points
}

// bends are of ¼ to 1½ steps and some cents off; held, let go, and bent before they are struck.
func bends() Line {
	w := newLine()
	chance := rand.New(rand.NewPCG(21, 7))
	for _, root := range []float64{57, 62, 67, 71} {
		for _, cents := range []float64{50, 100, 150, 200, 300} {
			off := chance.Float64()*40 - 20
			size := cents + off
			held := w.pick(root, 4*eighth, 0.95)
			held.Curve = bent(0.06, 0.15, size)
			let := w.pick(root+2, 4*eighth, 0.95)
			let.Curve = append(bent(0.06, 0.15, size), pluck.Point{Seconds: 0.5, Cents: size}, pluck.Point{Seconds: 0.65, Cents: 0})
			pre := w.pick(root, 4*eighth, 0.95)
			pre.Curve = []pluck.Point{{Seconds: 0, Cents: size}, {Seconds: 0.4, Cents: size}, {Seconds: 0.55, Cents: 0}}
		}
	}
	return w.line("bends, releases, pre-bends")
}

func vibrato() Line {
	w := newLine()
	for n, root := range []float64{52, 57, 60, 64, 67, 72, 76} {
		hertz, cents := 4.5+0.4*float64(n), 12+7*float64(n)
		v := w.pick(root, 6*eighth, 0.95)
		v.Curve = []pluck.Point{{Seconds: 0.25}}
		for t := 0.25; t < 1.4; t += 0.01 {
			v.Curve = append(v.Curve, pluck.Point{Seconds: t, Cents: cents * math.Sin(2*math.Pi*hertz*(t-0.25))})
		}
	}
	return w.line("vibrato")
}

// blues is a line with a little of everything.
func blues() Line {
	w := newLine()
	chance := rand.New(rand.NewPCG(4, 4))
	scale := []float64{0, 3, 5, 7, 10, 12, 15, 17, 19, 22}
	at := 4
	for n := range 90 {
		at = min(max(at+chance.IntN(5)-2, 0), len(scale)-1)
		pitch := 52 + scale[at]
		seconds := []float64{eighth, eighth, eighth / 1.5, 2 * eighth}[chance.IntN(4)]
		note := w.pick(pitch, seconds, 0.92)
		note.Loudness = 0.2 + 0.3*chance.Float64()
		switch {
		case n%7 == 3 && seconds >= eighth:
			note.Curve = bent(0.04, 0.1, 200)
		case n%9 == 5 && n > 0 && w.notes[n-1].Pitch < pitch && pitch-w.notes[n-1].Pitch < 5 && len(w.notes[n-1].Curve) == 0:
			note.Attack = pluck.Hammered
		}
	}
	return w.line("a blues line")
}
