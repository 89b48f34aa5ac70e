// Package e2e drives the real interface of the real program in headless
// Chromium: what a player does, seen the way a player sees it.
package e2e

import (
	"bufio"
	"context"
	"database/sql"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// program is the built binary, browser the one Chromium that every test opens
// a tab of.
var (
	program string
	browser context.Context
)

func TestMain(m *testing.M) { os.Exit(run(m)) }

func run(m *testing.M) int {
	folder, err := os.MkdirTemp("", "undaris-e2e")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer func() { _ = os.RemoveAll(folder) }()
	program = filepath.Join(folder, "undaris")
	build := exec.Command("go", "build", "-o", program, "undaris/cmd/undaris")
	build.Env = append(os.Environ(), "CGO_ENABLED=0")
	if out, err := build.CombinedOutput(); err != nil {
		fmt.Fprintf(os.Stderr, "building the program: %v\n%s", err, out)
		return 1
	}
	if err := fillDemo(folder); err != nil {
		fmt.Fprintln(os.Stderr, "filling the demo set:", err)
		return 1
	}
	chromium := ""
	// The headless shell first: it draws no windows of its own around the page, so it takes half the time.
	for _, name := range []string{"chromium-headless-shell", "chromium", "chromium-browser", "google-chrome"} {
		if path, err := exec.LookPath(name); err == nil {
			chromium = path
			break
		}
	}
	if chromium == "" {
		fmt.Fprintln(os.Stderr, "these tests need Chromium: make test installs it")
		return 1
	}
	browserOptions = append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(chromium), chromedp.NoSandbox, chromedp.DisableGPU,
		chromedp.Flag("autoplay-policy", "no-user-gesture-required"),
		chromedp.Flag("host-resolver-rules", "MAP * ~NOTFOUND , EXCLUDE 127.0.0.1"),
		chromedp.Flag("force-color-profile", "srgb"),
		chromedp.Flag("font-render-hinting", "none"),
		chromedp.Flag("disable-partial-raster", true),
		chromedp.Flag("num-raster-threads", "1"),
	)
	// A busy machine may fail to start it once.
	for attempt := 1; ; attempt++ {
		allocator, cancel := chromedp.NewExecAllocator(context.Background(), browserOptions...)
		defer cancel()
		var stop context.CancelFunc
		browser, stop = chromedp.NewContext(allocator)
		defer stop()
		err := chromedp.Do(browser)
		if err == nil {
			break
		}
		fmt.Fprintln(os.Stderr, "starting Chromium:", err)
		if attempt == 3 {
			return 1
		}
	}
	return m.Run()
}

// browserOptions are those that the browser is started with.
var browserOptions []chromedp.ExecAllocatorOption

// server is one running program.
type server struct {
	base    string
	command *exec.Cmd
}

// serve starts the program on a free port with a data file and waits until it
// has printed its address.
func serve(t testing.TB, command, data string) *server {
	t.Helper()
	return serveAt(t, command, data, "127.0.0.1:0")
}

// serveAt is serve at an address, which may be that of a program that was there before.
func serveAt(t testing.TB, command, data, addr string) *server {
	t.Helper()
	inParallel(t)
	s := &server{command: exec.Command(program, command, "--addr", addr, "--data", data)}
	out, err := s.command.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, s.command.Start())
	t.Cleanup(func() { s.stop() })
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err, "the program printed no address")
	s.base = strings.TrimSpace(line[strings.Index(line, "http://"):])
	return s
}

// began are the tests that run beside others.
var began sync.Map

// inParallel lets a test run beside others, each with a program and windows of its own.
func inParallel(t testing.TB) {
	alone, isTest := t.(*testing.T)
	if _, known := began.LoadOrStore(t.Name(), true); isTest && !known && !strings.Contains(t.Name(), "InTime") && !strings.Contains(t.Name(), "Screenshots") {
		alone.Parallel()
	}
}

// addr is the address it listens to.
func (s *server) addr() string { return strings.TrimPrefix(s.base, "http://") }

// stop ends the program as Ctrl-C does, and waits for it.
func (s *server) stop() {
	if s.command.ProcessState != nil {
		return
	}
	_ = s.command.Process.Signal(os.Interrupt)
	done := make(chan struct{})
	go func() { _ = s.command.Wait(); close(done) }()
	select {
	case <-done:
	case <-time.After(10 * time.Second):
		_ = s.command.Process.Kill()
		<-done
	}
}

// demo starts the program with a fresh demo set: a copy of one that was filled before.
func demo(t testing.TB) *server {
	t.Helper()
	data := filepath.Join(t.TempDir(), "demo.db")
	require.NoError(t, copyDemo(data))
	return serve(t, "demo", data)
}

// filledDemo is a data file with the demo set, of a program that has ended.
var filledDemo string

// fillDemo has the program fill a data file with the demo set, and ends it.
func fillDemo(folder string) error {
	filledDemo = filepath.Join(folder, "filled", "demo.db")
	if err := os.Mkdir(filepath.Dir(filledDemo), 0o700); err != nil {
		return err
	}
	fill := exec.Command(program, "demo", "--addr", "127.0.0.1:0", "--data", filledDemo)
	out, err := fill.StdoutPipe()
	if err != nil {
		return err
	}
	if err := fill.Start(); err != nil {
		return err
	}
	if _, err := bufio.NewReader(out).ReadString('\n'); err != nil {
		return err
	}
	if err := fill.Process.Signal(os.Interrupt); err != nil {
		return err
	}
	return fill.Wait()
}

// copyDemo copies the filled demo set, its sounds too, as if it had been filled just now: saves
// that follow soon are of the same sitting.
func copyDemo(data string) error {
	if err := os.CopyFS(filepath.Dir(data), os.DirFS(filepath.Dir(filledDemo))); err != nil {
		return err
	}
	db, err := sql.Open("sqlite", "file:"+data)
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	_, err = db.Exec(`UPDATE documents SET updated_at = strftime('%Y-%m-%d %H:%M:%f', 'now') || '+00:00'`)
	return err
}
