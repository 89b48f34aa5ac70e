package chorus

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// PlayContext is what a solo is played over and on: a tune, and the neck above its capo.
type PlayContext struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	// SpanMM is how far the hand reaches, in millimetres.
	SpanMM float64
}

// TransposeLoss is something of a solo that could not stay as it was when its tune moved.
type TransposeLoss struct {
	// Chorus counts from 0, Tick is one of that chorus.
	Chorus, Tick int
	Text         string
}

// Interval is by how many semitones the tune was moved from one setting to the other,
// from -5 (down a fourth) to 6: what most of its beats say, since a key may also be read
// anew with the chords left where they are.
func (s PlayContext) Interval(to PlayContext) int {
	votes := [12]int{}
	was, is := s.Chart.ChordSpans(), to.Chart.ChordSpans()
	length := min(s.Chart.Ticks(), to.Chart.Ticks())
	for tick := 0; tick < length; tick += max(s.Chart.Meter.BeatTicks(), 1) {
		votes[chart.ChordAt(is, tick).Root.Class().Above(chart.ChordAt(was, tick).Root.Class())]++
	}
	byKey := to.Chart.Key.Tonic.Class().Above(s.Chart.Key.Tonic.Class())
	best := byKey
	for above, count := range votes {
		if count > votes[best] {
			best = above
		}
	}
	if best > 6 {
		best -= 12
	}
	return best
}

// octaves are how far beside the nearest a solo may be moved, the nearest first.
var octaves = []int{0, -12, 12, -24, 24}

// Transpose moves choruses along with their tune from one setting to another: every pitch by
// the tune's interval, every place by the same number of frets, in the octave that is
// nearest and where the neck has room for most of it. A block that cannot be slid is
// fingered anew where the hand then stands; what lies beyond the end of a shorter tune
// is left out. Everything that could not stay is said, note by note.
func Transpose(choruses []Chorus, from, to PlayContext) ([]Chorus, []TransposeLoss) {
	up := from.Interval(to)
	octave := nearestOctave(choruses, from, to, up)
	moved := make([]Chorus, len(choruses))
	m := transposer{from: from, to: to, up: up + octave}
	if octave != 0 {
		m.concede(0, 0, "the neck has no room for it where it was, so it sounds %s", octaveWords(octave))
	}
	for n, c := range choruses {
		moved[n] = m.chorus(n, c)
	}
	return moved, m.conceded
}

// TransposeLine is Transpose for one phrase, such as a line over a change.
func TransposeLine(p phrase.Phrase, from, to PlayContext) (phrase.Phrase, []TransposeLoss) {
	if len(p.Events) == 0 {
		return p, nil
	}
	line := Block{Kind: FreeBlock, Name: "the line", Start: p.Events[0].Tick, Ticks: p.Events[len(p.Events)-1].End() - p.Events[0].Tick, Notes: p.Events}
	up := from.Interval(to)
	octave := nearestOctave([]Chorus{{Blocks: []Block{line}}}, from, to, up)
	m := transposer{from: from, to: to, up: up + octave}
	if octave != 0 {
		m.concede(0, line.Start, "the neck has no room for it where it was, so it sounds %s", octaveWords(octave))
	}
	p.Events = m.block(0, line).Notes
	return p, m.conceded
}

// nearestOctave is the octave that all of it moves to: the nearest, unless more than half
// of its blocks cannot be slid there and fewer are stuck elsewhere (our choice: one block
// with open strings does not send a whole solo up an octave).
func nearestOctave(choruses []Chorus, from, to PlayContext, up int) int {
	best, least, blocks := 0, -1, 0
	all := slices.Clone(octaves)
	higher, _ := to.Instrument.SemitonesAbove(from.Instrument)
	far := func(octave int) int { return max(up+octave-higher, higher-up-octave) }
	slices.SortStableFunc(all, func(a, b int) int { return far(a) - far(b) })
	for _, octave := range all {
		stuck := 0
		blocks = 0
		for _, c := range choruses {
			for _, b := range c.Blocks {
				if len(b.Notes) == 0 {
					continue
				}
				blocks++
				if _, ok := lick.SlidePhrase((phrase.Phrase{Meter: from.Chart.Meter, Events: b.Notes}), from.Instrument, to.Instrument, up+octave, to.SpanMM); !ok {
					stuck++
				}
			}
		}
		if least < 0 && 2*stuck <= blocks {
			return octave
		}
		if least < 0 || stuck < least {
			best, least = octave, stuck
		}
	}
	return best
}

// transposer moves the blocks of choruses and notes what could not stay.
type transposer struct {
	from, to PlayContext
	up       int
	conceded []TransposeLoss
}

func (m *transposer) concede(rolled, tick int, format string, args ...any) {
	m.conceded = append(m.conceded, TransposeLoss{Chorus: rolled, Tick: tick, Text: fmt.Sprintf(format, args...)})
}

func (m *transposer) chorus(n int, c Chorus) Chorus {
	moved := Chorus{}
	for _, b := range c.Blocks {
		if b, ok := m.within(n, b); ok {
			moved.Blocks = append(moved.Blocks, m.block(n, b))
		}
	}
	return moved
}

// within is the part of the block that lies in the tune as it now is.
func (m *transposer) within(n int, b Block) (Block, bool) {
	end := m.to.Chart.Ticks()
	first := FirstTick(m.to.Chart.Timeline())
	if b.Start >= first && b.End() <= end {
		return b, true
	}
	at := m.from.Chart.Timeline().CountedInBar(b.Start)
	if b.Start >= end || b.End() <= first {
		m.concede(n, b.Start, "%s on %s is left out: the tune is shorter now", b.Title(), at)
		return b, false
	}
	cut := b
	cut.Start = max(b.Start, first)
	cut.Ticks = min(b.End(), end) - cut.Start
	cut.Notes = nil
	left := 0
	for _, e := range b.Notes {
		if e.Tick < cut.Start || e.Tick >= cut.End() {
			left++
			continue
		}
		e.Ticks = min(e.Ticks, cut.End()-e.Tick)
		cut.Notes = append(cut.Notes, e)
	}
	m.concede(n, b.Start, "%s on %s is cut short by %d notes: the tune is shorter now", b.Title(), at, left)
	return cut, true
}

// block moves one block, in the octave of the others where it can.
func (m *transposer) block(n int, b Block) Block {
	if len(b.Notes) == 0 {
		return b
	}
	p := phrase.Phrase{Meter: m.from.Chart.Meter, Events: b.Notes}
	best, octave := lick.Transposition{}, 0
	for k, by := range octaves {
		t := lick.TransposePhrase(p, m.from.Instrument, m.to.Instrument, m.up+by, m.window(b, by), m.to.SpanMM)
		if k == 0 || len(t.Dropped) < len(best.Dropped) {
			best, octave = t, by
		}
		if len(best.Dropped) == 0 {
			break
		}
	}
	if octave != 0 {
		m.concede(n, b.Start, "%s sounds %s: the neck has no room for it there", b.Title(), octaveWords(octave))
	}
	m.sayNotes(n, b, best, octave)
	b.Notes = best.Phrase.Events
	return b
}

// window is where the hand stands for a block once it is moved: as many frets away as the
// block sounds higher on the new neck.
func (m *transposer) window(b Block, octave int) neck.Window {
	low, _ := (phrase.Phrase{Events: b.Notes}).Frets()
	higher, _ := m.to.Instrument.SemitonesAbove(m.from.Instrument)
	core := low + m.up + octave - higher
	return m.to.Instrument.WindowFrom(min(max(core, 0), m.to.Instrument.Frets-3))
}

// sayNotes names the notes of a block that changed their string, were left out or lost a
// technique.
func (m *transposer) sayNotes(n int, b Block, t lick.Transposition, octave int) {
	if t.Slid {
		return
	}
	time, over := m.from.Chart.Timeline(), m.to.Chart.ChordSpans()
	kept := 0
	for at, e := range b.Notes {
		where := time.CountedInBar(e.Tick)
		sounds := m.to.Chart.Key.ToneOver(chart.ChordAt(over, e.Tick), pitch.ClassOf(int(e.Sounding(m.from.Instrument))+m.up+octave)).Note
		if slices.Contains(t.Dropped, at) {
			m.concede(n, e.Tick, "the %s on %s is left out: the neck does not have it", sounds, where)
			continue
		}
		if kept >= len(t.Phrase.Events) {
			break
		}
		now := t.Phrase.Events[kept]
		kept++
		if now.String != e.String {
			m.concede(n, e.Tick, "the %s on %s goes from string %d to string %d, fret %d", sounds, where, e.String, now.String, now.Fret)
		}
	}
	for _, lost := range t.Lost {
		m.concede(n, b.Start, "in %s on %s %s", b.Title(), time.CountedInBar(b.Start), lost)
	}
}

func octaveWords(semitones int) string {
	words := map[int]string{-24: "two octaves lower", -12: "an octave lower", 12: "an octave higher", 24: "two octaves higher"}
	return words[semitones]
}
