package access

import (
	"fmt"
	"time"

	"golang.org/x/time/rate"
)

// How guesses are slowed down (our choice): who knows the passphrase mistypes it a few times; who guesses is held to some
// two hundred a day from one address and two thousand from all, against 2^73 that are possible.
const (
	freeGuesses  = 5
	longestWait  = 15 * time.Minute
	forgottenIn  = 24 * time.Hour
	mostTracked  = 10_000
	allPerMinute = 1.5
	allAtOnce    = 20
)

// WaitError says how long to wait before the next guess.
type WaitError struct{ For time.Duration }

func (e *WaitError) Error() string {
	return fmt.Sprintf("too many wrong passphrases: wait %s and try again", e.For.Round(time.Second))
}

// guesses counts the wrong passphrases.
type guesses struct {
	of  map[string]*guesser
	all *rate.Limiter
}

// guesser is an address and its wrong passphrases.
type guesser struct {
	wrong int
	last  time.Time
}

func newGuesses() *guesses {
	return &guesses{of: map[string]*guesser{}, all: rate.NewLimiter(rate.Limit(allPerMinute/60), allAtOnce)}
}

// wait is how long the passphrase of an address is not looked at: a second after the fifth wrong one, then twice as long
// each time.
func (g *guesses) wait(address string, now time.Time) time.Duration {
	one := g.of[address]
	if one == nil || one.wrong < freeGuesses || now.Sub(one.last) > forgottenIn {
		return 0
	}
	wait := time.Second << min(one.wrong-freeGuesses, 20)
	return min(wait, longestWait) - now.Sub(one.last)
}

// wrong notes a wrong passphrase of an address.
func (g *guesses) wrong(address string, now time.Time) {
	if len(g.of) >= mostTracked {
		for known, one := range g.of {
			if now.Sub(one.last) > longestWait {
				delete(g.of, known)
			}
		}
	}
	one := g.of[address]
	if one == nil || now.Sub(one.last) > forgottenIn {
		one = &guesser{}
		if len(g.of) < mostTracked {
			g.of[address] = one
		}
	}
	one.wrong++
	one.last = now
	g.all.AllowN(now, 1)
}

// waitOfAll is how long nobody's passphrase is looked at, because there were too many wrong ones from everywhere.
func (g *guesses) waitOfAll(now time.Time) time.Duration {
	missing := 1 - g.all.TokensAt(now)
	if missing <= 0 {
		return 0
	}
	return time.Duration(missing / (allPerMinute / 60) * float64(time.Second))
}

// right forgets the wrong passphrases of an address.
func (g *guesses) right(address string) { delete(g.of, address) }
