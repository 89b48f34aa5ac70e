package analysis

import (
	"slices"

	"undaris/core/phrase"
)

// TechniqueKinds lists the kinds of technique that a line has.
func TechniqueKinds(p phrase.Phrase) []string {
	kinds := []string{}
	for n := range p.Events {
		for _, kind := range techniqueKindsOf(p, n) {
			if !slices.Contains(kinds, kind) {
				kinds = append(kinds, kind)
			}
		}
	}
	return kinds
}

func techniqueKindsOf(p phrase.Phrase, n int) []string {
	kinds := []string{}
	e := p.Events[n]
	for _, one := range []struct {
		used bool
		name string
	}{
		{e.SlideFrom > 0 || e.SlideOut != 0, "slides"}, {e.Bend > 1, "bends"}, {e.HammerOn, "hammer-ons"}, {e.PullOff, "pull-offs"},
		{e.Trill > 0, "trills"}, {e.Rake, "rakes"}, {e.Ghost, "ghost notes"},
		{n > 0 && p.Events[n-1].Tick == e.Tick, "double stops"},
	} {
		if one.used {
			kinds = append(kinds, one.name)
		}
	}
	return kinds
}
