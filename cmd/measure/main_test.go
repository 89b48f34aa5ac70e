package main

import (
	"bytes"
	"io"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestCommands(t *testing.T) {
	var out bytes.Buffer
	assert.NoError(t, run(nil, &out, io.Discard))
	assert.Contains(t, out.String(), "measure survey")
	assert.EqualError(t, run([]string{"dance"}, &out, io.Discard), `"dance" is not a command; there are ear and survey`)
	assert.EqualError(t, run([]string{"survey", "--seeds", "0"}, &out, io.Discard), "survey takes --seeds, a number from 1, and --licks")
	assert.EqualError(t, run([]string{"ear", "all"}, &out, io.Discard), "ear takes --recorded and --beside")
}
