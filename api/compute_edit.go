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
	Ending     *EndingEdit     `json:"ending,omitempty" doc:"Bracket bars as first or second ending; 0 takes the bracket away"`
	Turnaround *TurnaroundEdit `json:"turnaround,omitempty" doc:"Put a turnaround or an ending on two bars"`
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
	Number int `json:"number" doc:"1, 2, or 0 for none"`
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
	huma.Post(api, "/api/compute/chart", func(_ context.Context, in *body[EditChart]) (*body[ReadChart], error) {
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
	huma.Post(api, "/api/compute/chart/scheme", func(_ context.Context, in *body[NewChart]) (*body[ReadChart], error) {
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
	return all
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
