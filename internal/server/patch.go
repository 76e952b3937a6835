package server

import (
	"encoding/json"
	"fmt"

	"github.com/wI2L/jsondiff"

	"shoal/internal/project"
	"shoal/internal/store"
)

// bare is a document as JSON without its lines, which may hold very many points.
func bare(p *project.Project) ([]byte, error) {
	q := *p
	q.Lines = nil
	return json.Marshal(&q)
}

// patchOf is what turns one revision into the next, as a JSON patch. Lines are compared by the points that
// they share, all else by what it says. rest is the next revision without its lines.
func patchOf(old *project.Project, oldRest []byte, next *project.Project) (patch jsondiff.Patch, rest []byte, err error) {
	if rest, err = bare(next); err != nil {
		return nil, nil, err
	}
	if patch, err = jsondiff.CompareJSON(oldRest, rest); err != nil {
		return nil, nil, fmt.Errorf("compare revisions: %w", err)
	}
	if patch == nil {
		patch = jsondiff.Patch{}
	}
	return append(patch, linesPatch(old.Lines, next.Lines)...), rest, nil
}

func linesPatch(old, next []*project.Line) (patch jsondiff.Patch) {
	same := len(old) <= len(next)
	for i := 0; same && i < len(old); i++ {
		same = old[i].Owner == next[i].Owner && old[i].Name == next[i].Name
	}
	if !same {
		return jsondiff.Patch{{Type: jsondiff.OperationReplace, Path: "/lines", Value: next}}
	}
	for i, l := range old {
		if !l.SamePoints(next[i]) {
			patch = append(patch, jsondiff.Operation{Type: jsondiff.OperationReplace, Path: fmt.Sprintf("/lines/%d", i), Value: next[i]})
		}
	}
	for _, l := range next[len(old):] {
		patch = append(patch, jsondiff.Operation{Type: jsondiff.OperationAdd, Path: "/lines/-", Value: l})
	}
	return patch
}

// changedLines are those that are not at the same place as before with the same points.
func changedLines(old, next []*project.Line) (store.Lines, error) {
	out := store.Lines{Count: len(next), Changed: map[int][]byte{}}
	for i, l := range next {
		if i < len(old) && old[i].Owner == l.Owner && old[i].Name == l.Name && l.SamePoints(old[i]) {
			continue
		}
		b, err := json.Marshal(l)
		if err != nil {
			return out, err
		}
		out.Changed[i] = b
	}
	return out, nil
}
