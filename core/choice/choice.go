package choice

import (
	"fmt"
	"strings"

	"github.com/agnivade/levenshtein"
)

// Error says that a name is none of those that can be chosen.
type Error struct {
	// Noun is what was looked for, with its article: "a feel".
	Noun, Name string
	// Allowed lists the names that can be chosen, in their order.
	Allowed []string
}

func (e *Error) Error() string {
	return fmt.Sprintf("%q is not %s; choose one of: %s", e.Name, e.Noun, strings.Join(e.Allowed, ", "))
}

// Nearest is the allowed name that the fewest letters have to be changed for, the first of
// several. It is empty where more than half of the letters would change: such a name is no
// slip of the pen (our choice).
func (e *Error) Nearest() string {
	nearest, least := "", len([]rune(e.Name))/2+1
	for _, name := range e.Allowed {
		if letters := levenshtein.ComputeDistance(strings.ToLower(e.Name), strings.ToLower(name)); letters < least {
			nearest, least = name, letters
		}
	}
	return nearest
}

// Find returns the one of that name. The noun, with its article, is what the error calls it;
// the error is an *Error.
func Find[T any](noun string, all []T, nameOf func(T) string, name string) (T, error) {
	allowed := make([]string, len(all))
	for n, one := range all {
		if allowed[n] = nameOf(one); allowed[n] == name {
			return one, nil
		}
	}
	var none T
	return none, &Error{Noun: noun, Name: name, Allowed: allowed}
}

// FindText is Find for names that stand for themselves.
func FindText[T ~string](noun string, all []T, name string) (T, error) {
	return Find(noun, all, func(one T) string { return string(one) }, name)
}
