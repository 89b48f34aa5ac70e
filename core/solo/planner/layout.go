package planner

import (
	"fmt"
	"math/rand/v2"

	"undaris/core/chart"
	"undaris/core/solo/chorus"
)

// phraseSlot is room for one phrase of a chorus.
type phraseSlot struct {
	// start and ticks say where it lies in the chorus.
	start, ticks int
	// in is what holds where it begins, beat the length of a counted beat there.
	in   chart.Setting
	beat int
	// motifID is alike for slots whose phrases are the same motif.
	motifID string
	// motif is what the motif is called: it leaves out how much time there is for it.
	motif string
	// answer says that the phrase ends its sentence, and so ends on R or 3.
	answer bool
	// ending says that the solo ends with the phrase, and so on the tonic.
	ending bool
	// turnaround says that it is the last bar of the chorus, played into the next.
	turnaround bool
	// arrivals are the indices of the landings within it.
	arrivals []int
}

// How long a sentence is: four bars (common in the blues); in a short form two, so that
// something can come back.
const (
	sentenceBars      = 4
	shortSentenceBars = 2
	shortForm         = 12
)

// division is how a sentence is divided into phrases, in bars; alike says that its first two
// are the same motif: riff, riff, answer.
type division struct {
	bars   []int
	alike  bool
	weight float64
}

// divisions are those of sentences of so many bars, by how often they are played (our choice,
// for what players do: call and answer, riff riff answer, a short call and a long answer or
// the other way round, one arch). Sentences of three bars are those before a turnaround.
var divisions = map[int][]division{
	4: {{[]int{2, 2}, false, 35}, {[]int{1, 1, 2}, true, 25}, {[]int{1, 3}, false, 15}, {[]int{3, 1}, false, 15}, {[]int{4}, false, 10}},
	3: {{[]int{1, 2}, false, 40}, {[]int{2, 1}, false, 25}, {[]int{3}, false, 35}},
	2: {{[]int{2}, false, 70}, {[]int{1, 1}, true, 30}},
	1: {{[]int{1}, false, 1}},
}

// oftenSilent is how often the last bar of a chorus is left to the band.
const oftenSilent = 0.2

// slots lays the phrases of a chorus out: sentences by the letters of the phrase plan, each
// divided as its letter was first, and a turnaround in the last bar of a form.
func (pc *planContext) slots(r *rand.Rand) []phraseSlot {
	bars := pc.BarCount()
	unit := sentenceBars
	if bars < shortForm {
		unit = shortSentenceBars
	}
	letters := pc.Form.Letters()
	chosen := map[string]division{}
	all := []phraseSlot{}
	for first, sentence := 0, 0; first < bars; first, sentence = first+unit, sentence+1 {
		length := min(unit, bars-first)
		last := first+length == bars
		turnaround := last && length == sentenceBars
		if turnaround {
			length--
		}
		letter := string(letters[sentence%len(letters)])
		key := fmt.Sprint(letter, length)
		d, known := chosen[key]
		if !known {
			d = pc.division(length, r)
			chosen[key] = d
		}
		all = append(all, pc.sentence(d, letter, first, sentence, unit)...)
		if turnaround && !pc.Part.Last() && r.Float64() >= oftenSilent {
			all = append(all, pc.slot(bars-1, 1, "turnaround"))
			all[len(all)-1].turnaround = true
		}
	}
	if n := len(all) - 1; pc.Part.Last() && n >= 0 {
		all[n].ending = true
	}
	return all
}

// division draws how a sentence is divided; where questions are answered it has two halves.
func (pc *planContext) division(bars int, r *rand.Rand) division {
	if pc.Form == chorus.QuestionAnswer && bars >= 2 {
		return division{bars: []int{bars / 2, bars - bars/2}, alike: bars%2 == 0}
	}
	return drawn(divisions[bars], r, func(d division) float64 { return d.weight })
}

// sentence lays the phrases of one sentence, which begins at a bar.
func (pc *planContext) sentence(d division, letter string, first, sentence, unit int) []phraseSlot {
	all := []phraseSlot{}
	for n, bars := range d.bars {
		part := n
		if d.alike && n == 1 {
			part = 0
		}
		s := pc.slot(first, bars, fmt.Sprintf("%s%d-%d", letter, part+1, bars))
		s.answer = n == len(d.bars)-1 && (unit > shortSentenceBars || sentence%2 == 1)
		all = append(all, s)
		first += bars
	}
	return all
}

// slot is room for a phrase of so many bars.
func (pc *planContext) slot(bar, bars int, motifID string) phraseSlot {
	start, in := pc.Time.Start(bar), pc.Time.At(bar)
	s := phraseSlot{start: start, ticks: pc.Time.Start(bar+bars) - start, in: in, beat: in.Meter.BeatTicks(), motifID: motifID, motif: motifID}
	if in.Meter != pc.Chart.Meter || s.ticks != bars*pc.Chart.Meter.BarTicks() {
		s.motifID += fmt.Sprintf(" in %s, %d ticks", in.Meter, s.ticks) // a motif comes back where there is as much time for it
	}
	for n, tick := range pc.TargetTicks {
		if tick >= s.start && tick < s.start+s.ticks {
			s.arrivals = append(s.arrivals, n)
		}
	}
	return s
}

// drawn takes one of several by weight; the first where none weighs anything.
func drawn[T any](all []T, r *rand.Rand, weigh func(T) float64) T {
	total := 0.0
	weights := make([]float64, 0, 64)
	for n := range all {
		weights = append(weights, weigh(all[n]))
		total += weights[n]
	}
	at := r.Float64() * total
	for n, weight := range weights {
		if at -= weight; at < 0 {
			return all[n]
		}
	}
	return all[0]
}
