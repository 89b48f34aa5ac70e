package analysis

import "undaris/core/phrase"

// PhraseSpan is a phrase as it is heard: notes from one silence of a beat or more to the next.
type PhraseSpan struct{ From, To int }

// PhraseSpans cuts a line where a beat or more is silent.
func PhraseSpans(p phrase.Phrase) []PhraseSpan {
	all := []PhraseSpan{}
	end := 0
	for n, e := range p.Events {
		if n == 0 || float64(e.Tick-end) >= PhraseGapBeats*float64(p.Meter.BeatTicks()) {
			all = append(all, PhraseSpan{n, n})
		}
		all[len(all)-1].To = n + 1
		end = max(end, e.End())
	}
	return all
}
