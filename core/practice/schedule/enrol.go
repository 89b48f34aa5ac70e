package schedule

import (
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/practice"
)

// MaxProgression is how many chords of a tune are asked about as one progression (our choice: more
// are no question but an examination).
const MaxProgression = 12

// Enrol lists the cards of a tune on an instrument, in the order that a teacher would choose: the
// home position first, then its neighbours; in each the kinds as they are listed, and the chords in
// the order in which they come. It is empty for a tune without chords.
func Enrol(c chart.Chart, i neck.Instrument) []practice.Card {
	spans := slices.DeleteFunc(c.ChordSpans(), func(s chart.ChordSpan) bool { return s.Silent && !s.Imagined })
	if len(spans) == 0 {
		return nil
	}
	chords, progression := []harmony.Chord{}, []harmony.Chord{}
	for _, s := range spans {
		if !slices.ContainsFunc(chords, s.Chord.Same) {
			chords = append(chords, s.Chord)
		}
		if len(progression) < MaxProgression && (len(progression) == 0 || !progression[len(progression)-1].Same(s.Chord)) {
			progression = append(progression, s.Chord)
		}
	}
	changes := [][2]harmony.Chord{}
	for _, ch := range c.Changes() {
		one := [2]harmony.Chord{ch.Leaving.Chord, ch.Arriving.Chord}
		if !slices.ContainsFunc(changes, func(other [2]harmony.Chord) bool { return other[0].Same(one[0]) && other[1].Same(one[1]) }) {
			changes = append(changes, one)
		}
	}
	cards := []practice.Card{}
	for n, position := range positionsFromHome(i, c.Key) {
		for _, facts := range practice.Kinds {
			if facts.NeedsForms && !i.HasNamedForms() || !facts.InPosition && n > 0 {
				continue
			}
			card := practice.Card{Kind: facts.Kind, Key: c.Key}
			if facts.InPosition { // positions are named by their forms, which every key has
				card.Position = position
			}
			switch facts.Chords {
			case 0:
				cards = append(cards, card)
			case 1:
				for _, chord := range chords {
					card.Key = chord.Context(c.Key).Key
					card.Chords = []harmony.Chord{chord}
					cards = append(cards, card)
				}
			case 2:
				for _, change := range changes {
					card.Key = change[1].Context(c.Key).Key
					card.Chords = change[:]
					cards = append(cards, card)
				}
			default:
				card.Chords = progression
				if facts.Kind == practice.EarBar { // bars are asked for, so each has its chord
					card.Chords = chordsByBar(c, spans)
				}
				if len(progression) > 2 {
					cards = append(cards, card)
				}
			}
		}
	}
	cards = slices.DeleteFunc(cards, func(card practice.Card) bool { return !askable(card, i) })
	for n := range cards {
		cards[n] = cards[n].WithID()
	}
	return cards
}

// MaxFormBars is how many bars of a form are asked about by ear (our choice: two choruses of eight).
const MaxFormBars = 16

// chordsByBar is the chord that each of the first bars of a chorus begins with; a bar without one goes
// on with that of the bar before.
func chordsByBar(c chart.Chart, spans []chart.ChordSpan) []harmony.Chord {
	chords, time := []harmony.Chord{}, c.Timeline()
	for bar := 0; bar < time.Bars() && len(chords) < MaxFormBars; bar++ {
		on := spans[0].Chord
		for _, s := range spans {
			if s.Tick <= time.Start(bar) {
				on = s.Chord
			}
		}
		chords = append(chords, on)
	}
	return chords
}

// askable says whether a card can be asked on an instrument at all.
func askable(card practice.Card, i neck.Instrument) bool {
	_, err := practice.Ask(practice.Context{Instrument: i}, card, 0)
	return err == nil
}

// positionsFromHome are the names of the positions of a key below the twelfth fret, the home
// position first and then its neighbours, up before down.
func positionsFromHome(i neck.Instrument, key harmony.Key) []string {
	tonic := key.Tonic.Class()
	all := neck.Positions(i, tonic)
	home, err := neck.FindPosition(i, tonic, "")
	if err != nil || len(all) == 0 {
		return nil
	}
	at := slices.IndexFunc(all, func(p neck.Position) bool { return p.Core >= home.Core })
	at = max(at, 0)
	names := []string{home.Name(all)}
	for step := 1; step < len(all); step++ {
		for _, n := range []int{at + step, at - step} {
			if n >= 0 && n < len(all) && all[n].CoreEnd <= octaveFret && all[n].ID() != home.ID() {
				names = append(names, all[n].Name(all))
			}
		}
	}
	return names
}

// octaveFret is where the neck begins again.
const octaveFret = 15
