package lick

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/neck"
	"undaris/core/phrase/phrasetest"
)

func TestFacts(t *testing.T) {
	two, one := overTwo(t).Facts(phrasetest.Guitar, 120), overC7(t).Facts(phrasetest.Guitar, 120)
	assert.Empty(t, two.Scales, "no scale of the list holds its passing Ab")
	assert.Equal(t, []string{"both pentatonics"}, one.Scales)
	assert.Equal(t, "b3 9, b3 R", two.Starts.String()+" "+two.Ends.String()+", "+one.Starts.String()+" "+one.Ends.String())
	assert.Equal(t, "3", phrasetest.Degrees(two.Lands))
	assert.Equal(t, "9", phrasetest.Degrees(two.Leans))
	assert.Empty(t, one.Lands)
	assert.Equal(t, []int{2, 1}, []int{two.Bars, one.Bars})
	assert.Equal(t, [2]int{8, 11}, [2]int{two.Low, two.High})
	assert.Equal(t, []string{"slide", "hammer-on", "bend"}, two.Techniques)
	assert.Equal(t, []string{"pull-off", "bend"}, one.Techniques)
	assert.InDelta(t, 4, one.PerSecond, 0.001, "eighths at 120")
	assert.Equal(t, neck.Place{String: 2, Fret: 8}, two.Last)
}
