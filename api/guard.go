package api

import (
	"crypto/sha256"
	"crypto/subtle"
	"encoding/json"
	"net"
	"net/http"
	"net/url"

	"github.com/gin-gonic/gin"
)

// maxBody is the largest request body, 1 MiB.
const maxBody = 1 << 20

// policy lets a page of Undaris load from Undaris alone. Styles are injected at
// run time by the component library, hence 'unsafe-inline' for styles only;
// blob: workers carry the audio clock.
const policy = "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; " +
	"font-src 'self' data:; connect-src 'self'; worker-src 'none'; object-src 'none'; base-uri 'none'; " +
	"frame-ancestors 'none'; form-action 'self'"

// guarded keeps strangers out: other sites' pages, by Host and Origin; other
// people, by passphrase where one is set; and bodies that are too large.
func guarded(c Config) gin.HandlerFunc {
	wanted := sha256.Sum256([]byte(c.Passphrase))
	return func(ctx *gin.Context) {
		header := ctx.Writer.Header()
		header.Set("Content-Security-Policy", policy)
		header.Set("X-Content-Type-Options", "nosniff")
		header.Set("Referrer-Policy", "no-referrer")
		if c.Loopback && !isLoopback(ctx.Request.Host) {
			refuse(ctx, http.StatusForbidden, "this server answers only to the names of its own machine, such as localhost")
			return
		}
		if origin := ctx.GetHeader("Origin"); origin != "" && !sameHost(origin, ctx.Request.Host) {
			refuse(ctx, http.StatusForbidden, "a page of another site may not use this server")
			return
		}
		if c.Passphrase != "" {
			_, given, _ := ctx.Request.BasicAuth()
			sum := sha256.Sum256([]byte(given))
			if subtle.ConstantTimeCompare(sum[:], wanted[:]) != 1 {
				header.Set("WWW-Authenticate", `Basic realm="Undaris", charset="UTF-8"`)
				refuse(ctx, http.StatusUnauthorized, "give the passphrase as the password; the name may be anything")
				return
			}
		}
		limit := int64(maxBody)
		if path := ctx.Request.URL.Path; path == importPath || path == importLickPath || path == logTextPath {
			limit = maxImport
		}
		ctx.Request.Body = http.MaxBytesReader(ctx.Writer, ctx.Request.Body, limit)
		ctx.Next()
	}
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
