package sounding

import (
	"fmt"

	"shoal/internal/project"
	"shoal/internal/routing"
)

// pathNotWet: an effect on a path lets the dry signal through, which another path holds already.
func pathNotWet(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		forks(c, func(f *project.Fork, _ *project.Chain, _ int) {
			if f.Kind != project.Copies {
				return
			}
			for _, p := range f.Paths {
				if !heard(p) || p.Chain.Bypass || !dryBeside(f, p) {
					continue
				}
				for _, n := range p.Chain.Nodes {
					st := n.Stage
					if st == nil || st.Bypass || !copies(st) || st.Mix == 100 && st.MixLaw == "blend" {
						continue
					}
					says := fmt.Sprintf("%s on the path %s stands at %.0f %%, and the dry signal is heard on another path as well.",
						routing.StageName(st), p.Name, st.Mix)
					if st.MixLaw == "add" {
						says = fmt.Sprintf("%s on the path %s is added to the dry signal, which is heard on another path as well.",
							routing.StageName(st), p.Name)
					}
					say(Sounding{
						Weight:  Note,
						Channel: c.ID,
						At:      st.ID,
						Says:    says,
						Fixes: []Fix{
							fix(
								"Set it to 100 % wet",
								&project.SetParam{Owner: st.ID, Name: "mix", Value: 100},
								&project.SetNode{ID: st.ID, MixLaw: ptr("blend")},
							),
						},
					})
				}
			}
		})
	}
}

// dryBeside reports whether another path of a fork is heard and holds nothing.
func dryBeside(f *project.Fork, p *project.Path) bool {
	for _, x := range f.Paths {
		if x != p && heard(x) && len(x.Chain.Nodes) == 0 {
			return true
		}
	}
	return false
}
