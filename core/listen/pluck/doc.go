// Package pluck sounds plucked strings by computation: a line of notes with bends, slides, slurs and vibrato
// becomes samples of sound, as a guitar and an amplifier would give them. It is the sound of the player who
// stands in for a real one, and half of what package listen is tried on.
//
// A string is a delay line that feeds back through a filter of losses, its length the period of the note
// (Karplus and Strong, "Digital Synthesis of Plucked-String and Drum Timbres", Computer Music Journal 7(2),
// 1983; tuned and picked after Jaffe and Smith, "Extensions of the Karplus-Strong Plucked-String Algorithm",
// same issue). The pick and the pickup stand at shares of the string and take away what has a node there.
package pluck
