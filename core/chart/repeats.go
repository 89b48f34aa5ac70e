package chart

import (
	"fmt"
	"math"
)

// MaxEndings is how many endings a repeat may have.
const MaxEndings = 4

// PlayedBars lists the written bars, from 0, in the order in which a chorus plays them.
//
// A repeat is played as often as its sign says. Of its endings the first is played as often as its
// closing sign goes back, then the second likewise, and one that does not close the last time. After
// a D.C. or D.S. repeats are not taken again and of endings only the last is played; at the
// fine the tune ends, and from the sign to the coda it goes on there, with its repeats (common). A coda that
// stands in an ending plays the ending once, to its end: there is nothing before it to go back to (our choice).
func (c Chart) PlayedBars() []int {
	order, _ := c.play(math.MaxInt)
	return order
}

// bracket is an ending: its first and last bar, and the times through its repeat that play it.
type bracket struct {
	first, last int
	from, to    int
	closes      bool
}

// brackets gives each bar that begins an ending its bracket.
func (c Chart) brackets() map[int]bracket {
	found := map[int]bracket{}
	next := 1 // the time that the next ending begins with
	for b := 0; b < len(c.Bars); b++ {
		number := c.Bars[b].Ending
		if number == 0 {
			continue
		}
		if number == 1 {
			next = 1
		}
		one := bracket{first: b, last: b, from: next, to: math.MaxInt}
		for c.Bars[one.last].RepeatTo == 0 && one.last+1 < len(c.Bars) && c.Bars[one.last+1].Ending == number {
			one.last++
		}
		if times := c.Bars[one.last].RepeatTo; times > 0 {
			one.closes, one.to = true, next+times-2
			next = one.to + 1
		}
		found[b] = one
		b = one.last
	}
	return found
}

// reached says which of the signs that lead on were followed.
type reached struct{ jump, fine, coda bool }

// play lists the bars of a chorus as they are played, at most so many, and which signs it came to.
func (c Chart) play(limit int) ([]int, reached) {
	order := make([]int, 0, len(c.Bars))
	endings := c.brackets()
	start, time := 0, 1 // where the repeat at hand starts, and which time through it this is
	jump, again := NoJump, false
	followed := reached{}
	goTo := func(b int) int {
		start, time = b, 1
		return b
	}
	for b := 0; b < len(c.Bars) && len(order) < limit; {
		bar := c.Bars[b]
		if afterEndings := bar.Ending == 0 && b > 0 && c.Bars[b-1].Ending > 0; b != start && (bar.RepeatFrom || afterEndings) {
			goTo(b)
		}
		if ending, begins := endings[b]; begins && b != start && (again && ending.closes || !again && (time < ending.from || time > ending.to)) {
			b = ending.last + 1
			continue
		}
		order = append(order, b)
		goesBack := bar.RepeatTo > 0 && !again && (bar.Ending == 0 && time < bar.RepeatTo || bar.Ending > 0 && c.Bars[start].Ending == 0)
		switch {
		case bar.Signs.Fine && again && !jump.AlCoda():
			followed.fine = true
			return order, followed
		case bar.Signs.ToCoda && again && jump.AlCoda():
			followed.coda, again = true, false
			b = goTo(c.signBar(func(s Signs) bool { return s.Coda }))
			continue
		case goesBack:
			time++
			b = start
			continue
		case bar.RepeatTo > 0 && bar.Ending == 0:
			goTo(b + 1)
		}
		if bar.Signs.Jump != NoJump && jump == NoJump {
			jump, again, followed.jump = bar.Signs.Jump, true, true
			back := 0
			if jump.ToSegno() {
				back = c.signBar(func(s Signs) bool { return s.Segno })
			}
			b = goTo(back)
			continue
		}
		b++
	}
	return order, followed
}

// signBar is the first bar whose signs are such; the one past the last where there is none.
func (c Chart) signBar(such func(Signs) bool) int {
	for b, bar := range c.Bars {
		if such(bar.Signs) {
			return b
		}
	}
	return len(c.Bars)
}

// barCount counts the bars of a chorus.
func (c Chart) barCount() int {
	order, _ := c.play(math.MaxInt)
	return len(order)
}

// orderFault is a sign that cannot be played out where it stands.
type orderFault struct {
	bar           int
	field, detail string
	// clear takes the sign away.
	clear func(bars []Bar)
}

func (f *orderFault) err() error {
	return fail(barField(f.bar)+"."+f.field, "bar %d: %s", f.bar+1, f.detail)
}

// atBar is a fault of the named sign of a bar, which is mended by taking that sign away.
func atBar(b int, field, format string, args ...any) *orderFault {
	return &orderFault{bar: b, field: field, detail: fmt.Sprintf(format, args...), clear: func(bars []Bar) {
		switch bar := &bars[b]; field {
		case "ending":
			bar.Ending = 0
		case "repeatFrom":
			bar.RepeatFrom = false
		case "repeatTo":
			bar.RepeatTo = 0
		case "segno":
			bar.Signs.Segno = false
		case "coda":
			bar.Signs.Coda = false
		case "toCoda":
			bar.Signs.ToCoda = false
		case "fine":
			bar.Signs.Fine = false
		case "jump":
			bar.Signs.Jump = NoJump
		}
	}}
}

// checkOrder holds the signs to what can be played out, and the chorus, played out, to the length
// that a chart may have.
func (c Chart) checkOrder() error {
	if fault := c.orderFault(); fault != nil {
		return fault.err()
	}
	if order, _ := c.play(MaxBars + 1); len(order) > MaxBars {
		return fail("bars", "with its repeats a chorus has %d bars; at most %d can be played", c.barCount(), MaxBars)
	}
	return nil
}

// orderFault is the first sign that cannot be played out: a repeat that starts also ends and none
// lies in another, endings follow one another and go back, and a jump has what it leads to.
func (c Chart) orderFault() *orderFault {
	if fault := c.repeatFault(); fault != nil {
		return fault
	}
	if fault := c.checkSigns(); fault != nil {
		return fault
	}
	jumpBar := c.signBar(func(s Signs) bool { return s.Jump != NoJump })
	if jumpBar == len(c.Bars) {
		return nil
	}
	_, followed := c.play(MaxBars + 1)
	switch jump := c.Bars[jumpBar].Signs.Jump; {
	case !followed.jump:
		return atBar(jumpBar, "jump", "the %s is never come to: it stands where the repeat always goes back", jump)
	case jump.AlFine() && !followed.fine:
		return atBar(c.signBar(func(s Signs) bool { return s.Fine }), "fine", "the fine is never come to after the %s: it stands in an ending that is left out then", jump)
	case jump.AlCoda() && !followed.coda:
		return atBar(c.signBar(func(s Signs) bool { return s.ToCoda }), "toCoda", "the sign to the coda is never come to after the %s: it stands in an ending that is left out then", jump)
	}
	return nil
}

func (c Chart) repeatFault() *orderFault {
	open := -1
	for b, bar := range c.Bars {
		before := Bar{}
		if b > 0 {
			before = c.Bars[b-1]
		}
		begins := bar.Ending > 0 && (before.Ending != bar.Ending || before.RepeatTo > 0)
		last := b+1 == len(c.Bars) || c.Bars[b+1].Ending != bar.Ending
		switch {
		case bar.Ending < 0 || bar.Ending > MaxEndings:
			return atBar(b, "ending", "an ending is 1 to %d, or 0 for none", MaxEndings)
		case bar.RepeatTo < 0 || bar.RepeatTo == 1 || bar.RepeatTo > MaxTimes:
			return atBar(b, "repeatTo", "a repeat is played 2 to %d times", MaxTimes)
		case bar.RepeatFrom && open >= 0:
			fault := atBar(b, "repeatFrom", "a repeat starts inside the one from bar %d; repeats do not nest", open+1)
			inner := open
			fault.clear = func(bars []Bar) { bars[inner].RepeatFrom = false }
			return fault
		case bar.Ending > 0 && bar.RepeatFrom:
			return atBar(b, "ending", "%s ending comes after what is repeated", ordinals[bar.Ending])
		case begins && bar.Ending == 1 && (b == 0 || before.RepeatTo > 0 || before.Ending > 0):
			return atBar(b, "ending", "a first ending needs something before it to repeat")
		case begins && bar.Ending > 1 && (before.Ending != bar.Ending-1 || before.RepeatTo == 0):
			return atBar(b, "ending", "%s ending follows %s one", ordinals[bar.Ending], ordinals[bar.Ending-1])
		case bar.Ending == 1 && last && bar.RepeatTo == 0:
			return atBar(b, "ending", "a first ending closes with the repeat sign")
		}
		if bar.RepeatFrom {
			open = b
		}
		if bar.RepeatTo > 0 {
			open = -1
		}
	}
	if open >= 0 {
		return atBar(open, "repeatFrom", "the repeat that starts here never ends")
	}
	return nil
}

var ordinals = [MaxEndings + 1]string{"no", "a first", "a second", "a third", "a fourth"}

// tidied takes off the signs that make no sense any more after bars came or went, and keeps the
// others.
func (c Chart) tidied() Chart {
	c.Bars = append([]Bar(nil), c.Bars...)
	for {
		fault := c.orderFault()
		if fault == nil {
			return c
		}
		fault.clear(c.Bars)
	}
}

// Excerpt is the chart with only so many of its bars as they are played, from one on (counted from
// 0): no repeat is left, and what holds in its first bar is the chart's.
func (c Chart) Excerpt(from, bars int) Chart {
	played, settings := c.PlayedBars(), c.settings()
	part := c
	if from > 0 {
		part.Pickup = nil
	}
	cut, in := []Bar{}, []Setting{}
	for _, b := range played[from:min(from+bars, len(played))] {
		bar := c.Bars[b]
		bar.RepeatFrom, bar.RepeatTo, bar.Ending, bar.Signs = false, 0, 0, Signs{}
		cut, in = append(cut, bar), append(in, settings[b])
	}
	return part.withSettings(cut, in)
}
