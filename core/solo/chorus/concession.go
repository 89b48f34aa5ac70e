package chorus

// Concession is a part of an order that gave way, so that a chorus could be had.
type Concession struct {
	// Field is the part: blend, density, licks, kept, changes.
	Field string
	Text  string
}
