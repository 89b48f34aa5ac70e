package api

import (
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"
)

// headAsGet answers HEAD as GET does; net/http sends no body of it (RFC 9110, 9.3.2).
func headAsGet(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method == http.MethodHead {
			r = r.Clone(r.Context())
			r.Method = http.MethodGet
		}
		next.ServeHTTP(w, r)
	})
}

// otherMethod answers a method that a resource does not have: OPTIONS with those that it has, any other with 405. The
// router has named them in Allow.
func otherMethod(ctx *gin.Context) {
	methods := strings.Split(ctx.Writer.Header().Get("Allow"), ", ")
	if slices.Contains(methods, http.MethodGet) {
		methods = append(methods, http.MethodHead)
	}
	methods = append(methods, http.MethodOptions)
	slices.Sort(methods)
	allowed := strings.Join(methods, ", ")
	ctx.Header("Allow", allowed)
	if ctx.Request.Method == http.MethodOptions {
		ctx.Status(http.StatusNoContent)
		ctx.Writer.WriteHeaderNow()
		return
	}
	refuse(ctx, http.StatusMethodNotAllowed, fmt.Sprintf("%s is no method of this resource; it has %s", ctx.Request.Method, allowed))
}
