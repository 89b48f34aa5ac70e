package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/format/document"
)

// MovesRequest asks for a lick moved to every chord of a chart.
type MovesRequest struct {
	PlayContext
	Lick     document.Lick `json:"lick"`
	Position string        `json:"position,omitempty" doc:"Where the hand stands: a position's id or form; left out for the home position"`
	// AsWritten leaves the lick where it is.
	AsWritten bool `json:"asWritten,omitempty" doc:"Take the lick in its own key, on its own strings and frets; left out to set it into the chart's key where the hand stands"`
}

// LickMoves is a lick over every chord of a chart, by each way there is to move it.
type LickMoves struct {
	Methods []string    `json:"methods" doc:"The ways, in the order of the moves"`
	Chords  []LickMoved `json:"chords" doc:"The distinct chords in the order they first sound"`
}

// LickMoved is a lick over one chord.
type LickMoved struct {
	Chord string     `json:"chord"`
	Roman string     `json:"roman"`
	Moves []LickMove `json:"moves" doc:"By each of the ways"`
}

// LickMove is a lick moved by one way, and what it costs.
type LickMove struct {
	Method    string       `json:"method"`
	Refused   string       `json:"refused,omitempty" doc:"Why it cannot be done; then there is no tab"`
	Text      string       `json:"text" doc:"What it costs, in a few words"`
	Low       int          `json:"low" doc:"The lowest and highest fret"`
	High      int          `json:"high"`
	StretchMM float64      `json:"stretchMm"`
	Caution   string       `json:"caution,omitempty"`
	Altered   []Alteration `json:"altered" doc:"The notes that were changed, and how"`
	Lost      []string     `json:"lost" doc:"The techniques that had to go"`
	Tab       *Tab         `json:"tab,omitempty" doc:"Over the first place of the tune that has the chord"`
	// Lick is left out with the tab.
	Lick *document.Lick `json:"lick,omitempty" doc:"The moved lick as one of its own, ready to be kept"`
	// OwnChart is given where the tab is not over the tune.
	OwnChart *document.Chart `json:"ownChart,omitempty" doc:"The lick's own bars and chords, which the tab is over"`
}

// Alteration is one note that was changed.
type Alteration struct {
	Event     int    `json:"event" doc:"From 0"`
	Semitones int    `json:"semitones" doc:"How far its sound moved"`
	Text      string `json:"text"`
}

// mostMoved is how many notes a lick has over all chords of a tune together, each in three ways (our choice: some 12 MB of
// answer, and less than a second).
const mostMoved = 12_000

func (s *server) registerComputeMoves(api huma.API) {
	posts(api, "/api/compute/lick/moves", func(ctx context.Context, in *body[MovesRequest]) (*body[LickMoves], error) {
		on, chosen, position, err := in.Body.placed()
		if err != nil {
			return nil, err
		}
		if chosen.Phrase, err = chosen.Phrase.InMeter(on.chart.Meter); err != nil {
			return nil, invalid("lick", err)
		}
		out := LickMoves{Methods: names(lick.MoveMethods), Chords: []LickMoved{}}
		chords := on.chart.Chords()
		if written := len(chords) * len(chosen.Phrase.Events); written > mostMoved {
			return nil, invalid("lick", fmt.Errorf("it has %d notes, and the tune %d chords: at most %d notes over all chords are written at once; cut the lick into parts", len(chosen.Phrase.Events), len(chords), mostMoved))
		}
		for _, c := range chords {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			moved := LickMoved{Chord: c.Symbol(), Roman: on.home().Roman(c)}
			for _, m := range chosen.MovesTo(on.instrument, position.Window, on.home(), c) {
				moved.Moves = append(moved.Moves, on.lickMove(chosen, m, c))
			}
			out.Chords = append(out.Chords, moved)
		}
		return &body[LickMoves]{out}, nil
	})
}

// setLick reads a lick that is worked on over a chart: in the chart's time, at a
// position of its key.
func (o PlayContext) setLick(d document.Lick, at string) (playContext, lick.Lick, neck.Position, error) {
	fail := func(err error) (playContext, lick.Lick, neck.Position, error) {
		return playContext{}, lick.Lick{}, neck.Position{}, err
	}
	read, err := o.read()
	if err != nil {
		return fail(err)
	}
	position, err := read.position(at)
	if err != nil {
		return fail(err)
	}
	chosen, err := d.Core()
	if err != nil {
		return fail(invalid("lick", err))
	}
	if chosen.Phrase, err = chosen.Phrase.InMeter(read.chart.Meter); err != nil {
		return fail(invalid("lick", err))
	}
	return read, chosen, position, nil
}

// placed reads the request's lick and puts it where it is worked on: as it is written, on
// the instrument it was written for, or into the chart's key where the hand stands. The
// position is where it then lies.
func (r MovesRequest) placed() (playContext, lick.Lick, neck.Position, error) {
	read, chosen, position, err := r.setLick(r.Lick, r.Position)
	if err != nil {
		return playContext{}, lick.Lick{}, neck.Position{}, err
	}
	if r.AsWritten {
		if chosen, err = r.Lick.Core(); err != nil { // in its own meter, too
			return playContext{}, lick.Lick{}, neck.Position{}, invalid("lick", err)
		}
		read.instrument = chosen.WrittenFor()
		return read, chosen, chosen.NearestPosition(read.instrument), nil
	}
	if chosen, err = chosen.TransposedTo(read.instrument, read.home().Tonic, position.Window); err != nil {
		return playContext{}, lick.Lick{}, neck.Position{}, invalid("lick", err)
	}
	return read, chosen, position, nil
}

func (o playContext) lickMove(l lick.Lick, m lick.Move, c harmony.Chord) LickMove {
	out := o.cost(m)
	if m.Refused == "" {
		tab := o.tab(m.Phrase, m.Phrase.StartAtChord(o.chart, c), "")
		kept := document.LickOf(l.Moved(m, o.home(), c, o.instrument))
		out.Tab, out.Lick = &tab, &kept
	}
	return out
}

// cost is what a way of moving a lick costs.
func (o playContext) cost(m lick.Move) LickMove {
	out := LickMove{
		Method: string(m.Method), Refused: m.Refused, Text: m.Text(), Low: m.Low, High: m.High, StretchMM: m.StretchMM,
		Caution: neck.Shape{StretchMM: m.StretchMM}.Caution(o.spanMM), Altered: []Alteration{}, Lost: append([]string{}, m.Lost...),
	}
	for _, a := range m.Altered {
		out.Altered = append(out.Altered, Alteration{Event: a.Index, Semitones: a.Semitones, Text: a.Text})
	}
	return out
}
