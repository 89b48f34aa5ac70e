// Package shortestpath chooses one of several options at each of several points, so that what
// they and the steps between them cost is the least in all (a shortest path through layers).
package shortestpath
