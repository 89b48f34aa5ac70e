package api

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
)

// What of a lesson cannot be had is refused by the name of what was asked.
func TestLessonsThatCannotBe(t *testing.T) {
	c := application(t, nil)
	lesson := "/api/charts/" + itoa(call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)[0].ID) + "/lesson"
	for path, status := range map[string]int{
		"?chart=true&large=true": http.StatusOK,
		"?strategy=thirds+first": http.StatusOK,
		"?strategy=by+luck":      http.StatusUnprocessableEntity,
		"?licks=1,2":             http.StatusOK, "?licks=999": http.StatusNotFound,
		"?paper=Napkin":  http.StatusUnprocessableEntity,
		"?licks=1,99999": http.StatusNotFound,
	} {
		answer := c.do("GET", lesson+path, nil)
		assert.Equal(t, status, answer.Code, "%s: %.200s", path, answer.Body.String())
	}
	assert.Equal(t, http.StatusNotFound, c.do("GET", "/api/charts/99999/lesson?chart=true", nil).Code)
}
