package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// emptyFork: a fork's paths all hold nothing.
func emptyFork(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		forks(c, func(f *project.Fork, _ *project.Chain, _ int) {
			if !plain(f) {
				return
			}
			what := "it divides the signal and joins it again"
			if f.Kind == project.Copies {
				what = "it only changes the level"
			}
			say(Sounding{Weight: Note, Channel: c.ID, At: f.ID,
				Says:  fmt.Sprintf("The paths of %s on %s all hold nothing: %s.", f.Title(), c.Name, what),
				Fixes: []Fix{fix("Remove it", &project.RemoveNode{ID: f.ID})}})
		})
	}
}
