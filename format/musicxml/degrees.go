package musicxml

import (
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// plainKinds are the kinds that stand for a quality without any degree, with their degrees.
var plainKinds = func() map[string][]pitch.Degree {
	plain := map[string][]pitch.Degree{}
	for _, k := range kinds {
		if k.degrees == "" {
			plain[k.name] = degreesOf(k.sign)
		}
	}
	return plain
}()

func degreesOf(sign string) []pitch.Degree {
	chord, err := harmony.ParseChord("C" + sign)
	if err != nil {
		panic("musicxml: " + err.Error()) // a fault of the table of kinds
	}
	return chord.Quality.Degrees()
}

// kindFor is how a quality is written: as the table has it, or else as the plain kind that needs
// the fewest degrees added, altered and taken out.
func kindFor(quality *harmony.Quality) kind {
	if k, ok := bySign[quality.Sign]; ok {
		return k
	}
	best, fewest := kind{}, -1
	for _, k := range kinds {
		if k.degrees != "" {
			continue
		}
		changes := changesBetween(plainKinds[k.name], quality.Degrees())
		if fewest < 0 || len(changes) < fewest {
			best, fewest = kind{sign: quality.Sign, name: k.name, degrees: strings.Join(changes, " ")}, len(changes)
		}
	}
	return best
}

// changesBetween are the degrees taken out (-), altered (~, as they are afterwards) and added (+) that lead from one
// set of degrees to another.
func changesBetween(from, to []pitch.Degree) []string {
	changes := []string{}
	added := slices.DeleteFunc(slices.Clone(to), func(d pitch.Degree) bool { return slices.Contains(from, d) })
	for _, d := range from {
		if slices.Contains(to, d) {
			continue
		}
		if n := slices.IndexFunc(added, func(a pitch.Degree) bool { return a.Number == d.Number }); n >= 0 {
			changes = append(changes, "~"+added[n].String())
			added = slices.Delete(added, n, n+1)
			continue
		}
		changes = append(changes, "-"+pitch.Degree{Number: d.Number}.String())
	}
	for _, d := range added {
		changes = append(changes, "+"+d.String())
	}
	return changes
}

// changed are the degrees of a plain kind after the changes; false where a degree is taken out that the kind
// does not have. What is altered without being there is added, as programs write a 13 with a raised 11.
func changed(plain []pitch.Degree, changes []string) ([]pitch.Degree, bool) {
	degrees := slices.Clone(plain)
	for _, change := range changes {
		d := pitch.MustDegree(change[1:])
		n := slices.IndexFunc(degrees, func(held pitch.Degree) bool { return held.Number == d.Number })
		switch {
		case change[0] == '-' && n >= 0:
			degrees = slices.Delete(degrees, n, n+1)
		case change[0] == '-' && d.Number != 11:
			return nil, false // our thirteenths have no 11 to take out
		case change[0] == '~' && n >= 0:
			degrees[n] = d
		case change[0] != '-' && !slices.Contains(degrees, d):
			degrees = append(degrees, d)
		}
	}
	return degrees, true
}

// signOf finds the quality that a kind and its degrees mean.
func signOf(name string, changes []string) (string, bool) {
	if sign, ok := byID[name+" "+sorted(slices.Clone(changes))]; ok {
		return sign, true
	}
	plain, ok := plainKinds[name]
	if !ok {
		return "", false
	}
	degrees, ok := changed(plain, changes)
	if !ok {
		return "", false
	}
	quality, ok := harmony.QualityOf(degrees)
	if !ok {
		return "", false
	}
	return quality.Sign, true
}
