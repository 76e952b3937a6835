package engine

import (
	"fmt"

	"shoal/internal/project"
)

type tapTo struct {
	node *gnode
	buf  pair
}

func tapName(t *project.Tap) string {
	switch t.Point {
	case "before", "after", "path":
		return t.Point + " " + t.Node
	}
	return t.Point + " " + t.Channel
}

// collectTaps notes every key and every input from a tap before chains are built, so that
// each point knows who listens to it.
func (c *compiler) collectTaps() {
	for _, ch := range c.doc.Channels {
		if ch.Input != nil {
			t := c.tap("input of", ch.ID, ch.Input)
			c.feeds[ch.ID] = append(c.feeds[ch.ID], feed{t.node, t.buf, "tap"})
		}
		ch.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			if n.Stage != nil && n.Stage.Key != nil {
				t := c.tap("key of", n.Stage.ID, n.Stage.Key)
				c.where["key "+n.Stage.ID] = t.buf
				c.points["key "+n.Stage.ID] = t.node
			}
			return true
		})
	}
}

func (c *compiler) tap(kind, id string, at *project.Tap) *tapTo {
	c.g.row = at.Channel
	t := &tapTo{c.g.add(kind, id, kind+" "+id), newPair()}
	c.taps[tapName(at)] = append(c.taps[tapName(at)], t)
	return t
}

// tapped lets the listeners of a point copy it there, and returns the nodes
// that must have run before the buffer is written again.
func (c *compiler) tapped(name string, at *gnode, buf pair) []*gnode {
	var wait []*gnode
	for i, t := range c.taps[name] {
		t.node.after = []*gnode{at}
		id := fmt.Sprintf("%s/%d", name, i)
		to := t.buf
		t.node.emit = func(*gnode) []step {
			return []step{&copyStep{id: id, from: buf, to: to, shift: newShift2(0)}}
		}
		wait = append(wait, t.node)
	}
	return wait
}
