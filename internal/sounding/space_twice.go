package sounding

import (
	"fmt"

	"shoal/internal/project"
	"shoal/internal/routing"
)

// spaceTwice: a reverb on the row, and another on the return that it sends to.
func spaceTwice(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		var own *project.Stage
		stages(c, func(st *project.Stage, _ *project.Chain, _ int) {
			if family(st) == "Space" {
				own = st
			}
		})
		if own == nil {
			continue
		}
		for _, x := range c.Sends {
			r, ok := s.Doc.Channel(x.To)
			if !ok || !project.SendFlows(c, x) {
				continue
			}
			twice := false
			stages(r, func(st *project.Stage, _ *project.Chain, _ int) { twice = twice || family(st) == "Space" })
			if twice {
				say(Sounding{
					Weight:  Note,
					Channel: c.ID,
					At:      own.ID,
					Says: fmt.Sprintf(
						"%s has a space of its own (%s) and sends to %s, which is one too: two rooms, one inside the other.",
						c.Name,
						routing.StageName(own),
						r.Name,
					),
					Fixes: []Fix{
						fix("Bypass "+routing.StageName(own), &project.SetNode{ID: own.ID, Bypass: ptr(true)}),
						fix("Mute the send to "+r.Name, &project.SetSend{ID: x.ID, Mute: ptr(true)}),
					},
				})
				break
			}
		}
	}
}
