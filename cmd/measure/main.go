// Command measure says in tables how well the ear hears and what planned choruses have in common. It is for those who work
// on Undaris, and is no part of what players get.
package main

import (
	"fmt"
	"io"
	"os"
)

const usage = `measure says in tables how well parts of Undaris do.

  measure ear       how well notes are heard; --recorded only by notes that the
                    ear was not tuned on, --beside with aubionotes
  measure survey    what many planned choruses have in common; --seeds N,
                    --licks plans them from the licks of the demo set
`

func main() {
	if err := run(os.Args[1:], os.Stdout, os.Stderr); err != nil {
		fmt.Fprintln(os.Stderr, "measure:", err)
		os.Exit(1)
	}
}

func run(args []string, stdout, stderr io.Writer) error {
	if len(args) == 0 {
		fmt.Fprint(stdout, usage)
		return nil
	}
	switch args[0] {
	case "ear":
		return ear(args[1:], stdout, stderr)
	case "survey":
		return survey(args[1:], stdout, stderr)
	}
	return fmt.Errorf("%q is not a command; there are ear and survey", args[0])
}
