package document

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
)

// SoloDocument is a solo as it is kept: over which tune, for which hands.
type SoloDocument struct {
	Solo  Solo   `json:"solo"`
	Chart Chart  `json:"chart" doc:"The tune as it was when the solo was saved"`
	Hands *Hands `json:"hands,omitempty" doc:"What it is kept for; left out for a guitar in standard tuning"`
}

// LineDocument is a line over a change as it is kept: all that it was made from, and its
// notes. It stands as it was kept, whatever becomes of its chart and lick.
type LineDocument struct {
	Name   string     `json:"name"`
	LickID uint       `json:"lickId"`
	Chart  Chart      `json:"chart"`
	Lick   Lick       `json:"lick"`
	Choice LineChoice `json:"choice"`
	Hands  *Hands     `json:"hands,omitempty"`
	Line   LineNotes  `json:"line"`
}

// LineChoice is what a player chooses of a line, beside its chart and lick.
type LineChoice struct {
	Position    string `json:"position,omitempty" doc:"A position's id, or a form for its lowest place; left out for the E form" example:"E-7"`
	Change      int    `json:"change" doc:"The tick of the change, as the chart's reading lists it"`
	Strategy    string `json:"strategy,omitempty" doc:"What to aim at; left out for thirds first"`
	Target      *Place `json:"target,omitempty" doc:"The place to land on; left out for the strategy's choice"`
	Approach    string `json:"approach,omitempty" doc:"How to lead into the target; left out for the half step below"`
	Subdivision string `json:"subdivision,omitempty" doc:"That of the tail and its approach; left out for eighths"`
}

// Place is one string at one fret.
type Place struct {
	String int `json:"string" doc:"1 is the highest sounding"`
	Fret   int `json:"fret" doc:"0 is open"`
}

// LineNotes are the notes of a line, and where they lie in the chart.
type LineNotes struct {
	// Start is the chart's tick at which the line's tick 0 stands, Arrival that of the target,
	// RunStart that of the first note of the run into it.
	Start    int `json:"start"`
	Arrival  int `json:"arrival"`
	RunStart int `json:"runStart"`
	// Kept is how many of the lick's notes stand as written, Of how many it has.
	Kept int `json:"kept"`
	Of   int `json:"of"`
	// Roles say for each event what it is there for.
	Roles  []string `json:"roles"`
	Phrase Phrase   `json:"phrase"`
}

// Player is what is kept of the player: what is played with, and how the neck is drawn.
type Player struct {
	Hands
	LeftHanded  bool         `json:"leftHanded,omitempty" doc:"The neck is drawn mirrored"`
	LowOnTop    bool         `json:"lowOnTop,omitempty" doc:"The lowest string is drawn on top"`
	Instruments []Instrument `json:"instruments,omitempty" maxItems:"50" doc:"The player's own tunings and necks"`
}

// PlayContextOf is a tune and hands, read, with the swaps of the hands. Its error is a
// *chart.FieldError below chart or hands.
func PlayContextOf(c Chart, hands *Hands) (chorus.PlayContext, []neck.Swap, error) {
	read, err := c.Core()
	if err != nil {
		return chorus.PlayContext{}, nil, below("chart", err)
	}
	out := chorus.PlayContext{Chart: read}
	var swaps []neck.Swap
	if out.Instrument, out.SpanMM, swaps, err = hands.Core(read.Capo); err != nil {
		return out, nil, below("hands", err)
	}
	return out, swaps, nil
}

// JoinedLine is the line of choruses one after the other over a tune, each at its stage. Its
// error is a *chart.FieldError below choruses.
func JoinedLine(choruses []Chorus, over chorus.PlayContext, swaps []neck.Swap) (phrase.Phrase, error) {
	all := make([]chorus.Chorus, len(choruses))
	for n, d := range choruses {
		at := fmt.Sprintf("choruses[%d]", n)
		blocks, err := Blocks(d.Blocks, over.Chart, over.Instrument)
		if err != nil {
			return phrase.Phrase{}, below(at, err)
		}
		request, err := d.Plan.Request(over.Chart, over.Instrument, over.SpanMM, swaps, nil)
		if err != nil {
			return phrase.Phrase{}, below(at+".plan", err)
		}
		stage, err := chorus.ParseStage(d.Stage)
		if err != nil {
			return phrase.Phrase{}, below(at, err)
		}
		if all[n], err = request.Grown(chorus.Chorus{Blocks: blocks}, stage); err != nil {
			return phrase.Phrase{}, below(at, err)
		}
	}
	return chorus.JoinLines(all, over.Chart), nil
}

// Checked is the solo as it is kept: its name without blanks around it or characters nobody sees, every chorus read
// over the tune so that nothing is kept that cannot be opened, its positions by their ids.
// Its error is a *chart.FieldError.
func (d SoloDocument) Checked() (SoloDocument, error) {
	d.Solo.Name = seenName(d.Solo.Name)
	if d.Solo.Name == "" || len([]rune(d.Solo.Name)) > lick.MaxName {
		return d, &chart.FieldError{Field: "solo.name", Detail: fmt.Sprintf("a solo's name has 1 to %d characters", lick.MaxName)}
	}
	over, swaps, err := PlayContextOf(d.Chart, d.Hands)
	if err != nil {
		return d, err
	}
	if _, err := JoinedLine(d.Solo.Choruses, over, swaps); err != nil {
		return d, err
	}
	choruses := make([]Chorus, len(d.Solo.Choruses))
	for n, c := range d.Solo.Choruses {
		c.Plan = c.Plan.Named(over)
		choruses[n] = c
	}
	d.Solo.Choruses = choruses
	return d, nil
}

// Check returns a *chart.FieldError for the first thing of the player that no rule allows.
func (p Player) Check() error {
	if _, _, _, err := p.Hands.Core(0); err != nil {
		return err
	}
	for n, own := range p.Instruments {
		if _, err := own.Core(); err != nil {
			return below(fmt.Sprintf("instruments[%d]", n), err)
		}
	}
	return nil
}

// Mended is the player with what no rule allows brought to the nearest that is allowed, and
// what was done.
func (p Player) Mended() (Player, []string) {
	if p.Check() == nil {
		return p, nil
	}
	hands, remarks := p.Hands.Mended()
	p.Hands = hands
	own := []Instrument(nil)
	for _, i := range p.Instruments {
		mended, changed := Hands{Instrument: &i}.Mended()
		remarks = append(remarks, changed...)
		if mended.Instrument != nil {
			own = append(own, *mended.Instrument)
		}
	}
	p.Instruments = own
	return p, remarks
}
