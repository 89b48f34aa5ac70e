package demo

import (
	"bytes"
	"context"
	"time"

	"undaris/core/listen/pluck"
	"undaris/core/solo/chorus"
	"undaris/core/take/standin"
	"undaris/format/document"
	"undaris/format/soundfile"
	"undaris/library/documents"
	"undaris/store"
)

// takePlan is how the simulated player plays one of the demo takes: the solo over the first tune.
type takePlan struct {
	name, about string
	daysAgo     int
	faults      standin.Faults
}

// takePlans are two takes of the same chorus, a week apart.
var takePlans = []takePlan{
	{"First crossing, on Monday", "Too fast out of the harbour", 8, standin.Faults{Late: -14, Uneven: 20, Drift: -9, Flat: 38, Missed: 0.08, Wrong: 0.06, Seed: 4}},
	{"First crossing, a week on", "With the foot going", 1, standin.Faults{Late: 18, Uneven: 7, Flat: 10, Seed: 9}},
}

const (
	takeRate  = 22050
	takeStart = 0.5
	// takeSeed is that of the strings.
	takeSeed = 7
)

// TakeNotes reads what was heard of the demo takes, in their order.
func TakeNotes() ([][]document.TakeNote, error) { return read[[]document.TakeNote]("takes") }

// takeSounds are the sounds of the demo takes, and the line that is meant, over the first tune.
func takeSounds() (sounds [][]float32, line document.Phrase, tune document.Chart, err error) {
	tunes, err := Charts()
	if err != nil {
		return nil, line, tune, err
	}
	solos, err := Solos()
	if err != nil {
		return nil, line, tune, err
	}
	tune = tunes[0]
	over, swaps, err := document.PlayContextOf(tune, nil)
	if err != nil {
		return nil, line, tune, err
	}
	joined, err := document.JoinedLine(solos[0].Solo.Choruses[:1], chorus.PlayContext{Chart: over.Chart, Instrument: over.Instrument, SpanMM: over.SpanMM}, swaps)
	if err != nil {
		return nil, line, tune, err
	}
	for _, plan := range takePlans {
		playing := standin.Play(joined, over.Instrument, over.Chart, 0, takeStart, plan.faults)
		sounds = append(sounds, pluck.Render(playing.Notes, pluck.CleanNeck, takeRate, playing.Seconds, takeSeed))
	}
	return sounds, document.PhraseOf(joined), tune, nil
}

// FillTakes keeps the two takes of the simulated player over the first tune, with their sound.
func FillTakes(ctx context.Context, l *documents.Library, files *store.Sounds, now time.Time) error {
	heard, err := TakeNotes()
	if err != nil {
		return err
	}
	sounds, line, tune, err := takeSounds()
	if err != nil {
		return err
	}
	charts, err := documents.Charts.List(ctx, l, 0)
	if err != nil {
		return err
	}
	first := charts[0].ID
	for _, c := range charts {
		if c.Name == tune.Title {
			first = c.ID
		}
	}
	for n, plan := range takePlans {
		hash, size, err := files.Keep(bytes.NewReader(soundfile.WAV(sounds[n], takeRate)))
		if err != nil {
			return err
		}
		began := now.AddDate(0, 0, -plan.daysAgo).Truncate(24 * time.Hour).Add(20 * time.Hour)
		kept := document.Take{
			Name: plan.name, About: plan.about, Began: began, Chart: tune, Source: "stand-in", Start: takeStart, Notes: heard[n],
			Plan: &document.Phrase{Meter: line.Meter, Events: line.Events}, PlanName: "First crossing",
			Sound: &document.TakeSound{Hash: hash, Rate: takeRate, Seconds: float64(len(sounds[n])) / takeRate, Bytes: size},
		}
		if _, err := documents.Takes.Create(ctx, l, kept, first); err != nil {
			return err
		}
	}
	return nil
}
