// Package wholefile writes files that are there wholly or not at all: under another name first, brought to the disk, and
// only then named, with the folder's names brought to the disk too. A program that is killed, and a disk that is full or
// loses its power, leave what was there before.
package wholefile
