package recording

import (
	"context"
	"time"

	"undaris/library/documents"
	"undaris/store"
)

// keepsDeleted is how long the sound of a deleted take is kept after it was deleted, so that it can be brought back (our
// choice).
const keepsDeleted = 30 * 24 * time.Hour

// ClearSounds removes the files of sound that no take refers to, and those of takes that were deleted long ago, and
// returns how many bytes that freed. What an earlier version sounds like is kept as long as the version is. Where a take
// cannot be read nothing is removed: it may be its sound.
func ClearSounds(ctx context.Context, l *documents.Library, sounds *store.Sounds, now time.Time) (int64, error) {
	return sounds.Clear(time.Hour, now, func() (map[string]bool, error) {
		inUse := map[string]bool{}
		kept, err := documents.Takes.List(ctx, l, 0)
		if err != nil {
			return nil, err
		}
		deleted, err := documents.Takes.Deleted(ctx, l)
		if err != nil {
			return nil, err
		}
		for _, e := range deleted {
			// One that seems to be deleted in the future was by a clock that was ahead.
			if age := now.Sub(e.Deleted); e.Damaged != "" || age < keepsDeleted {
				kept = append(kept, e)
			}
		}
		for _, e := range kept {
			if e.Damaged != "" {
				return nil, nil
			}
			inUse[e.Summary.Sound] = true
			if e.Version == 1 {
				continue
			}
			earlier, err := documents.Takes.Revisions(ctx, l, e.ID)
			if err != nil {
				return nil, err
			}
			for _, r := range earlier {
				if r.Damaged != "" {
					return nil, nil
				}
				if r.Body.Sound != nil {
					inUse[r.Body.Sound.Hash] = true
				}
			}
		}
		return inUse, nil
	})
}
