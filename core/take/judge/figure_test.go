package judge

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/take/standin"
)

func figure(v Verdict, id string) Figure {
	for _, f := range v.Figures() {
		if f.ID == id {
			return f
		}
	}
	return Figure{}
}

// Two takes of the same line by the simulated player, one with the faults that the figures speak of.
func TestFiguresOfTwoTakes(t *testing.T) {
	steady, _ := judged(t, standin.Faults{Seed: 1})
	loose, _ := judged(t, standin.Faults{Uneven: 30, Late: 40, Flat: 45, Seed: 1})
	for id, want := range map[string]Difference{"spread": Better, "lean": Other, "bends": Better, "landings": Same} {
		assert.Equal(t, want, figure(steady, id).Beside(figure(loose, id)), id)
	}
	assert.Equal(t, Worse, figure(loose, "spread").Beside(figure(steady, "spread")))
	assert.Equal(t, Same, figure(steady, "spread").Beside(Figure{}), "nothing is known of the other")
}

func TestFiguresOfNothing(t *testing.T) {
	for _, f := range (Verdict{}).Figures() {
		assert.False(t, f.Known && f.ID != "space", f.ID)
	}
}
