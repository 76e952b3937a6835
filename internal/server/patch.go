package server

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"github.com/wI2L/jsondiff"

	"shoal/internal/project"
	"shoal/internal/store"
)

// patchOf is what turns one revision into the next, as a JSON patch. Lines are compared by the points that
// they share, all else by what it says, and of rows only those that differ. now is the next revision as it is written.
func patchOf(old *project.Project, was *project.Written, next *project.Project) (patch jsondiff.Patch, now *project.Written, err error) {
	if now, err = next.Write(old, was); err != nil {
		return nil, nil, err
	}
	steps, arranged := was.Rearranged(now)
	x, y, at := project.Differing(arranged, now)
	changes, err := jsondiff.CompareJSON(x, y)
	if err != nil {
		return nil, nil, fmt.Errorf("compare revisions: %w", err)
	}
	for i := range changes {
		changes[i].Path = amongAll(changes[i].Path, at)
	}
	return append(append(rowsPatch(steps), changes...), linesPatch(old.Lines, next.Lines)...), now, nil
}

// rowsPatch is what brings rows to their places: what is in them is not told again.
func rowsPatch(steps []project.RowStep) jsondiff.Patch {
	patch := jsondiff.Patch{}
	for _, s := range steps {
		op := jsondiff.Operation{Type: jsondiff.OperationMove, Path: rows + strconv.Itoa(s.At)}
		switch {
		case s.Goes:
			op.Type = jsondiff.OperationRemove
		case s.Row != nil:
			op.Type, op.Value = jsondiff.OperationAdd, json.RawMessage(s.Row)
		default:
			op.From = rows + strconv.Itoa(s.From)
		}
		patch = append(patch, op)
	}
	return patch
}

const rows = "/channels/"

// amongAll is a path into a document of which only some rows were compared, in the whole one: at is where those stand.
func amongAll(path string, at []int) string {
	rest, of := strings.CutPrefix(path, rows)
	if !of {
		return path
	}
	place, more, deeper := strings.Cut(rest, "/")
	i, err := strconv.Atoi(place)
	if err != nil {
		return path
	}
	path = rows + strconv.Itoa(at[i])
	if deeper {
		path += "/" + more
	}
	return path
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
		if i < len(old) && l.Same(old[i]) {
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
