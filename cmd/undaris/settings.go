package main

import (
	"errors"
	"flag"
	"fmt"
	"io"
	"io/fs"
	"net"
	"os"
	"path/filepath"
	"runtime"
)

// settings is how a server is asked to run.
type settings struct {
	demo bool
	addr string
	data string
	// backups is the folder of the backups, empty for the one beside the data file.
	backups string
	// open has the browser opened.
	open       bool
	passphrase string
	// newPassphrase asks for a passphrase to be made up anew.
	newPassphrase bool
	// tls asks for a certificate of its own; certificate and key name given ones.
	tls              bool
	certificate, key string
	// insecure lets other machines in without TLS.
	insecure bool
	verbose  bool
	loopback bool
}

// passphraseVariable holds the passphrase, which does not belong in a command
// line that others on the machine can read.
const passphraseVariable = "UNDARIS_PASSPHRASE"

// readSettings reads the flags of a command: serve, demo, or none, which opens the browser.
func readSettings(command string, args []string, stderr io.Writer) (settings, error) {
	demo := command == "demo"
	s := settings{demo: demo, passphrase: os.Getenv(passphraseVariable)}
	flags := flag.NewFlagSet("undaris", flag.ContinueOnError)
	flags.SetOutput(stderr)
	flags.Usage = func() { fmt.Fprint(stderr, usage) }
	flags.StringVar(&s.addr, "addr", "127.0.0.1:8380", "")
	flags.StringVar(&s.data, "data", "", "")
	flags.StringVar(&s.backups, "backups", "", "")
	flags.BoolVar(&s.open, "open", command == "", "")
	flags.BoolFunc("no-open", "", func(string) error { s.open = false; return nil })
	flags.BoolVar(&s.newPassphrase, "new-passphrase", false, "")
	flags.BoolVar(&s.tls, "tls", false, "")
	flags.StringVar(&s.certificate, "tls-cert", "", "")
	flags.StringVar(&s.key, "tls-key", "", "")
	flags.BoolVar(&s.insecure, "insecure", false, "")
	flags.BoolVar(&s.verbose, "verbose", false, "")
	if err := flags.Parse(args); err != nil {
		return s, err
	}
	if flags.NArg() > 0 {
		return s, fmt.Errorf("%q is one word too many", flags.Arg(0))
	}
	host, _, err := net.SplitHostPort(s.addr)
	if err != nil {
		return s, fmt.Errorf("--addr %s: give a host and a port, as in 127.0.0.1:8380", s.addr)
	}
	ip := net.ParseIP(host)
	s.loopback = host == "localhost" || (ip != nil && ip.IsLoopback())
	switch given := s.certificate != "" || s.key != ""; {
	case given && (s.certificate == "" || s.key == ""):
		return s, errors.New("--tls-cert and --tls-key go together: name both files")
	case given && s.tls:
		return s, errors.New("--tls makes a certificate; with --tls-cert and --tls-key leave it out")
	case !s.loopback && !given && !s.tls && !s.insecure:
		return s, fmt.Errorf("--addr %s can be reached from other machines: add --tls, so that nobody listens in and the microphone works there, or --insecure where you trust the whole network", s.addr)
	case s.insecure && (s.tls || given):
		return s, errors.New("--insecure is without TLS: give one or the other")
	}
	s.data, err = dataFileOf(flags, s.data, demo)
	return s, err
}

// dataFileOf is the data file that is meant: the one that --data names, where it really lies if that is a link, so that
// one file is never opened under two names; else the user's own.
func dataFileOf(flags *flag.FlagSet, given string, demo bool) (string, error) {
	named := false
	flags.Visit(func(f *flag.Flag) { named = named || f.Name == "data" })
	if !named {
		return defaultData(demo)
	}
	if given == "" {
		return "", errors.New("--data names no file; leave it out for your own library")
	}
	path, err := filepath.EvalSymlinks(given)
	if errors.Is(err, fs.ErrNotExist) {
		return given, nil // it will be made
	}
	if err != nil {
		return "", fmt.Errorf("--data %s: %w", given, err)
	}
	return path, nil
}

// defaultData is the data file in the user's data directory. The demo set has a
// file of its own and never touches the user's.
func defaultData(demo bool) (string, error) {
	folder, err := dataFolder()
	if err != nil {
		return "", err
	}
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return "", fmt.Errorf("the data directory %s cannot be made; make it, or name a file with --data", folder)
	}
	if demo {
		return filepath.Join(folder, "demo.db"), nil
	}
	return filepath.Join(folder, "undaris.db"), nil
}

func dataFolder() (string, error) {
	if folder := os.Getenv("XDG_DATA_HOME"); folder != "" {
		return filepath.Join(folder, "undaris"), nil
	}
	if runtime.GOOS == "windows" || runtime.GOOS == "darwin" {
		folder, err := os.UserConfigDir()
		return filepath.Join(folder, "Undaris"), err
	}
	home, err := os.UserHomeDir()
	if err != nil {
		return "", errors.New("there is no home directory to keep data in; give --data a file")
	}
	return filepath.Join(home, ".local", "share", "undaris"), nil
}
