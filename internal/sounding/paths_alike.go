package sounding

import (
	"fmt"
	"reflect"
	"slices"

	"shoal/internal/project"
)

// pathsAlike: two paths of a fork hold the same stages, set the same.
func pathsAlike(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		forks(c, func(f *project.Fork, _ *project.Chain, _ int) {
			if f.Kind != project.Copies {
				return
			}
			for i, b := range f.Paths {
				k := slices.IndexFunc(f.Paths[:i], func(a *project.Path) bool { return heard(a) && alike(a, b) })
				if k < 0 || !heard(b) || dry(b) {
					continue
				}
				say(Sounding{
					Weight:  Caution,
					Channel: c.ID,
					At:      b.ID,
					Says: fmt.Sprintf(
						"%s and %s in %s on %s hold the same, set the same: the second adds level, and twice the cost, but no sound.",
						f.Paths[k].Name,
						b.Name,
						f.Title(),
						c.Name,
					),
					Fixes: []Fix{
						fix("Mute "+b.Name, &project.SetPath{ID: b.ID, Mute: ptr(true)}),
						fix("Remove "+b.Name, &project.RemovePath{ID: b.ID}),
					},
				})
			}
		})
	}
}

// alike reports whether two paths do the same to the signal, apart from their level.
func alike(a, b *project.Path) bool {
	return a.Pan == b.Pan && a.Width == b.Width && a.Invert == b.Invert && sameChain(&a.Chain, &b.Chain)
}

func sameChain(a, b *project.Chain) bool {
	return a.Bypass == b.Bypass && slices.EqualFunc(a.Nodes, b.Nodes, func(x, y *project.Node) bool {
		if x.Fork != nil && y.Fork != nil {
			f, g := x.Fork, y.Fork
			return f.Kind == g.Kind && f.Bypass == g.Bypass && f.Mix == g.Mix && f.MixLaw == g.MixLaw && f.Trim == g.Trim &&
				f.Slope == g.Slope &&
				f.Linear == g.Linear &&
				slices.Equal(f.Crossovers, g.Crossovers) &&
				slices.EqualFunc(f.Paths, g.Paths, func(p, q *project.Path) bool { return p.Level == q.Level && p.Mute == q.Mute && alike(p, q) })
		}
		if x.Stage == nil || y.Stage == nil {
			return false
		}
		s, t := project.Clone(x.Stage), project.Clone(y.Stage)
		s.ID, s.Name, t.ID, t.Name = "", "", "", ""
		return reflect.DeepEqual(s, t)
	})
}
