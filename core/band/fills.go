package band

// fill ends a bar: it takes as many beats as its grids have. A fill of sixteenths goes
// with a straight feel, one of triplets with the others. All are stock figures.
var (
	sixteenthFills = []groove{
		{snare: "x.xX", kick: "x..."},
		{snare: "..gx xxX.", kick: "x... ...."},
		{snare: "xxxx ....", highTom: ".... xx..", floorTom: ".... ..xX", kick: "x... ...."},
		{snare: "X..x ..X.", kick: "..x. x..x"},
		{snare: "xx.. x...", midTom: "..xx ....", floorTom: ".... .xXX", kick: "x... x..."},
	}
	tripletFills = []groove{
		{snare: "xxX", kick: "x.."},
		{snare: "x.x xxX", kick: "... x.."},
		{snare: "xxx ...", highTom: "... xx.", floorTom: "... ..X", kick: "x.. ..."},
		{snare: "..x X.x", kick: "x.. .x."},
		{snare: "xx. ...", midTom: "..x x..", floorTom: "... .XX", kick: "x.. x.."},
	}
	// sparseSixteenthFill and sparseTripletFill are those of a light chorus.
	sparseSixteenthFill = groove{stick: "..x.", kick: "x..x"}
	sparseTripletFill   = groove{stick: "..x", kick: "x.."}
)

// fillOf is the fill of a bar and how many beats it takes.
func (s score) fillOf(b bar) (groove, int) {
	all, sparse := sixteenthFills, sparseSixteenthFill
	if b.style.triplets {
		all, sparse = tripletFills, sparseTripletFill
	}
	chosen := all[s.random(b, forFill).IntN(len(all))]
	chorusEnds := b.inChorus == s.time.Bars()-1
	if b.intensity == light && !chorusEnds {
		chosen = sparse
	}
	beats := 0
	for _, grid := range chosen {
		beats = gridBeats(grid)
	}
	if beats >= b.meter.Beats() {
		chosen, beats = sparse, 1
	}
	return chosen, beats
}
