package server

import (
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"

	"github.com/swaggest/jsonschema-go"
	"github.com/swaggest/openapi-go/openapi31"

	"shoal/internal/project"
)

const components = "#/components/schemas/"

// describeChanges says of a change that it is one of those of the registry, each with its fields: the types
// of the front end follow, so a field that no change has does not compile.
func describeChanges(r *openapi31.Reflector) error {
	all := r.Spec.ComponentsEns()
	collect := jsonschema.CollectDefinitions(func(name string, s jsonschema.Schema) {
		if m, err := s.ToSchemaOrBool().ToSimpleMap(); err == nil {
			all.WithSchemasItem(name, m)
		}
	})
	var kinds []any
	changes := project.Changes()
	for _, name := range slices.Sorted(maps.Keys(changes)) {
		s, err := r.Reflect(changes[name], collect, jsonschema.DefinitionsPrefix(components), jsonschema.RootRef)
		if err != nil {
			return fmt.Errorf("describe the change %s: %w", name, err)
		}
		kinds = append(kinds, map[string]any{
			"type": "object", "required": []string{"type", "do"}, "additionalProperties": false,
			"properties": map[string]any{"type": map[string]any{"const": name}, "do": map[string]any{"$ref": *s.Ref}},
		})
	}
	all.WithSchemasItem("ProjectWire", map[string]any{"oneOf": kinds})
	return describeParts(all.Schemas)
}

// describeParts says of a change that holds some fields of a thing, which fields those are.
func describeParts(all map[string]map[string]any) error {
	for change, of := range map[string]string{"ProjectSetMover": "ProjectMover", "ProjectSetHandle": "ProjectHandle"} {
		fields, ok := all[change]["properties"].(map[string]any)
		if !ok || fields["what"] == nil {
			return fmt.Errorf("describe the changes: %s has no field what", change)
		}
		all[of+"Part"] = partly(all, all[of])
		fields["what"] = map[string]any{"$ref": components + of + "Part"}
	}
	return nil
}

// partly is a thing of which any field may be left out, and of those inside it too; what may be missing is null.
func partly(all map[string]map[string]any, whole map[string]any) map[string]any {
	part, fields := maps.Clone(whole), map[string]any{}
	delete(part, "required")
	for name, field := range whole["properties"].(map[string]any) {
		ref, _ := field.(map[string]any)["$ref"].(string)
		if inner, ok := all[strings.TrimPrefix(ref, components)]; ok && inner["properties"] != nil {
			field = map[string]any{"anyOf": []any{partly(all, inner), map[string]any{"type": "null"}}}
		}
		fields[name] = field
	}
	part["properties"] = fields
	return part
}

// fieldsOfChanges marks the fields that a change must have: all that are written even when they are empty.
func fieldsOfChanges(p jsonschema.InterceptSchemaParams) (bool, error) {
	if !p.Processed || p.Schema.Type == nil {
		return false, nil
	}
	t := p.Value.Type()
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	if _, ok := reflect.New(t).Interface().(project.Change); !ok {
		return false, nil
	}
	p.Schema.Required = nil
	for _, f := range reflect.VisibleFields(t) {
		name, rest, _ := strings.Cut(f.Tag.Get("json"), ",")
		if name != "" && !strings.Contains(rest, "omitempty") {
			p.Schema.Required = append(p.Schema.Required, name)
		}
	}
	p.Schema.AdditionalProperties = (&jsonschema.SchemaOrBool{}).WithTypeBoolean(false)
	return false, nil
}
