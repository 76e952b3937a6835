package sounding

import (
	"fmt"

	"shoal/internal/dsp"
	"shoal/internal/param"
	"shoal/internal/project"
)

// copiesLouder: dry paths of a fork of copies add up to far more than went in.
func copiesLouder(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		forks(c, func(f *project.Fork, _ *project.Chain, _ int) {
			gain, paths := direct(f)
			if f.Kind != project.Copies || paths < 2 || f.Mix < 100 || plain(f) {
				return
			}
			up := dsp.Decibels(max(gain, -gain)) + f.Trim
			if up < 4.5 {
				return
			}
			say(Sounding{
				Weight:  Caution,
				Channel: c.ID,
				At:      f.ID,
				Says: fmt.Sprintf(
					"%s on %s has %d paths that hold nothing: together they are %.1f dB louder than what goes in, and louder sounds better than it is.",
					f.Title(),
					c.Name,
					paths,
					up,
				),
				Fixes: []Fix{
					fix(
						fmt.Sprintf("Trim its output by %.1f dB", up),
						&project.SetParam{Owner: f.ID, Name: "trim", Value: param.Joined.Clamp(tenth(f.Trim - up))},
					),
				},
			})
		})
	}
}
