package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// sideTrackSolo: soloing a row would silence the track that takes it in. Returns and groups are
// no case: what carries a soloed signal stays open by itself.
func sideTrackSolo(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		if c.Input == nil || c.SoloSafe || c.Output == "" || c.Mute {
			continue
		}
		say(Sounding{
			Weight:  Note,
			Channel: c.ID,
			At:      c.ID,
			Says: fmt.Sprintf(
				"Soloing %s silences %s, which lives from it: it would be heard without its treatment.",
				channelName(s.Doc, c.Input.Channel),
				c.Name,
			),
			Fixes: []Fix{fix("Keep it open when others are soloed", &project.SetChannel{ID: c.ID, SoloSafe: ptr(true)})},
		})
	}
}
