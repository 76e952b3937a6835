package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// dryPathOnReturn: a path that holds nothing lets the dry signal through a return, which is
// then heard twice.
func dryPathOnReturn(s *Survey, say func(Sounding)) {
	for _, r := range s.Doc.Channels {
		if _, first := feeding(s.Doc, r.ID); r.Kind != project.Return || first == nil {
			continue
		}
		forks(r, func(f *project.Fork, in *project.Chain, i int) {
			if in != &r.Chain || f.Kind != project.Copies || wetAround(r, i) {
				return
			}
			for _, p := range f.Paths {
				if !heard(p) || !dry(p) {
					continue
				}
				say(Sounding{
					Weight:  Caution,
					Channel: r.ID,
					At:      p.ID,
					Says: fmt.Sprintf(
						"%s in %s on the return %s holds nothing: the dry signal comes back with the rest and is heard twice.",
						p.Name,
						f.Title(),
						r.Name,
					),
					Fixes: []Fix{fix("Mute "+p.Name, &project.SetPath{ID: p.ID, Mute: ptr(true)})},
				})
			}
		})
	}
}

// wetAround reports whether another node of a return's chain takes the dry signal out.
func wetAround(r *project.Channel, fork int) bool {
	for i, n := range r.Chain.Nodes {
		if st := n.Stage; i != fork && st != nil && !st.Bypass && copies(st) && st.Mix == 100 && st.MixLaw == "blend" {
			return true
		}
	}
	return false
}
