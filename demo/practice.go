package demo

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"undaris/core/practice"
	"undaris/core/practice/logbook"
	"undaris/core/practice/schedule"
	"undaris/library/documents"
	keptpractice "undaris/library/practice"
)

// practiceDays is how far back the log of the demo set goes: six weeks.
const practiceDays = 42

// practiced are the licks and tunes of the demo log, with the tempo that each was begun at and the
// one that is wanted.
var practiced = []struct {
	kind        logbook.Kind
	item        string
	begun, goal int
}{
	{logbook.Lick, "Rope and cleat", 66, 112}, {logbook.Lick, "Low lamp", 48, 54}, {logbook.Lick, "Ferry call", 80, 120},
	{logbook.Tune, "Tin Roof Ferry", 90, 112}, {logbook.Tune, "Cold Kettle", 48, 54},
}

// FillPractice keeps six weeks of practice, ending on the day before a moment: most days a quarter
// of an hour to three, now and then none, cards that are known better from week to week, tempos that
// rise with setbacks. It is made up from a seed, so that it is always the same.
func FillPractice(ctx context.Context, l *documents.Library, now time.Time) error {
	kept := keptpractice.New(l)
	enrolled, err := kept.Enrolled(ctx, keptpractice.Scope{})
	if err != nil {
		return err
	}
	d := diary{r: rand.New(rand.NewPCG(18, 1)), memories: map[string]schedule.Memory{}}
	for day := practiceDays; day > 0; day-- {
		began := time.Date(now.Year(), now.Month(), now.Day()-day, 18+d.r.IntN(3), d.r.IntN(60), 0, 0, now.Location())
		rests := d.r.Float64()
		if day > 3 && (rests < 0.2 || day%7 == 3 && rests < 0.5) {
			continue
		}
		d.practise(began, practiceDays-day, enrolled)
	}
	if err := kept.KeepHistory(ctx, d.answers); err != nil {
		return err
	}
	_, err = kept.AddLog(ctx, d.entries)
	return err
}

// diary is the practice that is made up.
type diary struct {
	r        *rand.Rand
	memories map[string]schedule.Memory
	answers  []keptpractice.Answer
	entries  []keptpractice.LogEntry
}

// practise makes one sitting up.
func (d *diary) practise(began time.Time, day int, enrolled []practice.Card) {
	at := began
	add := func(seconds int, e logbook.Entry) {
		e.Began, e.Seconds = at, seconds
		at = at.Add(time.Duration(seconds) * time.Second)
		d.entries = append(d.entries, keptpractice.LogEntry{UID: fmt.Sprintf("demo %d", len(d.entries)+1), Entry: e})
	}
	add(120+d.r.IntN(120), logbook.Entry{Kind: logbook.WarmUp})
	right, of := d.answer(at, day, enrolled)
	if of > 0 {
		add(of*14, logbook.Entry{Kind: logbook.Cards, Right: right, Of: of})
	}
	for n := range 1 + d.r.IntN(2) {
		p := practiced[[]int{0, 0, 1, 0, 2}[day%5]]
		if n > 0 || day%2 == 1 {
			p = practiced[3+day%2]
		}
		share := min(float64(day)/practiceDays*0.75+0.12*(d.r.Float64()-0.5), 1)
		tempo := p.begun + int(float64(p.goal-p.begun)*max(share, 0))
		tempo -= tempo % 2
		went := logbook.Clean
		switch x := d.r.Float64(); {
		case x < 0.12:
			went = logbook.Rough
		case x < 0.3:
			went = logbook.Fair
		}
		add(240+60*d.r.IntN(8), logbook.Entry{Kind: p.kind, Item: p.item, Tempo: tempo, Goal: p.goal, Went: went})
	}
	if d.r.IntN(3) == 0 {
		add(300+60*d.r.IntN(6), logbook.Entry{Kind: logbook.Free})
	}
}

// answer makes up the answers of a sitting: what is due, then a few new cards.
func (d *diary) answer(at time.Time, day int, enrolled []practice.Card) (right, of int) {
	asked := []practice.Card{}
	for _, known := range schedule.Due(d.memories, enrolled, at) {
		asked = append(asked, known.Card)
	}
	asked = append(asked[:min(len(asked), 24)], d.fresh(enrolled)...)
	for _, card := range asked {
		memory := d.memories[card.ID()]
		// The further from home, the harder; the oftener it was asked, the easier.
		chance := min(0.55+0.09*float64(memory.Reps)-0.05*float64(len(card.Position))-0.03*float64(int(card.Key.Tonic.Class()+5)%5)+0.004*float64(day), 0.96)
		a := keptpractice.Answer{Card: card, At: at, Right: d.r.Float64() < chance, Got: 1, Of: 1, Took: time.Duration(4000+d.r.IntN(14000)) * time.Millisecond}
		_, offset := at.Zone()
		a.OffsetMinutes = offset / 60
		if a.Right {
			right++
		} else {
			a.Got = 0
		}
		of++
		at = at.Add(a.Took)
		d.memories[card.ID()] = memory.Review(at, schedule.GradeOf(a.Right, 0, a.Took, 0))
		d.answers = append(d.answers, a)
	}
	return right, of
}

// fresh are the new cards of a sitting, from tunes in turn.
func (d *diary) fresh(enrolled []practice.Card) []practice.Card {
	keys := []string{}
	for _, card := range enrolled {
		if name := card.Key.Tonic.String(); !slices.Contains(keys, name) {
			keys = append(keys, name)
		}
	}
	all := []practice.Card{}
	for range 3 {
		key := keys[d.r.IntN(len(keys))]
		skip := d.r.IntN(120)
		for _, card := range enrolled {
			if _, known := d.memories[card.ID()]; known || card.Key.Tonic.String() != key || slices.ContainsFunc(all, func(c practice.Card) bool { return c.ID() == card.ID() }) {
				continue
			}
			if skip--; skip < 0 {
				all = append(all, card)
				break
			}
		}
	}
	return all
}
