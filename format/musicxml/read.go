package musicxml

import (
	"bytes"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/reading"
)

// Read reads MusicXML, plain or compressed. What cannot be read is
// reading.Faults, named by measure; the remarks name what was not used.
func Read(data []byte) (*reading.Reading, error) {
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
	return readScore(s)
}

// reader is a score on its way to a chart. Faults and remarks name measures as
// their lines.
type reader struct {
	*reading.Reading
	faults    reading.Faults
	divisions float64
	// bracketed says that an ending goes on, endingTimes how often the one at hand is played.
	bracketed   bool
	endingTimes int
	skipped     map[string]int
	hasKey      bool
	hasSwing    bool
	// now is what holds in the measure at hand, up how far the part sounds above what is written.
	now chart.Setting
	up  int
	// unread is what could not be read as a chord in the measure at hand.
	unread string
}

func readScore(s *score) (*reading.Reading, error) {
	r := &reader{Reading: reading.New(), divisions: 1, skipped: map[string]int{}}
	r.Chart.Title = s.MovementTitle
	if s.Work != nil && strings.TrimSpace(s.Work.Title) != "" {
		r.Chart.Title = s.Work.Title
	}
	r.Chart.Title = strings.Map(func(c rune) rune {
		if c < ' ' || c == 0x7f {
			return ' '
		}
		return c
	}, r.Chart.Title)
	chords, imagined := choose(s)
	if chords == nil {
		return nil, reading.Wrong("there is no part with measures in it")
	}
	if len(chords.Measures) > chart.MaxBars {
		return nil, reading.Wrong("there are %d measures; a chart has at most %d", len(chords.Measures), chart.MaxBars)
	}
	if len(s.Parts) > 1 && imagined == nil || len(s.Parts) > 2 {
		r.Remark(0, "", "of %d parts only the one with the most chord symbols is read", len(s.Parts))
	}
	r.setUp(chords)
	r.now = chart.Setting{Key: r.Chart.Key, Meter: r.Chart.Meter, Feel: r.Chart.Feel}
	harmonies := 0
	if r.pickup(&chords.Measures[0]) {
		chords.Measures = chords.Measures[1:]
		if imagined != nil && len(imagined.Measures) > 1 {
			// What the part says of its time stands in the measure that is gone.
			first := imagined.Measures[0].Elements
			imagined.Measures = imagined.Measures[1:]
			imagined.Measures[0].Elements = append(slices.DeleteFunc(first, func(element any) bool {
				_, is := element.(*attributes)
				return !is
			}), imagined.Measures[0].Elements...)
		}
	}
	for n := range chords.Measures {
		harmonies += r.measure(n, &chords.Measures[n])
	}
	complete(&r.Chart)
	if harmonies == 0 && len(r.Unread) > 0 {
		return nil, r.Unread.Bounded()
	}
	if harmonies == 0 {
		return nil, reading.Wrong("there are no chord symbols (harmony elements) in it")
	}
	if imagined != nil {
		r.imagined(imagined)
	}
	r.miscellaneous(s)
	if !r.hasKey {
		r.Chart.Key = chart.GuessKey(r.Chart.Bars)
		r.Remark(0, "", "no key is given; %s %s is taken from the first chord", r.Chart.Key.Tonic, r.Chart.Key.Mode)
	}
	r.sumUp()
	if len(r.faults) > 0 {
		return nil, append(r.faults, r.Unread...).Bounded()
	}
	if r.up != 0 {
		r.toSounding()
	}
	if err := r.Finish(); err != nil {
		return nil, err
	}
	return r.Reading, nil
}

// choose is the part with the most chord symbols, and the imagined one.
func choose(s *score) (chords, imagined *part) {
	names := map[string]string{}
	for _, p := range s.PartList.Parts {
		names[p.ID] = strings.TrimSpace(p.Name)
	}
	most := -1
	for n := range s.Parts {
		p := &s.Parts[n]
		if names[p.ID] == imaginedPart && n > 0 {
			imagined = p
			continue
		}
		count := 0
		for _, m := range p.Measures {
			for _, element := range m.Elements {
				if _, ok := element.(*harmonyMark); ok {
					count++
				}
			}
		}
		if count > most && len(p.Measures) > 0 {
			chords, most = p, count
		}
	}
	return chords, imagined
}

// setUp reads meter, key and tempo before the bars, whose beats depend on them.
func (r *reader) setUp(p *part) {
	meter, tempo := false, false
	for n := range p.Measures {
		for _, element := range p.Measures[n].Elements {
			switch e := element.(type) {
			case *attributes:
				if e.Time != nil && !meter {
					if r.Chart.Meter = r.meter(n+1, e.Time, r.Chart.Meter); r.Chart.Meter == chart.TwelveEight {
						r.Chart.Feel = chart.Slow128
					}
					meter = true
				}
				if e.Key != nil && !r.hasKey {
					if key, ok := r.key(n+1, e.Key); ok {
						r.Chart.Key, r.hasKey = key, true
					}
				}
				if e.Transpose != nil {
					r.up = e.Transpose.semitones()
				}
			case *sound:
				tempo = r.tempo(n+1, e, nil, tempo)
			case *direction:
				for _, t := range e.Types {
					tempo = r.tempo(n+1, e.Sound, t.Metronome, tempo)
				}
			}
		}
	}
	if !meter {
		r.Remark(0, "", "no meter is given; it is read as 4/4")
	}
	if !tempo {
		r.Remark(0, "", "no tempo is given; it is set to %d", r.Chart.Tempo)
	}
}

// at is a chord at a place in a measure, in beats.
type at struct {
	span chart.Span
	beat float64
}

// measure reads one measure into a bar and counts its chord symbols.
func (r *reader) measure(n int, m *measure) int {
	bar := chart.Bar{}
	if n > 0 {
		before := r.Chart.Bars[n-1]
		if before.Ending > 0 && before.RepeatTo == 0 && r.bracketed {
			bar.Ending = before.Ending
		}
	}
	before := r.now
	chords := r.walk(n, m, func(element any) { r.mark(n, &bar, element) })
	if r.unread != "" {
		bar.Unread, r.unread = chart.UnreadText(r.unread), ""
	}
	if n == 0 {
		r.Chart.Feel, before = r.now.Feel, r.now
	}
	bar.Change = r.now.Since(before)
	carried := chart.Span{}
	if n > 0 {
		spans := r.Chart.Bars[n-1].Spans
		carried = spans[len(spans)-1]
	}
	bar.Spans = r.spans(n, chords, carried)
	r.Chart.Bars = append(r.Chart.Bars, bar)
	return len(chords)
}

// walk goes through a measure's elements in time and gathers its chords; all
// else is handed on.
func (r *reader) walk(n int, m *measure, other func(any)) []at {
	now := 0.0
	chords := []at{}
	beat := func(duration float64) float64 {
		return duration / r.divisions * chart.TicksPerQuarter / float64(r.now.Meter.BeatTicks())
	}
	for _, element := range m.Elements {
		switch e := element.(type) {
		case *attributes:
			if e.Divisions > 0 {
				r.divisions = float64(e.Divisions)
			}
			r.change(n, e)
		case played:
			now += beat(e.duration)
			if !e.rest {
				r.skipped["notes"]++
			}
		case *shift:
			if e.XMLName.Local == "backup" {
				now -= beat(e.Duration)
			} else {
				now += beat(e.Duration)
			}
		case *harmonyMark:
			chord, empty, err := e.chord()
			if err != nil {
				r.Unread = append(r.Unread, reading.Fault{Line: n + 1, Symbol: e.Kind.Text, Detail: fmt.Sprintf("measure %d: %s cannot be read as a chord", n+1, err)})
				r.unread = strings.TrimSpace(r.unread + " " + e.said())
				continue
			}
			place := now
			if e.Offset != nil {
				place += beat(e.Offset.Value)
			}
			span := chart.Span{Chord: chord}
			if empty {
				span = chart.Span{}
			}
			chords = append(chords, at{span: span, beat: place})
		default:
			other(element)
		}
	}
	return chords
}

// spans turns chords at places into chords with lengths: whole beats, the chord
// before held until the first.
func (r *reader) spans(n int, chords []at, carried chart.Span) []chart.Span {
	beats := r.now.Meter.Beats()
	slots := make([]*chart.Span, beats)
	for _, c := range chords {
		beat := int(math.Round(math.Max(-1, math.Min(c.beat, 1000))))
		if math.Abs(c.beat-float64(beat)) > 0.01 {
			r.Remark(n+1, c.span.Name(), "this chord is off the beat; it was moved to beat %d", min(max(beat, 0), beats-1)+1)
		}
		beat = min(max(beat, 0), beats-1)
		if slots[beat] != nil {
			r.Remark(n+1, slots[beat].Name(), "two chords stand on one beat; the later one is read")
		}
		slots[beat] = &c.span
	}
	spans := []chart.Span{}
	for beat, slot := range slots {
		switch {
		case slot != nil:
			spans = append(spans, chart.Span{Chord: slot.Chord, Beats: 1})
		case beat == 0:
			spans = append(spans, chart.Span{Chord: carried.Chord, Beats: 1})
		default:
			spans[len(spans)-1].Beats++
		}
	}
	return spans
}

func (r *reader) imagined(p *part) {
	r.divisions = 1
	for n := range p.Measures {
		if n == len(r.Chart.Bars) {
			r.Remark(n+1, "", "the imagined part has more measures than the chords; the rest is not used")
			return
		}
		in := r.Chart.SettingOf(n)
		r.now.Meter = in.Meter
		chords := r.walk(n, &p.Measures[n], func(any) {})
		r.now.Meter = in.Meter
		for _, c := range chords {
			if !c.span.Empty() {
				r.Chart.Bars[n].Imagined = r.spans(n, chords, chart.Span{})
				break
			}
		}
	}
}

// miscellaneous reads what the format has no element for.
func (r *reader) miscellaneous(s *score) {
	if s.Identification == nil || s.Identification.Miscellaneous == nil {
		r.blues()
		return
	}
	for _, f := range s.Identification.Miscellaneous.Fields {
		value := strings.TrimSpace(f.Value)
		ok := true
		switch f.Name {
		case fieldKey:
			key, err := harmony.ReadKey(value)
			if ok = err == nil; ok {
				r.Chart.Key, r.hasKey = key, true
			}
		case fieldBox:
			r.Chart.Box = harmony.BoxKind(value)
		case fieldFeel:
			feel, err := chart.ParseFeel(value)
			if ok = err == nil; ok {
				r.Chart.Feel = feel
			}
		case fieldSwing:
			swing, err := strconv.ParseFloat(value, 64)
			if ok = err == nil; ok {
				r.Chart.Swing = swing
			}
		case fieldCapo:
			capo, err := strconv.Atoi(value)
			if ok = err == nil; ok {
				r.Chart.Capo = capo
			}
		case fieldTags:
			for _, tag := range strings.Split(value, ",") {
				r.Chart.Tags = append(r.Chart.Tags, strings.TrimSpace(tag))
			}
		case fieldKeys, fieldFeels, fieldScales, fieldPickup:
			ok = r.listField(f.Name, value)
		case fieldImagining:
			r.Chart.Imagining = value == "yes"
		default:
			r.Remark(0, f.Name, "this field is not used")
		}
		if !ok {
			r.Remark(0, value, "this value of %s cannot be read and is not used", f.Name)
		}
	}
}

// blues takes a major key whose home chord is a dominant seventh for that of a
// blues, and says so.
func (r *reader) blues() {
	if r.hasKey && r.Chart.IsEven() && chart.IsBluesKey(r.Chart.Key, r.Chart.Bars) {
		r.Chart.Key.Mode = harmony.DominantMode
		r.Remark(0, "", "home is a dominant seventh; the key is taken for that of a blues")
	}
}

// sumUp says once what was left aside all through the file.
func (r *reader) sumUp() {
	for _, name := range []string{"notes", "print", "figured-bass", "bookmark", "listening", "grouping", "link"} {
		if count := r.skipped[name]; count > 0 {
			r.Remark(0, name, "%d of these were not used; a chart holds chords", count)
		}
	}
}
