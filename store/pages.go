package store

import (
	"encoding/binary"
	"math"
	"os"
)

// A row that is found in a page without the way to it from the root of its table: its number and its columns, an
// integer as int64, a real as float64, text as string, a blob as []byte and NULL as nil.
type strayRow struct {
	rowid   int64
	columns []any
}

// The parts of the file format of SQLite that are read here (https://www.sqlite.org/fileformat2.html).
const (
	fileHeaderBytes  = 100
	leafTable        = 0x0d
	leafHeaderBytes  = 8
	mostRecordBytes  = 64 << 20
	mostRecordFields = 100
)

// strayRows reads every page of a data file that is a leaf of a table and calls a function with each of its rows that
// can be read, whether anything leads to it or not: rows that were deleted or replaced may be among them.
func strayRows(path string, do func(strayRow)) error {
	file, err := os.ReadFile(path)
	if err != nil {
		return err
	}
	size := pageSize(file)
	for start := 0; start+size <= len(file); start += size {
		page := file[start : start+size]
		header := 0
		if start == 0 {
			header = fileHeaderBytes
		}
		if page[header] != leafTable {
			continue
		}
		cells := int(binary.BigEndian.Uint16(page[header+3:]))
		for n := range cells {
			at := header + leafHeaderBytes + 2*n
			if at+2 > size {
				break
			}
			if row, ok := readCell(file, page, int(binary.BigEndian.Uint16(page[at:])), size); ok {
				do(row)
			}
		}
	}
	return nil
}

// pageSize is that of the header; where it is none, that of every file the program has made.
func pageSize(file []byte) int {
	const usual = 4096
	if len(file) < fileHeaderBytes {
		return usual
	}
	size := int(binary.BigEndian.Uint16(file[16:]))
	if size == 1 {
		size = 1 << 16
	}
	if size < 512 || size&(size-1) != 0 {
		return usual
	}
	return size
}

// readCell reads a row from its cell, with what of it lies on other pages.
func readCell(file, page []byte, at, size int) (strayRow, bool) {
	length, n := varint(page, at)
	rowid, m := varint(page, at+n)
	if n == 0 || m == 0 || length < 1 || length > mostRecordBytes {
		return strayRow{}, false
	}
	at += n + m
	// How much of it lies here, by the formulas of the file format.
	most, least := size-35, (size-12)*32/255-23
	local := int(length)
	if local > most {
		if local = least + (int(length)-least)%(size-4); local > most {
			local = least
		}
	}
	if at+local > len(page) {
		return strayRow{}, false
	}
	record := append([]byte{}, page[at:at+local]...)
	if local < int(length) {
		if at+local+4 > len(page) {
			return strayRow{}, false
		}
		next := int(binary.BigEndian.Uint32(page[at+local:]))
		for len(record) < int(length) {
			start := (next - 1) * size
			if next < 2 || start+size > len(file) || len(record) > mostRecordBytes {
				return strayRow{}, false
			}
			more := min(size-4, int(length)-len(record))
			record = append(record, file[start+4:start+4+more]...)
			next = int(binary.BigEndian.Uint32(file[start:]))
		}
	}
	columns, ok := readRecord(record)
	return strayRow{rowid: rowid, columns: columns}, ok
}

// readRecord reads the columns of a record.
func readRecord(record []byte) ([]any, bool) {
	headerBytes, at := varint(record, 0)
	if at == 0 || headerBytes > int64(len(record)) {
		return nil, false
	}
	body := int(headerBytes)
	columns := []any{}
	for at < int(headerBytes) {
		serial, n := varint(record, at)
		if n == 0 || len(columns) == mostRecordFields {
			return nil, false
		}
		at += n
		value, bytes, ok := readValue(record, body, serial)
		if !ok {
			return nil, false
		}
		columns = append(columns, value)
		body += bytes
	}
	return columns, body == len(record)
}

func readValue(record []byte, at int, serial int64) (value any, bytes int, ok bool) {
	widths := [...]int{0, 1, 2, 3, 4, 6, 8, 8, 0, 0}
	switch {
	case serial == 10 || serial == 11 || serial < 0:
		return nil, 0, false
	case serial >= 12:
		bytes = int((serial - 12) / 2)
	default:
		bytes = widths[serial]
	}
	if bytes < 0 || at+bytes > len(record) {
		return nil, 0, false
	}
	raw := record[at : at+bytes]
	switch {
	case serial == 0:
		return nil, 0, true
	case serial == 8 || serial == 9:
		return serial - 8, 0, true
	case serial == 7:
		return math.Float64frombits(binary.BigEndian.Uint64(raw)), bytes, true
	case serial < 7:
		number := int64(int8(raw[0])) // the first byte has the sign
		for _, b := range raw[1:] {
			number = number<<8 | int64(b)
		}
		return number, bytes, true
	case serial%2 == 0:
		return append([]byte{}, raw...), bytes, true
	}
	return string(raw), bytes, true
}

// varint reads an integer of one to nine bytes, and says how many it has; 0 where there is none.
func varint(from []byte, at int) (int64, int) {
	value := uint64(0)
	for n := range 9 {
		if at+n >= len(from) || at < 0 {
			return 0, 0
		}
		b := from[at+n]
		if n == 8 {
			return int64(value<<8 | uint64(b)), 9 //nolint:gosec // it is a number of 64 bits with a sign
		}
		value = value<<7 | uint64(b&0x7f)
		if b < 0x80 {
			return int64(value), n + 1 //nolint:gosec // at most 56 bits
		}
	}
	return 0, 0
}
