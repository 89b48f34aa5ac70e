package midifile

import (
	"encoding/binary"
	"errors"
)

// walk goes through the file's chunks and events and holds every length that it
// declares against what is there. The library that decodes the file takes those
// lengths on trust, and would set aside gigabytes for a few bytes that lie. found is how many tracks
// there are, which may be more than the header says.
func walk(data []byte) (found int, err error) {
	if len(data) < 14 || string(data[:4]) != "MThd" {
		return 0, errors.New("it does not begin as a MIDI file does")
	}
	header := int64(binary.BigEndian.Uint32(data[4:]))
	tracks := int(binary.BigEndian.Uint16(data[10:]))
	switch {
	case header != 6:
		return 0, errors.New("its header has a length that is not read")
	case data[12] == 0 && data[13] == 0:
		return 0, errors.New("it gives a quarter note no ticks (a division of zero), so no note has a time")
	case data[12]&0x80 != 0:
		return 0, errors.New("it counts time in frames of film; one that counts in beats is needed")
	}
	rest := data[14:]
	for {
		if len(rest) == 0 || found >= tracks && (len(rest) < 8 || string(rest[:4]) != "MTrk") {
			if found < tracks || tracks == 0 || found > 0xFFFF {
				return 0, errors.New("it has fewer tracks than it says")
			}
			return found, nil
		}
		if len(rest) < 8 {
			return 0, errors.New("it ends in the middle of a track")
		}
		length := int64(binary.BigEndian.Uint32(rest[4:]))
		if length > int64(len(rest)-8) {
			return 0, errors.New("it ends in the middle of a track")
		}
		if string(rest[:4]) == "MTrk" {
			found++
			if err := walkTrack(rest[8 : 8+length]); err != nil {
				return 0, err
			}
		}
		rest = rest[8+length:]
	}
}

var errCut = errors.New("an event is longer than its track")

// walkTrack holds the events of one track to its end.
func walkTrack(data []byte) error {
	running := byte(0)
	for len(data) > 0 {
		_, size := variable(data)
		if size == 0 || size >= len(data) {
			return errCut
		}
		data = data[size:]
		status := data[0]
		if status < 0x80 {
			if running == 0 {
				return errors.New("an event without a status")
			}
			status = running
		} else {
			data = data[1:]
		}
		need := 2
		switch {
		case status == 0xFF:
			if len(data) == 0 {
				return errCut
			}
			kind := data[0]
			length, size := variable(data[1:])
			if size == 0 || length > len(data)-1-size {
				return errCut
			}
			if kind == 0x2F { // the end of the track
				if len(data) > 1+size+length {
					return errors.New("a track goes on behind its end")
				}
				return nil
			}
			need, running = 1+size+length, 0
		case status == 0xF0 || status == 0xF7:
			length, size := variable(data)
			if size == 0 || length > len(data)-size {
				return errCut
			}
			need, running = size+length, 0
		case status > 0xF0:
			return errors.New("an event that files do not have")
		case status&0xF0 == 0xC0 || status&0xF0 == 0xD0:
			need, running = 1, status
		default:
			running = status
		}
		if need > len(data) {
			return errCut
		}
		data = data[need:]
	}
	return errors.New("a track without an end")
}

// variable reads a number of variable length and how many bytes it takes; none
// where it is longer than four.
func variable(data []byte) (value, size int) {
	for n := 0; n < len(data) && n < 4; n++ {
		value = value<<7 | int(data[n]&0x7F)
		if data[n] < 0x80 {
			return value, n + 1
		}
	}
	return 0, 0
}
