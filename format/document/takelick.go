package document

import (
	"fmt"
	"strings"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/phrase"
	"undaris/core/take/judge"
)

// Lick is some of the notes of a take as a lick, from one event of its writing to another, both included, with the
// chords that it was played over; what techniques were lost at its ends is named. Its error is a *chart.FieldError.
func (d Take) Lick(from, to int) (Lick, []string, error) {
	order, err := d.Order()
	if err != nil {
		return Lick{}, nil, err
	}
	written := judge.Judge(order).Written.Phrase
	if from < 0 || to < from || to >= len(written.Events) {
		return Lick{}, nil, &chart.FieldError{Field: "from", Detail: fmt.Sprintf("the take has %d notes; %d to %d are none of them", len(written.Events), from+1, to+1)}
	}
	line := order.Chart.Timeline()
	start := line.Start(line.BarAt(written.Events[from].Tick))
	part := phrase.Phrase{Meter: line.MeterAt(line.BarAt(start))}
	for _, e := range written.Events[from : to+1] {
		e.Tick -= start
		part.Events = append(part.Events, e)
	}
	part, lost := part.WithChordsOf(order.Chart, start).Playable()
	name := strings.TrimSpace(fmt.Sprintf("%.40s, bar %d", d.Name, line.BarAt(start)+1))
	l := lick.Lick{Name: name, Tonic: line.KeyAt(line.BarAt(start)).Tonic, Tags: []string{"take"}, Phrase: part}
	if order.Instrument.Tuning() != (lick.Lick{}).WrittenFor().Tuning() {
		l.Instrument = &order.Instrument
	}
	return LickOf(l), lost, l.Check()
}
