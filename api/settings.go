package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/library/documents"
)

// replacingSetting is a request to replace what is kept once.
type replacingSetting[Content any] struct {
	IfMatch string `header:"If-Match" doc:"The ETag of the version that is replaced, in place of the body's version"`
	Body    Content
}

// save is the version that is replaced: the header's or, without one, the body's; 0 is for what was never kept.
func (in replacingSetting[Content]) save(version int) (documents.Save, error) {
	if in.IfMatch == "" {
		return documents.Save{Version: version}, nil
	}
	version, err := versionOf(in.IfMatch, version, "body.version")
	return documents.Save{Version: version}, err
}

type settingRevision struct {
	Revision int `path:"revision" minimum:"1"`
}

type restoreSetting struct {
	Revision int `path:"revision" minimum:"1"`
	Body     struct {
		Version int `json:"version" minimum:"1" doc:"The present version, which the restored one replaces"`
	}
}

// serveSettingVersions registers what is done with the versions of a setting, as those of every kept thing.
func serveSettingVersions[Body, View any](api huma.API, s *server, path, noun string, setting documents.Setting[Body], view func(documents.KeptSetting[Body]) *tagged[View]) {
	gets(api, path+"/revisions", func(ctx context.Context, _ *struct{}) (*body[[]Revision], error) {
		all, err := setting.Revisions(ctx, s.library)
		out := make([]Revision, len(all))
		for n, one := range all {
			out[n] = Revision{Version: one.Version, Saved: one.Saved, Current: one.Current, Name: one.Name, Damaged: one.Damaged}
		}
		return &body[[]Revision]{out}, err
	}, described("settings", "List the versions of "+noun+", newest first"))
	postsTagged(api, path+"/revisions/{revision}/restore", func(ctx context.Context, in *restoreSetting) (*tagged[View], error) {
		kept, err := setting.RestoreRevision(ctx, s.library, in.Revision, in.Body.Version)
		if err != nil {
			return nil, storeProblem(fmt.Sprintf("version %d", in.Revision), 0, err)
		}
		return view(kept), nil
	}, described("settings", "Make an earlier version of "+noun+" the present one"))
	huma.Get(api, path+"/revisions/{revision}/text", func(ctx context.Context, in *settingRevision) (*file, error) {
		text, err := setting.Text(ctx, s.library, in.Revision)
		if err != nil {
			return nil, storeProblem(fmt.Sprintf("version %d", in.Revision), 0, err)
		}
		return &file{Type: "application/json", Disposition: attached("settings.json"), Body: text}, nil
	}, described("settings", "A version of "+noun+" as it is stored, whether it can be read or not"), fileAnswer("application/json"))
}
