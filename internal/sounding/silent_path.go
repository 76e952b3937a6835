package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// silentPath: nothing has come out of a path, while something came out of its fork.
func silentPath(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		forks(c, func(f *project.Fork, _ *project.Chain, _ int) {
			if out, ok := s.ever("after", f.ID); !ok || out < -60 {
				return
			}
			for _, p := range f.Paths {
				if v, ok := s.ever("path", p.ID); !ok || v > -90 || !heard(p) {
					continue
				}
				say(Sounding{
					Weight:  Note,
					Channel: c.ID,
					At:      p.ID,
					Says: fmt.Sprintf(
						"Nothing has come out of %s in %s on %s for a minute, while the fork sounded: it costs its stages and adds nothing.",
						p.Name,
						f.Title(),
						c.Name,
					),
					Fixes: []Fix{fix("Mute it", &project.SetPath{ID: p.ID, Mute: ptr(true)})},
				})
			}
		})
	}
}
