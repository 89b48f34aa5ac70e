package planner_test

import (
	"testing"

	"undaris/core/analysis"
	"undaris/core/solo/solotest"
)

func BenchmarkReview(b *testing.B) {
	o := solotest.Request(b, "quick change", "C", "E", 1)
	c := solotest.Planned(b, o).Best[0].Chorus
	b.ReportAllocs()
	for b.Loop() {
		analysis.ReviewLine(o.Instrument, c.Phrase(o.Chart), o.Chart)
	}
}
