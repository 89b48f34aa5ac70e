package floor

// Divide is the quotient rounded down and what is left, from 0 to by-1; by is above 0.
func Divide(number, by int) (quotient, rest int) {
	rest = Mod(number, by)
	return (number - rest) / by, rest
}

// Mod is what is left of a number when it is divided by another above 0: from 0 to by-1.
func Mod(number, by int) int {
	rest := number % by
	if rest < 0 {
		rest += by
	}
	return rest
}
