package project_test

import (
	"math/rand/v2"
	"reflect"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// Whatever a document holds, a change makes a copy that equals it and shares nothing with it that could be changed in
// place: but points of lines and of swells, extents and what clips were made from, which are always given anew.
func TestACopyIsEqualAndSharesNothing(t *testing.T) {
	shared := map[reflect.Type]bool{reflect.TypeFor[[]project.Point](): true, reflect.TypeFor[[]project.Swell](): true,
		reflect.TypeFor[*project.Extent](): true, reflect.TypeFor[*project.Made](): true}
	seen := map[reflect.Type]bool{}
	for seed := range uint64(30) {
		r := rand.New(rand.NewPCG(seed, 12))
		p := project.Sample(t)
		for range 60 {
			if next, _, err := project.Apply(p, []project.Change{projecttest.RandomChange(r, p)}, project.FakeEffects); err == nil {
				p = next
			}
		}
		again := project.Copy(p)
		require.Equal(t, p, again)
		apart(t, reflect.ValueOf(p), reflect.ValueOf(again), shared, seen)
	}
	for _, x := range []any{project.Clip{}, project.Treatment{}, project.Stage{}, project.Fork{}, project.Path{}, project.Trial{},
		project.Send{}, project.Tap{}, project.Mover{}, project.Handle{}, project.Passage{}, project.Line{}, project.Audio{}} {
		require.True(t, seen[reflect.TypeOf(x)], "no document had a %T", x)
	}
}

// apart requires that no pointer, list or map of one value is that of the other.
func apart(t *testing.T, a, b reflect.Value, shared, seen map[reflect.Type]bool) {
	t.Helper()
	seen[a.Type()] = true
	switch a.Kind() {
	case reflect.Pointer, reflect.Map, reflect.Slice:
		if a.IsNil() || shared[a.Type()] || a.Kind() != reflect.Pointer && a.Len() == 0 {
			return
		}
		require.NotEqual(t, a.Pointer(), b.Pointer(), "both have the same %s", a.Type())
	}
	switch a.Kind() {
	case reflect.Pointer:
		apart(t, a.Elem(), b.Elem(), shared, seen)
	case reflect.Slice:
		for i := range a.Len() {
			apart(t, a.Index(i), b.Index(i), shared, seen)
		}
	case reflect.Struct:
		for i := range a.NumField() {
			apart(t, a.Field(i), b.Field(i), shared, seen)
		}
	}
}
