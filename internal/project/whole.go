package project

import (
	"fmt"
	"reflect"
	"strings"
	"sync"
)

// whole refuses what was read from outside where a list has an empty place (null), or a node is neither stage nor
// fork or both: no code expects that. It says where.
func whole(v any) error {
	if at, ok := hole(reflect.ValueOf(v), ""); ok {
		return fmt.Errorf("%s is empty (a node must be either a stage or a fork)", strings.TrimPrefix(at, "."))
	}
	return nil
}

func hole(v reflect.Value, at string) (string, bool) {
	if !v.IsValid() || !pointed(v.Type()) {
		return "", false
	}
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			return hole(v.Elem(), at)
		}
	case reflect.Slice:
		for i := range v.Len() {
			x, here := v.Index(i), fmt.Sprintf("%s[%d]", at, i)
			if x.Kind() == reflect.Pointer && x.IsNil() {
				return here, true
			}
			if found, ok := hole(x, here); ok {
				return found, true
			}
		}
	case reflect.Struct:
		if n, ok := v.Interface().(Node); ok && (n.Stage == nil) == (n.Fork == nil) {
			return at, true
		}
		for i := range v.NumField() {
			f := v.Type().Field(i)
			if !f.IsExported() {
				continue
			}
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			if found, ok := hole(v.Field(i), at+"."+name); ok {
				return found, true
			}
		}
	}
	return "", false
}

var pointedTypes sync.Map // reflect.Type to bool

// pointed reports whether values of a type can lead to a list of pointers: most lists, as that of a line's points,
// cannot, and need not be looked through.
func pointed(t reflect.Type) bool {
	if known, ok := pointedTypes.Load(t); ok {
		return known.(bool)
	}
	pointedTypes.Store(t, true) // of a type that holds itself
	is := false
	switch t.Kind() {
	case reflect.Pointer:
		is = pointed(t.Elem())
	case reflect.Slice:
		is = t.Elem().Kind() == reflect.Pointer || pointed(t.Elem())
	case reflect.Struct:
		for i := range t.NumField() {
			is = is || t.Field(i).IsExported() && pointed(t.Field(i).Type)
		}
	}
	pointedTypes.Store(t, is)
	return is
}
