package routing

import (
	"shoal/internal/project"
)

// along lists what nodes of a chain do to a signal, one behind the other.
func along(c *project.Channel, nodes []*project.Node, bypassed bool) []Step {
	var out []Step
	for _, n := range nodes {
		switch {
		case bypassed || n.Stage != nil && n.Stage.Bypass || n.Fork != nil && n.Fork.Bypass:
		case n.Stage != nil && n.Stage.Effect == "trim":
			out = append(out, Step{c.ID, n.ID(), nodeName(n), n.Stage.Params["gain"], false})
		case len(out) > 0 && out[len(out)-1].Changes: // effects behind one another share a line
			out[len(out)-1].Says += ", " + nodeName(n)
		default:
			out = append(out, Step{c.ID, n.ID(), nodeName(n), 0, true})
		}
	}
	return out
}

// upTo lists what a channel does to a signal as far as a point of its chain, in forks too: behind
// (or before) a node, or behind a path. It returns the point's name.
func upTo(c *project.Channel, chain *project.Chain, id string, before bool) (steps []Step, name string, ok bool) {
	for i, n := range chain.Nodes {
		if n.ID() == id {
			if !before {
				i++
			}
			return along(c, chain.Nodes[:i], chain.Bypass), nodeName(n), true
		}
		if n.Fork == nil {
			continue
		}
		for _, path := range n.Fork.Paths {
			inner, name, found := []Step(nil), "path "+path.Name, path.ID == id
			if found {
				inner = append(along(c, path.Chain.Nodes, path.Chain.Bypass), pathEnd(c, path))
			} else {
				inner, name, found = upTo(c, &path.Chain, id, before)
			}
			if found {
				return append(along(c, chain.Nodes[:i], chain.Bypass), inner...), name, true
			}
		}
	}
	return nil, "", false
}

func pathEnd(c *project.Channel, path *project.Path) Step {
	if path.Mute {
		return Step{c.ID, path.ID, "Path " + path.Name + " is muted", off, false}
	}
	return Step{c.ID, path.ID, "Path " + path.Name, path.Level, false}
}
