package api

import (
	"context"
	"encoding/json"
	"net/http"
	"reflect"
	"strconv"

	"github.com/danielgtaylor/huma/v2"
)

// The functions here register operations whose bodies are of any type through the few instances of huma's generic code that
// raw and any bodies need. Each instance is a thousand lines to compile, and there would be one for every type; schemas,
// validation and answers are those of the types all the same, held by openapi.json.

// posts registers what a body in JSON is sent to, and that answers with another.
func posts[In, Out any](api huma.API, path string, do func(context.Context, *body[In]) (*body[Out], error), options ...func(*huma.Operation)) {
	huma.Post(api, path, func(ctx context.Context, raw *body[json.RawMessage]) (*body[any], error) {
		in := &body[In]{}
		if err := decode(raw.Body, &in.Body); err != nil {
			return nil, err
		}
		return anyBody(do(ctx, in))
	}, append(options, takes[In](api), answers[Out](api))...)
}

// gets registers what answers with a body in JSON.
func gets[In, Out any](api huma.API, path string, do func(context.Context, *In) (*body[Out], error), options ...func(*huma.Operation)) {
	huma.Get(api, path, func(ctx context.Context, in *In) (*body[any], error) { return anyBody(do(ctx, in)) }, append(options, answers[Out](api))...)
}

// getsTagged is gets of what has an ETag.
func getsTagged[In, Out any](api huma.API, path string, do func(context.Context, *In) (*tagged[Out], error), options ...func(*huma.Operation)) {
	huma.Get(api, path, func(ctx context.Context, in *In) (*tagged[any], error) { return anyTagged(do(ctx, in)) }, append(options, answers[Out](api))...)
}

// postsTagged registers what is done by a POST and answers with what has an ETag.
func postsTagged[In, Out any](api huma.API, path string, do func(context.Context, *In) (*tagged[Out], error), options ...func(*huma.Operation)) {
	huma.Post(api, path, func(ctx context.Context, in *In) (*tagged[any], error) { return anyTagged(do(ctx, in)) }, append(options, answers[Out](api))...)
}

// creates registers what keeps a new document.
func creates[In, Out any](api huma.API, path string, do func(context.Context, *creation[In]) (*tagged[Out], error), options ...func(*huma.Operation)) {
	huma.Post(api, path, func(ctx context.Context, raw *creation[json.RawMessage]) (*tagged[any], error) {
		in := &creation[In]{UID: raw.UID}
		if err := decode(raw.Body, &in.Body); err != nil {
			return nil, err
		}
		return anyTagged(do(ctx, in))
	}, append(options, created, takes[In](api), answers[Out](api))...)
}

// replaces registers what replaces a document.
func replaces[In, Out any](api huma.API, path string, do func(context.Context, *replacing[In]) (*tagged[Out], error), options ...func(*huma.Operation)) {
	huma.Put(api, path, func(ctx context.Context, raw *replacing[json.RawMessage]) (*tagged[any], error) {
		in := &replacing[In]{ID: raw.ID, IfMatch: raw.IfMatch}
		if err := decode(raw.Body, &in.Body); err != nil {
			return nil, err
		}
		return anyTagged(do(ctx, in))
	}, append(options, takes[In](api), answers[Out](api))...)
}

func anyBody[Out any](out *body[Out], err error) (*body[any], error) {
	if err != nil || out == nil {
		return nil, err
	}
	return &body[any]{out.Body}, nil
}

func anyTagged[Out any](out *tagged[Out], err error) (*tagged[any], error) {
	if err != nil || out == nil {
		return nil, err
	}
	return &tagged[any]{out.ETag, out.Body}, nil
}

// decode reads a body that was found to be as its schema says.
func decode(raw json.RawMessage, into any) error {
	if err := json.Unmarshal(raw, into); err != nil {
		return huma.Error422UnprocessableEntity("validation failed", err)
	}
	return nil
}

// takes gives an operation the schema of its request.
func takes[In any](api huma.API) func(*huma.Operation) {
	return func(o *huma.Operation) {
		o.RequestBody = &huma.RequestBody{Content: jsonOf(api, reflect.TypeFor[In](), o.OperationID+"Request")}
	}
}

// answers gives an operation the schema of its answer, and the name that it would have by it.
func answers[Out any](api huma.API) func(*huma.Operation) {
	return func(o *huma.Operation) {
		if o.OperationID == huma.GenerateOperationID(o.Method, o.Path, (*body[any])(nil)) {
			o.OperationID = huma.GenerateOperationID(o.Method, o.Path, (*body[Out])(nil))
		}
		if o.Summary == huma.GenerateSummary(o.Method, o.Path, (*body[any])(nil)) {
			o.Summary = huma.GenerateSummary(o.Method, o.Path, (*body[Out])(nil))
		}
		status := o.DefaultStatus
		if status == 0 {
			status = http.StatusOK
		}
		o.Responses = map[string]*huma.Response{strconv.Itoa(status): {Content: jsonOf(api, reflect.TypeFor[Out](), o.OperationID+"Response")}}
	}
}

func jsonOf(api huma.API, t reflect.Type, hint string) map[string]*huma.MediaType {
	return map[string]*huma.MediaType{"application/json": {Schema: api.OpenAPI().Components.Schemas.Schema(t, true, hint)}}
}
