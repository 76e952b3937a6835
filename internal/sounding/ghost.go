package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// ghost: a send taken before the fader still flows while the row itself is down.
func ghost(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		if c.Fader > -40 && !c.Mute {
			continue
		}
		for _, x := range c.Sends {
			if !x.Pre && x.After == "" || !project.SendFlows(c, x) {
				continue
			}
			why := "its fader is down"
			if c.Mute {
				why = "it is muted"
			}
			say(Sounding{Weight: Note, Channel: c.ID, At: x.ID,
				Says: fmt.Sprintf("%s still sends to %s although %s: only its ghost is heard.", c.Name, channelName(s.Doc, x.To), why),
				Fixes: []Fix{fix("Take the send after the fader", &project.SetSend{ID: x.ID, Pre: ptr(false), After: ptr("")}),
					fix("Mute the send", &project.SetSend{ID: x.ID, Mute: ptr(true)})}})
		}
	}
}
