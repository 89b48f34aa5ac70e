package reading

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
)

func TestLinesWhateverEndsThem(t *testing.T) {
	for text, want := range map[string][]string{
		"a\nb": {"a", "b"}, "a\r\nb\r\n": {"a", "b", ""}, "a\rb": {"a", "b"}, "\ufeffa": {"a"}, "": {""},
	} {
		lines, err := Lines([]byte(text))
		require.NoError(t, err)
		assert.Equal(t, want, lines, "%q", text)
	}
}

func TestTextThatIsNotUTF8NamesItsPlace(t *testing.T) {
	for text, want := range map[string]string{
		"\xff": "line 1, column 1", "ab\n♭c\xe9": "line 2, column 3", "a\n\xc3\n": "line 2, column 1",
	} {
		_, err := Lines([]byte(text))
		assert.EqualError(t, err, want+": the text is not UTF-8 here; save it as UTF-8 and try again", "%q", text)
	}
}

func TestLongTextIsRefused(t *testing.T) {
	_, err := Lines([]byte(strings.Repeat("a", MaxTextBytes)))
	require.NoError(t, err)
	_, err = Lines([]byte(strings.Repeat("a", MaxTextBytes+1)))
	assert.EqualError(t, err, "the text has 1048577 bytes; at most 1048576 are read")
}

func TestRemarksAreCutAndCounted(t *testing.T) {
	r := New()
	for n := range 1000 {
		r.Remark(n+1, " "+strings.Repeat("♭", 100), "line %d", n)
	}
	require.Len(t, r.Remarks, MostRemarks+1)
	assert.Equal(t, strings.Repeat("♭", 59)+"…", r.Remarks[0].Source)
	assert.Equal(t, "and more lines that were not used", r.Remarks[MostRemarks].Text)
}

func TestFinishGivesWhatAFileMayLeaveOut(t *testing.T) {
	r := New()
	r.Chart.Bars = chart.EmptyBars(1, r.Chart.Meter)
	require.NoError(t, r.Finish())
	assert.Equal(t, "Untitled 4/4 straight 100", fmt.Sprintf("%s %s %s %d", r.Chart.Title, r.Chart.Meter, r.Chart.Feel, r.Chart.Tempo))
	assert.Equal(t, "no title is given; it is called Untitled", r.Remarks[0].Text)

	r.Chart.Title = strings.Repeat("long ", 40)
	require.NoError(t, r.Finish())
	assert.LessOrEqual(t, len(r.Chart.Title), chart.MaxTitle)
	r.Chart.Bars[0].Spans[0].Beats = 3
	assert.EqualError(t, r.Finish(), "bar 1: 3 beats; a bar of 4/4 has 4")
}

func TestFaultsSayTheirPlaceAsFarAsThereIsOne(t *testing.T) {
	faults := Faults{{Detail: "all of it"}, {Line: 2, Detail: "a line"}, {Line: 3, Column: 4, Detail: "a word"}}
	assert.EqualError(t, faults, "all of it\nline 2: a line\nline 3, column 4: a word")
	assert.EqualError(t, Wrong("%d bars", 3), "3 bars")
}
