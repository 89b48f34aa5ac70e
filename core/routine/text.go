package routine

import (
	"fmt"
	"math"
	"strings"
)

// Text says in a few words how long a segment is and what changes when it is played again.
func (s Segment) Text() string {
	said := []string{s.length()}
	if s.Tempo > 0 {
		said = append(said, fmt.Sprintf("at %d", s.Tempo))
	}
	if s.Key != "" {
		said = append(said, "in "+s.Key)
	}
	if s.TradeBars > 0 {
		said = append(said, counted(s.TradeBars, "bar", "bars")+" each")
	}
	switch e := s.End; {
	case e.TempoTo != 0:
		said = append(said, fmt.Sprintf("%+d each time to %d", e.TempoBy, e.TempoTo))
	case e.TempoBy != 0:
		said = append(said, fmt.Sprintf("%+d each time, %d times", e.TempoBy, e.Again+1))
	}
	switch s.End.KeyBy {
	case Fourths:
		said = append(said, fmt.Sprintf("up a fourth each time, %d keys", s.End.Again+1))
	case HalfSteps:
		said = append(said, fmt.Sprintf("up a half step each time, %d keys", s.End.Again+1))
	case RandomKeys:
		said = append(said, fmt.Sprintf("another key each time, %d keys", s.End.Again+1))
	case SameKey:
		if s.End.Again > 0 && s.End.TempoBy == 0 {
			said = append(said, fmt.Sprintf("%d times", s.End.Again+1))
		}
	}
	if s.End.Wait && s.length() != untilAsked {
		said = append(said, untilAsked)
	}
	return strings.Join(said, " · ")
}

const untilAsked = "until you go on"

func (s Segment) length() string {
	switch {
	case s.Choruses > 0:
		return counted(s.Choruses, "chorus", "choruses")
	case s.Bars > 0 && s.From > 0:
		return fmt.Sprintf("%s from bar %d", counted(s.Bars, "bar", "bars"), s.From+1)
	case s.Bars > 0:
		return counted(s.Bars, "bar", "bars")
	case s.Minutes > 0:
		if s.Minutes == math.Trunc(s.Minutes) {
			return counted(int(s.Minutes), "minute", "minutes")
		}
		return fmt.Sprintf("%.1f minutes", s.Minutes)
	}
	return untilAsked
}

func counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// Text says how long a routine is and where it ends: "19 min · ends at 132, in F".
func (o Outline) Text(tempo int, tonic string) string {
	said := []string{}
	if o.Waits {
		said = append(said, "until you stop or go on")
	} else {
		said = append(said, minutesSaid(o.Seconds))
	}
	ends := []string{}
	if o.Tempo != tempo {
		ends = append(ends, fmt.Sprintf("at %d", o.Tempo))
	}
	if o.Tonic != tonic {
		ends = append(ends, "in "+o.Tonic)
	}
	if len(ends) > 0 && !o.Waits {
		said = append(said, "ends "+strings.Join(ends, ", "))
	}
	return strings.Join(said, " · ")
}

func minutesSaid(seconds float64) string {
	if seconds < 90 {
		return fmt.Sprintf("%.0f seconds", seconds)
	}
	return fmt.Sprintf("%.0f min", seconds/60)
}
