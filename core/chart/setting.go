package chart

import (
	"fmt"

	"undaris/core/harmony"
)

// SettingChange is what a bar changes from there on; what is left at its zero value goes on as before.
type SettingChange struct {
	// Key is the key from here on; its mode is empty where the key stays.
	Key harmony.Key
	// Meter is the meter from here on, Feel the feel.
	Meter Meter
	Feel  Feel
}

// Setting is the key, the meter and the feel that hold in a bar.
type Setting struct {
	Key   harmony.Key
	Meter Meter
	Feel  Feel
}

// After is the setting once a change has come. 12/8 is always played slow, and what leaves
// compound time for simple goes back to straight, unless the change names a feel.
func (s Setting) After(ch SettingChange) Setting {
	if ch.Key.Mode != "" {
		s.Key = ch.Key
	}
	if ch.Meter != (Meter{}) {
		s.Meter = ch.Meter
	}
	switch {
	case ch.Feel != "":
		s.Feel = ch.Feel
	case ch.Meter == TwelveEight:
		s.Feel = Slow128
	case ch.Meter != Meter{} && s.Feel == Slow128 && !s.Meter.Compound():
		s.Feel = Straight
	}
	return s
}

// Since is the change that leads from one setting to another.
func (s Setting) Since(before Setting) SettingChange {
	ch := SettingChange{}
	if s.Key != before.Key {
		ch.Key = s.Key
	}
	if s.Meter != before.Meter {
		ch.Meter = s.Meter
	}
	if before.After(ch).Feel != s.Feel {
		ch.Feel = s.Feel
	}
	return ch
}

func (c Chart) setting() Setting { return Setting{Key: c.Key, Meter: c.Meter, Feel: c.Feel} }

// settings lists what holds in each written bar.
func (c Chart) settings() []Setting {
	all := make([]Setting, len(c.Bars))
	in := c.setting()
	for b, bar := range c.Bars {
		in = in.After(bar.Change)
		all[b] = in
	}
	return all
}

// SettingOf is what holds in a written bar, from 0; the one after the last goes on as the last.
func (c Chart) SettingOf(bar int) Setting {
	in := c.setting()
	for b := 0; b <= bar && b < len(c.Bars); b++ {
		in = in.After(c.Bars[b].Change)
	}
	return in
}

// IsEven says that key, meter and feel hold from the first bar to the last.
func (c Chart) IsEven() bool {
	for _, bar := range c.Bars {
		if bar.Change != (SettingChange{}) {
			return false
		}
	}
	return true
}

// check holds a change to what a chart may have. The meter is the one that holds in its bar.
func (ch SettingChange) check(field string, n int, meter Meter, box harmony.BoxKind) error {
	if ch.Key.Mode != "" {
		if _, err := harmony.ParseKey(ch.Key.Tonic.String(), ch.Key.Mode); err != nil {
			return fail(field+".key", "bar %d: %s", n+1, err)
		}
		if _, err := ch.Key.Box(box); err != nil {
			return fail(field+".key", "bar %d: %s", n+1, err)
		}
	}
	if ch.Feel == Slow128 && !meter.Compound() || ch.Feel != "" && ch.Feel != Slow128 && meter == TwelveEight {
		return fail(field+".feel", "bar %d: the feel %q does not go with the meter %s; slow 12/8 needs 12/8, 9/8 or 6/8, and 12/8 needs it", n+1, ch.Feel, meter)
	}
	return nil
}

// withSettings is the chart with bars of which each is in a setting of its own: changes are written
// where a setting differs from the one before. The first bar's is the chart's.
func (c Chart) withSettings(bars []Bar, in []Setting) Chart {
	c.Bars = append([]Bar(nil), bars...)
	c.Key, c.Meter, c.Feel = in[0].Key, in[0].Meter, in[0].Feel
	before := in[0]
	for b := range c.Bars {
		c.Bars[b].Change = in[b].Since(before)
		before = in[b]
	}
	return c
}

// String says the change in the words of a heading: "key Ab major, 2/4, shuffle".
func (ch SettingChange) String() string {
	said := ""
	add := func(what string) {
		if said != "" {
			said += ", "
		}
		said += what
	}
	if ch.Key.Mode != "" {
		add(fmt.Sprintf("key %s %s", ch.Key.Tonic, ch.Key.Mode))
	}
	if ch.Meter != (Meter{}) {
		add(ch.Meter.String())
	}
	if ch.Feel != "" {
		add(string(ch.Feel))
	}
	return said
}
