package chart

import (
	"fmt"
	"slices"
	"sort"
	"strings"

	"undaris/core/floor"
	"undaris/core/harmony"
)

// ChordSpan is one chord on the time line.
type ChordSpan struct {
	// Chord is what the soloist follows: the imagined chord where there is one
	// and the chart imagines, else the written one.
	Chord harmony.Chord
	// Written is what the band plays. Where the band is silent it is the chord
	// that still rings in the ear.
	Written harmony.Chord
	// Imagined says that Chord is an imagined one, Silent that the band rests.
	Imagined, Silent bool
	// Bar and Beat count from 0; Bar counts the bars of a chorus as they are
	// played, Source is the written bar.
	Bar, Beat, Source int
	// Tick is where the chord begins, Ticks how long it lasts.
	Tick, Ticks int
	// Key is the key that holds in its bar, Meter the meter.
	Key   harmony.Key
	Meter Meter
}

// TonicChord is the chord of the tonic of the chart's first key.
func (c Chart) TonicChord() harmony.Chord { return c.Key.TonicChord() }

// ChordSpans is the chart's time line: every chord of a chorus in order, from tick
// 0, repeats played out. Where the band is silent the chord before still counts,
// since it is what the ear keeps; before the first chord it is the first one,
// and in a chart without any it is the tonic chord (our choice).
func (c Chart) ChordSpans() []ChordSpan {
	moments := make([]ChordSpan, 0, len(c.Bars))
	settings := c.settings()
	ringing := c.firstChord()
	start := 0
	for played, b := range c.PlayedBars() {
		in := settings[b]
		beatTicks := in.Meter.BeatTicks()
		for _, cut := range c.segments(c.Bars[b], in.Meter) {
			m := ChordSpan{
				Silent: cut.written.Empty(), Imagined: !cut.imagined.Empty(), Bar: played, Beat: cut.beat, Source: b,
				Tick: start + cut.beat*beatTicks, Ticks: cut.beats * beatTicks, Key: in.Key, Meter: in.Meter,
			}
			if !m.Silent {
				ringing = cut.written.Chord
			}
			m.Chord, m.Written = ringing, ringing
			if m.Imagined {
				m.Chord = cut.imagined.Chord
			}
			moments = append(moments, m)
		}
		start += in.Meter.BarTicks()
	}
	c.withContexts(moments)
	return moments
}

func (c Chart) firstChord() harmony.Chord {
	for _, bar := range c.Bars {
		for _, span := range bar.Spans {
			if !span.Empty() {
				return span.Chord
			}
		}
	}
	return c.TonicChord()
}

// barSegment is a stretch of a bar over which neither layer changes.
type barSegment struct {
	written, imagined Span
	beat, beats       int
}

func (c Chart) segments(bar Bar, meter Meter) []barSegment {
	if !c.Imagining || len(bar.Imagined) == 0 {
		cuts := make([]barSegment, len(bar.Spans))
		beat := 0
		for n, span := range bar.Spans {
			cuts[n] = barSegment{written: span, beat: beat, beats: span.Beats}
			beat += span.Beats
		}
		return cuts
	}
	cuts := []barSegment{}
	w, i := 0, 0
	wEnd, iEnd := bar.Spans[0].Beats, bar.Imagined[0].Beats
	for beat := 0; beat < meter.Beats(); {
		end := min(wEnd, iEnd)
		cuts = append(cuts, barSegment{written: bar.Spans[w], imagined: bar.Imagined[i], beat: beat, beats: end - beat})
		if beat = end; beat == meter.Beats() {
			break
		}
		if wEnd == end {
			w++
			wEnd += bar.Spans[w].Beats
		}
		if iEnd == end {
			i++
			iEnd += bar.Imagined[i].Beats
		}
	}
	return cuts
}

// WithoutImagined is the chart as the band plays it: nothing imagined is followed.
func (c Chart) WithoutImagined() Chart {
	c.Imagining = false
	return c
}

// Ticks is the length of one chorus.
func (c Chart) Ticks() int {
	ticks, settings := 0, c.settings()
	for _, b := range c.PlayedBars() {
		ticks += settings[b].Meter.BarTicks()
	}
	return ticks
}

// ChordAt is the chord the soloist follows at a tick. Choruses follow one
// another, so ticks before the first bar or past the last fold into the chorus.
func (c Chart) ChordAt(tick int) harmony.Chord { return ChordAt(c.ChordSpans(), tick) }

// Change is the moment one chord gives way to another.
type Change struct {
	Leaving, Arriving ChordSpan
	// Tick is where the arriving chord begins; for the change from the end of
	// one chorus to the start of the next it is the length of the chorus.
	Tick int
}

// Wraps says whether the change leads from the end of the chorus to its start.
func (ch Change) Wraps() bool { return ch.Arriving.Tick <= ch.Leaving.Tick }

// Stays says that the chord arrives at itself.
func (ch Change) Stays() bool { return ch.Leaving.Chord.Same(ch.Arriving.Chord) }

// TargetChanges lists the moments that a line may aim at: the changes, or in a tune
// that stays on one chord the downbeats of its bars, where the chord arrives at
// itself (ours: on a vamp the ear still hears each bar begin).
func (c Chart) TargetChanges() []Change {
	if changes := c.Changes(); len(changes) > 0 {
		return changes
	}
	return c.changesWhere(func(_, arriving ChordSpan) bool { return arriving.Beat == 0 })
}

// Changes lists the changes of a chorus in order, the one back to the top last.
// A chord that is only repeated makes no change; a one-chord vamp has none.
func (c Chart) Changes() []Change {
	return c.changesWhere(func(leaving, arriving ChordSpan) bool { return !leaving.Chord.Same(arriving.Chord) })
}

// changesWhere lists the moments of a chorus that follow another as it is wanted.
func (c Chart) changesWhere(wanted func(leaving, arriving ChordSpan) bool) []Change {
	moments := c.ChordSpans()
	turns := []Change{}
	for n, leaving := range moments {
		if arriving := moments[(n+1)%len(moments)]; wanted(leaving, arriving) {
			turns = append(turns, Change{Leaving: leaving, Arriving: arriving, Tick: leaving.Tick + leaving.Ticks})
		}
	}
	return turns
}

// TicksBefore is how many ticks the leaving chord of a change has sounded without a
// break when it is left, at most a chorus.
func (c Chart) TicksBefore(ch Change) int {
	moments := c.ChordSpans()
	ticks := 0
	for n := len(moments) - 1; n >= 0; n-- {
		if moments[n].Tick > ch.Leaving.Tick {
			continue
		}
		if !moments[n].Chord.Same(ch.Leaving.Chord) {
			break
		}
		ticks += moments[n].Ticks
	}
	return ticks
}

// Chords lists the distinct chords in the order they first sound. A chord that is judged in two ways,
// since it stands in two keys or leads to two places, is listed once for each.
func (c Chart) Chords() []harmony.Chord {
	chords := []harmony.Chord{}
	for _, m := range c.ChordSpans() {
		if !slices.ContainsFunc(chords, func(known harmony.Chord) bool { return known.Same(m.Chord) && known.SameContext(m.Chord, c.Key) }) {
			chords = append(chords, m.Chord)
		}
	}
	return chords
}

func barField(b int) string { return fmt.Sprintf("bars[%d]", b) }

// ChangeAt is the change at a tick, of those that a line may aim at. Its error says which
// there are.
func (c Chart) ChangeAt(tick int) (Change, error) {
	changes := c.TargetChanges()
	allowed := make([]string, len(changes))
	for n, ch := range changes {
		if ch.Tick == tick {
			return ch, nil
		}
		allowed[n] = fmt.Sprintf("%d (bar %d to %d)", ch.Tick, ch.Leaving.Bar+1, ch.Arriving.Bar+1)
	}
	said := fmt.Sprintf("no chord changes at tick %d", tick)
	if t := c.Timeline(); tick >= 0 && tick < t.Ticks() && tick == t.BarStart(tick) {
		said = fmt.Sprintf("%s goes on at tick %d, bar %d: a change of a chord to itself is none", c.ChordAt(tick).Symbol(), tick, t.BarAt(tick)+1)
	}
	return Change{}, fmt.Errorf("%s; the changes are at %s", said, strings.Join(allowed, ", "))
}

// ChordAt is the chord that is followed at a tick of a time line. Choruses follow one another: a tick
// before the first bar or past the last folds into the chorus.
func ChordAt(spans []ChordSpan, tick int) harmony.Chord {
	last := spans[len(spans)-1]
	tick = floor.Mod(tick, last.Tick+last.Ticks)
	after := sort.Search(len(spans), func(n int) bool { return spans[n].Tick > tick })
	return spans[max(after-1, 0)].Chord
}
