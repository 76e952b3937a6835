// Package routing explains where signals go: what feeds a row and what it feeds, and what
// happens to the level on the way. It reads the document only.
package routing

import (
	"fmt"

	"shoal/internal/project"
)

// Edge is one way for a signal to go from a channel to another.
type Edge struct {
	From string `json:"from" required:"true"`
	To   string `json:"to" required:"true"`
	Kind string `json:"kind" required:"true" enum:"output,send,tap,key"`
	ID   string `json:"id" required:"true"`   // of the send, the stage with the key, or the channel
	Dead bool   `json:"dead" required:"true"` // muted, or turned off: nothing comes through
}

// Reach is everything that a channel's signal meets.
type Reach struct {
	Feeds []string `json:"feeds" required:"true"` // channels that it flows to, near ones first
	Fed   []string `json:"fed" required:"true"`   // channels that flow to it
	Edges []Edge   `json:"edges" required:"true"` // the ways between all of these
}

// Edges lists every way between two channels.
func Edges(p *project.Project) []Edge {
	out := []Edge{}
	for _, c := range p.Channels {
		if c.Output != "" {
			out = append(out, Edge{c.ID, c.Output, "output", c.ID, c.Mute || c.Fader <= -120})
		}
		for _, s := range c.Sends {
			out = append(out, Edge{c.ID, s.To, "send", s.ID, !project.SendFlows(c, s)})
		}
		if c.Input != nil {
			out = append(out, Edge{c.Input.Channel, c.ID, "tap", c.ID, false})
		}
		c.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			if n.Stage != nil && n.Stage.Key != nil && n.Stage.Key.Channel != c.ID {
				out = append(out, Edge{n.Stage.Key.Channel, c.ID, "key", n.Stage.ID, n.Stage.Bypass})
			}
			return true
		})
	}
	return out
}

// Of finds what a channel reaches and what reaches it.
func Of(p *project.Project, id string) (Reach, error) {
	if _, ok := p.Channel(id); !ok {
		return Reach{}, fmt.Errorf("the row is no longer there: somebody has removed it")
	}
	edges := Edges(p)
	r := Reach{Feeds: []string{}, Fed: []string{}, Edges: []Edge{}}
	walk := func(next func(Edge) (from, to string)) map[string]bool {
		seen := map[string]bool{id: true}
		for queue := []string{id}; len(queue) > 0; queue = queue[1:] {
			for _, e := range edges {
				if from, to := next(e); from == queue[0] && !seen[to] {
					seen[to] = true
					queue = append(queue, to)
				}
			}
		}
		return seen
	}
	down := walk(func(e Edge) (string, string) { return e.From, e.To })
	up := walk(func(e Edge) (string, string) { return e.To, e.From })
	for _, c := range p.Channels {
		if c.ID != id && down[c.ID] {
			r.Feeds = append(r.Feeds, c.ID)
		}
		if c.ID != id && up[c.ID] {
			r.Fed = append(r.Fed, c.ID)
		}
	}
	for _, e := range edges {
		if down[e.From] && down[e.To] || up[e.From] && up[e.To] {
			r.Edges = append(r.Edges, e)
		}
	}
	return r, nil
}
