package sounding

import (
	"fmt"
	"math"

	"shoal/internal/project"
)

// farIsMuch is from which part of its length on one hears that a voice was stretched.
const farIsMuch = 0.25

// farStretched: a voice is made longer or shorter by more than a quarter, at its pitch. Its consonants smear or are lost.
func farStretched(s *Survey, say func(Sounding)) {
	said := map[string]bool{}
	for _, c := range s.Doc.Channels {
		for _, x := range c.Clips {
			t, ok := s.Doc.TreatmentByID(x.Treatment)
			if !ok || x.Mute || x.Extent == nil || t.Chain.Bypass || said[t.ID] {
				continue
			}
			said[t.ID] = true
			per := float64(x.Extent.Frames) / float64(x.Extent.To-x.Extent.From)
			for _, n := range t.Chain.Nodes {
				st := n.Stage
				if st == nil || st.Bypass || st.Effect != project.LengthStep || value(st, "pitch") != 0 || value(st, "character") != oneVoice {
					continue
				}
				if math.Abs(per-1) > farIsMuch {
					say(stretched(c, x, st, per))
				}
			}
		}
	}
}

// oneVoice is the character of a single voice, as the step counts them.
const oneVoice = 1

func stretched(c *project.Channel, x *project.Clip, st *project.Stage, per float64) Sounding {
	nearest := 100 * (1 + math.Copysign(farIsMuch, per-1))
	out := Sounding{
		Weight: Note, Channel: c.ID, At: st.ID,
		Says: fmt.Sprintf("%s lasts %.0f %% of what it did. Beyond a quarter more or less a voice begins to sound taken apart:"+
			" its consonants smear or are lost.",
			x.Name, 100*per),
	}
	if value(st, "by") == 0 {
		out.Fixes = []Fix{fix(fmt.Sprintf("Stay at %.0f %%", nearest), &project.SetParam{Owner: st.ID, Name: "percent", Value: nearest})}
	}
	return out
}
