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

  undaris           with your own data, and opens the browser
  undaris serve     with your own data
  undaris demo      with the demo set, in a data file of its own

  undaris backup    make a backup, while it runs or not; --list lists them
  undaris restore   put a backup in the place of the data: undaris restore NAME,
                    or a copy that you made by hand: undaris restore FILE.db
  undaris check     read everything that is kept and say what is not right;
                    --rescue NEW.db writes what can be read of a damaged file
  undaris export    write everything to a bundle: undaris export FILE.zip;
                    --tune ID one tune with what belongs to it,
                    --without-versions, --without-takes
  undaris import    read a bundle: undaris import FILE.zip; --preview only says
                    what it would bring, --replace removes what is there first,
                    --differing mine|theirs|both says what of both is kept

  undaris version   which version this is

Flags:
  --data FILE         the data file; default undaris.db (demo: demo.db) in the
                      user's data directory
  --backups FOLDER    where backups go; default FILE.backups
  --demo              of backup, restore, check, export, import: the demo's data

Flags of serve and demo:
  --addr ADDR         where to listen, default 127.0.0.1:8380; 0.0.0.0:8380 lets
                      a tablet in the house in, with --tls and the passphrase
  --tls               with a certificate made for this machine, which the tablet
                      is to trust; --tls-cert FILE --tls-key FILE takes given ones
  --insecure          let other machines in without TLS: the passphrase can be
                      overheard, and the microphone does not work there
  --new-passphrase    make up another passphrase, and show it; to choose one, set
                      UNDARIS_PASSPHRASE, of at least eight characters
  --open, --no-open   open the browser, or not
  --verbose           log every request
`

func main() {
	restrictUmask()
	if err := run(os.Args[1:], os.Stdout, os.Stderr); err != nil {
		fmt.Fprintln(os.Stderr, "undaris:", err)
		os.Exit(1)
	}
}

func run(args []string, stdout, stderr io.Writer) error {
	command := ""
	if len(args) > 0 && (!strings.HasPrefix(args[0], "-") || isHelp(args[0])) {
		command, args = strings.TrimLeft(args[0], "-"), args[1:]
	}
	switch command {
	case "", "serve", "demo":
		settings, err := readSettings(command, args, stderr)
		if errors.Is(err, flag.ErrHelp) {
			return nil
		}
		if err != nil {
			return err
		}
		return serve(settings, stdout, stderr)
	case "backup":
		return makeBackup(args, stdout, stderr)
	case "restore":
		return restoreBackup(args, stdout, stderr)
	case "check":
		return checkKept(args, stdout, stderr)
	case "export":
		return exportBundle(args, stdout, stderr)
	case "import":
		return importBundle(args, stdout, stderr)
	case "version":
		fmt.Fprintln(stdout, "undaris", version)
		return nil
	case "help", "h":
		fmt.Fprint(stdout, usage)
		return nil
	}
	return fmt.Errorf("%q is not a command; there are serve, demo, backup, restore, check, export, import and version", command)
}

func isHelp(word string) bool {
	switch strings.TrimLeft(word, "-") {
	case "help", "h", "version":
		return true
	}
	return false
}
