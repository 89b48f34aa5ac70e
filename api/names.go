package api

import "fmt"

// names writes the members of a list of the core by their names.
func names[T any](all []T) []string {
	texts := make([]string, len(all))
	for n, one := range all {
		texts[n] = fmt.Sprint(one)
	}
	return texts
}
