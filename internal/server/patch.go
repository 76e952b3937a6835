package server

import (
	"fmt"

	"github.com/wI2L/jsondiff"

	"shoal/internal/project"
	"shoal/internal/store"
)

// patchOf is what turns one revision into the next, as a JSON patch. Lines are compared by the points that
// they share, all else by what it says. rest is the next revision without its lines.
func patchOf(old *project.Project, oldRest []byte, next *project.Project) (patch jsondiff.Patch, rest []byte, err error) {
	if rest, err = next.Bare(); err != nil {
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

// sumsAfter are the sums of a document's lines, of which only some have changed.
func sumsAfter(old []project.Sum, lines store.Lines) []project.Sum {
	sums := make([]project.Sum, lines.Count)
	copy(sums, old)
	for i, b := range lines.Changed {
		sums[i] = project.SumOf(b)
	}
	return sums
}

// changedLines are those that are not at the same place as before with the same points.
func changedLines(old, next []*project.Line) (store.Lines, error) {
	out := store.Lines{Count: len(next), Changed: map[int][]byte{}}
	for i, l := range next {
		if i < len(old) && old[i].Owner == l.Owner && old[i].Name == l.Name && l.SamePoints(old[i]) {
			continue
		}
		b, err := project.Canonical(l)
		if err != nil {
			return out, err
		}
		out.Changed[i] = b
	}
	return out, nil
}
