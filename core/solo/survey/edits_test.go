package survey_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
	"undaris/core/solo/solotest"
	"undaris/core/solo/survey"
)

// style sums what makes choruses varied or stiff.
type style struct {
	choruses, ties, bends, moves, back, early, landings int
}

func (s *style) add(o chorus.Request, c chorus.Chorus) {
	measured := survey.Chorus{Chart: o.Chart, Instrument: o.Instrument, Events: c.Phrase(o.Chart).Events}
	s.choruses++
	s.ties += measured.OffBeatTies()
	s.bends += len(measured.Bends())
	moves, _, back := measured.Moves()
	s.moves += moves
	s.back += back
	for _, landing := range measured.Landings() {
		if landing.Degree > 0 {
			s.landings++
			if landing.Timing == survey.Early {
				s.early++
			}
		}
	}
}

func (s style) per(n, of int) float64 { return float64(n) / float64(max(of, 1)) }

// A block or two bars planned anew, and a chorus with its repairs, are no stiffer than the plan:
// as many ties and bends, as many pushes (but two bars have edges that nothing is tied or pushed over), no more turning back.
func TestEditsAreNoStifferThanThePlan(t *testing.T) {
	ctx := context.Background()
	var planned, rerolled, bars, repaired, before style
	seeds := uint64(12)
	if testing.Short() {
		seeds = 5
	}
	for _, scheme := range []string{"quick change", "slow change", "minor twelve-bar", "jazz blues"} {
		for seed := range seeds {
			o := solotest.Request(t, scheme, "A", "E", seed)
			c := solotest.Planned(t, o).Best[0].Chorus
			planned.add(o, c)
			for n, b := range c.Blocks {
				if b.Kind == chorus.RestBlock {
					continue
				}
				edited, err := planner.Edit(ctx, o, c, chorus.Edit{Kind: chorus.Reroll, Blocks: []int{n}, Seed: seed + 1})
				require.NoError(t, err)
				rerolled.add(o, edited.Chorus)
			}
			edited, err := planner.Edit(ctx, o, c, chorus.Edit{Kind: chorus.Reroll, Bar: 4, Bars: 2, Seed: seed + 1})
			require.NoError(t, err)
			bars.add(o, edited.Chorus)
			issues, err := o.Issues(c)
			require.NoError(t, err)
			for _, issue := range issues {
				for _, repair := range issue.Repairs {
					mended, err := planner.Edit(ctx, o, c, repair.Edit)
					require.NoError(t, err)
					before.add(o, c)
					repaired.add(o, mended.Chorus)
				}
			}
		}
	}
	compare := func(what string, was, is style, least float64) {
		t.Logf("%s, %d choruses: ties %.2f → %.2f, bends %.2f → %.2f, early landings %.2f → %.2f, back %.3f → %.3f", what, is.choruses,
			was.per(was.ties, was.choruses), is.per(is.ties, is.choruses), was.per(was.bends, was.choruses), is.per(is.bends, is.choruses),
			was.per(was.early, was.landings), is.per(is.early, is.landings), was.per(was.back, was.moves), is.per(is.back, is.moves))
		require.Positive(t, is.choruses, what)
		assert.GreaterOrEqual(t, is.per(is.ties, is.choruses), least*was.per(was.ties, was.choruses), "%s: ties", what)
		assert.GreaterOrEqual(t, is.per(is.bends, is.choruses), least*was.per(was.bends, was.choruses), "%s: bends", what)
		assert.GreaterOrEqual(t, is.per(is.early, is.landings), least*was.per(was.early, was.landings), "%s: pushes", what)
		assert.LessOrEqual(t, is.per(is.back, is.moves), was.per(was.back, was.moves)+0.015, "%s: turning back", what)
	}
	compare("a block planned anew", planned, rerolled, 0.85)
	compare("two bars planned anew", planned, bars, 0.75)
	compare("repaired", before, repaired, 0.85)
}
