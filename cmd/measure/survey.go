package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"

	"undaris/core/lick"
	solosurvey "undaris/core/solo/survey"
	"undaris/demo"
)

// survey plans many choruses and writes what they have in common, as tables in Markdown.
func survey(args []string, stdout, stderr io.Writer) error {
	flags := flag.NewFlagSet("survey", flag.ContinueOnError)
	flags.SetOutput(stderr)
	seeds := flags.Int("seeds", 3, "how many seeds every scheme, key and position is planned from")
	fromLicks := flags.Bool("licks", false, "plan from the licks of the demo set")
	switch err := flags.Parse(args); {
	case errors.Is(err, flag.ErrHelp):
		return nil
	case err != nil:
		return err
	case *seeds < 1 || flags.NArg() > 0:
		return fmt.Errorf("survey takes --seeds, a number from 1, and --licks")
	}
	licks := []lick.Lick{}
	if *fromLicks {
		kept, err := demo.Licks()
		if err != nil {
			return err
		}
		for _, one := range kept {
			l, err := one.Core()
			if err != nil {
				return err
			}
			licks = append(licks, l)
		}
	}
	return solosurvey.Write(context.Background(), stdout, *seeds, licks)
}
