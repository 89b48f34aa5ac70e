package access

import (
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"errors"
	"fmt"
	"math/big"
	"slices"
	"strings"
	"unicode/utf8"

	"golang.org/x/crypto/argon2"
)

// LeastPassphrase is how many characters a passphrase has at least.
const LeastPassphrase = 8

// ErrShort says that a passphrase is too short.
var ErrShort = fmt.Errorf("the passphrase must have at least %d characters", LeastPassphrase)

// The cost of argon2id: the first that OWASP's Password Storage Cheat Sheet (2025) gives, 19 MiB and two passes.
const (
	memoryKiB = 19 * 1024
	passes    = 2
	threads   = 1
	keyBytes  = 32
	saltBytes = 16
)

// hashed is a passphrase as it is kept.
type hashed struct {
	Salt   []byte `json:"salt"`
	Key    []byte `json:"key"`
	Memory uint32 `json:"memoryKiB"`
	Passes uint32 `json:"passes"`
}

func hash(passphrase string) (hashed, error) {
	h := hashed{Salt: make([]byte, saltBytes), Memory: memoryKiB, Passes: passes}
	if _, err := rand.Read(h.Salt); err != nil {
		return h, err
	}
	h.Key = h.keyOf(passphrase)
	return h, nil
}

func (h hashed) keyOf(passphrase string) []byte {
	return argon2.IDKey([]byte(passphrase), h.Salt, h.Passes, h.Memory, threads, keyBytes)
}

func (h hashed) is(passphrase string) bool {
	return len(h.Key) == keyBytes && subtle.ConstantTimeCompare(h.keyOf(passphrase), h.Key) == 1
}

// ErrEasy says that a passphrase is one of those that are guessed first.
var ErrEasy = errors.New("this passphrase is guessed at once: take some words that nobody puts together")

// leastDifferent is how many different characters a passphrase has at least.
const leastDifferent = 5

// easy are what most people begin with (our choice: the words, whatever figures stand behind them).
var easy = []string{"password", "passphrase", "passwort", "undaris", "qwerty", "qwertz", "letmein", "welcome", "iloveyou", "guitar", "admin", "123456", "abcdef"}

func isEasy(passphrase string) bool {
	plain := strings.ToLower(strings.TrimSpace(passphrase))
	different := map[rune]bool{}
	for _, r := range plain {
		different[r] = true
	}
	if len(different) < leastDifferent {
		return true
	}
	bare := strings.TrimRight(plain, "0123456789!?.")
	return slices.Contains(easy, bare) || strings.HasPrefix(plain, "123456") || strings.Contains("01234567890", plain)
}

func checkPassphrase(passphrase string) error {
	switch {
	case utf8.RuneCountInString(passphrase) < LeastPassphrase:
		return ErrShort
	case len(passphrase) > 1000:
		return errors.New("the passphrase must have at most 1000 bytes")
	case isEasy(passphrase):
		return ErrEasy
	}
	return nil
}

// syllables of a passphrase that is made up: easily typed on a tablet, none like another.
var syllables = strings.Fields("ba be bi bo bu da de di do du fa fe fi fo fu ga ge gi go gu ka ke ki ko ku la le li lo lu ma me mi mo mu na ne ni no nu pa pe pi po pu ra re ri ro ru sa se si so su ta te ti to tu va ve vi vo vu za ze zi zo zu")

// MadeUp makes up a passphrase of four words of three syllables, which are 73 bits of chance.
func MadeUp() (string, error) {
	words := make([]string, 4)
	for n := range words {
		for range 3 {
			at, err := rand.Int(rand.Reader, big.NewInt(int64(len(syllables))))
			if err != nil {
				return "", err
			}
			words[n] += syllables[at.Int64()]
		}
	}
	return strings.Join(words, "-"), nil
}

// newToken is a token of a session: 256 bits.
func newToken() (string, error) {
	raw := make([]byte, 32)
	_, err := rand.Read(raw)
	return base64.RawURLEncoding.EncodeToString(raw), err
}
