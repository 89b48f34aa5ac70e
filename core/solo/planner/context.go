package planner

import (
	"undaris/core/neck"
	"undaris/core/solo/chorus"
)

// planContext is what the candidates of one plan share: the context of the request, and what
// is worked out once and kept for all of them.
type planContext struct {
	*chorus.Context
	// places are the places of a window, licks those of the vocabulary laid into one.
	places      map[neck.Window][]placeChoice
	licksPlaced map[placedLickKey]placedLick
	// bendGoals are the classes that are bent up to over each chord.
	bendGoals [][12]bool
}

// partDensity is how much busier the last of several choruses is than the first, as a share of the
// density asked for (our choice).
const partDensity = 0.3

func newPlanContext(o chorus.Request) (*planContext, error) {
	shared, err := o.NewContext()
	if err != nil {
		return nil, err
	}
	pc := &planContext{Context: shared, places: map[neck.Window][]placeChoice{}, licksPlaced: map[placedLickKey]placedLick{}}
	pc.Density *= 1 + partDensity*(pc.Part.Progress()-0.5)
	for n := range pc.Chords {
		goals := [12]bool{}
		for _, kind := range pc.bendKindsOver(n) {
			goals[(int(pc.Chords[n].Key.Tonic.Class())+kind.to)%12] = true
		}
		pc.bendGoals = append(pc.bendGoals, goals)
	}
	return pc, nil
}

// allPlaces lists every place of a window.
func (pc *planContext) allPlaces(w neck.Window) []placeChoice {
	if known, ok := pc.places[w]; ok {
		return known
	}
	all := []placeChoice{}
	for s := range pc.Instrument.Open {
		for fret := w.Low; fret <= w.High; fret++ {
			c := placeChoice{place: neck.Place{String: s + 1, Fret: fret}}
			c.pitch = pc.Instrument.Pitch(c.place)
			if w.IsReach(fret) {
				c.reach = costOfReach
			}
			all = append(all, c)
		}
	}
	pc.places[w] = all
	return all
}
