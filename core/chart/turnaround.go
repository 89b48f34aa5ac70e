package chart

import (
	"undaris/core/choice"
	"undaris/core/harmony"
)

// Turnaround is two bars that lead back to the top, or that end the tune.
type Turnaround struct {
	Name string
	// Ends says that it ends the tune.
	Ends bool
	// About says what it does, major its chords where home is major or dominant,
	// minor where it is minor, as numerals of the key.
	About        string
	major, minor string
}

// Turnarounds lists what the last two bars of a blues turn on, then endings
// (common property). In a minor key II and VI are half diminished and III and VI
// of the circle are the key's own major sevenths (common practice). The inner
// line 8 b7 6 b6 5 is in the chords' sixths and sevenths over a held root, and
// turns on the V.
var Turnarounds = []Turnaround{
	{"I–V", false, "the plainest: home, then the V", "I | V", "i | V7"},
	{"I IV I V", false, "over to the IV and back", "I IV | I V", "i iv | i V7"},
	{"I VI7 ii7 V7", false, "around the circle of fifths from home", "I VI7 | ii7 V7", "i viø | iiø V7"},
	{"iii7 VI7 ii7 V7", false, "around the circle, a third chord for home", "iii7 VI7 | ii7 V7", "bIIImaj7 bVImaj7 | iiø V7"},
	{"I I/3 IV #IVdim7 I/5 V", false, "the bass climbs to the fifth", "I I/3 IV #IVdim7 | I/5 V", "i i/b3 iv #IVdim7 | i/5 V7"},
	{"I bVI7 V7", false, "down into the V from a half step above", "I | bVI7 V7", "i | bVI7 V7"},
	{"I bIII7 bVI7 bII7", false, "dominants by fourths, a half step above home at the end", "I bIII7 | bVI7 bII7", "i bIII7 | bVI7 bII7"},
	{"I, inner line down", false, "8 b7 6 b6 5 inside a held I", "Imaj I7 I6 Iaug | Imaj V", "im im7 im6 bVImaj/3 | im V7"},
	{"V to I", true, "home from the V", "V | I", "V7 | i"},
	{"bVI7 V7 I", true, "a half step above the V, the V, home", "bVI7 V7 | I", "bVI7 V7 | i"},
	{"bII7 I6/9", true, "a half step above home, then home with the 6 and 9", "bII7 | I6/9", "bII7 | im6"},
}

// String is the turnaround's name.
func (t Turnaround) String() string { return t.Name }

// FindTurnaround finds a turnaround or an ending by its name.
func FindTurnaround(name string) (Turnaround, error) {
	t, err := choice.Find("a turnaround", Turnarounds, Turnaround.String, name)
	return t, InField("name", err)
}

// Bars is the turnaround in a key: two bars. Its chords must find a beat each in
// the meter; where they do not, the error says so.
func (t Turnaround) Bars(key harmony.Key, meter Meter) ([]Bar, error) {
	text := t.major
	if key.Mode == harmony.MinorMode {
		text = t.minor
	}
	bars, err := numeralBars(text, key, meter)
	if err != nil {
		return nil, fail("name", "%s does not fit: %s", t.Name, err)
	}
	return bars, nil
}

// WithTurnaround puts the turnaround on the bar, from 0, and the one after it.
// Written, it takes the place of their chords; imagined, it lies over them, for
// the soloist alone, and the chart follows what is imagined from then on.
func (c Chart) WithTurnaround(t Turnaround, bar int, imagined bool) (Chart, error) {
	if bar < 0 || bar+2 > len(c.Bars) {
		return c, fail("bar", "a turnaround takes two bars; it can start on bar 1 to %d", len(c.Bars)-1)
	}
	in := c.SettingOf(bar)
	if c.SettingOf(bar+1).Meter != in.Meter {
		return c, fail("bar", "the meter changes between bar %d and %d; a turnaround takes two bars of one meter", bar+1, bar+2)
	}
	two, err := t.Bars(in.Key, in.Meter)
	if err != nil {
		return c, err
	}
	c.Bars = append([]Bar(nil), c.Bars...)
	for n := range two {
		if imagined {
			c.Bars[bar+n].Imagined = two[n].Spans
			c.Imagining = true
		} else {
			c.Bars[bar+n].Spans = two[n].Spans
		}
	}
	return c, nil
}
