package sounding

import (
	"fmt"

	"shoal/internal/effect"
	"shoal/internal/project"
)

// twiceIsMuch are effects that are seldom wanted twice, one after the other.
var twiceIsMuch = map[string]bool{
	"compressor": true, "gate": true, "deesser": true, "denoise": true, "reverb": true, "saturation": true, "limiter": true,
}

// pieceAndRow: a piece's treatment and the chain of its row hold the same effect, so that it is done twice there.
func pieceAndRow(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		onRow, said := map[string]bool{}, map[string]bool{}
		stages(c, func(st *project.Stage, _ *project.Chain, _ int) {
			onRow[st.Effect] = onRow[st.Effect] || !st.Bypass && !c.Chain.Bypass && twiceIsMuch[st.Effect]
		})
		for _, x := range c.Clips {
			t, ok := s.Doc.TreatmentByID(x.Treatment)
			if !ok || x.Mute || t.Chain.Bypass || said[t.ID] {
				continue
			}
			said[t.ID] = true
			t.Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
				if st := n.Stage; st != nil && !st.Bypass && onRow[st.Effect] {
					say(doneTwice(c, x, st))
				}
				return true
			})
		}
	}
}

func doneTwice(c *project.Channel, x *project.Clip, st *project.Stage) Sounding {
	name := st.Effect
	if k, ok := effect.Of(st.Effect, st.Version); ok {
		name = k.Name
	}
	return Sounding{
		Weight:  Note,
		Channel: c.ID,
		At:      st.ID,
		Says: fmt.Sprintf("%s is treated with a %s, and its row %s has one too: what is done to the piece is done again behind it.",
			x.Name, name, c.Name),
		Fixes: []Fix{fix("Bypass it on the piece", &project.SetNode{ID: st.ID, Bypass: ptr(true)})},
	}
}
