package formattest

import (
	"fmt"
	"strings"

	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Lick draws a lick that can be kept: any rhythm, double stops, notes that ring over
// others, every technique where it can be played.
func Lick(t *rapid.T) lick.Lick {
	l := drawLick(t)
	tick := -rapid.IntRange(0, 2*l.Phrase.Meter.BarTicks()).Draw(t, "pickup")
	for range rapid.IntRange(1, 14).Draw(t, "moments") {
		strings := rapid.Permutation([]int{1, 2, 3, 4, 5, 6}).Draw(t, "strings")[:rapid.SampledFrom([]int{1, 1, 1, 2}).Draw(t, "at once")]
		for _, s := range strings {
			l.Phrase.Events = append(l.Phrase.Events, event(t, tick, rapid.IntRange(1, 2000).Draw(t, "ticks"), s))
		}
		tick += rapid.SampledFrom([]int{60, 80, 120, 160, 240, 480, 481, 720}).Draw(t, "step")
	}
	for n := len(l.Phrase.Events) - 2; n > 0; n-- {
		before, e, next := l.Phrase.Events[n-1], &l.Phrase.Events[n], l.Phrase.Events[n+1]
		if before.Tick < e.Tick && e.Tick < next.Tick && before.Tick < next.Tick-phrase.GraceTicks && rapid.IntRange(0, 2).Draw(t, "grace") == 0 {
			e.Tick, e.Ticks, e.Grace = next.Tick-phrase.GraceTicks, phrase.GraceTicks, true
		}
	}
	return playable(t, l)
}

// Line draws a lick of one voice in sixteenths and triplets, without rests: what a text
// or a player piano can say.
func Line(t *rapid.T) lick.Lick {
	l := drawLick(t)
	tick := 0
	for range rapid.IntRange(1, 6).Draw(t, "beats") {
		parts := rapid.SampledFrom([]int{1, 2, 3, 4, 6}).Draw(t, "parts")
		if l.Phrase.Meter.Compound() {
			parts = rapid.SampledFrom([]int{1, 3, 6}).Draw(t, "parts")
		}
		step := l.Phrase.Meter.BeatTicks() / parts
		for range parts {
			l.Phrase.Events = append(l.Phrase.Events, event(t, tick, step, rapid.IntRange(1, 6).Draw(t, "string")))
			tick += step
		}
	}
	return playable(t, l)
}

func drawLick(t *rapid.T) lick.Lick {
	l := lick.Lick{
		Name: text(t, "name", 40), About: text(t, "about", 60), Phrase: phrase.Phrase{Meter: rapid.SampledFrom(chart.Meters).Draw(t, "meter")},
		Tonic: pitch.Note{Letter: pitch.Letter(rapid.IntRange(0, 6).Draw(t, "tonic")), Accidental: rapid.IntRange(-1, 1).Draw(t, "sign")},
	}
	for range rapid.IntRange(0, 3).Draw(t, "tags") {
		l.Tags = append(l.Tags, rapid.StringMatching(`[a-z]{1,8}( [a-z]{1,8})?`).Draw(t, "tag"))
	}
	for n, tick := 0, 0; n < rapid.IntRange(0, 3).Draw(t, "chords"); n++ {
		from := phrase.PhraseChord{Tick: tick, Chord: chord(t)}
		if rapid.IntRange(0, 3).Draw(t, "imagined?") == 0 {
			written := chord(t)
			from.Written = &written
		}
		l.Phrase.Chords = append(l.Phrase.Chords, from)
		tick += l.Phrase.Meter.BeatTicks() * rapid.IntRange(1, 5).Draw(t, "beats")
	}
	return l
}

func event(t *rapid.T, tick, ticks, s int) phrase.Event {
	e := phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: rapid.IntRange(0, 22).Draw(t, "fret")}}}
	if rapid.Bool().Draw(t, "plain?") {
		return e
	}
	e.Finger = rapid.IntRange(0, 4).Draw(t, "finger")
	flag := func(name string) bool { return rapid.IntRange(0, 3).Draw(t, name) == 0 }
	e.HammerOn, e.PullOff, e.Tied = flag("hammer-on"), flag("pull-off"), flag("tied")
	e.Vibrato, e.Mute, e.Accent, e.Staccato = flag("vibrato"), flag("mute"), flag("accent"), flag("staccato")
	e.Rake, e.Ghost = flag("rake") && s < 6, flag("ghost") && !e.Accent
	if flag("trill") && !e.Mute && e.Fret <= 22-phrase.MaxTrill {
		e.Trill = rapid.IntRange(1, phrase.MaxTrill).Draw(t, "trill")
	}
	if e.Trill == 0 && flag("bend") {
		e.Bend, e.PreBend, e.Release = rapid.IntRange(1, phrase.MaxBend).Draw(t, "bend"), flag("pre-bend"), flag("release")
	}
	if flag("slide") {
		e.SlideFrom = rapid.IntRange(1, 22).Draw(t, "from")
	}
	e.SlideOut = rapid.IntRange(-1, 1).Draw(t, "out")
	return e
}

// playable takes away from a drawn lick what no hand could do.
func playable(t *rapid.T, l lick.Lick) lick.Lick {
	i := l.WrittenFor()
	for n := range l.Phrase.Events {
		e := &l.Phrase.Events[n]
		for m := range n {
			if before := &l.Phrase.Events[m]; before.String == e.String && before.End() > e.Tick {
				before.Ticks = e.Tick - before.Tick
			}
		}
		for _, simpler := range []func(){
			func() { e.HammerOn = false }, func() { e.PullOff = false }, func() { e.Tied = false }, func() { e.SlideFrom = 0 },
			func() { e.SlideOut = 0 }, func() { e.Bend, e.PreBend, e.Release = 0, false, false }, func() { e.Vibrato = false },
		} {
			p := l.Phrase
			p.Events = append([]phrase.Event(nil), p.Events[:n+1]...)
			p.Events[n].Grace = false // it leads to a note that is not there yet
			if p.CheckSoFar(i) != nil {
				simpler()
			}
		}
	}
	if err := l.Check(); err != nil {
		t.Fatal(err)
	}
	return l
}

// Shown writes a lick's notes as tests read them: "tick+ticks string:fret technique".
func Shown(l lick.Lick) string {
	notes := []string{}
	for _, e := range l.Phrase.Events {
		note := fmt.Sprintf("%d+%d %d:%d", e.Tick, e.Ticks, e.String, e.Fret)
		if names := e.Names(); len(names) > 0 {
			note += " " + strings.Join(names, " ")
		}
		notes = append(notes, note)
	}
	return strings.Join(notes, ", ")
}
