package analysis

import "undaris/core/phrase"

// PhraseSpan is a phrase as it is heard: notes from one breath to the next. A breath is a silence
// of a beat or more, or of half a beat after a held note.
type PhraseSpan struct{ From, To int }

// PhraseSpans cuts a line at its breaths.
func PhraseSpans(p phrase.Phrase) []PhraseSpan {
	all := []PhraseSpan{}
	end := 0
	for n, e := range p.Events {
		gap := beats(e.Tick-end, p.BarLines().MeterAt(e.Tick))
		if n == 0 || gap >= PhraseGapBeats || gap >= RestGapBeats && IsHeld(p.Events[n-1], p.BarLines().MeterAt(p.Events[n-1].Tick)) {
			all = append(all, PhraseSpan{n, n})
		}
		all[len(all)-1].To = n + 1
		end = max(end, e.End())
	}
	return all
}
