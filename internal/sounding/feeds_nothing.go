package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// feedsNothing: a track without output, send or tap; a group without members.
func feedsNothing(s *Survey, say func(Sounding)) {
	tapped, members := map[string]bool{}, map[string]bool{}
	for _, c := range s.Doc.Channels {
		members[c.Output] = true
		if c.Input != nil {
			tapped[c.Input.Channel] = true
		}
		c.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			if n.Stage != nil && n.Stage.Key != nil {
				tapped[n.Stage.Key.Channel] = true
			}
			return true
		})
	}
	for _, c := range s.Doc.Channels {
		switch {
		case c.Kind == project.Group && !members[c.ID]:
			say(
				Sounding{
					Weight:  Caution,
					Channel: c.ID,
					At:      c.ID,
					Says:    fmt.Sprintf("No row goes to the group %s: nothing in it is heard.", c.Name),
					Fixes:   []Fix{fix("Remove the group", &project.RemoveChannel{ID: c.ID})},
				},
			)
		case c.Kind == project.Track && c.Output == "" && len(c.Sends) == 0 && !tapped[c.ID]:
			say(
				Sounding{
					Weight:  Broken,
					Channel: c.ID,
					At:      c.ID,
					Says:    fmt.Sprintf("%s has no output, no send and nobody takes it in: it is not heard.", c.Name),
					Fixes:   []Fix{fix("Send it to the main output", &project.SetChannel{ID: c.ID, Output: ptr(s.Doc.MainChannel().ID)})},
				},
			)
		}
	}
}
