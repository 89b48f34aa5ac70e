package musicxml

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
	"undaris/format/reading"
)

// measure reads one measure that begins at a tick, and returns how long it is.
func (r *lickReader) measure(n int, m *measure, tick int) int {
	now, most, onset := 0.0, 0.0, 0.0
	for _, element := range m.Elements {
		switch e := element.(type) {
		case *attributes:
			r.attributes(n+1, e)
		case *shift:
			if e.XMLName.Local == "backup" {
				now -= e.Duration / r.divisions
			} else {
				now += e.Duration / r.divisions
			}
		case played:
			if e.note == nil {
				continue
			}
			start := now
			if e.Chord != nil {
				start = onset
			}
			now += e.duration / r.divisions
			onset = start
			if !e.rest {
				end := start + e.Duration/r.divisions
				r.note(n+1, e.note, tick+ticksOf(start), tick+ticksOf(end))
			}
		case *harmonyMark:
			at := now
			if e.Offset != nil {
				at += e.Offset.Value / r.divisions
			}
			r.harmony(n+1, e, tick+ticksOf(at))
		case *direction, *sound, *barline:
		case skipped:
			r.skipped[e.name]++
		}
		most = math.Max(most, now)
	}
	bar := r.bar
	length := ticksOf(most)
	if tick < 0 {
		return length // a pickup is as long as what is in it
	}
	if length > bar {
		r.Remark(n+1, "", "the measure is longer than its meter says; what is too long goes on into the next")
	}
	return bar
}

// harmony reads a chord symbol: another analysis of the same moment is the imagined one.
func (r *lickReader) harmony(number int, h *harmonyMark, tick int) {
	chord, empty, err := h.chord()
	if err != nil || empty {
		if err != nil {
			r.Remark(number, h.Kind.Text, "this chord is not read: %s", err)
		}
		return
	}
	over := &r.Lick.Lick.Phrase.Chords
	last := len(*over) - 1
	switch {
	case last >= 0 && (*over)[last].Tick == tick && h.Type == alternate:
		written := (*over)[last].Chord
		(*over)[last].Written, (*over)[last].Chord = &written, chord
	case last >= 0 && (*over)[last].Tick >= tick:
		r.Remark(number, chord.Symbol(), "this chord stands where another does already, or out of order; it is not used")
	default:
		*over = append(*over, phrase.PhraseChord{Tick: tick, Chord: chord})
	}
}

// note reads a note, or goes on with the one it is tied to.
func (r *lickReader) note(number int, n *note, tick, end int) {
	if r.staff > 0 && max(n.Staff, 1) != r.staff {
		return
	}
	t := fretted(n)
	one := phrase.PitchedNote{Tick: tick, Ticks: end - tick}
	switch {
	case t != nil:
		place := neck.Place{String: t.String, Fret: *t.Fret}
		if !r.on.Has(place) {
			r.fault(reading.Fault{Line: number, Symbol: fmt.Sprintf("%d:%d", t.String, *t.Fret),
				Detail: fmt.Sprintf("string %d fret %d is not on the neck; strings are 1 to %d, frets 0 to %d", t.String, *t.Fret, len(r.on.Open), r.on.Frets)})
			return
		}
		one.At, one.Pitch = &place, r.on.Pitch(place)
	case n.Pitch != nil:
		spelled, err := noteOf(n.Pitch.Step, n.Pitch.Alter)
		if err != nil || n.Pitch.Octave < -1 || n.Pitch.Octave > 9 {
			r.Remark(number, n.Pitch.Step, "this pitch is not read")
			return
		}
		one.Pitch = pitch.MIDI(12*(n.Pitch.Octave+1) + int(pitch.Note{Letter: spelled.Letter}.Class()) + spelled.Accidental + r.up)
	default:
		r.skipped["notes without a pitch"]++
		return
	}
	tied := r.technique(n, &one)
	if n.Grace != nil {
		one.Grace, one.Ticks = true, phrase.GraceTicks
	}
	if !tied && n.Grace == nil && slices.ContainsFunc(n.Ties, func(t typed) bool { return t.Type == "stop" }) && r.goOn(one) {
		return
	}
	r.notes = append(r.notes, one)
	finger := 0
	if t != nil {
		finger, _ = strconv.Atoi(strings.TrimSpace(t.Fingering))
	}
	r.fingers = append(r.fingers, max(min(finger, 4), 0))
	r.grace(n, len(r.notes)-1)
}
