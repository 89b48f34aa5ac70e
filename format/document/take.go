package document

import (
	"fmt"
	"math"
	"slices"
	"time"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/core/take/judge"
	"undaris/core/take/transcribe"
)

// Take is one's own playing, recorded over the band, as it is kept.
type Take struct {
	Name  string    `json:"name" doc:"1 to 60 characters"`
	About string    `json:"about,omitempty" doc:"At most 1000 characters"`
	Began time.Time `json:"began" doc:"When it was played"`
	Chart Chart     `json:"chart" doc:"The tune as it was when the take was played, at the tempo it was played at"`
	Hands *Hands    `json:"hands,omitempty" doc:"What it was played on; left out for a guitar in standard tuning"`
	// Position is where the hand stands.
	Position string     `json:"position,omitempty" doc:"A form, or a position's id; left out for the home position"`
	Source   string     `json:"source" enum:"microphone,file,midi,stand-in"`
	From     int        `json:"from,omitempty" minimum:"0" doc:"The first bar that was played over, from 1; left out for 1"`
	Start    float64    `json:"start" doc:"Seconds from the beginning of the sound at which that bar begins, as it was heard by the player"`
	Speed    float64    `json:"speed,omitempty" doc:"The percentage of the chart's tempo that it was played at; left out for 100"`
	Delay    float64    `json:"delay,omitempty" doc:"Milliseconds that the sound was late on its way through the machine, which are taken off"`
	Notes    []TakeNote `json:"notes" maxItems:"20000" doc:"What was heard, in order of time"`
	Plan     *Phrase    `json:"plan,omitempty" doc:"The line that was meant, in ticks of the tune"`
	PlanName string     `json:"planName,omitempty" doc:"What the plan is called"`
	Sound    *TakeSound `json:"sound,omitempty" doc:"Left out where there is none"`
	Remarks  []string   `json:"remarks,omitempty" maxItems:"50"`
}

// TakeSound is the sound of a take, in a file beside the data file.
type TakeSound struct {
	Hash    string  `json:"hash" pattern:"^[0-9a-f]{64}$" doc:"SHA-256 of the file"`
	Rate    int     `json:"rate" doc:"Samples a second"`
	Seconds float64 `json:"seconds"`
	Bytes   int64   `json:"bytes"`
	// Clipped counts samples that were as loud as can be.
	Clipped int `json:"clipped,omitempty"`
}

// TakeNote is one note that was heard.
type TakeNote struct {
	Onset      float64      `json:"onset" doc:"Seconds from the beginning of the sound"`
	Length     float64      `json:"length" doc:"Seconds"`
	Pitch      float64      `json:"pitch" doc:"The pitch it begins with, as a MIDI number with its cents as a share"`
	Attack     string       `json:"attack" enum:"picked,hammered,pulled,slid"`
	SlidFrom   int          `json:"slidFrom,omitempty" doc:"From how many semitones away the finger came"`
	Bend       *TakeBend    `json:"bend,omitempty"`
	Vibrato    *TakeVibrato `json:"vibrato,omitempty"`
	Loudness   float64      `json:"loudness" doc:"The loudest 10 ms, in dB below full scale"`
	Confidence float64      `json:"confidence" doc:"0 to 1: how sure it is that the note was played"`
	Together   bool         `json:"together,omitempty" doc:"It sounds at once with the note before it"`
	Curve      []int        `json:"curve,omitempty" doc:"Cents from the pitch, one every 5 ms"`
}

// TakeBend is a string that is pushed or let go.
type TakeBend struct {
	Cents    float64 `json:"cents" doc:"How far it goes above the fretted pitch"`
	Pre      bool    `json:"pre,omitempty" doc:"Bent before it was struck"`
	Reached  float64 `json:"reached" doc:"Seconds after the onset"`
	Released float64 `json:"released,omitempty" doc:"Seconds after the onset; left out where it does not come back"`
}

// TakeVibrato is a pitch that goes to and fro.
type TakeVibrato struct {
	Hertz float64 `json:"hertz"`
	Cents float64 `json:"cents" doc:"To either side"`
	Delay float64 `json:"delay,omitempty" doc:"Seconds after the onset"`
}

// TakeNotesOf writes what was heard: times to a tenth of a millisecond, pitches to a tenth of a cent. What it writes is
// within the bounds of a take, whatever the ear makes of a sound: a take is never refused for what it sounds like.
func TakeNotesOf(heard []listen.Note) []TakeNote {
	heard = heard[:min(len(heard), MaxTakeNotes)]
	notes := make([]TakeNote, len(heard))
	last := 0.0
	for n, h := range heard {
		h.Onset = min(max(h.Onset, last), MaxTakeSeconds)
		last = h.Onset
		h.Length = min(max(h.Length, 0), MaxTakeSeconds)
		h.Pitch = min(max(h.Pitch, 0), 127)
		h.Curve = h.Curve[:min(len(h.Curve), maxTakeCurve)]
		if h.Bend != nil && !(h.Bend.Cents >= 0 && h.Bend.Cents <= maxTakeBend) {
			h.Bend = nil
		}
		d := TakeNote{
			Onset: round(h.Onset, 4), Length: round(h.Length, 4), Pitch: round(h.Pitch, 3), Attack: string(h.Attack), SlidFrom: h.SlidFrom,
			Loudness: round(h.Loudness, 1), Confidence: round(h.Confidence, 2), Together: h.Together,
		}
		if h.Bend != nil {
			d.Bend = &TakeBend{Cents: round(h.Bend.Cents, 1), Pre: h.Bend.Pre, Reached: round(h.Bend.Reached, 3), Released: round(h.Bend.Released, 3)}
		}
		if h.Vibrato != nil {
			d.Vibrato = &TakeVibrato{Hertz: round(h.Vibrato.Hertz, 2), Cents: round(h.Vibrato.Cents, 1), Delay: round(h.Vibrato.Delay, 3)}
		}
		for _, c := range h.Curve {
			d.Curve = append(d.Curve, int(math.Round(float64(c))))
		}
		notes[n] = d
	}
	return notes
}

func round(value float64, places int) float64 {
	scale := math.Pow10(places)
	return math.Round(value*scale) / scale
}

// Core reads the notes.
func (d Take) Core() []listen.Note {
	notes := make([]listen.Note, len(d.Notes))
	for n, h := range d.Notes {
		one := listen.Note{Onset: h.Onset, Length: h.Length, Pitch: h.Pitch, Attack: listen.Attack(h.Attack), SlidFrom: h.SlidFrom, Loudness: h.Loudness, Confidence: h.Confidence, Together: h.Together}
		if h.Bend != nil {
			one.Bend = &listen.Bend{Cents: h.Bend.Cents, Pre: h.Bend.Pre, Reached: h.Bend.Reached, Released: h.Bend.Released}
		}
		if h.Vibrato != nil {
			one.Vibrato = &listen.Vibrato{Hertz: h.Vibrato.Hertz, Cents: h.Vibrato.Cents, Delay: h.Vibrato.Delay}
		}
		for _, c := range h.Curve {
			one.Curve = append(one.Curve, float32(c))
		}
		notes[n] = one
	}
	return notes
}

// PlayedTempo is the tempo that the take was played at, in counted beats a minute.
func (d Take) PlayedTempo() float64 {
	if d.Speed > 0 {
		return float64(d.Chart.Tempo) * d.Speed / 100
	}
	return float64(d.Chart.Tempo)
}

// Order is what the verdict is asked for. Its error is a *chart.FieldError.
func (d Take) Order() (judge.Order, error) {
	over, _, err := PlayContextOf(d.Chart, d.Hands)
	if err != nil {
		return judge.Order{}, err
	}
	line := over.Chart.Timeline()
	from := max(d.From-1, 0)
	if from >= line.Bars() {
		return judge.Order{}, &chart.FieldError{Field: "from", Detail: fmt.Sprintf("the tune has %d bars; bar %d is none of them", line.Bars(), d.From)}
	}
	position := neck.NearestPosition(over.Instrument, over.Chart.Key.Tonic.Class(), d.Position)
	order := judge.Order{
		Notes: d.Core(), Chart: over.Chart, Instrument: over.Instrument, Hand: position.Window,
		Clock: transcribe.ClockFor(over.Chart, d.Start+d.Delay/1000, line.Start(from)),
	}
	if d.Speed > 0 {
		order.Clock.SecondsPerTick *= 100 / d.Speed
	}
	if d.Plan != nil && len(d.Plan.Events) > 0 {
		plan, err := d.Plan.Core(over.Instrument)
		if err != nil {
			return judge.Order{}, below("plan", err)
		}
		plan = plan.WithChordsOf(over.Chart, 0)
		order.Plan = &plan
	}
	return order, nil
}

// WithBarOneFound is the take with its start where the notes fit the chords best, and says so in its remarks; where
// too little is heard it begins with the sound.
func (d Take) WithBarOneFound() (Take, error) {
	order, err := d.Order()
	if err != nil {
		return d, err
	}
	found, ok := transcribe.FindBarOne(order.Notes, order.Chart, order.Clock.SecondsPerTick)
	remark := "too few notes to find bar 1: it was taken to begin with the sound"
	switch {
	case ok && found.Sure:
		remark = fmt.Sprintf("bar 1 was found at %.2f s", found.Start)
	case ok:
		remark = fmt.Sprintf("bar 1 was taken to begin at %.2f s, but the notes would fit elsewhere too: look whether that is so", found.Start)
	}
	if ok {
		d.Start = round(found.Start-d.Delay/1000, 4)
	}
	return d.WithRemarks(remark), nil
}

// WithRemarks is the take with more remarks after its own. One that was there before is said once, where it comes
// last; of more than maxTakeRemarks the first are left out.
func (d Take) WithRemarks(more ...string) Take {
	all := slices.Clone(d.Remarks)
	for _, remark := range more {
		all = append(slices.DeleteFunc(all, func(before string) bool { return before == remark }), remark)
	}
	d.Remarks = all[max(0, len(all)-maxTakeRemarks):]
	return d
}

// The bounds of a take.
const (
	MaxTakeSeconds = listen.MaxSeconds
	MaxTakeNotes   = 20000
	maxTakeCurve   = 12000 // a minute
	maxTakeAbout   = 1000
	maxTakeRemarks = 50
	maxTakeBend    = 1200
	minTakeSpeed   = 10
	maxTakeSpeed   = 400
)

// Checked is the take as it is kept, or a *chart.FieldError.
func (d Take) Checked() (Take, error) {
	fail := func(field, format string, args ...any) (Take, error) {
		return d, &chart.FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
	}
	d.Name, d.PlanName = seenName(d.Name), seenName(d.PlanName)
	finite := func(values ...float64) bool {
		return !slices.ContainsFunc(values, func(v float64) bool { return math.IsNaN(v) || math.Abs(v) > 1e6 })
	}
	switch {
	case d.Name == "" || len([]rune(d.Name)) > lick.MaxName:
		return fail("name", "a take's name has 1 to %d characters", lick.MaxName)
	case len([]rune(d.About)) > maxTakeAbout:
		return fail("about", "what is said of a take has at most %d characters", maxTakeAbout)
	case len([]rune(d.PlanName)) > lick.MaxName:
		return fail("planName", "the name of a plan has at most %d characters", lick.MaxName)
	case !finite(d.Start) || d.Start < -600 || d.Start > MaxTakeSeconds:
		return fail("start", "the bar begins within the hour that a take may last; %g seconds do not", d.Start)
	case !finite(d.Speed) || d.Speed != 0 && (d.Speed < minTakeSpeed || d.Speed > maxTakeSpeed):
		return fail("speed", "a take is played at %d to %d %% of the tempo, not %g", minTakeSpeed, maxTakeSpeed, d.Speed)
	case !finite(d.Delay) || d.Delay < -1000 || d.Delay > 1000:
		return fail("delay", "the delay of a device is at most a second; %g ms are not", d.Delay)
	case len(d.Notes) > MaxTakeNotes:
		return fail("notes", "a take has at most %d notes, not %d", MaxTakeNotes, len(d.Notes))
	case d.Sound != nil && (d.Sound.Rate < listen.MinRate || d.Sound.Rate > listen.MaxRate):
		return fail("sound.rate", "a take has %d to %d samples a second, not %d", listen.MinRate, listen.MaxRate, d.Sound.Rate)
	}
	last := math.Inf(-1)
	for n, h := range d.Notes {
		at := fmt.Sprintf("notes[%d]", n)
		switch {
		case !finite(h.Onset, h.Length, h.Loudness, h.Confidence) || h.Onset < 0 || h.Onset > MaxTakeSeconds || h.Length < 0 || h.Length > MaxTakeSeconds:
			return fail(at, "its time lies outside of the hour that a take may last")
		case !(h.Pitch >= 0 && h.Pitch <= 127):
			return fail(at+".pitch", "a pitch is 0 to 127, not %g", h.Pitch)
		case !slices.Contains(listen.Attacks, listen.Attack(h.Attack)):
			return fail(at+".attack", "%q is no way a note begins; picked, hammered, pulled and slid are", h.Attack)
		case h.Onset < last:
			return fail(at+".onset", "notes stand in order of time; this one begins before the one before it")
		case len(h.Curve) > maxTakeCurve:
			return fail(at+".curve", "the curve of a note has at most %d values", maxTakeCurve)
		case h.Bend != nil && (!finite(h.Bend.Cents, h.Bend.Reached, h.Bend.Released) || h.Bend.Cents < 0 || h.Bend.Cents > maxTakeBend):
			return fail(at+".bend", "a bend goes 0 to %d cents, not %g", maxTakeBend, h.Bend.Cents)
		case h.Vibrato != nil && !finite(h.Vibrato.Hertz, h.Vibrato.Cents, h.Vibrato.Delay):
			return fail(at+".vibrato", "its figures are no numbers")
		}
		last = h.Onset
	}
	_, err := d.Order()
	return d, err
}
