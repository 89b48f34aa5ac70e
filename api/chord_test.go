package api

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func chordView(c client, in ChordRequest) ChordView {
	c.t.Helper()
	in.Chart = ferry(c).Chart
	return call[ChordView](c, "POST", "/api/compute/chord", in, 200)
}

func placed(notes []PlacedTone) string {
	remarks := []string{}
	for _, n := range notes {
		remarks = append(remarks, itoa(uint(n.String))+":"+itoa(uint(n.Fret))+" "+n.Degree)
	}
	return strings.Join(remarks, ", ")
}

func TestAChordWithAllThatLiesOverIt(t *testing.T) {
	c := application(t, nil)
	view := chordView(c, ChordRequest{Chord: "C7", Next: "F7", Position: "E-7"})
	assert.Equal(t, "6:8 R, 5:7 3, 5:10 5, 4:8 b7, 4:10 R, 3:9 3, 2:8 5, 2:11 b7, 1:8 R", placed(view.Shape.Tones))
	assert.Equal(t, "E", view.Shape.Form)
	assert.Equal(t, "C Mixolydian", view.ChordScale.Name)
	assert.Equal(t, "a dominant of a blues joins as Mixolydian", view.ChordScale.Rule)
	assert.Equal(t, "D, the 9, is colour; F, the 11, is a suspension; A, the 13, is colour", view.Extensions.Rule)
	assert.Equal(t, "F7", view.Next.Name)
	assert.Equal(t, "5", view.Next.Notes[0].Degree, "as the next chord's own degrees")
	of := map[string]string{}
	for _, note := range view.Blend.Notes {
		of[note.Note] = note.Of
	}
	assert.Equal(t, map[string]string{"C": "both", "G": "both", "Eb": "minor", "F": "minor", "Bb": "minor", "D": "major", "E": "major", "A": "major"}, of)
	assert.Equal(t, []Recurrence{{"C7", 19, 22}, {"F7", 0, 3}, {"F7", 12, 15}, {"G7", 2, 5}, {"G7", 14, 17}}, view.Recurrences, "every E form is one shape")
	require.NotEmpty(t, view.Superimposed)
	assert.Equal(t, "Em7b5", view.Superimposed[0].Chord)
	assert.Equal(t, []string{"3", "5", "b7", "9"}, view.Superimposed[0].Degrees)
	assert.Equal(t, "R", view.Shape.Tones[0].InKey)
	small := map[string]string{}
	for _, s := range view.Smaller {
		small[s.Name+", "+s.Strings] = placed(s.Notes)
	}
	assert.Equal(t, "4:10 R, 3:9 3, 2:8 5", small["triad, root position, strings 4 3 2"])
	assert.Equal(t, "6:8 R, 4:8 b7, 3:9 3", small["shell: root, 7, 3, strings 6 4 3"])
}

func TestSlidingTheShape(t *testing.T) {
	c := application(t, nil)
	for chord, position := range map[string]string{"C7": "E-7", "F7": "E-0", "G7": "E-2"} {
		view := chordView(c, ChordRequest{Chord: chord, Position: "E", Slide: true})
		assert.Equal(t, position, view.Position.ID)
		assert.Equal(t, "E", view.Shape.Form)
	}
}

func TestLayoutsOfAChord(t *testing.T) {
	c := application(t, nil)
	two := chordView(c, ChordRequest{Chord: "C7", Position: "E-7", Layout: Layout{Kind: "two a string"}})
	assert.Equal(t, "6:8 R, 6:10 9, 5:7 3, 5:10 5, 4:8 b7, 4:10 R, 3:7 9, 3:9 3, 2:8 5, 2:11 b7, 1:8 R, 1:10 9", placed(two.Shape.Tones))
	three := chordView(c, ChordRequest{Chord: "C7", Position: "E-7", Layout: Layout{Kind: "three a string"}})
	assert.Len(t, three.Shape.Tones, 18)
	chart := ferry(c).Chart
	got := call[Problem](c, "POST", "/api/compute/chord", ChordRequest{PlayContext: PlayContext{Chart: chart}, Chord: "C7", Layout: Layout{Kind: "one octave", From: "9"}}, 422)
	assert.Equal(t, "the position has no octave from the 9 up; it has one from the R", got.Detail)
	assert.Equal(t, &Layout{Kind: "one octave", From: "R"}, got.Errors[0].NearestLayout)
	for location, in := range map[string]ChordRequest{
		"body.chord": {Chord: "H7"}, "body.next": {Chord: "C7", Next: "H"}, "body.position": {Chord: "C7", Position: "Q"}, "body.layout": {Chord: "C7", Layout: Layout{Kind: "spiral"}},
	} {
		in.Chart = chart
		got := call[Problem](c, "POST", "/api/compute/chord", in, 422)
		assert.Equal(t, location, got.Errors[0].Field)
	}
}

// The layouts of a chord come with what they are begun with and how far they may go; each of
// them can be asked for.
func TestTheLayoutsThatCanBeChosen(t *testing.T) {
	c := application(t, nil)
	view := chordView(c, ChordRequest{Chord: "C7", Position: "E-7"})
	texts := []string{}
	for _, one := range view.Layouts {
		texts = append(texts, one.Text)
		if one.Kind != "one octave" { // not every position has an octave from every degree
			assert.NotEmpty(t, chordView(c, ChordRequest{Chord: "C7", Position: "E-7", Layout: one.Layout}).Shape.Tones, one.Text)
		}
	}
	assert.Equal(t, []string{
		"all tones", "one octave from R", "one octave from 3", "one octave from 5", "one octave from b7",
		"two a string, with the 9", "three a string", "four a string", "only some strings", "only some frets",
	}, texts)
	assert.Equal(t, LayoutChoice{Layout{Kind: "some strings", Low: 1, High: 3}, "only some strings", "string", 1, 6}, view.Layouts[8])
	assert.Equal(t, LayoutChoice{Layout{Kind: "some frets", Low: 7, High: 10}, "only some frets", "fret", 6, 11}, view.Layouts[9])
}

func TestThePositionThatIsMeant(t *testing.T) {
	c := application(t, nil)
	ask := PositionRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Position: "A-12"}
	assert.Equal(t, "A-15", call[Position](c, "POST", "/api/compute/chart/position", ask, 200).ID)
	ask.Position = "fret-9"
	assert.Equal(t, "D-10", call[Position](c, "POST", "/api/compute/chart/position", ask, 200).ID, "a window of another tuning")
	ask.Position = "nowhere"
	assert.Equal(t, "E-7", call[Position](c, "POST", "/api/compute/chart/position", ask, 200).ID)
}
