package solo

import (
	"fmt"
	"sort"
	"testing"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

func TestZZStats(t *testing.T) {
	tonics := map[harmony.Mode][]string{
		harmony.DominantMode: {"C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"},
		harmony.MinorMode:    {"C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"},
	}
	for _, blend := range []float64{0.5} {
		bad := map[string]int{}
		of := map[string]int{}
		example := map[string]string{}
		runs := 0
		for _, s := range chart.Schemes {
			for _, tonic := range tonics[s.In] {
				for _, form := range []string{"C", "A", "G", "E", "D"} {
					for seed := range uint64(2) {
						o := orderFor(t, s.Name, tonic, form, seed)
						o.Blend = []float64{blend}
						g, _ := o.lay()
						planned, err := o.Plan()
						if err != nil {
							t.Fatal(s.Name, tonic, form, err)
						}
						runs++
						p := planned.Best[0]
						name := fmt.Sprint(s.Name, " ", tonic, " ", form)
						say := func(what string, isBad bool) {
							of[what]++
							if isBad {
								bad[what]++
								example[what] = name
							}
						}
						for _, a := range g.arrivals {
							say("landing aimed", !g.landed(p.Reviewed, a))
							home := false
							for _, e := range p.Line.Events {
								away := e.Tick - a.tick
								home = home || (max(away, -away) <= eighth && g.chords[a.over].class[e.Sounding(o.Instrument).Class()] == harmony.Home)
							}
							say("landing home", !home)
						}
						labels := p.Line.Labels(o.Instrument, o.Chart.Key)
						for _, n := range p.Verdict.Rests.Notes {
							say("outside rested", labels[n].Class == harmony.Outside)
						}
						say("rests offender", len(p.Verdict.Rests.Offenders) > 0)
						say("passing", len(p.Verdict.Passing) > 0)
						say("strong", float64(p.Verdict.Strong.Good) < 0.7*float64(p.Verdict.Strong.Of))
						say("space", p.Space < 0.15)
						for _, e := range p.Line.Events {
							say("window", e.Fret != 0 && (e.Fret < o.Position.Low || e.Fret > o.Position.High))
							say("box", !g.boxed[e.Sounding(o.Instrument).Class()])
						}
						say("stretch", p.Verdict.Shape.WidestMM > o.SpanMM)
						heard, spans := 0, 0
						for _, d := range p.Dropped {
							if d.To-d.From >= o.Chart.Meter.BarTicks() {
								spans++
								if d.Hearing == phrase.HeardTrue {
									heard++
								}
							}
						}
						say("heard 3/4", 4*heard < 3*spans)
						say("heard 9/10", 10*heard < 9*spans)
						for _, f := range p.Lively {
							say("lively "+f.Name, !f.Good)
						}
						short := false
						for _, b := range breaths(p.Line) {
							l := p.Line.Events[b.to-1].End() - p.Line.Events[b.from].Tick
							short = short || l < o.Chart.Meter.BarTicks()
						}
						say("short phrase", short)
						notes := float64(len(p.Line.Events)) / float64(g.bars())
						say("density<3", notes < 3)
						say("faults>5", p.Faults > 5)
						say("fewer than 3 proposals", len(planned.Best) < 3)
						if err := p.Line.Check(o.Instrument); err != nil {
							t.Error(name, err)
						}
					}
				}
			}
		}
		keys := []string{}
		for k := range of {
			keys = append(keys, k)
		}
		sort.Strings(keys)
		t.Logf("blend %g runs %d", blend, runs)
		for _, k := range keys {
			t.Logf("   %-24s bad %5d of %6d  %s", k, bad[k], of[k], example[k])
		}
	}
	_ = neck.Standard
}
