// Package calendar writes a practice week as iCalendar (RFC 5545): one event that comes again on its
// weekdays, at a wall-clock time that holds wherever the player is, summer or winter.
package calendar

import (
	"errors"
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
)

// Week is when is practised.
type Week struct {
	// Days are the weekdays, Hour and Minute when it begins, Minutes how long it lasts.
	Days         []time.Weekday
	Hour, Minute int
	Minutes      int
	// From is the first day, Stamp when it was written.
	From, Stamp time.Time
	// Summary and Description are what the calendar shows.
	Summary, Description string
}

// dayNames are the weekdays as iCalendar writes them, Sunday first.
var dayNames = [7]string{"SU", "MO", "TU", "WE", "TH", "FR", "SA"}

// ParseDays reads weekdays by their first two or three letters, with commas between.
func ParseDays(text string) ([]time.Weekday, error) {
	days := []time.Weekday{}
	for _, word := range strings.Split(text, ",") {
		word = strings.ToLower(strings.TrimSpace(word))
		found := false
		for day := time.Sunday; day <= time.Saturday; day++ {
			if len(word) >= 2 && strings.HasPrefix(strings.ToLower(day.String()), word) {
				days, found = append(days, day), true
			}
		}
		if !found {
			return nil, fmt.Errorf("%q is no weekday; they are mon, tue, wed, thu, fri, sat, sun, with commas between", word)
		}
	}
	return days, nil
}

// Write writes the week as a calendar. Its error says what no week has.
func (w Week) Write() (string, error) {
	switch {
	case len(w.Days) == 0:
		return "", errors.New("a week has at least one day")
	case w.Hour < 0 || w.Hour > 23 || w.Minute < 0 || w.Minute > 59:
		return "", fmt.Errorf("a time is 00:00 to 23:59; %02d:%02d is not", w.Hour, w.Minute)
	case w.Minutes < 5 || w.Minutes > 120:
		return "", fmt.Errorf("a sitting lasts 5 to 120 minutes; %d are not", w.Minutes)
	}
	first, names := w.firstDay(), []string{}
	for _, day := range w.Days {
		names = append(names, dayNames[day])
	}
	const wallClock = "20060102T150405" // no zone: it holds where the player is
	c := ics.NewCalendar()
	c.SetProductId("-//Undaris//practice plan//EN")
	event := c.AddEvent("practice-week@undaris")
	event.SetDtStampTime(w.Stamp.UTC())
	event.SetProperty(ics.ComponentPropertyDtStart, first.Format(wallClock))
	event.SetProperty(ics.ComponentPropertyDtEnd, first.Add(time.Duration(w.Minutes)*time.Minute).Format(wallClock))
	event.AddRrule("FREQ=WEEKLY;BYDAY=" + strings.Join(names, ","))
	event.SetSummary(w.Summary)
	event.SetDescription(w.Description)
	return c.Serialize(ics.WithNewLineWindows), nil
}

// firstDay is when the first sitting begins: on the first of its weekdays from the first day on.
func (w Week) firstDay() time.Time {
	at := time.Date(w.From.Year(), w.From.Month(), w.From.Day(), w.Hour, w.Minute, 0, 0, time.UTC)
	for n := range 7 {
		day := at.AddDate(0, 0, n)
		for _, wanted := range w.Days {
			if day.Weekday() == wanted {
				return day
			}
		}
	}
	return at
}
