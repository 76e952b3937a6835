package sounding

import (
	"fmt"

	"shoal/internal/project"
	"shoal/internal/routing"
)

// silentKey: a stage is driven by a point at which nothing plays, while it has something to
// work on.
func silentKey(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		stages(c, func(st *project.Stage, _ *project.Chain, _ int) {
			if st.Key == nil {
				return
			}
			from, _ := s.Doc.Channel(st.Key.Channel)
			dead := st.Key.Point == "post" && (from.Mute || from.Fader <= -100)
			own, here := s.peak("after", st.ID)
			kind, owner := meterOf(from, st.Key)
			key, there := s.ever(kind, owner)
			if !dead && !(here && there && own > -60 && key < -70) {
				return
			}
			say(Sounding{
				Weight:  Broken,
				Channel: c.ID,
				At:      st.ID,
				Says: fmt.Sprintf(
					"%s on %s is driven by %s, and nothing comes from there: it does not react.",
					routing.StageName(st),
					c.Name,
					from.Name,
				),
				Fixes: []Fix{fix("Let its own signal drive it", &project.SetKey{ID: st.ID})},
			})
		})
	}
}

// meterOf names the meter that stands nearest before a tap.
func meterOf(c *project.Channel, t *project.Tap) (kind, owner string) {
	switch t.Point {
	case "after":
		return "after", t.Node
	case "post":
		return "post", c.ID
	case "pre":
		if n := len(c.Chain.Nodes); n > 0 {
			return "after", c.Chain.Nodes[n-1].ID()
		}
	case "before":
		for i, n := range c.Chain.Nodes {
			if n.ID() == t.Node && i > 0 {
				return "after", c.Chain.Nodes[i-1].ID()
			}
		}
	}
	return "in", c.ID
}
