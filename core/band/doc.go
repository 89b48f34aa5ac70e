// Package band arranges a chart, and a line over it, into a performance: the list of
// everything that sounds, when, how loud and how bent. The browser and every file
// writer sound the same list.
//
// A style (style.go) names a groove for the drums (drums.go), a bass figure (bass.go)
// and chord figures (comping.go). Perform lays them over the bars, varied by seed and
// chorus: the first chorus is light, later ones rise; every fourth bar has a fill. What
// sounds has the feel of the chart applied, and small differences of time and loudness.
package band
