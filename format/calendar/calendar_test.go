package calendar

import (
	"strings"
	"testing"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAPracticeWeek(t *testing.T) {
	days, err := ParseDays("mon, wed,Fri")
	require.NoError(t, err)
	week := Week{
		Days: days, Hour: 19, Minute: 30, Minutes: 20, From: time.Date(2026, 3, 3, 0, 0, 0, 0, time.UTC), Stamp: time.Date(2026, 3, 3, 8, 0, 0, 0, time.UTC),
		Summary: "Practise, 20 minutes", Description: "warm-up; cards, licks, a tune",
	}
	text, err := week.Write()
	require.NoError(t, err)
	for _, line := range []string{"DTSTART:20260304T193000", "DTEND:20260304T195000", "RRULE:FREQ=WEEKLY;BYDAY=MO,WE,FR", "SUMMARY:Practise\\, 20 minutes", "DTSTAMP:20260303T080000Z"} {
		assert.Contains(t, text, line+"\r\n")
	}
	assert.NotContains(t, text, "TZID", "it holds wherever the player is")
	read, err := ics.ParseCalendar(strings.NewReader(text))
	require.NoError(t, err)
	require.Len(t, read.Events(), 1)

	for says, bad := range map[string]Week{
		"at least one day": {Minutes: 20},
		"00:00 to 23:59":   {Days: days, Hour: 24, Minutes: 20},
		"5 to 120 minutes": {Days: days, Minutes: 200},
	} {
		_, err := bad.Write()
		assert.ErrorContains(t, err, says)
	}
	for _, text := range []string{"", "mo,xx", "m"} {
		_, err := ParseDays(text)
		assert.ErrorContains(t, err, "is no weekday")
	}
}
