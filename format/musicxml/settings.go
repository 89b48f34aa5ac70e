package musicxml

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/format/reading"
)

// fault adds a fault once: the first signature is looked at twice.
func (r *reader) fault(f reading.Fault) {
	if !slices.ContainsFunc(r.faults, func(o reading.Fault) bool { return o.Line == f.Line && o.Detail == f.Detail }) {
		r.faults = append(r.faults, f)
	}
}

// meter reads a time signature; one that a chart cannot have is a fault, and the meter before goes on.
func (r *reader) meter(number int, t *timeMark, before chart.Meter) chart.Meter {
	text := strings.TrimSpace(t.Beats) + "/" + strings.TrimSpace(t.BeatType)
	meter, err := chart.ParseMeter(text)
	if err != nil {
		r.fault(reading.Fault{Line: number, Symbol: text, Detail: strings.TrimPrefix(err.Error(), "meter: ")})
		return before
	}
	return meter
}

// key reads a signature; false where it is none.
func (r *reader) key(number int, k *keyMark) (harmony.Key, bool) {
	mode := harmony.MajorMode
	if strings.TrimSpace(k.Mode) == "minor" {
		mode = harmony.MinorMode
	}
	if k.Fifths < -12 || k.Fifths > 12 {
		r.fault(reading.Fault{Line: number, Detail: fmt.Sprintf("a key with %d signs", k.Fifths)})
		return harmony.Key{}, false
	}
	key, err := harmony.ParseKey(harmony.TonicOf(k.Fifths, mode).String(), mode)
	if err != nil {
		r.fault(reading.Fault{Line: number, Detail: err.Error()})
		return harmony.Key{}, false
	}
	return key, true
}

// change reads what a measure changes of key and meter.
func (r *reader) change(n int, e *attributes) {
	if e.Time != nil {
		if meter := r.meter(n+1, e.Time, r.now.Meter); meter != r.now.Meter {
			r.now = r.now.After(chart.SettingChange{Meter: meter})
		}
	}
	if e.Key != nil && r.hasKey {
		if key, ok := r.key(n+1, e.Key); ok {
			r.now.Key = key
		}
	}
}

// pickup reads an unfinished first measure that is not counted as the bar before bar 1.
func (r *reader) pickup(m *measure) bool {
	if !m.Implicit && strings.TrimSpace(m.Number) != "0" {
		return false
	}
	chords := r.walk(0, m, func(any) {})
	most, now := 0.0, 0.0
	for _, element := range m.Elements {
		switch e := element.(type) {
		case played:
			now += e.duration
		case *shift:
			if e.XMLName.Local == "backup" {
				now -= e.Duration
			} else {
				now += e.Duration
			}
		}
		most = math.Max(most, now)
	}
	beats := int(math.Round(most / r.divisions * chart.TicksPerQuarter / float64(r.now.Meter.BeatTicks())))
	if beats < 1 || beats >= r.now.Meter.Beats() || len(r.Unread) > 0 {
		return false
	}
	spans := r.spans(0, chords, chart.Span{})
	r.Chart.Pickup = nil
	for _, span := range spans {
		span.Beats = min(span.Beats, beats)
		if beats -= span.Beats; span.Beats > 0 {
			r.Chart.Pickup = append(r.Chart.Pickup, span)
		}
	}
	return true
}

// toSounding moves the chart of a transposing instrument to where it sounds.
func (r *reader) toSounding() {
	from := r.Chart.Key
	class := pitch.ClassOf(int(from.Tonic.Class()) + r.up)
	if class == from.Tonic.Class() {
		return
	}
	to := harmony.Key{Tonic: harmony.TonicOf(0, harmony.MajorMode).Up(0, int(class)), Mode: from.Mode}
	r.Chart = r.Chart.Transposed(to.Plain())
	r.Remark(0, "", "the part is written for a transposing instrument; its chords are taken as they sound, in %s %s", r.Chart.Key.Tonic, r.Chart.Key.Mode)
}

// tempo reads the first tempo; the sound counts quarters, the chart beats.
func (r *reader) tempo(number int, s *sound, m *metronome, known bool) bool {
	tempo := 0.0
	if s != nil && s.Tempo != 0 {
		tempo = s.Tempo * chart.TicksPerQuarter / float64(r.Chart.Meter.BeatTicks())
	} else if m != nil {
		value, err := strconv.ParseFloat(strings.TrimSpace(m.PerMinute), 64)
		if err != nil || strings.TrimSpace(m.Unit) != "quarter" {
			r.Remark(number, m.PerMinute, "this metronome mark is not used")
			return known
		}
		tempo = value
		if len(m.Dots) > 0 != r.Chart.Meter.Compound() {
			tempo *= map[bool]float64{true: 1.5, false: 1 / 1.5}[len(m.Dots) > 0]
		}
	} else {
		return known
	}
	rounded := math.Round(tempo)
	switch {
	case known && int(rounded) != r.Chart.Tempo:
		r.Remark(number, "", "the tempo changes here; the chart keeps its first")
	case known:
	case !(rounded >= chart.MinTempo && rounded <= chart.MaxTempo):
		r.faults = append(r.faults, reading.Fault{Line: number, Detail: fmt.Sprintf("a tempo of %g; it is %d to %d beats a minute", tempo, chart.MinTempo, chart.MaxTempo)})
	default:
		r.Chart.Tempo = int(rounded)
	}
	return true
}

// listField reads a field that holds a list, each entry beginning with the bar it is for.
func (r *reader) listField(name, value string) bool {
	if name == fieldPickup {
		pickup, err := chart.ReadPickup(value, r.Chart.Key)
		if err == nil {
			r.Chart.Pickup = pickup
		}
		return err == nil
	}
	good := true
	for _, entry := range strings.Split(value, ";") {
		first, rest, _ := strings.Cut(strings.TrimSpace(entry), " ")
		if name == fieldScales {
			good = r.scale(first, rest) && good
			continue
		}
		number, err := strconv.Atoi(first)
		if err != nil || number < 1 || number > len(r.Chart.Bars) {
			good = false
			continue
		}
		change := &r.Chart.Bars[number-1].Change
		if name == fieldKeys {
			key, err := harmony.ReadKey(rest)
			good = err == nil && good
			change.Key = key
			continue
		}
		feel, err := chart.ParseFeel(rest)
		good = err == nil && good
		change.Feel = feel
	}
	return good
}

func (r *reader) scale(of, scale string) bool {
	choice := chart.ScaleFor{Scale: strings.TrimSpace(scale)}
	if harmony.LooksRoman(of) {
		choice.Function = of
	} else {
		chord, err := harmony.ParseChord(of)
		if err != nil {
			return false
		}
		choice.Chord = chord
	}
	r.Chart.Scales = append(r.Chart.Scales, choice)
	return true
}
