package solo

import "math"

// contour is the way a phrase goes: -1 its lowest to 1 its highest, at 0 its beginning to
// 1 its end.
type contour struct {
	name string
	at   func(t float64) float64
}

// contours are those that phrases take (common: up and over, down, to and fro, round one
// note, up).
var contours = []contour{
	{"arch", func(t float64) float64 { return 2*math.Sin(math.Pi*min(t*1.1, 1)) - 1 }},
	{"fall", func(t float64) float64 { return 1 - 2*t }},
	{"wave", func(t float64) float64 { return math.Sin(2 * math.Pi * (t*1.2 + 0.1)) }},
	{"pivot", func(t float64) float64 { return 0.8 * math.Cos(5*math.Pi*t) * (1 - t/2) }},
	{"rise and fall back", func(t float64) float64 { return math.Sin(math.Pi*t*1.5) - 0.2 }},
	{"dip", func(t float64) float64 { return 0.8 - 1.8*math.Sin(math.Pi*t) }},
}
