package api

import (
	"context"
	"fmt"
	"slices"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/library/documents"
)

// FindLicks asks for licks of the library as they lie in the key of a chart, where the
// hand stands. What is left out is not asked.
type FindLicks struct {
	PlayContext
	Position      string  `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Text          string  `json:"text,omitempty" maxLength:"200" doc:"Words in name, line or tags"`
	Tag           string  `json:"tag,omitempty"`
	Technique     string  `json:"technique,omitempty"`
	Scale         string  `json:"scale,omitempty" doc:"A box or scale that holds all of its notes"`
	Fits          string  `json:"fits,omitempty" doc:"A chord it may be played over as it sounds"`
	Starts        string  `json:"starts,omitempty" doc:"The degree of its first note over its chord"`
	Ends          string  `json:"ends,omitempty" doc:"The degree of its last"`
	Lands         string  `json:"lands,omitempty" doc:"A degree it lands on at a change"`
	Leans         string  `json:"leans,omitempty" doc:"A colour it leans on: on a strong beat, or a long note"`
	MostBars      int     `json:"mostBars,omitempty" minimum:"0"`
	MostPerSecond float64 `json:"mostPerSecond,omitempty" minimum:"0" doc:"Notes a second at the chart's tempo"`
	Here          bool    `json:"here,omitempty" doc:"Only those that lie in the position"`
	Near          *Place  `json:"near,omitempty" doc:"A place it must end near"`
}

// FoundLicks is what was found, and what may be asked.
type FoundLicks struct {
	Found  []FoundLick `json:"found"`
	Of     int         `json:"of" doc:"How many were searched"`
	Facets Facets      `json:"facets"`
}

// FoundLick is a lick that is as wanted.
type FoundLick struct {
	ID         uint     `json:"id"`
	Text       string   `json:"text" doc:"How near to the landing it ends; empty where none was asked"`
	Scales     []string `json:"scales"`
	Starts     string   `json:"starts"`
	Ends       string   `json:"ends"`
	Lands      []string `json:"lands"`
	Leans      []string `json:"leans"`
	Bars       int      `json:"bars"`
	PerSecond  float64  `json:"perSecond"`
	Techniques []string `json:"techniques"`
	Low        int      `json:"low"`
	High       int      `json:"high"`
}

// Facets are the answers that the library has to each question.
type Facets struct {
	Tags       []string `json:"tags"`
	Techniques []string `json:"techniques"`
	Scales     []string `json:"scales"`
	Chords     []string `json:"chords" doc:"The chords of the chart"`
	Starts     []string `json:"starts"`
	Ends       []string `json:"ends"`
	Lands      []string `json:"lands"`
	Leans      []string `json:"leans"`
	Bars       []int    `json:"bars"`
}

func (s *server) registerFindLicks(api huma.API) {
	posts(api, "/api/licks/find", func(ctx context.Context, in *body[FindLicks]) (*body[FoundLicks], error) {
		read, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		position, err := read.position(in.Body.Position)
		if err != nil {
			return nil, err
		}
		wanted, err := in.Body.wanted(read, position)
		if err != nil {
			return nil, err
		}
		ids, known, err := s.lickIndex(ctx, read, position)
		if err != nil {
			return nil, err
		}
		out := FoundLicks{Found: []FoundLick{}, Of: len(ids), Facets: facetsOf(read, known)}
		for _, f := range known.Find(wanted) {
			out.Found = append(out.Found, FoundLick{
				ID: ids[f.Index], Text: f.Text, Scales: append([]string{}, f.Facts.Scales...), Starts: f.Facts.Starts.String(), Ends: f.Facts.Ends.String(),
				Lands: names(f.Facts.Lands), Leans: names(f.Facts.Leans), Bars: f.Facts.Bars, PerSecond: f.Facts.PerSecond,
				Techniques: append([]string{}, f.Facts.Techniques...), Low: f.Facts.Low, High: f.Facts.High,
			})
		}
		return &body[FoundLicks]{out}, nil
	})
}

// lickIndexes are those that were made last: a player who looks for a lick asks again and again over the same tune.
type lickIndexes struct {
	mutex sync.Mutex
	made  []madeIndex
}

// madeIndex is an index of all licks as they lie in a position, and what it was made from.
type madeIndex struct {
	from  string
	ids   []uint
	index lick.Index
}

// mostIndexes is how many are remembered (our choice: a few positions of a few tunes).
const mostIndexes = 8

// lickIndex is the index of all licks in a position, with their ids. It must not be changed.
func (s *server) lickIndex(ctx context.Context, read playContext, position neck.Position) ([]uint, lick.Index, error) {
	changes, err := documents.Licks.Changes(ctx, s.library)
	if err != nil {
		return nil, lick.Index{}, err
	}
	from := fmt.Sprintf("%d|%v|%v|%v|%d", changes, read.instrument, read.home(), position, read.chart.Tempo)
	s.lickIndexes.mutex.Lock()
	defer s.lickIndexes.mutex.Unlock()
	made := s.lickIndexes.made
	if at := slices.IndexFunc(made, func(m madeIndex) bool { return m.from == from }); at >= 0 {
		return made[at].ids, made[at].index, nil
	}
	kept, err := documents.Licks.ReadAll(ctx, s.library, 0) // the list of licks says what is wrong with the others
	if err != nil {
		return nil, lick.Index{}, err
	}
	ids, licks := []uint{}, []lick.Lick{}
	for _, item := range kept {
		l, err := item.Body.Core()
		if err != nil {
			return nil, lick.Index{}, err
		}
		set, err := l.TransposedTo(read.instrument, read.home().Tonic, position.Window)
		if err != nil {
			continue // it cannot be played here, so nothing can be said of it here
		}
		ids, licks = append(ids, item.ID), append(licks, set)
	}
	index := lick.NewIndex(read.instrument, read.home(), read.chart.Tempo, licks)
	s.lickIndexes.made = append([]madeIndex{{from, ids, index}}, made[:min(len(made), mostIndexes-1)]...)
	return ids, index, nil
}

func (f FindLicks) wanted(o playContext, p neck.Position) (lick.Query, error) {
	w := lick.Query{
		Text: f.Text, Tag: f.Tag, Technique: f.Technique, Scale: f.Scale, Starts: f.Starts, Ends: f.Ends, Lands: f.Lands, Leans: f.Leans,
		MostBars: f.MostBars, MostPerSecond: f.MostPerSecond,
	}
	if f.Fits != "" {
		c, err := o.chord(f.Fits)
		if err != nil {
			return w, invalid("fits", err)
		}
		w.FitsChord = &c
	}
	if f.Here {
		w.In = &p.Window
	}
	if f.Near != nil {
		near := neck.Place{String: f.Near.String, Fret: f.Near.Fret}
		if !o.instrument.Has(near) {
			return w, invalid("near", fmt.Errorf("string %d fret %d is not on the neck; strings are 1 to %d, frets 0 to %d", near.String, near.Fret, len(o.instrument.Open), o.instrument.Frets))
		}
		w.Near = &near
	}
	return w, nil
}

// facetsOf gathers what the licks have, each answer once, in the order they come.
func facetsOf(o playContext, known lick.Index) Facets {
	f := Facets{Tags: []string{}, Techniques: []string{}, Scales: []string{}, Chords: []string{}, Starts: []string{}, Ends: []string{}, Lands: []string{}, Leans: []string{}, Bars: []int{}}
	all := map[string]bool{}
	for n, l := range known.Licks {
		facts := known.Facts[n]
		f.Tags = union(f.Tags, l.Tags)
		f.Starts, f.Ends = union(f.Starts, []string{facts.Starts.String()}), union(f.Ends, []string{facts.Ends.String()})
		f.Lands, f.Leans = union(f.Lands, names(facts.Lands)), union(f.Leans, names(facts.Leans))
		for _, name := range slices.Concat(facts.Scales, facts.Techniques) {
			all[name] = true
		}
		if !slices.Contains(f.Bars, facts.Bars) {
			f.Bars = append(f.Bars, facts.Bars)
		}
	}
	f.Techniques = slices.DeleteFunc(lick.FoundTechniques(), func(name string) bool { return !all[name] })
	f.Scales = slices.DeleteFunc(lick.ScaleNames(), func(name string) bool { return !all[name] })
	for _, c := range o.chart.Chords() {
		f.Chords = append(f.Chords, c.Symbol())
	}
	slices.Sort(f.Tags)
	slices.Sort(f.Bars)
	return f
}

func union(all, more []string) []string {
	for _, one := range more {
		if !slices.Contains(all, one) {
			all = append(all, one)
		}
	}
	return all
}
