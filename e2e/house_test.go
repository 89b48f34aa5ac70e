package e2e

import (
	"bufio"
	"context"
	"crypto/tls"
	"io"
	"net/http"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A tablet in the house is asked for the passphrase, goes on where it wanted to, and is sent away when its session ends.
func TestATabletInTheHouse(t *testing.T) {
	inParallel(t)
	data := filepath.Join(t.TempDir(), "demo.db")
	require.NoError(t, copyDemo(data))
	s := &server{command: exec.Command(program, "demo", "--addr", "0.0.0.0:0", "--tls", "--data", data)}
	s.command.Env = append(s.command.Environ(), "UNDARIS_PASSPHRASE=slow river")
	out, err := s.command.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, s.command.Start())
	t.Cleanup(s.stop)
	printed := bufio.NewReader(out)
	line, err := printed.ReadString('\n')
	require.NoError(t, err)
	s.base = strings.TrimSpace(line[strings.Index(line, "https://"):])
	require.Contains(t, s.base, "https://localhost:")
	// The tests' browser knows no names.
	s.base = strings.Replace(s.base, "localhost", "127.0.0.1", 1)
	go func() { _, _ = io.Copy(io.Discard, printed) }()

	client := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{InsecureSkipVerify: true}}} // the authority is asked for below
	answer, err := client.Get(s.base + "/api/charts")
	require.NoError(t, err)
	require.NoError(t, answer.Body.Close())
	assert.Equal(t, http.StatusUnauthorized, answer.StatusCode)
	answer, err = client.Get(s.base + "/undaris-authority.crt")
	require.NoError(t, err)
	authority, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	require.NoError(t, answer.Body.Close())
	assert.NotEmpty(t, authority)

	p := openPageIn(t, browserThatTrusts(t), s, "/tunes/1/map")
	p.Expect(http.StatusUnauthorized)
	p.Sees("Give the passphrase")
	hasKeyboard := "document.activeElement.name === 'passphrase' && document.readyState === 'complete'"
	p.Until("the field to have the keyboard", hasKeyboard)
	p.Press("f", "a", "s", "t", " ", "r", "i", "v", "e", "r", "\r")
	p.Sees("That is not the passphrase.")
	p.Until("the field to have the keyboard", hasKeyboard)
	p.Press("s", "l", "o", "w", " ", "r", "i", "v", "e", "r", "\r")
	p.Has("Bar 2, F7, IV")
	assert.Equal(t, "/tunes/1/map", js[string](p, "location.pathname"))
	p.Go("/data")
	p.Sees("point its camera here", "(this one)")
	p.ClickOn("the end of the session", "document.querySelector('[aria-label=\"On a tablet\"] li button')")
	p.Until("it is asked for again", "document.querySelector('[aria-label=\"On a tablet\"] [role=alert]')")
	p.Go("/")
	p.Sees("Give the passphrase")
}

// browserThatTrusts is a browser that takes any certificate.
func browserThatTrusts(t *testing.T) context.Context {
	t.Helper()
	return browserWith(t, chromedp.Flag("ignore-certificate-errors", true))
}
