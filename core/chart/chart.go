package chart

import (
	"fmt"
	"strings"

	"undaris/core/harmony"
)

// Span is a chord and how many beats it lasts. In the written layer a span
// without a chord is silence of the band (N.C.); in the imagined one it leaves
// the written chord as it is.
type Span struct {
	Chord harmony.Chord
	Beats int
}

// Empty says that the span has no chord.
func (s Span) Empty() bool { return s.Chord.Quality == nil }

// Bar is one written bar.
type Bar struct {
	// Section is the label of the section that begins here, empty for none.
	Section string
	// Change is what changes from this bar on: key, meter, feel.
	Change SettingChange
	// Spans are what the band plays; their beats add up to the meter's.
	Spans []Span
	// Imagined is what the soloist thinks of instead, in the same beats; nothing
	// where only the written chords are.
	Imagined []Span
	// RepeatFrom is the sign that a repeat starts here, RepeatTo how often what
	// it encloses is played, 0 where no repeat ends.
	RepeatFrom bool
	RepeatTo   int
	// Ending is the number of the bracket over the bar, 1 to MaxEndings, 0 for none: see
	// PlayedBars for which time plays which.
	Ending int
	// Signs are the signs that lead to another place of the chart.
	Signs Signs
	// Unread is what a file has in the bar that could not be read; the bar is silent until it is written
	// over. Empty in any other bar.
	Unread string
}

// MaxUnread is how many characters of what could not be read a bar keeps.
const MaxUnread = 80

// UnreadText is a text as a bar keeps what could not be read of it: on one line, without bar lines, cut
// where it is long.
func UnreadText(text string) string {
	clean := strings.Join(strings.Fields(strings.Map(func(r rune) rune {
		if r < ' ' || r == 0x7f || r == 0xfffd || strings.ContainsRune("|[]{}", r) {
			return ' '
		}
		return r
	}, text)), " ")
	if runes := []rune(clean); len(runes) > MaxUnread {
		clean = strings.TrimSpace(string(runes[:MaxUnread]))
	}
	if clean == "" {
		return "?"
	}
	return clean
}

// Chart is a tune: its key, time and bars. Key, Meter and Feel are those of bar 1, which
// changes in later bars replace from there on.
type Chart struct {
	Title string
	// Tags are the player's own words to find the chart by.
	Tags []string
	Key  harmony.Key
	// Box is the box the player chose; empty for the key's own.
	Box   harmony.BoxKind
	Meter Meter
	// Tempo is counted beats a minute, 20 to 400.
	Tempo int
	Feel  Feel
	// Swing is the ratio of the long eighth to the short in a shuffle, 1 to 3.
	Swing float64
	// Capo is the fret of a capo, 0 for none. Chords are named as they sound.
	Capo int
	// Imagining says that the soloist follows the imagined chords.
	Imagining bool
	// Scales are the scales the player chose for dominants.
	Scales []ScaleFor
	// Pickup is what the band plays in the unfinished bar before bar 1, shorter than a bar;
	// nothing where there is none. It is played once, before the first chorus.
	Pickup []Span
	Bars   []Bar
}

// Limits of what a chart may hold.
const (
	MinTempo, MaxTempo = 20, 400
	MinSwing, MaxSwing = 1.0, 3.0
	MaxBars            = 512
	MaxTitle           = 120
	MaxCapo            = 12
	MaxTags, MaxTag    = 20, 40
	MaxSection         = 24
	MaxTimes           = 9
)

// FieldError says which field of a chart is at fault and what is allowed.
type FieldError struct {
	// Field is the path of the field, as in "tempo" or "bars[3]".
	Field  string
	Detail string
	// Cause is the error of the field's value, where that says more; it may be nil.
	Cause error
}

func (e *FieldError) Error() string { return e.Field + ": " + e.Detail }

func (e *FieldError) Unwrap() error { return e.Cause }

// InField says in which field an error lies; nil stays nil.
func InField(field string, err error) error {
	if err == nil {
		return nil
	}
	return &FieldError{Field: field, Detail: err.Error(), Cause: err}
}

func fail(field, format string, args ...any) error {
	return &FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
}

// Check returns a *FieldError for the first thing that makes the chart unfit to
// be computed with or kept.
func (c Chart) Check() error {
	title := strings.TrimSpace(c.Title)
	if err := CheckVisible(title); err != nil && oneLine(title) {
		return fail("title", "%s", err)
	}
	switch {
	case Visible(title) == "" || len([]rune(title)) > MaxTitle || !oneLine(title):
		return fail("title", "a title has 1 to %d characters on one line", MaxTitle)
	case c.Tempo < MinTempo || c.Tempo > MaxTempo:
		return fail("tempo", "%d is out of range; a tempo is %d to %d beats a minute", c.Tempo, MinTempo, MaxTempo)
	case !(c.Swing >= MinSwing && c.Swing <= MaxSwing):
		return fail("swing", "%g is out of range; the long eighth is %g to %g times the short", c.Swing, MinSwing, MaxSwing)
	case c.Capo < 0 || c.Capo > MaxCapo:
		return fail("capo", "%d is out of range; a capo sits on fret 1 to %d, or 0 for none", c.Capo, MaxCapo)
	case len(c.Bars) == 0 || len(c.Bars) > MaxBars:
		return fail("bars", "there are %d bars; a chart has 1 to %d", len(c.Bars), MaxBars)
	case (c.Feel == Slow128) != (c.Meter == TwelveEight):
		return fail("feel", "the feel %q does not go with the meter %s; slow 12/8 needs 12/8 and 12/8 needs it", c.Feel, c.Meter)
	}
	if err := c.checkTags(); err != nil {
		return err
	}
	if _, err := c.Key.Box(c.Box); err != nil {
		return fail("box", "%s", err)
	}
	if c.Bars[0].Change != (SettingChange{}) {
		return fail("bars[0]", "bar 1: what holds from the first bar on is the chart's own key, meter and feel")
	}
	if err := c.checkPickup(); err != nil {
		return err
	}
	for n, in := range c.settings() {
		if err := c.checkBar(n, c.Bars[n], in.Meter); err != nil {
			return err
		}
	}
	if err := c.checkScales(); err != nil {
		return err
	}
	return c.checkOrder()
}

func (c Chart) checkTags() error {
	if len(c.Tags) > MaxTags {
		return fail("tags", "there are %d tags; a chart has at most %d", len(c.Tags), MaxTags)
	}
	for n, tag := range c.Tags {
		if strings.TrimSpace(tag) != tag || tag == "" || len([]rune(tag)) > MaxTag || strings.Contains(tag, ",") || !oneLine(tag) || CheckVisible(tag) != nil {
			return fail(fmt.Sprintf("tags[%d]", n), "%q is not a tag; one has 1 to %d characters and no comma", tag, MaxTag)
		}
	}
	return nil
}

func (c Chart) checkPickup() error {
	beats := 0
	for _, span := range c.Pickup {
		if span.Beats < 1 {
			return fail("pickup", "%s lasts %d beats; a chord lasts at least one", span.Name(), span.Beats)
		}
		if beats += span.Beats; beats >= c.Meter.Beats() {
			return fail("pickup", "the bar before bar 1 is shorter than a bar of %s: 1 to %d beats", c.Meter, c.Meter.Beats()-1)
		}
	}
	return nil
}

func (c Chart) checkBar(n int, bar Bar, meter Meter) error {
	field := fmt.Sprintf("bars[%d]", n)
	label := bar.Section
	if strings.TrimSpace(label) != label || len([]rune(label)) > MaxSection || strings.ContainsAny(label, "[]|") || !oneLine(label) {
		return fail(field+".section", "bar %d: %q is not a section's label; one has at most %d characters and no [ ] |", n+1, label, MaxSection)
	}
	if bar.Unread != "" && bar.Unread != UnreadText(bar.Unread) {
		return fail(field+".unread", "bar %d: what could not be read is kept on one line of at most %d characters, without | [ ] { }", n+1, MaxUnread)
	}
	if err := bar.Change.check(field, n, meter, c.Box); err != nil {
		return err
	}
	if err := checkBeats(field, n, "", bar.Spans, meter); err != nil {
		return err
	}
	if len(bar.Imagined) == 0 {
		return nil
	}
	for _, span := range bar.Imagined {
		if !span.Empty() {
			return checkBeats(field+".imagined", n, "imagined, ", bar.Imagined, meter)
		}
	}
	return fail(field+".imagined", "bar %d: an imagined layer without a chord is left out", n+1)
}

func checkBeats(field string, n int, layer string, spans []Span, meter Meter) error {
	beats := 0
	for _, span := range spans {
		if span.Beats < 1 {
			return fail(field, "bar %d: %s%s lasts %d beats; a chord lasts at least one", n+1, layer, span.Name(), span.Beats)
		}
		if beats += span.Beats; span.Beats > meter.Beats() {
			break
		}
	}
	if beats != meter.Beats() {
		return fail(field, "bar %d: %s%d beats; a bar of %s has %d", n+1, layer, beats, meter, meter.Beats())
	}
	return nil
}

// oneLine says that the text has no character that a line of a file cannot hold.
func oneLine(text string) bool {
	return !strings.ContainsFunc(text, func(r rune) bool { return r < ' ' || r == 0x7f || r == 0xfffd })
}

// Name is the chord's symbol, or N.C.
func (s Span) Name() string {
	if s.Empty() {
		return NoChord
	}
	return s.Chord.Symbol()
}
