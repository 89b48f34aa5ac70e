// Package musicxml reads and writes charts as MusicXML 4.0: harmony, meter, key,
// tempo, repeats, endings and sections, plain and compressed (.mxl). Imagined
// chords are a second part; what the format has no element for stands in its
// own place for that, miscellaneous fields.
package musicxml

import "encoding/xml"

// score is the part of score-partwise that a chart needs. Elements that are not
// named here are skipped by the reader.
type score struct {
	XMLName        xml.Name `xml:"score-partwise"`
	Version        string   `xml:"version,attr,omitempty"`
	Work           *work    `xml:"work"`
	MovementTitle  string   `xml:"movement-title,omitempty"`
	Identification *ident   `xml:"identification"`
	PartList       partList `xml:"part-list"`
	Parts          []part   `xml:"part"`
}

type work struct {
	Title string `xml:"work-title,omitempty"`
}

type ident struct {
	Encoding      *encoding      `xml:"encoding"`
	Miscellaneous *miscellaneous `xml:"miscellaneous"`
}

type encoding struct {
	Software string `xml:"software,omitempty"`
}

type miscellaneous struct {
	Fields []field `xml:"miscellaneous-field"`
}

type field struct {
	Name  string `xml:"name,attr"`
	Value string `xml:",chardata"`
}

type partList struct {
	Parts []scorePart `xml:"score-part"`
}

type scorePart struct {
	ID   string `xml:"id,attr"`
	Name string `xml:"part-name"`
}

type part struct {
	ID       string    `xml:"id,attr"`
	Measures []measure `xml:"measure"`
}

// measure holds its elements in the order of the file, since a harmony belongs
// to the moment at which it stands.
type measure struct {
	Number string
	// Implicit says that the bar is not counted, as one of a pickup.
	Implicit bool
	Elements []any
}

type attributes struct {
	XMLName   xml.Name       `xml:"attributes"`
	Divisions int            `xml:"divisions,omitempty"`
	Key       *keyMark       `xml:"key"`
	Time      *timeMark      `xml:"time"`
	Staves    int            `xml:"staves,omitempty"`
	Clefs     []clef         `xml:"clef"`
	Staff     *staff         `xml:"staff-details"`
	Transpose *transposeMark `xml:"transpose"`
}

// transposeMark says how far the sound lies from what is written.
type transposeMark struct {
	Diatonic  int     `xml:"diatonic,omitempty"`
	Chromatic float64 `xml:"chromatic"`
	Octaves   int     `xml:"octave-change,omitempty"`
}

// semitones is how many semitones the sound lies above what is written, within some octaves.
func (t transposeMark) semitones() int {
	return int(max(min(t.Chromatic, 24), -24)) + 12*max(min(t.Octaves, 4), -4)
}

// staff is the strings of a tab staff.
type staff struct {
	Number int            `xml:"number,attr,omitempty"`
	Lines  int            `xml:"staff-lines,omitempty"`
	Tuning []stringTuning `xml:"staff-tuning"`
}

// stringTuning is an open string; line 1 is the lowest.
type stringTuning struct {
	Line   int     `xml:"line,attr"`
	Step   string  `xml:"tuning-step"`
	Alter  float64 `xml:"tuning-alter,omitempty"`
	Octave int     `xml:"tuning-octave"`
}

type keyMark struct {
	Fifths int    `xml:"fifths"`
	Mode   string `xml:"mode,omitempty"`
}

type timeMark struct {
	Beats    string `xml:"beats"`
	BeatType string `xml:"beat-type"`
}

type clef struct {
	Number int    `xml:"number,attr,omitempty"`
	Sign   string `xml:"sign"`
	Line   int    `xml:"line,omitempty"`
	Octave int    `xml:"clef-octave-change,omitempty"`
}

type harmonyMark struct {
	XMLName xml.Name   `xml:"harmony"`
	Type    string     `xml:"type,attr,omitempty"`
	Root    *rootMark  `xml:"root"`
	Kind    kindMark   `xml:"kind"`
	Bass    *bassMark  `xml:"bass"`
	Degrees []degree   `xml:"degree"`
	Offset  *offsetTag `xml:"offset"`
}

type offsetTag struct {
	Value float64 `xml:",chardata"`
}

type rootMark struct {
	Step  string  `xml:"root-step"`
	Alter float64 `xml:"root-alter,omitempty"`
}

type bassMark struct {
	Step  string  `xml:"bass-step"`
	Alter float64 `xml:"bass-alter,omitempty"`
}

type kindMark struct {
	Text  string `xml:"text,attr,omitempty"`
	Value string `xml:",chardata"`
}

type degree struct {
	Value int     `xml:"degree-value"`
	Alter float64 `xml:"degree-alter"`
	Type  string  `xml:"degree-type"`
}

type direction struct {
	XMLName   xml.Name        `xml:"direction"`
	Placement string          `xml:"placement,attr,omitempty"`
	Types     []directionType `xml:"direction-type"`
	Sound     *sound          `xml:"sound"`
}

type directionType struct {
	Rehearsal []string   `xml:"rehearsal"`
	Segno     *struct{}  `xml:"segno"`
	Coda      *struct{}  `xml:"coda"`
	Words     []string   `xml:"words"`
	Metronome *metronome `xml:"metronome"`
}

type metronome struct {
	Unit      string     `xml:"beat-unit"`
	Dots      []struct{} `xml:"beat-unit-dot"`
	PerMinute string     `xml:"per-minute"`
}

type sound struct {
	XMLName  xml.Name   `xml:"sound"`
	Tempo    float64    `xml:"tempo,attr,omitempty"`
	DaCapo   string     `xml:"dacapo,attr,omitempty"`
	Segno    string     `xml:"segno,attr,omitempty"`
	DalSegno string     `xml:"dalsegno,attr,omitempty"`
	Coda     string     `xml:"coda,attr,omitempty"`
	ToCoda   string     `xml:"tocoda,attr,omitempty"`
	Fine     string     `xml:"fine,attr,omitempty"`
	Swing    *swingMark `xml:"swing"`
}

// swingMark is the feel: straight, or the ratio of the two eighths of a beat.
type swingMark struct {
	Straight *struct{} `xml:"straight"`
	First    float64   `xml:"first,omitempty"`
	Second   float64   `xml:"second,omitempty"`
	Type     string    `xml:"swing-type,omitempty"`
}

type note struct {
	XMLName   xml.Name   `xml:"note"`
	Grace     *graceMark `xml:"grace"`
	Chord     *struct{}  `xml:"chord"`
	Pitch     *pitchMark `xml:"pitch"`
	Rest      *rest      `xml:"rest"`
	Duration  float64    `xml:"duration,omitempty"`
	Ties      []typed    `xml:"tie"`
	Voice     string     `xml:"voice,omitempty"`
	Type      string     `xml:"type,omitempty"`
	Dots      []dot      `xml:"dot"`
	Tuplet    *tupletOf  `xml:"time-modification"`
	Head      *notehead  `xml:"notehead"`
	Staff     int        `xml:"staff,omitempty"`
	Notations *notations `xml:"notations"`
}

// graceMark is a grace note; Steals is how many percent of its time it takes from the
// note before.
type graceMark struct {
	Steals float64 `xml:"steal-time-previous,attr,omitempty"`
}

type pitchMark struct {
	Step   string  `xml:"step"`
	Alter  float64 `xml:"alter,omitempty"`
	Octave int     `xml:"octave"`
}

type tupletOf struct {
	Actual int `xml:"actual-notes"`
	Normal int `xml:"normal-notes"`
}

// typed is an element that starts or stops something; Text is what stands in it.
type typed struct {
	Type   string `xml:"type,attr,omitempty"`
	Number int    `xml:"number,attr,omitempty"`
	Text   string `xml:",chardata"`
}

type notations struct {
	Tied         []typed       `xml:"tied"`
	Slides       []typed       `xml:"slide"`
	Glissandi    []typed       `xml:"glissando"`
	Ornaments    *ornaments    `xml:"ornaments"`
	Technical    *technical    `xml:"technical"`
	Articulation *articulation `xml:"articulations"`
	Other        []typed       `xml:"other-notation"`
}

type ornaments struct {
	Trill *struct{} `xml:"trill-mark"`
	Wavy  []typed   `xml:"wavy-line"`
}

// notehead is how the head of a note looks: x for a dead one, in brackets for a ghost note.
type notehead struct {
	Parentheses string `xml:"parentheses,attr,omitempty"`
	Text        string `xml:",chardata"`
}

type technical struct {
	Fingering string       `xml:"fingering,omitempty"`
	String    int          `xml:"string,omitempty"`
	Fret      *int         `xml:"fret"`
	HammerOn  []typed      `xml:"hammer-on"`
	PullOff   []typed      `xml:"pull-off"`
	Bends     []stringBend `xml:"bend"`
	Other     []typed      `xml:"other-technical"`
}

type stringBend struct {
	Alter   float64   `xml:"bend-alter"`
	PreBend *struct{} `xml:"pre-bend"`
	Release *struct{} `xml:"release"`
}

type articulation struct {
	Accent   *struct{} `xml:"accent"`
	Staccato *struct{} `xml:"staccato"`
	Scoop    *struct{} `xml:"scoop"`
	Plop     *struct{} `xml:"plop"`
	Doit     *struct{} `xml:"doit"`
	Falloff  *struct{} `xml:"falloff"`
}

type dot struct{}

type rest struct {
	Measure string `xml:"measure,attr,omitempty"`
}

type shift struct {
	XMLName  xml.Name
	Duration float64 `xml:"duration"`
}

type barline struct {
	XMLName  xml.Name    `xml:"barline"`
	Location string      `xml:"location,attr,omitempty"`
	Style    string      `xml:"bar-style,omitempty"`
	Ending   *endingMark `xml:"ending"`
	Repeat   *repeatMark `xml:"repeat"`
}

type endingMark struct {
	Number string `xml:"number,attr"`
	Type   string `xml:"type,attr"`
}

type repeatMark struct {
	Direction string `xml:"direction,attr"`
	Times     int    `xml:"times,attr,omitempty"`
}

// played is what the reader keeps of a note: how long it moves the time on, and
// whether it sounds.
type played struct {
	duration float64
	rest     bool
	*note
}

// skipped is an element that a chart has no use for.
type skipped struct{ name string }

// MarshalXML writes the elements in their order.
func (m measure) MarshalXML(e *xml.Encoder, start xml.StartElement) error {
	start.Attr = []xml.Attr{{Name: xml.Name{Local: "number"}, Value: m.Number}}
	if m.Implicit {
		start.Attr = append(start.Attr, xml.Attr{Name: xml.Name{Local: "implicit"}, Value: "yes"})
	}
	if err := e.EncodeToken(start); err != nil {
		return err
	}
	for _, element := range m.Elements {
		if err := e.Encode(element); err != nil {
			return err
		}
	}
	return e.EncodeToken(start.End())
}

// UnmarshalXML reads the elements in their order.
func (m *measure) UnmarshalXML(d *xml.Decoder, start xml.StartElement) error {
	for _, attr := range start.Attr {
		switch attr.Name.Local {
		case "number":
			m.Number = attr.Value
		case "implicit":
			m.Implicit = attr.Value == "yes"
		}
	}
	for {
		token, err := d.Token()
		if err != nil {
			return err
		}
		switch t := token.(type) {
		case xml.EndElement:
			return nil
		case xml.StartElement:
			element, err := readElement(d, t)
			if err != nil {
				return err
			}
			m.Elements = append(m.Elements, element)
		}
	}
}

func readElement(d *xml.Decoder, start xml.StartElement) (any, error) {
	var element any
	switch start.Name.Local {
	case "attributes":
		element = &attributes{}
	case "harmony":
		element = &harmonyMark{}
	case "direction":
		element = &direction{}
	case "sound":
		element = &sound{}
	case "note":
		element = &note{}
	case "backup", "forward":
		element = &shift{}
	case "barline":
		element = &barline{}
	default:
		return skipped{start.Name.Local}, d.Skip()
	}
	if err := d.DecodeElement(element, &start); err != nil {
		return nil, err
	}
	if n, ok := element.(*note); ok {
		kept := played{duration: n.Duration, rest: n.Rest != nil, note: n}
		if n.Chord != nil || n.Grace != nil {
			kept.duration = 0
		}
		return kept, nil
	}
	return element, nil
}
