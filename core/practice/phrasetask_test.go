package practice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/practice"
)

// line is a phrase of notes, each a tick, a length, a string and a fret.
func line(notes ...[4]int) phrase.Phrase {
	p := phrase.Phrase{Meter: chart.FourFour}
	for _, n := range notes {
		p.Events = append(p.Events, phrase.Event{Tick: n[0], Ticks: n[1], Fingered: neck.Fingered{Place: neck.Place{String: n[2], Fret: n[3]}}})
	}
	return p
}

func TestLimitsOfPhrases(t *testing.T) {
	i := neck.Standard()
	key, _ := inC(t)
	good := map[string]phrase.Phrase{
		"three notes":        line([4]int{0, 240, 3, 8}, [4]int{240, 240, 3, 10}, [4]int{480, 240, 4, 10}, [4]int{720, 240, 3, 8}),
		"end on the 3 of IV": line([4]int{0, 240, 3, 10}, [4]int{240, 480, 2, 10}),
		"begin off the beat": line([4]int{240, 240, 3, 8}),
		"two strings":        line([4]int{0, 240, 3, 8}, [4]int{240, 240, 2, 8}),
		"half silence":       line([4]int{0, 480, 3, 8}, [4]int{960, 480, 2, 8}),
	}
	bent := line([4]int{0, 480, 3, 10})
	bent.Events[0].Bend = 4
	good["a bend"] = bent
	bad := map[string]struct {
		phrase phrase.Phrase
		says   string
	}{
		"three notes":        {line([4]int{0, 1, 1, 1}, [4]int{1, 1, 1, 2}, [4]int{2, 1, 1, 3}, [4]int{3, 1, 1, 4}), "it has 4 different notes"},
		"end on the 3 of IV": {line([4]int{0, 240, 2, 8}), "it ends on G; the 3 of IV is A"},
		"begin off the beat": {line([4]int{480, 240, 2, 8}), "it begins on a beat"},
		"two strings":        {line([4]int{0, 1, 1, 8}, [4]int{1, 1, 3, 8}), "it goes over strings 1 to 3"},
		"a bend":             {line([4]int{0, 480, 3, 10}), "no bend of it lasts a beat"},
		"half silence":       {line([4]int{0, 1900, 3, 10}), "it sounds for 98 % of its bars"},
	}
	for _, task := range practice.PhraseTasks {
		kept, says := task.Keeps(i, key, good[task.Name])
		assert.True(t, kept, "%s: %s", task.Name, says)
		assert.Contains(t, says, "It keeps to the limit")
		kept, says = task.Keeps(i, key, bad[task.Name].phrase)
		assert.False(t, kept, task.Name)
		assert.Contains(t, says, bad[task.Name].says)
		kept, _ = task.Keeps(i, key, line())
		assert.False(t, kept)
	}
	assert.NotEqual(t, practice.TaskOfDay(1).Name, practice.TaskOfDay(2).Name)
	assert.Equal(t, practice.TaskOfDay(-1).Name, practice.TaskOfDay(len(practice.PhraseTasks)-1).Name)
}
