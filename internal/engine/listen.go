package engine

import (
	"shoal/internal/dsp"
	"shoal/internal/project"
)

// Listening is a point that somebody listens to instead of the main output: the
// signal behind a stage or fork, or only what it changes, or paths of forks, one or several
// together. The zero value is the main output.
type Listening struct {
	Node   string
	Change bool // what it adds or takes away: its output less its input, at the same time
	Key    bool // what drives it
	Paths  []string
	// live are the rows with a line that a window has made ready to be recorded: what arrives there passes all stages.
	live []string
}

// listenStep puts what is listened to aside, at the level of the channels' and the
// main fader, so that nothing jumps in level.
type listenStep struct {
	in     []inflow
	faders []*slot // of the channel of each
	gains  []dsp.Glide
	to     pair
	tmp    pair
	stage  *stageStep // its input is taken off; nil: nothing is
	main   *slot
	set    bool
}

func (s *listenStep) run(_ *cursor, n int) {
	clear(s.to.l[:n])
	clear(s.to.r[:n])
	for k := range s.in {
		f, gain := &s.in[k], &s.gains[k]
		g := dsp.Gain(s.faders[k].base()) * dsp.Gain(s.main.base())
		if !s.set {
			gain.Set(g)
		}
		gain.Aim(g, gateFrames)
		left, right := f.arrived(s.tmp, n)
		for i, l := range left {
			r := right[i]
			if s.stage != nil {
				l, r = l-s.stage.input.l[i], r-s.stage.input.r[i]
			}
			k := gain.Next()
			s.to.l[i] += l * k
			s.to.r[i] += r * k
		}
	}
	s.set = true
}

// heardPath is a path that somebody listens to.
type heardPath struct {
	end     *gnode
	ear     pair
	channel *project.Channel
}

// listening adds the step for a node of a channel.
func (c *compiler) listening(ch *project.Channel, node *project.Node, at *gnode, buf pair) *gnode {
	if key, ok := c.where["key "+node.ID()]; ok && c.point.Key {
		at, buf = c.points["key "+node.ID()], key
	}
	stage := ""
	if node.Stage != nil && c.point.Change {
		stage = node.Stage.ID
	}
	return c.ear([]heardPath{{at, buf, ch}}, stage)
}

// ear adds the step that gives the listener what stands at some points, all at the same time.
func (c *compiler) ear(points []heardPath, stage string) *gnode {
	to := newPair()
	c.where["listening"] = to
	n := c.g.add("listening", "", "listening to "+points[0].channel.Name)
	for _, p := range points {
		n.after = append(n.after, p.end)
	}
	n.emit = func(n *gnode) []step {
		s := &listenStep{to: to, tmp: c.tmp, gains: make([]dsp.Glide, len(points)), stage: c.plan.stages[stage]}
		for _, p := range points {
			s.in = append(s.in, inflow{from: p.ear, shift: newShift2(n.lagIn - p.end.lag)})
		}
		c.last = append(c.last, func() { // the faders' steps come later
			for _, p := range points {
				s.faders = append(s.faders, c.plan.slots[address{p.channel.ID, "fader"}])
			}
			s.main = c.plan.slots[address{c.doc.MainChannel().ID, "fader"}]
		})
		return []step{s}
	}
	c.heard = n
	return n
}
