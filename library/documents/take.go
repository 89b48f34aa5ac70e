package documents

import (
	"math"
	"time"

	"undaris/core/take/judge"
	"undaris/format/document"
)

// TakeSummary is what a list shows of a take beside its name: enough to see how takes change over weeks.
type TakeSummary struct {
	Began   time.Time `json:"began"`
	Source  string    `json:"source"`
	Notes   int       `json:"notes"`
	Seconds float64   `json:"seconds"`
	Tempo   int       `json:"tempo"`
	Bytes   int64     `json:"bytes" doc:"Of its sound, 0 without one"`
	Sound   string    `json:"sound,omitempty" doc:"The hash of its sound"`
	// Landed of Landings are the changes that were landed on a chord tone.
	Landed   int     `json:"landed"`
	Landings int     `json:"landings"`
	Spread   float64 `json:"spread" doc:"How far from the grid its notes usually lie beside their lean, in ms"`
	Lean     float64 `json:"lean" doc:"How late they are in the middle, in ms; early below 0"`
}

func summarizeTake(d document.Take) TakeSummary {
	s := TakeSummary{Began: d.Began, Source: d.Source, Notes: len(d.Notes), Tempo: int(math.Round(d.PlayedTempo()))}
	if d.Sound != nil {
		s.Seconds, s.Bytes, s.Sound = d.Sound.Seconds, d.Sound.Bytes, d.Sound.Hash
	}
	order, err := d.Order()
	if err != nil {
		return s
	}
	v := judge.Judge(order)
	s.Landed, s.Landings = v.Landed()
	s.Spread, s.Lean = 1000*v.Timing.Spread, 1000*v.Timing.Lean
	return s
}
