package midifile

import (
	"maps"
	"math"
	"slices"
	"sort"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/format/reading"
)

// segmentCost is what another chord in a bar costs, so that a passing note does
// not make one, and weakBeat what it costs more on an even beat, where chords
// seldom change (our choice; a chord that fits exactly costs about 0.4).
const (
	segmentCost = 1.0
	weakBeat    = 0.4
)

// clearCost is what a chord may cost without a doubt: all that tells it sounds,
// over its own root.
const clearCost = 1.4

// infer names the chords of every bar from its notes.
func (r *reader) infer() error {
	chords, bass := r.parts()
	first, last := math.MaxInt, 0
	for _, v := range r.voices {
		for _, n := range v.notes {
			first, last = min(first, n.tick), max(last, n.end)
		}
	}
	from := r.lines.BarAt(first)
	start := r.lines.Start(from)
	r.Chart.Meter = r.lines.MeterAt(start)
	if r.Chart.Meter == chart.TwelveEight {
		r.Chart.Feel = chart.Slow128
	}
	// A release that hangs over the last bar line a little is no bar more.
	bars := max(r.lines.BarsUntil(last-r.lines.MeterAt(last-1).BarTicks()/16)-from, 1)
	r.setTempo(first, last)
	if bars > chart.MaxBars {
		return reading.Wrong("there are %d bars in it; a chart has at most %d", bars, chart.MaxBars)
	}
	if from > 0 {
		r.Remark(0, "", "the first %d bars have no notes and were left out", from)
	}
	if r.hasKey {
		r.Chart.Key = r.keyAt(start)
	} else {
		r.Chart.Key = harmony.Key{Mode: harmony.MajorMode}
	}
	in := make([]chart.Setting, bars)
	changes := false
	for b := range in {
		at := r.lines.Start(from + b)
		in[b] = chart.Setting{Key: r.Chart.Key, Meter: r.lines.MeterAt(at)}
		if r.hasKey {
			in[b].Key = r.keyAt(at)
		}
		changes = changes || in[b].Key != r.Chart.Key
	}
	r.Chart.Bars = r.bars(in, from, chords, bass, false)
	switch {
	case !r.hasKey:
		r.Chart.Key = chart.GuessKey(r.Chart.Bars)
		r.Remark(0, "", "no key is given; %s %s is taken from the first chord", r.Chart.Key.Tonic, r.Chart.Key.Mode)
	case !changes && chart.IsBluesKey(r.Chart.Key, r.Chart.Bars):
		r.Chart.Key.Mode = harmony.DominantMode
		r.Remark(0, "", "home is a dominant seventh; the key is taken for that of a blues")
	}
	for b := range in {
		if !changes {
			in[b].Key = r.Chart.Key
		}
	}
	r.Chart.Bars = r.bars(in, from, chords, bass, true)
	r.labels(from)
	return nil
}

// parts chooses the voices that play chords, three notes at once for half of
// their time, and the lowest other one as the bass. Where none plays chords all
// are taken together, and the remarks say so.
func (r *reader) parts() (chords []note, bass []note) {
	lowest := 128.0
	for _, v := range r.voices {
		if polyphony(v.notes) >= 0.5 {
			chords = append(chords, v.notes...)
			continue
		}
		if mean := meanKey(v.notes); mean < lowest && mean < 52 {
			bass, lowest = v.notes, mean
		}
	}
	if len(chords) == 0 {
		r.Remark(0, "", "no track plays chords; all notes together are read as chords, which is a guess")
		for _, v := range r.voices {
			chords = append(chords, v.notes...)
		}
	}
	for _, v := range r.voices {
		if polyphony(v.notes) < 0.5 && len(v.notes) > 0 && (len(bass) == 0 || &v.notes[0] != &bass[0]) && len(r.voices) > 1 {
			r.Remark(0, v.name, "this track plays single notes and is not used")
		}
	}
	sort.SliceStable(chords, func(a, b int) bool { return chords[a].tick < chords[b].tick })
	return chords, bass
}

// polyphony is the share of a voice's time in which three notes sound at once.
func polyphony(notes []note) float64 {
	type edge struct{ tick, step int }
	edges := []edge{}
	for _, n := range notes {
		edges = append(edges, edge{n.tick, 1}, edge{n.end, -1})
	}
	sort.Slice(edges, func(a, b int) bool {
		return edges[a].tick < edges[b].tick || edges[a].tick == edges[b].tick && edges[a].step < edges[b].step
	})
	sounding, before, any, three := 0, 0, 0, 0
	for _, e := range edges {
		if sounding > 0 {
			any += e.tick - before
		}
		if sounding > 2 {
			three += e.tick - before
		}
		sounding, before = sounding+e.step, e.tick
	}
	return float64(three) / math.Max(float64(any), 1)
}

func meanKey(notes []note) float64 {
	sum := 0
	for _, n := range notes {
		sum += n.key
	}
	return float64(sum) / math.Max(float64(len(notes)), 1)
}

// bars names the chords of each bar, doubts said where said is true.
func (r *reader) bars(in []chart.Setting, from int, chords, bass []note, said bool) []chart.Bar {
	bars := make([]chart.Bar, len(in))
	before := chart.Setting{Key: in[0].Key, Meter: in[0].Meter, Feel: r.Chart.Feel}
	for b := range bars {
		key, beat, beats := in[b].Key, in[b].Meter.BeatTicks(), in[b].Meter.Beats()
		change := chart.SettingChange{}
		if in[b].Key != before.Key {
			change.Key = in[b].Key
		}
		if in[b].Meter != before.Meter {
			change.Meter = in[b].Meter
		}
		bars[b].Change = change
		before = before.After(change)
		start := r.lines.Start(from + b)
		end := r.lines.End(from + b)
		var here, low []note
		here, chords = within(chords, start, end)
		low, bass = within(bass, start, end)
		pieces := divide(key, here, low, start, beat, beats)
		for _, p := range pieces {
			span := chart.Span{Beats: p.beats}
			if len(p.named) > 0 {
				span.Chord = p.named[0].Chord
				if said {
					r.doubt(b, p.named)
				}
			}
			if n := len(bars[b].Spans); n > 0 && bars[b].Spans[n-1].Name() == span.Name() {
				bars[b].Spans[n-1].Beats += span.Beats
				continue
			}
			bars[b].Spans = append(bars[b].Spans, span)
		}
	}
	return bars
}

// within is which of the notes, in order of time, sound between two ticks, and
// the notes without those at their head that are long past.
func within(notes []note, start, end int) (here, left []note) {
	for len(notes) > 0 && notes[0].end <= start {
		notes = notes[1:]
	}
	for _, n := range notes {
		if n.tick >= end {
			break
		}
		if n.end > start {
			here = append(here, n)
		}
	}
	return here, notes
}

// doubt says where a chord is a guess: it lacks what would tell it, or sounds
// with notes that it does not have.
func (r *reader) doubt(bar int, named []harmony.NamedChord) {
	best := named[0]
	lacks := []string{}
	for _, tone := range best.Missing {
		if tone.Degree.Number != 5 && tone.Degree.Number != 1 {
			lacks = append(lacks, tone.Note.String())
		}
	}
	if len(lacks) == 0 && best.Foreign == 0 && best.Cost < clearCost {
		return
	}
	why := ""
	if len(lacks) > 0 {
		why = "without " + strings.Join(lacks, " and ")
	}
	if best.Foreign > 0 {
		if why != "" {
			why += ", and "
		}
		why += "with notes that are not its own"
	}
	if why == "" {
		why = "with another bass"
	}
	others := []string{}
	for _, other := range named[1:min(len(named), 3)] {
		others = append(others, other.Chord.Symbol())
	}
	r.Remark(bar+1, best.Chord.Symbol(), "a guess, %s; it may be %s", why, strings.Join(others, " or "))
}

// piece is a stretch of a bar with one chord.
type piece struct {
	beats int
	named []harmony.NamedChord
	cost  float64
}

// divide cuts a bar into the chords that fit its notes best: every way to cut it
// at beats is tried, of which there are at most eight.
func divide(key harmony.Key, notes, bass []note, start, beat, beats int) []piece {
	if len(notes) == 0 {
		return []piece{{beats: beats}}
	}
	table := map[[2]int]piece{}
	for a := range beats {
		for b := a + 1; b <= beats; b++ {
			table[[2]int{a, b}] = name(key, notes, bass, start+a*beat, start+b*beat, b-a)
		}
	}
	best, cost := []piece(nil), math.Inf(1)
	for cuts := range 1 << (beats - 1) {
		pieces, total, a := []piece{}, 0.0, 0
		for b := 1; b <= beats; b++ {
			if b < beats && cuts>>(b-1)&1 == 0 {
				continue
			}
			p := table[[2]int{a, b}]
			pieces = append(pieces, p)
			total += (p.cost*float64(p.beats) + segmentCost) / float64(beats)
			if a%2 == 1 {
				total += weakBeat / float64(beats)
			}
			if len(p.named) == 0 && (b-a < beats) {
				total = math.Inf(1) // a silent part of a bar holds the chord before
			}
			a = b
		}
		if total < cost {
			best, cost = pieces, total
		}
	}
	return best
}

// name names what sounds from one tick to another, the bass note at its start
// counted in.
func name(key harmony.Key, notes, bass []note, from, until, beats int) piece {
	var weights [12]float64
	low := 128
	for _, n := range notes {
		if overlap := min(n.end, until) - max(n.tick, from); overlap > 0 {
			weights[n.key%12] += float64(overlap)
			low = min(low, n.key)
		}
	}
	for _, n := range bass {
		if n.tick-from <= (until-from)/8 && n.tick >= from-(until-from)/16 && n.end > from {
			low = n.key
			weights[n.key%12] += float64(until-from) / 2
			break
		}
	}
	p := piece{beats: beats}
	if low < 128 {
		class := pitch.Class(low % 12)
		p.named = key.NameChord(weights, &class)
	}
	if len(p.named) > 0 {
		p.cost = p.named[0].Cost
	}
	return p
}

// labels puts the markers that stand on a bar line on their bars.
func (r *reader) labels(from int) {
	for _, tick := range slices.Sorted(maps.Keys(r.sections)) {
		label := r.sections[tick]
		label = strings.TrimSpace(strings.Map(func(c rune) rune {
			if c < ' ' || c == 0xfffd || c == 0x7f || strings.ContainsRune("[]|", c) {
				return -1
			}
			return c
		}, label))
		if runes := []rune(label); len(runes) > chart.MaxSection {
			label = strings.TrimSpace(string(runes[:chart.MaxSection]))
		}
		if at := r.lines.BarAt(tick) - from; tick == r.lines.BarStart(tick) && at >= 0 && at < len(r.Chart.Bars) {
			r.Chart.Bars[at].Section = label
		} else {
			r.Remark(0, label, "this marker stands on no bar line and is not used")
		}
	}
}
