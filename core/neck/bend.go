package neck

// The farthest bends, in quarter tones: three half steps, a whole step, a half
// step.
const (
	widestBend = 6
	wholeBend  = 4
	halfBend   = 2
)

// MostBend is how far, in quarter tones, a hand bends the string at a place: not
// at all where it is open, three half steps on strings 1 to 3, a whole step on
// string 4, and a half step on the lower ones, which are wound and stiff (ours,
// for what players do on a six-string guitar).
func MostBend(p Place) int {
	switch {
	case p.Fret == 0:
		return 0
	case p.String <= 3:
		return widestBend
	case p.String == 4:
		return wholeBend
	}
	return halfBend
}
