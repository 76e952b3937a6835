package sounding

import (
	"fmt"
	"strings"

	"shoal/internal/project"
)

// doesNothing: there are stages, but none of them changes anything.
func doesNothing(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		if len(c.Chain.Nodes) == 0 || c.Kind == project.Return { // a return's case is that nothing comes back
			continue
		}
		works := false
		stages(c, func(st *project.Stage, _ *project.Chain, _ int) { works = works || !neutral(st) })
		forks(c, func(*project.Fork, *project.Chain, int) { works = true }) // that has a rule of its own
		if works {
			continue
		}
		why := "none of its stages is set to change anything"
		list := []project.Change{}
		if c.Chain.Bypass {
			why = "its chain is bypassed"
		}
		for _, n := range c.Chain.Nodes {
			list = append(list, &project.RemoveNode{ID: n.ID()})
		}
		x := Sounding{
			Weight:  Note,
			Channel: c.ID,
			At:      c.ID,
			Says:    fmt.Sprintf("The chain of %s does nothing: %s. It still costs attention, and time.", c.Name, why),
			Fixes:   []Fix{fix("Remove its stages", list...)},
		}
		if c.Chain.Bypass {
			x.Fixes = append([]Fix{fix("Switch it on", &project.SetChain{Owner: c.ID, Bypass: ptr(false)})}, x.Fixes...)
		}
		say(x)
	}
}

// neutral reports whether a stage leaves the signal as it is, by its settings.
func neutral(st *project.Stage) bool {
	switch st.Effect {
	case "trim":
		return st.Params["gain"] == 0 && st.Params["polarity"] == 0 && st.Params["sides"] == 0 && st.Params["offset"] == 0
	case "equaliser":
		for name, v := range st.Params {
			band := name[len(name)-1:]
			if value(st, "on"+band) == 0 {
				continue
			}
			if shape := value(st, "shape"+band); shape > 2 { // cuts and notches work without a gain
				return false
			}
			if strings.HasPrefix(name, "gain") && v != 0 {
				return false
			}
		}
		return true
	}
	return false
}
