package api

import (
	_ "embed"
	"errors"
	"html/template"
	"net"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"undaris/access"
)

// The pages that are shown before a player is let in. They are whole in themselves: what else there is needs a session.
const (
	enterPath     = "/enter"
	leavePath     = "/leave"
	trustPath     = "/trust"
	authorityPath = "/undaris-authority.crt"
)

// isOpenToAll says whether a path is answered without a session.
func isOpenToAll(path string) bool {
	return path == enterPath || path == trustPath || path == authorityPath || path == "/icon.svg"
}

//go:embed entrance.html
var entranceText string

// entrance is the page to give the passphrase, and the one that explains how a device comes to trust this machine.
var entrance = template.Must(template.New("entrance").Parse(entranceText))

// entranceView is what the page shows.
type entranceView struct {
	Trust bool
	// Next is where the player wanted to go.
	Next, Problem string
	// Authority says that there is one to be trusted.
	Authority bool
}

// cookieName is that of the session: where it can be, one that the browser sends over TLS to this very host alone.
func cookieName(tls bool) string {
	if tls {
		return "__Host-undaris"
	}
	return "undaris"
}

// tokenOf is the token of the session that a request belongs to, empty for none.
func tokenOf(r *http.Request) string {
	for _, tls := range []bool{true, false} {
		if cookie, err := r.Cookie(cookieName(tls)); err == nil {
			return cookie.Value
		}
	}
	return ""
}

// askToEnter refuses a question of the page, and sends a player who opens a page to the entrance.
func askToEnter(ctx *gin.Context) {
	r := ctx.Request
	if strings.HasPrefix(r.URL.Path, "/api/") || r.Method != http.MethodGet || !strings.Contains(r.Header.Get("Accept"), "text/html") {
		refuse(ctx, http.StatusUnauthorized, "give the passphrase first: load the page again")
		return
	}
	ctx.Abort()
	ctx.Redirect(http.StatusSeeOther, enterPath+"?next="+template.URLQueryEscaper(r.URL.RequestURI()))
}

// localPath is where a player wanted to go, if that is a page of this server.
func localPath(next string) string {
	if !strings.HasPrefix(next, "/") || strings.HasPrefix(next, "//") || strings.ContainsFunc(next, func(r rune) bool { return r == '\\' || r < 0x20 || r == 0x7f }) || strings.HasPrefix(next, enterPath) {
		return "/"
	}
	return next
}

// maxForm is how many bytes the form with the passphrase may have.
const maxForm = 16 << 10

func (s *server) registerEntrance(router *gin.Engine) {
	show := func(ctx *gin.Context, status int, view entranceView) {
		view.Authority = s.authority != nil
		ctx.Header("Cache-Control", "no-store")
		// Without a referrer the browser would send the form as from nowhere.
		ctx.Header("Referrer-Policy", "same-origin")
		ctx.Header("Content-Type", "text/html; charset=utf-8")
		ctx.Status(status)
		if err := entrance.Execute(ctx.Writer, view); err != nil {
			s.log.Error("the entrance could not be shown", "error", err)
		}
	}
	router.GET(enterPath, func(ctx *gin.Context) {
		show(ctx, http.StatusOK, entranceView{Next: localPath(ctx.Query("next"))})
	})
	router.POST(enterPath, func(ctx *gin.Context) {
		ctx.Request.Body = http.MaxBytesReader(ctx.Writer, ctx.Request.Body, maxForm)
		next := localPath(ctx.PostForm("next"))
		from, _, err := net.SplitHostPort(ctx.Request.RemoteAddr)
		if err != nil {
			from = ctx.Request.RemoteAddr
		}
		token, err := s.access.Enter(ctx.PostForm("passphrase"), from, deviceOf(ctx.Request.UserAgent()))
		var wait *access.WaitError
		switch {
		case errors.As(err, &wait):
			s.log.Debug("a passphrase was not looked at: too many wrong ones", "from", from, "wait", wait.For)
			ctx.Header("Retry-After", wholeSeconds(wait.For))
			show(ctx, http.StatusTooManyRequests, entranceView{Next: next, Problem: wait.Error()})
		case errors.Is(err, access.ErrWrong):
			s.log.Warn("a wrong passphrase", "from", from)
			show(ctx, http.StatusUnauthorized, entranceView{Next: next, Problem: "That is not the passphrase."})
		case err != nil:
			s.log.Error("a session could not be kept", "error", err)
			show(ctx, http.StatusInternalServerError, entranceView{Next: next, Problem: "Something went wrong in Undaris; try again."})
		default:
			s.log.Info("let in", "from", from)
			http.SetCookie(ctx.Writer, &http.Cookie{
				Name: cookieName(s.tls), Value: token, Path: "/", MaxAge: 90 * 24 * 60 * 60, Secure: s.tls, HttpOnly: true, SameSite: http.SameSiteStrictMode,
			})
			ctx.Redirect(http.StatusSeeOther, next)
		}
	})
	router.POST(leavePath, func(ctx *gin.Context) {
		if id, known := s.access.SessionOf(tokenOf(ctx.Request)); known {
			if err := s.access.End(id); err != nil {
				s.log.Error("a session could not be ended", "error", err)
			}
		}
		http.SetCookie(ctx.Writer, &http.Cookie{Name: cookieName(s.tls), Path: "/", MaxAge: -1, Secure: s.tls, HttpOnly: true, SameSite: http.SameSiteStrictMode})
		ctx.Redirect(http.StatusSeeOther, enterPath)
	})
	if s.authority == nil {
		return
	}
	router.GET(trustPath, func(ctx *gin.Context) { show(ctx, http.StatusOK, entranceView{Trust: true}) })
	router.GET(authorityPath, func(ctx *gin.Context) {
		ctx.Header("Content-Disposition", attached("undaris-authority.crt"))
		ctx.Data(http.StatusOK, "application/x-x509-ca-cert", s.authority)
	})
}

// deviceOf is what a device calls itself, in a word or two.
func deviceOf(agent string) string {
	device := "a device"
	for _, known := range []string{"iPad", "iPhone", "Android", "Windows", "Macintosh", "Linux"} {
		if strings.Contains(agent, known) {
			device = known
			break
		}
	}
	for _, known := range []struct{ in, name string }{{"Firefox/", "Firefox"}, {"Edg/", "Edge"}, {"Chrome/", "Chrome"}, {"Safari/", "Safari"}} {
		if strings.Contains(agent, known.in) {
			return device + ", " + known.name
		}
	}
	return device
}
