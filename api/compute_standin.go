package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/listen/pluck"
	"undaris/core/take/standin"
	"undaris/format/document"
	"undaris/format/soundfile"
)

// StandInRequest asks the simulated player to play a line.
type StandInRequest struct {
	PlayContext
	Events []document.Event `json:"events" minItems:"1" maxItems:"4096" doc:"The line, in ticks of the tune"`
	From   int              `json:"from,omitempty" minimum:"0" doc:"The first bar that is played, from 1; left out for 1"`
	Bars   int              `json:"bars,omitempty" minimum:"0" maximum:"200" doc:"How many; left out for all that have notes"`
	Start  float64          `json:"start,omitempty" minimum:"0" maximum:"60" doc:"Seconds of silence before that bar"`
	Faults StandInFaults    `json:"faults,omitempty"`
}

// StandInFaults are what the player does not do as it is written.
type StandInFaults struct {
	Late   float64 `json:"late,omitempty" doc:"Milliseconds, early below 0; -200 to 200"`
	Uneven float64 `json:"uneven,omitempty" doc:"Milliseconds that notes scatter; 0 to 100"`
	Drift  float64 `json:"drift,omitempty" doc:"Milliseconds later from bar to bar; -50 to 50"`
	Swing  float64 `json:"swing,omitempty" doc:"The ratio of the eighths, 1 to 4; left out for the tune's"`
	Flat   float64 `json:"flat,omitempty" doc:"Cents that bends fall short, sharp below 0; -100 to 100"`
	Missed float64 `json:"missed,omitempty" doc:"The share of notes that are left out, 0 to 1"`
	Wrong  float64 `json:"wrong,omitempty" doc:"The share of notes that are a half step off, 0 to 1"`
	Soft   float64 `json:"soft,omitempty" doc:"Decibels softer than usual, 0 to 40"`
	Seed   uint32  `json:"seed,omitempty" doc:"Decides which notes"`
}

// standInRate is the samples a second that the player is sounded at.
const standInRate = 22050

// longestStandIn is how many seconds the player plays at most.
const longestStandIn = 300

func (s *server) registerComputeStandIn(api huma.API) {
	huma.Post(api, "/api/compute/take/standin/sound", func(_ context.Context, in *body[StandInRequest]) (*file, error) {
		playing, err := in.Body.play()
		if err != nil {
			return nil, err
		}
		sound := pluck.Render(playing.Notes, pluck.CleanNeck, standInRate, playing.Seconds, uint64(in.Body.Faults.Seed))
		return &file{Type: "audio/wav", Disposition: attached("stand-in.wav"), Body: soundfile.WAV(sound, standInRate)}, nil
	}, fileAnswer("audio/wav"))
	posts(api, "/api/compute/take/standin/keys", func(_ context.Context, in *body[StandInRequest]) (*body[[]KeyEvent], error) {
		playing, err := in.Body.play()
		if err != nil {
			return nil, err
		}
		return &body[[]KeyEvent]{each(playing.Keys(), func(e standin.KeyEvent) KeyEvent { return KeyEvent(e) })}, nil
	})
}

func (r StandInRequest) play() (standin.Playing, error) {
	o, err := r.read()
	if err != nil {
		return standin.Playing{}, err
	}
	f := r.Faults
	faults := standin.Faults{Late: f.Late, Uneven: f.Uneven, Drift: f.Drift, Swing: f.Swing, Flat: f.Flat, Missed: f.Missed, Wrong: f.Wrong, Soft: f.Soft, Seed: uint64(f.Seed)}
	if err := faults.Check(); err != nil {
		return standin.Playing{}, invalid("faults", err)
	}
	line, err := document.Phrase{Meter: o.chart.Meter.String(), Events: r.Events}.Core(o.instrument)
	if err != nil {
		return standin.Playing{}, invalid("", err)
	}
	time := o.chart.Timeline()
	from := time.Start(max(r.From-1, 0))
	if r.Bars > 0 {
		end := time.Start(max(r.From-1, 0) + r.Bars)
		for n, e := range line.Events {
			if e.Tick >= end {
				line.Events = line.Events[:n]
				break
			}
		}
	}
	playing := standin.Play(line, o.instrument, o.chart, from, r.Start, faults)
	if playing.Seconds > longestStandIn {
		return standin.Playing{}, problem(http.StatusUnprocessableEntity, "the line lasts more than five minutes; ask for fewer bars")
	}
	return playing, nil
}
