package sounding

import (
	"fmt"
	"slices"
	"strings"

	"shoal/internal/project"
)

// limitLoad is the part of real time from which on the engine is near its limit.
const limitLoad = 0.85

// nearTheLimit: the engine has little time left; the dearest chains are worth printing.
func nearTheLimit(s *Survey, say func(Sounding)) {
	if s.Figures == nil || s.Figures.Load < limitLoad {
		return
	}
	type chain struct {
		name, last string // its row, and the last of its nodes
		nanos      float64
	}
	var list []chain
	cost := map[string]float64{}
	for _, c := range s.Costs {
		cost[c.Stage] = c.Nanos
	}
	for _, c := range s.Doc.Channels {
		if c.Kind == project.Main || c.Waterline != "" || len(c.Chain.Nodes) == 0 {
			continue
		}
		x := chain{name: c.Name, last: c.Chain.Nodes[len(c.Chain.Nodes)-1].ID()}
		stages(c, func(st *project.Stage, _ *project.Chain, _ int) { x.nanos += cost[st.ID] })
		if x.nanos > 0 {
			list = append(list, x)
		}
	}
	slices.SortFunc(list, func(a, b chain) int { return int(b.nanos - a.nanos) })
	var names []string
	var lines []project.Change
	for _, x := range list[:min(3, len(list))] {
		lines = append(lines, &project.PutWaterline{Node: x.last})
		names = append(names, fmt.Sprintf("%s (%.1f %%)", x.name, x.nanos*float64(s.Doc.SampleRate)/1e7))
	}
	main := s.Doc.MainChannel()
	says := fmt.Sprintf("Rendering takes %.0f %% of real time in this browser; gaps may be heard.", s.Figures.Load*100)
	if len(names) > 0 {
		says += " Printing frees most at " + strings.Join(names, ", ") + ": it sounds as before, and what you touch runs again."
	}
	out := Sounding{Weight: Caution, Channel: main.ID, At: main.ID, Says: says}
	if len(lines) > 0 {
		out.Fixes = []Fix{fix("Print them behind the music", lines...)}
	}
	say(out)
}
