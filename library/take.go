package library

import (
	"context"
	"math"
	"time"

	"undaris/core/take/judge"
	"undaris/format/document"
	"undaris/store"
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

// keepsDeleted is how long the sound of a deleted take is kept, so that it can be brought back (our choice).
const keepsDeleted = 30 * 24 * time.Hour

// ClearSounds removes the files of sound that no take refers to, and those of takes that were deleted long ago, and
// returns how many bytes that freed. Where a take cannot be read nothing is removed: it may be its sound.
func (l *Library) ClearSounds(ctx context.Context, sounds *store.Sounds, now time.Time) (int64, error) {
	inUse := map[string]bool{}
	kept, err := Takes.List(ctx, l, 0)
	if err != nil {
		return 0, err
	}
	deleted, err := Takes.Deleted(ctx, l)
	if err != nil {
		return 0, err
	}
	for _, e := range kept {
		if e.Damaged != "" {
			return 0, nil
		}
		inUse[e.Summary.Sound] = true
		if e.Version == 1 {
			continue
		}
		// What an earlier version sounds like is kept as long as the version is.
		earlier, err := Takes.Revisions(ctx, l, e.ID)
		if err != nil {
			return 0, err
		}
		for _, r := range earlier {
			if r.Body.Sound != nil {
				inUse[r.Body.Sound.Hash] = true
			}
		}
	}
	for _, e := range deleted {
		if e.Damaged != "" {
			return 0, nil
		}
		if now.Sub(e.Saved) < keepsDeleted {
			inUse[e.Summary.Sound] = true
		}
	}
	return sounds.Clear(inUse, time.Hour, now)
}
