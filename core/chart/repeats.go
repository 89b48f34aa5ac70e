package chart

// PlayedBars lists the written bars, from 0, in the order in which a chorus plays
// them: repeats unrolled, first endings left out the last time.
func (c Chart) PlayedBars() []int {
	order := make([]int, 0, len(c.Bars))
	start := 0
	for b, bar := range c.Bars {
		if bar.RepeatFrom {
			start = b
		}
		order = append(order, b)
		if bar.RepeatTo == 0 {
			continue
		}
		for pass := 2; pass <= bar.RepeatTo; pass++ {
			for again := start; again <= b; again++ {
				if pass < bar.RepeatTo || c.Bars[again].Ending != 1 {
					order = append(order, again)
				}
			}
		}
		start = b + 1
	}
	return order
}

// checkRepeats holds the signs to what can be played: a repeat that starts also
// ends, none lies in another, a first ending closes its repeat, a second follows
// a first; and the chorus, played out, is no longer than a chart may be.
func (c Chart) checkRepeats() error {
	open := -1
	for b, bar := range c.Bars {
		field := barField(b)
		ended := b > 0 && c.Bars[b-1].Ending == 1 && c.Bars[b-1].RepeatTo > 0
		switch {
		case bar.Ending < 0 || bar.Ending > 2:
			return fail(field+".ending", "bar %d: an ending is 1, 2, or 0 for none", b+1)
		case bar.RepeatTo < 0 || bar.RepeatTo == 1 || bar.RepeatTo > MaxTimes:
			return fail(field+".repeatTo", "bar %d: a repeat is played 2 to %d times", b+1, MaxTimes)
		case bar.RepeatFrom && open >= 0:
			return fail(field+".repeatFrom", "bar %d: a repeat starts inside the one from bar %d; repeats do not nest", b+1, open+1)
		case bar.Ending == 1 && bar.RepeatFrom:
			return fail(field+".ending", "bar %d: a first ending comes after what is repeated", b+1)
		case bar.Ending == 1 && bar.RepeatTo == 0 && (b+1 == len(c.Bars) || c.Bars[b+1].Ending != 1):
			return fail(field+".ending", "bar %d: a first ending closes with the repeat sign", b+1)
		case bar.Ending == 1 && b > 0 && c.Bars[b-1].RepeatTo > 0, bar.Ending == 1 && b == 0:
			return fail(field+".ending", "bar %d: a first ending needs something before it to repeat", b+1)
		case bar.Ending == 2 && !ended && (b == 0 || c.Bars[b-1].Ending != 2):
			return fail(field+".ending", "bar %d: a second ending follows a first one", b+1)
		case bar.Ending == 2 && bar.RepeatTo > 0:
			return fail(field+".repeatTo", "bar %d: nothing is repeated from a second ending", b+1)
		}
		if bar.RepeatFrom {
			open = b
		}
		if bar.RepeatTo > 0 {
			open = -1
		}
	}
	if open >= 0 {
		return fail(barField(open)+".repeatFrom", "bar %d: the repeat that starts here never ends", open+1)
	}
	if played := c.barCount(); played > MaxBars {
		return fail("bars", "with its repeats a chorus has %d bars; at most %d can be played", played, MaxBars)
	}
	return nil
}

// barCount counts the bars of a chorus without listing them.
func (c Chart) barCount() int {
	count, start := 0, 0
	for b, bar := range c.Bars {
		if bar.RepeatFrom {
			start = b
		}
		count++
		if bar.RepeatTo == 0 {
			continue
		}
		count += (bar.RepeatTo - 1) * (b - start + 1)
		for again := start; again <= b; again++ {
			if c.Bars[again].Ending == 1 {
				count--
			}
		}
		start = b + 1
	}
	return count
}

// tidied takes off the repeat signs that make no sense any more after bars came
// or went, and keeps the others.
func (c Chart) tidied() Chart {
	bars := append([]Bar(nil), c.Bars...)
	open := -1
	for b := range bars {
		bar := &bars[b]
		if bar.RepeatFrom && open >= 0 {
			bars[open].RepeatFrom = false
		}
		if bar.RepeatFrom {
			open = b
		}
		if bar.Ending == 1 {
			next := b+1 < len(bars) && bars[b+1].Ending == 1
			if bar.RepeatFrom || b == 0 || bars[b-1].RepeatTo > 0 || (bar.RepeatTo == 0 && !next) {
				bar.Ending = 0
			}
		}
		if bar.Ending == 2 {
			follows := b > 0 && (bars[b-1].Ending == 2 || (bars[b-1].Ending == 1 && bars[b-1].RepeatTo > 0))
			if !follows || bar.RepeatTo > 0 {
				bar.Ending = 0
			}
		}
		if bar.RepeatTo > 0 {
			open = -1
		}
	}
	if open >= 0 {
		bars[open].RepeatFrom = false
	}
	// A first ending may have lost the bar that closed it.
	for b := len(bars) - 1; b >= 0; b-- {
		if bars[b].Ending == 1 && bars[b].RepeatTo == 0 && (b+1 == len(bars) || bars[b+1].Ending != 1) {
			bars[b].Ending = 0
		}
	}
	c.Bars = bars
	return c
}

// Excerpt is the chart with only so many of its bars as they are played, from one on (counted from
// 0): no repeat is left.
func (c Chart) Excerpt(from, bars int) Chart {
	played := c.PlayedBars()
	part := c
	part.Bars = nil
	for _, b := range played[from:min(from+bars, len(played))] {
		bar := c.Bars[b]
		bar.RepeatFrom, bar.RepeatTo, bar.Ending = false, 0, 0
		part.Bars = append(part.Bars, bar)
	}
	return part
}
