package evaluation

import (
	"undaris/core/listen"
	"undaris/core/listen/pluck"
)

// Voice sounds notes at so many samples a second, for so many seconds.
type Voice struct {
	Name   string
	Render func(notes []pluck.Played, rate int, seconds float64) []float32
}

// Plucked are the voices that the ear was tuned on: strings by computation, at every pickup and with every
// hand.
func Plucked() []Voice {
	voice := func(name string, tone pluck.Tone) Voice {
		return Voice{name, func(notes []pluck.Played, rate int, seconds float64) []float32 {
			return pluck.Render(notes, tone, rate, seconds, 1)
		}}
	}
	return []Voice{voice("neck pickup, pick", pluck.CleanNeck), voice("neck pickup, light pick", pluck.LightNeck), voice("bridge pickup, pick", pluck.CleanBridge), voice("neck pickup, fingers", pluck.FingersNeck)}
}

// Row is what was heard of all lines by one voice with one disturbance.
type Row struct {
	Voice, Disturbance string
	Rate               int
	Score              Score
	// Lines are the scores of each line, as Lines lists them.
	Lines []Score
	// Seconds of sound that were heard.
	Seconds float64
}

// Hear hears all lines by a voice, with a disturbance, at so many samples a second.
func Hear(lines []Line, v Voice, d Disturbance, rate int, ear func(samples []float32, rate int) ([]listen.Note, error)) (Row, error) {
	row := Row{Voice: v.Name, Disturbance: d.Name, Rate: rate}
	for _, line := range lines {
		notes := d.notes(line.Notes)
		sound := v.Render(notes, rate, line.Seconds)
		d.sound(sound, rate)
		heard, err := ear(sound, rate)
		if err != nil {
			return row, err
		}
		score := Compare(notes, heard)
		row.Score.Add(score)
		row.Lines = append(row.Lines, score)
		row.Seconds += line.Seconds
	}
	return row, nil
}
