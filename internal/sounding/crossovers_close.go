package sounding

import (
	"fmt"
	"math"

	"shoal/internal/project"
)

// crossoversClose: two crossovers lie on top of each other, as near as they can come.
func crossoversClose(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		forks(c, func(f *project.Fork, _ *project.Chain, _ int) {
			for i := 1; i < len(f.Crossovers); i++ {
				octaves := math.Log2(f.Crossovers[i] / f.Crossovers[i-1])
				if octaves > 0.4 {
					continue
				}
				band := f.Paths[i]
				say(Sounding{
					Weight:  Note,
					Channel: c.ID,
					At:      band.ID,
					Says: fmt.Sprintf(
						"The crossovers at %.0f and %.0f Hz in %s on %s lie on top of each other:"+
							" %s is hardly more than its slopes, and never as loud as it is set.",
						f.Crossovers[i-1],
						f.Crossovers[i],
						f.Title(),
						c.Name,
						band.Name,
					),
					Fixes: []Fix{fix("Take "+band.Name+" out", &project.RemovePath{ID: band.ID})},
				})
			}
		})
	}
}
