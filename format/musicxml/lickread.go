package musicxml

import (
	"bytes"
	"math"
	"slices"
	"sort"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
	"undaris/format/reading"
)

// ReadLick reads the notes of one part of MusicXML, plain or compressed: its tab staff
// where it has one. Notes without string and fret are fingered in the window of the
// terms. What cannot be read is reading.Faults, named by measure; the remarks name what
// was not used.
func ReadLick(data []byte, terms reading.Terms) (*reading.Lick, error) {
	if bytes.HasPrefix(data, []byte("PK")) {
		unpacked, err := unpack(data)
		if err != nil {
			return nil, err
		}
		data = unpacked
	}
	s, err := decode(data)
	if err != nil {
		return nil, err
	}
	r := &lickReader{Lick: &reading.Lick{}, terms: terms, on: terms.Instrument, divisions: 1, last: map[string][]int{}, skipped: map[string]int{}, changes: map[int]bool{}, bar: terms.Meter.BarTicks()}
	return r.read(s)
}

type lickReader struct {
	*reading.Lick
	terms     reading.Terms
	on        neck.Instrument
	faults    reading.Faults
	divisions float64
	staff     int
	notes     []phrase.PitchedNote
	fingers   []int
	graces    map[string][]int
	// last are the notes that each voice played last.
	last                       map[string][]int
	skipped                    map[string]int
	hasMeter, hasKey, hasTonic bool
	// bar is how long the measures are at the moment, changes are those in which the meter changes.
	bar     int
	changes map[int]bool
	// up is how far the part sounds above what is written.
	up int
}

// maxLickNotes is how many notes are gone through; a lick holds fewer.
const maxLickNotes = 4 * phrase.MaxEvents

func (r *lickReader) read(s *score) (*reading.Lick, error) {
	l := &r.Lick.Lick
	l.Phrase.Meter, l.Tonic = r.terms.Meter, r.terms.Tonic
	l.Name = s.MovementTitle
	if s.Work != nil && strings.TrimSpace(s.Work.Title) != "" {
		l.Name = s.Work.Title
	}
	p := r.choosePart(s)
	if p == nil {
		return nil, reading.Wrong("there is no part with notes in it")
	}
	r.graces = map[string][]int{}
	r.chooseStaff(p)
	tick := r.pickup(p)
	for _, n := range r.playedMeasures(p) {
		tick += r.measure(n, &p.Measures[n], tick)
		if len(r.notes) > maxLickNotes {
			return nil, reading.Wrong("there are more than %d notes in it; a lick has at most %d", maxLickNotes, phrase.MaxEvents)
		}
	}
	if len(r.faults) > 0 {
		return nil, r.faults
	}
	return r.finish(s)
}

// pickup is the tick at which the score begins: before 0 where bars come that are not
// counted, or where the first bar is shorter than the rest.
func (r *lickReader) pickup(p *part) int {
	before := 0
	for n := range p.Measures {
		m := &p.Measures[n]
		number, err := strconv.Atoi(strings.TrimSpace(m.Number))
		length := r.lengthOf(m)
		counted := !m.Implicit && (err != nil || number > 0)
		if counted {
			if n == 0 && len(p.Measures) > 1 && length > 0 && length < r.Lick.Lick.Phrase.Meter.BarTicks() {
				r.Remark(1, "", "the first measure is short; it is read as a pickup")
				before = length
			}
			break
		}
		before += length
	}
	r.divisions, r.hasMeter, r.hasKey = 1, false, false
	return -before
}

// playedMeasures lists the measures in the order in which they are played: repeats and endings played out. Where
// the signs make no sense they are left out, and that is said.
func (r *lickReader) playedMeasures(p *part) []int {
	order := make([]int, len(p.Measures))
	signs := &reader{Reading: reading.New()}
	any := false
	for n := range p.Measures {
		order[n] = n
		bar := chart.Bar{Spans: chart.EmptyBars(1, chart.FourFour)[0].Spans}
		if n > 0 {
			if before := signs.Chart.Bars[n-1]; before.Ending > 0 && before.RepeatTo == 0 && signs.bracketed {
				bar.Ending = before.Ending
			}
		}
		for _, element := range p.Measures[n].Elements {
			if line, ok := element.(*barline); ok {
				signs.barline(n, &bar, line)
				any = any || line.Repeat != nil
			}
		}
		signs.Chart.Bars = append(signs.Chart.Bars, bar)
	}
	if !any {
		return order
	}
	signs.Chart.Title, signs.Chart.Key = "x", harmony.Key{Mode: harmony.MajorMode}
	if err := signs.Chart.Check(); err != nil || len(signs.faults) > 0 {
		r.Remark(0, "", "the repeats cannot be played out as they stand; the measures are read one after the other")
		return order
	}
	r.Remark(0, "", "the repeats are played out: a lick has none")
	return signs.Chart.PlayedBars()
}

// lengthOf is how long a measure lasts by what is in it.
func (r *lickReader) lengthOf(m *measure) int {
	now, most := 0.0, 0.0
	for _, element := range m.Elements {
		switch e := element.(type) {
		case *attributes:
			r.attributes(1, e)
		case played:
			now += e.duration / r.divisions
		case *shift:
			if e.XMLName.Local == "backup" {
				now -= e.Duration / r.divisions
			} else {
				now += e.Duration / r.divisions
			}
		}
		most = math.Max(most, now)
	}
	return ticksOf(most)
}

// ticksOf turns quarters into ticks.
func ticksOf(quarters float64) int {
	return int(math.Round(math.Max(-1e6, math.Min(quarters*chart.TicksPerQuarter, 1e9))))
}

func (r *lickReader) attributes(number int, e *attributes) {
	if e.Divisions > 0 {
		r.divisions = float64(e.Divisions)
	}
	l := &r.Lick.Lick
	if e.Time != nil {
		text := strings.TrimSpace(e.Time.Beats) + "/" + strings.TrimSpace(e.Time.BeatType)
		meter, err := chart.ParseMeter(text)
		switch {
		case err != nil:
			r.fault(reading.Fault{Line: number, Symbol: text, Detail: strings.TrimPrefix(err.Error(), "meter: ")})
		case r.hasMeter && meter != l.Phrase.Meter:
			if !r.changes[number] {
				r.Remark(number, text, "the meter changes to %s here; a lick has one meter, and its bars go on in %s", text, l.Phrase.Meter)
			}
			r.changes[number], r.bar = true, meter.BarTicks()
		case r.hasMeter:
			r.bar = meter.BarTicks()
		default:
			l.Phrase.Meter, r.hasMeter, r.bar = meter, true, meter.BarTicks()
		}
	}
	if e.Key != nil && e.Key.Fifths >= -12 && e.Key.Fifths <= 12 && !r.hasKey {
		mode := harmony.MajorMode
		if strings.TrimSpace(e.Key.Mode) == "minor" {
			mode = harmony.MinorMode
		}
		if tonic := harmony.TonicOf(e.Key.Fifths, mode); tonic.Accidental >= -1 && tonic.Accidental <= 1 {
			l.Tonic, r.hasKey = tonic, true
		}
	}
	if e.Transpose != nil {
		r.up = e.Transpose.semitones()
	}
	if e.Staff != nil && len(e.Staff.Tuning) > 0 {
		r.tuning(number, e.Staff)
	}
}

// fault adds a fault once.
func (r *lickReader) fault(f reading.Fault) {
	if len(r.faults) < reading.MostFaults && !slices.ContainsFunc(r.faults, func(o reading.Fault) bool { return o.Line == f.Line && o.Detail == f.Detail }) {
		r.faults = append(r.faults, f)
	}
}

// finish puts the notes on strings and the lick together.
func (r *lickReader) finish(s *score) (*reading.Lick, error) {
	l := &r.Lick.Lick
	if len(r.notes) == 0 {
		return nil, reading.Wrong("there are no notes in it that can be read")
	}
	r.fields(s)
	order := make([]int, len(r.notes))
	for n := range order {
		order[n] = n
	}
	// A grace note comes behind what begins with it: next is the note it leads to.
	sort.SliceStable(order, func(a, b int) bool {
		x, y := r.notes[order[a]], r.notes[order[b]]
		return x.Tick < y.Tick || x.Tick == y.Tick && !x.Grace && y.Grace
	})
	free := 0
	sorted := make([]phrase.PitchedNote, len(order))
	for n, from := range order {
		sorted[n] = r.notes[from]
		if sorted[n].At == nil {
			free++
		}
	}
	if free == 0 {
		for n, one := range sorted {
			l.Phrase.Events = append(l.Phrase.Events, phrase.Event{
				Tick: one.Tick, Ticks: one.Ticks, Technique: one.Technique, Fingered: neck.Fingered{Place: *one.At, Finger: r.fingers[order[n]]},
			})
		}
	} else {
		placed := phrase.AssignStrings(r.on, r.terms.Window, sorted)
		l.Phrase.Events = placed.Events
		r.Remark(0, "", "%s without string and fret; fingered on frets %d to %d", reading.Counted(free, "note is", "notes are"), placed.Window.Low, placed.Window.High)
		for _, n := range placed.Dropped {
			r.Remark(0, "", "note %d has no place on the instrument and is left out", n+1)
		}
	}
	mended, said := l.Phrase.Playable()
	l.Phrase = mended
	for _, what := range said {
		r.Remark(0, "", "%s", what)
	}
	if !r.hasKey && !r.hasTonic {
		r.Remark(0, "", "no key is given; it is taken to be in %s", l.Tonic)
	}
	if !r.hasMeter {
		r.Remark(0, "", "no meter is given; it is read as %s", l.Phrase.Meter)
	}
	r.sumUp()
	*l = l.WithInstrument(r.on)
	if err := r.Finish(); err != nil {
		return nil, err
	}
	return r.Lick, nil
}

// sumUp remarks once on each kind of element that was not used.
func (r *lickReader) sumUp() {
	names := []string{}
	for name := range r.skipped {
		if name != "print" {
			names = append(names, name)
		}
	}
	sort.Strings(names)
	for _, name := range names {
		r.Remark(0, name, "%d of these are not used", r.skipped[name])
	}
}

// fields reads what the format has no element for.
func (r *lickReader) fields(s *score) {
	if s.Identification == nil || s.Identification.Miscellaneous == nil {
		return
	}
	l := &r.Lick.Lick
	for _, f := range s.Identification.Miscellaneous.Fields {
		switch f.Name {
		case fieldAbout:
			l.About = f.Value
		case fieldTags:
			l.Tags = strings.Split(f.Value, ",")
		case fieldTonic:
			if note, err := pitch.ParseNote(strings.TrimSpace(f.Value)); err == nil && note.Accidental >= -1 && note.Accidental <= 1 {
				l.Tonic, r.hasTonic = note, true
			}
		}
	}
}
