package api

import (
	"net/http"
	"net/http/httptest"
	"net/url"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/access"
)

// inTheHouse is an application that other machines reach over TLS, with the passphrase "slow river".
func inTheHouse(t *testing.T) client {
	t.Helper()
	c := application(t, func(c *Config) {
		a, err := access.Open(filepath.Join(t.TempDir(), "access.json"), time.Now)
		require.NoError(t, err)
		require.NoError(t, a.SetPassphrase("slow river"))
		c.Access, c.Loopback, c.TLS, c.Authority, c.Addresses = a, false, true, []byte("authority"), []string{"https://192.168.7.9:8380"}
	})
	c.host = "192.168.7.9:8380"
	return c
}

// enter gives a passphrase, as the form does.
func (c client) enter(passphrase, next string) *httptest.ResponseRecorder {
	c.t.Helper()
	form := url.Values{"passphrase": {passphrase}, "next": {next}}
	request := httptest.NewRequest("POST", "/enter", strings.NewReader(form.Encode()))
	request.Host = c.host
	request.RemoteAddr = "192.168.7.20:5000"
	request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	request.Header.Set("Origin", "https://"+c.host)
	request.Header.Set("User-Agent", "Mozilla/5.0 (iPad; CPU OS 18_0) AppleWebKit/605 Version/18.0 Safari/604.1")
	response := httptest.NewRecorder()
	c.http.ServeHTTP(response, request)
	return response
}

func TestWhoIsNotLetIn(t *testing.T) {
	c := inTheHouse(t)
	for _, path := range []string{"/api/about", "/api/charts", "/openapi.json", "/assets/a-1.js", "/api/bundle"} {
		assert.Equal(t, 401, c.do("GET", path, nil).Code, path)
	}
	assert.Equal(t, 401, c.do("POST", "/api/backups", nil, "Accept", "text/html").Code)
	asked := c.do("GET", "/tunes/1/map?at=5", nil, "Accept", "text/html")
	assert.Equal(t, 303, asked.Code)
	assert.Equal(t, "/enter?next=%2Ftunes%2F1%2Fmap%3Fat%3D5", asked.Header().Get("Location"))
	page := c.do("GET", "/enter?next=%2Ftunes%2F1%22%3E%3Cscript%3E", nil)
	assert.Equal(t, 200, page.Code)
	assert.NotContains(t, page.Body.String(), "<script>")
	assert.Equal(t, "no-store", page.Header().Get("Cache-Control"))
	assert.Equal(t, []byte("authority"), c.do("GET", "/undaris-authority.crt", nil).Body.Bytes())
	assert.Contains(t, c.do("GET", "/trust", nil).Body.String(), "Trust this machine")
}

func TestWhoIsLetIn(t *testing.T) {
	c := inTheHouse(t)
	wrong := c.enter("fast river", "/")
	assert.Equal(t, 401, wrong.Code)
	assert.Contains(t, wrong.Body.String(), "That is not the passphrase.")
	assert.Empty(t, wrong.Result().Cookies())

	let := c.enter("slow river", "/tunes/1/map?at=5")
	assert.Equal(t, 303, let.Code)
	assert.Equal(t, "/tunes/1/map?at=5", let.Header().Get("Location"))
	require.Len(t, let.Result().Cookies(), 1)
	cookie := let.Result().Cookies()[0]
	assert.Equal(t, "__Host-undaris", cookie.Name)
	assert.True(t, cookie.Secure && cookie.HttpOnly && cookie.SameSite == http.SameSiteStrictMode && cookie.Path == "/")
	with := []string{"Cookie", cookie.Name + "=" + cookie.Value}
	assert.Equal(t, 200, c.do("GET", "/api/about", nil, with...).Code)
	assert.Equal(t, 401, c.do("GET", "/api/about", nil, "Cookie", cookie.Name+"="+cookie.Value+"x").Code)
	assert.Equal(t, 403, c.do("POST", "/api/charts", nil, append(with, "Origin", "https://other.example")...).Code, "another site's page with the cookie")

	other := c.enter("slow river", "/")
	response := c.do("GET", "/api/access", nil, with...)
	require.Equal(t, 200, response.Code)
	view := decoded[Access](t, response.Body.Bytes())
	assert.True(t, view.Passphrase && view.TLS)
	require.Len(t, view.Devices, 2)
	assert.Equal(t, "iPad, Safari", view.Devices[0].About)
	assert.Equal(t, []bool{false, true}, []bool{view.Devices[0].Here, view.Devices[1].Here})
	require.NotNil(t, view.Picture)
	assert.Equal(t, 33, view.Picture.Size, "25 modules and the margin")
	assert.Equal(t, 204, c.do("DELETE", "/api/access/"+view.Devices[0].ID, nil, with...).Code)
	gone := other.Result().Cookies()[0]
	assert.Equal(t, 401, c.do("GET", "/api/about", nil, "Cookie", gone.Name+"="+gone.Value).Code)
	assert.Equal(t, 303, c.do("POST", "/leave", nil, with...).Code)
	assert.Equal(t, 401, c.do("GET", "/api/about", nil, with...).Code)
}

func TestWhereAPlayerIsSentAfterwards(t *testing.T) {
	for next, want := range map[string]string{
		"/tunes/1": "/tunes/1", "": "/", "//other.example": "/", "https://other.example": "/", `/\other.example`: "/", "/enter?next=/": "/", "tunes": "/",
	} {
		assert.Equal(t, want, localPath(next), next)
	}
}

// After a few wrong ones the passphrase is not even looked at, and the page says for how long.
func TestGuessesOverTheAPI(t *testing.T) {
	c := inTheHouse(t)
	for range 5 {
		assert.Equal(t, 401, c.enter("fast river", "/").Code)
	}
	refused := c.enter("slow river", "/")
	assert.Equal(t, 429, refused.Code)
	assert.Equal(t, "1", refused.Header().Get("Retry-After"))
	assert.Contains(t, refused.Body.String(), "too many wrong passphrases: wait 1s")
	require.Eventually(t, func() bool { return c.enter("slow river", "/").Code == 303 }, 10*time.Second, 50*time.Millisecond, "then it is let in")
	assert.Equal(t, 401, c.enter(strings.Repeat("x", 2000), "/").Code)
	assert.Equal(t, 401, c.enter(strings.Repeat("x", maxForm), "/").Code, "a form that is too large has no passphrase")
}

// Without a network nobody is asked, and there is nothing to be listed.
func TestOnThisMachineAlone(t *testing.T) {
	c := application(t, nil)
	view := call[Access](c, "GET", "/api/access", nil, 200)
	assert.Equal(t, Access{Addresses: []string{}, Devices: []Device{}}, view)
}
