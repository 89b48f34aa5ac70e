package chart

import (
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Scheme is the form of a blues: its chords as numerals, one a bar.
type Scheme struct {
	Name string
	// In is what kind of key the scheme is in.
	In   harmony.Mode
	bars string
}

// Schemes lists the schemes a chart can be built on (common property).
var Schemes = []Scheme{
	{Name: "quick change", In: harmony.DominantMode, bars: "I IV I I IV IV I I V IV I V"},
	{Name: "slow change", In: harmony.DominantMode, bars: "I I I I IV IV I I V IV I V"},
}

// String is the scheme's name.
func (s Scheme) String() string { return s.Name }

// FindScheme finds a scheme by its name.
func FindScheme(name string) (Scheme, error) {
	for _, s := range Schemes {
		if s.Name == name {
			return s, nil
		}
	}
	return Scheme{}, unknown("scheme", name, Schemes)
}

// Bars is the scheme in a key: whole bars of the meter, every chord a dominant
// seventh, as the blues has them.
func (s Scheme) Bars(tonic pitch.Note, meter Meter) []Bar {
	degrees := map[string]pitch.Degree{"I": {Number: 1}, "IV": {Number: 4}, "V": {Number: 5}}
	seventh, err := harmony.ParseChord("C7")
	if err != nil {
		panic(err)
	}
	bars := []Bar{}
	for _, numeral := range strings.Fields(s.bars) {
		chord := harmony.Chord{Root: degrees[numeral].Over(tonic), Quality: seventh.Quality}
		bars = append(bars, Bar{Spans: []Span{{Chord: chord, Beats: meter.Beats()}}})
	}
	return bars
}

// SchemeOf names the scheme that the chart's bars follow, or "" for none.
func (c Chart) SchemeOf() string {
	for _, s := range Schemes {
		if c.Key.Mode == s.In && sameBars(c.Bars, s.Bars(c.Key.Tonic, c.Meter)) {
			return s.Name
		}
	}
	return ""
}

func sameBars(a, b []Bar) bool {
	if len(a) != len(b) {
		return false
	}
	for n := range a {
		if len(a[n].Spans) != len(b[n].Spans) {
			return false
		}
		for m, span := range a[n].Spans {
			if span.Beats != b[n].Spans[m].Beats || !span.Chord.Same(b[n].Spans[m].Chord) {
				return false
			}
		}
	}
	return true
}
