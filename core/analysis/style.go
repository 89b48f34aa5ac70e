package analysis

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Finding is one thing that keeps a chorus from being dull, or does not.
type Finding struct {
	Name string
	Good bool
	Text string
	// Notes are those it comes from, as indices of events.
	Notes []int
}

// What a chorus is looked at for (ours, for what players say of a dull one).
const (
	FindingPhrases   = "phrases"
	FindingStarts    = "starts"
	FindingMotif     = "motif"
	FindingRhythm    = "rhythm"
	FindingDirection = "direction"
	FindingLeaps     = "leaps"
	FindingHolds     = "held notes"
	FindingTouch     = "touch"
	FindingHighNote  = "high note"
)

// FindingNames lists them.
var FindingNames = []string{FindingPhrases, FindingStarts, FindingMotif, FindingRhythm, FindingDirection, FindingLeaps, FindingHolds, FindingTouch, FindingHighNote}

// StyleCheck looks at a line over so many ticks of a chart for what keeps it from being dull:
// each finding with the notes that it comes from.
func StyleCheck(i neck.Instrument, p phrase.Phrase, length int) []Finding {
	if len(p.Events) == 0 {
		return nil
	}
	phrases := PhraseSpans(p)
	sounding := make([]pitch.MIDI, len(p.Events))
	for n, e := range p.Events {
		sounding[n] = e.Sounding(i)
	}
	return []Finding{
		checkPhrases(p, phrases), checkStarts(p, phrases), checkMotif(p, sounding), checkRhythm(p),
		checkDirection(phrases, sounding), checkLeaps(p, phrases, sounding), checkHolds(p, length), checkTouch(p), checkHighNote(p, sounding, length),
	}
}

func finding(name string, notes []int, good, bad string) Finding {
	f := Finding{Name: name, Good: len(notes) == 0, Text: good, Notes: notes}
	if !f.Good {
		f.Text = bad
	}
	return f
}

// checkPhrases asks for phrases of one to three bars with air between.
func checkPhrases(p phrase.Phrase, phrases []PhraseSpan) Finding {
	lines, long := p.BarLines(), []int{}
	for _, b := range phrases {
		if from := p.Events[b.From].Tick; p.Events[b.To-1].End()-from > LongestPhraseBars*lines.MeterAt(from).BarTicks() {
			for n := b.From; n < b.To; n++ {
				long = append(long, n)
			}
		}
	}
	good := fmt.Sprintf("%s with air between", Counted(len(phrases), "phrase"))
	return finding(FindingPhrases, long, good, fmt.Sprintf("it never rests: a phrase goes on for more than %d bars without a beat of silence", LongestPhraseBars))
}

func Counted(n int, what string) string {
	if n == 1 {
		return "one " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// checkStarts asks that phrases do not all begin on beat 1.
func checkStarts(p phrase.Phrase, phrases []PhraseSpan) Finding {
	on := []int{}
	for _, b := range phrases {
		if tick := p.Events[b.From].Tick; tick == p.BarLines().BarStart(tick) {
			on = append(on, b.From)
		}
	}
	f := Finding{Name: FindingStarts, Good: len(on) < len(phrases), Notes: on, Text: fmt.Sprintf("%d of %d phrases begin on beat 1", len(on), len(phrases))}
	if !f.Good {
		f.Text = "every phrase begins on beat 1: begin one before it, or after"
	}
	return f
}

// checkMotif asks that four notes come back in rhythm and direction, any number of bars later,
// with silence around them or not.
func checkMotif(p phrase.Phrase, sounding []pitch.MIDI) Finding {
	known := map[string]int{}
	for n := 0; n+LeastMotifNotes <= len(p.Events); n++ {
		figure := figureAt(p, sounding, n, LeastMotifNotes)
		first, again := known[figure]
		if !again {
			known[figure] = n
			continue
		}
		if first+LeastMotifNotes > n {
			continue
		}
		notes := []int{}
		for k := range LeastMotifNotes {
			notes = append(notes, first+k)
		}
		for k := range LeastMotifNotes {
			notes = append(notes, n+k)
		}
		return Finding{Name: FindingMotif, Good: true, Notes: notes, Text: fmt.Sprintf("the motif of bar %d comes back in bar %d", BarOf(p, p.Events[first].Tick), BarOf(p, p.Events[n].Tick))}
	}
	return Finding{Name: FindingMotif, Text: "nothing comes back: no four notes return in rhythm and direction"}
}

// figureAt writes so many notes from one on as a figure: where in its bar it begins, how far
// apart the notes are, which ways it goes.
func figureAt(p phrase.Phrase, sounding []pitch.MIDI, from, notes int) string {
	start := p.Events[from].Tick
	text := []byte(strconv.Itoa(start - p.BarLines().BarStart(start)))
	for n := from + 1; n < from+notes; n++ {
		text = append(text, ' ')
		text = strconv.AppendInt(text, int64(p.Events[n].Tick-start), 10)
		text = append(text, "-=+"[cmp.Compare(int(sounding[n]), int(sounding[n-1]))+1])
	}
	return string(text)
}

// BarOf is the number of the bar in which a tick of the phrase lies, from 1; what lies before bar 1
// counts to it.
func BarOf(p phrase.Phrase, tick int) int { return max(p.BarLines().BarAt(tick), 0) + 1 }

// checkRhythm asks that no more than eight equal lengths follow each other without a hold, a
// tie or a rest.
func checkRhythm(p phrase.Phrase) Finding {
	run := []int{}
	for n, e := range p.Events {
		if n > 0 && len(run) > 0 {
			before := p.Events[n-1]
			if e.Ticks != before.Ticks || before.End() != e.Tick || IsHeld(e, p.BarLines().MeterAt(e.Tick)) {
				run = nil
			}
		}
		run = append(run, n)
		if len(run) > MaxEqualLengths {
			return finding(FindingRhythm, run, "", fmt.Sprintf("more than %d notes of the same length in a row, from bar %d on: hold one, or leave one out", MaxEqualLengths, BarOf(p, p.Events[run[0]].Tick)))
		}
	}
	return finding(FindingRhythm, nil, "lengths change", "")
}

// checkDirection asks that no more than five steps go in one direction.
func checkDirection(phrases []PhraseSpan, sounding []pitch.MIDI) Finding {
	for _, b := range phrases {
		run := []int{b.From}
		way := 0
		for n := b.From + 1; n < b.To; n++ {
			by := int(sounding[n] - sounding[n-1])
			if cmp.Compare(by, 0) != way || by == 0 || max(by, -by) > BoxStepSemitones {
				run, way = []int{n - 1}, cmp.Compare(by, 0)
			}
			run = append(run, n)
			if len(run) > MaxStepsOneWay+1 && max(by, -by) <= BoxStepSemitones {
				return finding(FindingDirection, run, "", fmt.Sprintf("it runs: more than %d steps in one direction", MaxStepsOneWay))
			}
		}
	}
	return finding(FindingDirection, nil, "it turns before it runs", "")
}

// checkLeaps asks that steps outnumber leaps, and that a leap past a fifth turns back by step.
func checkLeaps(p phrase.Phrase, phrases []PhraseSpan, sounding []pitch.MIDI) Finding {
	steps, wide := 0, []int{}
	all := []int{}
	for _, b := range phrases {
		for n := b.From + 1; n < b.To; n++ {
			by := int(sounding[n] - sounding[n-1])
			switch far := max(by, -by); {
			case far == 0:
			case far <= BoxStepSemitones:
				steps++
			default:
				all = append(all, n)
				if far > WideLeapSemitones && n+1 < b.To {
					back := int(sounding[n+1] - sounding[n])
					if by*back >= 0 || max(back, -back) > BoxStepSemitones {
						wide = append(wide, n)
					}
				}
			}
		}
	}
	f := Finding{Name: FindingLeaps, Good: steps > len(all) && len(wide) == 0, Notes: wide, Text: fmt.Sprintf("%s, %s", Counted(steps, "step"), Counted(len(all), "leap"))}
	switch {
	case steps <= len(all):
		f.Text, f.Notes = fmt.Sprintf("it leaps about: %s, %s", Counted(steps, "step"), Counted(len(all), "leap")), all
	case len(wide) > 0:
		f.Text = fmt.Sprintf("a leap past a fifth in bar %d does not turn back by a step", BarOf(p, p.Events[wide[0]].Tick))
	}
	return f
}

// checkHolds asks for a note of a beat and a half or more, shaken, in every four bars.
func checkHolds(p phrase.Phrase, length int) Finding {
	lines := p.BarLines()
	held := []int{}
	missing := 0
	for bar := 0; bar == 0 || lines.Start(bar+HeldEveryBars) <= length; bar += HeldEveryBars {
		from, span := lines.Start(bar), lines.Start(bar+HeldEveryBars)-lines.Start(bar)
		got := false
		for n, e := range p.Events {
			if e.Tick >= from && e.Tick < from+span && IsHeld(e, p.BarLines().MeterAt(e.Tick)) && (e.Vibrato || e.Bend > 0) {
				held, got = append(held, n), true
			}
		}
		if !got && missing == 0 {
			missing = bar + 1
		}
	}
	f := Finding{Name: FindingHolds, Good: missing == 0, Notes: held, Text: fmt.Sprintf("%s held and shaken", Counted(len(held), "note"))}
	if !f.Good {
		f.Text = fmt.Sprintf("nothing is held from bar %d on: let a note ring for a beat and a half, with vibrato", missing)
	}
	return f
}

// checkTouch asks that a share of the notes is bent, slid, slurred or shaken.
func checkTouch(p phrase.Phrase) Finding {
	kinds, notes := TechniqueKinds(p), []int{}
	for n, e := range p.Events {
		if len(techniqueKindsOf(p, n)) > 0 || e.Vibrato || e.Bend > 0 {
			notes = append(notes, n)
		}
	}
	share := float64(len(notes)) / float64(len(p.Events))
	f := Finding{Name: FindingTouch, Good: share >= LeastTouchShare, Notes: notes, Text: fmt.Sprintf("%.0f %% of the notes are touched: %s", 100*share, strings.Join(kinds, ", "))}
	switch {
	case !f.Good:
		f.Text = "every note is picked alike: slide into one, bend one, hammer one on"
	case len(kinds) == 0:
		f.Text = fmt.Sprintf("%.0f %% of the notes are shaken or curled", 100*share)
	}
	return f
}

// checkHighNote asks for a range of a sixth, and for the highest note once, past the middle.
func checkHighNote(p phrase.Phrase, sounding []pitch.MIDI, length int) Finding {
	high, low := slices.Max(sounding), slices.Min(sounding)
	tops := []int{}
	for n, s := range sounding {
		if s == high {
			tops = append(tops, n)
		}
	}
	f := Finding{Name: FindingHighNote, Notes: tops}
	at := p.Events[tops[0]].Tick
	bar := BarOf(p, at)
	switch {
	case high-low < LeastRangeSemitones:
		f.Text = "it stays within less than a sixth"
	case len(tops) > 1:
		f.Text = fmt.Sprintf("the highest note comes %d times: let it come once", len(tops))
	case 2*at < length:
		f.Text = fmt.Sprintf("the highest note comes in bar %d, before the middle", bar)
	default:
		f.Good, f.Text = true, fmt.Sprintf("the highest note comes once, in bar %d", bar)
	}
	return f
}
