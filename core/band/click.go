package band

import (
	"fmt"

	"undaris/core/choice"
	"undaris/core/pitch"
)

// ClickOn says on which beats a click sounds.
type ClickOn string

// The beats of a click. A player who needs fewer of them keeps time himself.
const (
	EveryBeat      ClickOn = ""
	OnTwoAndFour   ClickOn = "2 and 4"
	OnOne          ClickOn = "1"
	EverySecondBar ClickOn = "every second bar"
)

// ClicksOn lists them.
var ClicksOn = []ClickOn{EveryBeat, OnTwoAndFour, OnOne, EverySecondBar}

// ClickPattern is how the click goes.
type ClickPattern struct {
	On ClickOn
	// PerBeat is how many clicks a beat has, 1 to 6; 0 is 1.
	PerBeat int
	// Plain says that the first beat is not accented.
	Plain bool
	// AccentEvery accents every so many clicks instead of the first beat, 0 for none.
	AccentEvery int
	// Heard and Gap: so many bars are clicked, then so many are not, counted from the first
	// bar of the first chorus; without a gap all are. Growing makes each gap a bar longer than the one
	// before.
	Heard, Gap int
	Growing    bool
}

// Bounds of a click.
const (
	MaxPerBeat = 6
	MaxGap     = 32
)

// Check says what of the pattern is not allowed.
func (c ClickPattern) Check() error {
	switch {
	case c.PerBeat < 0 || c.PerBeat > MaxPerBeat:
		return fmt.Errorf("a beat has 1 to %d clicks, not %d", MaxPerBeat, c.PerBeat)
	case c.AccentEvery < 0 || c.AccentEvery > MaxGap:
		return fmt.Errorf("an accent falls on every 1st to %dth click, not every %dth", MaxGap, c.AccentEvery)
	case c.Heard < 0 || c.Heard > MaxGap || c.Gap < 0 || c.Gap > MaxGap:
		return fmt.Errorf("a gap is 0 to %d bars after 1 to %d that are heard", MaxGap, MaxGap)
	}
	_, err := choice.FindText("a place of the click", ClicksOn, string(c.On))
	return err
}

// The click sounds at two pitches: the downbeat higher. Between the beats it is softer.
const (
	clickAccent = pitch.MIDI(76)
	clickPlain  = pitch.MIDI(77)

	accentLoudness  = 84
	clickLoudness   = 60
	betweenLoudness = 38
)

// clicks are those of the count-in, every beat, and then the pattern's.
func (s score) clicks() []Note {
	notes := []Note{}
	meter := s.time.MeterAt(s.From)
	for n := range s.clickBars {
		for beat := range meter.Beats() {
			notes = append(notes, s.click(n*meter.BarTicks()+beat*meter.BeatTicks(), meter.BeatTicks()/4, beat == 0, clickLoudness))
		}
	}
	count := 0
	for _, b := range s.bars {
		since := b.index + s.Chorus*s.time.Bars()
		if b.last || b.pickup || !s.Click.heardIn(since) {
			continue
		}
		perBeat := max(s.Click.PerBeat, 1)
		long := b.meter.BeatTicks() / perBeat
		for beat := range b.meter.Beats() {
			if !s.Click.on(since, beat, b.meter.Beats()) {
				continue
			}
			for n := range perBeat {
				loudness := clickLoudness
				if n > 0 {
					loudness = betweenLoudness
				}
				accent := beat == 0 && n == 0 && !s.Click.Plain && s.Click.On != OnTwoAndFour
				if s.Click.AccentEvery > 0 {
					accent = count%s.Click.AccentEvery == 0
				}
				tick := b.tick + beat*b.meter.BeatTicks() + n*long
				if perBeat == 2 {
					tick = s.withFeel(tick)
				}
				notes = append(notes, s.click(tick, min(long/2, b.meter.BeatTicks()/4), accent, loudness))
				count++
			}
		}
	}
	return notes
}

func (s score) click(tick, ticks int, accent bool, loudness int) Note {
	note := Note{Part: Click, Tick: tick, Ticks: max(ticks, 1), Pitch: clickPlain, Loudness: loudness, Event: -1}
	if accent {
		note.Pitch, note.Loudness = clickAccent, accentLoudness
	}
	return note
}

// on says whether a beat of a bar has a click.
func (c ClickPattern) on(bar, beat, beats int) bool {
	switch c.On {
	case OnTwoAndFour:
		// The weak beats: 2 and 4 of four, 2 of two, 2 and 3 of three.
		return beat%2 == 1 || beats == 3 && beat == 2
	case OnOne:
		return beat == 0
	case EverySecondBar:
		return beat == 0 && bar%2 == 0
	}
	return true
}

// heardIn says whether a bar is clicked, or lies in a gap.
func (c ClickPattern) heardIn(bar int) bool {
	if c.Gap == 0 || bar < 0 {
		return true
	}
	heard, gap := max(c.Heard, 1), c.Gap
	for bar >= heard {
		bar -= heard
		if bar < gap {
			return false
		}
		bar -= gap
		if c.Growing {
			gap++
		}
	}
	return true
}
