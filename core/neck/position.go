package neck

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"strconv"
	"strings"

	"undaris/core/pitch"
)

// Form is one of the five open chord forms, C A G E D. Moved up the neck they
// name its positions.
type Form string

// forms says, for each form, on which string its tonic lies and how many frets
// below the tonic the four core frets begin (common teaching of the five forms).
var forms = []struct {
	form   Form
	tonic  int
	before int
}{
	{"C", 5, 3}, {"A", 5, 0}, {"G", 6, 3}, {"E", 6, 1}, {"D", 4, 0},
}

// coreFrets is how many frets the hand covers with a finger each.
const coreFrets = 4

// Window is the part of the neck that one hand position covers: four core
// frets, and one fret of reach on either side where the neck has it.
type Window struct {
	// Core and CoreEnd are the lowest and highest core fret.
	Core, CoreEnd int
	// Low and High are the lowest and highest fret within reach.
	Low, High int
}

// WindowFrom is the window whose core begins at a fret.
func (i Instrument) WindowFrom(core int) Window {
	end := core + coreFrets - 1
	return Window{Core: core, CoreEnd: end, Low: max(core-1, 0), High: min(end+1, i.Frets)}
}

// IsReach says whether the fret lies in the window but outside its core.
func (w Window) IsReach(fret int) bool {
	return (fret >= w.Low && fret < w.Core) || (fret > w.CoreEnd && fret <= w.High)
}

// Position is one place of a key on the neck: the form its tonic makes there
// and the window it spans.
type Position struct {
	Form Form
	Window
}

// ID names a position in requests and addresses: its form and lowest core
// fret, as in "E-7"; a plain window is "fret-7".
func (p Position) ID() string {
	if p.Form == "" {
		return plain + strconv.Itoa(p.Core)
	}
	return fmt.Sprintf("%s-%d", p.Form, p.Core)
}

// Label is the position as it is called: "E form", or "frets" for a plain window.
func (p Position) Label() string {
	if p.Form == "" {
		return "frets"
	}
	return string(p.Form) + " form"
}

const plain = "fret-"

// windowStep is how far apart plain windows lie: neighbours share a core fret, so
// that nothing between two hands is lost (our choice).
const windowStep = 3

// Positions lists every position of the tonic, lowest first: each form wherever
// its core fits the neck. At the nut the E form counts although its core would
// begin one fret before it; it keeps its four frets as 0 to 3 (our choice: the
// open position is where players begin). Where the strings are not tuned in the
// intervals of standard tuning no form lies, and positions are plain windows
// stepped along the neck.
func Positions(i Instrument, tonic pitch.Class) []Position {
	found := []Position{}
	if !i.HasNamedForms() {
		for core := 0; core+coreFrets-1 <= i.Frets; core += windowStep {
			found = append(found, Position{Window: i.WindowFrom(core)})
		}
		return found
	}
	for _, f := range forms {
		open := i.Open[f.tonic-1].Class()
		for fret := tonic.Above(open); fret <= i.Frets; fret += 12 {
			core := fret - f.before
			if core == -1 && f.form == "E" {
				core = 0
			}
			if core < 0 || core+coreFrets-1 > i.Frets {
				continue
			}
			found = append(found, Position{Form: f.form, Window: i.WindowFrom(core)})
		}
	}
	sort.Slice(found, func(a, b int) bool { return found[a].Core < found[b].Core })
	return found
}

// PositionError says which position is not one of the key's, which are, and the
// nearest of them.
type PositionError struct {
	Text    string
	Allowed []string
	Nearest string
}

func (e *PositionError) Error() string {
	return fmt.Sprintf("%q is not a position of this key; its positions are %s; a form alone (C, A, G, E, D) is its lowest place, and fret-7 any four frets from the 7th",
		e.Text, strings.Join(e.Allowed, ", "))
}

// FindPosition finds a position by its ID or its Name: a form alone is its lowest
// place. "fret-7" is the window from any fret of the neck.
// The empty text asks for the default: the E form, or in other tunings the window
// that has the tonic lowest on the lowest string.
func FindPosition(i Instrument, tonic pitch.Class, text string) (Position, error) {
	all := Positions(i, tonic)
	if text == "" {
		return defaultPosition(i, tonic, all), nil
	}
	ids := make([]string, len(all))
	for n, p := range all {
		if p.ID() == text {
			return p, nil
		}
		ids[n] = p.ID()
	}
	if p, ok := byName(all, text); ok {
		return p, nil
	}
	fault := &PositionError{Text: text, Allowed: ids, Nearest: defaultPosition(i, tonic, all).ID()}
	_, number, _ := strings.Cut(text, "-")
	fret, err := strconv.Atoi(number)
	if err != nil {
		return Position{}, fault
	}
	within := min(max(fret, 0), i.Frets-coreFrets+1)
	if strings.HasPrefix(text, plain) && within == fret {
		return Position{Window: i.WindowFrom(fret)}, nil
	}
	fault.Nearest = all[0].ID()
	for _, p := range all {
		if max(p.Core-within, within-p.Core) < max(coreFret(fault.Nearest)-within, within-coreFret(fault.Nearest)) {
			fault.Nearest = p.ID()
		}
	}
	return Position{}, fault
}

// NearestPosition is the position that a text means on this instrument, even where it was
// kept for another one or another key: by FindPosition where it is one of its positions, or
// else the nearest one of the same form, or else the nearest.
func NearestPosition(i Instrument, tonic pitch.Class, text string) Position {
	found, err := FindPosition(i, tonic, text)
	// A plain window can be had on any neck, but where there are forms none is offered.
	if err == nil && (found.Form != "" || slices.Contains(Positions(i, tonic), found)) {
		return found
	}
	form, number, _ := strings.Cut(text, "-")
	form, _, _ = strings.Cut(form, "+")
	fret, notNumber := strconv.Atoi(number)
	nearest, least := Position{}, math.MaxInt
	for _, p := range Positions(i, tonic) {
		away := 0
		if notNumber == nil {
			away = max(p.Core-fret, fret-p.Core)
		}
		if p.Form != Form(form) {
			away += i.Frets + 1
		}
		if away < least {
			nearest, least = p, away
		}
	}
	if notNumber != nil && nearest.Form != Form(form) {
		return defaultPosition(i, tonic, Positions(i, tonic))
	}
	return nearest
}

// coreFret is the lowest core fret in a position's ID.
func coreFret(id string) int {
	_, number, _ := strings.Cut(id, "-")
	fret, _ := strconv.Atoi(number)
	return fret
}

// defaultPosition is the position to begin in.
func defaultPosition(i Instrument, tonic pitch.Class, all []Position) Position {
	fret := tonic.Above(i.Open[len(i.Open)-1].Class())
	for _, p := range all {
		if p.Form == "E" || (p.Form == "" && fret <= p.CoreEnd) {
			return p
		}
	}
	return all[0]
}

// FormAt is the form that a chord on root makes in a window: the form of that
// root whose own core begins nearest. Of two equally near, the higher: the
// little finger reaches up more easily than the first reaches back (our choice).
// A form counts, too, where up to half of its core lies below the nut and its root does
// not: B7 beside the nut is the C form with its root on fret 2 (common teaching).
// Where no forms lie it is empty.
func FormAt(i Instrument, root pitch.Class, w Window) Form {
	if !i.HasNamedForms() {
		return ""
	}
	best, nearest := Position{}, 1<<10
	for _, f := range forms {
		for fret := root.Above(i.Open[f.tonic-1].Class()); fret <= i.Frets; fret += 12 {
			core := fret - f.before
			if core < -coreFrets/2 || core+coreFrets-1 > i.Frets {
				continue
			}
			distance := max(core-w.Core, w.Core-core)
			if distance < nearest || distance == nearest && core > best.Core {
				best, nearest = Position{Form: f.form, Window: Window{Core: core}}, distance
			}
		}
	}
	return best.Form
}
