package e2e

import (
	"net"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every page of these tests fails its test for a request to another host; here it is
// seen that the requests are watched, those for sounds among them.
func TestNothingIsFetchedFromElsewhere(t *testing.T) {
	s := demo(t)
	p := openPage(t, s, "/tunes/1/map")
	p.Go("/tunes/1/licks?at=5760")
	p.Has("Hear it")
	p.Click("Hear it")
	p.Until("sound", "document.querySelector('.strip .bar.playing')")
	assert.Greater(t, p.requests, 20, "the browser's requests were watched")
}

func TestATargetThatCannotBeReachedOffersOthers(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?at=5760&sub=quarter&target=6:8")
	p.Sees("C, the 5, on string 6 fret 8 cannot be reached in time")
	near := js[string](p, "document.querySelector('.refusal .chip').innerText")
	p.Click(near)
	p.Until("the line", "document.querySelector('.tab .note.target')")
	assert.Contains(t, p.Text(), "lands on beat 1 of bar 5")
}

func TestATuneThatIsNotThere(t *testing.T) {
	s := demo(t)
	p := openPage(t, s, "/")
	p.Expect(404)
	p.Go("/tunes/999/map")
	p.Sees("there is no chart with the id 999", "All tunes")
	p.Go("/nowhere/at/all")
	p.Sees("Your tunes")
}

// Two windows on one tune: the second save is refused, and either choice that
// is offered then loses nothing.
func TestTwoWindowsOnOneTune(t *testing.T) {
	s := demo(t)
	one, two := openPage(t, s, "/tunes/1/map"), openPage(t, s, "/tunes/1/map")
	two.Expect(412)
	one.Has("Bar 2, F7, IV")
	two.Has("Bar 2, F7, IV")
	one.Choose("Key", "D")
	one.Has("Bar 2, G7, IV")
	one.Saved()
	two.Choose("Key", "A")
	two.Sees("nothing was overwritten")
	two.Click("Keep mine as a new tune")
	two.Until("the new tune's address", "location.pathname !== '/tunes/1/map'")
	two.Has("Bar 2, D7, IV")
	two.Choose("Key", "E")
	two.Has("Bar 2, A7, IV")
	one.Go("/tunes/1/map")
	one.Has("Bar 2, G7, IV")
}

// A player's own first start: no tunes yet, and the page says what to do.
func TestAnEmptyLibrarySaysWhatToDoFirst(t *testing.T) {
	p := openPage(t, serve(t, "serve", filepath.Join(t.TempDir(), "own.db")), "/")
	p.Sees("Start with a tune")
	p.Until("the title field", "document.querySelector('input[placeholder]')")
	js[any](p, "document.querySelector('input[placeholder]').focus()")
	p.Press("M", "i", "n", "e")
	p.Click("Start the tune")
	p.Sees("Mine")
	p.Has("Bar 2, D7 IV")
	p.Press("2")
	p.Sees("A7 in the E-form position")
	p.Press("4")
	p.Sees("Ferry call into")
}

// A save that was acknowledged is there after the program was killed outright.
func TestAKilledProgramLosesNoSave(t *testing.T) {
	data := filepath.Join(t.TempDir(), "own.db")
	s := serve(t, "demo", data)
	p := openPage(t, s, "/tunes/1/map")
	p.Choose("Key", "D")
	p.Has("Bar 2, G7, IV")
	p.Saved()
	p.Leave()
	require.NoError(t, s.command.Process.Kill())
	_ = s.command.Wait()
	again := openPage(t, serve(t, "demo", data), "/tunes/1/map")
	again.Has("Bar 2, G7, IV")
}

func TestItStopsGracefully(t *testing.T) {
	s := demo(t)
	s.stop()
	assert.True(t, s.command.ProcessState.Success(), s.command.ProcessState.String())
}

func TestAPortInUseGetsAPlainSentence(t *testing.T) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = listener.Close() }()
	out, err := exec.Command(program, "demo", "--data", filepath.Join(t.TempDir(), "x.db"), "--addr", listener.Addr().String()).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "is already in use")
	assert.Equal(t, 1, strings.Count(string(out), "\n"), "one line, no trace: %s", out)
	out, err = exec.Command(program, "serve", "--addr", "0.0.0.0:0").CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "add --tls")
	out, err = exec.Command(program, "dance").CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "there are serve, demo, backup, restore, check, export, import and version")
}
