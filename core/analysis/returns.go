package analysis

import (
	"fmt"

	"undaris/core/neck"
	"undaris/core/phrase"
)

// Return is a phrase of a line that comes back later.
type Return struct {
	// First and Again are the notes of both, as indices of events.
	First, Again []int
	Text         string
}

// leastReturn is how many notes a phrase has at least for its return to be heard as one (ours).
const leastReturn = 3

// Returns lists the phrases that come back: the same notes in the same rhythm, moved along the scale
// or the neck, or with another ending. Phrases are told apart by silence; a phrase is compared with
// those before it, the nearest first.
func Returns(p phrase.Phrase, i neck.Instrument) []Return {
	found := []Return{}
	spans := PhraseSpans(p)
	for n, again := range spans {
		for k := n - 1; k >= 0; k-- {
			how, ok := returnsAs(p, i, spans[k], again)
			if !ok {
				continue
			}
			found = append(found, Return{
				First: indices(spans[k]), Again: indices(again),
				Text: fmt.Sprintf("the phrase of bar %d returns in bar %d%s", BarOf(p, p.Events[spans[k].From].Tick), BarOf(p, p.Events[again.From].Tick), how),
			})
			break
		}
	}
	return found
}

// returnsAs says how a phrase comes back in another, if it does.
func returnsAs(p phrase.Phrase, i neck.Instrument, first, again PhraseSpan) (how string, ok bool) {
	length := min(first.To-first.From, again.To-again.From)
	alike, moved, turned := 0, false, false
	shift := p.Events[again.From].Sounding(i) - p.Events[first.From].Sounding(i)
	for n := range length {
		a, b := p.Events[first.From+n], p.Events[again.From+n]
		if a.Tick-p.Events[first.From].Tick != b.Tick-p.Events[again.From].Tick {
			break
		}
		if n > 0 {
			rises := func(s PhraseSpan) int {
				return sign(int(p.Events[s.From+n].Sounding(i) - p.Events[s.From+n-1].Sounding(i)))
			}
			if rises(first) != rises(again) {
				break
			}
		}
		switch {
		case b.Sounding(i)-a.Sounding(i) != shift:
			turned = true
		case shift != 0:
			moved = true
		}
		alike++
	}
	longest := max(first.To-first.From, again.To-again.From)
	switch {
	case alike < leastReturn || 2*alike < longest:
		return "", false
	case alike < longest:
		how = " with another ending"
	case turned:
		how = ", fitted to its chord"
	case moved:
		how = ", moved"
	}
	return how, true
}

func sign(n int) int {
	switch {
	case n > 0:
		return 1
	case n < 0:
		return -1
	}
	return 0
}

func indices(s PhraseSpan) []int {
	all := []int{}
	for n := s.From; n < s.To; n++ {
		all = append(all, n)
	}
	return all
}
