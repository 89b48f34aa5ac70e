// Package floor divides whole numbers downwards, so that ticks, bars and half steps before zero fall where those after it
// do: the rest is never negative, which Go's own % is not.
package floor
