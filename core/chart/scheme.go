package chart

import (
	"strings"

	"undaris/core/choice"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Scheme is the form of a blues: its chords as numerals in the bar notation.
type Scheme struct {
	Name string
	// In is what kind of key the scheme is in.
	In   harmony.Mode
	bars string
}

// Schemes lists the schemes a chart can be built on (common property). Bare
// numerals are seventh chords, as the blues has them. Forms of sixteen bars
// differ from place to place; ours is the twelve-bar with its first line twice.
var Schemes = []Scheme{
	{"quick change", harmony.DominantMode, "I | IV | I | I | IV | IV | I | I | V | IV | I | V"},
	{"slow change", harmony.DominantMode, "I | I | I | I | IV | IV | I | I | V | IV | I | V"},
	{"minor twelve-bar", harmony.MinorMode, "i | i | i | i | iv | iv | i | i | bVI7 | V7 | i | V7"},
	{"jazz blues", harmony.DominantMode, "I | IV | I | I | IV | #IVdim7 | I | VI7 | ii7 | V7 | I VI7 | ii7 V7"},
	{"eight-bar, V first", harmony.DominantMode, "I | V | IV | IV | I | V | I | V"},
	{"eight-bar, I first", harmony.DominantMode, "I | I | IV | IV | I | V | I | V"},
	{"sixteen-bar", harmony.DominantMode, "I | I | I | I | I | I | I | I | IV | IV | I | I | V | IV | I | V"},
	{"one-chord vamp", harmony.DominantMode, "I | I | I | I"},
	{"minor vamp", harmony.MinorMode, "i | i | i | i"},
}

// String is the scheme's name.
func (s Scheme) String() string { return s.Name }

// FindScheme finds a scheme by its name.
func FindScheme(name string) (Scheme, error) {
	s, err := choice.Find("a scheme", Schemes, Scheme.String, name)
	return s, InField("scheme", err)
}

// Bars is the scheme in a key, in whole bars of the meter. A bar of 6/8 and of 2/4 has two
// beats and so room for what a scheme puts into one bar.
func (s Scheme) Bars(tonic pitch.Note, meter Meter) []Bar {
	bars, err := numeralBars(s.bars, harmony.Key{Tonic: tonic, Mode: s.In}, meter)
	if err != nil {
		panic("a scheme fits every meter: " + err.Error())
	}
	return bars
}

func numeralBars(text string, key harmony.Key, meter Meter) ([]Bar, error) {
	bars := []Bar{}
	for _, one := range strings.Split(text, "|") {
		spans, err := ReadBar(one, key, meter, nil)
		if err != nil {
			return nil, err
		}
		bars = append(bars, Bar{Spans: spans})
	}
	return bars, nil
}

// SchemeOf names the scheme that the chart's bars follow, or "" for none.
func (c Chart) SchemeOf() string {
	for _, s := range Schemes {
		if c.Key.Mode == s.In && c.IsEven() && sameChords(c.Bars, s.Bars(c.Key.Tonic, c.Meter)) {
			return s.Name
		}
	}
	return ""
}

// sameChords says whether both have the same written chords and play them
// straight through.
func sameChords(a, b []Bar) bool {
	if len(a) != len(b) {
		return false
	}
	for n := range a {
		if Text(a[n].Spans) != Text(b[n].Spans) || a[n].RepeatTo != b[n].RepeatTo || a[n].Signs != b[n].Signs {
			return false
		}
	}
	return true
}

// EmptyBars is so many bars without a chord, to be written into.
func EmptyBars(bars int, meter Meter) []Bar {
	all := make([]Bar, bars)
	for n := range all {
		all[n].Spans = []Span{{Beats: meter.Beats()}}
	}
	return all
}
