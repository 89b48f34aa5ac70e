// Package chorus holds a chorus of a solo: blocks of notes on a time line, what it was asked
// for (Request), its edits, the stages it grows by, why every note is there, what could be
// better, and how it follows its tune into another key.
//
// Context is worked out once from a request: which class every note is over every chord, and
// the target of every change with the approaches into it. The planner and everything that is
// said of a chorus use it.
package chorus
