package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"
)

// Kind is what is done in a block.
type Kind string

// The kinds of block.
const (
	WarmUp   Kind = "warm-up"
	Cards    Kind = "cards"
	Lick     Kind = "lick"
	Exercise Kind = "exercise"
	Tune     Kind = "tune"
	Free     Kind = "free"
	Phrase   Kind = "phrase"
	NoteDown Kind = "note"
	Break    Kind = "break"
)

// The bounds of a plan, in minutes.
const (
	MinMinutes, MaxMinutes = 5, 120
	// UntilBreak is how long is practised before a break, which lasts BreakMinutes (common advice:
	// hands and heads tire).
	UntilBreak, BreakMinutes = 25, 3
)

// Item is a lick, an exercise or a tune that may be practised.
type Item struct {
	ID   uint
	Name string
	// Days is how long ago it was touched, -1 for never. Tempo is the clean tempo that was reached,
	// 0 for none yet, Goal the one wanted, 0 for none.
	Days, Tempo, Goal int
	// Wanted says that it is what the player works towards.
	Wanted bool
}

// Request is what there is to practise, and how long.
type Request struct {
	Minutes int
	// Due and New are how many cards are due and how many new ones may come; SecondsACard is the
	// player's own time for one, 0 where it is not known.
	Due, New                int
	SecondsACard            float64
	Licks, Exercises, Tunes []Item
}

// Block is one part of a plan.
type Block struct {
	Kind    Kind
	Minutes int
	// Item is the id of the lick, exercise or tune, 0 for none.
	Item uint
	// Title and Detail say what is done, Why why it is there.
	Title, Detail, Why string
}

// MinutesError says which minutes are no plan's.
type MinutesError struct{ Minutes int }

func (e *MinutesError) Error() string {
	return fmt.Sprintf("a plan is for %d to %d minutes; %d are not, the nearest is %d", MinMinutes, MaxMinutes, e.Minutes, min(max(e.Minutes, MinMinutes), MaxMinutes))
}

// What a block is worth beside the others and takes at least, in minutes (our choice: what is weak
// gets most of the time, and a third of it is music).
type share struct {
	kind   Kind
	weight float64
	least  int
	// most is how long it makes sense at all; 0 for as long as there is.
	most int
}

// usualSeconds is how long a card takes before a player's own time is known (our choice).
const usualSeconds = 20

// Make makes a plan of just so many minutes; breaks come on top. Its error is a *MinutesError.
func Make(r Request) ([]Block, error) {
	if r.Minutes < MinMinutes || r.Minutes > MaxMinutes {
		return nil, &MinutesError{r.Minutes}
	}
	shares := r.shares()
	warm := min(max(r.Minutes/10, 1), 5)
	minutes := divide(shares, r.Minutes-warm-1)
	blocks := []Block{{Kind: WarmUp, Minutes: warm, Title: "Warm up", Detail: "slowly, nothing wide", Why: "cold hands are slow, and easily hurt by wide stretches"}}
	for n, s := range shares {
		if minutes[n] == 0 {
			continue
		}
		blocks = append(blocks, r.block(s.kind, minutes[n], r.neediest(s.kind)))
	}
	blocks = append(blocks, Block{Kind: NoteDown, Minutes: 1, Title: "Note down", Detail: "how it went", Why: "what is written down can be compared"})
	return withBreaks(blocks), nil
}

// Others lists what may stand in the place of a block of so many minutes: each lick, exercise and tune, the one
// that needs it most first, at most so many of each, and what needs no choice.
func Others(r Request, minutes, most int) []Block {
	all := []Block{}
	for _, kind := range []Kind{Lick, Exercise, Tune} {
		for _, item := range first(ranked(r.items(kind)), most) {
			all = append(all, r.block(kind, minutes, item))
		}
	}
	if r.Due+r.New > 0 {
		all = append(all, r.block(Cards, minutes, Item{}))
	}
	return append(all, r.block(Phrase, minutes, Item{}), r.block(Free, minutes, Item{}))
}

// items are what there is of a kind; nothing for kinds that need no choice.
func (r Request) items(kind Kind) []Item {
	return map[Kind][]Item{Lick: r.Licks, Exercise: r.Exercises, Tune: r.Tunes}[kind]
}

// neediest is the item of a kind that needs practice most.
func (r Request) neediest(kind Kind) Item {
	if items := ranked(r.items(kind)); len(items) > 0 {
		return items[0]
	}
	return Item{}
}

func first(items []Item, most int) []Item { return items[:min(most, len(items))] }

// shares are the blocks that there is something for.
func (r Request) shares() []share {
	all := []share{}
	if r.Due+r.New > 0 {
		all = append(all, share{Cards, 3, 2, r.cardMinutes()})
	}
	if len(r.Licks) > 0 {
		all = append(all, share{Lick, 3, 5, 20})
	}
	if len(r.Exercises) > 0 {
		all = append(all, share{Exercise, 1.5, 4, 12})
	}
	if len(r.Tunes) > 0 {
		all = append(all, share{Tune, 3.5, 5, 25})
	}
	all = append(all, share{Phrase, 1.2, 6, 10}, share{Free, 1, 4, 0})
	return all
}

func (r Request) cardMinutes() int {
	seconds := r.SecondsACard
	if seconds <= 0 {
		seconds = usualSeconds
	}
	return max(int(math.Ceil(float64(r.Due+r.New)*seconds/60)), 2)
}

// divide shares minutes out by weight: the lightest is left out where not all have their least, and
// what one cannot use the others have.
func divide(shares []share, minutes int) []int {
	out := make([]bool, len(shares))
	for n, s := range shares {
		out[n] = s.least > minutes
	}
	least := func() (sum int) {
		for n, s := range shares {
			if !out[n] {
				sum += s.least
			}
		}
		return sum
	}
	for least() > minutes {
		lightest := -1
		for n, s := range shares {
			if !out[n] && (lightest < 0 || s.weight < shares[lightest].weight) {
				lightest = n
			}
		}
		out[lightest] = true
	}
	given := make([]int, len(shares))
	left := minutes - least()
	for n, s := range shares {
		if !out[n] {
			given[n] = s.least
		}
	}
	if least() == 0 { // too short for any of them: free playing needs no time to begin
		given[len(given)-1], left = left, 0
	}
	for ; left > 0; left-- { // each minute to the one that is furthest below its share
		best := -1
		for n, s := range shares {
			if out[n] || s.most > 0 && given[n] >= s.most {
				continue
			}
			if best < 0 || float64(given[n])/s.weight < float64(given[best])/shares[best].weight {
				best = n
			}
		}
		if best < 0 { // nobody can use it: free playing can always
			best = len(shares) - 1
		}
		given[best]++
	}
	return given
}

// ranked are items with the one first that needs practice most: the goal, then what is furthest
// from its tempo and was left alone longest (our choice: two weeks weigh as much as a tempo of
// half the goal).
func ranked(items []Item) []Item {
	all := slices.Clone(items)
	need := func(i Item) float64 {
		n := min(float64(i.Days)/28, 1)
		if i.Days < 0 {
			n = 0.4 // what is new is no weakness yet
		}
		if i.Goal > 0 {
			n += 1 - min(float64(i.Tempo)/float64(i.Goal), 1)
		}
		if i.Wanted {
			n += 2
		}
		return n
	}
	slices.SortStableFunc(all, func(a, b Item) int { return cmp.Compare(need(b), need(a)) })
	return all
}

func (r Request) block(kind Kind, minutes int, item Item) Block {
	b := Block{Kind: kind, Minutes: minutes, Item: item.ID}
	switch kind {
	case Cards:
		b.Title, b.Detail, b.Why = "Due today", r.cardsText(), "the weakest first: what is about to be forgotten"
		if r.Due == 0 {
			b.Title, b.Why = "New cards", "nothing is due, so there is room for something new"
		}
	case Lick:
		b.Title, b.Detail, b.Why = item.Name, "in parts, slow at first", item.why()
		if item.Goal > 0 && item.Tempo > 0 {
			b.Detail = fmt.Sprintf("in parts, %d → %d", item.Tempo, item.Goal)
		}
	case Exercise:
		b.Title, b.Detail, b.Why = item.Name, "round and round, slowly", item.why()
		if item.Tempo > 0 {
			b.Detail = fmt.Sprintf("round and round, clean at %d", item.Tempo)
		}
	case Tune:
		b.Title, b.Detail, b.Why = item.Name, "a routine over the band", item.why()
	case Phrase:
		b.Title, b.Detail, b.Why = "A phrase of your own", "four bars with a limit", "what one writes oneself one keeps"
	case Free:
		b.Title, b.Detail, b.Why = "Play freely", "over the band, whatever comes", "that is what the rest is for"
	}
	return b
}

func (r Request) cardsText() string {
	switch {
	case r.Due == 0:
		return counted(r.New, "new card")
	case r.New == 0:
		return counted(r.Due, "card")
	}
	return fmt.Sprintf("%s, %d new", counted(r.Due, "card"), r.New)
}

func counted(n int, what string) string {
	if n == 1 {
		return "one " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// why says why an item was chosen.
func (i Item) why() string {
	switch {
	case i.Wanted:
		return "it is what you work towards"
	case i.Days < 0:
		return "it has not been practised yet"
	case i.Goal > 0 && i.Tempo < i.Goal && i.Days < 7:
		return fmt.Sprintf("%d of %d reached", i.Tempo, i.Goal)
	case i.Days == 1:
		return "it was last played yesterday"
	case i.Days == 0:
		return "it was played today, and goes on"
	}
	return fmt.Sprintf("it was left alone for %d days", i.Days)
}

// When a break would come too soon, and how many minutes are shifted to put it off.
const (
	soon    = 12
	shifted = 5
)

// withBreaks puts a break before a block that would make it more than 25 minutes since the last.
func withBreaks(blocks []Block) []Block {
	all := []Block{}
	since := 0
	for n, b := range blocks {
		// A break soon after the beginning is none: a few minutes go to the next block instead.
		if over := since + b.Minutes - UntilBreak; over > 0 && over <= shifted && since < soon && n+1 < len(blocks) && blocks[n+1].Kind != NoteDown {
			b.Minutes -= over
			blocks[n+1].Minutes += over
		}
		if b.Kind != NoteDown && since > 0 && since+b.Minutes > UntilBreak {
			all = append(all, Block{Kind: Break, Minutes: BreakMinutes, Title: "A break", Detail: "hands down, look far", Why: "25 minutes are enough for hands and head"})
			since = 0
		}
		for b.Minutes > UntilBreak { // a long block is broken, too
			part := b
			part.Minutes = UntilBreak
			all = append(all, part, Block{Kind: Break, Minutes: BreakMinutes, Title: "A break", Detail: "hands down, look far", Why: "25 minutes are enough for hands and head"})
			b.Minutes -= UntilBreak
		}
		all = append(all, b)
		since += b.Minutes
	}
	return all
}
