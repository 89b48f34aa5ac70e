package sheet

import (
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// clef draws a treble clef about x: a spiral round the second line and its stem, from
// points along it, in gaps of the staff below its highest line.
func (s system) clef(x float64) {
	spine := [][2]float64{{0.1, 3.2}, {0.55, 2.9}, {0.75, 3.3}, {0.35, 3.75}, {-0.35, 3.6}, {-0.65, 2.9}, {-0.25, 2.2}, {0.45, 1.5}, {0.7, 0.5}, {0.45, -0.6}, {0.1, -0.4}, {-0.05, 0.6}, {0.35, 3.2}, {0.55, 4.6}, {0.15, 5.2}, {-0.4, 4.9}}
	curve := smooth(spine)
	for n := 1; n < len(curve); n++ {
		s.line(x+curve[n-1][0]*staffGap, s.top+curve[n-1][1]*staffGap, x+curve[n][0]*staffGap, s.top+curve[n][1]*staffGap, 0.32)
	}
	s.pill(x-0.4*staffGap, s.top+4.85*staffGap, 0.8, 0.8, 0.1, true, false)
}

// smooth runs a curve through points (Catmull and Rom).
func smooth(points [][2]float64) [][2]float64 {
	const parts = 6
	all := [][2]float64{}
	for n := 0; n+1 < len(points); n++ {
		p0, p1, p2, p3 := points[max(n-1, 0)], points[n], points[n+1], points[min(n+2, len(points)-1)]
		for k := range parts {
			t := float64(k) / parts
			point := [2]float64{}
			for d := range 2 {
				point[d] = 0.5 * (2*p1[d] + (p2[d]-p0[d])*t + (2*p0[d]-5*p1[d]+4*p2[d]-p3[d])*t*t + (3*p1[d]-p0[d]-3*p2[d]+p3[d])*t*t*t)
			}
			all = append(all, point)
		}
	}
	return append(all, points[len(points)-1])
}

// signature draws the key's signs and returns where they end.
func (s system) signature(x float64) float64 {
	fifths := s.Chart.Key.Fifths()
	for n := range min(max(fifths, -fifths), 7) {
		sign, at := "♯", sharpsAt[n]
		if fifths < 0 {
			sign, at = "♭", flatsAt[n]
		}
		s.text(x+float64(n)*1.5, s.top+float64(at)*staffGap/2+1.2, letters{size: 3.6}, sign)
	}
	return x + float64(min(max(fifths, -fifths), 7))*1.5 + 1
}

// inSignature is the accidental that the key's signature gives a letter.
func inSignature(k harmony.Key, l pitch.Letter) int {
	fifths := k.Fifths()
	order := "FCGDAEB"
	if fifths < 0 {
		order = "BEADGCF"
	}
	for n := range min(max(fifths, -fifths), 7) {
		if string(order[n]) == (pitch.Note{Letter: l}).String() {
			return sign(fifths)
		}
	}
	return 0
}

func sign(n int) int {
	if n < 0 {
		return -1
	}
	return 1
}
