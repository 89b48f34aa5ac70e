// Package lick keeps phrases to be used again: it places a lick in another key and position,
// moves it to another chord in three ways, lists its variants, finds licks by what they are,
// and cuts and joins them.
//
// A lick sounds the same in every key: every interval over its tonic is kept. Where a shape
// can be slid along the neck it is; else the notes are fingered anew, and each technique that
// one string no longer allows is named.
package lick
