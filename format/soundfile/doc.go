// Package soundfile reads sound from files, one channel at a time and in pieces, so that an hour of it needs no more
// memory than a second: WAV of every kind of sample, and FLAC. It writes WAV. What a file says of itself and is not
// so, a length that lies, an end that is cut off, is said in a remark, and what is there is read.
package soundfile
