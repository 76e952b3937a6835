package project_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// spoilt are copies of a JSON value, in each of which something else stands where one of its parts was.
func spoilt(v any, with any) (out []any) {
	out = append(out, with)
	switch v := v.(type) {
	case map[string]any:
		for k, x := range v {
			for _, y := range spoilt(x, with) {
				c := map[string]any{}
				for k2, x2 := range v {
					c[k2] = x2
				}
				c[k] = y
				out = append(out, c)
			}
		}
	case []any:
		for i, x := range v {
			for _, y := range spoilt(x, with) {
				c := append([]any(nil), v...)
				c[i] = y
				out = append(out, c)
			}
		}
	}
	return out
}

// some are at most a hundred of many: a change may hold a whole document.
func some(r *rand.Rand, list []any) []any {
	r.Shuffle(len(list), func(i, k int) { list[i], list[k] = list[k], list[i] })
	return list[:min(len(list), 100)]
}

// tried decodes and applies a change in which something is wrong; a panic is told with what led to it.
func tried(t *testing.T, p *project.Project, kind string, do []byte) (err error) {
	t.Helper()
	defer func() {
		if r := recover(); r != nil {
			require.Fail(t, fmt.Sprint(r), "%s %s", kind, do)
		}
	}()
	list, err := project.Decode([]project.Wire{{Type: kind, Do: do}})
	if err != nil {
		return err
	}
	next, _, err := project.Apply(p, list, project.FakeEffects)
	if err != nil {
		return err
	}
	return next.Validate(project.FakeEffects)
}

// Whatever part of a change is missing, empty or of another kind: it is refused, or makes a document that holds.
func TestNothingMissingFromAChangePanics(t *testing.T) {
	kinds, holes := map[string]bool{}, rand.New(rand.NewPCG(3, 11))
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 11))
		p := project.Sample(t)
		for range 40 {
			c := projecttest.RandomChange(r, p)
			wire, err := project.Encode([]project.Change{c})
			require.NoError(t, err)
			kinds[wire[0].Type] = true
			var v any
			require.NoError(t, json.Unmarshal(wire[0].Do, &v))
			for _, with := range []any{nil, []any{}, []any{nil}, map[string]any{}, ""} {
				for _, x := range some(holes, spoilt(v, with)) {
					do, err := json.Marshal(x)
					require.NoError(t, err)
					_ = tried(t, p, wire[0].Type, do)
				}
			}
			if next, _, err := project.Apply(p, []project.Change{c}, project.FakeEffects); err == nil {
				p = next
			}
		}
	}
	for kind := range project.Changes() {
		for _, do := range []string{"null", "{}", "[]", "0"} {
			_ = tried(t, project.Sample(t), kind, []byte(do))
		}
	}
	require.Greater(t, len(kinds), 90)
}

// Whatever stands in a change, it is refused or makes a document that holds.
func FuzzChange(f *testing.F) {
	p := project.Sample(f)
	r := rand.New(rand.NewPCG(1, 12))
	for range 300 {
		wire, err := project.Encode([]project.Change{projecttest.RandomChange(r, p)})
		require.NoError(f, err)
		f.Add(wire[0].Type, []byte(wire[0].Do))
	}
	f.Fuzz(func(t *testing.T, kind string, do []byte) {
		list, err := project.Decode([]project.Wire{{Type: kind, Do: do}})
		if err != nil {
			return
		}
		next, undo, err := project.Apply(p, list, project.FakeEffects)
		if err != nil {
			return
		}
		require.NoError(t, next.Validate(project.FakeEffects))
		back, _, err := project.Apply(next, undo, project.FakeEffects)
		require.NoError(t, err)
		require.Equal(t, project.AsJSON(t, p), project.AsJSON(t, back))
	})
}
