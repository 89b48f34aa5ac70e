package api

import (
	"context"
	"errors"
	"fmt"
	"mime"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/choice"
	"undaris/library/documents"
	"undaris/store"
)

// Kept is what every kept document carries.
type Kept struct {
	ID      uint      `json:"id"`
	Version int       `json:"version" doc:"Given with a save, here or as If-Match, so that no other save is overwritten"`
	Saved   time.Time `json:"saved"`
	// Damaged is left out of what can be read.
	Damaged string `json:"damaged,omitempty" doc:"What is wrong with one that cannot be read; then only its name, its versions and its text can be had"`
	// Mended is left out where nothing was.
	Mended []string `json:"mended,omitempty" doc:"Values that no rule of today allows, and what stands in their place until it is saved"`
}

func keptOf(i documents.Info) Kept { return Kept{ID: i.ID, Version: i.Version, Saved: i.Saved} }

// Revision is a version of a kept document.
type Revision struct {
	Version int       `json:"version"`
	Saved   time.Time `json:"saved"`
	Current bool      `json:"current"`
	Name    string    `json:"name"`
	// Label is left out of what has no name.
	Label string `json:"label,omitempty" doc:"What the player calls the version"`
	Text  string `json:"text" doc:"What it holds, or what it changed of the version before, in words"`
	// Damaged is left out of what can be read.
	Damaged string `json:"damaged,omitempty" doc:"What is wrong with a version that cannot be read"`
}

// Replacing names the version that a save replaces.
type Replacing struct {
	Version int `json:"version,omitempty" minimum:"1" doc:"The version that this one replaces; left out where If-Match names it"`
	// KeepBefore is for saves over what someone else has written.
	KeepBefore bool `json:"keepBefore,omitempty" doc:"Keep the version that is replaced, even if it is of the same sitting"`
	// What GET gives PUT takes: all that is computed of a document is left aside.
	_ struct{} `json:"-" additionalProperties:"true"`
}

func (r Replacing) replacing() Replacing { return r }

// replacement is the body of a request to replace a document.
type replacement[Body any] interface {
	replacing() Replacing
	content() Body
}

// byID addresses one document.
type byID struct {
	ID uint `path:"id"`
}

// ofChart chooses the documents of one tune.
type ofChart struct {
	ChartID uint `query:"chart" doc:"Only those over this chart; left out for all"`
}

// ofPage chooses some of the documents of a list.
type ofPage struct {
	ChartID uint   `query:"chart" doc:"Only those over this chart; left out for all"`
	Limit   int    `query:"limit" minimum:"1" maximum:"5000" doc:"At most so many; left out for all"`
	After   uint   `query:"after" doc:"Those after the one with this id, in the order they were made"`
	Search  string `query:"search" maxLength:"200" doc:"Those with this in their name"`
}

// replacing is a request to replace a document.
type replacing[Content any] struct {
	ID      uint   `path:"id"`
	IfMatch string `header:"If-Match" doc:"The ETag of the version that is replaced, in place of the body's version"`
	Body    Content
}

// deletion is a request to delete a version of a document.
type deletion struct {
	ID      uint   `path:"id"`
	IfMatch string `header:"If-Match" doc:"The ETag of the version that is deleted, in place of version"`
	Version int    `query:"version" minimum:"1" doc:"The version that is deleted; left out where If-Match names it"`
}

type restoreRevision struct {
	ID       uint   `path:"id"`
	Revision int    `path:"revision" minimum:"1"`
	IfMatch  string `header:"If-Match" doc:"The ETag of the present version, in place of the body's version"`
	Body     struct {
		Version int `json:"version,omitempty" minimum:"1" doc:"The present version, which the restored one replaces; left out where If-Match names it"`
	}
}

// VersionLabel names a version.
type VersionLabel struct {
	Label string `json:"label" doc:"At most 60 characters; empty takes the name away"`
}

type labelVersion struct {
	ID       uint `path:"id"`
	Revision int  `path:"revision" minimum:"1"`
	Body     VersionLabel
}

// exported names the format a document is written in.
type exported struct {
	ID     uint   `path:"id"`
	Format string `path:"format" doc:"One of those that /api/choices lists for the kind"`
}

// tagged is one document with its version as an ETag.
type tagged[View any] struct {
	ETag string `header:"ETag"`
	Body View
}

// file is a response that the browser keeps as a file.
type file struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// resource is one kind of document as it is served.
type resource[Body, Summary, View, Entry any] struct {
	// path is below /api.
	path string
	kind documents.Kind[Body, Summary]
	// view is what is answered for one; entry is one of a list.
	view  func(context.Context, documents.Item[Body]) (View, error)
	entry func(documents.Entry[Summary]) Entry
	// texts say what the revisions hold, newest first.
	texts func([]documents.Revision[Body]) []string
	// export writes one in a format; nil where there is none.
	export func(ctx context.Context, item documents.Item[Body], format string) (*file, error)
	// formats are their short names.
	formats []string
	single  bool
}

// serve registers the verbs that all kinds have in common, but for those that read a body.
func serve[Body, Summary, View, Entry any](api huma.API, s *server, r resource[Body, Summary, View, Entry]) {
	path, noun := "/api/"+r.path, r.kind.Noun
	one := func(ctx context.Context, item documents.Item[Body], id uint, err error) (*tagged[View], error) {
		if err != nil {
			return nil, storeProblem(noun, id, err)
		}
		view, err := r.view(ctx, item)
		return &tagged[View]{ETag: etag(item.Version), Body: view}, err
	}
	getsTagged(api, path+"/{id}", func(ctx context.Context, in *byID) (*tagged[View], error) {
		item, err := r.kind.Read(ctx, s.library, in.ID)
		return one(ctx, item, in.ID, err)
	}, described(r.path, "Read one "+noun))
	huma.Delete(api, path+"/{id}", func(ctx context.Context, in *deletion) (*struct{}, error) {
		version, err := versionOf(in.IfMatch, in.Version, "query.version")
		if err != nil {
			return nil, err
		}
		return nil, storeProblem(noun, in.ID, r.kind.Delete(ctx, s.library, in.ID, version))
	}, described(r.path, fmt.Sprintf("Delete a %s; it can be restored", noun)))
	postsTagged(api, path+"/{id}/restore", func(ctx context.Context, in *byID) (*tagged[View], error) {
		item, err := r.kind.Restore(ctx, s.library, in.ID)
		return one(ctx, item, in.ID, err)
	}, described(r.path, "Bring a deleted "+noun+" back"))
	if r.entry != nil {
		gets(api, path+"/deleted", func(ctx context.Context, _ *struct{}) (*body[[]Entry], error) {
			all, err := r.kind.Deleted(ctx, s.library)
			return &body[[]Entry]{each(all, r.entry)}, err
		}, described(r.path, "List the deleted "+r.path+", the latest first"))
	}
	if !r.single {
		postsTagged(api, path+"/{id}/duplicate", func(ctx context.Context, in *byID) (*tagged[View], error) {
			item, err := r.kind.Duplicate(ctx, s.library, in.ID)
			return one(ctx, item, in.ID, err)
		}, described(r.path, "Keep a copy of a "+noun), created)
	}
	gets(api, path+"/{id}/revisions", func(ctx context.Context, in *byID) (*body[[]Revision], error) {
		all, err := r.kind.Revisions(ctx, s.library, in.ID)
		if err != nil {
			return nil, storeProblem(noun, in.ID, err)
		}
		texts := r.texts(all)
		out := make([]Revision, len(all))
		for n, one := range all {
			out[n] = Revision{Version: one.Version, Saved: one.Saved, Current: one.Current, Name: one.Name, Label: one.Label, Text: texts[n], Damaged: one.Damaged}
		}
		return &body[[]Revision]{out}, nil
	}, described(r.path, "List the versions of a "+noun+", newest first"))
	postsTagged(api, path+"/{id}/revisions/{revision}/restore", func(ctx context.Context, in *restoreRevision) (*tagged[View], error) {
		version, err := versionOf(in.IfMatch, in.Body.Version, "body.version")
		if err != nil {
			return nil, err
		}
		item, err := r.kind.RestoreRevision(ctx, s.library, in.ID, in.Revision, version)
		return one(ctx, item, in.ID, err)
	}, described(r.path, "Make an earlier version of a "+noun+" the present one"))
	huma.Put(api, path+"/{id}/revisions/{revision}/label", func(ctx context.Context, in *labelVersion) (*struct{}, error) {
		err := r.kind.LabelVersion(ctx, s.library, in.ID, in.Revision, in.Body.Label)
		return nil, storeProblem(fmt.Sprintf("version %d of the %s", in.Revision, noun), in.ID, err)
	}, described(r.path, "Name a version of a "+noun))
	huma.Get(api, path+"/{id}/text", func(ctx context.Context, in *byID) (*file, error) {
		name, text, err := r.kind.Text(ctx, s.library, in.ID)
		if err != nil {
			return nil, storeProblem(noun, in.ID, err)
		}
		return &file{Type: "application/json", Disposition: attached(name + ".json"), Body: text}, nil
	}, described(r.path, "The "+noun+" as it is stored, whether it can be read or not"), fileAnswer("application/json"))
	if r.export == nil {
		return
	}
	huma.Get(api, path+"/{id}/export/{format}", func(ctx context.Context, in *exported) (*file, error) {
		item, err := r.kind.Read(ctx, s.library, in.ID)
		if err != nil {
			return nil, storeProblem(noun, in.ID, err)
		}
		out, err := r.export(ctx, item, in.Format)
		var unknown *choice.Error
		if errors.As(err, &unknown) && unknown.Name == in.Format {
			p := fieldProblem("path.format", err)
			return nil, problem(http.StatusNotFound, p.Message, p)
		}
		return out, err
	}, described(r.path, "Write a "+noun+" as a file: "+strings.Join(r.formats, ", ")), fileAnswer("application/octet-stream"))
}

// serveList registers the list of a kind that has summaries.
func serveList[Body, Summary, View, Entry any](api huma.API, s *server, r resource[Body, Summary, View, Entry]) {
	gets(api, "/api/"+r.path, func(ctx context.Context, in *ofPage) (*body[[]Entry], error) {
		all, err := r.kind.Page(ctx, s.library, in.ChartID, store.Page{Limit: in.Limit, After: in.After, Search: in.Search})
		return &body[[]Entry]{each(all, r.entry)}, err
	}, described(r.path, "List the "+r.path+", all or page by page"))
}

// serveReplace registers the replacing of a kind, whose body is below a field of the request.
func serveReplace[Body, Summary, View, Entry any, Content replacement[Body]](api huma.API, s *server, r resource[Body, Summary, View, Entry], field string, more ...func(*huma.Operation)) {
	replaces(api, "/api/"+r.path+"/{id}", func(ctx context.Context, in *replacing[Content]) (*tagged[View], error) {
		about := in.Body.replacing()
		version, err := versionOf(in.IfMatch, about.Version, "body.version")
		if err != nil {
			return nil, err
		}
		item, err := r.kind.Replace(ctx, s.library, in.ID, documents.Save{Version: version, KeepBefore: about.KeepBefore}, in.Body.content())
		if err != nil {
			return nil, saveProblem(r.kind.Noun, field, in.ID, err)
		}
		view, err := r.view(ctx, item)
		return &tagged[View]{ETag: etag(item.Version), Body: view}, err
	}, append(more, described(r.path, "Replace a version of a "+r.kind.Noun))...)
}

func each[In, Out any](all []In, of func(In) Out) []Out {
	out := make([]Out, len(all))
	for n, one := range all {
		out[n] = of(one)
	}
	return out
}

func etag(version int) string { return strconv.Quote(strconv.Itoa(version)) }

// versionOf is the version that a request names: by If-Match, or else by a field.
func versionOf(ifMatch string, version int, field string) (int, error) {
	if ifMatch != "" {
		named, err := strconv.Atoi(strings.Trim(strings.TrimPrefix(ifMatch, "W/"), `"`))
		if err != nil || named < 1 {
			return 0, problem(http.StatusUnprocessableEntity, "If-Match is the ETag of a version, such as \"3\"",
				FieldProblem{Field: "header.If-Match", Message: "the ETag of a version, such as \"3\"", Value: ifMatch})
		}
		return named, nil
	}
	if version < 1 {
		return 0, problem(http.StatusPreconditionRequired, "say which version is meant, by version or If-Match, so that no other save is overwritten",
			FieldProblem{Field: field, Message: "the version that is replaced is required"})
	}
	return version, nil
}

// described gives an operation its tag and summary.
func described(tag, summary string) func(*huma.Operation) {
	return func(o *huma.Operation) { o.Tags, o.Summary = []string{tag}, summary }
}

func created(o *huma.Operation) { o.DefaultStatus = http.StatusCreated }

// fileAnswer describes an answer that is a file of a media type.
func fileAnswer(media string) func(*huma.Operation) {
	return func(o *huma.Operation) {
		o.Responses = map[string]*huma.Response{"200": {
			Description: "The file", Content: map[string]*huma.MediaType{media: {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}},
		}}
	}
}

// attached asks the browser to keep a response as a file of this name.
func attached(name string) string {
	return mime.FormatMediaType("attachment", map[string]string{"filename": fileName(name)})
}

// fileName is the title as a file may be called on any machine.
func fileName(title string) string {
	name := strings.Map(func(c rune) rune {
		if c < ' ' || strings.ContainsRune(`<>:"/\|?*`, c) {
			return '-'
		}
		return c
	}, title)
	return strings.Trim(name, " .")
}

// counted says how many there are of something: "one note", "3 notes".
func counted(n int, one, many string) string {
	if n == 1 {
		return "one " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}
