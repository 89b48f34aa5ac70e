package band

import (
	"math/rand/v2"

	"undaris/core/chart"
	"undaris/core/harmony"
)

// bar is one bar to be played, with all that decides how.
type bar struct {
	// index counts the bars of the chart from 0 and runs on through the choruses; of the
	// intro and of the bar in which an ending rings it is that of the bar played there.
	index int
	// chorus is which time through the chart it belongs to, inChorus its place there.
	chorus, inChorus int
	// tick is where it begins in the performance, before the feel is applied.
	tick  int
	meter chart.Meter
	// key and feel are those of the bar, style is what the band plays in it.
	key   harmony.Key
	feel  chart.Feel
	style Style
	spans []span
	// pickup is the unfinished bar before the first one: only its last beats have chords.
	pickup bool
	// intensity is how much the band plays.
	intensity intensity
	// fill says that the drums fill its end, top that a chorus begins, turnaround that it
	// is one of the last two of a chorus, stop that the band strikes and rests.
	fill, top, turnaround, stop bool
	// last is the bar in which the final chord rings.
	last bool
	// goesUp says that the bass goes up in it and comes down in the next one.
	goesUp bool
}

// span is a chord of a bar.
type span struct {
	chord  harmony.Chord
	silent bool
	// tick is where it begins in the performance, before the feel is applied.
	tick, ticks int
	// beat is the first of its beats in its bar, beats how many.
	beat, beats int
	at          int
}

// score is what Perform writes the parts from.
type score struct {
	Order
	time chart.Timeline
	bars []bar
	// countIn is where the first bar begins, end where the last one ends.
	countIn, end int
	// clickBars is how many bars are counted in before anything else sounds.
	clickBars int
}

// intensity is how much a band plays in a chorus.
type intensity int

const (
	light intensity = iota
	plain
	full
)

// intensities is the course of a long performance, chorus by chorus: it begins lightly,
// rises, and draws breath before it rises again. It goes round (our choice).
var intensities = []intensity{light, plain, plain, full, light, plain, full, full}

func intensityOf(chorus int) intensity {
	return intensities[chorus%len(intensities)]
}

// introBars is how many bars an intro has: those of a turnaround.
const introBars = 2

// stopBars is how many bars at the start of a chorus stop-time takes, at most half of it.
const stopBars = 4

// layOut lays the bars one after the other.
func (o Order) layOut() score {
	s := score{Order: o, time: o.Chart.Timeline(), clickBars: o.CountIn}
	s.end = o.CountIn * s.time.MeterAt(o.From).BarTicks()
	moments := map[int][]chart.ChordSpan{}
	for _, m := range o.Chart.WithoutImagined().ChordSpans() {
		moments[m.Bar] = append(moments[m.Bar], m)
	}
	add := func(index int) *bar {
		chorus, in := s.time.Chorus(index)
		b := bar{index: index, chorus: o.Chorus + chorus, inChorus: in, tick: s.end}
		b.sets(s, s.time.At(index))
		b.intensity = intensityOf(max(b.chorus, 0))
		for _, m := range moments[in] {
			b.spans = append(b.spans, span{
				chord: m.Written, silent: m.Silent, tick: b.tick + m.Tick - s.time.Start(in), ticks: m.Ticks,
				beat: m.Beat, beats: m.Ticks / b.meter.BeatTicks(), at: m.Tick,
			})
		}
		length := s.time.Bars()
		b.top = in == 0
		b.turnaround = length > introBars && in >= length-introBars
		b.fill = in%4 == 3 || in == length-1
		b.stop = o.StopTime && in < min(stopBars, length/2)
		s.bars = append(s.bars, b)
		s.end += b.meter.BarTicks()
		return &s.bars[len(s.bars)-1]
	}
	if o.Intro {
		length := s.time.Bars()
		for in := max(length-introBars, 0); in < length; in++ {
			b := add(in)
			b.chorus, b.top, b.intensity = o.Chorus, false, plain
		}
	}
	if o.From == 0 && o.Chorus == 0 && !o.Intro {
		s.addPickup()
	}
	s.countIn = s.end
	for n := range o.Bars {
		add(o.From + n)
	}
	if o.Ending {
		s.addEnding(add)
	}
	s.pairBars()
	return s
}

// sets gives a bar what holds in it. A section with another feel than the first bar, or counts
// otherwise, has the style that a chart of its own would have.
func (b *bar) sets(s score, in chart.Setting) {
	b.meter, b.key, b.feel, b.style = in.Meter, in.Key, in.Feel, s.Style
	first := s.time.At(0)
	if in.Feel != first.Feel || in.Meter.Compound() != first.Meter.Compound() {
		section := s.Chart
		section.Key, section.Meter, section.Feel = in.Key, in.Meter, in.Feel
		b.style = StyleFor(section)
	}
}

// addPickup adds the bar before bar 1. While the bars before are counted in its beats are the last of
// those; else the performance begins with them.
func (s *score) addPickup() {
	beats := 0
	for _, sp := range s.Chart.Pickup {
		beats += sp.Beats
	}
	if beats == 0 {
		return
	}
	b := bar{index: -1, chorus: s.Chorus, inChorus: -1, pickup: true}
	b.sets(*s, s.time.At(0))
	beat := b.meter.BeatTicks()
	if s.CountIn == 0 {
		s.end += beats * beat
	}
	b.tick = s.end - b.meter.BarTicks()
	b.intensity = intensityOf(max(b.chorus, 0))
	at := -beats * beat
	for _, sp := range s.Chart.Pickup {
		one := span{chord: sp.Chord, silent: sp.Empty(), tick: s.end + at, ticks: sp.Beats * beat, beat: b.meter.Beats() + at/beat, beats: sp.Beats, at: at}
		if one.silent {
			one.chord = s.Chart.TonicChord()
		}
		b.spans = append(b.spans, one)
		at += sp.Beats * beat
	}
	s.bars = append(s.bars, b)
}

// spanAfter is the chord that follows a span: the next one of the performance, or what
// comes after it.
func (s score) spanAfter(bar, k int) span {
	if k+1 < len(s.bars[bar].spans) {
		return s.bars[bar].spans[k+1]
	}
	if bar+1 < len(s.bars) {
		return s.bars[bar+1].spans[0]
	}
	if s.Next != nil {
		return span{chord: *s.Next}
	}
	return span{chord: s.Chart.WithoutImagined().ChordAt(s.time.Start(s.bars[bar].index + 1))}
}

// beats are the counted beats, those of the count-in too.
func (s score) beats() []BeatMark {
	marks := []BeatMark{}
	length := s.time.MeterAt(s.From).BarTicks()
	before := (s.countIn + length - 1) / length
	for n := range s.clickBars {
		meter := s.time.MeterAt(s.From)
		for beat := range meter.Beats() {
			marks = append(marks, BeatMark{Tick: n*meter.BarTicks() + beat*meter.BeatTicks(), Bar: n - before, Beat: beat})
		}
	}
	for n, b := range s.bars {
		index := b.inChorus
		if b.pickup {
			if s.clickBars == 0 {
				for _, sp := range b.spans {
					for beat := range sp.beats {
						marks = append(marks, BeatMark{Tick: sp.tick + beat*b.meter.BeatTicks(), Bar: -1, Beat: sp.beat + beat, At: sp.at + beat*b.meter.BeatTicks()})
					}
				}
			}
			continue
		}
		if b.tick < s.countIn {
			index = n - introBars
		}
		for beat := range b.meter.Beats() {
			at := s.time.Start(b.inChorus) + beat*b.meter.BeatTicks()
			marks = append(marks, BeatMark{Tick: b.tick + beat*b.meter.BeatTicks(), Bar: index, Beat: beat, At: at})
		}
	}
	return marks
}

func (s score) chordMarks() []ChordMark {
	marks := []ChordMark{}
	for _, b := range s.bars {
		for _, sp := range b.spans {
			marks = append(marks, ChordMark{Tick: sp.tick, Ticks: sp.ticks, Chord: sp.chord, Silent: sp.silent, At: sp.at})
		}
	}
	return marks
}

// purpose keeps the random numbers of one decision apart from that of every other.
type purpose uint64

const (
	forDrums purpose = iota + 1
	forFill
	forBass
	forBassPair
	forChords
	forBassTime
	forChordsTime
	forEnding
)

// random decides one thing in one bar of one chorus: the same for the same seed,
// wherever the performance begins.
func (s score) random(b bar, what purpose) *rand.Rand {
	return rand.New(rand.NewPCG(s.Seed, uint64(what)<<48|uint64(uint16(b.chorus))<<32|uint64(uint32(b.inChorus))))
}
