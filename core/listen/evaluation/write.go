package evaluation

import (
	"fmt"
	"io"

	"undaris/core/listen"
)

// Ear hears the notes of a sound.
type Ear struct {
	Name string
	Hear func(samples []float32, rate int) ([]listen.Note, error)
}

// Write writes the table of ears, voices and disturbances in Markdown, a row as soon as it is known.
func Write(out io.Writer, ears []Ear, voices []Voice) error {
	lines := Lines()
	if _, err := fmt.Fprintln(out, "| heard by | voice | disturbance | F | onset, median ms | bends heard | bend error, median and most cents | slurs and slides | vibratos |\n|---|---|---|---|---|---|---|---|---|"); err != nil {
		return err
	}
	for _, v := range voices {
		for _, d := range append([]Disturbance{Clean}, Disturbances()...) {
			for _, ear := range ears {
				row, err := Hear(lines, v, d, 44100, ear.Hear)
				if err != nil {
					return err
				}
				s := row.Score
				if _, err := fmt.Fprintf(out, "| %s | %s | %s | %.3f | %.1f | %d of %d | %.1f, %.0f | %d of %d | %d of %d |\n", ear.Name, v.Name, d.Name, s.F(),
					1000*Median(s.OnsetErrors), s.BendsHeard, s.Bends, Median(s.BendErrors), Most(s.BendErrors), s.SlursHeard, s.Slurs, s.VibratosHeard, s.Vibratos); err != nil {
					return err
				}
			}
		}
	}
	return nil
}
