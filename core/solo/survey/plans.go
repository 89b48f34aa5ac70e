package survey

import (
	"context"
	"fmt"
	"slices"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
)

// tonics are the twelve keys that every scheme is planned in.
var tonics = []string{"C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"}

// Seeds is how many seeds each of the two tunes of OfSeeds is planned from.
const Seeds = 100

// OfSchemes plans every scheme in twelve keys and five positions, each from so many seeds,
// with default settings, and measures the best chorus of each plan. Licks, where there are
// any, are the vocabulary.
func OfSchemes(ctx context.Context, seeds int, licks []lick.Lick) (*Summary, error) {
	s := NewSummary()
	for _, scheme := range chart.Schemes {
		for k, tonic := range tonics {
			for f, form := range []string{"C", "A", "G", "E", "D"} {
				for seed := range seeds {
					request, err := Request(scheme, tonic, form, uint64(seeds*(5*k+f)+seed))
					if err != nil {
						return nil, err
					}
					c, err := planned(ctx, request, licks)
					if err != nil {
						return nil, err
					}
					s.Add(c, Asked{request.Density, request.Space})
				}
			}
		}
	}
	return s, nil
}

// OfSeeds plans two tunes, a quick change in C and a minor twelve-bar in A, from a hundred
// seeds each.
func OfSeeds(ctx context.Context, licks []lick.Lick) ([2]*Variety, error) {
	all := [2]*Variety{NewVariety(), NewVariety()}
	for n, tune := range [2]struct{ scheme, tonic string }{{"quick change", "C"}, {"minor twelve-bar", "A"}} {
		scheme, err := chart.FindScheme(tune.scheme)
		if err != nil {
			return all, err
		}
		for seed := range uint64(Seeds) {
			request, err := Request(scheme, tune.tonic, "E", seed)
			if err != nil {
				return all, err
			}
			c, err := planned(ctx, request, licks)
			if err != nil {
				return all, err
			}
			all[n].Add(c)
		}
	}
	return all, nil
}

// Request asks for a chorus over a scheme with the default settings.
func Request(scheme chart.Scheme, tonic, form string, seed uint64) (chorus.Request, error) {
	key, err := harmony.ParseKey(tonic, scheme.In)
	if err != nil {
		return chorus.Request{}, fmt.Errorf("%s: %w", scheme, err)
	}
	c := chart.Chart{Title: scheme.Name, Key: key, Meter: chart.FourFour, Tempo: 112, Feel: chart.Shuffle, Swing: 2, Bars: scheme.Bars(key.Tonic, chart.FourFour)}
	i := neck.Standard()
	position, err := neck.FindPosition(i, key.Tonic.Class(), form)
	if err != nil {
		return chorus.Request{}, err
	}
	subdivision, err := c.Meter.Subdivision("")
	if err != nil {
		return chorus.Request{}, err
	}
	return chorus.Request{
		Chart: c, Instrument: i, Position: position, SpanMM: neck.ComfortableSpanMM, Strategy: change.ThirdsFirst, Subdivision: subdivision,
		Density: chorus.DefaultDensity, Blend: []float64{chorus.DefaultBlend}, Form: chorus.AAB, Space: chorus.DefaultSpace, Seed: seed,
	}, nil
}

// planned is the best chorus of a plan.
func planned(ctx context.Context, o chorus.Request, licks []lick.Lick) (Chorus, error) {
	o.Licks, o.FromLicks = licks, len(licks) > 0
	plan, err := planner.Plan(ctx, o)
	if err != nil {
		return Chorus{}, err
	}
	return Chorus{o.Chart, o.Instrument, slices.Clone(plan.Best[0].Line.Events)}, nil
}
