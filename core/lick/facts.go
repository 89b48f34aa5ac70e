package lick

import (
	"slices"
	"strings"

	"undaris/core/analysis"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Facts is what is computed of a lick as it lies in a key, so that it can be found.
type Facts struct {
	// Scales name what all of its notes are in: boxes and scales on the tonic.
	Scales []string
	// Starts and Ends are the degrees of its first and last note over their chords.
	Starts, Ends pitch.Degree
	// Lands are the degrees landed on at its changes.
	Lands []pitch.Degree
	// Leans are the colours it leans on: on a strong beat, or held a beat or more.
	Leans []pitch.Degree
	// Bars is its length, pickup left out.
	Bars int
	// Low and High are its lowest and highest fret.
	Low, High int
	// PerSecond is notes a second at the tempo.
	PerSecond float64
	// Techniques are those it uses.
	Techniques []string
	// Moves are its steps from degree to degree, with how they are made.
	Moves []DegreeMove
	// Last is where it ends.
	Last neck.Place
}

// scales are what a lick's notes are held against, on the tonic, smallest first: the
// boxes, then the seven-note scales of a blues.
var scales = []struct{ name, degrees string }{
	{string(harmony.MinorPentatonic), "R b3 4 5 b7"},
	{string(harmony.MajorPentatonic), "R 2 3 5 6"},
	{string(harmony.MinorBlues), "R b3 4 b5 5 b7"},
	{string(harmony.MajorBlues), "R 2 b3 3 5 6"},
	{"both pentatonics", "R 2 b3 3 4 5 6 b7"},
	{"Mixolydian", "R 2 3 4 5 6 b7"},
	{"Dorian", "R 2 b3 4 5 6 b7"},
	{"natural minor", "R 2 b3 4 5 b6 b7"},
	{"major", "R 2 3 4 5 6 7"},
}

// ScaleNames lists the scales that a lick can be looked for by.
func ScaleNames() []string {
	names := make([]string, len(scales))
	for n, s := range scales {
		names[n] = s.name
	}
	return names
}

// Facts computes what can be said of the lick over its own chords at a tempo; over
// the tonic chord where it knows none.
func (l Lick) Facts(i neck.Instrument, tempo int) Facts {
	k := l.Key()
	p := l.withOwnChords()
	// Only degree and class are asked for: what a label says in words is not made.
	over := func(e phrase.Event) (harmony.Tone, harmony.Class) {
		c, class := p.Chords[p.ChordIndexOf(e)].Chord, e.Sounding(i).Class()
		return k.ToneOver(c, class), k.Classify(c, class)
	}
	last := p.Events[len(p.Events)-1]
	first, _ := over(p.Events[0])
	end, class := over(last)
	f := Facts{Bars: p.Bars(), Starts: first.Degree, Ends: end.Degree, Last: last.Place, Moves: movesOf(l, i)}
	f.Low, f.High = p.Frets()
	f.PerSecond = analysis.ShapeOf(p, i, end, class, tempo).PerSecond
	for _, s := range scales {
		if allIn(p, i, l.Tonic, s.degrees) {
			f.Scales = append(f.Scales, s.name)
		}
	}
	for _, landing := range analysis.Landings(p, i, k) {
		if landing.Index >= 0 {
			f.Lands = add(f.Lands, landing.Degree)
		}
	}
	for _, e := range p.Events {
		if tone, class := over(e); class == harmony.Colour && (p.Meter.IsStrong(e.Tick) || analysis.IsLong(e, p.Meter)) {
			f.Leans = add(f.Leans, tone.Degree)
		}
	}
	for _, name := range phrase.Techniques {
		if slices.ContainsFunc(p.Events, func(e phrase.Event) bool { return e.Uses(name) }) {
			f.Techniques = append(f.Techniques, name)
		}
	}
	if p.DoubleStops() {
		f.Techniques = append(f.Techniques, doubleStop)
	}
	return f
}

// doubleStop is the name by which two notes at once are found.
const doubleStop = "double stop"

// FoundTechniques lists the names of techniques that licks are found by.
func FoundTechniques() []string { return append(slices.Clone(phrase.Techniques), doubleStop) }

// allIn says whether every note is one of the degrees over the tonic. A bend of a
// quarter tone is the note that is curled.
func allIn(p phrase.Phrase, i neck.Instrument, tonic pitch.Note, degrees string) bool {
	in := map[pitch.Class]bool{}
	for _, text := range strings.Fields(degrees) {
		in[pitch.MustDegree(text).Over(tonic).Class()] = true
	}
	return !slices.ContainsFunc(p.Events, func(e phrase.Event) bool { return !in[e.Sounding(i).Class()] })
}

func add(all []pitch.Degree, d pitch.Degree) []pitch.Degree {
	if slices.Contains(all, d) {
		return all
	}
	return append(all, d)
}

// Fits says whether the lick, as it sounds in the key, may be played over another
// chord than its own: every note it rests on is a chord tone or a colour there, or curled on its
// way, and no more than one note in four is outside (ours: one passing note in a bar
// of quarters is heard as one).
func (l Lick) Fits(i neck.Instrument, k harmony.Key, c harmony.Chord) bool {
	p := l.Phrase
	p.Chords = []phrase.PhraseChord{{Tick: min(p.Events[0].Tick, 0), Chord: c}}
	outside := 0
	for n, label := range p.Labels(i, k) {
		e := p.Events[n]
		if label.Class == harmony.Outside {
			outside++
		}
		if analysis.RestsOn(p, n) && !phrase.MayRestOn(k, c, e.Sounding(i).Class()) && !analysis.IsCurled(e, label.Class) {
			return false
		}
	}
	return 4*outside <= len(p.Events)
}
