package sounding

import (
	"fmt"

	"shoal/internal/project"
	"shoal/internal/routing"
)

// lowEndInSpace: a return's reverb takes in everything down to the lowest notes.
func lowEndInSpace(s *Survey, say func(Sounding)) {
	for _, r := range s.Doc.Channels {
		if _, first := feeding(s.Doc, r.ID); r.Kind != project.Return || first == nil {
			continue
		}
		cut := false
		stages(r, func(st *project.Stage, in *project.Chain, _ int) {
			if in != &r.Chain || cut {
				return
			}
			switch {
			case st.Effect == "equaliser":
				cut = cutsLow(st)
			case st.Effect == "filter":
				cut = true
			case family(st) == "Space":
				if value(st, "lowcut") > 30 {
					cut = true
					return
				}
				say(Sounding{
					Weight:  Note,
					Channel: r.ID,
					At:      st.ID,
					Says: fmt.Sprintf(
						"%s on %s has no low cut: low notes fill the space and cover what is played after them.",
						routing.StageName(st),
						r.Name,
					),
					Fixes: []Fix{fix("Cut it at 120 Hz", &project.SetParam{Owner: st.ID, Name: "lowcut", Value: 120})},
				})
				cut = true
			}
		})
	}
}

// cutsLow reports whether an equaliser has a low cut that is on, or a low shelf far down.
func cutsLow(st *project.Stage) bool {
	for b := '1'; b <= '8'; b++ {
		n := string(b)
		if value(st, "on"+n) == 0 {
			continue
		}
		if value(st, "shape"+n) == 3 && value(st, "freq"+n) > 30 || value(st, "shape"+n) == 1 && value(st, "gain"+n) <= -9 {
			return true
		}
	}
	return false
}
