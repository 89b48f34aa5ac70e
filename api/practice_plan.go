package api

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/practice"
	"undaris/core/practice/logbook"
	"undaris/core/practice/plan"
	"undaris/format/document"
	"undaris/library/documents"
	keptpractice "undaris/library/practice"
)

// PlanQuery asks for a plan.
type PlanQuery struct {
	Minutes int `query:"minutes" default:"20" doc:"5 to 120"`
	Offset  int `query:"offset" minimum:"-900" maximum:"900" doc:"How many minutes the player's clock is ahead of universal time"`
}

// PracticePlan is a plan, not kept yet.
type PracticePlan struct {
	Minutes int                     `json:"minutes"`
	Blocks  []document.SessionBlock `json:"blocks"`
	Others  []document.SessionBlock `json:"others" doc:"What may stand in the place of a block: what needs it most first"`
}

// PicturesQuery says which day it is where the player is.
type PicturesQuery struct {
	Offset int `query:"offset" minimum:"-900" maximum:"900" doc:"How many minutes the player's clock is ahead of universal time"`
	Days   int `query:"days" minimum:"7" maximum:"366" default:"42" doc:"How many days are counted"`
}

// Pictures is what the log and the cards say.
type Pictures struct {
	Streak   int           `json:"streak" doc:"Days in a row, up to today or yesterday"`
	OfSeven  int           `json:"ofSeven" doc:"How many of the last seven days were practised"`
	Days     []PracticeDay `json:"days" doc:"The minutes of each day, today last"`
	Weakness []WeakSpot    `json:"weakness" doc:"How well the cards of each key and form are known"`
	Changes  []WeakChange  `json:"changes" doc:"The changes that are missed most, the worst first"`
	Progress []ItemTempos  `json:"progress" doc:"Licks and tunes with their clean tempos, the one practised last first"`
	LeftOut  []LeftAlone   `json:"leftOut" doc:"What was not touched for long"`
}

// PracticeDay is how long was practised on a day.
type PracticeDay struct {
	Day     string  `json:"day"`
	Minutes float64 `json:"minutes"`
}

// WeakSpot is how well one key is known in one position.
type WeakSpot struct {
	Key      string  `json:"key"`
	Position string  `json:"position" doc:"A form, whichever octave it lies in"`
	Share    float64 `json:"share" doc:"The share of answers that were right, 0 to 1"`
	Answers  int     `json:"answers"`
	DaysAgo  int     `json:"daysAgo" doc:"How many days since it was last asked"`
	Text     string  `json:"text"`
}

// WeakChange is a change that is missed.
type WeakChange struct {
	Card    CardFacts `json:"card"`
	Share   float64   `json:"share"`
	Answers int       `json:"answers"`
	Text    string    `json:"text"`
}

// ItemTempos is how a lick or a tune comes along.
type ItemTempos struct {
	Kind   string     `json:"kind"`
	Item   string     `json:"item"`
	Points []TempoDay `json:"points"`
	Goal   int        `json:"goal"`
	Last   string     `json:"last" doc:"The day it was last practised"`
}

// TempoDay is the best clean tempo of a day.
type TempoDay struct {
	Day   string `json:"day"`
	Tempo int    `json:"tempo"`
}

// LeftAlone is a lick or a tune that was not touched for long.
type LeftAlone struct {
	Kind string `json:"kind"`
	Item string `json:"item"`
	Days int    `json:"days"`
	Text string `json:"text"`
}

// KeptSettings are the practice settings as kept; version 0 was never kept.
type KeptSettings struct {
	Version  int                       `json:"version"`
	Settings document.PracticeSettings `json:"settings"`
	// Mended is left out where nothing was.
	Mended []string `json:"mended,omitempty" doc:"What could not be taken as it is kept, and what stands in its place until it is saved"`
}

func (s *server) registerPractice(api huma.API) {
	gets(api, "/api/practice/plan", func(ctx context.Context, in *PlanQuery) (*body[PracticePlan], error) {
		blocks, others, err := s.practice.PlanFor(ctx, in.Minutes, s.now(), time.Duration(in.Offset)*time.Minute)
		var minutes *plan.MinutesError
		if errors.As(err, &minutes) {
			return nil, invalidAt("query.minutes", err)
		}
		return &body[PracticePlan]{PracticePlan{Minutes: in.Minutes, Blocks: each(blocks, sessionBlock), Others: each(others, sessionBlock)}}, err
	})
	gets(api, "/api/practice/pictures", func(ctx context.Context, in *PicturesQuery) (*body[Pictures], error) {
		pictures, err := s.pictures(ctx, *in)
		return &body[Pictures]{pictures}, err
	})
	getsTagged(api, "/api/practice/settings", func(ctx context.Context, _ *struct{}) (*tagged[KeptSettings], error) {
		kept, err := documents.PracticeSettings.Read(ctx, s.library)
		return taggedSettings(kept), err
	})
	huma.Put(api, "/api/practice/settings", func(ctx context.Context, in *replacingSetting[KeptSettings]) (*tagged[KeptSettings], error) {
		save, err := in.save(in.Body.Version)
		if err != nil {
			return nil, err
		}
		kept, err := documents.PracticeSettings.Replace(ctx, s.library, save, in.Body.Settings)
		if err != nil {
			return nil, saveProblem("practice settings", "settings", 0, err)
		}
		return taggedSettings(kept), nil
	})
	serveSettingVersions(api, s, "/api/practice/settings", "how the player practises", documents.PracticeSettings, taggedSettings)
}

func taggedSettings(kept documents.KeptSetting[document.PracticeSettings]) *tagged[KeptSettings] {
	return &tagged[KeptSettings]{ETag: etag(kept.Version), Body: KeptSettings{Version: kept.Version, Settings: kept.Body, Mended: kept.Mended}}
}

func sessionBlock(b plan.Block) document.SessionBlock {
	return document.SessionBlock{Kind: string(b.Kind), Minutes: b.Minutes, Item: b.Item, Title: b.Title, Detail: b.Detail, Why: b.Why}
}

// What the pictures show (our choice).
const (
	changesShown = 6
	leastAnswers = 2 // of a change, before it is called missed
	leftAfter    = 14
	leftShown    = 6
)

func (s *server) pictures(ctx context.Context, in PicturesQuery) (Pictures, error) {
	pictures := Pictures{Days: []PracticeDay{}, Weakness: []WeakSpot{}, Changes: []WeakChange{}, Progress: []ItemTempos{}, LeftOut: []LeftAlone{}}
	today := s.now().UTC().Add(time.Duration(in.Offset) * time.Minute)
	entries, err := s.practice.LogFacts(ctx)
	if err != nil {
		return pictures, err
	}
	pictures.Streak, pictures.OfSeven = logbook.Streak(entries, today)
	for _, d := range logbook.MinutesByDay(entries, today, max(in.Days, 7)) {
		pictures.Days = append(pictures.Days, PracticeDay(d))
	}
	for _, p := range logbook.ProgressOf(entries) {
		tempos := ItemTempos{Kind: string(p.Kind), Item: p.Item, Goal: p.Goal, Last: p.LastDay, Points: []TempoDay{}}
		for _, point := range p.Points {
			tempos.Points = append(tempos.Points, TempoDay(point))
		}
		pictures.Progress = append(pictures.Progress, tempos)
		if last, err := time.Parse(time.DateOnly, p.LastDay); err == nil {
			if days := int(today.Sub(last).Hours() / 24); days >= leftAfter {
				pictures.LeftOut = append(pictures.LeftOut, LeftAlone{string(p.Kind), p.Item, days, fmt.Sprintf("%s: not touched for %d days", p.Item, days)})
			}
		}
	}
	slices.SortStableFunc(pictures.LeftOut, func(a, b LeftAlone) int { return b.Days - a.Days })
	pictures.LeftOut = pictures.LeftOut[:min(leftShown, len(pictures.LeftOut))]
	cards, err := s.practice.AskedCards(ctx)
	if err != nil {
		return pictures, err
	}
	pictures.Weakness = weakSpots(cards, today)
	pictures.Changes = weakChanges(cards)
	return pictures, nil
}

// weakSpots adds up the cards of each key and position.
func weakSpots(cards []keptpractice.AskedCard, today time.Time) []WeakSpot {
	type spot struct{ key, position string }
	order, sums := []spot{}, map[spot]*[2]int{}
	last := map[spot]time.Time{}
	for _, c := range cards {
		if c.Position == "" {
			continue
		}
		form, _, _ := strings.Cut(c.Position, "+") // the same form an octave higher counts with it
		at := spot{c.Key, form}
		if sums[at] == nil {
			sums[at] = &[2]int{}
			order = append(order, at)
		}
		sums[at][0] += c.Right
		sums[at][1] += c.Answers
		if c.Last.After(last[at]) {
			last[at] = c.Last
		}
	}
	all := []WeakSpot{}
	for _, at := range order {
		w := WeakSpot{Key: at.key, Position: at.position, Answers: sums[at][1], Share: roundedShare(sums[at][0], sums[at][1]), DaysAgo: max(int(today.Sub(last[at]).Hours()/24), 0)}
		w.Text = fmt.Sprintf("%s, %s form: %.0f %% of %s right", at.key, at.position, 100*w.Share, counted(w.Answers, "answer", "answers"))
		all = append(all, w)
	}
	return all
}

// weakChanges lists the changes that are missed most.
func weakChanges(cards []keptpractice.AskedCard) []WeakChange {
	all := []WeakChange{}
	for _, c := range cards {
		card, err := practice.ParseCard(c.ID)
		if err != nil || len(card.Chords) != 2 || c.Right == c.Answers || c.Answers < leastAnswers {
			continue
		}
		facts := cardFacts(card)
		all = append(all, WeakChange{Card: facts, Share: roundedShare(c.Right, c.Answers), Answers: c.Answers, Text: fmt.Sprintf("%s, %s form, %s: %d of %d right", facts.Subject, facts.Position, facts.Kind, c.Right, c.Answers)})
	}
	slices.SortStableFunc(all, func(a, b WeakChange) int {
		switch {
		case a.Share != b.Share && a.Share < b.Share:
			return -1
		case a.Share != b.Share:
			return 1
		}
		return b.Answers - a.Answers
	})
	return all[:min(changesShown, len(all))]
}
