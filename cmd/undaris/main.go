// Command undaris serves the application: serve with the player's own data,
// demo with the demo set.
package main

import (
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"strings"
)

// version is set at build time with -ldflags "-X main.version=…".
var version = "0.1.0-dev"

const usage = `undaris maps chord tones on the neck and leads licks to the changes.

  undaris serve     with your own data
  undaris demo      with the demo set, in a data file of its own
  undaris survey    plan many choruses and say what they have in common, as a table;
                    --licks plans them from the licks of the demo set
  undaris ear       how well notes are heard, as a table; --recorded only by notes
                    that the ear was not tuned on, --beside with aubionotes
  undaris version   which version this is

Flags of serve and demo:
  --addr ADDR         where to listen, default 127.0.0.1:8380; an address other
                      than loopback needs a passphrase in UNDARIS_PASSPHRASE
  --data FILE         the data file; default undaris.db (demo: demo.db) in the
                      user's data directory
  --verbose           log every request
`

func main() {
	if err := run(os.Args[1:], os.Stdout, os.Stderr); err != nil {
		fmt.Fprintln(os.Stderr, "undaris:", err)
		os.Exit(1)
	}
}

func run(args []string, stdout, stderr io.Writer) error {
	command := "help"
	if len(args) > 0 {
		command, args = strings.TrimLeft(args[0], "-"), args[1:]
	}
	switch command {
	case "serve", "demo":
		settings, err := readSettings(command == "demo", args, stderr)
		if errors.Is(err, flag.ErrHelp) {
			return nil
		}
		if err != nil {
			return err
		}
		return serve(settings, stdout, stderr)
	case "ear":
		return ear(args, stdout, stderr)
	case "survey":
		return survey(args, stdout, stderr)
	case "version":
		fmt.Fprintln(stdout, "undaris", version)
		return nil
	case "help", "h":
		fmt.Fprint(stdout, usage)
		return nil
	}
	return fmt.Errorf("%q is not a command; there are serve, demo, survey, ear and version", command)
}
