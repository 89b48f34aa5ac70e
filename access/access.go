package access

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"slices"
	"sync"
	"time"

	"undaris/wholefile"
)

// How sessions last (our choice: a tablet on the stand is used every few weeks).
const (
	sessionLasts = 90 * 24 * time.Hour
	usedNotedAt  = time.Hour
	mostSessions = 100
)

// ErrWrong says that a passphrase is not the right one.
var ErrWrong = errors.New("that is not the passphrase")

// Session is a device that was let in.
type Session struct {
	// ID names it where it is listed; it is not its token.
	ID string `json:"id"`
	// About is what the device says of itself, Address where it came from.
	About   string    `json:"about"`
	Address string    `json:"address"`
	Began   time.Time `json:"began"`
	Used    time.Time `json:"used"`
}

// kept is what the file has.
type kept struct {
	Passphrase hashed    `json:"passphrase"`
	Sessions   []session `json:"sessions"`
}

type session struct {
	Session
	// Token is the SHA-256 of the token.
	Token string `json:"token"`
}

// Access lets players in. It may be used by several requests at once.
type Access struct {
	path    string
	now     func() time.Time
	mutex   sync.Mutex
	kept    kept
	guesses *guesses
	// checking holds back all but one check of a passphrase: each takes 19 MiB.
	checking sync.Mutex
}

// FileBeside is the file of a data file's passphrase and sessions.
func FileBeside(dataFile string) string { return dataFile + ".access.json" }

// Open reads the file of a passphrase and sessions, or begins without any.
func Open(path string, now func() time.Time) (*Access, error) {
	a := &Access{path: path, now: now, guesses: newGuesses()}
	text, err := os.ReadFile(path)
	if errors.Is(err, os.ErrNotExist) {
		return a, nil
	}
	if err == nil {
		err = json.Unmarshal(text, &a.kept)
	}
	if err != nil {
		return nil, fmt.Errorf("the file %s with the passphrase cannot be read: remove it and set a new passphrase: %w", path, err)
	}
	return a, nil
}

// HasPassphrase says whether there is one.
func (a *Access) HasPassphrase() bool {
	a.mutex.Lock()
	defer a.mutex.Unlock()
	return len(a.kept.Passphrase.Key) > 0
}

// SetPassphrase makes a passphrase the one to be given. Where it is another than before all sessions end.
func (a *Access) SetPassphrase(passphrase string) error {
	if err := checkPassphrase(passphrase); err != nil {
		return err
	}
	a.mutex.Lock()
	defer a.mutex.Unlock()
	if a.kept.Passphrase.is(passphrase) {
		return nil
	}
	made, err := hash(passphrase)
	if err != nil {
		return err
	}
	a.kept = kept{Passphrase: made}
	return a.write()
}

// Enter begins a session for who gives the right passphrase from an address, and returns its token. Its error is
// ErrWrong, or a *WaitError where the passphrase was not even looked at.
func (a *Access) Enter(passphrase, address, about string) (string, error) {
	a.checking.Lock()
	defer a.checking.Unlock()
	a.mutex.Lock()
	now, wanted := a.now(), a.kept.Passphrase
	address = networkOf(address)
	wait := max(a.guesses.wait(address, now), a.guesses.waitOfAll(address, now))
	a.mutex.Unlock()
	if wait > 0 {
		return "", &WaitError{For: wait}
	}
	right := len(passphrase) <= 1000 && wanted.is(passphrase)
	a.mutex.Lock()
	defer a.mutex.Unlock()
	if !right {
		a.guesses.wrong(address, now)
		return "", ErrWrong
	}
	a.guesses.right(address)
	token, err := newToken()
	if err != nil {
		return "", err
	}
	sum := sumOf(token)
	a.forgetOld(now)
	a.kept.Sessions = append(a.kept.Sessions, session{Token: sum, Session: Session{ID: sum[:12], About: about, Address: address, Began: now.UTC(), Used: now.UTC()}})
	if over := len(a.kept.Sessions) - mostSessions; over > 0 {
		a.kept.Sessions = a.kept.Sessions[over:]
	}
	return token, a.write()
}

func sumOf(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}

// SessionOf returns the id of the session of a token; false where there is none.
func (a *Access) SessionOf(token string) (id string, ok bool) {
	if token == "" {
		return "", false
	}
	sum := sumOf(token)
	a.mutex.Lock()
	defer a.mutex.Unlock()
	now := a.now()
	a.forgetOld(now)
	at := slices.IndexFunc(a.kept.Sessions, func(s session) bool { return s.Token == sum })
	if at < 0 {
		return "", false
	}
	one := &a.kept.Sessions[at]
	if now.Sub(one.Used) > usedNotedAt {
		one.Used = now.UTC()
		_ = a.write() // it is noted again the next time
	}
	return one.ID, true
}

// Sessions lists the devices that are let in, the latest first.
func (a *Access) Sessions() []Session {
	a.mutex.Lock()
	defer a.mutex.Unlock()
	a.forgetOld(a.now())
	all := make([]Session, len(a.kept.Sessions))
	for n, s := range a.kept.Sessions {
		all[len(all)-1-n] = s.Session
	}
	return all
}

// End ends a session; one that has ended is no error.
func (a *Access) End(id string) error {
	a.mutex.Lock()
	defer a.mutex.Unlock()
	a.kept.Sessions = slices.DeleteFunc(a.kept.Sessions, func(s session) bool { return s.ID == id })
	return a.write()
}

func (a *Access) forgetOld(now time.Time) {
	a.kept.Sessions = slices.DeleteFunc(a.kept.Sessions, func(s session) bool { return now.Sub(s.Used) > sessionLasts })
}

// write keeps the file: whole, or as it was.
func (a *Access) write() error {
	text, err := json.MarshalIndent(a.kept, "", " ")
	if err != nil {
		return err
	}
	return wholefile.WriteBytes(a.path, append(text, '\n'))
}
