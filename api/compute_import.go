package api

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/chartfile"
	"undaris/format/reading"
)

// Imported is a chart read from a file or a paste; nothing is kept of it yet.
type Imported struct {
	ReadChart
	Format  string   `json:"format" doc:"What the file was read as"`
	Remarks []Remark `json:"remarks" doc:"What was not used, and what was taken for granted"`
}

// Remark is said of one line of a file.
type Remark struct {
	Line   int    `json:"line" doc:"From 1; 0 for the file as a whole. A measure, in files without lines"`
	Source string `json:"source"`
	Text   string `json:"text"`
}

// maxImport is the largest file that is read, 8 MiB.
const maxImport = 8 << 20

type importRequest struct {
	Name    string `query:"name" doc:"The file's name; left out for a paste"`
	RawBody []byte `contentType:"application/octet-stream"`
}

func (s *server) registerComputeImport(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "import-chart", Method: http.MethodPost, Path: importPath, MaxBodyBytes: maxImport,
		Summary: "Read a chart from a bar grid, ChordPro, MusicXML (plain or compressed) or MIDI",
	}, func(_ context.Context, in *importRequest) (*body[Imported], error) {
		r, format, err := chartfile.Read(in.Name, in.RawBody)
		if err != nil {
			return nil, unreadable(format.Title, err)
		}
		return &body[Imported]{Imported{ReadChart: readChart(r.Chart), Format: format.Title, Remarks: remarksOf(r.Remarks)}}, nil
	})
}

const importPath = "/api/compute/chart/import"

// unreadable is the problem for a file that cannot be read: every fault with its
// place.
func unreadable(format string, err error) error {
	faults, ok := err.(reading.Faults)
	if !ok {
		return err
	}
	fields := make([]FieldProblem, len(faults))
	for n, fault := range faults {
		fields[n] = faultIn(fault)
	}
	remarks := faults[0].Error()
	if len(faults) > 1 {
		remarks = fmt.Sprintf("%d places cannot be read", len(faults))
	}
	return problem(http.StatusUnprocessableEntity, fmt.Sprintf("read as %s: %s", format, remarks), fields...)
}
