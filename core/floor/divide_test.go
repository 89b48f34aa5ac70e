package floor

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestDivide(t *testing.T) {
	for _, c := range []struct{ number, by, quotient, rest int }{
		{0, 12, 0, 0}, {11, 12, 0, 11}, {12, 12, 1, 0}, {-1, 12, -1, 11}, {-12, 12, -1, 0}, {-13, 12, -2, 11}, {7, 1, 7, 0}, {-7, 1, -7, 0},
	} {
		quotient, rest := Divide(c.number, c.by)
		assert.Equal(t, [2]int{c.quotient, c.rest}, [2]int{quotient, rest}, "%d by %d", c.number, c.by)
		assert.Equal(t, c.rest, Mod(c.number, c.by))
	}
}
