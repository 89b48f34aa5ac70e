package access

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// guarded is an access with a passphrase, whose time a test sets.
func guarded(t *testing.T) (*Access, func(time.Duration), string) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "access.json")
	now := time.Date(2026, 4, 1, 12, 0, 0, 0, time.UTC)
	a, err := Open(path, func() time.Time { return now })
	require.NoError(t, err)
	require.False(t, a.HasPassphrase())
	require.NoError(t, a.SetPassphrase("slow river"))
	// As costly as it is a test of many guesses would take long.
	cheap := hashed{Salt: a.kept.Passphrase.Salt, Memory: 64, Passes: 1}
	cheap.Key = cheap.keyOf("slow river")
	a.kept.Passphrase = cheap
	return a, func(d time.Duration) { now = now.Add(d) }, path
}

func TestWhoKnowsThePassphraseIsLetIn(t *testing.T) {
	a, later, path := guarded(t)
	_, err := a.Enter("fast river", "10.0.0.2", "a tablet")
	require.ErrorIs(t, err, ErrWrong)
	token, err := a.Enter("slow river", "10.0.0.2", "a tablet")
	require.NoError(t, err)
	id, ok := a.SessionOf(token)
	require.True(t, ok)
	for _, other := range []string{"", "x", token + "x", id} {
		_, ok := a.SessionOf(other)
		assert.False(t, ok)
	}
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.NotContains(t, string(text), "slow river")
	assert.NotContains(t, string(text), token)
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())

	later(80 * 24 * time.Hour)
	again, err := Open(path, a.now)
	require.NoError(t, err)
	_, ok = again.SessionOf(token)
	assert.True(t, ok, "it lasts over a restart")
	later(89 * 24 * time.Hour)
	_, ok = again.SessionOf(token)
	assert.True(t, ok, "as long as it is used")
	second, err := again.Enter("slow river", "10.0.0.3", "a phone")
	require.NoError(t, err)
	sessions := again.Sessions()
	require.Len(t, sessions, 2)
	assert.Equal(t, "a phone", sessions[0].About)
	require.NoError(t, again.End(sessions[1].ID))
	_, ok = again.SessionOf(token)
	assert.False(t, ok, "it is ended")
	require.NoError(t, again.SetPassphrase("slow river"))
	_, ok = again.SessionOf(second)
	assert.True(t, ok, "the same passphrase ends nothing")
	require.NoError(t, again.SetPassphrase("another river"))
	_, ok = again.SessionOf(second)
	assert.False(t, ok, "another one ends all")
	third, err := again.Enter("another river", "10.0.0.3", "a phone")
	require.NoError(t, err)
	later(91 * 24 * time.Hour)
	_, ok = again.SessionOf(third)
	assert.False(t, ok, "one that is not used ends")
}

// Who guesses waits longer and longer; who sits elsewhere waits only where there are too many guesses from everywhere.
func TestGuessesAreSlowedDown(t *testing.T) {
	a, later, _ := guarded(t)
	guesses, waited := 0, time.Duration(0)
	for waited < 24*time.Hour {
		_, err := a.Enter("wrong river", "10.0.0.9", "")
		var wait *WaitError
		if assert.Error(t, err); assertWait(err, &wait) {
			later(wait.For)
			waited += wait.For
			continue
		}
		guesses++
	}
	assert.Less(t, guesses, 120, "guesses in a day from one address")
	assert.Greater(t, guesses, 80)

	b, later, _ := guarded(t)
	looked := 0
	for n := range 2000 {
		later(time.Second)
		if _, err := b.Enter("wrong river", fmt.Sprintf("10.0.%d.%d", n/250, n%250), ""); err == ErrWrong {
			looked++
		}
	}
	assert.Less(t, looked, 410, "2000 addresses in 2000 seconds: 200 at once, and 6 a minute")
	_, err := b.Enter("slow river", "10.9.9.9", "")
	var wait *WaitError
	require.ErrorAs(t, err, &wait)
	assert.Less(t, wait.For, 11*time.Second)
	later(wait.For)
	_, err = b.Enter("slow river", "10.9.9.9", "")
	assert.NoError(t, err, "who waits is let in")
}

// A neighbour who guesses from sixty addresses, or from as many as the network of a house has, keeps nobody out.
func TestANeighbourKeepsNobodyOut(t *testing.T) {
	for _, form := range []string{"10.0.0.%d", "2001:db8::%x"} {
		a, later, _ := guarded(t)
		for n := range 240 {
			later(400 * time.Millisecond)
			_, err := a.Enter("wrong river", fmt.Sprintf(form, 1+n%60), "")
			require.Error(t, err)
		}
		_, err := a.Enter("slow river", "10.7.7.7", "")
		assert.NoError(t, err, form)
	}
}

func TestEasyPassphrasesAreRefused(t *testing.T) {
	for _, easy := range []string{"        ", "password", "Password1!", "12345678", "1234567890", "aaaaaaaa", "abababab", "undaris1", "iloveyou"} {
		assert.ErrorIs(t, checkPassphrase(easy), ErrEasy, easy)
	}
	for _, good := range []string{"slow river again", "brass heron 7", "correct-horse", "pentatonic"} {
		assert.NoError(t, checkPassphrase(good), good)
	}
}

func assertWait(err error, wait **WaitError) bool {
	one, ok := err.(*WaitError)
	*wait = one
	return ok
}

func TestPassphrases(t *testing.T) {
	a, _, path := guarded(t)
	assert.ErrorIs(t, a.SetPassphrase("äöüäöüä"), ErrShort)
	require.NoError(t, a.SetPassphrase("slow river again"))
	assert.Equal(t, []uint32{memoryKiB, passes}, []uint32{a.kept.Passphrase.Memory, a.kept.Passphrase.Passes})
	assert.NoError(t, a.SetPassphrase("äöüßéèàô"))
	assert.Error(t, a.SetPassphrase(strings.Repeat("x", 1001)))
	one, err := MadeUp()
	require.NoError(t, err)
	other, err := MadeUp()
	require.NoError(t, err)
	assert.NotEqual(t, one, other)
	assert.Regexp(t, `^[a-z]{6}(-[a-z]{6}){3}$`, one)
	assert.GreaterOrEqual(t, len(syllables), 68, "as many as the doc counts on")
	require.NoError(t, os.WriteFile(path, []byte("{"), 0o600))
	_, err = Open(path, time.Now)
	assert.ErrorContains(t, err, "remove it and set a new passphrase")
}
