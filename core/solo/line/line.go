package line

import (
	"fmt"
	"sort"
	"strings"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Request is what a line is made from.
type Request struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	Position   neck.Position
	Swaps      []neck.Swap
	// Change is the change of the chart that the line leads over.
	Change chart.Change
	Lick   lick.Lick
	// Target is the tone of the arriving chord to land on; nil leaves the
	// choice to the strategy.
	Target   *neck.Place
	Strategy change.TargetStrategy
	Approach change.ApproachKind
	// Subdivision is that of the re-written tail and its approach.
	Subdivision chart.Subdivision
}

// Role is what a note of a line is there for.
type Role string

// The roles of a line's notes, in the order they come.
const (
	RoleLick     Role = "lick"
	RoleTail     Role = "tail"
	RoleApproach Role = "approach"
	RoleTarget   Role = "target"
)

// Line is a lick led over a change. Its phrase's tick 0 is tick Start of the
// chart; ticks run on into the next chorus.
type Line struct {
	Phrase phrase.Phrase
	// Start is the chart's tick at which the phrase's bar 1 stands: a downbeat,
	// where the change falls on one.
	Start int
	// Roles and Why say for each event what it is there for.
	Roles  []Role
	Why    []string
	Labels []phrase.Label
	Target neck.Placed
	// Arrival is the chart's tick of the target, and RunStart that of the first
	// note of the run into it: tail, approach and target.
	Arrival, RunStart int
	// Kept is how many of the lick's notes stand as written, of Of.
	Kept, Of int
	// Notes says in sentences what was done.
	Notes []string
}

// TargetError says why a target cannot be had, and the nearest that can.
type TargetError struct {
	Detail  string
	Nearest []neck.Placed
}

func (e *TargetError) Error() string {
	if len(e.Nearest) == 0 {
		return e.Detail
	}
	names := make([]string, len(e.Nearest))
	for n, tone := range e.Nearest {
		names[n] = fmt.Sprintf("%s, the %s (string %d fret %d)", tone.Note, tone.Degree, tone.String, tone.Fret)
	}
	return e.Detail + "; the nearest that can: " + strings.Join(names, "; ")
}

// leaving is what holds in the bar of the leaving chord.
func (o Request) leaving() chart.Setting {
	t := o.Chart.Timeline()
	return t.At(t.BarAt(o.Change.Tick - 1))
}

// Write makes the line: the lick laid into the key and position so that its
// last bar is the one before the change, its tail re-written so that approach
// and target arrive on time. A target that cannot be reached is a *TargetError.
func (o Request) Write() (Line, error) {
	setting, err := o.Lick.PlaceIn(o.Instrument, o.leaving().Key.Tonic.Class(), o.Position.Window)
	if err != nil {
		return Line{}, err
	}
	setting.Phrase, err = setting.Phrase.InMeter(o.leaving().Meter)
	if err != nil {
		return Line{}, err
	}
	arriving := neck.PlaceChord(o.Instrument, o.Position.Window, o.Change.Arriving.Chord, o.Swaps)
	if o.Target == nil {
		return o.toBestTarget(setting, arriving)
	}
	target, ok := arriving.Tone(*o.Target)
	if !ok {
		return Line{}, &TargetError{
			Detail: fmt.Sprintf("string %d fret %d is not a placed tone of %s on frets %d to %d",
				o.Target.String, o.Target.Fret, o.Change.Arriving.Chord.Symbol(), o.Position.Low, o.Position.High),
			Nearest: o.nearest(setting, arriving, *o.Target),
		}
	}
	line, err := o.toTarget(setting, target)
	if err != nil {
		failed := &TargetError{Detail: err.Error(), Nearest: o.nearest(setting, arriving, *o.Target)}
		if len(failed.Nearest) == 0 {
			failed.Detail += o.finerSubdivision(setting, []neck.Placed{target})
		}
		return Line{}, failed
	}
	return line, nil
}

// toBestTarget aims at the tone the strategy values most of those that can be reached;
// of equals, at the one that keeps most of the lick, then the one nearest it.
func (o Request) toBestTarget(s lick.Placement, arriving neck.Shape) (Line, error) {
	last := s.Phrase.Events[len(s.Phrase.Events)-1].Sounding(o.Instrument)
	best, found := Line{}, false
	rank := func(l Line) [3]float64 {
		apart := float64(max(l.Target.Pitch-last, last-l.Target.Pitch))
		return [3]float64{o.Strategy.Weight(l.Target.Degree), float64(l.Kept), -apart}
	}
	for _, target := range arriving.Tones {
		line, err := o.toTarget(s, target)
		if err != nil {
			continue
		}
		if !found || better(rank(line), rank(best)) {
			best, found = line, true
		}
	}
	if !found {
		return Line{}, &TargetError{Detail: fmt.Sprintf("no tone of %s can be reached in time by %s in %ss",
			o.Change.Arriving.Chord.Symbol(), o.Approach.Description, o.Subdivision) + o.finerSubdivision(s, arriving.Tones)}
	}
	return best, nil
}

func better(a, b [3]float64) bool {
	for n := range a {
		if a[n] != b[n] {
			return a[n] > b[n]
		}
	}
	return false
}

// finerSubdivision says in which finer subdivision one of the targets could be reached, if
// in any.
func (o Request) finerSubdivision(s lick.Placement, targets []neck.Placed) string {
	for _, finer := range o.leaving().Meter.Subdivisions() {
		if finer.PerBeat <= o.Subdivision.PerBeat {
			continue
		}
		with := o
		with.Subdivision = finer
		for _, target := range targets {
			if _, err := with.toTarget(s, target); err == nil {
				return fmt.Sprintf("; in %ss it can", finer)
			}
		}
	}
	return ""
}

// nearest lists up to three targets that can be reached, nearest to a place first.
func (o Request) nearest(s lick.Placement, arriving neck.Shape, to neck.Place) []neck.Placed {
	wanted := o.Instrument.Pitch(neck.Place{String: min(max(to.String, 1), len(o.Instrument.Open)), Fret: to.Fret})
	reachable := []neck.Placed{}
	for _, tone := range arriving.Tones {
		if _, err := o.toTarget(s, tone); err == nil {
			reachable = append(reachable, tone)
		}
	}
	distance := func(n int) int {
		return int(max(reachable[n].Pitch-wanted, wanted-reachable[n].Pitch))
	}
	sort.SliceStable(reachable, func(a, b int) bool { return distance(a) < distance(b) })
	return reachable[:min(3, len(reachable))]
}

// toTarget writes the line to one target.
func (o Request) toTarget(s lick.Placement, target neck.Placed) (Line, error) {
	in := o.leaving()
	box, err := in.Key.Box(o.Chart.Box)
	if err != nil {
		return Line{}, err
	}
	led, err := o.Approach.Into(change.Goal{
		Instrument: o.Instrument, Window: o.Position.Window, Key: in.Key, Box: box,
		Leaving: o.Change.Leaving.Chord, Arriving: o.Change.Arriving.Chord, Target: target.Place,
	})
	if err != nil {
		return Line{}, err
	}
	approach := led.Notes
	t, err := o.tail(s.Phrase, approach)
	if err != nil {
		return Line{}, fmt.Errorf("%s, the %s, on string %d fret %d cannot be reached in time: %w",
			target.Note, target.Degree, target.String, target.Fret, err)
	}
	line := Line{
		Phrase:  phrase.Phrase{Meter: in.Meter},
		Start:   o.Change.Tick - t.arrival,
		Target:  target,
		Arrival: o.Change.Tick,
		Kept:    t.kept,
		Of:      len(s.Phrase.Events),
	}
	step := o.Subdivision.Ticks(in.Meter)
	wanted := make([]neck.NoteToPlace, 0, t.kept+len(t.pitches)+len(approach))
	for _, e := range s.Phrase.Events[:t.kept] {
		e.Ticks = min(e.Ticks, t.start-e.Tick)
		line.add(e, RoleLick, fmt.Sprintf("from the lick %q", o.Lick.Name))
		wanted = append(wanted, neck.NoteToPlace{
			Pitch: o.Instrument.Pitch(e.Place), At: &neck.Place{String: e.String, Fret: e.Fret}, Bend: e.Bend,
		})
	}
	for n, p := range t.pitches {
		line.add(phrase.Event{Tick: t.start + n*step, Ticks: step}, RoleTail, "the tail, turned towards the approach")
		wanted = append(wanted, neck.NoteToPlace{Pitch: p})
	}
	goal := fmt.Sprintf("%s, the %s of %s", target.Note, target.Degree, o.Change.Arriving.Chord.Symbol())
	for n, note := range approach[:len(approach)-1] {
		tick := t.start + (len(t.pitches)+n)*step
		line.add(phrase.Event{Tick: tick, Ticks: step}, RoleApproach, fmt.Sprintf("approach: %s into %s", o.Approach.Description, goal))
		wanted = append(wanted, note)
	}
	landing := phrase.Event{Tick: t.arrival, Ticks: change.RingTicks(o.Change.Arriving), Technique: change.ArrivalTechnique(led, target.Place)}
	landing.Vibrato = true
	line.add(landing, RoleTarget, "target: "+goal)
	wanted = append(wanted, approach[len(approach)-1])

	fingering, _, err := neck.FingerPhrase(o.Instrument, o.Position.Window, wanted)
	if err != nil {
		return Line{}, err
	}
	for n, f := range fingering {
		line.Phrase.Events[n].Fingered = f
	}
	if line.Phrase.Events[len(line.Phrase.Events)-1].Fret == 0 {
		line.Phrase.Events[len(line.Phrase.Events)-1].Vibrato = false
	}
	if err := line.Phrase.Check(o.Instrument); err != nil {
		return Line{}, err
	}
	// A lick that would begin before the first bar leads into the next chorus.
	for line.begin() < 0 {
		line.Start += o.Chart.Ticks()
		line.Arrival += o.Chart.Ticks()
	}
	line.RunStart = line.Start + t.start
	line.Phrase = line.Phrase.WithChordsOf(o.Chart, line.Start)
	line.Labels = line.Phrase.Labels(o.Instrument, o.Chart.Key)
	line.describe(o, s, len(t.pitches)+len(approach))
	return line, nil
}

func (l *Line) add(e phrase.Event, role Role, why string) {
	l.Phrase.Events = append(l.Phrase.Events, e)
	l.Roles = append(l.Roles, role)
	l.Why = append(l.Why, why)
}

// describe says what was done, in sentences, and completes each note's reason
// with what the note is over its chord.
func (l *Line) describe(o Request, s lick.Placement, run int) {
	t := o.Chart.Timeline()
	l.Notes = append(l.Notes,
		fmt.Sprintf("%d of the %d notes of %q stand as written.", l.Kept, l.Of, o.Lick.Name),
		fmt.Sprintf("The run into %s has %d notes in %ss: it starts on %s and lands on %s.",
			l.Target.Note, run, o.Subdivision, t.CountedInBar(l.RunStart), l.landingText(o)))
	for _, lost := range s.Lost {
		l.Notes = append(l.Notes, strings.ToUpper(lost[:1])+lost[1:]+".")
	}
	for n := range l.Why {
		l.Why[n] = strings.ToUpper(l.Why[n][:1]) + l.Why[n][1:] + ". " + l.Labels[n].Reason
	}
}

func (l *Line) landingText(o Request) string {
	bar := fmt.Sprintf("bar %d", o.Change.Arriving.Bar+1)
	if l.Arrival >= o.Chart.Ticks() {
		bar += " of the next chorus"
	}
	return fmt.Sprintf("%s of %s", o.Chart.Timeline().Counted(l.Arrival), bar)
}

// begin is the chart's tick of the line's tick 0, or of its pickup.
func (l Line) begin() int { return l.Start + min(l.Phrase.Events[0].Tick, 0) }

// pool is the tones the tail may use: the box and the leaving chord.
func (o Request) pool() (neck.Shape, error) {
	box, err := o.leaving().Key.Box(o.Chart.Box)
	if err != nil {
		return neck.Shape{}, err
	}
	tones := append([]harmony.Tone{}, box.Tones...)
	return neck.PlaceTones(o.Instrument, o.Position.Window, append(tones, o.Change.Leaving.Chord.Tones()...)), nil
}
