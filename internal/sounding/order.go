package sounding

import (
	"fmt"

	"shoal/internal/project"
	"shoal/internal/routing"
)

// orderOfStages: pairs that sound different the other way round. Both can be meant.
func orderOfStages(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		var before []*project.Stage
		stages(c, func(st *project.Stage, in *project.Chain, i int) {
			if in != &c.Chain {
				return
			}
			for _, b := range before {
				why := ""
				switch {
				case st.Effect == "gate" && (family(b) == "Space" || family(b) == "Time"):
					why = fmt.Sprintf("%s stands behind %s and cuts its tail off", routing.StageName(st), routing.StageName(b))
				case st.Effect == "compressor" && family(b) == "Space" && !wet(b):
					why = fmt.Sprintf(
						"%s behind %s squeezes dry and wet together: the room pumps with every note",
						routing.StageName(st),
						routing.StageName(b),
					)
				case st.Effect == "delay" && family(b) == "Space":
					why = fmt.Sprintf("%s in front of %s smears the echoes", routing.StageName(b), routing.StageName(st))
				}
				if why == "" {
					continue
				}
				at := position(&c.Chain, b.ID)
				say(Sounding{
					Weight:  Note,
					Channel: c.ID,
					At:      st.ID,
					Says:    fmt.Sprintf("On %s, %s. Both orders can be meant.", c.Name, why),
					Fixes: []Fix{
						fix(
							fmt.Sprintf("Put %s in front of %s", routing.StageName(st), routing.StageName(b)),
							&project.MoveNode{ID: st.ID, Owner: c.ID, Index: at},
						),
					},
				})
				return
			}
			before = append(before, st)
		})
	}
}

func wet(st *project.Stage) bool { return st.Mix == 100 && st.MixLaw == "blend" }

func position(c *project.Chain, id string) int {
	for i, n := range c.Nodes {
		if n.ID() == id {
			return i
		}
	}
	return 0
}
