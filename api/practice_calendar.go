package api

import (
	"context"
	"fmt"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/calendar"
)

// CalendarQuery says when is practised.
type CalendarQuery struct {
	Days    string `query:"days" doc:"Weekdays with commas between: mon,wed,fri"`
	At      string `query:"at" doc:"When it begins: 19:00"`
	Minutes int    `query:"minutes" default:"20"`
	Offset  int    `query:"offset" minimum:"-900" maximum:"900" doc:"How many minutes the player's clock is ahead of universal time"`
}

func (s *server) registerCalendar(api huma.API) {
	huma.Get(api, "/api/practice/calendar", func(_ context.Context, in *CalendarQuery) (*file, error) {
		days, err := calendar.ParseDays(in.Days)
		if err != nil {
			return nil, invalidAt("query.days", err)
		}
		at, err := time.Parse("15:04", in.At)
		if err != nil {
			return nil, invalidAt("query.at", fmt.Errorf("a time is written as 19:00; %q is not", in.At))
		}
		now := s.now()
		week := calendar.Week{
			Days: days, Hour: at.Hour(), Minute: at.Minute(), Minutes: in.Minutes, From: now.UTC().Add(time.Duration(in.Offset) * time.Minute), Stamp: now,
			Summary: fmt.Sprintf("Practise, %d minutes", in.Minutes), Description: "The plan is made when you begin: what is weakest comes first.",
		}
		text, err := week.Write()
		if err != nil {
			return nil, invalidAt("query.minutes", err)
		}
		return &file{Type: "text/calendar; charset=utf-8", Disposition: attached("practice week.ics"), Body: []byte(text)}, nil
	}, fileAnswer("text/calendar"))
}
