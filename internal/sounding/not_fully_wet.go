package sounding

import (
	"fmt"

	"shoal/internal/project"
	"shoal/internal/routing"
)

// notFullyWet: an effect on a return lets the dry signal through, which is heard twice.
func notFullyWet(s *Survey, say func(Sounding)) {
	for _, r := range s.Doc.Channels {
		if _, first := feeding(s.Doc, r.ID); r.Kind != project.Return || first == nil || wetBefore(r) {
			continue
		}
		stages(r, func(st *project.Stage, in *project.Chain, _ int) {
			if in != &r.Chain || !copies(st) || st.Mix == 100 && st.MixLaw == "blend" {
				return
			}
			say(Sounding{
				Weight:  Caution,
				Channel: r.ID,
				At:      st.ID,
				Says: fmt.Sprintf(
					"%s on the return %s stands at %.0f %%: the dry signal comes back with it and is heard twice.",
					routing.StageName(st),
					r.Name,
					st.Mix,
				),
				Fixes: []Fix{
					fix(
						"Set it to 100 % wet",
						&project.SetParam{Owner: st.ID, Name: "mix", Value: 100},
						&project.SetNode{ID: st.ID, MixLaw: ptr("blend")},
					),
				},
			})
		})
	}
}

// copies reports whether an effect adds something beside the dry signal.
func copies(st *project.Stage) bool {
	f := family(st)
	return f == "Space" || f == "Time" || st.Effect == "chorus" || st.Effect == "doubler"
}

// wetBefore reports whether a fully wet effect on the chain has taken the dry signal out.
func wetBefore(r *project.Channel) bool {
	wet := false
	stages(r, func(st *project.Stage, in *project.Chain, _ int) {
		wet = wet || in == &r.Chain && copies(st) && st.Mix == 100 && st.MixLaw == "blend"
	})
	return wet
}
