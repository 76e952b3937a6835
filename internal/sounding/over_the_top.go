package sounding

import (
	"fmt"
	"math"

	"shoal/internal/project"
)

// overTheTop: the main output's true peak is above −1 dBTP.
func overTheTop(s *Survey, say func(Sounding)) {
	if s.Figures == nil || s.Figures.TruePeak <= -1 {
		return
	}
	main := s.Doc.MainChannel()
	over := s.Figures.TruePeak + 1
	limit := project.NewStage("limiter", 1, 100, "blend")
	limit.ID, limit.Params = "", map[string]float64{"ceiling": -1, "peaks": 1}
	say(Sounding{Weight: Caution, Channel: main.ID, At: main.ID,
		Says: fmt.Sprintf("The main output reaches %+.1f dBTP. Above −1 dBTP a lossy file or a converter may clip.", s.Figures.TruePeak),
		Fixes: []Fix{
			fix(
				fmt.Sprintf("Take the main fader down by %s", db(over)),
				&project.SetParam{Owner: main.ID, Name: "fader", Value: math.Max(-120, math.Round((main.Fader-over)*10-0.5)/10)},
			),
			fix(
				"Put a true-peak limiter at −1 dB last",
				&project.AddNode{Owner: main.ID, Index: len(main.Chain.Nodes), Node: &project.Node{Stage: limit}},
			),
		}})
}
