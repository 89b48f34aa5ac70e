package chart

import (
	"maps"
	"slices"

	"undaris/core/choice"
)

// Jump is the sign at the end of a bar that sends the player back.
type Jump string

// The jumps. D.C. goes back to bar 1, D.S. to the segno; al fine plays from there to the fine, al
// coda to the sign of the coda, and on from the coda (common).
const (
	NoJump   Jump = ""
	DC       Jump = "D.C."
	DS       Jump = "D.S."
	DCAlFine Jump = "D.C. al fine"
	DSAlFine Jump = "D.S. al fine"
	DCAlCoda Jump = "D.C. al coda"
	DSAlCoda Jump = "D.S. al coda"
)

// Jumps lists the jumps.
var Jumps = []Jump{DC, DS, DCAlFine, DSAlFine, DCAlCoda, DSAlCoda}

// ParseJump reads a jump by its name; the empty name is none.
func ParseJump(text string) (Jump, error) {
	if text == "" {
		return NoJump, nil
	}
	j, err := choice.FindText("a jump", Jumps, text)
	return j, InField("jump", err)
}

// ToSegno says that it goes back to the segno and not to bar 1.
func (j Jump) ToSegno() bool { return j == DS || j == DSAlFine || j == DSAlCoda }

// AlCoda says that the coda is left for, AlFine that the tune ends at the fine.
func (j Jump) AlCoda() bool { return j == DCAlCoda || j == DSAlCoda }

// AlFine says that the tune ends at the fine once it has been taken.
func (j Jump) AlFine() bool { return j == DCAlFine || j == DSAlFine }

// Signs are the signs of a bar that lead to another place. Segno and Coda stand at its beginning,
// the others at its end.
type Signs struct {
	// Segno is where D.S. goes back to, Coda where the coda begins.
	Segno, Coda bool
	// ToCoda is where the coda is left for, and Fine where the tune ends, once the jump was taken.
	ToCoda, Fine bool
	Jump         Jump
}

// checkSigns holds the signs to what can be played: one jump, what it names before it, and nothing
// that no jump uses.
func (c Chart) checkSigns() *orderFault {
	at := map[string]int{}
	for b, bar := range c.Bars {
		for _, sign := range []struct {
			name string
			set  bool
		}{{"segno", bar.Signs.Segno}, {"coda", bar.Signs.Coda}, {"toCoda", bar.Signs.ToCoda}, {"fine", bar.Signs.Fine}, {"jump", bar.Signs.Jump != NoJump}} {
			if !sign.set {
				continue
			}
			if before, twice := at[sign.name]; twice {
				return atBar(b, sign.name, "%s stands in bar %d already; a chart has one", signNames[sign.name], before+1)
			}
			at[sign.name] = b
		}
	}
	jumpBar, jumps := at["jump"]
	jump := NoJump
	if jumps {
		jump = c.Bars[jumpBar].Signs.Jump
	}
	needs := func(name string, wanted bool) *orderFault {
		b, has := at[name]
		switch {
		case wanted && !has:
			return atBar(jumpBar, "jump", "%s needs %s", jump, signNames[name])
		case !wanted && has:
			return atBar(b, name, "no jump of the chart leads to %s", signNames[name])
		}
		return nil
	}
	for _, sign := range []struct {
		name   string
		wanted bool
	}{{"segno", jump.ToSegno()}, {"coda", jump.AlCoda()}, {"toCoda", jump.AlCoda()}, {"fine", jump.AlFine()}} {
		if fault := needs(sign.name, sign.wanted); fault != nil {
			return fault
		}
	}
	switch {
	case jump.ToSegno() && at["segno"] > jumpBar:
		return atBar(at["segno"], "segno", "%s goes back to a segno before it, in bar 1 to %d", jump, jumpBar+1)
	case jump.AlFine() && at["fine"] > jumpBar:
		return atBar(at["fine"], "fine", "the fine lies before the %s, in bar 1 to %d", jump, jumpBar+1)
	case jump.AlCoda() && at["toCoda"] > jumpBar:
		return atBar(at["toCoda"], "toCoda", "the coda is left for before the %s, in bar 1 to %d", jump, jumpBar+1)
	case jump.AlCoda() && at["coda"] <= jumpBar:
		return atBar(at["coda"], "coda", "the coda begins after the %s, from bar %d on", jump, jumpBar+2)
	case jump.ToSegno() && (jump.AlFine() && at["fine"] < at["segno"] || jump.AlCoda() && at["toCoda"] < at["segno"]):
		return atBar(at["segno"], "segno", "the %s goes back past what it leads to", jump)
	}
	return nil
}

var signNames = map[string]string{"segno": "a segno", "coda": "a coda", "toCoda": "a sign to the coda", "fine": "a fine", "jump": "a D.C. or D.S."}

// WithSigns is the chart with the signs of some bars, from 0, set; a bar left out keeps its own. Its
// error names the first sign that cannot be played out.
func (c Chart) WithSigns(signs map[int]Signs) (Chart, error) {
	c.Bars = append([]Bar(nil), c.Bars...)
	for _, bar := range slices.Sorted(maps.Keys(signs)) {
		if err := c.holds(bar, 1); err != nil {
			return c, err
		}
		c.Bars[bar].Signs = signs[bar]
	}
	return c, c.checkOrder()
}
