package band

import "undaris/core/chart"

var (
	simple = []chart.Meter{chart.FourFour, chart.ThreeFour, chart.TwoFour, chart.FiveFour, chart.SixFour}
	four   = []chart.Meter{chart.FourFour}
	twelve = []chart.Meter{chart.TwelveEight, chart.SixEight, chart.NineEight}
)

// Styles lists every style. The grooves and figures are stock ones of their styles, as any
// drum or bass method has them; which of them are played, and how often, is our choice by
// ear. docs/band.md prints two choruses of each.
var Styles = []Style{
	{
		Name: Shuffle, Meters: simple, triplets: true, late: 3,
		grooves: grooves{
			light: {
				{closedHat: "xx xx xx xx", stick: ". x . x", kick: "x . x ."},
				{closedHat: "xx xx xx xx", stick: ". x . x", kick: "x . ..x ."},
			},
			plain: {
				{closedHat: "Xx Xx Xx Xx", snare: "..g X ..g X", kick: "x . x ."},
				{closedHat: "Xx Xx Xx Xx", snare: "..g X ..g X", kick: "x ..x x ."},
				{closedHat: "Xx Xx Xx X.", openHat: ". . . .x", snare: "... X ..g X", kick: "x . x ..x"},
			},
			full: {
				{ride: "Xx Xx Xx Xx", snare: "..g X..g ..g X..", kick: "x x x x", pedalHat: ". x . x"},
				{ride: "Xx Xx Xx Xx", snare: "..g X.g ..g X.g", kick: "x ..x x x", pedalHat: ". x . x"},
			},
		},
		waltz: grooves{
			light: {{closedHat: "xx xx xx", stick: ". . x", kick: "x . ."}},
			plain: {{closedHat: "Xx Xx Xx", snare: "..g .. X", kick: "x . ."}, {closedHat: "Xx Xx Xx", snare: "... ..g X", kick: "x ..x ."}},
			full:  {{ride: "Xx Xx Xx", snare: "..g ..g X", kick: "x . .", pedalHat: ". x x"}},
		},
		bass: bassFigures{
			light:     {"R ^3 ^5 v3", "R R ^5 5"},
			plain:     {"R ^5 ^6 v5", "R ^3 ^5 v3", "R,R ^3,3 ^5,5 v3,3"},
			full:      {"R,R ^5,5 ^6,^7 v6,v5", "R,R ^3,3 ^5,^6 v5,v3", "R,R ^5,5 ^6,6 v5,5"},
			goesUp:    {"R ^5 ^6 ^7", "R ^3 ^5 ^6", "R,R ^3,3 ^5,5 ^6,6"},
			comesDown: {"^R v7 v6 v5", "^R v6 v5 v3", "^7,7 v6,6 v5,5 v3,3"},
		},
		comping: []compFigure{
			{grid: "X- -- -- --", kind: padKind}, {grid: ".x .. .x ..", kind: stabKind},
			{grid: "xx xx xx xx", kind: boogieKind, degrees: "5 6 5 6"}, {grid: "X- .x -. ..", kind: stabKind},
			{grid: ".x .x .x .x", kind: stabKind}, {grid: "xx xx xx xx", kind: boogieKind, degrees: "5 6 7 6"},
		},
	},
	{
		Name: SlowBlues, Meters: twelve, triplets: true, late: 4,
		grooves: grooves{
			light: {{closedHat: "xxx xxx xxx xxx", stick: ". x . x", kick: "x . x ."}},
			plain: {
				{closedHat: "Xxx Xxx Xxx Xxx", snare: "... X.. ..g X..", kick: "x.. ... x.. ..."},
				{closedHat: "Xxx Xxx Xxx Xxx", snare: "... X.. ..g X..", kick: "x.. ..x x.. ..."},
				{closedHat: "Xxx Xxx Xxx Xx.", openHat: "... ... ... ..x", snare: "..g X.. ..g X..", kick: "x.. ... x.x ..."},
			},
			full: {
				{ride: "Xxx Xxx Xxx Xxx", snare: "..g X.. ..g X.g", kick: "x.. ..x x.. ..x", pedalHat: ". x . x"},
				{ride: "Xxx Xxx Xxx Xxx", snare: "..g X.g ..g X..", kick: "x.. ..x x.x ...", pedalHat: ". x . x"},
			},
		},
		bass: bassFigures{
			light:     {"R - ^5 -,-,L", "R - R -,-,L"},
			plain:     {"R,-,R ^5,-,- v3,-,- ^5,-,L", "R,-,- ^5,-,5 ^6,-,- v5,-,L", "R - ^5,-,- -,v3,L"},
			full:      {"R,-,R ^3,-,3 ^5,-,5 ^6,v5,L", "R,-,R ^5,-,5 ^6,-,6 v5,v3,L"},
			goesUp:    {"R,-,- ^3,-,- ^5,-,- ^6,-,6", "R,-,R ^5,-,5 ^6,-,6 ^7,-,7"},
			comesDown: {"^R,-,- v7,-,- v6,-,- v5,-,L", "^R,-,R v6,-,6 v5,-,5 v3,-,L"},
		},
		comping: []compFigure{
			{grid: "X-- --- --- ---", kind: padKind}, {grid: "... x-. ... x-.", kind: stabKind},
			{grid: "X-- --x --- --x", kind: padKind}, {grid: "xxx xxx xxx xxx", kind: softKind},
			{grid: "x.. ..x ... ..x", kind: stabKind},
		},
	},
	{
		Name: StraightRock, Meters: simple, late: 1,
		grooves: grooves{
			light: {{closedHat: "xx xx xx xx", stick: ". x . x", kick: "x . x ."}, {closedHat: "xx xx xx xx", stick: ". x . x", kick: "x. .. xx .."}},
			plain: {
				{closedHat: "Xx Xx Xx Xx", snare: ".... X... .g.. X...", kick: "x. .. xx .."},
				{closedHat: "Xx Xx Xx Xx", snare: ".... X... .g.. X..g", kick: "x. .x .x .."},
				{closedHat: "Xx Xx Xx X.", openHat: ".. .. .. .x", snare: ".... X... ...g X...", kick: "x. .x x. .."},
			},
			full: {
				{ride: "X X X X", closedHat: ".x .x .x .x", snare: ".... X..g .g.. X...", kick: "x. .x xx .."},
				{openHat: "X X X X", snare: ".... X... .g.g X...", kick: "xx .. xx .x"},
			},
		},
		waltz: grooves{
			light: {{closedHat: "xx xx xx", stick: ". . x", kick: "x . ."}},
			plain: {{closedHat: "Xx Xx Xx", snare: ".... ...g X...", kick: "x. .x .."}, {closedHat: "Xx Xx Xx", snare: ".... .g.. X...", kick: "x . ."}},
			full:  {{ride: "X X X", snare: ".... ..g. X...", kick: "xx .. .."}},
		},
		bass: bassFigures{
			light: {"R - R -,5", "R,- -,- R,R R,-"},
			plain: {"R,R R,R R,R R,R", "R,R R,R R,R 5,7", "R,R R,R 5,5 7,5"},
			full:  {"R,R R,R R,R ^5,^7", "R,R ^R,vR R,R 5,7", "R,R R,5 R,R 7,L"},
		},
		comping: []compFigure{
			{grid: "X- -- -- --", kind: padKind}, {grid: "X- -- .x -.", kind: stabKind}, {grid: ". x . x", kind: stabKind},
			{grid: "xx xx xx xx", kind: boogieKind, degrees: "5 6 5 6"}, {grid: "Xx xx Xx xx", kind: boogieKind, degrees: "5 5 6 6"},
		},
	},
	{
		Name: Swing, Meters: simple, triplets: true, walks: true, keepsFigure: true,
		grooves: grooves{
			light: {{ride: "x xx x xx", pedalHat: ". x . x"}},
			plain: {
				{ride: "X xx X xx", pedalHat: ". x . x", kick: "g g g g", snare: "... ... ... ..g"},
				{ride: "X xx X xx", pedalHat: ". x . x", kick: "g g g g", snare: "... ..x ... ..."},
				{ride: "X xx X xx", pedalHat: ". x . x", kick: "g g g ..x", snare: "... ... ..g ..."},
			},
			full: {
				{ride: "X xx X xx", pedalHat: ". x . x", kick: "g g g g", snare: "... ..x ... x.."},
				{ride: "X xx Xx xx", pedalHat: ". x . x", kick: "g g ..x g", snare: "..g ... ..x ..."},
			},
		},
		waltz: grooves{
			light: {{ride: "x xx x", pedalHat: ". x ."}},
			plain: {{ride: "X xx xx", pedalHat: ". x x", kick: "x . ."}, {ride: "X xx x", pedalHat: ". x .", kick: "x . .", snare: "... ... ..g"}},
			full:  {{ride: "X xx xx", pedalHat: ". x x", kick: "x . .", snare: "... ..x ..."}},
		},
		bass: bassFigures{
			light:     {"R - ^5 L", "R ^3 ^5 L"},
			plain:     {"R ^3 ^5 L", "R ^2 ^3 L", "R v7 v5 L", "R ^5 v3 L"},
			full:      {"R ^2 ^3 L", "R ^3,v2 ^3 L", "R ^5 ^7 L", "R v6 v5 L"},
			goesUp:    {"R ^2 ^3 ^5", "R ^3 ^5 ^6"},
			comesDown: {"^R v7 v5 L", "^6 v5 v3 L", "^7 v6 v5 L"},
		},
		comping: []compFigure{
			{grid: "X- -- -- --", kind: padKind}, {grid: "x- .x .. ..", kind: stabKind}, {grid: ".. .x .. .x", kind: stabKind},
			{grid: "x x x x", kind: softKind}, {grid: ".x .. .x -.", kind: stabKind}, {grid: ".. x. .x ..", kind: stabKind},
		},
	},
	{
		Name: MinorBallad, Meters: append(append([]chart.Meter{}, simple...), twelve...), late: 5,
		grooves: grooves{
			light: {{closedHat: "xx xx xx xx", stick: ". x . x", kick: "x . . ."}},
			plain: {
				{closedHat: "Xx xx Xx xx", stick: ". x . x", kick: "x. .x x. .."},
				{closedHat: "Xgxg xgxg Xgxg xgxg", stick: ". x . x", kick: "x. .. .x .."},
			},
			full: {
				{ride: "Xx xx Xx xx", snare: ".... X... ...g X...", kick: "x. .x x. ..", pedalHat: ". x . x"},
				{ride: "Xx xx Xx xx", snare: ".... X..g .g.. X...", kick: "x. .. xx ..", pedalHat: ". x . x"},
			},
		},
		waltz: grooves{
			light: {{closedHat: "xx xx xx", stick: ". . x", kick: "x . ."}},
			plain: {{closedHat: "Xx xx xx", stick: ". . x", kick: "x . ."}, {closedHat: "Xx xx xx", stick: ". . x", kick: "x. .x .."}},
			full:  {{ride: "Xx xx xx", snare: ".... ...g X...", kick: "x. .x ..", pedalHat: ". x x"}},
		},
		bass: bassFigures{
			light: {"R - - -", "R - ^5 -"},
			plain: {"R - ^5 -,L", "R - -,^5 -,L", "R - v5 ^R,L"},
			full:  {"R,- -,R ^5,- v3,L", "R - ^5,^R v5,L"},
		},
		comping: []compFigure{
			{grid: "X- -- -- --", kind: padKind}, {grid: "X- -- x- --", kind: padKind}, {grid: "X- -- -x --", kind: padKind},
			{grid: ".x .x .x .x", kind: softKind},
		},
	},
	{
		Name: Rumba, Meters: four,
		grooves: grooves{
			light: {{closedHat: "xx xx xx xx", stick: "x. .x .. x.", kick: "x . . ."}},
			plain: {
				{closedHat: "xX xX xX xX", stick: "x. .x .. x.", kick: "x. .x .. x."},
				{closedHat: "xX xX xX xX", stick: ".. x. x. ..", kick: "x. .x .. x.", floorTom: ".. .. .. .x"},
			},
			full: {
				{closedHat: "xX xX xX xX", snare: "x..g ..x. g... x..g", kick: "x. .x .. x.", floorTom: ".. .x .. x."},
				{ride: "xX xX xX xX", snare: "x..g ..x. ..g. x...", kick: "x. .x .. x.", floorTom: ".. .. .. xx"},
			},
		},
		bass: bassFigures{
			light: {"R,- -,^3 -,- ^5,-", "R,- -,^5 -,- 5,-"},
			plain: {"R,- -,^3 -,- ^5,-", "R,- -,^5 -,- N,-", "R,- -,^3 -,^5 v3,L"},
			full:  {"R,- -,^3 -,^5 ^6,L", "R,- -,^5 -,^R v5,L"},
		},
		comping: []compFigure{
			{grid: "X- -- -- --", kind: padKind}, {grid: ".x .x .x .x", kind: stabKind}, {grid: "x. .x .. x.", kind: stabKind},
			{grid: ".x x. .x .x", kind: stabKind},
		},
	},
	{
		Name: Funk, Meters: four, keepsFigure: true,
		grooves: grooves{
			light: {{closedHat: "xgxg xgxg xgxg xgxg", stick: ". x . x", kick: "x... .... ..x. ...."}},
			plain: {
				{closedHat: "Xgxg Xgxg Xgxg Xgxg", snare: ".... X..g .g.. X...", kick: "x..x .... ..x. ...."},
				{closedHat: "Xgxg Xgxg Xgxg Xg..", openHat: ".... .... .... ..x.", snare: "...g X..g .g.. X..g", kick: "x.x. .... ..x. .x.."},
			},
			full: {
				{closedHat: "Xxxx Xxxx Xxxx Xxxx", snare: ".g.g X..g .g.g X..g", kick: "x..x ..x. ..xx ...."},
				{closedHat: "Xxxx Xxxx Xxxx Xx..", openHat: ".... .... .... ..x.", snare: "...g X.g. .g.. X.gg", kick: "x.x. .... x.x. .x.."},
			},
		},
		bass: bassFigures{
			light: {"R,.,.,^R .,.,.,. vR,.,.,. .,.,v7,.", "R,-,.,. .,.,^R,. vR,.,.,. .,.,5,."},
			plain: {"R,-,.,^R .,.,vR,. R,.,.,^R .,.,v7,L", "R,.,R,. .,.,^R,. vR,.,.,^R .,v7,v5,L"},
			full:  {"R,R,.,^R .,v7,^R,. vR,.,R,^R .,v7,v5,L", "R,.,^R,. vR,R,.,^R .,.,v7,^R .,v7,v5,L"},
		},
		comping: []compFigure{
			{grid: "X- -- -- --", kind: padKind}, {grid: ".... x..x .... x.x.", kind: stabKind},
			{grid: "x... ..x. .x.. ....", kind: stabKind}, {grid: "..x. ..x. ..x. ..x.", kind: stabKind},
		},
	},
	{
		Name: TwoBeat, Meters: simple,
		grooves: grooves{
			light: {{closedHat: "x x x x", stick: ". x . x", kick: "x . x ."}},
			plain: {
				{snare: "gg Xg gg Xg", kick: "x . x .", pedalHat: ". x . x"},
				{snare: "gg Xg gX Xg", kick: "x . x .", pedalHat: ". x . x"},
			},
			full: {{snare: "gggg Xggg gggg Xggg", kick: "x . x .", pedalHat: ". x . x"}, {snare: "gggg Xggg ggXg Xggg", kick: "x . x x", pedalHat: ". x . x"}},
		},
		waltz: grooves{
			light: {{closedHat: "x x x", stick: ". x x", kick: "x . ."}},
			plain: {{snare: "g. Xg Xg", kick: "x . .", pedalHat: ". x x"}},
			full:  {{snare: "gg Xg Xg", kick: "x . .", pedalHat: ". x x", ride: "x . ."}},
		},
		bass: bassFigures{
			light: {"R - 5 -"},
			plain: {"R - 5 -", "R - v5 L"},
			full:  {"R - 5 L", "R - ^3 ^5", "R ^3 ^5 L"},
		},
		comping: []compFigure{
			{grid: "X- -- -- --", kind: padKind}, {grid: ". x . x", kind: stabKind}, {grid: ".x .x .x .x", kind: stabKind},
			{grid: ".. x. .x x.", kind: stabKind},
		},
	},
}
