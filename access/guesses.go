package access

import (
	"fmt"
	"net/netip"
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
	// ownGuesses of an address are counted apart from those of addresses that go on guessing, so that a neighbour with
	// dozens of them keeps nobody out: so many a minute from all, and so many at once.
	ownGuesses   = 2
	newPerMinute = 6
	newAtOnce    = 200
)

// networkOf is what counts as one guesser: an address of version 4 or, of version 6, the network of 64 bits that a house
// or a machine has all of.
func networkOf(address string) string {
	ip, err := netip.ParseAddr(address)
	if err != nil {
		return address
	}
	if ip = ip.Unmap().WithZone(""); ip.Is4() {
		return ip.String()
	}
	network, err := ip.Prefix(64)
	if err != nil {
		return address
	}
	return network.String()
}

// WaitError says how long to wait before the next guess.
type WaitError struct{ For time.Duration }

func (e *WaitError) Error() string {
	return fmt.Sprintf("too many wrong passphrases: wait %s and try again", e.For.Round(time.Second))
}

// guesses counts the wrong passphrases.
type guesses struct {
	of map[string]*guesser
	// fresh is of the first guesses of addresses, all of the others.
	fresh, all *rate.Limiter
}

// guesser is an address and its wrong passphrases.
type guesser struct {
	wrong int
	last  time.Time
}

func newGuesses() *guesses {
	return &guesses{
		of:  map[string]*guesser{},
		all: rate.NewLimiter(rate.Limit(allPerMinute/60), allAtOnce), fresh: rate.NewLimiter(rate.Limit(newPerMinute/60.0), newAtOnce),
	}
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
	limiter, _ := g.limiterOf(address)
	one.wrong++
	one.last = now
	limiter.AllowN(now, 1)
}

// limiterOf is what the guesses of an address are counted by, and how many of it there are a second.
func (g *guesses) limiterOf(address string) (*rate.Limiter, float64) {
	if one := g.of[address]; one == nil || one.wrong < ownGuesses {
		return g.fresh, newPerMinute / 60.0
	}
	return g.all, allPerMinute / 60
}

// waitOfAll is how long the passphrase of an address is not looked at because there were too many wrong ones from
// everywhere.
func (g *guesses) waitOfAll(address string, now time.Time) time.Duration {
	limiter, perSecond := g.limiterOf(address)
	missing := 1 - limiter.TokensAt(now)
	if missing <= 0 {
		return 0
	}
	return time.Duration(missing / perSecond * float64(time.Second))
}

// right forgets the wrong passphrases of an address.
func (g *guesses) right(address string) { delete(g.of, address) }
