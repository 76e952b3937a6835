package view

import "shoal/internal/project"

// Outline is what is to be said of a document's parts, by their ids: worked out here once a revision, for
// whoever shows them.
type Outline struct {
	Forks map[string]ForkWords `json:"forks" required:"true"`
	// Rows are the channels, or the treatments of pieces, that owners of parameters and of chains belong to: stages, forks, paths, sends,
	// trials, and handles, which belong to that of the first thing that hangs on them.
	Rows map[string]string `json:"rows" required:"true"`
	// Taps are the points of each row where its signal can be taken.
	Taps map[string][]TapPoint `json:"taps" required:"true"`
	// Homes are where each handle can belong: the project, the rows that it moves something of, their forks.
	Homes map[string][]Home `json:"homes" required:"true"`
}

// ForkWords are what a fork is called and what it does.
type ForkWords struct {
	Title string `json:"title" required:"true"`
	Kind  string `json:"kind" required:"true"`
}

// TapPoint is a point of a row, with what says so in a tap, and what in a send.
type TapPoint struct {
	Text  string `json:"text" required:"true"`
	Point string `json:"point" required:"true" enum:"input,before,after,path,pre,post"`
	Node  string `json:"node,omitempty"`
	Pre   bool   `json:"pre" required:"true"`
	After string `json:"after" required:"true"`
}

// Home is where a handle can belong; without an id the project.
type Home struct {
	ID   string `json:"id" required:"true"`
	Text string `json:"text" required:"true"`
}

// OutlineOf says what is to be said.
func OutlineOf(p *project.Project, effects project.Effects) Outline {
	o := Outline{Forks: map[string]ForkWords{}, Rows: map[string]string{}, Taps: map[string][]TapPoint{}, Homes: map[string][]Home{}}
	for _, c := range p.Channels {
		o.Rows[c.ID] = c.ID
		for _, s := range c.Sends {
			o.Rows[s.ID] = c.ID
		}
		for _, t := range c.Trials {
			o.Rows[t.ID] = c.ID
		}
		c.Walk(o.within(c.ID))
		o.Taps[c.ID] = tapsOf(c, effects)
	}
	for _, t := range p.Treatments {
		o.Rows[t.ID] = t.ID
		t.Chain.Walk(o.within(t.ID))
	}
	for _, h := range p.Handles {
		if len(h.Targets) > 0 {
			o.Rows[h.ID] = o.Rows[h.Targets[0].Owner]
		}
	}
	for _, h := range p.Handles {
		o.Homes[h.ID] = homesOf(p, h, o.Rows)
	}
	return o
}

// within says of what stands in a chain to which row, or treatment, it belongs, and what its forks are.
func (o Outline) within(id string) func(*project.Chain, int, *project.Node) bool {
	return func(_ *project.Chain, _ int, n *project.Node) bool {
		o.Rows[n.ID()] = id
		if n.Fork != nil {
			o.Forks[n.Fork.ID] = ForkWords{n.Fork.Title(), n.Fork.KindInWords()}
			for _, path := range n.Fork.Paths {
				o.Rows[path.ID] = id
			}
		}
		return true
	}
}

// tapsOf lists the points of a row, in the order in which the signal passes them.
func tapsOf(c *project.Channel, effects project.Effects) []TapPoint {
	list := []TapPoint{{Text: "what comes in", Point: "input", After: "input"}}
	list = tapsIn(list, c.Chain.Nodes, "", effects)
	return append(list, TapPoint{Text: "before the fader", Point: "pre", Pre: true}, TapPoint{Text: "after the fader", Point: "post"})
}

func tapsIn(list []TapPoint, nodes []*project.Node, within string, effects project.Effects) []TapPoint {
	for _, n := range nodes {
		if n.Fork == nil {
			name := n.Stage.Name
			if info, ok := effects(n.Stage.Effect, n.Stage.Version); ok && name == "" {
				name = info.Name
			}
			list = append(list, TapPoint{Text: within + "after " + name, Point: "after", Node: n.Stage.ID, After: n.Stage.ID})
			continue
		}
		for _, path := range n.Fork.Paths {
			list = tapsIn(list, path.Chain.Nodes, within+path.Name+": ", effects)
			list = append(list, TapPoint{Text: within + "path " + path.Name, Point: "path", Node: path.ID, After: path.ID})
		}
		list = append(list, TapPoint{Text: within + "after " + n.Fork.Title(), Point: "after", Node: n.Fork.ID, After: n.Fork.ID})
	}
	return list
}

func homesOf(p *project.Project, h *project.Handle, rows map[string]string) []Home {
	mine := map[string]bool{rows[h.Home]: h.Home != "", h.Home: h.Home != ""}
	for _, t := range h.Targets {
		mine[rows[t.Owner]] = true
	}
	list := []Home{{Text: "the project"}}
	for _, c := range p.Channels {
		if !mine[c.ID] {
			continue
		}
		list = append(list, Home{c.ID, c.Name})
		c.Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			if n.Fork != nil {
				name := n.Fork.Name
				if name == "" {
					name = "a fork"
				}
				list = append(list, Home{n.Fork.ID, name + " of " + c.Name})
			}
			return true
		})
	}
	return list
}
