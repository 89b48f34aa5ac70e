package musicxml

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"path"
	"strings"
	"unicode/utf8"

	"undaris/format/reading"
)

// MaxUnpacked is how large an archive may become, in bytes.
const MaxUnpacked = 32 << 20

const containerFile = "META-INF/container.xml"

// unpack takes the score out of a compressed archive.
func unpack(data []byte) ([]byte, error) {
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return nil, reading.Wrong("the archive cannot be unpacked: %s", err)
	}
	left := int64(MaxUnpacked)
	container, err := file(archive, containerFile, &left)
	if err != nil {
		return nil, err
	}
	var index struct {
		Files []struct {
			Path string `xml:"full-path,attr"`
		} `xml:"rootfiles>rootfile"`
	}
	if err := plainXML(container); err != nil {
		return nil, err
	}
	if err := xml.Unmarshal(container, &index); err != nil || len(index.Files) == 0 {
		return nil, reading.Wrong("the archive does not say which of its files is the score (%s)", containerFile)
	}
	return file(archive, path.Clean(index.Files[0].Path), &left)
}

// file unpacks one file of an archive, of which left bytes may still come.
func file(archive *zip.Reader, name string, left *int64) ([]byte, error) {
	for _, f := range archive.File {
		if f.Name != name {
			continue
		}
		reader, err := f.Open()
		if err != nil {
			return nil, reading.Wrong("%s in the archive cannot be unpacked: %s", name, err)
		}
		defer func() { _ = reader.Close() }()
		data, err := io.ReadAll(io.LimitReader(reader, *left+1))
		if int64(len(data)) > *left {
			return nil, reading.Wrong("the archive unpacks to more than %d MiB; that is more than a chart can be", MaxUnpacked>>20)
		}
		if err != nil {
			return nil, reading.Wrong("%s in the archive cannot be unpacked: %s", name, err)
		}
		*left -= int64(len(data))
		return data, nil
	}
	return nil, reading.Wrong("the archive has no file %s", name)
}

// maxElements is how many elements a score may have; they take memory.
const maxElements = 1_000_000

// plainXML refuses what a score has no need of and an attacker might: entities
// of its own, which may be external or grow without end (the decoder itself
// resolves none), and elements without end.
func plainXML(data []byte) error {
	if !utf8.Valid(data) {
		return reading.Wrong("the file is not UTF-8")
	}
	decoder := xml.NewDecoder(bytes.NewReader(data))
	for elements := 0; ; {
		token, err := decoder.RawToken()
		if err != nil {
			return nil // the reading proper says what is wrong
		}
		switch t := token.(type) {
		case xml.Directive:
			if bytes.Contains(bytes.ToUpper(t), []byte("<!ENTITY")) || bytes.Contains(t, []byte("[")) {
				line, _ := decoder.InputPos()
				return reading.Faults{{Line: line, Detail: "the file declares entities of its own; those are not read, and nothing is fetched from elsewhere"}}
			}
		case xml.StartElement:
			if elements++; elements > maxElements {
				return reading.Wrong("the file has more than %d elements; that is more than a chart can be", maxElements)
			}
		}
	}
}

func decode(data []byte) (*score, error) {
	data = bytes.TrimPrefix(data, []byte("\ufeff"))
	if err := plainXML(data); err != nil {
		return nil, err
	}
	decoder := xml.NewDecoder(bytes.NewReader(data))
	decoder.CharsetReader = func(charset string, input io.Reader) (io.Reader, error) {
		return nil, fmt.Errorf("the encoding %s is not read; save the file as UTF-8", charset)
	}
	s := &score{}
	if err := decoder.Decode(s); err != nil {
		line, _ := decoder.InputPos()
		var syntax *xml.SyntaxError
		if errors.As(err, &syntax) {
			return nil, reading.Faults{{Line: syntax.Line, Detail: "the file is not well-formed XML: " + syntax.Msg}}
		}
		if strings.Contains(err.Error(), "expected element type <score-partwise>") {
			return nil, reading.Faults{{Line: line, Detail: "the file is no MusicXML score by parts (score-partwise)"}}
		}
		return nil, reading.Faults{{Line: line, Detail: "the file cannot be read: " + err.Error()}}
	}
	return s, nil
}
