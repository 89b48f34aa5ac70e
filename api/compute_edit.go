package api

import (
	"context"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/document"
)

// EditChart is a chart and what is to be done to it; several edits are done in
// the order they stand here. Bars are the written ones and count from 1.
type EditChart struct {
	Chart      document.Chart  `json:"chart"`
	Tonic      string          `json:"tonic,omitempty" doc:"Transpose to this tonic: the chords move, the numerals stay"`
	Reread     *document.Key   `json:"reread,omitempty" doc:"Read the same chords in this key: the numerals change, the chords stay"`
	Scheme     string          `json:"scheme,omitempty" doc:"Replace the bars by this scheme"`
	Feel       string          `json:"feel,omitempty" doc:"Play with this feel"`
	Meter      string          `json:"meter,omitempty" doc:"Play in this meter, the chords of each bar spread anew"`
	Write      *WriteEdit      `json:"write,omitempty" doc:"Write text in the bar notation"`
	Split      *SplitEdit      `json:"split,omitempty" doc:"Give a bar 2, 3 or 4 chords"`
	Lengths    *LengthsEdit    `json:"lengths,omitempty" doc:"Set how many beats each chord of a bar lasts"`
	Insert     *BarsEdit       `json:"insert,omitempty" doc:"Put empty bars before a bar; one past the last is the end"`
	Remove     *BarsEdit       `json:"remove,omitempty" doc:"Take bars out"`
	Copy       *CopyEdit       `json:"copy,omitempty" doc:"Put bars once more before a bar"`
	Section    *SectionEdit    `json:"section,omitempty" doc:"Name the section that begins at a bar"`
	Repeat     *RepeatEdit     `json:"repeat,omitempty" doc:"Put repeat signs around bars; once takes them away"`
	Ending     *EndingEdit     `json:"ending,omitempty" doc:"Bracket bars as an ending, the first to the fourth; 0 takes the bracket away"`
	Turnaround *TurnaroundEdit `json:"turnaround,omitempty" doc:"Put a turnaround or an ending on two bars"`
	Setting    *SettingEdit    `json:"setting,omitempty" doc:"Change the key, the meter or the feel of some bars"`
	Signs      *SignsEdit      `json:"signs,omitempty" doc:"Set the signs of a bar that lead to another place"`
	Jump       *JumpEdit       `json:"jump,omitempty" doc:"Set a D.C. or D.S. and what it leads to, in one go"`
	Pickup     *PickupEdit     `json:"pickup,omitempty" doc:"The unfinished bar before bar 1"`
	Scale      *ScaleEdit      `json:"scale,omitempty" doc:"Choose the scale of a dominant"`
}

// SettingEdit changes what holds in some bars; what is left out goes on as it was.
type SettingEdit struct {
	Bar   int           `json:"bar"`
	Count int           `json:"count,omitempty" doc:"How many bars; left out for all up to the next such change"`
	Key   *document.Key `json:"key,omitempty"`
	Move  bool          `json:"move,omitempty" doc:"The chords move with the key; else they stay and are read in it"`
	Meter string        `json:"meter,omitempty" doc:"The chords of each bar are spread anew"`
	Feel  string        `json:"feel,omitempty"`
}

// SignsEdit sets all signs of a bar.
type SignsEdit struct {
	Bar    int    `json:"bar"`
	Segno  bool   `json:"segno,omitempty"`
	Coda   bool   `json:"coda,omitempty"`
	ToCoda bool   `json:"toCoda,omitempty"`
	Fine   bool   `json:"fine,omitempty"`
	Jump   string `json:"jump,omitempty"`
}

// JumpEdit sets a jump with all that it leads to: signs that the chart has are taken away first. Bars that the
// jump does not use are left out.
type JumpEdit struct {
	Jump   string `json:"jump" doc:"D.C. and its like; empty takes all such signs away"`
	Bar    int    `json:"bar,omitempty" doc:"The bar at whose end it stands"`
	Segno  int    `json:"segno,omitempty" doc:"The bar that D.S. goes back to"`
	Fine   int    `json:"fine,omitempty" doc:"The bar that the tune ends with"`
	ToCoda int    `json:"toCoda,omitempty" doc:"The bar after which the coda is left for"`
	Coda   int    `json:"coda,omitempty" doc:"The bar that the coda begins with"`
}

// PickupEdit sets the bar before bar 1.
type PickupEdit struct {
	Beats *int    `json:"beats,omitempty" doc:"How many beats it has; 0 takes it away"`
	Text  *string `json:"text,omitempty" maxLength:"200" doc:"Its chords in the bar notation"`
}

// ScaleEdit chooses a scale.
type ScaleEdit struct {
	Chord    string `json:"chord"`
	At       int    `json:"at,omitempty" doc:"A tick of the chart where the chord stands: its key is that of the function"`
	Function bool   `json:"function,omitempty" doc:"For every chord of that function, in whatever key; else for this chord"`
	Scale    string `json:"scale" doc:"Empty takes the choice away"`
}

// WriteEdit writes into a bar and, where bar lines are in the text, into those
// after it.
type WriteEdit struct {
	Bar      int    `json:"bar"`
	Text     string `json:"text" maxLength:"20000" doc:"As in C7, Dm7 G7, C7 . . G7, IV7, N.C. or %"`
	Imagined bool   `json:"imagined,omitempty" doc:"Into the imagined layer; _ leaves the written chord, and nothing takes the layer away"`
}

// SplitEdit splits a bar.
type SplitEdit struct {
	Bar   int `json:"bar"`
	Parts int `json:"parts" doc:"2, 3 or 4"`
}

// LengthsEdit sets the lengths of a bar's chords.
type LengthsEdit struct {
	Bar   int   `json:"bar"`
	Beats []int `json:"beats" maxItems:"12"`
}

// BarsEdit names bars.
type BarsEdit struct {
	Bar   int `json:"bar"`
	Count int `json:"count"`
}

// CopyEdit copies bars.
type CopyEdit struct {
	BarsEdit
	To int `json:"to" doc:"The bar before which the copy is put; one past the last is the end"`
}

// SectionEdit names a section.
type SectionEdit struct {
	Bar   int    `json:"bar"`
	Label string `json:"label" doc:"Empty joins it to the section before"`
}

// RepeatEdit repeats bars.
type RepeatEdit struct {
	BarsEdit
	Times int `json:"times"`
}

// EndingEdit brackets bars.
type EndingEdit struct {
	BarsEdit
	Number int `json:"number" doc:"1 to 4, or 0 for none"`
}

// TurnaroundEdit puts a turnaround on a bar and the one after it.
type TurnaroundEdit struct {
	Bar      int    `json:"bar"`
	Name     string `json:"name"`
	Imagined bool   `json:"imagined,omitempty" doc:"Only the soloist follows it"`
}

// NewChart is a chart to be made from a scheme, or with so many empty bars.
type NewChart struct {
	Title  string `json:"title,omitempty" doc:"Left out for one made from its form and key"`
	Tonic  string `json:"tonic"`
	Scheme string `json:"scheme,omitempty" doc:"Left out for empty bars"`
	Mode   string `json:"mode,omitempty" doc:"That of a chart of empty bars; a scheme brings its own"`
	Bars   int    `json:"bars,omitempty" doc:"How many empty bars, where there is no scheme"`
	Tempo  int    `json:"tempo"`
	Feel   string `json:"feel"`
	Meter  string `json:"meter,omitempty" doc:"Left out for 4/4, or 12/8 where the feel asks for it"`
}

func (s *server) registerComputeEdit(api huma.API) {
	posts(api, "/api/compute/chart", func(_ context.Context, in *body[EditChart]) (*body[ReadChart], error) {
		c, err := in.Body.Chart.Core()
		if err != nil {
			return nil, invalid("chart", err)
		}
		for _, edit := range in.Body.edits() {
			if c, err = edit.do(c); err != nil {
				return nil, invalid(edit.field, err)
			}
		}
		if err := c.Check(); err != nil {
			return nil, invalid("chart", err)
		}
		return &body[ReadChart]{readChart(c)}, nil
	})
	posts(api, "/api/compute/chart/scheme", func(_ context.Context, in *body[NewChart]) (*body[ReadChart], error) {
		c, err := in.Body.made()
		if err != nil {
			return nil, invalid("", err)
		}
		return &body[ReadChart]{readChart(c)}, nil
	})
}

// edit is one thing to be done, and the field of the request it comes from.
type edit struct {
	field string
	do    func(chart.Chart) (chart.Chart, error)
}

// edits lists what is asked for, in the order of the fields.
func (e EditChart) edits() []edit {
	all := []edit{}
	add := func(asked bool, field string, do func(chart.Chart) (chart.Chart, error)) {
		if asked {
			all = append(all, edit{field, do})
		}
	}
	add(e.Feel != "", "", func(c chart.Chart) (chart.Chart, error) {
		feel, err := chart.ParseFeel(e.Feel)
		if err != nil {
			return c, err
		}
		return c.WithFeel(feel)
	})
	add(e.Meter != "", "", func(c chart.Chart) (chart.Chart, error) {
		meter, err := chart.ParseMeter(e.Meter)
		if err != nil {
			return c, err
		}
		return c.WithMeter(meter)
	})
	add(e.Tonic != "", "tonic", func(c chart.Chart) (chart.Chart, error) {
		key, err := harmony.ParseKey(e.Tonic, c.Key.Mode)
		return c.Transposed(key), err
	})
	add(e.Reread != nil, "reread", func(c chart.Chart) (chart.Chart, error) {
		key, err := e.Reread.Core()
		return c.Rekeyed(key), err
	})
	add(e.Scheme != "", "", func(c chart.Chart) (chart.Chart, error) {
		scheme, err := chart.FindScheme(e.Scheme)
		if err != nil {
			return c, err
		}
		c.Key.Mode = scheme.In
		c.Bars = scheme.Bars(c.Key.Tonic, c.Meter)
		return c, nil
	})
	add(e.Write != nil, "write", func(c chart.Chart) (chart.Chart, error) {
		if e.Write.Imagined {
			return c.Imagine(e.Write.Bar-1, e.Write.Text)
		}
		return c.Write(e.Write.Bar-1, e.Write.Text)
	})
	add(e.Split != nil, "split", func(c chart.Chart) (chart.Chart, error) { return c.Split(e.Split.Bar-1, e.Split.Parts) })
	add(e.Lengths != nil, "lengths", func(c chart.Chart) (chart.Chart, error) { return c.Lengths(e.Lengths.Bar-1, e.Lengths.Beats) })
	add(e.Insert != nil, "insert", func(c chart.Chart) (chart.Chart, error) { return c.Insert(e.Insert.Bar-1, e.Insert.Count) })
	add(e.Remove != nil, "remove", func(c chart.Chart) (chart.Chart, error) { return c.Remove(e.Remove.Bar-1, e.Remove.Count) })
	add(e.Copy != nil, "copy", func(c chart.Chart) (chart.Chart, error) { return c.Copy(e.Copy.Bar-1, e.Copy.Count, e.Copy.To-1) })
	add(e.Section != nil, "section", func(c chart.Chart) (chart.Chart, error) { return c.Section(e.Section.Bar-1, e.Section.Label) })
	add(e.Repeat != nil, "repeat", func(c chart.Chart) (chart.Chart, error) {
		return c.Repeat(e.Repeat.Bar-1, e.Repeat.Count, e.Repeat.Times)
	})
	add(e.Ending != nil, "ending", func(c chart.Chart) (chart.Chart, error) {
		return c.Ending(e.Ending.Bar-1, e.Ending.Count, e.Ending.Number)
	})
	add(e.Turnaround != nil, "turnaround", func(c chart.Chart) (chart.Chart, error) {
		turnaround, err := chart.FindTurnaround(e.Turnaround.Name)
		if err != nil {
			return c, err
		}
		return c.WithTurnaround(turnaround, e.Turnaround.Bar-1, e.Turnaround.Imagined)
	})
	add(e.Setting != nil, "setting", func(c chart.Chart) (chart.Chart, error) { return e.Setting.done(c) })
	add(e.Signs != nil, "signs", func(c chart.Chart) (chart.Chart, error) {
		jump, err := chart.ParseJump(e.Signs.Jump)
		if err != nil {
			return c, err
		}
		s := e.Signs
		return c.WithSigns(map[int]chart.Signs{s.Bar - 1: {Segno: s.Segno, Coda: s.Coda, ToCoda: s.ToCoda, Fine: s.Fine, Jump: jump}})
	})
	add(e.Jump != nil, "jump", func(c chart.Chart) (chart.Chart, error) { return e.Jump.done(c) })
	add(e.Pickup != nil, "pickup", func(c chart.Chart) (chart.Chart, error) {
		var err error
		if e.Pickup.Beats != nil {
			if c, err = c.WithPickup(*e.Pickup.Beats); err != nil {
				return c, err
			}
		}
		if e.Pickup.Text != nil {
			return c.WritePickup(*e.Pickup.Text)
		}
		return c, nil
	})
	add(e.Scale != nil, "scale", func(c chart.Chart) (chart.Chart, error) {
		chord, err := harmony.ParseChord(e.Scale.Chord)
		if err != nil {
			return c, err
		}
		t := c.Timeline()
		key := t.KeyAt(t.BarAt(e.Scale.At))
		if !e.Scale.Function {
			return c.WithScale(chord, nil, e.Scale.Scale)
		}
		return c.WithScale(chord, &key, e.Scale.Scale)
	})
	return all
}

// done makes the change: the meter first, since a feel may depend on it.
func (e SettingEdit) done(c chart.Chart) (chart.Chart, error) {
	bar := e.Bar - 1
	if e.Meter != "" {
		meter, err := chart.ParseMeter(e.Meter)
		if err != nil {
			return c, err
		}
		if c, err = c.ChangedMeter(bar, e.Count, meter); err != nil {
			return c, err
		}
	}
	if e.Feel != "" {
		feel, err := chart.ParseFeel(e.Feel)
		if err != nil {
			return c, err
		}
		if c, err = c.ChangedFeel(bar, e.Count, feel); err != nil {
			return c, err
		}
	}
	if e.Key != nil {
		key, err := e.Key.Core()
		if err != nil {
			return c, err
		}
		return c.ChangedKey(bar, e.Count, key, e.Move)
	}
	return c, nil
}

// done sets the jump with its signs.
func (e JumpEdit) done(c chart.Chart) (chart.Chart, error) {
	jump, err := chart.ParseJump(e.Jump)
	if err != nil {
		return c, err
	}
	signs := map[int]chart.Signs{}
	for b := range c.Bars {
		signs[b] = chart.Signs{}
	}
	set := func(bar int, wanted bool, mark func(*chart.Signs)) {
		if wanted {
			s := signs[bar-1]
			mark(&s)
			signs[bar-1] = s
		}
	}
	set(e.Bar, jump != chart.NoJump, func(s *chart.Signs) { s.Jump = jump })
	set(e.Segno, jump.ToSegno(), func(s *chart.Signs) { s.Segno = true })
	set(e.Fine, jump.AlFine(), func(s *chart.Signs) { s.Fine = true })
	set(e.ToCoda, jump.AlCoda(), func(s *chart.Signs) { s.ToCoda = true })
	set(e.Coda, jump.AlCoda(), func(s *chart.Signs) { s.Coda = true })
	return c.WithSigns(signs)
}

// What a new chart has until the player says otherwise.
const defaultSwing = 2 // triplet swing

func (n NewChart) made() (chart.Chart, error) {
	c := chart.Chart{Title: n.Title, Meter: chart.FourFour, Feel: chart.Straight, Tempo: n.Tempo, Swing: defaultSwing}
	var err error
	if n.Meter != "" {
		if c.Meter, err = chart.ParseMeter(n.Meter); err != nil {
			return c, err
		}
	}
	if n.Scheme != "" {
		scheme, err := chart.FindScheme(n.Scheme)
		if err != nil {
			return c, err
		}
		if c.Key, err = harmony.ParseKey(n.Tonic, scheme.In); err != nil {
			return c, &chart.FieldError{Field: "tonic", Detail: err.Error()}
		}
		c.Bars = scheme.Bars(c.Key.Tonic, c.Meter)
	} else {
		if c.Key, err = harmony.ParseKey(n.Tonic, harmony.Mode(n.Mode)); err != nil {
			return c, &chart.FieldError{Field: "tonic", Detail: err.Error()}
		}
		if n.Bars < 1 || n.Bars > chart.MaxBars {
			return c, &chart.FieldError{Field: "bars", Detail: "an empty chart has 1 to 512 bars"}
		}
		c.Bars = chart.EmptyBars(n.Bars, c.Meter)
	}
	feel, err := chart.ParseFeel(n.Feel)
	if err != nil {
		return c, err
	}
	if n.Meter == "" || feel == chart.Slow128 || c.Meter != chart.TwelveEight {
		if c, err = c.WithFeel(feel); err != nil {
			return c, err
		}
	} else if c, err = c.WithMeter(chart.TwelveEight); err != nil {
		return c, err
	}
	if strings.TrimSpace(c.Title) == "" {
		c.Title = n.titled(c)
	}
	return c, c.Check()
}

// titled names a tune that was given no title, by its form and key.
func (n NewChart) titled(c chart.Chart) string {
	form := n.Scheme
	if form == "" {
		form = fmt.Sprintf("%d bars", len(c.Bars))
	}
	key := c.Key.Tonic.String()
	if c.Key.Mode != harmony.DominantMode {
		key += " " + string(c.Key.Mode)
	}
	return strings.ToUpper(form[:1]) + form[1:] + " in " + key
}
