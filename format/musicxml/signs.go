package musicxml

import (
	"strings"

	"undaris/core/chart"
)

// signs reads what a direction or a sound says of where the player goes, and whether it said anything.
func signs(words []string, segno, coda bool, s *sound) (chart.Signs, bool) {
	found := chart.Signs{Segno: segno, Coda: coda}
	for _, text := range words {
		readSignWords(&found, text)
	}
	if s != nil {
		found.Segno = found.Segno || s.Segno != ""
		found.Coda = found.Coda || s.Coda != ""
		found.ToCoda = found.ToCoda || s.ToCoda != ""
		found.Fine = found.Fine || s.Fine != ""
		switch {
		case found.Jump != chart.NoJump:
		case s.DaCapo == "yes":
			found.Jump = chart.DC
		case s.DalSegno != "":
			found.Jump = chart.DS
		}
	}
	// A sign of the coda beside "To Coda" belongs to those words.
	if found.ToCoda && found.Coda {
		found.Coda = false
	}
	return found, found != chart.Signs{}
}

// readSignWords reads words such as "D.S. al Coda", "Da Capo al Fine", "To Coda", "Fine".
func readSignWords(found *chart.Signs, text string) {
	plain := strings.ToLower(strings.Join(strings.Fields(text), " "))
	plain = strings.NewReplacer("da capo", "d.c.", "dal segno", "d.s.", "dc ", "d.c. ", "ds ", "d.s. ").Replace(plain)
	for _, jump := range chart.Jumps {
		if plain == strings.ToLower(string(jump)) {
			found.Jump = jump
			return
		}
	}
	switch plain {
	case "dc":
		found.Jump = chart.DC
	case "ds":
		found.Jump = chart.DS
	case "fine":
		found.Fine = true
	case "to coda", "al coda":
		found.ToCoda = true
	case "coda":
		found.Coda = true
	case "segno":
		found.Segno = true
	}
}

// complete makes a D.C. or D.S. whose words do not say so one that leads to the fine or to the coda, where
// the chart has such a sign.
func complete(c *chart.Chart) {
	fine, toCoda, coda, at := false, false, false, -1
	for b, bar := range c.Bars {
		fine, toCoda, coda = fine || bar.Signs.Fine, toCoda || bar.Signs.ToCoda, coda || bar.Signs.Coda
		if bar.Signs.Jump != chart.NoJump {
			at = b
		}
	}
	if at < 0 {
		return
	}
	jump := &c.Bars[at].Signs.Jump
	switch {
	case *jump == chart.DC && toCoda && coda:
		*jump = chart.DCAlCoda
	case *jump == chart.DS && toCoda && coda:
		*jump = chart.DSAlCoda
	case *jump == chart.DC && fine:
		*jump = chart.DCAlFine
	case *jump == chart.DS && fine:
		*jump = chart.DSAlFine
	}
}

// feel reads a feel from words or from the swing of a sound; empty where they say none. ratio is 0 where
// none is given.
func feel(words []string, s *sound) (feel chart.Feel, ratio float64) {
	for _, text := range words {
		switch plain := strings.ToLower(strings.TrimSpace(text)); {
		case strings.HasPrefix(plain, "swing"), strings.HasPrefix(plain, "shuffle"), strings.HasSuffix(plain, " swing"), strings.HasSuffix(plain, " shuffle"):
			feel = chart.Shuffle
		case plain == "straight", plain == "straight 8ths", plain == "straight eighths", plain == "even 8ths", plain == "even eighths":
			feel = chart.Straight
		case plain == string(chart.Slow128):
			feel = chart.Slow128
		}
	}
	if s != nil && s.Swing != nil {
		switch swing := s.Swing; {
		case swing.Straight != nil && feel == "":
			feel = chart.Straight
		case swing.First > 0 && swing.Second > 0 && strings.TrimSpace(swing.Type) != "16th":
			feel, ratio = chart.Shuffle, swing.First/swing.Second
		}
	}
	return feel, ratio
}
