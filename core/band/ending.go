package band

import (
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// How far an ending slows down: its last beat takes so many times as long as one in tempo
// (our choice, by ear).
const ritard = 1.7

// addEnding ends the performance: the last bar leads home, and one more bar holds the
// chord of the tonic.
func (s *score) addEnding(add func(index int) *bar) {
	if len(s.bars) == 0 {
		return
	}
	end := &s.bars[len(s.bars)-1]
	end.fill, end.turnaround = false, true
	s.leadHome(end)
	ring := add(end.index)
	ring.spans = []span{{
		chord: end.key.TonicChord(), tick: ring.tick, ticks: ring.meter.BarTicks(), beats: ring.meter.Beats(),
		at: end.spans[len(end.spans)-1].at,
	}}
	ring.chorus, ring.last, ring.top, ring.fill, ring.stop, ring.turnaround = end.chorus, true, false, false, false, false
}

// leadHome makes a bar that does not end on the dominant end on one: the V, or in a blues
// the dominant a half step above the tonic.
func (s *score) leadHome(b *bar) {
	last := b.spans[len(b.spans)-1]
	tonic := b.key.Tonic.Class()
	root := last.chord.Root.Class()
	if !last.silent && (root == pitch.ClassOf(int(tonic)+7) || root == pitch.ClassOf(int(tonic)+1)) {
		return
	}
	numeral := "V7"
	if b.key.Mode == harmony.DominantMode && s.random(*b, forEnding).IntN(2) == 0 {
		numeral = "bII7"
	}
	dominant, err := b.key.ParseRoman(numeral)
	if err != nil {
		panic(err)
	}
	beats := last.beats / 2
	if beats == 0 {
		b.spans[len(b.spans)-1].chord, b.spans[len(b.spans)-1].silent = dominant, false
		return
	}
	beat := b.meter.BeatTicks()
	at := &b.spans[len(b.spans)-1]
	at.beats -= beats
	at.ticks -= beats * beat
	b.spans = append(b.spans, span{
		chord: dominant, tick: at.tick + at.ticks, ticks: beats * beat, beat: at.beat + at.beats, beats: beats, at: at.at,
	})
}

// slowDown stretches what sounds from the last bar of the chart on.
func (p *Performance) slowDown(s score) {
	if len(s.bars) < 2 {
		return
	}
	from, to := s.bars[len(s.bars)-2].tick, s.bars[len(s.bars)-1].tick
	// The tempo falls evenly over the bar, and stays where it is for the last chord.
	slowed := func(tick int) int {
		into := float64(tick - from)
		length := float64(to - from)
		switch {
		case tick <= from:
			return tick
		case tick <= to:
			return from + int(into+(ritard-1)*into*into/(2*length)+0.5)
		}
		return from + int(length*(1+ritard)/2+(into-length)*ritard+0.5)
	}
	for n := range p.Notes {
		note := &p.Notes[n]
		start := slowed(note.Tick)
		for k := range note.Curve {
			note.Curve[k].Ticks = slowed(note.Tick+note.Curve[k].Ticks) - start
		}
		for k := range note.Continues {
			note.Continues[k].Ticks = slowed(note.Tick+note.Continues[k].Ticks) - start
		}
		note.Ticks = slowed(note.Tick+note.Ticks) - start
		note.Tick = start
	}
	for n := range p.Beats {
		p.Beats[n].Tick = slowed(p.Beats[n].Tick)
	}
	for n := range p.Chords {
		end := slowed(p.Chords[n].Tick + p.Chords[n].Ticks)
		p.Chords[n].Tick = slowed(p.Chords[n].Tick)
		p.Chords[n].Ticks = end - p.Chords[n].Tick
	}
	p.End = slowed(p.End)
}
