package survey

import (
	"context"
	"fmt"
	"io"

	"undaris/core/lick"
)

// Write plans every scheme from so many seeds, and two tunes from a hundred, and writes
// the figures of their best choruses as tables in Markdown. Licks, where there are any, are
// the vocabulary.
func Write(ctx context.Context, w io.Writer, seeds int, licks []lick.Lick) error {
	all, err := OfSchemes(ctx, seeds, licks)
	if err != nil {
		return err
	}
	if _, err := fmt.Fprintf(w, "%d choruses:\n\n| Figure | Wanted | Measured |\n| --- | --- | --- |\n", all.choruses); err != nil {
		return err
	}
	for _, row := range all.Rows() {
		if _, err := fmt.Fprintln(w, row); err != nil {
			return err
		}
	}
	tunes, err := OfSeeds(ctx, licks)
	if err != nil {
		return err
	}
	if _, err := fmt.Fprintf(w, "\nTwo tunes, %d seeds each:\n\n| Figure | Wanted | Measured |\n| --- | --- | --- |\n", Seeds); err != nil {
		return err
	}
	for _, tune := range tunes {
		for _, row := range tune.Rows() {
			if _, err := fmt.Fprintln(w, row); err != nil {
				return err
			}
		}
	}
	return nil
}
