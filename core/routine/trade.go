package routine

import (
	"math/rand/v2"

	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Trade lays the line of a pass in which line and player take turns: the line begins, so
// many bars each, the count going on from chorus to chorus.
type Trade struct {
	Pass
	Instrument neck.Instrument
	// Position is where licks are laid.
	Position neck.Position
	// Seed decides which licks are played.
	Seed uint64
}

// stretch is some bars of a pass, and whether they are the player's.
type stretch struct {
	from, bars int
	yours      bool
}

func (t Trade) stretches() []stretch {
	all := []stretch{}
	each := t.Segment.TradeBars
	bars := t.Chart.Timeline().Bars()
	// The first pass of a segment begins with the line.
	before := t.Place.Pass * bars
	for bar := t.From; bar < t.From+t.Bars; {
		turn := (before + bar) / each
		end := min((turn+1)*each-before, t.From+t.Bars)
		all = append(all, stretch{bar, end - bar, turn%2 == 1})
		bar = end
	}
	return all
}

// BarRange is some bars one after the other: the first, from 0, and how many.
type BarRange struct{ From, Bars int }

// PlayerBars lists the stretches of the player.
func (t Trade) PlayerBars() []BarRange {
	all := []BarRange{}
	for _, s := range t.stretches() {
		if s.yours {
			all = append(all, BarRange{s.from, s.bars})
		}
	}
	return all
}

// Line is a line with the player's bars left out; with licks, one of them at the start of
// each of the other stretches instead, laid into the key and position. A lick that does not
// fit there, or is longer than the stretch, is not played.
func (t Trade) Line(line phrase.Phrase, start int, licks []lick.Lick) (phrase.Phrase, int) {
	time := t.Chart.Timeline()
	traded := phrase.Phrase{Meter: t.Chart.Meter}
	dice := rand.New(rand.NewPCG(t.Seed, uint64(t.Chorus)))
	for _, s := range t.stretches() {
		if s.yours {
			continue
		}
		from, to := time.Start(s.from), time.Start(s.from+s.bars)
		if len(licks) > 0 {
			traded.Events = append(traded.Events, t.lick(licks, dice, from, to)...)
			continue
		}
		for _, e := range line.Events {
			if e.Tick+start >= from && e.Tick+start < to {
				e.Tick += start
				traded.Events = append(traded.Events, e)
			}
		}
	}
	return traded, 0
}

// lick is one of the licks that fits a stretch, chosen by chance, at its start.
func (t Trade) lick(licks []lick.Lick, dice *rand.Rand, from, to int) []phrase.Event {
	time := t.Chart.Timeline()
	in := time.At(time.BarAt(from))
	for _, n := range dice.Perm(len(licks)) {
		lick := licks[n]
		if lick.Phrase.Meter != in.Meter {
			continue
		}
		set, err := lick.PlaceIn(t.Instrument, in.Key.Tonic.Class(), t.Position.Window)
		if err != nil || len(set.Phrase.Events) == 0 {
			continue
		}
		events := set.Phrase.Events
		// A pickup before the stretch would sound in the player's bars.
		if events[0].Tick < 0 || from+events[len(events)-1].End() > to {
			continue
		}
		laid := make([]phrase.Event, len(events))
		for k, e := range events {
			e.Tick += from
			laid[k] = e
		}
		return laid
	}
	return nil
}
