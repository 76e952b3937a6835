package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"reflect"
	"strings"

	"github.com/swaggest/jsonschema-go"
	"github.com/swaggest/openapi-go"
	"github.com/swaggest/openapi-go/openapi31"

	"shoal/internal/engine"
	"shoal/internal/project/view"
	"shoal/internal/questions"
	"shoal/internal/sounding"
)

// OpenAPI generates the description of the API from the Go types.
func OpenAPI() ([]byte, error) {
	r := openapi31.NewReflector()
	r.Spec.Info.Title, r.Spec.Info.Version = "Shoal", "1"
	r.Spec.SetDescription("Errors are RFC 9457 problem documents.")
	// lists in our documents are empty, never null
	r.DefaultOptions = append(r.DefaultOptions, jsonschema.InterceptNullability(func(p jsonschema.InterceptNullabilityParams) {
		switch {
		case !p.NullAdded:
		case p.Type.Kind() == reflect.Slice:
			p.Schema.Type = nil
			p.Schema.AddType(jsonschema.Array)
		case p.Type.Kind() == reflect.Map:
			p.Schema.Type = nil
			p.Schema.AddType(jsonschema.Object)
		}
	}))
	r.DefaultOptions = append(r.DefaultOptions, jsonschema.InterceptSchema(fieldsOfChanges))
	for _, x := range table() {
		path := x.path
		for _, part := range strings.Split(path, "/") {
			if strings.HasPrefix(part, ":") {
				path = strings.Replace(path, part, "{"+part[1:]+"}", 1)
			}
		}
		op, err := r.NewOperationContext(x.method, path)
		if err != nil {
			return nil, fmt.Errorf("describe %s %s: %w", x.method, x.path, err)
		}
		op.SetSummary(x.says)
		if x.in != nil {
			op.AddReqStructure(x.in)
		}
		if x.out != nil {
			op.AddRespStructure(x.out)
		} else {
			op.AddRespStructure(nil, openapi.WithHTTPStatus(http.StatusOK))
		}
		op.AddRespStructure(
			Problem{},
			openapi.WithHTTPStatus(http.StatusUnprocessableEntity),
			openapi.WithContentType("application/problem+json"),
		)
		if err := r.AddOperation(op); err != nil {
			return nil, fmt.Errorf("describe %s %s: %w", x.method, x.path, err)
		}
	}
	// types that only travel inside WebSocket messages or the engine's answers
	told := map[string]any{
		"timeline":  view.Timeline{},
		"layout":    []engine.Point{},
		"costs":     []engine.Cost{},
		"soundings": []sounding.Sounding{},
		"trip":      engine.Trip{},
		"arriving":  map[string]engine.Arrival{},
	}
	for name, v := range told {
		if err := describeUnserved(r, "/engine/"+name, "Not served: what the engine in the browser tells.", nil, v); err != nil {
			return nil, err
		}
	}
	for _, q := range questions.All() {
		if err := describeUnserved(
			r,
			"/engine/ask/"+q.Name,
			"Not served: what is asked of the engine in the browser.",
			q.In,
			q.Out,
		); err != nil {
			return nil, err
		}
	}
	if err := describeChanges(r); err != nil {
		return nil, err
	}
	return json.MarshalIndent(r.Spec, "", " ")
}

// describeUnserved describes what travels between a page and its engine, so that the page's types are generated.
func describeUnserved(r *openapi31.Reflector, path, says string, in, out any) error {
	op, err := r.NewOperationContext(http.MethodPost, path)
	if err != nil {
		return fmt.Errorf("describe %s: %w", path, err)
	}
	op.SetSummary(says)
	if in != nil {
		op.AddReqStructure(in)
	}
	op.AddRespStructure(out)
	return r.AddOperation(op)
}
