// Package choice looks things up by the names they go by: styles, schemes, strategies,
// formats. A name that is none of them is an *Error, which says what can be chosen and
// which of those is nearest to what was written.
package choice
