package project

import (
	"fmt"
	"slices"
	"strings"
)

// wiring is the graph of points through which signals go, as the engine will run them:
// a loop in it cannot be played.
type wiring struct {
	to   map[string][]string
	name map[string]string // the channel that a point belongs to
	all  []string
	rows []string // names of channels, in the order of the board
}

func (w *wiring) point(id, channel string) string {
	if _, ok := w.name[id]; !ok {
		w.name[id] = channel
		w.all = append(w.all, id)
	}
	return id
}

func (w *wiring) edge(from, to string) { w.to[from] = append(w.to[from], to) }

// tapPoint is the point at which a tap takes the signal.
func tapPoint(t *Tap) string {
	switch t.Point {
	case "before":
		return "before " + t.Node
	case "after":
		return "node " + t.Node
	case "path":
		return "path " + t.Node
	}
	return t.Point + " " + t.Channel
}

// SendPoint is where a send takes the signal.
func SendPoint(c *Channel, s *Send) *Tap {
	switch {
	case s.After == "input":
		return &Tap{Channel: c.ID, Point: "input"}
	case s.After != "" && c.hasPath(s.After):
		return &Tap{Channel: c.ID, Point: "path", Node: s.After}
	case s.After != "":
		return &Tap{Channel: c.ID, Point: "after", Node: s.After}
	case s.Pre:
		return &Tap{Channel: c.ID, Point: "pre"}
	}
	return &Tap{Channel: c.ID, Point: "post"}
}

// SendOpen reports whether mutes let a send through: its own, and the channel's, which
// silences sends before the fader only by choice.
func SendOpen(c *Channel, s *Send) bool {
	return !s.Mute && (!c.Mute || s.before() && !c.MutePre)
}

// before reports whether a send is taken before the fader.
func (s *Send) before() bool { return s.Pre || s.After != "" }

// SendFlows reports whether anything can leave through a send, by mutes and levels.
func SendFlows(c *Channel, s *Send) bool {
	return SendOpen(c, s) && s.Level > -120 && (s.before() || c.Fader > -120)
}

func (p *Project) wire() *wiring {
	w := &wiring{to: map[string][]string{}, name: map[string]string{}}
	for _, c := range p.Channels {
		w.rows = append(w.rows, c.Name)
		in, pre, post := w.point("input "+c.ID, c.Name), w.point("pre "+c.ID, c.Name), w.point("post "+c.ID, c.Name)
		for _, o := range c.chains() {
			w.edge(w.chain(c, o.chain, in), pre)
		}
		w.edge(pre, post)
		if c.Output != "" {
			w.edge(post, "input "+c.Output)
		}
		for _, s := range c.Sends {
			w.edge(tapPoint(SendPoint(c, s)), "input "+s.To)
		}
		if c.Input != nil {
			w.edge(tapPoint(c.Input), in)
		}
	}
	for _, m := range p.Movers {
		if m.Follows() {
			for _, t := range m.Targets {
				w.edge(tapPoint(m.Follow.Tap), p.heardAt(t))
			}
		}
	}
	return w
}

// chain lays the points of a chain behind one another and returns the last.
func (w *wiring) chain(c *Channel, chain *Chain, at string) string {
	for _, n := range chain.Nodes {
		before := w.point("before "+n.ID(), c.Name)
		w.edge(at, before)
		at = w.point("node "+n.ID(), c.Name)
		w.edge(before, at)
		if n.Stage != nil && n.Stage.Key != nil {
			w.edge(tapPoint(n.Stage.Key), at)
		}
		if n.Fork != nil {
			for _, path := range n.Fork.Paths {
				end := w.point("path "+path.ID, c.Name)
				w.edge(w.chain(c, &path.Chain, before), end)
				w.edge(end, at)
			}
		}
	}
	return at
}

// checkLoops refuses a signal that would feed itself, and names its way.
func (p *Project) checkLoops() error {
	if p.flowsDown() {
		return nil
	}
	w := p.wire()
	const (
		unseen = iota
		open
		done
	)
	state := map[string]int{}
	var way []string
	var visit func(at string) error
	visit = func(at string) error {
		way = append(way, at)
		defer func() { way = way[:len(way)-1] }()
		state[at] = open
		for _, to := range w.to[at] {
			if state[to] == open {
				return fmt.Errorf("the signal would feed itself: %s", w.says(append(way[slices.Index(way, to):], to)))
			}
			if state[to] == unseen {
				if err := visit(to); err != nil {
					return err
				}
			}
		}
		state[at] = done
		return nil
	}
	for _, at := range w.all {
		if state[at] == unseen {
			if err := visit(at); err != nil {
				return err
			}
		}
	}
	return nil
}

// says names the channels along a way that ends where it began, the one highest on the board
// first.
func (w *wiring) says(way []string) string {
	var names []string
	for _, at := range way[:len(way)-1] {
		if n := w.name[at]; len(names) == 0 || names[len(names)-1] != n {
			names = append(names, n)
		}
	}
	if len(names) > 1 && names[0] == names[len(names)-1] { // it began in the middle of one
		names = names[1:]
	}
	first := 0
	for i, n := range names {
		if slices.Index(w.rows, n) < slices.Index(w.rows, names[first]) {
			first = i
		}
	}
	names = append(slices.Clone(names[first:]), names[:first]...)
	return strings.Join(append(names, names[0]), " > ")
}

// heardAt is the point at which a parameter works on the signal.
func (p *Project) heardAt(t MoverTarget) string {
	if _, ok := p.Channel(t.Owner); ok {
		return "post " + t.Owner
	}
	if c, i, ok := p.findSend(t.Owner); ok {
		return "input " + c.Sends[i].To
	}
	if _, ok := p.findPath(t.Owner); ok {
		return "path " + t.Owner
	}
	if f, _, ok := p.ForkByID(t.Owner); ok {
		if _, _, ok := f.crossoverParam(t.Name); ok {
			return "before " + t.Owner
		}
	}
	return "node " + t.Owner
}
