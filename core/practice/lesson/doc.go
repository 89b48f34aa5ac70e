// Package lesson cuts a lick into parts to be learned one by one: each by itself, then joined to
// those before, then the whole, which grows faster step by step.
package lesson
