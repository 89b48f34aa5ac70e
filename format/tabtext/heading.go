package tabtext

import (
	"regexp"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Headings that players write without a name and a colon: "Capo 2nd fret", "(drop D)", "120 bpm".
var (
	plainCapo   = regexp.MustCompile(`(?i)^\W*(capo)\b[\s:.=-]*(.*?)\W*$`)
	plainTempo  = regexp.MustCompile(`(?i)^\W*(?:(?:tempo|bpm)\W*([0-9]{1,3})|([0-9]{1,3})\s*bpm|[♩♪]\.?\s*=\s*([0-9]{1,3}))\W*$`)
	plainTuning = regexp.MustCompile(`(?i)^\W*(?:tuned (?:to|in)\s+|tuning\W+)?(.*?)(?:\s+tuning)?\W*$`)
	inOneWord   = regexp.MustCompile(`^(?:[A-Ga-g][#b♯♭]?){4,8}$`)
	noteOfWord  = regexp.MustCompile(`[A-Ga-g][#b♯♭]?`)
)

// plainHeading is the name and value of a line that says a capo, a tempo or one of the tunings that have a
// name; empty where the line says something else.
func plainHeading(line string) (name, value string) {
	if m := plainCapo.FindStringSubmatch(line); m != nil && !isTab(line) {
		return "capo", strings.TrimSpace(line)
	}
	if m := plainTempo.FindStringSubmatch(line); m != nil {
		return "tempo", strings.TrimSpace(line)
	}
	if m := plainTuning.FindStringSubmatch(line); m != nil && named(m[1]) != nil {
		return "tuning", m[1]
	}
	return "", ""
}

// named is the tuning that is called so, nil for none.
func named(text string) []pitch.MIDI {
	for _, one := range neck.Presets() {
		if strings.EqualFold(one.Name, strings.TrimSpace(text)) {
			return one.Open
		}
	}
	return nil
}

// head reads a heading. One that cannot be read is named, and the tab is read without it.
func (r *reader) head(line int, name, value string) {
	switch name {
	case "title":
		r.Lick.Lick.Name = value
	case "about":
		r.Lick.Lick.About = value
	case "tags":
		r.Lick.Lick.Tags = strings.Split(value, ",")
	case "key":
		key, err := harmony.ReadKey(value)
		if err != nil {
			r.Remark(line, value, "%s; the tab is read without it", err)
			return
		}
		r.Lick.Lick.Tonic, r.hasKey = key.Tonic, true
	case "meter":
		meter, err := chart.ParseMeter(value)
		if err != nil {
			r.Remark(line, value, "%s; the tab is read without it", strings.TrimPrefix(err.Error(), "meter: "))
			return
		}
		r.Lick.Lick.Phrase.Meter, r.hasMeter = meter, true
	case "tuning":
		r.tune(line, value)
	case "capo":
		r.Remark(line, value, "the capo is not kept with a lick; its frets are counted from the nut")
	default:
		r.Remark(line, value, "the %s is not kept with a lick", name)
	}
}

// tune takes a tuning for the tab's own: one that has a name, or its notes from the lowest string up, apart or in
// one word.
func (r *reader) tune(line int, text string) {
	open := named(strings.TrimSuffix(strings.ToLower(text), " tuning"))
	var err error
	if open == nil {
		notes := text
		if inOneWord.MatchString(text) {
			notes = strings.Join(noteOfWord.FindAllString(text, -1), " ")
		}
		open, err = neck.ReadTuning(notes)
	}
	i := r.terms.Instrument
	if err == nil {
		i.Open, i.Name = open, "tab"
		err = i.Check()
	}
	if err != nil {
		r.Remark(line, text, "the tuning cannot be read (%s); the strings are taken as %s", err, r.instrument.Tuning())
		return
	}
	r.instrument, r.hasTuning = i, true
}
