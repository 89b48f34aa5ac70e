package document

import (
	"fmt"
	"math"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/take/transcribe"
)

// PlayedPass is one time through the tune that the band played while a take was recorded.
type PlayedPass struct {
	Start float64 `json:"start" doc:"Seconds from the beginning of the sound at which its first bar begins"`
	Chart Chart   `json:"chart" doc:"The tune in the key and at the tempo that it was played in"`
	Speed float64 `json:"speed,omitempty" doc:"As in the take"`
}

// MaxPlayedPasses is how many times through a tune one recording may hold.
const MaxPlayedPasses = 200

const (
	// passSlack is how many seconds a pass may begin beside the end of the one before it and still follow it: the
	// readings of the band's clock are some milliseconds apart.
	passSlack = 0.15
	// pickupSeconds is how long before a pass a note may begin and belong to it.
	pickupSeconds = 0.4
)

// ByPasses is a take of a routine as takes that each have one key and one tempo: choruses that follow each other in
// the same key, at the same tempo, stay together. They share the sound. It is the take itself, over the first
// pass, where nothing changes on the way.
func (d Take) ByPasses(passes []PlayedPass) ([]Take, error) {
	if len(passes) > MaxPlayedPasses {
		return nil, &chart.FieldError{Field: "passes", Detail: fmt.Sprintf("a recording has at most %d passes, not %d", MaxPlayedPasses, len(passes))}
	}
	if len(passes) == 0 {
		return []Take{d}, nil
	}
	groups := []PlayedPass{}
	var last PlayedPass
	for n, p := range passes {
		if n == 0 || !follows(last, p) {
			groups = append(groups, p)
		}
		last = p
	}
	takes := make([]Take, len(groups))
	for n, g := range groups {
		one := d
		one.Chart, one.Start, one.Speed = g.Chart, g.Start, g.Speed
		if n > 0 {
			one.Plan, one.PlanName, one.From = nil, "", 0
		}
		if len(groups) > 1 {
			one.Name = partName(d.Name, n+1, len(groups))
			from, to := math.Inf(-1), math.Inf(1)
			if n > 0 {
				from = g.Start - pickupSeconds
			}
			if n+1 < len(groups) {
				to = groups[n+1].Start - pickupSeconds
			}
			one.Notes = []TakeNote{}
			for _, note := range d.Notes {
				if note.Onset-d.Delay/1000 >= from && note.Onset-d.Delay/1000 < to {
					one.Notes = append(one.Notes, note)
				}
			}
		}
		takes[n] = one
	}
	return takes, nil
}

// partName names a part of a take within the length that a name may have.
func partName(name string, part, of int) string {
	end := fmt.Sprintf(", %d of %d", part, of)
	if room := lick.MaxName - len([]rune(end)); len([]rune(name)) > room {
		name = string([]rune(name)[:room])
	}
	return name + end
}

// follows says whether a pass goes on where another ends, as it was.
func follows(before, next PlayedPass) bool {
	if before.Chart.Key != next.Chart.Key || before.Chart.Tempo != next.Chart.Tempo || before.Speed != next.Speed {
		return false
	}
	over, _, err := PlayContextOf(before.Chart, nil)
	if err != nil {
		return false
	}
	clock := transcribe.ClockFor(over.Chart, before.Start, 0)
	if before.Speed > 0 {
		clock.SecondsPerTick *= 100 / before.Speed
	}
	ends := before.Start + float64(over.Chart.Timeline().Ticks())*clock.SecondsPerTick
	return math.Abs(next.Start-ends) <= passSlack
}
