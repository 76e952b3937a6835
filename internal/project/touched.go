package project

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
)

// Facets is a document taken apart, to see who touched what: everything that has an id stands for itself, with the
// values that it has, where it is, and in which order what it holds stands.
type Facets map[string]any

// facetKeys are the fields by which things are told from each other.
var facetKeys = []string{"id", "hash"}

// FacetsOf takes a document apart, which is given as JSON without its lines. Those stand under their parameter.
func FacetsOf(rest []byte, lines []*Line) (Facets, error) {
	var v map[string]any
	if err := json.Unmarshal(rest, &v); err != nil {
		return nil, fmt.Errorf("take the document apart: %w", err)
	}
	f := Facets{}
	f.thing(v, "")
	for _, l := range lines {
		f["line "+l.Owner+" "+l.Name] = l
	}
	return f, nil
}

func keyOf(v any) (string, bool) {
	m, ok := v.(map[string]any)
	if !ok {
		return "", false
	}
	for _, k := range facetKeys {
		if id, ok := m[k].(string); ok && id != "" {
			return id, true
		}
	}
	return "", false
}

// thing notes one that has an id, which stands at a place of another.
func (f Facets) thing(v map[string]any, place string) {
	id, _ := keyOf(v)
	f["@"+id] = place
	f.fields(v, "#"+id)
}

func (f Facets) fields(v map[string]any, path string) {
	for name, x := range v {
		at := path + "/" + name
		switch x := x.(type) {
		case map[string]any:
			if _, ok := keyOf(x); ok {
				f.thing(x, at)
			} else {
				f.fields(x, at)
			}
		case []any:
			f.list(x, at)
		default:
			f[at] = x
		}
	}
}

func (f Facets) list(list []any, at string) {
	var ids []string
	for _, x := range list {
		id, ok := keyOf(x)
		if !ok {
			// a node of a chain is a stage or a fork, and has their id
			if m, node := x.(map[string]any); node && len(m) == 1 {
				for _, inner := range m {
					id, ok = keyOf(inner)
				}
			}
		}
		if !ok {
			f[at] = list
			return
		}
		ids = append(ids, id)
	}
	f["order "+at] = ids
	for _, x := range list {
		m := x.(map[string]any)
		if _, ok := keyOf(m); !ok {
			for _, inner := range m {
				m = inner.(map[string]any)
			}
		}
		f.thing(m, at)
	}
}

// Touched lists what differs between two revisions: a value as #id/field, a place as @id, all of what came or went as
// #id, and the order of a list where what was in it before stands in another one.
func Touched(old, next Facets) []string {
	var out []string
	for k, a := range old {
		b, there := next[k]
		switch {
		case !there:
			out = append(out, entire(k, next))
		case strings.HasPrefix(k, "order "):
			if reordered(a.([]string), b.([]string)) {
				out = append(out, k)
			}
		case strings.HasPrefix(k, "line "):
			if !a.(*Line).SamePoints(b.(*Line)) {
				out = append(out, k)
			}
		case !reflect.DeepEqual(a, b):
			out = append(out, k)
		}
	}
	for k := range next {
		if _, there := old[k]; !there {
			out = append(out, entire(k, old))
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// entire is all of a thing, if that is not in the other revision, or only this facet of it.
func entire(k string, other Facets) string {
	id, _, _ := strings.Cut(strings.TrimPrefix(strings.TrimPrefix(strings.TrimPrefix(k, "order "), "#"), "@"), "/")
	if _, there := other["@"+id]; !there && !strings.HasPrefix(k, "line ") {
		return "#" + id
	}
	return k
}

func reordered(a, b []string) bool {
	keep := func(list, of []string) (out []string) {
		for _, id := range list {
			if slices.Contains(of, id) {
				out = append(out, id)
			}
		}
		return out
	}
	return !slices.Equal(keep(a, b), keep(b, a))
}

// Meet reports whether two lists of what was touched have something in common: the same value, or a thing of which
// the other touched a part.
func Meet(a, b []string) bool {
	for _, x := range a {
		for _, y := range b {
			if x == y || partOf(x, y) || partOf(y, x) {
				return true
			}
		}
	}
	return false
}

// partOf reports whether x speaks of a part or the place of the thing y.
func partOf(x, y string) bool {
	id, thing := strings.CutPrefix(y, "#")
	if !thing || strings.Contains(id, "/") {
		return false
	}
	return strings.HasPrefix(x, y+"/") || x == "@"+id || strings.HasPrefix(x, "order "+y+"/") || strings.HasPrefix(x, "line "+id+" ")
}
