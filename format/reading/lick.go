package reading

import (
	"fmt"
	"strings"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Lick is a lick as it was read, and what was not used of the file.
type Lick struct {
	Lick lick.Lick
	// Voices are those of a MIDI file.
	Voices []Voice
	Remarked
}

// Terms is what a reader of licks goes by where the file does not say.
type Terms struct {
	Tonic pitch.Note
	Meter chart.Meter
	// Instrument is what is played on, Window where the hand stands when notes come
	// without their places.
	Instrument neck.Instrument
	Window     neck.Window
	// Voices are those of a MIDI file that are read; without any the reader chooses.
	Voices []VoiceID
}

// Plain are the terms of a guitar in standard tuning, in the first box of A.
func Plain() Terms {
	i := neck.Standard()
	return Terms{Tonic: pitch.Note{Letter: 5}, Meter: chart.FourFour, Instrument: i, Window: i.WindowFrom(5)}
}

// Finish gives the lick a name where the file has none, cuts what is too long, checks
// it whole, and turns what is wrong with it into a fault.
func (l *Lick) Finish() error {
	name := strings.TrimSpace(oneLine(l.Lick.Name))
	if visible := strings.TrimSpace(chart.Visible(name)); visible != name {
		name = visible
		l.Remark(0, name, "characters of the title that cannot be seen were left out")
	}
	if name == "" {
		name = "Untitled lick"
		l.Remark(0, "", "no title is given; it is called %s", name)
	}
	if runes := []rune(name); len(runes) > lick.MaxName {
		name = strings.TrimSpace(string(runes[:lick.MaxName]))
		l.Remark(0, name, "the title was cut to %d characters", lick.MaxName)
	}
	l.Lick.Name = name
	if runes := []rune(oneLine(l.Lick.About)); len(runes) > lick.MaxAbout {
		l.Lick.About = string(runes[:lick.MaxAbout])
		l.Remark(0, l.Lick.About, "what it is about was cut to %d characters", lick.MaxAbout)
	}
	tags := l.Lick.Tags
	l.Lick.Tags = nil
	for _, tag := range tags {
		if tag = strings.TrimSpace(oneLine(tag)); tag == "" {
			continue
		}
		if len([]rune(tag)) > lick.MaxTag || len(l.Lick.Tags) == lick.MaxTags || strings.Contains(tag, ",") {
			l.Remark(0, tag, "this tag is not kept: at most %d, of %d characters", lick.MaxTags, lick.MaxTag)
			continue
		}
		l.Lick.Tags = append(l.Lick.Tags, tag)
	}
	if err := l.Lick.Check(); err != nil {
		if field, ok := err.(*chart.FieldError); ok {
			return Faults{{Detail: field.Detail}}
		}
		return Faults{{Detail: err.Error()}}
	}
	return nil
}

// oneLine takes out what may not stand in a line.
func oneLine(text string) string {
	return strings.Map(func(c rune) rune {
		if c < ' ' || c == 0x7f {
			return ' '
		}
		return c
	}, strings.ToValidUTF8(text, ""))
}

// Counted is a number of things with its verb, as it is said: "1 note is", "3 notes are".
func Counted(count int, one, more string) string {
	if count == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", count, more)
}
