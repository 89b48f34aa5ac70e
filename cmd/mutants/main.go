// Command mutants changes one operator or constant of a package at a time, runs the package's tests, and says which of the
// changes they do not notice. It changes no file: the tests run over an overlay.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"
)

func main() {
	if err := run(os.Args[1:], os.Stdout, os.Stderr); err != nil && !errors.Is(err, flag.ErrHelp) {
		fmt.Fprintln(os.Stderr, "mutants:", err)
		os.Exit(1)
	}
}

func run(args []string, stdout, stderr io.Writer) error {
	flags := flag.NewFlagSet("mutants", flag.ContinueOnError)
	flags.SetOutput(stderr)
	count := flags.Int("n", 10, "how many mutants of each package are tried, drawn from all of them")
	seed := flags.Uint64("seed", 1, "which ones are drawn")
	short := flags.Bool("short", false, "run the tests as make unit does")
	if err := flags.Parse(args); err != nil {
		return err
	}
	if flags.NArg() == 0 {
		return errors.New("name the folders of the packages, such as ./core/neck")
	}
	tried, survived := 0, 0
	for _, folder := range flags.Args() {
		all, err := mutantsOf(folder)
		if err != nil {
			return err
		}
		random := rand.New(rand.NewPCG(*seed, uint64(len(folder))))
		random.Shuffle(len(all), func(a, b int) { all[a], all[b] = all[b], all[a] })
		for _, m := range all[:min(*count, len(all))] {
			killed, err := tests(folder, m, *short)
			if err != nil {
				return err
			}
			if tried++; !killed {
				survived++
				fmt.Fprintln(stdout, "survives:", m)
			}
		}
	}
	fmt.Fprintf(stdout, "%d of %d mutants survive\n", survived, tried)
	return nil
}

// longest is how long the tests of a mutant may go on: one that never ends is noticed.
const longest = 3 * time.Minute

// tests runs the tests of a package over a mutant and says whether they notice it. One that does not compile is noticed.
func tests(folder string, m mutant, short bool) (noticed bool, err error) {
	work, err := os.MkdirTemp("", "mutants-*")
	if err != nil {
		return false, err
	}
	defer func() { _ = os.RemoveAll(work) }()
	changed, overlay := filepath.Join(work, "changed.go"), filepath.Join(work, "overlay.json")
	original, err := filepath.Abs(m.file)
	if err != nil {
		return false, err
	}
	replace, err := json.Marshal(map[string]any{"Replace": map[string]string{original: changed}})
	if err != nil {
		return false, err
	}
	if err := errors.Join(os.WriteFile(changed, m.changed, 0o600), os.WriteFile(overlay, replace, 0o600)); err != nil {
		return false, err
	}
	arguments := []string{"test", "-overlay", overlay, "-vet=off", "-failfast", "-count=1"}
	if short {
		arguments = append(arguments, "-short")
	}
	bounded, stop := context.WithTimeout(context.Background(), longest)
	defer stop()
	command := exec.CommandContext(bounded, "go", append(arguments, "./"+strings.TrimPrefix(folder, "./"))...)
	return command.Run() != nil, nil
}
