package survey

import (
	"fmt"
	"math"
	"strings"
)

// Row is one figure of many choruses, beside what is wanted of it.
type Row struct {
	Name, Wanted string
	Value        float64
	// Unit is written behind the value: "%" or nothing.
	Unit string
}

func (r Row) String() string {
	return fmt.Sprintf("| %s | %s | %.1f%s |", r.Name, r.Wanted, r.Value, r.Unit)
}

// Summary is the figures of many choruses.
type Summary struct {
	choruses, longForms int
	good                map[string]int
	count               map[string]map[string]int
	sum                 map[string]float64
}

// NewSummary is a summary of no chorus yet.
func NewSummary() *Summary {
	return &Summary{good: map[string]int{}, count: map[string]map[string]int{}, sum: map[string]float64{}}
}

// Asked is what a chorus was planned for.
type Asked struct {
	// NotesPerBar and Silence as they are asked for, Silence from 0 to 1.
	NotesPerBar, Silence float64
}

// within is how far density and silence may be from what is asked, as a share of it.
const within = 0.15

// longForm is how many bars a chorus has that is long enough for three phrases to differ.
const longForm = 12

// Add measures a chorus and counts it in.
func (s *Summary) Add(c Chorus, asked Asked) {
	s.choruses++
	places := map[string]bool{}
	for _, tick := range c.PhraseStarts() {
		place := c.PlaceInBar(tick)
		places[place] = true
		s.tally("start", place)
	}
	if c.Chart.Ticks() >= longForm*c.Chart.Meter.BarTicks() {
		s.longForms++
		s.meets("starts", len(places) >= 3)
	}
	thirds, mostThirds := 0, 0
	for _, landing := range c.Landings() {
		s.tally("timing of changes", landing.Timing)
		if landing.Degree > 0 {
			s.tally("degree", fmt.Sprint(landing.Degree))
			s.tally("timing", landing.Timing)
		}
		thirds++
		if landing.Degree != 3 {
			thirds = 0
		}
		mostThirds = max(mostThirds, thirds)
	}
	s.meets("thirds", mostThirds <= 3)
	s.meets("holds", c.HoldsAlike() < 3)
	s.meets("ties", c.OffBeatTies() >= 2 && c.LongNotes() >= 1)
	kinds, bends := map[string]bool{}, 0
	for _, bend := range c.Bends() {
		bends++
		kinds[bend.Kind] = true
		s.tally("bend", bend.Kind)
		s.tally("bend lasts", map[bool]string{true: "a beat", false: "less"}[bend.Beats >= 1])
	}
	s.meets("bends", bends >= 3 && bends <= 6 && len(kinds) >= 2)
	climax := c.Climax()
	s.meets("climax", climax.Times == 1 && climax.Long && climax.Touched && climax.At >= 2.0/3)
	s.meets("density", math.Abs(c.NotesPerBar()-asked.NotesPerBar) <= within*asked.NotesPerBar)
	s.meets("silence", math.Abs(c.Silence()-asked.Silence) <= within*math.Max(asked.Silence, 0.2))
	played, of := c.GuideTones()
	s.meets("guide tones", 4*played >= 3*of)
	moves, betweenTones, back := c.Moves()
	s.sum["moves"] += float64(moves)
	s.sum["between tones"] += float64(betweenTones)
	s.sum["back"] += float64(back)
	s.sum["double stops"] += float64(c.DoubleStops())
	s.sum["repeats"] += float64(c.Repeats())
}

func (s *Summary) tally(what, which string) {
	if s.count[what] == nil {
		s.count[what] = map[string]int{}
	}
	s.count[what][which]++
}

func (s *Summary) meets(what string, good bool) {
	if good {
		s.good[what]++
	}
}

// share is that of which among all that were counted of what, in percent.
func (s *Summary) share(what, which string) float64 {
	all := 0
	for _, n := range s.count[what] {
		all += n
	}
	return 100 * float64(s.count[what][which]) / float64(max(all, 1))
}

func (s *Summary) meeting(what string) float64 {
	return 100 * float64(s.good[what]) / float64(max(s.choruses, 1))
}

// Rows are the figures.
func (s *Summary) Rows() []Row {
	return []Row{
		{"phrases that begin on beat 1", "at most 10 %", s.share("start", "1"), " %"},
		{"choruses of twelve bars or more with three starts or more", "all", 100 * float64(s.good["starts"]) / float64(max(s.longForms, 1)), " %"},
		{"choruses without three holds alike in even bars", "all", s.meeting("holds"), " %"},
		{"landings on the 3", "45 to 60 %", s.share("degree", "3"), " %"},
		{"on the 7", "near 20 %", s.share("degree", "7"), " %"},
		{"on the root", "near 15 %", s.share("degree", "1"), " %"},
		{"on the 5", "at most 10 %", s.share("degree", "5"), " %"},
		{"choruses with at most three thirds running", "all", s.meeting("thirds"), " %"},
		{"landings on the beat", "55 %", s.share("timing", OnTime), " %"},
		{"an eighth early", "30 %", s.share("timing", Early), " %"},
		{"late", "15 %", s.share("timing", Late), " %"},
		{"changes in silence", "", s.share("timing of changes", Silent), " %"},
		{"changes missed", "none", s.share("timing of changes", Missed), " %"},
		{"choruses with two off-beat ties and a long note", "all", s.meeting("ties"), " %"},
		{"choruses with 3 to 6 bends of two kinds", "all", s.meeting("bends"), " %"},
		{"bends of a beat or more", "50 %", s.share("bend lasts", "a beat"), " %"},
		{"choruses whose climax is long, touched, once, in the last third", "all", s.meeting("climax"), " %"},
		{"choruses of the density asked for", "all", s.meeting("density"), " %"},
		{"choruses of the silence asked for", "all", s.meeting("silence"), " %"},
		{"choruses that tell 3 in 4 chords", "all", s.meeting("guide tones"), " %"},
		{"moves from chord tone to chord tone", "", 100 * s.sum["between tones"] / max(s.sum["moves"], 1), " %"},
		{"moves straight back to the note before the last", "", 100 * s.sum["back"] / max(s.sum["moves"], 1), " %"},
		{"double stops a chorus", "", s.sum["double stops"] / float64(max(s.choruses, 1)), ""},
		{"repeated notes a chorus", "", s.sum["repeats"] / float64(max(s.choruses, 1)), ""},
	}
}

// Variety says how unlike each other the choruses of many seeds over one tune are.
type Variety struct {
	seeds   int
	pairs   map[string]int
	rhythms map[string]int
	// bars counts the seeds in which a bar is played.
	bars map[string]int
}

// NewVariety is that of no chorus yet.
func NewVariety() *Variety {
	return &Variety{pairs: map[string]int{}, rhythms: map[string]int{}, bars: map[string]int{}}
}

// leastOfBar is how many notes a bar has to be compared.
const leastOfBar = 3

// Add counts the chorus of another seed in.
func (v *Variety) Add(c Chorus) {
	v.seeds++
	for _, pair := range c.BeatPairs() {
		v.pairs[pair]++
	}
	for _, rhythm := range c.BarRhythms() {
		if rhythm != "" {
			v.rhythms[rhythm]++
		}
	}
	own := map[string]bool{}
	for _, bar := range c.Bars() {
		if strings.Count(bar, " ") >= leastOfBar && !own[bar] {
			own[bar] = true
			v.bars[bar]++
		}
	}
}

// Rows are the figures.
func (v *Variety) Rows() []Row {
	total, bits := 0, 0.0
	for _, n := range v.rhythms {
		total += n
	}
	for _, n := range v.rhythms {
		p := float64(n) / float64(total)
		bits -= p * math.Log2(p)
	}
	most := 0
	for _, n := range v.bars {
		most = max(most, n)
	}
	return []Row{
		{"rhythms of two beats in use", "40 or more", float64(len(v.pairs)), ""},
		{"entropy of the rhythms of bars, in bits", "above 7", bits, ""},
		{"other seeds that share the commonest bar", "at most 8 %", 100 * float64(most-1) / float64(max(v.seeds-1, 1)), " %"},
	}
}
