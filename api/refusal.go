package api

import (
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"
)

// refusalAsAnswer is what a page asks for by the header Prefer (RFC 7240), so that a form
// that is refused while it is being filled in is not a failed request to the browser.
const refusalAsAnswer = "refusal-as-answer"

// refusing answers what cannot be used (status 422) with status 200 and the same problem,
// where the request prefers it; the problem's own status stays 422.
func refusing(c *gin.Context) {
	if strings.Contains(c.GetHeader("Prefer"), refusalAsAnswer) {
		c.Writer = &answeringWriter{c.Writer}
	}
	c.Next()
}

type answeringWriter struct{ gin.ResponseWriter }

func (w *answeringWriter) WriteHeader(status int) {
	if status == http.StatusUnprocessableEntity {
		w.Header().Set("Preference-Applied", refusalAsAnswer)
		status = http.StatusOK
	}
	w.ResponseWriter.WriteHeader(status)
}
