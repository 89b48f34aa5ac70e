package musicxml

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/reading"
)

func (r *reader) meter(number int, t *timeMark, again bool) {
	text := strings.TrimSpace(t.Beats) + "/" + strings.TrimSpace(t.BeatType)
	meter, err := chart.ParseMeter(text)
	switch {
	case again && (err != nil || meter != r.Chart.Meter):
		r.faults = append(r.faults, reading.Fault{Line: number, Symbol: text, Detail: fmt.Sprintf("the meter changes to %s; a chart has one meter", text)})
	case err != nil:
		r.faults = append(r.faults, reading.Fault{Line: number, Symbol: text, Detail: strings.TrimPrefix(err.Error(), "meter: ")})
	default:
		r.Chart.Meter = meter
		if meter == chart.TwelveEight {
			r.Chart.Feel = chart.Slow128
		}
	}
}

func (r *reader) key(number int, k *keyMark) {
	mode := harmony.MajorMode
	if strings.TrimSpace(k.Mode) == "minor" {
		mode = harmony.MinorMode
	}
	if k.Fifths < -12 || k.Fifths > 12 {
		r.faults = append(r.faults, reading.Fault{Line: number, Detail: fmt.Sprintf("a key with %d signs", k.Fifths)})
		return
	}
	key, err := harmony.ParseKey(harmony.TonicOf(k.Fifths, mode).String(), mode)
	if err != nil {
		r.faults = append(r.faults, reading.Fault{Line: number, Detail: err.Error()})
		return
	}
	if r.hasKey && key != r.Chart.Key {
		r.Remark(number, "", "the key changes to %s %s here; the chart stays in %s %s", key.Tonic, key.Mode, r.Chart.Key.Tonic, r.Chart.Key.Mode)
		return
	}
	r.Chart.Key, r.hasKey = key, true
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
