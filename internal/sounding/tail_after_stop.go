package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// Levels in dB: a passage that ends below silentEnd has come to a stop, and what is above backAgain after
// that is heard.
const (
	silentEnd = -66.0
	backAgain = -54.0
)

// tailAfterStop: a passage ends in silence, and then what rings behind it comes back.
func tailAfterStop(s *Survey, say func(Sounding)) {
	if s.Figures == nil {
		return
	}
	for _, t := range s.Figures.Tails {
		x, ok := s.Doc.PassageByID(t.Passage)
		if !ok || x.Off || t.End > silentEnd || t.Left < backAgain || goesOn(s.Doc, x, t.Row) {
			continue
		}
		hold, fade := project.TailHold, project.TailFade
		say(Sounding{
			Weight:  Caution,
			Channel: t.Row,
			At:      x.ID,
			Says: fmt.Sprintf(
				"%s ends in silence on %s, and then a tail of %.0f dB comes back: the stop is over before what rings has died away.",
				x.Name,
				channelName(s.Doc, t.Row),
				t.Left,
			),
			Fixes: []Fix{fix("Hold it until the next sound", &project.SetPassage{ID: x.ID, Tail: &hold}),
				fix("Let it fade", &project.SetPassage{ID: x.ID, Tail: &fade})},
		})
	}
}

// longAfter is how much longer than a passage a clip must last, in seconds, to be meant to go on.
const longAfter = 3

// goesOn reports whether the row itself plays on after a passage: then what is heard is no tail.
func goesOn(doc *project.Project, x *project.Passage, row string) bool {
	c, ok := doc.Channel(row)
	if !ok {
		return false
	}
	clock := doc.Clock()
	end := clock.Frame(x.To)
	for _, clip := range c.Clips {
		start := clip.BeginsAt(clock)
		if start < end && start+clip.Frames > end+longAfter*int64(doc.SampleRate) {
			return true
		}
	}
	return false
}
