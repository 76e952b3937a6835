package project

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"reflect"
	"strings"
)

// Unread says in words why JSON could not be read: what stands where, and what must stand there. Other errors stay as they are.
func Unread(err error) error {
	var kind *json.UnmarshalTypeError
	var syntax *json.SyntaxError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &kind):
		at := "this"
		if kind.Field != "" {
			at = kind.Field
		}
		return &unread{fmt.Sprintf("%s must be %s, not %s (at byte %d)", at, inJSON(kind.Type), article(kind.Value), kind.Offset), err}
	case errors.As(err, &syntax):
		return &unread{fmt.Sprintf("it is no JSON: %s at byte %d", strings.TrimPrefix(syntax.Error(), "json: "), syntax.Offset), err}
	case errors.Is(err, io.EOF):
		return &unread{"it is empty where JSON must stand", err}
	case errors.Is(err, io.ErrUnexpectedEOF):
		return &unread{"it is no JSON: it ends too early", err}
	}
	if name, ok := strings.CutPrefix(err.Error(), "json: unknown field "); ok {
		return &unread{"there is an unknown field " + name, err}
	}
	return err
}

// unread is an error in other words.
type unread struct {
	says string
	err  error
}

func (u *unread) Error() string { return u.says }
func (u *unread) Unwrap() error { return u.err }

// inJSON is what a Go type is in JSON.
func inJSON(t reflect.Type) string {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch t.Kind() {
	case reflect.Bool:
		return "true or false"
	case reflect.String:
		return "a text"
	case reflect.Slice, reflect.Array:
		return "a list"
	case reflect.Struct, reflect.Map:
		return "an object"
	case reflect.Float32, reflect.Float64:
		return "a number"
	default:
		return "a whole number"
	}
}

// article is a JSON value as the decoder calls it, with an article.
func article(value string) string {
	switch {
	case value == "bool":
		return "true or false"
	case value == "string":
		return "a text"
	case value == "array":
		return "a list"
	case value == "object":
		return "an object"
	case value == "number":
		return "a number"
	}
	return strings.TrimPrefix(value, "number ")
}
