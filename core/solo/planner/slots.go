package planner

import "undaris/core/solo/chorus"

// phraseSlot is room for one phrase of a chorus: two bars, or what is left of them.
type phraseSlot struct {
	// start and ticks say where it lies in the chorus.
	start, ticks int
	// motifID is alike for slots whose phrases are the same motif.
	motifID string
	// answer says that the phrase ends its sentence, and so ends on R or 3.
	answer bool
	// arrivals are the indices of the landings within it.
	arrivals []int
}

// How long a sentence is: four bars, each a call and an answer of two (common in the
// blues); in a short form two, a phrase each, so that something can come back.
const (
	sentenceBars      = 4
	shortSentenceBars = 2
	shortForm         = 12
	phraseBars        = 2
)

// slots lays the phrases of a chorus out: sentences by the letters of the phrase plan,
// phrases within them.
func (pc *planContext) slots(arrivals []int) []phraseSlot {
	bar := pc.Chart.Meter.BarTicks()
	bars := pc.BarCount()
	unit := sentenceBars
	if bars < shortForm {
		unit = shortSentenceBars
	}
	letters := pc.Form.Letters()
	all := []phraseSlot{}
	for first, sentence := 0, 0; first < bars; first, sentence = first+unit, sentence+1 {
		for part := 0; part < unit && first+part < bars; part += phraseBars {
			length := min(phraseBars, unit-part, bars-first-part)
			s := phraseSlot{start: (first + part) * bar, ticks: length * bar, motifID: string(letters[sentence%len(letters)])}
			last := part+phraseBars >= unit || first+part+length >= bars
			s.answer = last && (unit > phraseBars || sentence%2 == 1)
			if pc.Form != chorus.QuestionAnswer && part > 0 {
				s.motifID += "'"
			}
			if length < phraseBars {
				s.motifID += "-"
			}
			for n, tick := range arrivals {
				if tick >= s.start && tick < s.start+s.ticks {
					s.arrivals = append(s.arrivals, n)
				}
			}
			all = append(all, s)
		}
	}
	return all
}
