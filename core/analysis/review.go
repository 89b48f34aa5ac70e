package analysis

import (
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Review is everything that is said of a line over a chart: figures with the notes they
// come from.
type Review struct {
	Line    phrase.Phrase
	Verdict Verdict
	Implied []ImpliedHarmony
	Style   []Finding
	// First are the findings that a teacher would put first, at most three; none where there
	// is nothing that a listener minds.
	First []Finding
	// Space is the share of the time that is silent, the rest after the last note too.
	Space float64
}

// EnoughStrongBeats says whether enough of the strong beats are chord tones.
func (r Review) EnoughStrongBeats() bool {
	return float64(r.Verdict.Strong.Good) >= GoodStrongShare*float64(r.Verdict.Strong.Of)
}

// EnoughHeard says whether enough of the chords are heard without the band.
func (r Review) EnoughHeard() bool {
	heard := 0
	for _, d := range r.Implied {
		if d.Recognition == Recognized {
			heard++
		}
	}
	return float64(heard) >= GoodHeardShare*float64(len(r.Implied))
}

// EnoughSpace says whether enough of the time is silent.
func (r Review) EnoughSpace() bool { return r.Space >= GoodSilentShare }

// ReviewLine says everything of a line over a chart.
func ReviewLine(i neck.Instrument, p phrase.Phrase, c chart.Chart) Review {
	r := Review{Line: p}
	if len(p.Events) == 0 {
		return r
	}
	r.Verdict = Judge(p, i, c.Key, c.Tempo)
	r.Implied = ImpliedHarmonies(p, i, c.Key, c.Chords())
	r.Style = StyleCheck(i, p, c.Ticks())
	from, to := 0, c.Ticks()
	if first := p.Events[0].Tick; first < 0 {
		from = first
	}
	if lines := p.BarLines(); to < p.End() {
		to = lines.Start(lines.BarsUntil(p.End()))
	}
	r.Space = SilentShare(p, from, to)
	r.First = r.firstFindings(i, c)
	return r
}
