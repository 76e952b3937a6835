package sounding

import (
	"fmt"
	"math"

	"shoal/internal/project"
	"shoal/internal/routing"
)

// hotOrCold: a stage goes over full scale, or gives more than 12 dB more or less than it was
// given. A trim does that on purpose.
func hotOrCold(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		stages(c, func(st *project.Stage, in *project.Chain, i int) {
			out, ok := s.peak("after", st.ID)
			if !ok || in != &c.Chain || st.Effect == "trim" || out < -60 {
				return
			}
			kind, owner := "in", c.ID
			if i > 0 {
				kind, owner = "after", in.Nodes[i-1].ID()
			}
			given, ok := s.peak(kind, owner)
			if !ok || given < -60 {
				return
			}
			trim := project.NewStage("trim", 1, 100, "blend")
			trim.ID, trim.Params = "", map[string]float64{"gain": math.Round(-(out-given)*10) / 10}
			level := fix(
				fmt.Sprintf("Put a trim of %+.1f dB behind it", given-out),
				&project.AddNode{Owner: c.ID, Index: i + 1, Node: &project.Node{Stage: trim}},
			)
			switch {
			case out > 0 && given <= 0:
				say(Sounding{
					Weight:  Caution,
					Channel: c.ID,
					At:      st.ID,
					Fixes:   []Fix{level},
					Says: fmt.Sprintf(
						"%s on %s peaks at %+.1f dB, over full scale: what follows is driven harder than it was set for, and a file of it would clip.",
						routing.StageName(st),
						c.Name,
						out,
					),
				})
			case out-given > 12:
				say(Sounding{
					Weight:  Note,
					Channel: c.ID,
					At:      st.ID,
					Fixes:   []Fix{level},
					Says: fmt.Sprintf(
						"%s on %s makes it %s louder than it came in: a comparison with and without it is won by level.",
						routing.StageName(st),
						c.Name,
						db(out-given),
					),
				})
			case given-out > 12 && family(st) != "Dynamics":
				say(Sounding{
					Weight:  Note,
					Channel: c.ID,
					At:      st.ID,
					Fixes:   []Fix{level},
					Says: fmt.Sprintf(
						"%s on %s takes away %s: what follows gets less than it was set for.",
						routing.StageName(st),
						c.Name,
						db(given-out),
					),
				})
			}
		})
	}
}
