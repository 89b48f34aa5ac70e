package api

import (
	"encoding/json"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"strings"

	"github.com/gin-gonic/gin"
)

// maxBody is the largest request body, 1 MiB.
const maxBody = 1 << 20

// maxTake is the largest take, 16 MiB: an hour with four notes a second has 2.4.
const maxTake = 16 << 20

// policy lets a page of Undaris load from Undaris alone. Styles are injected at
// run time by the component library, hence 'unsafe-inline' for styles only;
// blob: workers carry the audio clock.
const policy = "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; " +
	"font-src 'self' data:; connect-src 'self'; worker-src 'none'; object-src 'none'; base-uri 'none'; " +
	"frame-ancestors 'none'; form-action 'self'"

// guarded keeps strangers out: other sites' pages, by Host, Origin and what the browser says of where a request comes
// from (Fetch metadata); other people, by passphrase where one is set; and bodies that are too large.
func guarded(c Config) gin.HandlerFunc {
	crossOrigin := http.NewCrossOriginProtection()
	return func(ctx *gin.Context) {
		header := ctx.Writer.Header()
		header.Set("Content-Security-Policy", policy)
		header.Set("X-Content-Type-Options", "nosniff")
		header.Set("Referrer-Policy", "no-referrer")
		if c.Loopback && !isLoopback(ctx.Request.Host) {
			refuse(ctx, http.StatusForbidden, "this server answers only to the names of its own machine, such as localhost")
			return
		}
		origin := ctx.GetHeader("Origin")
		if origin != "" && !sameHost(origin, ctx.Request.Host) || crossOrigin.Check(ctx.Request) != nil || fromAnotherSite(ctx.Request) {
			refuse(ctx, http.StatusForbidden, "a page of another site may not use this server")
			return
		}
		if c.Access != nil && !isOpenToAll(ctx.Request.URL.Path) {
			if _, known := c.Access.SessionOf(tokenOf(ctx.Request)); !known {
				askToEnter(ctx)
				return
			}
		}
		limit := limitOf(ctx.Request.URL.Path)
		ctx.Writer = &closingWriter{ctx.Writer}
		if ctx.Request.ContentLength > limit {
			refuse(ctx, http.StatusRequestEntityTooLarge, tooLarge(limit))
			return
		}
		ctx.Request.Body = http.MaxBytesReader(ctx.Writer, ctx.Request.Body, limit)
		ctx.Next()
	}
}

// limitOf is how large the body of a request may be.
func limitOf(path string) int64 {
	switch {
	case path == importPath || path == importLickPath || path == logTextPath:
		return maxImport
	case path == takeVerdictPath || strings.HasPrefix(path, "/api/takes/"):
		return maxTake
	}
	return maxBody
}

func tooLarge(limit int64) string {
	return fmt.Sprintf("this is too large: at most %d kB are taken in one request", limit>>10)
}

// closingWriter closes the connection after an answer that says that the request was too large: the rest of its body is
// on the way, and must not be read as another request.
type closingWriter struct{ gin.ResponseWriter }

func (w *closingWriter) WriteHeader(status int) {
	if status == http.StatusRequestEntityTooLarge {
		w.Header().Set("Connection", "close")
	}
	if status == http.StatusServiceUnavailable {
		w.Header().Set("Retry-After", "5")
	}
	w.ResponseWriter.WriteHeader(status)
}

// Unwrap is for deadlines.
func (w *closingWriter) Unwrap() http.ResponseWriter { return w.ResponseWriter }

// fromAnotherSite says whether the browser was sent here by a page of another site. Such a page may send the player to
// a page of Undaris, by a link, and nothing else: it may not have anything of it in itself, and ask the API nothing.
func fromAnotherSite(r *http.Request) bool {
	switch r.Header.Get("Sec-Fetch-Site") {
	case "", "same-origin", "none":
		return false
	}
	byLink := r.Header.Get("Sec-Fetch-Mode") == "navigate" && r.Header.Get("Sec-Fetch-Dest") == "document"
	return !byLink || strings.HasPrefix(r.URL.Path, "/api/")
}

func isLoopback(host string) bool {
	name, _, err := net.SplitHostPort(host)
	if err != nil {
		name = host
	}
	if name == "localhost" {
		return true
	}
	ip := net.ParseIP(name)
	return ip != nil && ip.IsLoopback()
}

func sameHost(origin, host string) bool {
	u, err := url.Parse(origin)
	return err == nil && u.Host == host
}

// refuse ends a request that no handler will see with a problem.
func refuse(ctx *gin.Context, status int, detail string) {
	body, err := json.Marshal(map[string]any{"status": status, "title": http.StatusText(status), "detail": detail})
	if err != nil {
		panic(err)
	}
	ctx.Abort()
	ctx.Data(status, "application/problem+json", body)
}
