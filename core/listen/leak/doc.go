// Package leak finds how much of the band is in a recording of a player, by way of a loudspeaker and a microphone, and
// takes it out: the band's own sound is known, so what the room has made of it can be estimated and subtracted.
package leak
