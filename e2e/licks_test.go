package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A lick is moved over the chords of the tune three ways, side by side; one is heard,
// kept, and taken back.
func TestMovingALick(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?at=5760&licks.lick=7")
	p.Sees("Ferry call into A, the 3 of F7")
	p.Press("m")
	p.Sees("slide the shape", "stay in position", "keep the frets", "Ferry call over C7")
	p.Click("F7, slide the shape: frets 13 to 16, 49 mm, +5 half steps")
	p.Sees("Ferry call over F7: frets 13 to 16")
	assert.Equal(t, "13 ♭3 blue", p.Tab()[0])
	assert.Contains(t, p.Neck("tone"), "3:13 ♭3", "the neck goes where the hand goes")
	p.Click("F7, keep the frets: frets 8 to 10, 45 mm, 1 changed")
	p.Sees("note 4: B♭, the 11, becomes A, the 3 of F7: fret 10 instead of 11.")
	assert.Equal(t, "10 3 chord", p.Tab()[3])
	p.Press(" ")
	p.Until("it sounds on tab and neck", "document.querySelector('.tab .note.lit') && document.querySelector('.neck .mark.lit')")
	p.Press(" ")
	p.Press("k")
	p.Sees("Kept as Ferry call over F7, changed.")
	p.Has("Ferry call over F7, changed A call in eighths: up to the ♭7 and back to the ♭3.")
	p.Click("Take it back")
	p.Until("it is gone", "!document.body.innerText.includes('over F7, changed')")
	p.Press("m")
	p.Sees("Ferry call into A, the 3 of F7")
}

// A lick is understood: its figures, the notes that could be better, a repair that is
// made, heard, kept and taken back.
func TestUnderstandingALick(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/licks?at=5760&licks.lick=7")
	p.Sees("Ferry call into A, the 3 of F7")
	p.Press("v")
	p.Sees("1 of 2 chord tones", "1 of 2 chord tones or colour", "5 G, ♭7 B♭ without 3 E", "ends like a question", "C7 is heard")
	p.Click("rests on")
	p.Until("the figure points at its notes", "[...document.querySelectorAll('.tab .note')].map((n, i) => n.classList.contains('marked') ? i : '').join('') === '26'")
	p.Click("note 7: E♭, the ♭3 of C7, is a blue note rested on")
	p.Sees("E♭ is the ♭3 of C7: lean on it, and bend or slide it up to E, the 3.")
	p.Click("Repair note 7: play E, the 3: fret 9 instead of 8")
	p.Sees("2 of 2 chord tones or colour", "ends like an answer")
	assert.Equal(t, "9 3 chord", p.Tab()[6])
	p.Click("Keep it repaired")
	p.Sees("Kept as Ferry call, repaired.")
	p.Has("Ferry call, repaired A call in eighths: up to the ♭7 and back to the ♭3.")
	p.Click("Take it back")
	p.Until("it is gone", "!document.body.innerText.includes('Ferry call, repaired')")
	p.Click("As it was")
	p.Sees("ends like a question")
	p.Click("Slack water Few notes and much air; the root held in the middle.")
	p.Sees("Every note is where it may be.")
}
