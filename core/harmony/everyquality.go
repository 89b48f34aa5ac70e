package harmony

import (
	"slices"
	"strings"

	"undaris/core/pitch"
)

// bySpec are all qualities that there are: those of the table as it has them, and every other
// combination that makes sense.
var bySpec = func() map[spec]*Quality {
	all := map[spec]*Quality{}
	flags := []bool{false, true}
	each := func(add func(spec)) {
		for third := majorThird; third <= noThird; third++ {
			for _, fifth := range []int{-1, 0, 1} {
				for seventh := noSeventh; seventh <= diminishedSeventh; seventh++ {
					for mask := range 1 << 9 {
						bit := func(n int) bool { return flags[mask>>n&1] }
						add(spec{third: third, fifth: fifth, seventh: seventh, sixth: bit(0), flatNinth: bit(1), ninth: bit(2), sharpNinth: bit(3), eleventh: bit(4),
							sharpEleventh: bit(5), flatThirteenth: bit(6), thirteenth: bit(7), altered: bit(8)})
					}
				}
			}
		}
	}
	table := map[string]*Quality{}
	for _, q := range qualities {
		table[q.Sign] = q
	}
	each(func(s spec) {
		if !s.isValid() {
			return
		}
		s = s.canonical()
		if all[s] != nil || !s.isValid() {
			return
		}
		sign := s.sign()
		q := table[sign]
		if q == nil {
			q = &Quality{Sign: sign, Name: s.name(), degrees: s.degrees(), family: s.family()}
		}
		all[s] = q
	})
	return all
}()

// byDegrees are all qualities by the degrees that they hold.
var byDegrees = func() map[string]*Quality {
	all := map[string]*Quality{}
	for _, q := range bySpec {
		key := degreeKey(q.degrees)
		if known := all[key]; known == nil || len(q.Sign) < len(known.Sign) {
			all[key] = q
		}
	}
	return all
}()

func degreeKey(degrees []pitch.Degree) string {
	texts := make([]string, len(degrees))
	for n, d := range degrees {
		texts[n] = d.String()
	}
	slices.Sort(texts)
	return strings.Join(slices.Compact(texts), " ")
}

// QualityOf finds the quality that holds exactly these degrees over its root.
func QualityOf(degrees []pitch.Degree) (*Quality, bool) {
	q, ok := byDegrees[degreeKey(degrees)]
	return q, ok
}

// Degrees are those of the quality from the root up.
func (q *Quality) Degrees() []pitch.Degree { return slices.Clone(q.degrees) }
